"""Smoke tests in a real window under Xvfb: the program starts on the demo, is drawn, and ends; its window comes back."""

import os
import shutil
import subprocess
import sys
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest

LOOK = """
import sys
from PyQt6.QtCore import QTimer
from zesty_pivot.desk.start import application, open_window
app = application()
window = open_window(None)
window.show()
def look():
    image = window.grab().toImage()
    colors = {image.pixel(x, y) for x in range(0, image.width(), 17) for y in range(0, image.height(), 13)}
    print(app.platformName(), image.width(), image.height(), len(colors))
    window.close()
    app.quit()
QTimer.singleShot(600, look)
sys.exit(app.exec())
"""

PLACE = """
import sys
from PyQt6.QtCore import QTimer
from zesty_pivot.desk.start import application, open_window
app = application()
window = open_window(None)
window.show()
window.begin(with_start_page=False)
def look():
    print(window.width(), window.height(), window.model.view, window.pages.tour.isVisible())
    window.resize(1111, 777)
    QTimer.singleShot(200, lambda: (window.close(), app.quit()))
QTimer.singleShot(400, look)
sys.exit(app.exec())
"""


@pytest.fixture
def run_under_x(tmp_path: Path) -> Iterator[Callable[[str], list[str]]]:
    """Runs a program in a process of its own on an X server; what it printed, in words."""
    server = shutil.which("Xvfb")
    assert server, "Xvfb is installed by `make test`"
    read, write = os.pipe()
    x = subprocess.Popen(
        [server, "-displayfd", str(write), "-screen", "0", "1400x900x24", "-nolisten", "tcp"], pass_fds=[write],
        stderr=subprocess.DEVNULL,
    )  # fmt: skip
    os.close(write)
    with os.fdopen(read) as pipe:
        display = f":{pipe.readline().strip()}"
    tmp_path.chmod(0o700)
    env = {**os.environ, "DISPLAY": display, "QT_QPA_PLATFORM": "xcb", "XDG_RUNTIME_DIR": str(tmp_path)}

    def run(code: str, **more: str) -> list[str]:
        found = subprocess.run(
            [sys.executable, "-c", code], env={**env, **more}, capture_output=True, text=True, timeout=60, check=False
        )
        assert found.returncode == 0, found.stderr
        return found.stdout.split()

    yield run
    x.terminate()
    x.wait(10)


def test_the_window_under_an_x_server(run_under_x) -> None:
    platform, width, height, colors = run_under_x(LOOK)
    assert platform == "xcb" and int(width) >= 960 and int(height) >= 640
    assert int(colors) > 20  # it is drawn, not blank


def test_the_window_comes_back_where_it_was(run_under_x) -> None:
    """The first start shows the demo and walks through the ring; the second has the size the first was left with."""
    assert run_under_x(PLACE) == ["1280", "800", "style", "True"]
    assert run_under_x(PLACE)[:2] == ["1111", "777"]


def test_the_first_window_fits_the_screen_at_150_percent(run_under_x) -> None:
    """1400x900 pixels are 933x600 at 150 %."""
    assert run_under_x(PLACE, QT_SCALE_FACTOR="1.5")[:2] == ["933", "600"]
