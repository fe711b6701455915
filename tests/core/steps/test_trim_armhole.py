"""trim.armhole: lowered, cut in, razor backs."""

from __future__ import annotations

import math

import pytest

from tests.core.steps.after_steps import sound, worked
from tests.core.steps.necks import BLOCKS
from tests.samples import real_pattern
from zesty_pivot.core.conventions.sewing import PLAIN
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.moves.redraw import corner
from zesty_pivot.core.piece import EdgeRef, Piece
from zesty_pivot.core.piece.region import crosses_itself


def armhole(piece: Piece) -> float:
    return sum(run.path.length for run in piece.runs if piece.role(run.edge) == "armhole")


def underarm(piece: Piece) -> int:
    return next(
        k for k, run in enumerate(piece.runs)
        if piece.role(run.edge) == "armhole" and piece.role(piece.runs[piece.after(k)].edge) == "side_seam"
    )  # fmt: skip


@pytest.mark.parametrize("block", BLOCKS)
@pytest.mark.parametrize("more", [{}, {"lower": "-1 cm"}, {"shoulder_in": "2 cm"}, {"widen": "-5 mm", "lower": "2 cm"}])
def test_armholes_are_drawn_anew_on_both(more: dict, block: str) -> None:  # type: ignore[type-arg]
    before = BLOCKS[block]
    derivation = worked({"do": "trim.armhole", "on": "front", **more}, block=before)
    assert not derivation.broken, derivation.broken
    pattern = derivation.pattern
    was = before.edge_length(EdgeRef.read("front.side_seam")) - before.edge_length(EdgeRef.read("back.side_seam"))
    now = pattern.edge_length(EdgeRef.read("front.side_seam")) - pattern.edge_length(EdgeRef.read("back.side_seam"))
    assert now == pytest.approx(was, abs=0.5)
    told = {note.piece: note.amount_mm for note in derivation.states[1].notes if "armhole measures" in note.text}
    for piece in pattern.pieces:
        assert not crosses_itself(piece) and told[piece.name] == pytest.approx(armhole(piece), abs=1e-6)
    assert all(account.is_whole for account in accounts(pattern, before))
    lower = {"lower": "1/2 in", **more}["lower"]
    if "widen" not in more:
        goal = {"1/2 in": -12.7, "-1 cm": 10.0, "2 cm": -20.0}[lower]
        front = pattern.piece("front")
        assert front.edge("side_seam").sewn_length - before.piece("front").edge("side_seam").sewn_length == pytest.approx(
            goal, abs=0.01
        )
    if "shoulder_in" in more:
        for name in ("front", "back"):
            cut = before.piece(name).edge("shoulder").sewn_length - pattern.piece(name).edge("shoulder").sewn_length
            assert cut == pytest.approx(20.0, abs=1e-5)


def test_a_lowered_armhole_keeps_its_corners() -> None:
    before, after = real_pattern(), sound({"do": "trim.armhole", "on": "front", "lower": "2 cm"})
    for name in ("front", "back"):
        one, two = (math.degrees(corner(p.piece(name), underarm(p.piece(name)), PLAIN)) for p in (before, after))
        assert one == pytest.approx(two, abs=0.5)


@pytest.mark.parametrize("block", ["real", "hip", "random 0", "random 9"])
def test_a_razor_back_is_narrow_at_the_chest_line(block: str) -> None:
    """2 in from CB at the chest line: common practice, no source."""
    pattern = sound(
        {"do": "trim.armhole", "on": "front", "shoulder_in": "3 cm", "back": "razor", "lower": "2 cm"}, block=BLOCKS[block]
    )
    back = pattern.piece("back")
    points = [point for run in back.runs if back.role(run.edge) == "armhole" for point in run.path.outline]
    assert min(point[0] for point in points) == pytest.approx(50.8, abs=0.01)
    assert not crosses_itself(back) and all(account.is_whole for account in accounts(pattern, BLOCKS[block]))


def test_armholes_that_cannot_be_are_refused() -> None:
    for more, what in (
        ({"shoulder_in": "30 cm"}, "cut in by 30.0 cm"), ({"lower": "50 cm"}, "lowered by 50.0 cm"),
        ({"widen": "20 cm"}, "moved by 20.0 cm"), ({"back": "razor", "razor": "40 cm"}, "razor back of 40.0 cm"),
    ):  # fmt: skip
        ((_number, fault),) = worked({"do": "trim.armhole", "on": "front", **more}).broken
        assert what in str(fault) and "Enter" in str(fault)


def test_the_limits_of_an_armhole_are_where_they_are_told() -> None:
    """5 mm of the shoulder are left, 1 cm of the side seam; the underarm rises by 4 cm, the side moves by 6 at most."""
    block = real_pattern().piece("back")
    shoulder, side = (sum(run.path.length for run in block.runs if run.edge == edge) for edge in ("shoulder", "side_seam"))
    most = {"shoulder_in": shoulder - 5.0, "lower": min(120.0, side - 10.0), "widen": 60.0}
    for key, limit in (*most.items(), ("lower", -40.0), ("widen", -60.0)):
        for beyond, is_refused in ((-0.2, False), (0.2, True)):
            asked = f"{limit + math.copysign(1.0, limit) * beyond:.4f} mm"
            step = {"do": "trim.armhole", "on": "back", "other": "", "lower": "0", key: asked}
            refused = [fault for _number, fault in worked(step).broken if "cannot be" in fault.what]
            assert bool(refused) == is_refused, (key, asked)
