"""A photograph without marks in the real window: points dragged to a sheet, sizes typed, laid flat."""

from __future__ import annotations

from pathlib import Path

import cv2
import numpy as np
import pytest
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtTest import QTest

from tests.core.intake.comparing import apart
from tests.core.intake.photo.scenes import scene
from tests.photographed import OnTable, Shot, photograph, placed, table
from zesty_pivot.core.intake.photo.mat import mat
from zesty_pivot.core.record import replace
from zesty_pivot.data.demo import demo_style
from zesty_pivot.desk.model import IMPORT, SIZING

SHEET = np.array([(700.0, 120.0), (910.0, 120.0), (910.0, 417.0), (700.0, 417.0)])
WIDE = replace(mat("A4"), marks=(), width=960.0)
SHOT = Shot(1600, 1200, lean=6.0, towards=60.0, turn=0.0, k1=0.0)


@pytest.fixture(scope="module")
def picture(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The demo's block beside an A4 sheet, from a camera that leans."""
    chance = np.random.default_rng(8)
    pieces = [one for _piece, one in scene(demo_style().block)]
    path = tmp_path_factory.mktemp("bare") / "bare.png"
    path.write_bytes(
        cv2.imencode(".png", photograph(table(WIDE, [*pieces, OnTable(SHEET)], chance), WIDE, SHOT, chance))[1].tobytes()
    )
    return path


@pytest.fixture
def window(open_desk, picture: Path):  # type: ignore[no-untyped-def]
    found = open_desk()
    found.take(picture)
    waited(found)
    assert found.model.view == SIZING
    return found


def waited(window) -> None:  # type: ignore[no-untyped-def]
    while window.worker.is_busy:
        QTest.qWait(10)
    QTest.qWait(30)


def test_a_sheet_is_pointed_at_and_the_block_comes_in(window) -> None:  # type: ignore[no-untyped-def]
    """Each corner dragged, then put exactly by the arrow keys; the sheet's size by its name."""
    sizing, canvas = window.views.intake.sizing, window.views.intake.sizing_view.canvas
    for number, (x, y) in enumerate(placed(WIDE, SHOT).seen_at(list(SHEET))):
        start = canvas.to_px(*sizing.pointed.points[number])
        end = canvas.to_px(float(x), float(y))
        QTest.mousePress(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start.toPoint())
        QTest.mouseMove(canvas, (start + (end - start) / 2).toPoint())
        QTest.mouseMove(canvas, end.toPoint())
        QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, end.toPoint())
        assert canvas.chosen == number
        for _step in range(4):
            at = sizing.pointed.points[number]
            key = Qt.Key.Key_Right if x - at[0] > 0.5 else Qt.Key.Key_Left if x - at[0] < -0.5 else None
            if key is not None:
                QTest.keyClick(canvas, key)
            key = Qt.Key.Key_Down if y - at[1] > 0.5 else Qt.Key.Key_Up if y - at[1] < -0.5 else None
            if key is not None:
                QTest.keyClick(canvas, key)
        assert sizing.pointed.points[number] == pytest.approx((x, y), abs=0.8)
    window.views.intake.sizing_view.buttons["sizing.finish"].click()
    waited(window)
    assert window.model.view == IMPORT
    incoming = window.views.intake.incoming
    assert apart(demo_style().block, incoming.block).seam < 4.0
    assert all(piece.error > 2.0 for piece in incoming.outcome.paper.pieces)
    assert len(incoming.outcome.tagging.others) == 1  # the sheet itself


def test_sizes_ways_and_undo(window) -> None:  # type: ignore[no-untyped-def]
    view, sizing = window.views.intake.sizing_view, window.views.intake.sizing
    first = sizing.pointed
    view.width_field.setFocus()
    view.width_field.selectAll()
    QTest.keyClicks(view.width_field, "8 1/2 in")
    QTest.keyClick(view.width_field, Qt.Key.Key_Return)
    assert sizing.known().width == pytest.approx(215.9) and sizing.pointed.sheet == "own"
    sizing.set_way("ruler")
    assert len(sizing.pointed.points) == 2 and not view.height_field.isVisible() and "straight above" in view.note.text()
    assert sizing.known().width == 300.0
    sizing.set_way("sheet")
    sizing.set_sheet("A3")
    assert (sizing.known().width, sizing.known().height) == (297.0, 420.0)
    for _step in range(4):
        window.run("edit.undo")
    assert sizing.pointed == first


def test_what_makes_no_sheet_is_said_and_the_picture_stays(window) -> None:  # type: ignore[no-untyped-def]
    sizing = window.views.intake.sizing
    wide, high = sizing.size
    for number, (x, y) in enumerate([(0.9, 0.1), (0.1, 0.1), (0.1, 0.9), (0.9, 0.9)]):
        sizing.move(number, x * wide, y * high)
    window.run("sizing.finish")
    waited(window)
    assert window.model.view == SIZING and "clockwise from the upper left" in window.message.text()
    sizing.move(0, -500.0, 1e9)
    assert sizing.pointed.points[0] == (0.0, high - 1.0)
    canvas = window.views.intake.sizing_view.canvas
    QTest.keyClick(canvas, Qt.Key.Key_PageDown)
    assert canvas.chosen == 1
    assert QPointF(*sizing.pointed.points[1]) == canvas.points[1]
