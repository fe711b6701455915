"""A recipe edited with twenty sizes shown: when the chosen one has followed, when the others have, and the longest pause."""

from __future__ import annotations

import statistics
import time

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QApplication

from bench.timing import opened
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.desk.window import Window

TICK_MS = 5
EDITS = ({"shape": "v"}, {"shape": "square"}, {"shape": "canoe"}, {"shape": "scoop"})  # necklines, the step that takes longest
ONE_SECOND = 1.0


def twenty_sizes() -> dict[str, float]:
    """Seconds: an edit with the `chosen` size, the same edit `plain` at the table, the `others`, the longest `pause`."""
    style = next(style for style in demo_styles() if len(style.sizes) == 20)
    window = opened(style)
    window.run("view.sizes")
    sizes = window.views.in_sizes.sizes
    _until(lambda: not sizes.is_at_work)
    chosen, others, pauses = [], [], []
    plain = [_plain(window, style, asked) for asked in EDITS]
    window.run("view.sizes")
    _until(lambda: not sizes.is_at_work)
    for asked in EDITS:
        before = {one.wearer: one for one in sizes.sizes}
        edited = _edited(window, style, asked)
        began = time.perf_counter()
        window.model.edit(edited, "a neckline")
        chosen.append(time.perf_counter() - began)
        gaps = _gaps(window, lambda before=before: all(one is not before.get(one.wearer) for one in sizes.sizes))
        others.append(time.perf_counter() - began)
        pauses.append(max(gaps))
        _until(lambda: not sizes.is_at_work)
    window.model.file.replace(style, None)
    window.close()
    found = {"chosen": chosen, "others": others, "pause": pauses, "plain": plain}
    return {name: statistics.median(seconds) for name, seconds in found.items()}


def _edited(window: Window, style: Style, asked: dict[str, str]) -> Style:
    step = registry.read({"do": "neck.shape", "on": "front", **asked})
    return window.model.style.model_copy(update={"steps": (*style.steps[:-1], step)})


def _plain(window: Window, style: Style, asked: dict[str, str]) -> float:
    """The edit at the table, where nobody looks at sizes."""
    window.run("view.style")
    edited = _edited(window, style, asked)
    began = time.perf_counter()
    window.model.edit(edited, "a neckline")
    seconds = time.perf_counter() - began
    window.model.undo()
    return seconds


def _gaps(parent, is_so) -> list[float]:  # type: ignore[no-untyped-def]
    """How long the interface was away, time after time, until something is so."""
    found, last, timer = [0.0], [time.perf_counter()], QTimer(parent)

    def tick() -> None:
        now = time.perf_counter()
        found.append(now - last[0])
        last[0] = now

    timer.timeout.connect(tick)
    timer.start(TICK_MS)
    _until(is_so)
    timer.stop()
    return found


def _until(is_so) -> None:  # type: ignore[no-untyped-def]
    while not is_so():
        QApplication.processEvents()
        time.sleep(0.001)
