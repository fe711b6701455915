"""A block from a file in the real window: dropped, looked at, corrected by clicks and keys, kept, begun over."""

from __future__ import annotations

import random
from pathlib import Path

import numpy as np
import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QImage
from PyQt6.QtTest import QTest

from tests import paper_files
from tests.core.intake.comparing import apart
from tests.paper_blocks import Lay, pieces_of
from tests.random_blocks import random_block
from tests.samples import real_block
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.geometry import Path as Line
from zesty_pivot.core.piece import Body
from zesty_pivot.desk.model import IMPORT, LIBRARY
from zesty_pivot.desk.table.loupe import ACROSS, OFF
from zesty_pivot.desk.theme import NOW


@pytest.fixture
def window(open_desk):  # type: ignore[no-untyped-def]
    return open_desk()


@pytest.fixture
def drawing(tmp_path: Path) -> Path:
    """A block, turned and mirrored, in shuffled lines, with a plain piece beside it that is no bodice."""
    chance = random.Random(8)
    pieces = pieces_of(real_block(), Lay.chance(chance))
    strip = [Line.straight((9000, 0), (9300, 0), (9300, 90), (9000, 90), (9000, 0))]
    path = tmp_path / "rail.svg"
    path.write_bytes(paper_files.svg([*(paper_files.lines_of(piece, chance) for piece in pieces), strip]))
    return path


def brought(window, path: Path):  # type: ignore[no-untyped-def]
    window.take(path)
    while window.worker.is_busy:
        QTest.qWait(10)
    QTest.qWait(30)
    return window.views.intake.incoming


def thing(window, what: str, body: Body = Body.FRONT):  # type: ignore[no-untyped-def]
    canvas = window.views.intake.import_view.canvas
    numbers = [laid.number for laid in canvas.laid if laid.tagged is not None and laid.tagged.body is body]
    return next(one for one in canvas.things if one.what == what and one.number in numbers)


def click(window, at: QPointF) -> None:
    canvas = window.views.intake.import_view.canvas
    QTest.mouseClick(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, at.toPoint())


def say(window, title: str) -> None:
    """The entry of the menu that is open."""
    menu = window.views.intake.import_view.menu
    entry = next(action for action in menu.actions() if action.text() == title)
    entry.trigger()
    menu.close()


def test_a_dropped_file_lies_on_the_table(window, drawing: Path) -> None:
    incoming = brought(window, drawing)
    assert window.model.view == IMPORT
    assert incoming.block is not None and apart(real_block(), incoming.block).seam < 0.001
    view = window.views.intake.import_view
    assert {choice.currentText().rpartition(": ")[2] for choice in view.bodies.values()} == {"front", "back", "no part of it"}
    assert [guess.what for _number, guess in incoming.unsure] == ["fold"]
    assert max(far.mm for far in incoming.far.values()) < 0.01


def test_a_click_on_a_corner_says_what_it_is(window, drawing: Path) -> None:
    """The underarm called shoulder tip: what was said holds, however odd; undo takes it back."""
    incoming = brought(window, drawing)
    canvas = window.views.intake.import_view.canvas
    corner = thing(window, "corner underarm")
    click(window, canvas.to_px(*corner.at))
    assert incoming.chosen == (corner.number, "corner underarm")
    say(window, "This is the shoulder tip")
    assert "shoulder_tip" in incoming.told.hints.of(corner.number).corners
    piece = incoming.outcome.tagging.pieces[corner.number]
    paper = piece.motion.undone(piece.seen.corners["shoulder_tip"])
    assert np.allclose(paper, incoming.told.hints.of(corner.number).corners["shoulder_tip"], atol=0.01)
    window.run("edit.undo")
    assert incoming.block is not None and apart(real_block(), incoming.block).seam < 0.001
    window.run("edit.redo")
    assert "shoulder_tip" in incoming.told.hints.of(corner.number).corners


def test_a_corner_where_the_outline_has_none(window, drawing: Path) -> None:
    """A click on the armhole's middle puts a corner there."""
    incoming = brought(window, drawing)
    canvas = window.views.intake.import_view.canvas
    laid = next(one for one in canvas.laid if one.tagged is not None and one.tagged.body is Body.BACK)
    run = laid.tagged.seen.edges["armhole"].runs[0]
    x, y = map(float, laid.shift(run.point_at(0.4 * run.length)))
    click(window, canvas.to_px(x, y))
    say(window, "This is the shoulder tip")
    block = incoming.block
    assert block is not None
    back = next(piece for piece in block.pieces if piece.name == "back")
    assert back.landmarks["shoulder_tip"][1] == pytest.approx(run.point_at(0.4 * run.length)[1], abs=1.0)


def test_front_and_back_changed_about_and_a_piece_left_out(window, drawing: Path) -> None:
    incoming = brought(window, drawing)
    view = window.views.intake.import_view
    front = next(laid for laid in view.canvas.laid if laid.tagged is not None and laid.tagged.body is Body.FRONT)
    choice = view.bodies[front.number]
    choice.setCurrentIndex(choice.findData("back"))
    choice.activated.emit(choice.currentIndex())
    bodies = {number: piece.body for number, piece in incoming.outcome.tagging.pieces.items()}
    assert bodies[front.number] is Body.BACK and set(bodies.values()) == {Body.FRONT, Body.BACK}
    choice = view.bodies[front.number]
    choice.setCurrentIndex(choice.findData("none"))
    choice.activated.emit(choice.currentIndex())
    assert [piece.name for piece in incoming.block.pieces] == ["back"]  # alone it is what it looks like


def test_the_bust_point_is_dragged_and_moved_by_keys(window, tmp_path: Path) -> None:
    """A block with one dart that stops short: its bust point is asked for first."""
    path = tmp_path / "easy.svg"
    path.write_bytes(paper_files.svg([paper_files.lines_of(piece) for piece in pieces_of(random_block(2), Lay())]))
    incoming = brought(window, path)
    assert incoming.chosen is not None and incoming.chosen[1] == "bust_point"
    canvas = window.views.intake.import_view.canvas
    point = thing(window, "bust_point")
    start = canvas.to_px(*point.at).toPoint()
    QTest.mousePress(canvas, Qt.MouseButton.LeftButton, pos=start)
    goal = start + QPoint(12, -20)
    QTest.mouseMove(canvas, goal)
    QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, pos=goal)
    put = thing(window, "bust_point")
    assert put.sure == "said" and put.at[1] < point.at[1] - 5.0
    canvas.setFocus()
    QTest.keyClick(canvas, Qt.Key.Key_Right)
    assert thing(window, "bust_point").at[0] == pytest.approx(put.at[0] + 1.0, abs=0.01)
    front = next(piece for piece in incoming.block.pieces if piece.name == "front")
    assert front.levels["bust"] == pytest.approx(front.landmarks["bust_point"][1], abs=1e-6)


def test_by_keys_alone(window, drawing: Path) -> None:
    """Page Down goes from thing to thing, Enter asks what it is."""
    brought(window, drawing)
    view = window.views.intake.import_view
    view.canvas.setFocus()
    seen = set()
    for _ in range(len(view.canvas.things)):
        QTest.keyClick(view.canvas, Qt.Key.Key_PageDown)
        seen.add(view.canvas.chosen)
    assert len(seen) == len(view.canvas.things)
    QTest.keyClick(view.canvas, Qt.Key.Key_Return)
    assert view.menu is not None and view.menu.actions()
    view.menu.close()


def test_a_dart_that_is_none(window, drawing: Path) -> None:
    incoming = brought(window, drawing)
    view = window.views.intake.import_view
    dart = thing(window, "dart waist", Body.BACK)
    laid = next(one for one in view.canvas.laid if one.number == dart.number)
    view.ask(dart, laid, QPointF(*dart.at))
    say(window, "This is no dart")
    back = next(piece for piece in incoming.outcome.tagging.pieces.values() if piece.body is Body.BACK)
    assert [one.id for one in back.darts] == ["shoulder"]
    view.ask(None, laid, QPointF(laid.box.center()))
    say(window, "Forget what I said of this piece")
    assert apart(real_block(), incoming.block).seam < 0.001


def test_a_seam_that_does_not_match_is_mended(window, tmp_path: Path) -> None:
    """The front's side 6 mm longer than the back's: told with its amount, and mended."""
    pieces = pieces_of(real_block(), Lay())
    side = pieces[0].corners["side_waist"]
    cubics = [cubic.copy() for cubic in pieces[0].outline.cubics]
    down = (side - pieces[0].corners["underarm"]) / np.hypot(*(side - pieces[0].corners["underarm"])) * 6.0
    for cubic in cubics:
        for end, inner in ((0, 1), (3, 2)):
            if np.hypot(*(cubic[end] - side)) < 1e-6:
                cubic[[end, inner]] += down
    path = tmp_path / "long.svg"
    path.write_bytes(paper_files.svg([[Line(np.stack(cubics))], [pieces[1].outline]]))
    incoming = brought(window, path)
    line = next(line for line in incoming.outcome.walked if line.title == "Side seams")
    before = next(piece for piece in incoming.block.pieces if piece.name == "front")
    assert not line.is_right and "the front is longer by" in line.says and line.mend is not None
    incoming.mend(line)
    line = next(line for line in incoming.outcome.walked if line.title == "Side seams")
    assert line.is_right
    after = next(piece for piece in incoming.block.pieces if piece.name == "front")
    assert after.landmarks["side_waist"] != before.landmarks["side_waist"]


def test_a_style_over_it_and_the_library(window, drawing: Path) -> None:
    brought(window, drawing)
    window.run("import.new_style")
    assert window.model.view == "style" and window.model.style.block.name == "rail"
    window.run("library.show")
    rail = window.views.intake.rail
    assert window.model.view == LIBRARY and [kept.name for kept in rail.blocks] == ["rail"]
    assert "came in from rail.svg" in rail.blocks[0].origin
    assert any("open" in name for name in rail.used_by(rail.blocks[0]))


def test_the_library_in_the_window(window) -> None:
    """Kept, named, noted, searched, versioned, taken out."""
    window.run("library.keep")
    view, rail = window.views.intake.library, window.views.intake.rail
    QTest.qWait(30)
    assert len(view.cards) == 1
    view.name.setText("Isaura's")
    view.name.editingFinished.emit()
    view.notes.setPlainText("fits well")
    view.keep_notes()
    assert rail.blocks[0].name == "Isaura's" and rail.blocks[0].notes == "fits well"
    QTest.keyClicks(view.search, "bust 300")
    assert not view.cards and not view.none.isHidden()
    view.search.clear()
    assert len(view.cards) == 1
    window.model.file.replace(window.model.style.model_copy(update={"block": random_block(2)}), None)
    window.run("library.show")
    window.ask.typed = "for the tour"
    window.run("library.version")
    assert [one.note for one in rail.blocks[0].versions] == ["", "for the tour"]
    window.run("library.take_out")
    assert not rail.blocks and not view.cards


def test_the_library_as_one_file(window, tmp_path: Path) -> None:
    window.run("library.keep")
    window.ask.path = tmp_path / "all"
    window.run("library.export")
    assert (tmp_path / "all.zrail").exists()
    window.run("library.take_out")
    window.take(tmp_path / "all.zrail")
    assert len(window.views.intake.rail.blocks) == 1


@pytest.mark.parametrize("content", [b"", b"<svg", b"\x00\x01", b"IN;PU;", b"0\nSECTION\n"])
def test_a_broken_file_costs_a_sentence(window, tmp_path: Path, content: bytes) -> None:
    path = tmp_path / "broken.svg"
    path.write_bytes(content)
    view = window.model.view
    window.take(path)
    while window.worker.is_busy:
        QTest.qWait(10)
    QTest.qWait(20)
    assert window.model.view == view
    assert "broken.svg" in window.message.toolTip()


def dragged(window, start: QPointF, end: QPointF) -> None:  # type: ignore[no-untyped-def]
    canvas = window.views.intake.import_view.canvas
    QTest.mousePress(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start.toPoint())
    for share in (0.3, 0.7, 1.0):
        QTest.mouseMove(canvas, (start + (end - start) * share).toPoint())
        QTest.qWait(5)
    QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, end.toPoint())


@pytest.fixture
def traced(window):  # type: ignore[no-untyped-def]
    """The demo's block as the simulated digitiser traced it: known within a band, so that it can be dragged."""
    window.run("digitiser.show")
    window.views.intake.digitising.play_demo()
    window.views.intake.digitising.to_end()
    window.run("digitiser.finish")
    return window


def test_a_corner_is_dragged_and_its_edges_go_along(traced) -> None:  # type: ignore[no-untyped-def]
    """Ruler on the made block: shoulder and armhole end where the corner was put, the underarm stays; undo brings it back."""
    window, incoming = traced, traced.views.intake.incoming
    before = block_file.pattern(incoming.block).piece("front")
    canvas = window.views.intake.import_view.canvas
    tip = thing(window, "corner shoulder_tip")
    at = canvas.to_px(*tip.at)
    dragged(window, at, at + QPointF(10, 6))
    mm = 10 / canvas.scale, 6 / canvas.scale
    after = block_file.pattern(incoming.block).piece("front")
    ends = [next(run for run in reversed(piece.runs) if run.edge == "shoulder").path.end for piece in (before, after)]
    assert ends[1] - ends[0] == pytest.approx(mm, abs=1.0 / canvas.scale)  # a pixel
    under = [next(run for run in reversed(piece.runs) if run.edge == "armhole").path.end for piece in (before, after)]
    assert under[1] == pytest.approx(under[0], abs=0.05)
    assert incoming.history.undo_title == "what was dragged"
    window.run("edit.undo")
    assert apart(incoming.block, apart_block(before, incoming)).seam < 1e-9


def apart_block(before, incoming):  # type: ignore[no-untyped-def]
    """The block again, to be compared with itself before."""
    assert block_file.pattern(incoming.block).piece("front").runs == before.runs
    return incoming.block


def test_an_edge_is_bent_by_dragging_and_corners_move_by_keys(traced) -> None:  # type: ignore[no-untyped-def]
    window, incoming = traced, traced.views.intake.incoming
    canvas = window.views.intake.import_view.canvas
    front = next(laid for laid in canvas.laid if laid.tagged.body is Body.FRONT)
    run = max(front.tagged.seen.edges["armhole"].runs, key=lambda one: one.length)
    x, y = map(float, front.shift(run.point_at(run.length / 2)))
    before = incoming.outcome.tagging.pieces[front.number].seen.edges["armhole"].runs
    start = canvas.to_px(x, y)
    dragged(window, start, start - QPointF(12, 0))
    after = incoming.outcome.tagging.pieces[front.number].seen.edges["armhole"].runs
    assert sum(one.length for one in after) > sum(one.length for one in before) + 1.0
    corner = thing(window, "corner underarm")
    incoming.choose((corner.number, corner.what))
    canvas.setFocus()
    QTest.keyClick(canvas, Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    moved = thing(window, "corner underarm")
    assert moved.at[1] - corner.at[1] == pytest.approx(0.5, abs=0.1)


def test_the_loupe_shows_what_lies_under_the_hand(traced) -> None:  # type: ignore[no-untyped-def]
    """While a corner is dragged there is a glass above it, and none afterwards."""
    window = traced
    canvas = window.views.intake.import_view.canvas
    at = canvas.to_px(*thing(window, "corner side_waist").at)
    plain = canvas.grab().toImage()
    QTest.mousePress(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, at.toPoint())
    QTest.mouseMove(canvas, (at + QPointF(8, 8)).toPoint())
    QTest.qWait(10)
    shown = canvas.grab().toImage()
    middle = (at + QPointF(8, 8 - OFF - ACROSS / 2)).toPoint()

    def off(picture: QImage) -> int:
        """How far the cross in the glass is from its colour, where it is drawn best."""
        want = NOW.color("citrus")
        near = [picture.pixelColor(middle + QPoint(dx, dy)) for dx in (-1, 0, 1) for dy in (-1, 0, 1)]
        return min(
            abs(one.red() - want.red()) + abs(one.green() - want.green()) + abs(one.blue() - want.blue()) for one in near
        )

    assert off(shown) < 90 < off(plain)
    QTest.mouseRelease(canvas, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, at.toPoint())
    assert off(canvas.grab().toImage()) > 90


def test_an_exact_drawing_is_not_dragged(window, drawing: Path) -> None:  # type: ignore[no-untyped-def]
    """Its outline is what it is: dragging beside a corner moves the view."""
    incoming = brought(window, drawing)
    canvas = window.views.intake.import_view.canvas
    front = next(laid for laid in canvas.laid if laid.tagged is not None)
    run = front.tagged.seen.edges["side_seam"].runs[0]
    start = canvas.to_px(*map(float, front.shift(run.point_at(run.length / 2))))
    origin = QPointF(canvas.origin)
    dragged(window, start, start + QPointF(30, 0))
    assert not incoming.told.hints.pieces and canvas.origin != origin
    corner = thing(window, "corner underarm")
    at = canvas.to_px(*corner.at)
    dragged(window, at, at + QPointF(20, 0))
    incoming.choose((corner.number, corner.what))
    QTest.keyClick(canvas, Qt.Key.Key_Down, Qt.KeyboardModifier.ShiftModifier)
    assert not incoming.told.hints.pieces
