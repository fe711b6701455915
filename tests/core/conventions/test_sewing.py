"""Where darts are sewn to: a block's own points, back darts, schools and what is decided for one dart; on the written sheet."""

from __future__ import annotations

import copy
import json
import math
from typing import Any

import numpy as np
import pytest

from tests.drafted import ROOM, room_block
from tests.samples import move
from tests.sheets import lines, sewn_at
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.formats import block_file, style_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry


def worked(name: str, steps: list[dict[str, Any]] | None = None, change: Any = None, **finish: Any) -> Derived:
    value = copy.deepcopy(ROOM[name]())
    if change is not None:
        change(value)
    found = derive(
        Style(
            block=block_file.from_value(value, name),
            steps=tuple(registry.read(step) for step in steps or ()),
            finish=Finish.model_validate(finish),
        )
    )
    assert not found.derivation.broken, found.derivation.broken
    return found


def sheet(found: Derived, name: str) -> Any:
    return next(piece for piece in found.pieces if piece.name == name)


def waist(value: dict[str, Any], piece: str) -> dict[str, Any]:
    darts = next(p for p in value["pieces"] if p["name"] == piece)["darts"]
    return next(dart for dart in darts if dart["id"] == "waist")


def short(piece: str, mm: float) -> Any:
    """A change of a block: the waist dart's own point so far from the pivot towards its mouth, and 2 mm beside that line."""

    def change(value: dict[str, Any]) -> None:
        dart = waist(value, piece)
        pin, middle = np.array(dart["point"]), np.mean(dart["mouth"], axis=0)
        way = (middle - pin) / np.hypot(*(middle - pin))
        dart["point"] = [float(v) for v in pin + way * mm + np.array([-way[1], way[0]]) * 2.0]

    return change


def own_point(name: str, piece: str, mm: float) -> np.ndarray:
    value = copy.deepcopy(ROOM[name]())
    short(piece, mm)(value)
    return np.array(waist(value, piece)["point"])


def on_sheet(found: Derived, name: str) -> np.ndarray:
    """The waist dart's sewn point on the sheet, in the block's frame: sheets begin at their piece's upper left corner."""
    piece, done = found.pattern.piece(name), sheet(found, name)
    at, end = sewn_at(done, "waist"), lines(done)["waist.legs"][0].point(0.0)
    return at - np.array([end.x, end.y]) + piece.mouth("waist")[0]


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("piece", ["front", "back"])
def test_a_blocks_own_point_is_kept_to_the_tenth_of_a_millimetre(name: str, piece: str) -> None:
    found = worked(name, change=short(piece, 31.0))
    assert math.dist(on_sheet(found, piece), own_point(name, piece, 31.0)) < 0.01


@pytest.mark.parametrize("name", ROOM)
def test_until_a_school_is_chosen_for_that_dart(name: str) -> None:
    found = worked(name, change=short("front", 31.0), darts={"front.waist": {"school": "inch"}})
    pin = found.pattern.piece("front").pivot("bust_point")
    assert math.dist(on_sheet(found, "front"), pin) == pytest.approx(25.4, abs=0.01)


@pytest.mark.parametrize("name", ROOM)
def test_another_style_school_leaves_it(name: str) -> None:
    found = worked(name, change=short("front", 31.0), setback="inch")
    assert math.dist(on_sheet(found, "front"), own_point(name, "front", 31.0)) < 0.01


@pytest.mark.parametrize("name", ROOM)
def test_it_keeps_its_distance_when_the_dart_is_moved_and_parked(name: str) -> None:
    park = {"do": "dart.park", "on": "front", "darts": ["waist"], "to": {"station": "mid_shoulder"}}
    for steps in ([move("waist", "french")], [park], [park, {"do": "dart.return", "on": "front"}]):
        found = worked(name, steps, short("front", 31.0))
        pin = found.pattern.piece("front").pivot("bust_point")
        assert math.dist(on_sheet(found, "front"), pin) == pytest.approx(math.hypot(31.0, 2.0), abs=0.01)
    assert math.dist(on_sheet(found, "front"), own_point(name, "front", 31.0)) < 0.01


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("school", ["graded", "near", "inch", "large_shoulder"])
def test_back_darts_are_sewn_to_their_own_tips(name: str, school: str) -> None:
    """The front's set-back shortened them by 2 cm without a word."""
    found = worked(name, setback=school)
    value = ROOM[name]()
    back = next(piece for piece in value["pieces"] if piece["name"] == "back")
    assert math.dist(on_sheet(found, "back"), back["landmarks"]["waist_tip"]) < 0.01


@pytest.mark.parametrize("limit", ["1 cm", "20 cm"])
@pytest.mark.parametrize("name", ROOM)
def test_the_limit_of_large_darts_can_be_set(name: str, limit: str) -> None:
    found = worked(name, large_dart=limit)
    pin = found.pattern.piece("front").pivot("bust_point")
    assert math.dist(on_sheet(found, "front"), pin) == pytest.approx(40.0 if limit == "1 cm" else 20.0, abs=0.01)


def test_a_length_that_cannot_be_worked_out_is_told_and_the_school_holds() -> None:
    found = worked("two darts 93", darts={"front.waist": {"setback": "hips/12"}})
    assert math.dist(on_sheet(found, "front"), found.pattern.piece("front").pivot("bust_point")) == pytest.approx(
        20.0, abs=0.01
    )
    assert any(finding.check == "finish_lengths" for finding in found.findings)


def test_a_point_beyond_the_pivot_is_the_pivot() -> None:
    """A point on the far side of the pivot counted as one that stops short of it."""

    def beyond(value: dict[str, Any]) -> None:
        dart = waist(value, "front")
        pin, middle = np.array(dart["point"]), np.mean(dart["mouth"], axis=0)
        dart["point"] = [float(v) for v in pin - (middle - pin) * 0.1]

    found = worked("two darts 93", change=beyond)
    assert found.pattern.piece("front").dart("waist").extended_mm == 0.0


def test_what_is_decided_stands_in_the_file() -> None:
    finish = Finish.model_validate({"large_dart": "6 cm", "darts": {"front.waist": {"school": "even"}}})
    style = Style(block=room_block("two darts 93"), finish=finish)
    again = style_file.from_value(json.loads(style_file.dump(style)), "style")
    assert again.finish == finish
