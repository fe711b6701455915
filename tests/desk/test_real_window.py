"""A smoke test in a real window under Xvfb: the program starts on the demo, is drawn, and ends."""

import os
import shutil
import subprocess
import sys
from pathlib import Path

CODE = """
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


def test_the_window_under_an_x_server(tmp_path: Path) -> None:
    server = shutil.which("Xvfb")
    assert server, "Xvfb is installed by `make test`"
    read, write = os.pipe()
    x = subprocess.Popen(
        [server, "-displayfd", str(write), "-screen", "0", "1400x900x24", "-nolisten", "tcp"], pass_fds=[write],
        stderr=subprocess.DEVNULL,
    )  # fmt: skip
    os.close(write)
    try:
        with os.fdopen(read) as pipe:
            display = f":{pipe.readline().strip()}"
        env = {**os.environ, "DISPLAY": display, "QT_QPA_PLATFORM": "xcb", "XDG_RUNTIME_DIR": str(tmp_path)}
        tmp_path.chmod(0o700)
        found = subprocess.run([sys.executable, "-c", CODE], env=env, capture_output=True, text=True, timeout=60, check=False)
    finally:
        x.terminate()
        x.wait(10)
    assert found.returncode == 0, found.stderr
    platform, width, height, colors = found.stdout.split()
    assert platform == "xcb" and int(width) >= 960 and int(height) >= 640
    assert int(colors) > 20  # it is drawn, not blank
