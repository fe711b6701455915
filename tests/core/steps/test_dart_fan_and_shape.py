"""Several darts of one, and shaped legs."""

import math
import re

import numpy as np
import pytest
import shapely

from tests.core.steps.whole import whole
from tests.samples import move, real_pattern, worked
from zesty_pivot.core.conventions.options import DartFinish, Finish
from zesty_pivot.core.finish.darts import sewn_dart
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.geometry import between
from zesty_pivot.core.moves.open_up import mouth_distance
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def fan(dart: str, count: int, spacing: str = "2 cm", on: str = "front", **more: object) -> dict:  # type: ignore[type-arg]
    return {"do": "dart.fan", "on": on, "dart": dart, "count": count, "spacing": spacing, **more}


def shape(dart: str, **more: object) -> dict:  # type: ignore[type-arg]
    return {"do": "dart.shape", "on": "front", "dart": dart, **more}


@pytest.mark.parametrize("count", [2, 3, 4, 5])
@pytest.mark.parametrize("place", ["mid_neck", "french", "waist"])
def test_equal_mouths_a_spacing_apart(count: int, place: str) -> None:
    steps = [move("waist", place)] if place != "waist" else []
    found = worked([*steps, fan("waist", count, "1 cm")])
    piece = found.pattern.piece("front")
    family = piece.family("waist")
    assert len(family) == count and piece.has_dart("waist")
    widths = [piece.intake(dart.id) for dart in family]
    assert max(widths) - min(widths) < 1e-6
    # The chord formula for each: mouth = 2 r sin(angle / 2).
    for dart in family:
        assert piece.intake(dart.id) == pytest.approx(
            2 * np.mean(piece.legs(dart.id)) * math.sin(piece.angle(dart.id) / 2), abs=1e-6
        )
    places = sorted(mouth_distance(piece, dart.id) for dart in family)
    assert np.diff(places) == pytest.approx([10.0] * (count - 1), abs=1e-6)
    whole(found.pattern, found.block)


def test_shares_of_ones_own() -> None:
    found = worked([move("waist", "mid_neck"), fan("waist", 3, shares=["50%", "30%", "20%"])])
    piece, held = found.pattern.piece("front"), found.block.piece("front").angle("waist")
    assert [piece.angle(id) / held for id in ("waist-1", "waist", "waist-3")] == pytest.approx([0.5, 0.3, 0.2])
    places = [mouth_distance(piece, id) for id in ("waist-1", "waist", "waist-3")]
    assert np.diff(places) == pytest.approx([20.0, 20.0], abs=1e-6)  # numbered the way the edge runs
    for wrong in (["50%", "30%"], ["50%", "30%", "30%"], ["100%", "0%", "0%"]):
        with pytest.raises(ValueError, match="share"):
            registry.read(fan("waist", 3, shares=wrong))


@pytest.mark.parametrize("station", ["french", "side_bust", "mid_neck"])
def test_parallel_axes_are_parallel_and_both_legs_of_each_equal(station: str) -> None:
    found = worked([move("waist", station), fan("waist", 3, "1.5 cm", parallel=True)])
    piece = found.pattern.piece("front")
    directions = []
    for dart in piece.family("waist"):
        sewn = sewn_dart(piece, dart.id, Finish(), Scope())
        assert sewn.legs[0].length == pytest.approx(sewn.legs[1].length, abs=1e-6)
        # The outer stretch of the axis: half way between the legs, from the mouth to the bend.
        outer = [np.mean([leg.cubics[0][k] for leg in sewn.legs], axis=0) for k in (0, 3)]
        directions.append(outer[1] - outer[0])
    turns = [abs(between(directions[0], other)) for other in directions[1:]]
    assert max(turns) < math.radians(0.2), np.degrees(turns)
    whole(found.pattern, found.block)


@pytest.mark.parametrize("bow", ["4 mm", "-3 mm", "1/8 in"])
def test_legs_bow_alike_and_the_rest_stays(bow: str) -> None:
    found = worked([shape("waist", bow=bow)])
    piece = found.pattern.piece("front")
    straight = sewn_dart(found.block.piece("front"), "waist", Finish(), Scope())
    bowed = sewn_dart(piece, "waist", Finish(), Scope())
    assert bowed.legs[0].length == pytest.approx(bowed.legs[1].length, abs=1e-6)
    wanted = {"4 mm": 4.0, "-3 mm": -3.0, "1/8 in": 3.175}[bow]
    for before, after in zip(straight.legs, bowed.legs, strict=True):
        middle = after.point_at(after.length / 2.0)
        assert math.dist(middle, (before.start + before.end) / 2.0) == pytest.approx(abs(wanted), abs=0.02)
    width = [math.dist(*(leg.point_at(leg.length / 2) for leg in each.legs)) for each in (straight, bowed)]
    assert (width[1] > width[0]) == (wanted > 0)
    assert bowed.cap is not None and piece.intake("waist") == pytest.approx(found.block.piece("front").intake("waist"))
    whole(found.pattern, found.block)


def test_a_bent_dart_is_finished_with_drill_and_crease_inside() -> None:
    found = worked([move("shoulder", "french"), shape("shoulder", bend="2 cm", at="50%")])
    piece = found.pattern.piece("front")
    finished = finish_piece(piece, Finish(darts={"front.shoulder": DartFinish(end="cut_away")}), Scope("cm"), "t")
    sewn = next(dart for dart in finished.darts if dart.dart == "shoulder")
    assert len(sewn.legs[0].cubics) == 2 and sewn.legs[0].length == pytest.approx(sewn.legs[1].length, abs=1e-6)
    bend = np.mean([leg.cubics[0][3] for leg in sewn.legs], axis=0)
    pin, middle = piece.pivot("bust_point"), np.mean(piece.mouth("shoulder"), axis=0)
    aside = (middle - pin) / math.dist(middle, pin)
    assert abs((bend - pin) @ np.array([-aside[1], aside[0]])) == pytest.approx(20.0, rel=0.02)
    (drill,) = [circle for circle in finished.circles if circle.id == "shoulder.drill"]
    there, back = ([leg.point_at(at) for at in np.linspace(0.0, leg.length, 50)] for leg in sewn.legs)
    inside = shapely.Polygon([*there, *reversed(back)])
    assert inside.contains(shapely.Point(*drill.at))


@pytest.mark.parametrize(
    ("steps", "says"),
    [
        ([fan("shoulder", 4, "5 cm")], "do not fit on the shoulder.*Up to"),
        ([move("waist", "shoulder_tip"), fan("waist", 3)], "do not fit on the shoulder.*into the edge first"),
        ([move("waist", "mid_shoulder", "40%"), fan("shoulder", 3, "2 cm")], "second shoulder dart opens between"),
        ([fan("shoulder", 3, "0 cm")], "spacing must be greater than 0"),
        ([shape("waist", bow="-20 mm")], "inwards would cross.*Between"),
        ([shape("waist", bow="20 cm")], "leaves no dart to press.*outwards"),
        ([shape("waist", bend="30 cm")], "too sharp.*Up to"),
        ([shape("waist", bow="2 mm", bend="2 mm")], "not both"),
        ([{"do": "dart.use", "on": "front", "dart": "waist", "as": "gathers"}, shape("waist", bow="2 mm")], "used as gathers"),
    ],
)
def test_what_cannot_be_is_refused_in_one_sentence(steps: list[dict], says: str) -> None:  # type: ignore[type-arg]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope("cm"))
    (fault,) = [error for _number, error in found.broken]
    assert re.search(says, str(fault)) and "\n" not in str(fault), str(fault)
