"""What is trued is smooth once it is sewn: on the written sheet, along its own legs, measured by svgelements."""

from __future__ import annotations

import pytest

from tests.drafted import ROOM, room_block
from tests.samples import move
from tests.sheets import leg_lengths, sewn_corner
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry

SCHOOLS = ("graded", "near", "even", "three_quarter_inch", "inch", "large_shoulder")


def upper(block: str) -> str:
    """The id of the front's dart that is not at the waist."""
    return "shoulder" if block.startswith("two") else "side"


def worked(block: str, steps: list[dict[str, object]], **finish: object) -> Derived:
    style = Style(
        name="T", block=room_block(block), steps=tuple(registry.read(step) for step in steps), finish=Finish(**finish)
    )
    found = derive(style)
    assert not found.derivation.broken, found.derivation.broken
    return found


def true(edge: str, on: str = "front") -> dict[str, object]:
    return {"do": "piece.true", "on": on, "edge": edge}


def pieces(found: Derived) -> dict[str, object]:
    return {piece.name: piece for piece in found.pieces}


@pytest.mark.parametrize("block", ROOM)
def test_a_merged_waist_dart_is_smooth_when_it_is_sewn(block: str) -> None:
    """It was smooth with the dart shut at the bust point: sewn at a point 4 cm off it left 7.5 degrees."""
    steps = [{"do": "dart.merge", "on": "front", "darts": ["waist", upper(block)]}, true("waist")]
    found = worked(block, steps)
    front = pieces(found)["front"]
    assert abs(sewn_corner(front, "waist", "waist")) < 0.05
    one, two = leg_lengths(front, "waist")
    assert one == pytest.approx(two, abs=0.01)
    told = [finding for finding in found.findings if finding.piece == "front"]
    places = [finding.place for finding in told if finding.check in ("corners", "dart_legs")]
    assert not [place for place in places if place == "waist" or (place.startswith("waist:") and place[6:].isdigit())]


@pytest.mark.parametrize("school", SCHOOLS)
@pytest.mark.parametrize("block", ROOM)
def test_every_school_is_trued_on_its_own_legs(block: str, school: str) -> None:
    found = worked(block, [true("waist")], setback=school)
    assert abs(sewn_corner(pieces(found)["front"], "waist", "waist")) < 0.05


@pytest.mark.parametrize(
    ("station", "edge"),
    [("french", "side_seam"), ("mid_armhole", "armhole"), ("mid_shoulder", "shoulder"), ("mid_neck", "neckline")],
)
@pytest.mark.parametrize("block", ROOM)
def test_a_moved_dart_is_smooth_across_its_new_mouth(block: str, station: str, edge: str) -> None:
    steps = [move(upper(block), "waist"), move("waist", station), true(edge)]
    found = worked(block, steps)
    assert abs(sewn_corner(pieces(found)["front"], "waist", edge)) < 0.05


@pytest.mark.parametrize("block", ROOM)
def test_the_check_measures_the_corner_of_the_sheet(block: str) -> None:
    found = worked(block, [{"do": "dart.merge", "on": "front", "darts": ["waist", upper(block)]}])
    told = next(f for f in found.findings if f.check == "corners" and f.piece == "front" and f.place.startswith("waist:"))
    assert told.value == pytest.approx(abs(sewn_corner(pieces(found)["front"], "waist", "waist")), abs=0.01)


@pytest.mark.parametrize("block", ROOM)
def test_another_school_trues_anew_and_says_by_how_much(block: str) -> None:
    near, far = (worked(block, [true("waist")], setback=school) for school in ("near", "large_shoulder"))
    ends = [found.pattern.piece("front").mouth("waist") for found in (near, far)]
    assert max(abs(a - b).max() for a, b in zip(*ends, strict=True)) > 0.02
    amounts = [found.derivation.states[1].notes[0].amount_mm for found in (near, far)]
    assert None not in amounts and amounts[0] != amounts[1]


@pytest.mark.parametrize("block", ROOM)
def test_truing_keeps_the_account_whole(block: str) -> None:
    """The mouth's ends slide along the sewn legs, which turns the legs about the pivot: the account tells it."""
    found = worked(block, [true("waist"), move("waist", "french"), true("side_seam"), true("waist")])
    assert all(account.is_whole for account in found.look.accounts)
