"""True size in the window: marks dragged to the simulated projector's mat, bars typed, the picture measured."""

from __future__ import annotations

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtGui import QImage, QPainter
from PyQt6.QtTest import QTest

from tests.desk.test_pages import type_into
from tests.samples import move, style
from zesty_pivot.core.finish.sheet import Laid
from zesty_pivot.core.true_size.display import mark_places
from zesty_pivot.data.demo import _read
from zesty_pivot.desk.paper.show_picture import paint_picture
from zesty_pivot.desk.settings import load


def opened(open_desk, steps=()):  # type: ignore[no-untyped-def]
    window = open_desk(style(list(steps)))
    window.run("paper.true_size")
    return window, window.views.showing, window.views.paper.true_size


def drawn(one: Laid) -> np.ndarray:
    return one.piece.ring + np.array([one.dx, one.dy])


def lay_marks(showing, noise: float = 0.0, seed: int = 0) -> None:  # type: ignore[no-untyped-def]
    exact = showing.displays.projector.px_at(mark_places(showing.device))
    off = np.random.default_rng(seed).uniform(-noise, noise, exact.shape)
    showing.keep(marks=tuple((float(x), float(y)) for x, y in exact + off))


def picture(showing) -> np.ndarray:  # type: ignore[no-untyped-def]
    """The grey values (height, width) of the picture."""
    wide, tall = (round(side) for side in showing.size)
    image = QImage(wide, tall, QImage.Format.Format_Grayscale8)
    painter = QPainter(image)
    paint_picture(painter, showing, "cm")
    painter.end()
    bits = image.constBits()
    bits.setsize(image.sizeInBytes())
    return np.frombuffer(bits, np.uint8).reshape(tall, image.bytesPerLine())[:, :wide].astype(float)


def test_marks_are_dragged_to_their_crosses(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    _window, showing, view = opened(open_desk)
    assert showing.shown is None and "Not at true size yet" in view.told.text()
    view.aim.click()
    assert showing.is_aiming and len(showing.device.marks) == 9
    # Marks that nobody has laid tell nothing, however well they fit each other.
    assert showing.shown is None and "Not at true size yet" in view.told.text()
    canvas = view.canvas
    for number, (x, y) in enumerate(mark_places(showing.device)):
        at = showing.displays.projector.on_mat(np.array(showing.marks[number]))
        start, stop = canvas.to_px(float(at[0]), float(at[1])), canvas.to_px(float(x), float(y))
        QTest.mousePress(canvas, Qt.MouseButton.LeftButton, pos=start.toPoint())
        QTest.mouseMove(canvas, stop.toPoint())
        QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, pos=stop.toPoint())
        assert showing.mark == number
        if number == 4:
            assert showing.shown is None and "marks 6, 7, 8, 9 are still where all begin" in view.told.text()
    assert showing.shown is not None and 0.0 < showing.shown.off < 3.0  # a pixel of the small view is 1.5 mm
    # By keys, to the pixel of the picture.
    canvas.setFocus()
    exact = showing.displays.projector.px_at(mark_places(showing.device))
    while showing.mark != 0:
        QTest.keyClick(canvas, Qt.Key.Key_N)
    for number in range(9):
        for axis, keys in ((0, (Qt.Key.Key_Left, Qt.Key.Key_Right)), (1, (Qt.Key.Key_Up, Qt.Key.Key_Down))):
            left = exact[number][axis] - showing.marks[number][axis]
            for _ in range(abs(round(left))):
                QTest.keyClick(canvas, keys[int(left > 0)])
        QTest.keyClick(canvas, Qt.Key.Key_N)
    assert np.abs(np.array(showing.marks) - exact).max() <= 0.5 + 1e-9
    assert showing.shown.off < 0.4
    QTest.keyClick(canvas, Qt.Key.Key_Return)
    assert not showing.is_aiming and "fit within" in view.told.text()
    assert load().screens["simulated"].marks == showing.marks  # kept with the device


@pytest.mark.parametrize("seed", range(3))
def test_a_square_of_500_mm_measured_in_the_picture(open_desk, qtbot, seed: int) -> None:  # type: ignore[no-untyped-def]
    """After marks with half a pixel of noise: lines of the grid, found in the picture's grey values, carried to the mat by what
    the projector truly does."""
    _window, showing, _view = opened(open_desk)
    showing.keep(mat=(1000.0, 600.0), line=1.0)
    lay_marks(showing, 0.5, seed)
    showing.shift = (3000.0, 0.0)  # no piece is in the way
    grey = picture(showing)
    corners = []
    for x, y in ((-250.0, -250.0), (250.0, -250.0), (250.0, 250.0), (-250.0, 250.0)):
        # Where a line across and one down are seen beside their crossing, half way to the next lines.
        spots = []
        for dx, dy, axis in ((0.0, 25.0, 0), (25.0, 0.0, 1)):
            px, py = np.round(showing.displays.projector.px_at(np.array((x + dx, y + dy)))).astype(int)
            strip = grey[py, px - 12 : px + 13] if axis == 0 else grey[py - 12 : py + 13, px]
            peak = float((np.arange(-12, 13) * strip).sum() / strip.sum())
            at = showing.displays.projector.on_mat(
                np.array((px + peak + 0.5, py + 0.5) if axis == 0 else (px + 0.5, py + peak + 0.5))
            )
            spots.append(float(at[axis]))
        corners.append(spots)
    found = np.array(corners)
    sides = np.hypot(*(found - np.roll(found, -1, axis=0)).T)
    assert np.abs(sides - 500.0).max() < 1.0
    assert np.abs(np.hypot(*(found[2:] - found[:2]).T) - 500.0 * np.sqrt(2.0)).max() < 1.0


def test_pieces_are_shown_turned_and_mirrored(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, showing, view = opened(open_desk, [move("shoulder", "french")])
    lay_marks(showing)
    view.what.picked.emit("front")
    (one,) = showing.laid
    ring = drawn(one)
    assert (ring.min(axis=0) + ring.max(axis=0)) / 2.0 == pytest.approx((0.0, 0.0), abs=1e-9)
    original = next(piece for piece in window.model.derived.sheet_pieces if piece.name == "front").ring
    middle = (original.min(axis=0) + original.max(axis=0)) / 2.0
    assert ring == pytest.approx(original - middle)
    window.run("show.turn")  # clockwise: what was at the top is at the right
    turned = drawn(showing.laid[0])
    assert turned == pytest.approx(np.stack([-(original - middle)[:, 1], (original - middle)[:, 0]], axis=1), abs=1e-6)
    for _ in range(3):
        window.run("show.turn")
    view.mirrored.click()
    over = drawn(showing.laid[0])
    assert over == pytest.approx((original - middle) * (-1.0, 1.0), abs=1e-6)
    assert all(abs(text.turn) < np.pi / 2.0 + 1e-6 for text in showing.laid[0].piece.texts if text.turn == 0.0)
    # By the hand: the pattern goes as far as the hand on the mat; while it does only the picture is drawn.
    told: list[str] = []
    showing.changed.connect(lambda: told.append("changed"))
    showing.dragged.connect(lambda: told.append("dragged"))
    canvas = view.canvas
    start = canvas.to_px(0.0, 0.0).toPoint()
    QTest.mousePress(canvas, Qt.MouseButton.LeftButton, pos=start)
    QTest.mouseMove(canvas, start + QPoint(60, 30))
    QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, pos=start + QPoint(60, 30))
    assert told == ["dragged", "changed"]
    assert showing.shift == pytest.approx((60 / canvas.scale, 30 / canvas.scale), abs=0.01)
    canvas.setFocus()
    QTest.keyClick(canvas, Qt.Key.Key_Right, Qt.KeyboardModifier.ShiftModifier)
    assert showing.shift[0] == pytest.approx(60 / canvas.scale + 50.0, abs=0.01)
    window.run("show.middle")
    QTest.keyClick(canvas, Qt.Key.Key_N)
    assert showing.what == "back" and showing.shift == (0.0, 0.0)


def test_the_lay_is_shown(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, showing, view = opened(open_desk)
    assert "*lay" not in dict(showing.choices)
    window.run("paper.cloth")
    qtbot.waitUntil(lambda: window.views.cloths.plan is not None and not window.views.cloths.search.is_at_work, timeout=30_000)
    window.run("paper.true_size")
    view.what.picked.emit("*lay")
    plan = window.views.cloths.plan
    for quarters in range(4):
        rings = np.concatenate([drawn(one) for one in showing.laid])
        size = sorted(np.ptp(rings, axis=0))
        flat = np.concatenate([drawn(one) for one in plan.laid])
        assert size == pytest.approx(sorted(np.ptp(flat, axis=0)), abs=1e-6)
        assert (np.ptp(rings, axis=0)[0] > np.ptp(rings, axis=0)[1]) == (
            (np.ptp(flat, axis=0)[0] > np.ptp(flat, axis=0)[1]) == (quarters % 2 == 0)
        )
        window.run("show.turn")


def test_a_screen_whose_bars_are_measured(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, showing, view = opened(open_desk)
    told: list[str] = []
    window.model.said.connect(lambda text, _fault: told.append(text))
    window.run("view.true_size")
    assert "Measure the bars" in told[-1]
    key = next(key for key in showing.displays.all() if key != "simulated")
    view.device.picked.emit(key)
    wide, tall = showing.size
    assert showing.device.way == "bars" and showing.shown is None and "measure both bars" in view.told.text()
    view.aim.click()
    type_into(view.across, "spoon")
    assert view.across.fault() and showing.device.bars == (None, None)
    type_into(view.across, "20")
    # One bar by itself is no measure of the other: nothing is shown as true before both are.
    assert showing.device.bars == (200.0, None) and showing.shown is None and "measure both bars" in view.told.text()
    type_into(view.down, "15")
    assert showing.device.bars == (200.0, 150.0)
    assert showing.shown.to_px(np.array([100.0, 100.0])) == pytest.approx(
        (wide / 2 + 100.0 * 0.8 * wide / 200.0, tall / 2 + 100.0 * 0.8 * tall / 150.0)
    )
    type_into(view.down, "2")
    assert "do not belong to one screen" in view.told.text() and showing.shown is None
    type_into(view.down, "15")
    view.aim.click()
    window.run("show.fill")
    full = window.views.full
    assert full is not None and full.isFullScreen()
    QTest.keyClick(full, Qt.Key.Key_N)
    assert showing.what == "front"
    QTest.keyClick(full, Qt.Key.Key_Escape)
    qtbot.waitUntil(lambda: window.views.full is None)
    window.run("show.fill")
    window.model.set_view("style")
    window.run("view.true_size")
    assert window.canvas().scale == pytest.approx((0.8 * wide / 200.0 + 0.8 * tall / 150.0) / 2.0)
    # The window that fills the screen goes with the program's.


def test_an_inch_room_has_an_inch_mat_and_the_worst_mark_is_named(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, showing, view = opened(open_desk)
    window.run("units.in")
    assert showing.device.mat == pytest.approx((20 * 25.4, 12 * 25.4)) and view.mat[0].edit.text() == "20 in"
    lay_marks(showing)
    marks = list(showing.marks)
    marks[3] = (marks[3][0] + 9.0, marks[3][1])
    showing.keep(marks=tuple(marks))
    assert "Mark 4 fits worst" in view.told.text()


def test_what_is_wrong_is_told(open_desk, qtbot) -> None:  # type: ignore[no-untyped-def]
    window, showing, view = opened(open_desk)
    lay_marks(showing)
    marks = list(showing.marks)
    showing.keep(marks=(marks[1], marks[0], *marks[2:]))
    assert "crosswise" in view.told.text() and showing.shown is None
    view.count.picked.emit("4")
    assert showing.device.marks == () and "Not at true size" in view.told.text()
    lay_marks(showing)
    assert "Four marks always fit" in view.told.text()
    type_into(view.mat[0], "1 mm")
    assert view.mat[0].fault() and showing.device.mat[0] == 500.0
    QTest.keyClick(view.mat[0].edit, Qt.Key.Key_Escape)
    type_into(view.line, "40 mm")
    assert view.line.fault() and showing.device.line == 1.0
    # An undo takes a piece away that is shown: another is shown, and nothing is left over.
    panels = _read("canticle.zpiv")
    window.model.file.replace(panels, None)
    view.what.picked.emit("front_side")
    window.model.edit(panels.model_copy(update={"steps": ()}), "no steps")
    assert showing.what == "back" and len(showing.laid) == 1
