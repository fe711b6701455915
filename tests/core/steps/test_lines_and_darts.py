"""Style lines across fullness that lies open, along a dart's leg, and bands along an edge with a dart in it."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from tests.drafted import ROOM, room_block
from tests.samples import move
from tests.sheets import lines, sewn_corner
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.moves.open_up import mouth_distance
from zesty_pivot.core.piece import Pattern, Use
from zesty_pivot.core.steps import registry


def upper(block: str) -> str:
    return "shoulder" if block.startswith("two") else "side"


def worked(block: str, *steps: dict[str, Any]) -> Derived:
    found = derive(Style(name="T", block=room_block(block), steps=tuple(registry.read(step) for step in steps)))
    assert not found.derivation.broken, found.derivation.broken
    assert not [piece.fault for piece in found.pieces if piece.fault]
    return found


def sheet_length(found: Derived, piece: str, id: str) -> float:
    finished = next(one for one in found.pieces if one.name == piece)
    return sum(path.length(error=1e-7) for path in lines(finished)[id])


ACROSS = {"from": {"edge": "side_seam", "at": "6 cm"}, "to": {"edge": "centre", "from": "centre_waist", "at": "12 cm"}}


def use(as_: str, **more: Any) -> dict[str, Any]:
    return {"do": "dart.use", "on": "front", "dart": "waist", "as": as_, **more}


@pytest.mark.parametrize("block", ROOM)
def test_a_line_across_an_open_flare_and_the_lower_part_spread(block: str) -> None:
    """The dart led to the waist and left open, the line from 6 cm under the arm to CF, below it three slashes of 4 cm."""
    flare = {"do": "fullness.flare", "on": "front_panel", "count": 3, "by": "4 cm"}
    found = worked(block, move(upper(block), "waist"), use("flare"), {"do": "line.cut", "on": "front", **ACROSS}, flare)
    one, two = (sheet_length(found, name, "line") for name in ("front", "front_panel"))
    assert one == pytest.approx(two, abs=0.05)
    before = worked(block, move(upper(block), "waist"), use("flare"))
    assert sheet_length(found, "front_panel", "waist") == pytest.approx(sheet_length(before, "front", "waist") + 120.0, abs=0.1)
    for name in ("front", "front_panel"):
        piece = found.pattern.piece(name)
        assert not piece.darts
        runs = piece.edge("centre").runs
        assert abs(runs[0].path.start[0]) < 1e-9 and abs(runs[-1].path.end[0]) < 1e-9
    (account,) = [a for a in found.look.accounts if a.pivot == "bust_point"]
    assert account.is_whole and {entry.use for entry in account.placed} == {"flare"}
    seam = next(s for s in found.pattern.seams if {p.edge for p in s.parts} == {"side_seam"})
    assert {part.piece for part in seam.a.parts} == {"front", "front_panel"}
    assert found.pattern.sewn_length(seam.a) == pytest.approx(found.pattern.sewn_length(seam.b), abs=1.0)


@pytest.mark.parametrize("block", ROOM)
def test_a_line_across_gathers_leaves_them_gathered_below(block: str) -> None:
    gathered = worked(block, move(upper(block), "waist"), use("gathers"))
    found = worked(block, move(upper(block), "waist"), use("gathers"), {"do": "line.cut", "on": "front", **ACROSS})
    one, two = (sheet_length(found, name, "line") for name in ("front", "front_panel"))
    assert one == pytest.approx(two, abs=0.05)
    taken = [sum(mouth.taken_mm for piece in done.pieces for mouth in piece.opened) for done in (gathered, found)]
    assert taken[1] == pytest.approx(taken[0], abs=1e-6) and taken[0] > 20.0
    assert found.girths.waist == pytest.approx(gathered.girths.waist, abs=1e-6)
    assert all(account.is_whole for account in found.look.accounts)
    (dart,) = found.pattern.piece("front_panel").darts
    assert dart.use is Use.GATHERS and not found.pattern.piece("front").darts


@pytest.mark.parametrize("block", ROOM)
def test_the_back_with_a_quarter_inch_of_ease_above_the_line(block: str) -> None:
    """The blade dart led to the waist but for a quarter inch, which is eased; what was led away stays open, and the waist's own
    dart feeds it as well. A block without a blade dart lets its waist dart hang open."""
    has_blade = block.split()[0] != "drafted"
    steps: list[dict[str, Any]] = [{"do": "dart.use", "on": "back", "dart": "waist", "as": "flare"}]
    if has_blade:
        piece = room_pattern(block).piece("back")
        leg, whole = sum(piece.legs("shoulder")) / 2.0, piece.angle("shoulder")
        share = 1.0 - 2.0 * math.asin(6.35 / 2.0 / leg) / whole
        steps += [
            {
                "do": "dart.move",
                "on": "back",
                "dart": "shoulder",
                "to": {"edge": "waist", "at": "25%"},
                "share": share,
                "as": "led",
            },
            {"do": "dart.use", "on": "back", "dart": "led", "as": "flare"},
            {"do": "dart.use", "on": "back", "dart": "shoulder", "as": "ease", "over": "10 cm", "cloth": "soft"},
        ]
    found = worked(block, *steps, {"do": "line.cut", "on": "back", **ACROSS})
    one, two = (sheet_length(found, name, "line") for name in ("back", "back_panel"))
    assert one == pytest.approx(two, abs=0.05)
    if has_blade:
        assert found.pattern.piece("back").intake("shoulder") == pytest.approx(6.35, abs=0.6)  # legs may differ
    assert all(account.is_whole for account in found.look.accounts)


def room_pattern(block: str) -> Pattern:
    return worked(block).pattern


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("edge", ["neckline", "armhole"])
def test_a_line_along_a_darts_leg(block: str, edge: str) -> None:
    """It begins at one end of the mouth, the dart stays whole on the other side of it, at a corner. It was refused."""
    ends = {"from": {"dart": "waist"}, "to": {"edge": edge, "at": "60%"}}
    found = worked(block, move(upper(block), "waist"), {"do": "line.cut", "on": "front", **ends})
    one, two = (sheet_length(found, name, "line") for name in ("front", "front_panel"))
    assert one == pytest.approx(two, abs=0.05)
    darts = {name: len(found.pattern.piece(name).darts) for name in ("front", "front_panel")}
    assert sum(darts.values()) == 1
    assert all(account.is_whole for account in found.look.accounts)
    before = worked(block, move(upper(block), "waist")).pattern.piece("front")
    owner = next(found.pattern.piece(name) for name, count in darts.items() if count)
    assert owner.intake("waist") == pytest.approx(before.intake("waist"), abs=1e-6)


@pytest.mark.parametrize("block", ["two darts 93", "side and waist 91", "two darts 76", "drafted 124"])
@pytest.mark.parametrize("beside", [0.3, 1.0, 3.0])
def test_a_line_just_beside_a_dart(block: str, beside: float) -> None:
    at = mouth_distance(worked(block, move(upper(block), "waist")).pattern.piece("front"), "waist")
    for aside, to in ((-beside, "armhole"), (beside, "neckline")):
        step = {
            "do": "line.cut",
            "on": "front",
            "from": {"edge": "waist", "at": f"{at + aside} mm"},
            "to": {"edge": to, "at": "60%"},
        }
        found = worked(block, move(upper(block), "waist"), step)
        one, two = (sheet_length(found, name, "line") for name in ("front", "front_panel"))
        assert one == pytest.approx(two, abs=0.05)


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("on", ["front", "back"])
@pytest.mark.parametrize("width", ["2.5 cm", "5 cm"])
def test_a_band_along_a_waist_with_a_dart_in_it(block: str, on: str, width: str) -> None:
    """The dart is shut in the band and goes on above it: both lines are equal, and the line is smooth when it is sewn."""
    found = worked(block, {"do": "line.band", "on": on, "edge": "waist", "width": width})
    kept, band = found.pattern.piece(on), found.pattern.piece(f"{on}_waist_band")
    one, two = sheet_length(found, on, "band"), sheet_length(found, band.name, "band")
    assert one == pytest.approx(two, abs=0.05)
    assert not band.darts and kept.dart_edge("waist") == "band"
    before = worked(block)
    # Legs that were not equal are made so, by as much as they differ.
    uneven = abs(float(np.subtract(*before.pattern.piece(on).legs("waist"))))
    assert sheet_length(found, band.name, "waist") == pytest.approx(sheet_length(before, on, "waist"), abs=0.05 + uneven)
    finished = next(one for one in found.pieces if one.name == on)
    old = next(one for one in before.pieces if one.name == on)
    assert abs(sewn_corner(finished, "waist", "band")) < abs(sewn_corner(old, "waist", "waist")) + 0.5
    assert all(account.is_whole for account in found.look.accounts)
    assert kept.area + band.area == pytest.approx(before.pattern.piece(on).area, rel=0.02)


@pytest.mark.parametrize("block", ROOM)
def test_a_band_is_evenly_wide(block: str) -> None:
    found = worked(block, {"do": "line.band", "on": "front", "edge": "waist", "width": "4 cm"})
    finished = next(one for one in found.pieces if one.name == "front_waist_band")
    read = lines(finished)
    (line,) = read["band"]
    waist = [np.array([p.x, p.y]) for part in read["waist"] for p in (part.point(k / 400.0) for k in range(401))]
    for share in np.linspace(0.15, 0.85, 12):
        point = line.point(float(share))
        away = min(math.dist((point.x, point.y), other) for other in waist)
        assert away == pytest.approx(40.0, abs=3.0)  # over the corner that the shut dart leaves it is a little narrower


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("on", ["front", "back"])
def test_a_line_across_a_dart_that_is_sewn(block: str, on: str) -> None:
    """The dart is shut in the lower part and sewn in the upper: by similar triangles its mouth there is as much narrower as it
    is nearer to the pivot, and both seams on the sheet are equally long."""
    cut = {"from": {"edge": "side_seam", "at": "75%"}, "to": {"edge": "centre", "from": "centre_waist", "at": "7 cm"}}
    found = worked(block, {"do": "line.cut", "on": on, **cut})
    upper_part, lower_part = found.pattern.piece(on), found.pattern.piece(f"{on}_panel")
    before = found.derivation.block.piece(on)
    (dart,) = [d for d in upper_part.darts if upper_part.dart_edge(d.id) == "line"]
    legs = [sum(piece.legs("waist")) / 2.0 for piece in (upper_part, before)]
    assert upper_part.intake(dart.id) == pytest.approx(before.intake("waist") * legs[0] / legs[1], rel=0.01)
    assert upper_part.angle(dart.id) == pytest.approx(before.angle("waist"), abs=1e-9) and not lower_part.darts
    one, two = (sheet_length(found, name, "line") for name in (on, f"{on}_panel"))
    assert one == pytest.approx(two, abs=0.05)
    uneven = abs(
        before.legs("waist")[0] - before.legs("waist")[1]
    )  # made equal first: the waist beside them moves by half of it
    assert lower_part.edge("waist").sewn_length == pytest.approx(before.edge("waist").sewn_length, abs=0.05 + uneven / 2.0)
    assert all(account.is_whole for account in found.look.accounts)
    sheet = [entry.text for section in found.by_hand("slash") for entry in section.lines]
    assert any("Fold the waist dart" in text and "shut" in text for text in sheet)
