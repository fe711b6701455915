"""Fixtures: the application, a window on a style, answers to its questions."""

import logging
import os
import threading
import traceback
import zlib

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")  # as the program has it, whatever loads NumPy first
os.environ.pop("PYTHONDONTWRITEBYTECODE", None)  # what tests start many times need not be compiled each time

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings

from zesty_pivot.core.faults import LOGGER

hypothesis_settings.register_profile(
    "ours",
    max_examples=30 if os.environ.get("WHOLE") else 12,
    deadline=None,
    derandomize=True,
    suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much],
)
hypothesis_settings.load_profile("ours")


SLOWEST = "test_newcomer.py"  # begun first, so that nobody waits for it at the end
LARGE, DAILY = 4, 0.15  # cases of one test from which on only a share of them is run each day, always the same ones
WHOLE = ("tests/kept/", "tests/jobs/", "tests/torture/", "tests/desk/test_actions.py", "tests/test_words.py")


def daily(ids: list[str]) -> set[str]:
    """The cases of a large family that are run each day, one at least: by their names, so that they are so everywhere."""
    found = {id: zlib.crc32(id.encode()) for id in ids}
    return {id for id, number in found.items() if number < DAILY * 2**32} or {min(ids, key=found.__getitem__)}


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    """The longest test goes first; the others keep their order. Where everything is asked for, large families of cases give a
    share of theirs, and what is marked `whole` is left out, unless WHOLE=1 says otherwise; a test that is named runs with all
    it has."""
    items.sort(key=lambda item: item.path.name != SLOWEST)
    if config.args != config.getini("testpaths") or os.environ.get("WHOLE"):
        return
    families: dict[str, list[str]] = {}
    for item in items:
        families.setdefault(item.nodeid.partition("[")[0], []).append(item.nodeid)
    kept = {
        id for cases in families.values()
        for id in (cases if len(cases) < LARGE or cases[0].startswith(WHOLE) else daily(cases))
    }  # fmt: skip
    left = {item for item in items if item.nodeid not in kept or item.get_closest_marker("whole") is not None}
    items[:] = [item for item in items if item not in left]
    config.hook.pytest_deselected(items=left)


class Answers:
    """Stands for the dialogs: answers what the test prepared, and remembers what was asked."""

    def __init__(self) -> None:
        self.path: Path | None = None
        self.keep = "discard"
        self.over = "cancel"
        self.typed: str | None = "Another"
        self.shown: list[Path] = []
        self.asked: list[str] = []

    def open_file(self, title: str, kinds: str) -> Path | None:
        self.asked.append(title)
        return self.path

    def save_file(self, title: str, start: str, kinds: str) -> Path | None:
        self.asked.append(title)
        return self.path

    def folder(self, title: str) -> Path | None:
        self.asked.append(title)
        return self.path

    def keep_changes(self, name: str) -> str:
        self.asked.append(name)
        return self.keep

    def changed_on_disk(self, name: str) -> str:
        self.asked.append(f"changed {name}")
        return self.over

    def printer(self) -> None:
        self.asked.append("printer")

    def text(self, title: str, name: str, start: str) -> str | None:
        self.asked.append(title)
        return self.typed


@pytest.fixture(autouse=True)
def own_folders(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """Settings, journal and data of every test in folders of its own."""
    for name in ("CONFIG", "STATE", "DATA", "CACHE"):
        monkeypatch.setenv(f"XDG_{name}_HOME", str(tmp_path / f"xdg-{name.lower()}"))


class FaultNet(logging.Handler):
    """Collects the faults of the program that were caught while a test ran."""

    def __init__(self) -> None:
        super().__init__()
        self.caught: list[tuple[str, BaseException]] = []

    def emit(self, record: logging.LogRecord) -> None:
        self.caught.append((record.getMessage(), record.__dict__["fault"]))


@pytest.fixture(autouse=True)
def fault_net(request: pytest.FixtureRequest) -> Iterator[FaultNet]:
    """A fault that a boundary caught fails the test all the same, unless the test is marked `plants_faults`."""
    net = FaultNet()
    LOGGER.addHandler(net)
    yield net
    LOGGER.removeHandler(net)
    if net.caught and request.node.get_closest_marker("plants_faults") is None:
        said = ["".join(traceback.format_exception(fault)) for _doing, fault in net.caught]
        pytest.fail(f"caught in {net.caught[0][0]}:\n{said[0]}")


@pytest.fixture
def rough_stand(monkeypatch: pytest.MonkeyPatch) -> float:
    """Cloth on the stand in large triangles (mm) and small pictures of it, for tests of what is done with it."""
    from zesty_pivot.core.formats import stood
    from zesty_pivot.core.stand import fitting, paper, printed
    from zesty_pivot.desk.stand import to_try, trying_on

    step = 26.0
    for module in (trying_on, to_try, fitting):
        monkeypatch.setattr(module, "COARSE", step)
    monkeypatch.setattr(fitting, "MOST_COARSE", 12)
    for module in (trying_on, stood):
        monkeypatch.setattr(module, "FINE", step)
    monkeypatch.setattr(paper, "STEP", step)
    monkeypatch.setattr(printed, "FINER", 1)
    return step


@pytest.fixture
def open_desk(qtbot) -> Iterator[Callable]:  # type: ignore[no-untyped-def, type-arg]
    """Opens the window on a style (the demo when none is given) with prepared answers."""
    from PyQt6.QtCore import QEvent
    from PyQt6.QtWidgets import QApplication

    from zesty_pivot.data.demo import demo_style
    from zesty_pivot.desk.start import application
    from zesty_pivot.desk.window import Window

    application()
    windows = []

    def opened(style=None):  # type: ignore[no-untyped-def]
        window = Window(style or demo_style())
        window.ask = Answers()
        window.show_file = window.ask.shown.append  # no other program is started by a test
        window.worker.patience = 60.0  # tests wait for long work where they ask for it
        window.resize(1280, 800)
        window.show()
        qtbot.waitExposed(window)
        window.model.pace.check()  # as a moment later
        windows.append(window)
        return window

    yield opened
    for window in windows:
        window.ask.keep = "discard"
        window.close()
        window.deleteLater()
    windows.clear()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    # Windows and threads that outlive their test fail it.
    left = [widget for widget in QApplication.topLevelWidgets() if type(widget).__module__.startswith("zesty_pivot")]
    assert not left, left
    assert not [thread for thread in threading.enumerate() if thread.name.startswith("zesty")]
