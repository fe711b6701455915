"""Medians of jobs that take turns, the window that is measured, and the repaint that its frames are measured against."""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable

from PyQt6.QtGui import QImage, QPainter

from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.desk.start import application
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.window import Window

ROUNDS = 30


def medians(*jobs: Callable[[int], object], rounds: int = ROUNDS) -> tuple[float, ...]:
    """The median seconds of each job. The jobs take turns, so that a machine that slows down slows them alike; the
    first two rounds do not count."""
    took: list[list[float]] = [[] for _job in jobs]
    for number in range(rounds + 2):
        for job, times in zip(jobs, took, strict=True):
            start = time.perf_counter()
            job(number)
            times.append(time.perf_counter() - start)
    return tuple(statistics.median(times[2:]) for times in took)


def opened(style: Style) -> Window:
    """The window on a style, as it is shown."""
    window = Window(style)
    window.resize(1280, 800)
    window.show()
    application().processEvents()
    window.model.pace.check()
    return window


def repainting(table: Canvas) -> Callable[[int], None]:
    """One repaint of a table into a picture of its size."""
    image = QImage(table.size(), QImage.Format.Format_ARGB32_Premultiplied)

    def repaint(_number: int) -> None:
        painter = QPainter(image)
        table.render_to(painter)
        painter.end()

    return repaint
