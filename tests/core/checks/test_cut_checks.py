"""The checks of what is cut and sewn: each seen to speak, and to be silent."""

import dataclasses

import numpy as np
import pytest
import shapely

from tests.core.checks.looking import look, said
from tests.samples import hip_block, move, real_block, real_pattern, scaled_value, style
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.finish import whole
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.geometry import Path


def narrower(piece: FinishedPiece, by: float) -> FinishedPiece:
    """A finished piece with its cut line drawn too near."""
    return dataclasses.replace(
        piece, ring=np.asarray(shapely.Polygon(piece.ring).buffer(-by, join_style="mitre").exterior.coords)
    )


@pytest.mark.parametrize("by", [0.2, 1.0, 4.0])
def test_a_cut_line_that_is_too_near_is_told_with_its_measure(by: float, monkeypatch: pytest.MonkeyPatch) -> None:
    assert said("cut_line", look()) == []
    finish_piece = whole.finish_piece
    monkeypatch.setattr(whole, "finish_piece", lambda *args, **more: narrower(finish_piece(*args, **more), by))
    found = [one for one in findings(look(finish=Finish())) if one.check == "cut_line"]
    assert {one.piece for one in found} == {"front", "back"}
    assert all(one.value > by - 0.06 and "too close to its cut line" in one.message for one in found)


def test_a_cut_line_through_the_garment_is_told_with_its_depth(monkeypatch: pytest.MonkeyPatch) -> None:
    """A bite of 90 mm by 30 out of the cut line at the neck."""
    finish_piece = whole.finish_piece

    def bitten(*args: object, **more: object) -> FinishedPiece:
        piece = finish_piece(*args, **more)  # type: ignore[arg-type]
        top = shapely.Polygon(piece.ring).centroid
        bite = shapely.box(top.x - 45.0, top.y - 400.0, top.x + 45.0, top.y)
        left = shapely.Polygon(piece.ring).difference(bite)
        left = max(shapely.get_parts(left), key=lambda part: float(part.area))
        return dataclasses.replace(piece, ring=np.asarray(left.exterior.coords))

    monkeypatch.setattr(whole, "finish_piece", bitten)
    found = [one for one in findings(look(finish=Finish())) if one.check == "cut_line"]
    assert {one.piece for one in found} == {"front", "back"}
    assert all(one.value > 20.0 and f"goes {one.value:.1f} mm into the garment" in one.message for one in found)


def test_a_finger_that_no_offset_keeps_has_no_cut_line_and_says_so() -> None:
    """A dart cut away in a piece so small that its allowances close over it."""
    made = derive(style([], block_file.from_value(scaled_value(0.3, 0.3), "tiny"), finish={"allowance": "home_room"}))
    for piece in made.pieces:
        told = [one for one in made.findings if one.check == "cut_line" and one.piece == piece.name]
        cut = shapely.Polygon(piece.ring)
        assert bool(piece.fault) == bool(told) and cut.is_valid
        if not piece.fault:
            assert all(cut.buffer(0.05).covers(shapely.LineString(part.path.flatten(0.02))) for part in piece.stretches)


def test_checks_that_need_the_finish_wait_while_something_is_dragged() -> None:
    made = derive(style([]), at_rest=False)
    assert "cut_line" not in {one.check for one in made.findings} and not made.at_rest
    assert derive(style([])).at_rest


def test_lengths_of_the_finish_that_cannot_be_worked_out() -> None:
    assert said("finish_lengths", look(finish=Finish(cut_away="bust/90"))) == []
    (told,) = said("finish_lengths", look(finish=Finish(cut_away="wrist/9")))
    assert "'wrist/9'" in told and "no measurement 'wrist'" in told


def test_an_edge_that_lost_its_partner() -> None:
    pattern = real_pattern()
    assert said("partners", look(pattern)) == []
    lonely = dataclasses.replace(pattern, seams=pattern.seams[1:])
    told = said("partners", look(lonely))
    assert len(told) == 2 and all("is not sewn to anything" in text for text in told)
    alone = dataclasses.replace(pattern, pieces=pattern.pieces[:1], seams=())
    assert said("partners", dataclasses.replace(look(alone), block=alone)) == []  # a block of one piece has none to lose


@pytest.mark.parametrize(("gap", "speaks"), [(0.0, False), (0.9, False), (1.1, True), (12.0, True)])
def test_a_step_in_the_centre(gap: float, speaks: bool) -> None:
    """The centre of the back in two stretches, the lower one put aside."""
    pattern = real_pattern()
    back = pattern.piece("back")
    index = next(k for k, run in enumerate(back.runs) if back.role(run.edge) == "centre")
    run = back.runs[index]
    a, b = run.path.start, run.path.end
    half, aside = (a + b) / 2, np.array([gap, 0.0])
    parts = (Path.straight(a, half), Path.straight(half + aside, b))
    runs = (*back.runs[:index], *(dataclasses.replace(run, path=path) for path in parts), *back.runs[index + 1 :])
    told = said("centre_line", look(pattern.with_piece(dataclasses.replace(back, runs=runs))))
    assert bool(told) is speaks
    if speaks:
        assert "the centre of the back has a step of" in told[0]


def test_letters_that_no_font_has() -> None:
    for name in ("Łódź", "Čeština", "Ελληνικά", "Кириллица", "前", "עברית"):
        assert said("letters", look(style=name)) == []
    (told,) = said("letters", look(style="\U00012000"))  # cuneiform
    assert told == "the style's name holds \U00012000, which no font of the program has"


@pytest.mark.parametrize("block", [real_block(), hip_block()], ids=["waist", "hip"])
def test_a_block_as_it_comes_has_nothing_of_this_to_say(block: block_file.BlockFile) -> None:
    mine = {"cut_line", "finish_lengths", "partners", "centre_line", "letters", "idle_step"}
    assert not mine & {one.check for one in derive(style([], block)).findings}


def test_a_step_that_changes_nothing_is_told_of_once() -> None:
    steps = [{"do": "dart.equalise", "on": "front", "darts": ["waist", "shoulder"]}] * 2
    (told,) = [one for one in derive(style(steps)).findings if one.check == "idle_step"]
    assert "step 2" in told.message
    off = [{**move("waist", "french"), "off": True}]
    assert not [one for one in derive(style(off)).findings if one.check == "idle_step"]
