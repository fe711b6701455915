"""piece.true."""

import math

import pytest

from tests.samples import move, real_block, real_pattern, worked
from zesty_pivot.core.conventions.sewing import PLAIN
from zesty_pivot.core.moves.redraw import corner
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.piece_true import worst

WAIST = {"do": "piece.true", "on": "front", "edge": "waist"}


def test_an_open_mouth_is_blended_with_its_legs_equal() -> None:
    found = worked([WAIST])
    piece = found.pattern.piece("front")
    assert worst(piece, "waist", PLAIN) is None
    legs = piece.legs("waist")
    assert legs[0] == pytest.approx(legs[1], abs=1e-9)
    (note,) = found.states[1].notes
    assert note.amount_mm is not None and 1.0 < note.amount_mm < 8.0  # truing moves seams by some 3 to 5 mm: common practice
    assert "moved by up to" in note.text


def test_a_closed_joint_is_blended() -> None:
    piece = worked([move("waist", "french"), WAIST]).pattern.piece("front")
    assert worst(piece, "waist", PLAIN) is None
    for index, run in enumerate(piece.runs):
        if run.edge == "waist" and piece.runs[piece.after(index)].edge == "waist":
            assert abs(math.degrees(corner(piece, index, PLAIN))) < 1e-6


def test_a_smooth_edge_is_left_alone() -> None:
    found = worked([{**WAIST, "edge": "armhole"}])
    assert found.pattern == real_pattern()
    assert "smooth already" in found.states[1].notes[0].text


def test_truing_twice_changes_nothing_more() -> None:
    once, twice = worked([WAIST]).pattern, worked([WAIST, WAIST]).pattern
    assert once == twice


def test_other_edges_keep_their_length() -> None:
    piece, block = worked([WAIST]).pattern.piece("front"), real_pattern().piece("front")
    for edge in ("neckline", "shoulder", "armhole", "side_seam", "centre"):
        assert piece.edge(edge).sewn_length == pytest.approx(block.edge(edge).sewn_length, abs=1e-9)


@pytest.mark.parametrize(
    ("change", "said"),
    [({"over": "0 cm"}, "longer than 0"), ({"edge": "hem"}, "no edge 'hem'"), ({"over": "hips"}, "no measurement")],
)
def test_refusals(change: dict[str, str], said: str) -> None:
    step = registry.read({**WAIST, **change})
    found = Evaluator().evaluate(real_pattern(), [step], Scope("cm", real_block().measurements))
    assert said in str(found.broken[0][1])
