"""Panels on the desk: the princess line's handles and table of intakes, panels apart and together, curvature, joining."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QImage, QPainter
from PyQt6.QtTest import QTest

from tests.desk.driving import type_into
from tests.desk.handles import drag, points
from tests.samples import style
from zesty_pivot.core.piece.pattern import numbered
from zesty_pivot.desk.table.comb import teeth
from zesty_pivot.desk.table.shapes import shapes_of

FRONT = {"do": "line.princess", "on": "front"}
BACK = {"do": "line.princess", "on": "back"}


def opened(open_desk, *steps):  # type: ignore[no-untyped-def]
    window = open_desk(style(list(steps) or [FRONT]))
    window.strip.choose(1)
    return window


def painted(window) -> QImage:  # type: ignore[no-untyped-def]
    image = QImage(window.table.size(), QImage.Format.Format_ARGB32_Premultiplied)
    painter = QPainter(image)
    window.table.render_to(painter)
    painter.end()
    return image


def test_the_line_is_dragged_by_its_handles(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk)
    assert set(points(window)) == {"from_", "bow_above", "past", "bow_below", "to"}
    drag(window, "from_", QPointF(-30, -12))
    step = window.model.style.steps[0]
    assert step.from_.edge == "shoulder" and step.from_.at != "50%" and not window.model.derived.derivation.broken
    drag(window, "bow_above", QPointF(-12, 0))
    assert window.model.style.steps[0].bow_above.startswith("-") and window.model.style.steps[0].bow_above.endswith(" mm")
    drag(window, "past", QPointF(7, 0))
    assert float(window.model.style.steps[0].past.removesuffix(" mm")) > 0.0
    drag(window, "to", QPointF(-14, 0))
    assert window.model.style.steps[0].to.edge == "waist"
    for _ in range(4):
        window.run("edit.undo")
    assert window.model.style.steps[0].from_.station == "mid_shoulder" and window.model.style.steps[0].to is None


def test_a_line_that_cannot_be_is_not_put_down(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk)
    drag(window, "bow_above", QPointF(400, 0))
    assert str(window.model.style.steps[0].bow_above) == "0" and "Not moved" in window.message.text()
    drag(window, "from_", QPointF(-15, 0), drop=False)
    QTest.keyClick(window.table, Qt.Key.Key_Escape)
    assert not window.model.file.is_dirty and window.table.handles.held is None


def test_the_table_of_intakes_tells_what_the_darts_give(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk)
    form = window.side.reading.form("line.princess")
    told = {name: form.fields[name].edit.placeholderText() for name in ("top", "chest", "under_bust", "waist", "hip")}
    assert all(told[name].startswith("darts give ") for name in ("top", "chest", "under_bust", "waist"))
    assert told["hip"] == "not on this line" and not form.fields["hip"].isEnabled()
    waist = window.model.pattern.lines[0]
    type_into(form.fields["waist"].edit, "6 cm")
    assert window.model.style.steps[0].waist == "6 cm" and window.model.pattern.lines[0] != waist
    assert "6.0" in form.fields["waist"].edit.toolTip()
    form.fields["school"].picked.emit("hollow")
    assert "(darts" in form.fields["chest"].edit.placeholderText()
    type_into(form.fields["ease"].edit, "9 mm")
    assert "ease over the bust" in window.side.reading.step_fault.text()


def test_panels_move_apart_and_together(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk, FRONT, BACK)
    shifts = window.table.layout_now()
    assert shifts["front_side"].dx - shifts["front_centre"].dx > 10.0
    window.style_view.foot.spread.setValue(0)
    shifts = window.table.layout_now()
    assert shifts["front_side"] == shifts["front_centre"] and window.lay.spread == 0.0
    window.run("table.spread")
    assert window.lay.spread == 1.0 and window.style_view.foot.spread.value() == 100
    boxes = [window.table.layout_now()[piece.name].box(shapes_of(piece).box) for piece in window.model.pattern.pieces]
    assert boxes[0].right() < boxes[1].right() and not window.model.file.is_dirty
    plain = open_desk(style([]))
    assert not plain.style_view.foot.spread.isVisible() and not plain.qt_action("table.spread").isEnabled()


def test_panels_are_numbered_round_the_body(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk, FRONT, BACK)
    pattern = window.model.pattern
    window.strip.choose(2)
    pattern = window.model.pattern
    names = [numbered(pattern, piece) for piece in pattern.pieces]
    assert names == ["1  Front centre", "2  Front side", "4  Back centre", "3  Back side"]
    words = [text.text for piece in window.model.derived.pieces for text in piece.texts]
    assert {f"panel {number} of 4" for number in (1, 2, 3, 4)} <= set(words)


def test_the_account_stands_where_the_darts_went(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk)
    window.model.choose_pivot(("front", "bust_point"))
    account = window.model.account
    assert account is not None and account.placed[0].use == "seam" and account.is_whole
    ring = window.table.ring()
    assert ring is not None and ring.is_sewn and painted(window) is not None
    passing = opened(open_desk, {**FRONT, "past": "2 cm", "rest": "dart"})
    passing.model.choose_pivot(("front_centre", "bust_point"), "princess")
    ring = passing.table.ring()
    assert ring is not None and [bead.dart for bead in ring.beads] == ["princess"]
    assert passing.model.account is not None and passing.model.account.is_whole


def test_the_curvature_is_shown(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk)
    before = painted(window)
    QTest.mouseClick(window.style_view.foot.comb, Qt.MouseButton.LeftButton)
    assert window.lay.comb and painted(window) != before
    window.run("table.comb")
    assert not window.lay.comb and painted(window) == before
    side = next(run.path for run in window.model.pattern.piece("front_side").runs if run.edge == "princess")
    found = max(abs(curvature) for _foot, _tip, curvature in teeth(side))
    assert 0.0 < found < 0.1  # no corner is left: nowhere sharper than a radius of 1 cm


def test_pieces_are_joined_from_their_form(open_desk) -> None:  # type: ignore[no-untyped-def]
    cut = {"do": "line.cut", "on": "front", "from": {"edge": "centre", "at": "80%"}, "to": {"edge": "centre", "at": "60%"},
           "shape": "heart", "width": "3 cm"}  # fmt: skip
    window = opened(open_desk, cut)
    window.run("add.piece.join")
    step = window.model.style.steps[1]
    assert (step.on, step.other) == ("front", "front_panel") and not window.model.derived.derivation.broken
    form = window.side.reading.form("piece.join")
    form.fields["other"].picked.emit("back")
    said = window.side.reading.step_fault.text()
    assert "not lie flat" in said or "both pieces have a dart" in said
    window.run("edit.undo")
    assert len(window.model.pattern.pieces) == 2


def test_a_panel_within_its_piece_is_laid_beside_it(open_desk) -> None:  # type: ignore[no-untyped-def]
    cut = {"do": "line.cut", "on": "front", "from": {"edge": "centre", "at": "80%"}, "to": {"edge": "centre", "at": "60%"},
           "shape": "keyhole", "width": "3 cm"}  # fmt: skip
    window = opened(open_desk, cut)
    shifts = window.table.layout_now()
    main, panel = (shifts[name].box(shapes_of(window.model.pattern.piece(name)).box) for name in ("front", "front_panel"))
    assert panel.left() > main.right()
    window.lay.set_spread(0.0)
    assert window.table.layout_now()["front_panel"] == window.table.layout_now()["front"]


def test_the_wanted_ease_is_written_in_the_finish_view(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([FRONT]))
    window.model.set_view("finish")
    view = window.views.finish
    waist = view.ease["waist"]
    assert waist.edit.placeholderText().startswith("now ") and not view.ease["hip"].isEnabled()
    type_into(waist.edit, "10 cm")
    assert window.model.style.finish.wearing_ease == {"waist": "10 cm"}
    assert [f.place for f in window.model.findings if f.check == "girths"] == ["waist"]
    type_into(waist.edit, "a lot")
    assert waist.fault() and window.model.style.finish.wearing_ease == {"waist": "10 cm"}
    waist.give_up()
    waist.edit.clear()
    QTest.keyClick(waist.edit, Qt.Key.Key_Return)
    assert window.model.style.finish.wearing_ease == {}
    window.run("edit.undo")
    assert window.model.style.finish.wearing_ease == {"waist": "10 cm"}
