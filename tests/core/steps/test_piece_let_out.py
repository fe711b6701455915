"""piece.let_out: the sides go by what is asked, square to themselves; girths by four times that; partners stay partners."""

import numpy as np
import pytest
import shapely

from tests.samples import hip_block, move, real_block, style
from tests.torture.blocks import block
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.region import outline

OUT = {"do": "piece.let_out", "on": "front"}


def side(piece: Piece) -> list[np.ndarray]:
    """The side seam's ends, as they lie where no dart opens in it."""
    runs = [run for run in piece.runs if piece.role(run.edge) == "side_seam"]
    return [runs[0].path.start, runs[-1].path.end]


def long(piece: Piece) -> float:
    return next(edge.sewn_length for edge in piece.edges if edge.role == "side_seam")


def made(steps: list[dict], base=None) -> Derived:  # type: ignore[no-untyped-def, type-arg]
    found = derive(style(steps, base))
    assert not found.derivation.broken, found.derivation.broken
    return found


@pytest.mark.parametrize("base", [real_block(), hip_block(), block(3), block(9)], ids=["real", "hip", "3", "9"])
@pytest.mark.parametrize(("top", "bottom"), [(10.0, 10.0), (0.0, 20.0), (15.0, 0.0), (-6.0, -4.0)])
def test_each_end_goes_by_what_is_asked(base, top: float, bottom: float) -> None:  # type: ignore[no-untyped-def]
    before = made([], base).pattern
    names = [piece.name for piece in before.pieces]
    steps = [{**OUT, "other": "back" if "back" in names else "", "top": f"{top} mm", "bottom": f"{bottom} mm"}]
    after = made(steps, base).pattern
    for name in names:
        old, new = side(before.piece(name)), side(after.piece(name))
        opens = any(run.mouth for run in before.piece(name).runs if before.piece(name).role(run.edge) == "side_seam")
        for was, now, asked in zip(old, new, (top, bottom), strict=True):
            assert np.hypot(*(now - was)) == pytest.approx(abs(asked), abs=1e-6)
            if not opens:  # square to the seam, outwards
                chord = (old[1] - old[0]) / np.hypot(*(old[1] - old[0]))
                assert abs(float((now - was) @ chord)) < 1e-6
                assert float((now - was) @ np.array([chord[1], -chord[0]])) == pytest.approx(asked, abs=1e-6)
        if top == bottom and not opens:
            assert long(after.piece(name)) == pytest.approx(long(before.piece(name)), abs=1e-6)
    if "back" in names:  # what matched, matches
        lengths = [long(after.piece(name)) - long(before.piece(name)) for name in names]
        assert lengths[0] == pytest.approx(lengths[1], abs=0.6)


def test_the_girths_change_by_four_times_as_much() -> None:
    """Two edges at each of two sides; the seam of this block stands within 12 degrees of upright."""
    before, after = made([]), made([{**OUT, "top": "1 cm", "bottom": "1 cm"}])
    for girth in ("bust", "waist"):
        change = getattr(after.girths, girth) - getattr(before.girths, girth)
        assert 4.0 * 10.0 * np.cos(np.radians(12.0)) <= change <= 4.0 * 10.0 / np.cos(np.radians(12.0))
    assert after.girths.neck_opening == pytest.approx(before.girths.neck_opening)
    assert {one.check for one in after.findings} <= {one.check for one in before.findings}


def across(found: Derived, level: str) -> float:
    """The cloth of front and back at a level of the block, both sides, by Shapely on the paper."""
    total = 0.0
    for piece in found.pattern.pieces:
        y = piece.levels[level]
        cut = shapely.intersection(shapely.Polygon(outline(piece)), shapely.LineString([(-2000.0, y), (2000.0, y)]))
        total += 2.0 * float(cut.length)
    return total


def test_the_waist_of_a_longer_piece_goes_through_its_own_amount() -> None:
    base = hip_block()
    before, after = made([], base), made([{**OUT, "top": "0", "waist": "15 mm", "bottom": "5 mm"}], base)
    assert after.girths.waist - before.girths.waist == pytest.approx(60.0, rel=0.06)
    for girth in ("bust", "waist", "hip"):
        told = getattr(after.girths, girth) - getattr(before.girths, girth)
        assert told == pytest.approx(across(after, girth) - across(before, girth), abs=1.2), girth
    even = made([{**OUT, "top": "0", "bottom": "5 mm"}], base)
    assert even.girths.waist - before.girths.waist < 20.0


def test_a_waist_length_piece_has_no_waist_between() -> None:
    with_waist = made([{**OUT, "top": "1 cm", "waist": "3 cm", "bottom": "1 cm"}])
    assert side(with_waist.pattern.piece("front"))[1] == pytest.approx(side(made([OUT]).pattern.piece("front"))[1])


def test_out_and_in_again_is_as_before() -> None:
    back = {**OUT, "top": "-1 cm", "bottom": "-1 cm"}
    before, after = made([move("waist", "french")]), made([move("waist", "french"), OUT, back])
    for name in ("front", "back"):
        one, two = before.pattern.piece(name), after.pattern.piece(name)
        assert two.area == pytest.approx(one.area, rel=5e-4)  # an armhole that was led to it comes back within a hair
        for was, now in zip(one.runs, two.runs, strict=True):
            assert np.abs(was.path.start - now.path.start).max() < 1e-6
            assert now.path.length == pytest.approx(was.path.length, abs=0.3)


def test_panels_and_whole_pieces() -> None:
    panels = made([move("shoulder", "waist"), {"do": "line.princess", "on": "front"}, {**OUT, "other": ""}])
    plain = made([move("shoulder", "waist"), {"do": "line.princess", "on": "front"}])
    old, new = (next(p for p in found.pattern.pieces if "side_seam" in dict(p.roles).values() and p.body.value == "front")
                for found in (plain, panels))  # fmt: skip
    assert np.hypot(*(side(new)[0] - side(old)[0])) == pytest.approx(10.0, abs=1e-6)
    whole = made([{"do": "piece.unfold", "on": "front"}, {**OUT, "other": ""}]).pattern.piece("front")
    half = made([{**OUT, "other": ""}]).pattern.piece("front")
    assert whole.area == pytest.approx(2.0 * half.area, rel=1e-6)


@pytest.mark.parametrize(
    ("steps", "said"),
    [
        ([{**OUT, "top": "9 cm"}], "cannot be moved by 9.0 cm"),
        ([{"do": "yoke.cut", "on": "front", "kind": "midriff"}, OUT], "side seam of the front is on more than one piece"),
        ([{**OUT, "on": "collar"}], "collar"),
    ],
)
def test_what_cannot_be_is_refused_by_name(steps: list[dict], said: str) -> None:  # type: ignore[type-arg]
    (_number, fault), *_more = derive(style(steps)).derivation.broken
    assert said in str(fault) and fault.advice


def test_by_hand() -> None:
    sections = made([{**OUT, "other": "", "top": "1 cm", "bottom": "-5 mm"}]).by_hand("pivot")
    text = " ".join(line.text for section in sections for line in section.lines)
    assert "1.0 cm out at the underarm" in text and "0.5 cm in at the waist" in text


def test_nothing_is_an_idle_step() -> None:
    found = made([{**OUT, "top": "0", "bottom": "0"}])
    assert any(one.check == "idle_step" for one in found.findings)
    assert real_block().name  # the block is as it was
