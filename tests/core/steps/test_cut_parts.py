"""Parts of a cut: named by where they lie on the body, the same on every size, and on their grain; measured on the sheet."""

from __future__ import annotations

import json
import math
from typing import Any

import numpy as np
import pytest

from tests.drafted import ROOM, room_block
from tests.samples import move, style, worked
from tests.sheets import lines
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Scope

LOW = {"from": {"edge": "side_seam", "at": "60%"}, "to": {"edge": "centre", "from": "centre_waist", "at": "3 cm"}}
HIGH = {"from": {"edge": "armhole", "at": "30%"}, "to": {"edge": "centre", "from": "centre_neck", "at": "4 cm"}}
SLANTING = {"from": {"edge": "armhole", "at": "80%"}, "to": {"edge": "waist", "at": "30%"}}
CORNER = {"from": {"edge": "neckline", "at": "60%"}, "to": {"edge": "shoulder", "at": "50%"}}


def cut(on: str, ends: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"do": "line.cut", "on": on, **ends, **more}


def pattern_of(name: str) -> Pattern:
    """A block with its darts out of the way of these lines: all in the waist beside the side, or in the shoulder."""
    return block_file.pattern(room_block(name))


def made(name: str, on: str, ends: dict[str, Any], **more: Any) -> Pattern:
    """The piece cut, its darts parked where they bar no line: at the waist of the front, of the back at the neck and waist."""
    block = pattern_of(name)
    away: list[dict[str, Any]] = []
    for dart in block.piece(on).darts:
        if ends is not LOW:
            if dart.pivot != "waist_tip" and block.piece(on).dart_edge(dart.id) != "waist":
                away.append({"do": "dart.move", "on": on, "dart": dart.id, "to": {"station": "waist"}})
        elif block.piece(on).dart_edge(dart.id) != "shoulder":
            to = "mid_shoulder" if on == "front" else "centre_neck"
            away.append({"do": "dart.move", "on": on, "dart": dart.id, "to": {"station": to}})
    return worked([*away, cut(on, ends, **more)], block).pattern


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("ends", [LOW, HIGH], ids=["low", "high"])
def test_what_holds_the_centre_and_the_top_keeps_the_name(name: str, ends: dict[str, Any]) -> None:
    """By area the name went to the lower part on one block and to the upper part on another."""
    after = made(name, "front", ends)
    main, other = after.piece("front"), after.piece("front_panel")
    assert "neckline" in dict(main.roles) and "waist" in dict(other.roles) and "waist" not in dict(main.roles)


@pytest.mark.parametrize("name", ROOM)
def test_beside_the_centre_the_inner_part_keeps_it(name: str) -> None:
    after = made(name, "front", CORNER)
    assert "centre" in dict(after.piece("front").roles) and "centre" not in dict(after.piece("front_panel").roles)


@pytest.mark.parametrize("name", ROOM)
def test_or_what_the_user_says(name: str) -> None:
    lower = made(name, "front", LOW, keeps="lower")
    assert "waist" in dict(lower.piece("front").roles) and "neckline" in dict(lower.piece("front_panel").roles)
    side = made(name, "front", CORNER, keeps="side")
    assert "centre" not in dict(side.piece("front").roles)


def test_an_old_file_keeps_the_larger_part() -> None:
    now = style([move("shoulder", "waist"), cut("front", HIGH)])
    value = {**json.loads(style_file.dump(now)), "version": 2}
    old = style_file.from_value(value, "old")
    assert old.steps[1].keeps == "larger"  # type: ignore[attr-defined]
    found = derive(old).pattern
    assert found.piece("front").area >= found.piece("front_panel").area


def on_sheet(after: Pattern, name: str, id: str) -> np.ndarray:
    """The direction of a straight line of a piece on its written sheet."""
    found = lines(finish_piece(after.piece(name), Finish(), Scope("cm"), "T"))[id][0]
    a, b = found.point(0.0), found.point(1.0)
    way = np.array([b.x - a.x, b.y - a.y])
    return way / np.hypot(*way)


def off(one: np.ndarray, two: np.ndarray) -> float:
    return math.degrees(math.asin(min(1.0, abs(float(one[0] * two[1] - one[1] * two[0])))))


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("ends", [LOW, HIGH, CORNER], ids=["low", "high", "corner"])
def test_the_grain_of_every_part_runs_along_cf_or_parallel_to_it(name: str, ends: dict[str, Any]) -> None:
    """It was square to a slanting waist: 9 to 17 degrees off the fold that the part is cut on."""
    after = made(name, "front", ends)
    for piece in (after.piece("front"), after.piece("front_panel")):
        grain = on_sheet(after, piece.name, "grain")
        centre = on_sheet(after, piece.name, "centre") if piece.fold else np.array([0.0, 1.0])
        assert off(grain, centre) < 0.01


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize(("on", "edge"), [("front", "neckline"), ("back", "neckline"), ("back", "armhole")])
def test_the_grain_of_a_band(name: str, on: str, edge: str) -> None:
    after = worked([{"do": "line.band", "on": on, "edge": edge, "width": "3 cm"}], pattern_of(name)).pattern
    for piece in (after.piece(on), after.piece(f"{on}_{edge}_band")):
        assert off(on_sheet(after, piece.name, "grain"), np.array([0.0, 1.0])) < 0.01


def test_a_grain_off_the_fold_is_a_finding() -> None:
    value = room_block("two darts 93").model_dump(mode="json", by_alias=True, exclude_none=True)
    value["pieces"][0]["grain"] = [[20.0, 120.0], [60.0, 378.0]]
    tilted = style([], block_file.from_value(value, "tilted"))
    (found,) = [f for f in derive(tilted).findings if f.check == "grain"]
    assert found.piece == "front" and found.value == pytest.approx(math.degrees(math.atan2(40.0, 258.0)), abs=1e-6)
    assert not [f for f in derive(style([])).findings if f.check == "grain"]
