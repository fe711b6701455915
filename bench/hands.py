"""What hands do at the table: frames while hovering, taping and dragging, and single clicks and keys, against its repaint."""

from __future__ import annotations

import math
import statistics
import time
from collections.abc import Callable

from PyQt6.QtCore import QEvent, QPointF, Qt
from PyQt6.QtGui import QImage, QMouseEvent, QPainter, QPen
from PyQt6.QtWidgets import QApplication

from bench.timing import ROUNDS, medians, opened, repainting
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry
from zesty_pivot.data.demo import demo_style
from zesty_pivot.desk.start import application
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.window import Window

ONE_CLICK_ROUNDS = 7


def pointed(table: Canvas, at: QPointF) -> None:
    """The pointer at a place of the table (px), nothing pressed, and what that paints."""
    none = Qt.MouseButton.NoButton
    where = QPointF(table.mapToGlobal(at.toPoint()))
    event = QMouseEvent(QEvent.Type.MouseMove, at, where, none, none, Qt.KeyboardModifier.NoModifier)
    QApplication.sendEvent(table, event)
    table.repaint()


def places(table: Canvas) -> list[QPointF]:
    """Places of the table on a winding way over both pieces, px."""
    wide, high = table.width(), table.height()
    return [
        QPointF(wide * (0.12 + 0.8 * number / (ROUNDS + 2)), high * (0.5 + 0.4 * math.sin(0.9 * number)))
        for number in range(ROUNDS + 2)
    ]


def hovering() -> tuple[float, float, float]:
    """Seconds of a frame while the pointer goes over the pattern, of one while a tape is drawn out, and of a repaint."""
    window = opened(demo_style())
    table = window.table
    way = places(table)
    hover, repaint = medians(lambda number: pointed(table, way[number]), repainting(table))
    window.run("table.tape")
    start = table.to_px(*table.layout_now()["front"].on_table(window.model.pattern.piece("front").corner("neck_point")))
    event = QMouseEvent(
        QEvent.Type.MouseButtonPress, start, QPointF(table.mapToGlobal(start.toPoint())), Qt.MouseButton.LeftButton,
        Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier,
    )  # fmt: skip
    QApplication.sendEvent(table, event)
    if table.tape.tool.start is None:
        raise SystemExit("bench: no tape is drawn out")
    (taping,) = medians(lambda number: pointed(table, way[number]))
    window.close()
    return hover, taping, repaint


def plainly(window: Window) -> Callable[[int], None]:
    """One antialiased fill and stroke of the outlines that lie on the table."""
    table = window.table
    image = QImage(table.size(), QImage.Format.Format_ARGB32_Premultiplied)

    def paint(_number: int) -> None:
        painter = QPainter(image)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.translate(table.origin)
        painter.scale(table.scale, table.scale)
        painter.setPen(QPen(Qt.GlobalColor.black, 1.0 / table.scale))
        painter.setBrush(Qt.GlobalColor.white)
        layout = table.layout_now()
        for piece in window.model.pattern.pieces:
            painter.save()
            layout[piece.name].place(painter)
            painter.drawPath(shapes_of(piece).fill)
            painter.restore()
        painter.end()

    return paint


def dragging(style: Style, dart: str) -> tuple[float, float]:
    """Seconds of a whole frame, work and paint, while a dart is dragged, and of a plain fill and stroke of its outlines."""
    window = opened(style)
    control, table = window.table.control, window.table
    control.pick_up(dart)
    if control.carry is None:
        raise SystemExit("bench: nothing is dragged")

    def frame(number: int) -> None:
        control.point(math.radians(20.0 + 1.5 * number))
        table.repaint()

    found = medians(frame, plainly(window))
    control.let_go()
    window.model.file.replace(style, None)
    window.close()
    return found[0], found[1]


def clicks() -> tuple[float, float, str]:
    """The longest that a click or a key takes (seconds, the median of its rounds) until all it does is painted, a repaint of
    that table, and which it was."""
    neck = {"do": "neck.shape", "on": "front", "shape": "round", "other": "back"}
    window = opened(demo_style().with_steps((*demo_style().steps, registry.read(neck))))
    app, model = application(), window.model
    model.choose_step(len(model.style.steps) - 1)
    app.processEvents()
    gallery = window.drawer.gallery("neck.shape")
    gallery.finish()
    form = window.side.reading.form("neck.shape")
    last = len(model.style.steps) - 1

    def chosen(shape: str) -> Callable[[], object]:
        return lambda: gallery.grid.choices[shape].click()

    acts: dict[str, Callable[[], object]] = {
        "a neckline chosen": chosen("square"),
        "an uneven one": chosen("asymmetric"),
        "a neckline typed": lambda: form.change({"width": "9 cm"}, "bench"),
        "true all": lambda: window.run("true.all"),
        "finish opened": lambda: model.set_view("finish"),
    }
    took: dict[str, list[float]] = {name: [] for name in acts}
    for _round in range(ONE_CLICK_ROUNDS):
        for name, act in acts.items():
            start = time.perf_counter()
            act()
            app.processEvents()
            took[name].append(time.perf_counter() - start)
            model.set_view("style")
            while model.history.undo_title:
                model.undo()
            model.choose_step(last)
            app.processEvents()
    (repaint,) = medians(repainting(window.table))
    window.close()
    found = {name: statistics.median(times[1:]) for name, times in took.items()}
    slowest = max(found, key=lambda name: found[name])
    return found[slowest], repaint, slowest
