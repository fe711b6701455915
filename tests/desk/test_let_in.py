"""Gathers, pleats and tucks in the window: added, their places dragged, shut by the Fold slider."""

import pytest
from PyQt6.QtCore import QPointF
from PyQt6.QtWidgets import QLabel

from tests.desk.driving import type_into
from tests.desk.handles import drag, points
from tests.samples import style
from zesty_pivot.core.moves.laid_open import from_paper, laid_open, on_paper
from zesty_pivot.desk.table.laid import shown_piece
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.underlay_page import UnderlayPage

YOKE = {"do": "yoke.cut", "on": "back"}


@pytest.mark.parametrize("do", ["fullness.gather", "fullness.pleat", "fullness.tuck", "yoke.join"])
def test_each_begins_with_something_that_works(open_desk, do: str) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([YOKE, {"do": "yoke.cut", "on": "front"}]))
    window.run(f"add.{do}")
    step = window.model.style.steps[-1]
    assert step.do == do and not window.model.derived.derivation.broken
    assert window.side.reading.form(do).isVisibleTo(window)
    window.run("edit.undo")
    window.run("edit.redo")
    assert window.model.style.steps[-1] == step


def test_pleats_are_drawn_as_they_lie_and_shut_by_the_slider(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{"do": "fullness.pleat", "on": "back", "count": 2, "depth": "1 cm", "edge": "neckline"}]))
    piece = window.model.pattern.piece("back")
    plain = open_desk(style([])).model.pattern.piece("back")
    wide, sewn = shapes_of(piece).box.width(), shapes_of(plain).box.width()
    assert wide - sewn == pytest.approx(40.0, abs=0.1)
    sewing = window.model.derived.derivation.sewing
    widths = [shapes_of(shown_piece(piece, share, sewing)).box.width() for share in (0.125, 0.25, 0.375)]
    assert widths == pytest.approx([wide - 10.0, wide - 20.0, wide - 30.0], abs=0.1)  # one after the other, darts after them
    assert not shown_piece(piece, 0.75, sewing).fullness
    window.lay.set_fold(0.3)
    assert not window.grab().isNull()


def test_a_handle_carries_the_first_pleat_along_the_paper(open_desk) -> None:  # type: ignore[no-untyped-def]
    at = {"edge": "waist", "at": "90%"}
    step = {"do": "fullness.pleat", "on": "back", "kind": "inverted", "count": 1, "start": at}
    window = open_desk(style([step]))
    window.strip.choose(1)
    before = points(window)["start"]
    drag(window, "start", QPointF(12, 0))
    assert window.model.style.steps[0].start.at != "90%" and not window.model.derived.derivation.broken
    assert points(window)["start"].x() - before.x() == pytest.approx(12.0, abs=3.0)
    lying = window.table.layout_now()["back"]
    drag(window, "start", window.table.to_px(lying.dx + 1.0, lying.dy + 400.0)
         - points(window)["start"])  # fmt: skip
    assert window.model.style.steps[0].start.at == "100%"  # near CB it is meant to be on it


def test_points_of_the_paper_and_of_the_piece() -> None:
    """There and back again, on either side of every slash; folded cloth belongs to its slash."""
    from tests.samples import real_block
    from zesty_pivot.core.formats.derived import derive

    piece = derive(style([{"do": "fullness.pleat", "on": "back", "count": 2, "far": "0%"}], real_block())).pattern.piece("back")
    for at in ((20.0, 200.0), (60.0, 250.0), (180.0, 300.0), (30.0, 390.0)):
        assert from_paper(piece, on_paper(piece, at)) == pytest.approx(at, abs=1e-9)
    (laid,) = laid_open(piece)[1]
    fold = laid.lines[0]
    middle = (fold.folds[0].point_at(30.0) + fold.places[0].point_at(30.0)) / 2.0
    x, y = from_paper(piece, (float(middle[0]), float(middle[1])))
    (ax, ay), (bx, by) = (tuple(end) for end in laid.borders[0])
    assert abs((x - ax) * (by - ay) - (y - ay) * (bx - ax)) / ((bx - ax) ** 2 + (by - ay) ** 2) ** 0.5 < 15.0


def test_what_lies_open_across_a_cut_has_no_mouth_in_the_account(open_desk) -> None:  # type: ignore[no-untyped-def]
    """A dart used as flare, cut across: the account named its mouth, which is gone, and could not be shown."""
    steps = [
        {"do": "dart.use", "on": "front", "dart": "waist", "as": "flare"},
        {"do": "line.cut", "on": "front", "from": {"edge": "centre", "at": "30%"}, "to": {"edge": "side_seam", "at": "80%"}},
    ]
    window = open_desk(style(steps))
    assert not window.model.derived.derivation.broken
    window.model.choose_pivot(("front", "bust_point"))
    assert window.model.account is not None
    shown = [label.text() for label in window.side.reading._account.findChildren(QLabel)]
    assert "waist, flare" in shown and "All placed." in shown


def test_a_number_that_is_none_stays_and_is_told(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{"do": "fullness.pleat", "on": "back", "count": 2}]))
    window.strip.choose(1)
    form = window.side.reading.form("fullness.pleat")
    type_into(form.fields["depth"].edit, "deep")
    assert form.fields["depth"].edit.text() == "deep" and form.fields["depth"].fault()
    type_into(form.fields["depth"].edit, "9 cm")
    assert window.model.style.steps[0].depth in (None, "9 cm")


def test_the_calculator_follows_what_is_typed(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([], units="cm"))
    window.run("step.underlay")
    (page,) = window.findChildren(UnderlayPage)
    assert page.answer.text().startswith("16 of them, 4.5 cm from one to the next, need 136.0 cm of cloth")
    type_into(page.over.edit, "36 cm")
    type_into(page.many.edit, "18")
    assert "3.00 times" in page.answer.text() and page.picture.shown.count == 18
    type_into(page.many.edit, "19")
    assert "Take 18 at most" in page.answer.text() and page.picture.shown is None
    type_into(page.deep.edit, "wide")
    assert page.deep.fault() and page.deep.edit.text() == "wide"
    assert not page.grab().isNull()


def test_a_seam_is_walked_on_a_piece_with_pleats(open_desk) -> None:  # type: ignore[no-untyped-def]
    """Regression: the paper is torn for the shut shoulder dart, and the slashes of tucks met the tear."""
    tucks = {"do": "fullness.tuck", "on": "back", "edge": "neckline"}
    window = open_desk(style([tucks]))
    window.run("panel.walk")
    for number, seam in enumerate(window.lay.seams):
        window.lay.choose_seam(number)
        window.lay.walk_to(0.5)
        assert window.lay.walked is not None, seam
        for side in (window.lay.walked.a, window.lay.walked.b):
            assert not shapes_of(side.piece).box.isEmpty()
    assert not window.grab().isNull()
