"""Fixtures: the application, a window on a style, answers to its questions."""

import os

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from collections.abc import Callable, Iterator
from pathlib import Path

import pytest
from hypothesis import HealthCheck
from hypothesis import settings as hypothesis_settings

hypothesis_settings.register_profile(
    "ours", deadline=None, derandomize=True, suppress_health_check=[HealthCheck.too_slow, HealthCheck.filter_too_much]
)
hypothesis_settings.load_profile("ours")


class Answers:
    """Stands for the dialogs: answers what the test prepared, and remembers what was asked."""

    def __init__(self) -> None:
        self.path: Path | None = None
        self.keep = "discard"
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


@pytest.fixture
def open_desk(qtbot) -> Iterator[Callable]:  # type: ignore[no-untyped-def, type-arg]
    """Opens the window on a style (the demo when none is given) with prepared answers."""
    from zesty_pivot.data.demo import demo_style
    from zesty_pivot.desk.start import application
    from zesty_pivot.desk.window import Window

    application()
    windows = []

    def opened(style=None):  # type: ignore[no-untyped-def]
        window = Window(style or demo_style())
        window.ask = Answers()
        qtbot.addWidget(window)
        window.resize(1280, 800)
        window.show()
        qtbot.waitExposed(window)
        windows.append(window)
        return window

    yield opened
    for window in windows:
        window.ask.keep = "discard"
        window.close()
