"""Fronts and backs that are not the same on both sides, with princess lines: either first, on six blocks."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from tests.drafted import ROOM, room_block
from tests.samples import move, worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import accounts, girths
from zesty_pivot.core.moves import mirror
from zesty_pivot.core.piece import Pattern, Piece, Side
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.recipe import Derivation

IN = 25.4
UNFOLD = {"do": "piece.unfold", "on": "front"}
BARE, DEEP = "one_shoulder", "asymmetric"


def lines(top: str) -> list[dict[str, Any]]:
    return [{"do": "line.princess", "on": on, "from": {"station": top}} for on in ("front", "back")]


def neck(shape: str, **asked: Any) -> dict[str, Any]:
    return {"do": "neck.shape", "on": "front", "shape": shape, "side": "right", **asked}


def done(name: str, steps: list[dict[str, Any]]) -> Derivation:
    return worked(steps, block_file.pattern(room_block(name)))


def seams_agree(pattern: Pattern, most: float = 4.0) -> bool:
    """Both sides of every seam are equally long but for what is eased in."""
    gaps = [pattern.sewn_length(seam.b) - pattern.sewn_length(seam.a) - seam.ease_mm for seam in pattern.seams]
    return all(abs(gap) < most for gap in gaps)


def ends(piece: Piece, role: str) -> list[np.ndarray]:
    return [end for run in piece.runs if piece.role(run.edge) == role for end in (run.path.start, run.path.end)]


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("shape", [BARE, DEEP, "wrap"])
@pytest.mark.parametrize("order", ["line first", "neck first"])
def test_either_first(name: str, shape: str, order: str) -> None:
    """The account is whole, the girths are those of the panels alone, both sides of every seam agree."""
    plain = done(name, lines("mid_shoulder"))
    steps = [neck(shape), *lines("mid_shoulder")]
    found = done(name, steps if order == "neck first" else steps[1:] + steps[:1])
    assert all(abs(account.missing_deg) < 1e-9 for account in accounts(found.pattern, found.block))
    before, after = (girths(each.pattern, each.block) for each in (plain, found))
    assert (after.bust, after.waist) == pytest.approx((before.bust, before.waist), abs=0.02)
    assert seams_agree(found.pattern)
    pieces = {piece.name for piece in found.pattern.pieces}
    both = {"front_side_right", "front_side_left", "back_side_right", "back_side_left"}
    assert pieces >= (both if shape == BARE else {"front_side", "back_side"}) | {"front_centre", "back_centre"}
    assert ("front_overlap" in pieces) == (shape == "wrap" and order == "line first")


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("order", ["line first", "neck first"])
def test_the_bare_side_is_cut_at_the_underarm_and_the_other_left_alone(name: str, order: str) -> None:
    """Lowered by half an inch on the bare side, measured on both sheets; the other side panel is that of the panels alone."""
    plain = done(name, lines("mid_armhole")).pattern
    steps = [neck(BARE, lower="1/2 in"), *lines("mid_armhole")]
    pattern = done(name, steps if order == "neck first" else steps[1:] + steps[:1]).pattern
    for on in ("front", "back"):
        whole, bare, left = (pattern.piece(f"{on}_{part}") for part in ("centre", "side_right", "side_left"))
        assert left.area == pytest.approx(plain.piece(f"{on}_side").area, rel=1e-6)
        assert not {"shoulder", "armhole"} & set(dict(bare.roles).values())
        lost = plain.piece(f"{on}_side").edge("side_seam").sewn_length - bare.edge("side_seam.right").sewn_length
        assert lost == pytest.approx(IN / 2.0, abs=0.01)
        assert {whole.sides.of(id) for id, role in whole.roles if role == "shoulder"} == {Side.LEFT}
        assert mirror.side_of(bare) is Side.RIGHT and left.runs[0].path.start[0] > bare.runs[0].path.start[0]


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("shape", [BARE, DEEP, "wrap"])
def test_front_and_back_begin_at_one_place_of_the_shoulder(name: str, shape: str) -> None:
    pattern = done(name, [*lines("mid_armhole"), neck(shape)]).pattern
    left = [
        sum(math.dist(run.path.start, run.path.end) for run in piece.runs if piece.role(run.edge) == "shoulder")
        / (2 if shape == DEEP and on == "front" else 1)
        for on in ("front", "back")
        for piece in [pattern.piece(f"{on}_centre")]
    ]
    eased = [done(name, []).pattern.piece(on).edge("shoulder").sewn_length for on in ("front", "back")]
    assert left[0] == pytest.approx(left[1], abs=abs(eased[0] - eased[1]) + 1.0)


@pytest.mark.parametrize("name", ["two darts 76", "side and waist 140", "drafted 88"])
def test_a_wrap_over_panels_ends_two_inches_past_the_far_line(name: str) -> None:
    """Of 2 in from the middle between the panels half of their gap is gone; 2 in up there. Common practice, no source."""
    plain = done(name, lines("mid_shoulder")).pattern
    gap = abs(float(plain.piece("front_centre").edge("princess").runs[-1].path.end[0]))
    gap = float(plain.piece("front_side").edge("princess").runs[0].path.start[0]) - gap
    pattern = done(name, [*lines("mid_shoulder"), neck("wrap", past="2 in", up="2 in")]).pattern
    far, front = pattern.piece("front_overlap"), pattern.piece("front_centre")
    across = [abs(float(end[0] - start[0])) for end, start in [ends(far, "overlap")]]
    assert across == [pytest.approx(2.0 * IN - gap / 2.0, abs=2.0)]
    assert far.edge("wrap_end").sewn_length == pytest.approx(2.0 * IN, abs=0.01)
    (tie,) = [mark for mark in far.notches if mark.id == "tie"]  # at the upper end of the short edge
    at = places.point(far, places.by_origin(far, tie.at))
    assert at[1] == pytest.approx(min(float(end[1]) for end in ends(far, "opening")), abs=1e-6)
    assert far.edge("princess").sewn_length == pytest.approx(front.edge("princess_far").sewn_length, abs=0.5)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize(
    "step",
    [
        {"do": "line.princess", "on": "front"},
        {"do": "line.cut", "on": "front", "from": {"edge": "armhole", "at": "50%"}, "to": {"edge": "centre", "at": "55%"}},
        {"do": "line.band", "on": "front", "edge": "waist"},
        {"do": "trim.armhole", "on": "front"},
        {"do": "trim.strapless", "on": "front"},
        {"do": "piece.true", "on": "front", "edge": "waist"},
        neck("round"),
        neck("camisole"),
    ],
    ids=lambda step: step.get("shape", step["do"]),
)  # fmt: skip
def test_on_an_unfolded_front_as_on_its_half(name: str, step: dict[str, Any]) -> None:
    """The cloth on the table, both halves counted, and the seams once over are the same."""
    away = [move(room_block(name).pieces[0].darts[0].id, "waist")] if step["do"] == "line.cut" else []
    half, whole = done(name, [*away, step]).pattern, done(name, [*away, UNFOLD, step]).pattern
    assert {piece.name for piece in half.pieces} == {piece.name for piece in whole.pieces}
    assert sum(p.area * p.times for p in whole.pieces) == pytest.approx(sum(p.area * p.times for p in half.pieces), abs=0.01)
    assert seams_agree(whole, 8.0)


def test_a_reshaped_front_is_measured_once_and_whole() -> None:
    """Deep on the left, then deeper on the right: the finished neckline is what is on the pieces, told in one note."""
    found = done("drafted 88", [neck(DEEP, side="left", depth="15 cm"), neck(DEEP, side="right", depth="18 cm")])
    front, back = found.pattern.piece("front"), found.pattern.piece("back")
    long = sum(front.edge(f"neckline.{side}").sewn_length for side in ("left", "right"))
    (measured,) = found.pattern.measured
    assert measured.mm == pytest.approx(long + 2.0 * back.edge("neckline").sewn_length, abs=1e-9)
    assert len([note for note in found.states[-1].notes if "finished neckline" in note.text]) == 1


def test_a_style_line_on_one_side_only() -> None:
    """Named by the side of its places; the other side stays."""
    away = [UNFOLD, move("side.left", "waist"), move("side.right", "waist")]
    pattern = done("drafted 88", away).pattern
    spots = {"from": {"edge": "shoulder", "at": "50%", "side": "left"}, "to": {"edge": "armhole.left", "at": "60%"}}
    made = done("drafted 88", [*away, {"do": "line.cut", "on": "front", **spots}]).pattern
    assert [piece.name for piece in made.pieces] == ["front", "front_panel_left", "back"]
    assert made.piece("front").edge("armhole.right").sewn_length == pytest.approx(
        pattern.piece("front").edge("armhole.right").sewn_length, abs=1e-9
    )
    assert sum(piece.area for piece in made.pieces) == pytest.approx(sum(piece.area for piece in pattern.pieces), abs=1e-3)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("on", ["front", "back"])
def test_halved_and_opened_is_nothing(name: str, on: str) -> None:
    half = done(name, []).pattern.piece(on)
    whole = mirror.unfold(half)
    left, right = mirror.halved(whole)
    assert left.roles == right.roles == half.roles and left.darts == right.darts == half.darts
    for again in (left, right):
        assert max(np.abs(a.path.cubics - b.path.cubics).max() for a, b in zip(again.runs, half.runs, strict=True)) < 1e-9
        assert [run.source for run in again.runs] == [run.source for run in half.runs]
    assert mirror.opened(left, right).sides == whole.sides
