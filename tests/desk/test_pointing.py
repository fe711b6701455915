"""Pointing at the pattern with real events: what lies there, its figures against the pattern's own, what begins there."""

from __future__ import annotations

import math

import pytest
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest

from tests.samples import hip_block, move, style
from zesty_pivot.core.formats.table_lay import PieceLay, TableLay
from zesty_pivot.core.piece import place as places
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.desk.table.things import in_order

LEFT = Qt.MouseButton.LeftButton
PLEATS = {"do": "fullness.pleat", "on": "back", "kind": "inverted", "count": 1}


def spot(window, piece: str, edge: str, share: float) -> QPoint:  # type: ignore[no-untyped-def]
    """A place of an edge, px."""
    known = next(one for one in window.model.pattern.with_extras if one.name == piece)
    at = places.point(known, places.along(known, edge, share * known.edge(edge).sewn_length))
    return window.table.to_px(*window.table.layout_now()[piece].on_table(at)).toPoint()


def inside(window, piece: str, x: float, y: float) -> QPoint:  # type: ignore[no-untyped-def]
    return window.table.to_px(*window.table.layout_now()[piece].on_table((x, y))).toPoint()


def click(window, at: QPoint):  # type: ignore[no-untyped-def]
    QTest.mouseMove(window.table, at)
    QTest.mouseClick(window.table, LEFT, pos=at)
    card = window.table.pointing.card
    card.finish()
    return card


def figures(card) -> dict[str, str]:  # type: ignore[no-untyped-def]
    return dict(card.figures.rows)


def test_a_shoulder_says_its_lengths_and_what_begins_there(open_desk) -> None:
    window = open_desk(style([]))
    card = click(window, spot(window, "back", "shoulder", 0.75))
    assert card.isVisible() and card.title.text() == "Back shoulder"
    back = window.model.pattern.piece("back")
    runs = [run.path.length for run in back.runs if run.edge == "shoulder"]
    shown = figures(card)
    assert shown["Sewn"] == window.model.length(sum(runs))
    assert shown["Open on the paper"] == window.model.length(sum(runs) + math.dist(*back.mouth("shoulder")))
    assert shown["Sewn to front shoulder"].endswith("shorter")  # the back's is eased in, so the front's is the shorter one
    away = [float(shown[f"From the {end}"].split()[0]) for end in ("neck point", "shoulder tip")]
    assert sum(away) == pytest.approx(sum(runs) / 10.0, abs=0.11) and away[0] > away[1]
    titles = [offer.title for offer in card.offers]
    assert titles[:3] == ["Princess line from here", "Yoke below it", "Move the seam forward"]
    assert "Move the waist dart here" in titles


def test_a_step_begins_with_its_place_and_the_hand_in_its_field(open_desk) -> None:
    window = open_desk(style([]))
    window.model.choose_pivot(None)
    at = spot(window, "front", "neckline", 0.7)
    card = click(window, at)
    wanted = next(k for k, offer in enumerate(card.offers) if offer.title == "Princess line from here")
    assert not card.isHidden()
    card.buttons[wanted].click()
    step = window.model.style.steps[-1]
    assert step.do == "line.princess" and step.from_.edge == "neckline" and card.isHidden()
    front = window.model.derived.derivation.block.piece("front")
    ends = front.ends["neckline"]
    mm = float(step.from_.at.split()[0]) * 10.0
    along = mm if step.from_.from_ == ends[0] else front.edge("neckline").sewn_length - mm
    assert along == pytest.approx(0.7 * front.edge("neckline").sewn_length, abs=2.0)
    assert window.side.reading.form("line.princess").isAncestorOf(window.focusWidget())


def test_a_station_nearby_is_meant_and_inches_are_said_in_eighths(open_desk) -> None:
    window = open_desk(style([], units="in"))
    window.model.choose_pivot(None)
    card = click(window, spot(window, "front", "shoulder", 0.9))
    value = next(offer for offer in card.offers if offer.do == "line.princess").values[0]
    assert value["from"]["from"] == "shoulder_tip" and value["from"]["at"].endswith(" in")
    front = window.model.pattern.piece("front")
    card = click(window, spot(window, "front", "armhole", 0.49))
    value = next(offer for offer in card.offers if offer.do == "line.princess").values[0]
    assert value["from"] == {"station": "mid_armhole"} and front.has_dart("waist")


def test_what_cannot_be_done_is_dim_and_says_why(open_desk) -> None:
    window = open_desk(style([]))
    window.model.choose_pivot(None)
    card = click(window, spot(window, "front", "side_seam", 0.6))
    number = next(k for k, button in enumerate(card.buttons) if button.property("dim"))
    assert card.buttons[number].toolTip().endswith(".")
    steps = window.model.style.steps
    card.buttons[number].click()
    assert window.model.style.steps == steps and card.isVisible() and card.why.text() == card.buttons[number].toolTip()


def test_a_dart_offers_all_that_a_dart_can_be(open_desk) -> None:
    window = open_desk(style([]))
    window.model.choose_pivot(None)
    back = window.model.pattern.piece("back")
    first, second = back.mouth("waist")
    pin = back.pivot(back.dart("waist").pivot)
    x, y = (first + second + pin) / 3.0
    card = click(window, inside(window, "back", float(x), float(y)))
    assert card.title.text() == "Waist dart, back"
    assert figures(card)["Angle"] == f"{math.degrees(back.angle('waist')):.1f}°"
    titles = {offer.title for offer in card.offers}
    assert {"Gather it", "Make tucks of it", "Ease it in", "Let it flare", "Split it in two", "Park it"} <= titles
    tucks = next(k for k, offer in enumerate(card.offers) if offer.title == "Make tucks of it")
    card.begin(tucks)
    assert window.model.style.steps[-1].do == "dart.use" and not window.model.derived.derivation.broken


@pytest.mark.parametrize("steps", [[], [PLEATS], [{"do": "neck.shape", "on": "front", "shape": "asymmetric"}]])
@pytest.mark.parametrize("turn", [0, 90])
def test_every_edge_is_found_where_it_is_drawn(open_desk, steps: list, turn: int) -> None:
    """Also on a whole piece, with pleats laid open, and turned on the table; and each offer of it is a step or says why."""
    table = TableLay(pieces={"back": PieceLay(turn=turn)})
    window = open_desk(style(steps).model_copy(update={"table": table}))
    window.model.choose_pivot(None)
    for piece in window.model.pattern.pieces:
        for edge, _role in piece.roles:
            thing = window.table.pointing
            at = spot(window, piece.name, edge, 0.37)
            if piece.fullness:  # where the paper has it, not the sewn piece
                continue
            thing._look(QPointF(at))
            assert thing.over is not None and (thing.over.piece, thing.over.id.partition(":")[0]) == (piece.name, edge)
            share = thing.over.along / piece.edge(edge).sewn_length
            assert share == pytest.approx(0.37, abs=0.03), (piece.name, edge)


def test_by_keyboard_alone(open_desk) -> None:
    """Tab walks edges and darts in order, left and right go along an edge, Enter opens, arrows choose, Enter begins."""
    window = open_desk(style([]))
    table = window.table
    table.setFocus()
    order = in_order(window.model.pattern)
    for thing in order[:3]:
        QTest.keyClick(table, Qt.Key.Key_Tab)
        assert table.pointing.chosen.key == thing.key
    QTest.keyClick(table, Qt.Key.Key_Backtab, Qt.KeyboardModifier.ShiftModifier)
    assert table.pointing.chosen.key == order[1].key
    before = table.pointing.chosen.along
    QTest.keyClick(table, Qt.Key.Key_Right)
    assert table.pointing.chosen.along == pytest.approx(before + 5.0)
    QTest.keyClick(table, Qt.Key.Key_Return)
    card = table.pointing.card
    assert card.isVisible()
    QTest.keyClick(card.buttons[0], Qt.Key.Key_Down)
    QTest.keyClick(card.buttons[1], Qt.Key.Key_Escape)
    assert card.isHidden()
    QTest.keyClick(table, Qt.Key.Key_Return)
    QTest.keyClick(card.buttons[0], Qt.Key.Key_Return)
    assert len(window.model.style.steps) == 1 and card.isHidden()
    QTest.keyClick(table, Qt.Key.Key_Escape)
    for _thing in order:
        QTest.keyClick(table, Qt.Key.Key_Tab)
    assert table.pointing.chosen.key == in_order(window.model.pattern)[len(order) - 1].key


def test_pushing_the_paper_about_is_no_click(open_desk) -> None:
    window = open_desk(style([]))
    window.model.choose_pivot(None)
    at = spot(window, "front", "shoulder", 0.4)
    QTest.mousePress(window.table, LEFT, pos=at)
    QTest.mouseMove(window.table, at + QPoint(30, 10))
    QTest.mouseRelease(window.table, LEFT, pos=at + QPoint(30, 10))
    assert not window.table.pointing.is_open


def test_pieces_are_laid_elsewhere_by_their_names(open_desk) -> None:
    window = open_desk(style([]))
    table = window.table
    box = table.label_box(window.model.pattern.piece("back"))
    caught = QPoint(int(box.left()) + 8, int(box.top()) + 12)
    before, scale = table.layout_now()["back"], table.scale
    assert [laid.piece.name for laid in window.model.derived.sheet.laid][:2] == ["back", "front"]
    QTest.mousePress(table, LEFT, pos=caught)
    QTest.mouseMove(table, caught + QPoint(20, 60))
    QTest.mouseRelease(table, LEFT, pos=caught + QPoint(20, 60))
    now = table.layout_now()["back"]
    assert (now.dx - before.dx, now.dy - before.dy) == pytest.approx((20 / scale, 60 / scale), abs=1e-6)
    assert window.model.style.table.pieces["back"].y == pytest.approx(now.dy - before.dy)
    window.run("table.line_up")
    assert table.layout_now()["back"].dy == before.dy
    window.run("edit.undo")
    window.run("table.sides")
    layout = table.layout_now()
    assert layout["front"].dx < layout["back"].dx and window.model.style.table.left == "front"
    assert [laid.piece.name for laid in window.model.derived.sheet.laid][:2] == ["front", "back"]  # in all views
    for _undo in range(2):
        window.run("edit.undo")
    assert table.layout_now()["back"] == before


def test_the_paper_keeps_still_unless_something_is_out_of_sight(open_desk) -> None:
    window = open_desk(style([]))
    view = window.table.scale, window.table.origin
    window.run("add.dart.park")
    window.run("edit.undo")
    assert (window.table.scale, window.table.origin) == view
    window.run("add.piece.unfold")  # needs more room than there is
    assert window.table.shows(window.table.content_box())
    window.run("view.piece")
    assert window.table.scale > view[0]
    window.run("view.fit")
    assert window.table.shows(window.table.content_box())


@pytest.mark.parametrize("scale", [0.2, 0.45, 1.0, 2.5, 6.0])
@pytest.mark.parametrize("name", ["plain", "pleats", "hip", "tapes"])
def test_no_words_lie_over_others_at_any_zoom(open_desk, name: str, scale: float) -> None:
    tape = {"do": "measure.tape", "on": "front", "from": {"landmark": "neck_point"}, "to": {"landmark": "bust_point"}}
    known = {
        "plain": style([move("shoulder", "french")]), "pleats": style([PLEATS]), "hip": style([], hip_block()),
        "tapes": style([{**tape, "name": f"tape {k}"} for k in range(4)]),
    }  # fmt: skip
    window = open_desk(known[name])
    table = window.table
    table.ring_hand._is_near = True  # every station says its name
    table.zoom(scale)
    table.grab()
    written = table.words.written
    assert written
    for number, (text, ground) in enumerate(written):
        for other, taken in written[:number]:
            assert not ground.intersects(taken), (text, other)


def test_words_of_a_piece_do_not_slip_onto_another(open_desk) -> None:  # type: ignore[no-untyped-def]
    """The numbers of a drape's folds stood on the lining beside it."""
    chorale = next(one for one in demo_styles() if one.name.startswith("Chorale"))
    window = open_desk(chorale)
    window.strip.choose(3)
    window.table.grab()
    numbers = [ground.boundingRect() for text, ground in window.table.words.written if text in "12345"]
    (lining,) = [window.table._ground_of(extra.piece) for extra in window.model.pattern.extras]
    assert len(numbers) >= 3 and lining.width() > 100.0 and not any(lining.intersects(ground) for ground in numbers)
