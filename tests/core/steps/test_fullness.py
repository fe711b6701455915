"""Slashes of the user's own and flare: lengths by the chord formula, hinge edges untouched, accounts told."""

import math
import re

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.samples import move, real_pattern, scaled, stretches, worked
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def slash(at: dict, by: str, on: str = "front", **end: object) -> dict:  # type: ignore[type-arg]
    return {"do": "fullness.slash", "on": on, "at": at, "by": by, **end}


NECK, WAIST = {"edge": "neckline", "at": "40%"}, {"edge": "waist", "at": "8%"}
ARMHOLE = {"edge": "armhole", "at": "85%"}


def lengths(pattern, on: str = "front") -> dict[str, float]:  # type: ignore[no-untyped-def]
    return {edge.id: edge.sewn_length for edge in pattern.piece(on).edges}


@pytest.mark.parametrize("by", ["1 cm", "3 cm", "6 cm"])
def test_a_slash_to_a_hinge_opens_by_its_amount(by: str) -> None:
    """The waist grows by what was asked, measured as the chord at the edge; every other edge keeps its length."""
    found = worked([slash(WAIST, by, hinge=ARMHOLE)])
    before, after = lengths(found.block), lengths(found.pattern)
    assert after["waist"] - before["waist"] == pytest.approx(10.0 * float(by.split()[0]), abs=1e-9)
    for edge in before.keys() - {"waist"}:
        assert after[edge] == pytest.approx(before[edge], abs=1e-9)
    assert all(account.is_whole for account in accounts(found.pattern, found.block))


def test_cloth_folded_out_to_a_hinge_shortens_the_edge() -> None:
    found = worked([slash(WAIST, "-1 cm", hinge=ARMHOLE)])
    before, after = lengths(found.block), lengths(found.pattern)
    assert after["waist"] - before["waist"] == pytest.approx(-10.0, abs=1e-9)
    assert after["armhole"] == pytest.approx(before["armhole"], abs=1e-9)
    assert any("shorter" in note.text for note in found.states[-1].notes)


def test_an_edge_taken_in_to_the_pivot_goes_into_the_dart() -> None:
    """1 cm out of the neckline: the angle is that of the wedge, and the account says that the block does not have it."""
    found = worked([slash(NECK, "-1 cm", dart="waist")])
    block, piece = found.block.piece("front"), found.pattern.piece("front")
    gained = piece.angle("waist") - block.angle("waist")
    pin = block.pivot("bust_point")
    run = next(run for run in block.runs if run.edge == "neckline")
    a, b = (run.path.point_at(0.4 * run.path.length + more) - pin for more in (0.0, 10.0))
    law = (a @ a + b @ b - (a - b) @ (a - b)) / (2 * math.hypot(*a) * math.hypot(*b))  # the law of cosines
    assert gained == pytest.approx(math.acos(law), abs=1e-9)
    assert lengths(found.pattern)["neckline"] == pytest.approx(lengths(found.block)["neckline"] - 10.0, abs=1e-9)
    (account,) = [a for a in accounts(found.pattern, found.block) if a.piece == "front"]
    assert account.is_whole and account.added_deg == pytest.approx(math.degrees(gained))


def test_a_slash_opened_to_the_pivot_is_a_move() -> None:
    found = worked([slash(NECK, "2 cm", dart="waist")])
    piece = found.pattern.piece("front")
    assert piece.intake("neckline") == pytest.approx(20.0, abs=1e-9)
    assert all(account.is_whole and not account.added_deg for account in accounts(found.pattern, found.block))


def flare(**more: object) -> dict:  # type: ignore[type-arg]
    return {"do": "fullness.flare", "on": "back", "edge": "waist", "hinge": "armhole", "count": 2, "by": "2 cm", "start": "5%",
            "stop": "25%", "hinge_start": "20%", "hinge_stop": "40%", **more}  # fmt: skip


@given(stretches, st.integers(1, 4), st.integers(5, 30))
@settings(max_examples=25, deadline=None)
def test_flare_spreads_evenly_on_random_blocks(stretch: tuple[float, float], count: int, by: int) -> None:
    block = scaled(*stretch)
    step = registry.read(flare(count=count, by=f"{by} mm"))
    after = step.apply(block, Context(block, Scope("cm"))).pattern
    one, two = lengths(block, "back"), lengths(after, "back")
    assert two["waist"] - one["waist"] == pytest.approx(count * by, abs=1e-8)
    for edge in one.keys() - {"waist"}:
        assert two[edge] == pytest.approx(one[edge], abs=1e-8)
    bridges = [run.path.length for run in after.piece("back").runs if run.source.edge == "spread"]
    assert bridges == pytest.approx([by] * count, abs=1e-8)
    assert all(account.is_whole for account in accounts(after, block))
    assert np.isclose(after.piece("back").angle("waist"), block.piece("back").angle("waist"))


@pytest.mark.parametrize(
    ("steps", "says"),
    [
        ([slash({"edge": "waist", "at": "70%"}, "3 cm", hinge={"station": "mid_neck"})], "crosses the dart 'waist'.*clear way"),
        ([slash(WAIST, "0 cm", hinge=ARMHOLE)], "must open by more than 0"),
        ([slash(WAIST, "300 cm", hinge=ARMHOLE)], "cannot open by.*Up to"),
        ([slash(WAIST, "3 cm", hinge={"edge": "waist", "at": "20%"})], "on the edge that is slashed"),
        ([slash(NECK, "-40 cm", dart="waist")], "is clear from there on|cannot"),
        ([slash(NECK, "30 cm", dart="waist")], "cannot open a mouth.*up to"),
        ([slash({"station": "side_waist"}, "5 cm", hinge={"station": "centre_waist"})], "leaves the piece.*clear way"),
        ([flare(hinge="waist")], "hinges lie on the edge"),
        ([flare(by="0")], "must open by more than 0"),
        ([flare(by="300 cm")], "cannot open by"),
        (
            [move("shoulder", "mid_neck"), slash({"dart": "shoulder"}, "2 cm", hinge=ARMHOLE)],
            "a dart opens where the slash ends",
        ),
    ],
)
def test_what_cannot_be_is_refused_in_one_sentence(steps: list[dict], says: str) -> None:  # type: ignore[type-arg]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope("cm"))
    (fault,) = [error for _number, error in found.broken]
    assert re.search(says, str(fault)) and "\n" not in str(fault), str(fault)


def test_a_slash_ends_at_one_place() -> None:
    for wrong in ({}, {"hinge": ARMHOLE, "dart": "waist"}):
        with pytest.raises(ValueError, match="one of the two"):
            registry.read(slash(WAIST, "1 cm", **wrong))
    with pytest.raises(ValueError, match="before the last"):
        registry.read(flare(start="50%", stop="20%"))


def test_a_pivot_is_not_folded_out() -> None:
    """Once a wedge that held the bust point changed the darts round it, and the account did not balance."""
    block = real_pattern().piece("front")
    height = block.levels["bust"]
    at = {
        "edge": "centre",
        "at": f"{block.edge('centre').sewn_length - (height + 3.0 - block.corner('centre_neck')[1]):.1f} mm",
    }
    step = slash(at, "-1 cm", hinge={"edge": "side_seam", "at": "2%"})
    found = Evaluator().evaluate(real_pattern(), [registry.read(step)], Scope("cm"))
    assert all(account.is_whole for account in accounts(found.pattern, found.block))
    assert found.broken and re.search("folded out|crosses", str(found.broken[0][1])), found.broken
