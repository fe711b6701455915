"""Which body, which side, which edge: values, written as text only in files and messages."""

import re
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import real_pattern, worked
from zesty_pivot.core.moves.mirror import flip, unfold
from zesty_pivot.core.piece import Body, EdgeRef, SeamSide, Side
from zesty_pivot.core.piece.sides import HALF, Sided

SRC = Path(__file__).parents[3] / "src" / "zesty_pivot"
NAMES = st.text("abcxyz_123", min_size=1, max_size=8)


@given(NAMES, NAMES, st.sampled_from([None, *Side]))
def test_a_reference_is_read_as_it_was_written(piece: str, edge: str, side: Side | None) -> None:
    at = EdgeRef(piece, edge if side is None else side.id(edge))
    assert EdgeRef.read(str(at)) == at and SeamSide((at,)).only == at
    assert str(SeamSide((at, at))) == f"{at}+{at}" and SeamSide((at, at)).only is None


def test_sides_know_the_name_of_the_half() -> None:
    sides = HALF.joined({"waist.left": Sided("waist", Side.LEFT), "tuck": Sided("tuck", Side.RIGHT)})
    assert sides.of("waist.left") is Side.LEFT and sides.of("tuck") is Side.RIGHT and sides.of("waist.right") is None
    assert sides.name("waist.left") == "waist" and sides.id("waist", Side.LEFT) == "waist.left"
    assert sides.id("waist", Side.RIGHT) == "waist" == sides.id("waist", None)


def test_a_name_that_ends_like_a_side_is_just_a_name() -> None:
    """On a half a dart may be called so; it was taken for a side of a piece that has none."""
    made = worked(
        [{"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "french"}, "share": "40%", "as": "a.right"}]
    )
    piece = made.pattern.piece("front")
    assert piece.has_dart("a.right") and not piece.is_unfolded and piece.sides == HALF


@pytest.mark.parametrize("name", ["front", "back"])
def test_everything_of_an_unfolded_piece_is_on_a_side_of_its_own_half(name: str) -> None:
    half = real_pattern().piece(name)
    whole = unfold(half)
    for run in whole.runs:
        side, x = whole.sides.of(run.edge), float(run.path.point_at(run.path.length / 2.0)[0])
        assert side is (Side.LEFT if x > 0.0 else Side.RIGHT)
    for dart in whole.darts:
        assert whole.sides.of(dart.id) is whole.sides.of(dart.pivot)
    assert {whole.sides.name(dart.id) for dart in whole.darts} == {dart.id for dart in half.darts}
    turned = flip(whole, *([0.0, 0.0], [0.0, 1.0]))  # the paper turned over: what is worn on the left stays so
    assert turned.sides == whole.sides


def test_a_dart_made_on_one_side_is_of_that_side() -> None:
    """Its name had no side in it, so it was on none."""
    to = {"station": "mid_neck", "side": "left"}
    made = worked([{"do": "piece.unfold", "on": "front"},
                   {"do": "dart.move", "on": "front", "dart": "shoulder.right", "to": to, "share": "50%"}])  # fmt: skip
    piece = made.pattern.piece("front")
    (new,) = [dart for dart in piece.darts if dart.id == "mid_neck"]
    assert new.pivot == "bust_point.right" and piece.sides.of(new.id) is Side.RIGHT


BOTH = ["front", "back"]
STEPS = [
    [{"do": "line.princess", "on": on} for on in BOTH],
    [{"do": "piece.unfold", "on": on} for on in BOTH],
    [{"do": "piece.facing", "kind": "neck"}],
    [{"do": "line.contour", "on": "back"}, {"do": "line.princess", "on": "back"}],
]


@pytest.mark.parametrize("steps", STEPS)
def test_what_is_made_of_a_piece_covers_the_same_body(steps: list[dict]) -> None:
    made = worked(steps)
    assert not made.broken
    for piece in made.pattern.with_extras:
        assert piece.body.value == piece.name.partition("_")[0], piece.name


def test_a_side_panel_is_neither_front_nor_back() -> None:
    made = worked([{"do": "piece.side_panel"}])
    assert not made.broken and made.pattern.piece("side_panel").body is Body.NONE


def test_no_name_carries_meaning() -> None:
    """A grep: the body of a piece and the side of a name are asked of values."""
    for path in SRC.rglob("*.py"):
        if path.name != "migrations.py":
            text = path.read_text()
            assert not re.search(
                r"startswith\(.(back|front)|endswith\(.\.(left|right)|removesuffix\((LEFT|RIGHT|mark|side)", text
            ), path
