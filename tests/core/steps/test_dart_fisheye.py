"""Hip-length blocks and fish-eye darts."""

from __future__ import annotations

import copy
import math
from typing import Any

import numpy as np
import pytest
import shapely

from tests.samples import hip_pattern, hip_value, move, worked
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import accounts, girths
from zesty_pivot.core.moves.mirror import unfold
from zesty_pivot.core.piece import FishEye, Pattern, Side
from zesty_pivot.core.piece.place import origin_of, point, sewn_distance
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def eye(**more: Any) -> dict[str, Any]:
    return {"do": "dart.fisheye", "on": "front", **more}


def across(pattern: Pattern, y_below: float) -> float:
    """The cloth of both halves at a distance under the waist line, darts cut out, by Shapely alone."""
    total = 0.0
    for piece in pattern.pieces:
        ring = shapely.Polygon(np.concatenate([run.path.flatten(1e-4) for run in piece.runs]))
        for dart in piece.fisheyes:
            ring = ring.difference(shapely.Polygon(np.array(dart.corners)))
        y = piece.levels["waist"] + y_below
        total += shapely.intersection(ring, shapely.LineString([(-10.0, y), (900.0, y)])).length
    return 2.0 * total


def test_the_waist_girth_is_what_a_cut_across_the_laid_out_pieces_gives() -> None:
    # Source: Shapely's own intersection of the drawn pieces; the hip-length draft of common practice, no source.
    block = hip_pattern()
    made = worked([eye(intake="3 cm"), eye(on="back", intake="1 in", top="2 cm")], block).pattern
    assert girths(made, block).waist == pytest.approx(across(made, 0.0), abs=0.05)
    assert girths(made, block).hip == pytest.approx(across(made, 200.0), abs=0.05)
    assert across(block, 0.0) - across(made, 0.0) == pytest.approx(2 * (30.0 - 32.0 + 25.4 - 28.0), abs=0.05)


def test_a_fish_eye_stands_where_the_trade_puts_it() -> None:
    # 1 in below BP and 2 in above the hip line: common practice, no source.
    made = worked([eye(intake="4 cm")], hip_pattern()).pattern.piece("front").fisheyes[0]
    front = hip_pattern().piece("front")
    assert made.top == pytest.approx((96.0, front.pivot("bust_point")[1] + 25.4))
    assert made.bottom == pytest.approx((96.0, front.levels["hip"] - 50.8))
    assert made.intake == pytest.approx(40.0, abs=1e-9)
    assert made.width(0.0) == pytest.approx(40.0, abs=1e-6)
    half_up = (front.levels["waist"] - made.top[1]) / 2.0
    assert made.width(-half_up) == pytest.approx(20.0, abs=1e-6)
    upper = [leg.length for leg in (made.legs[0], made.legs[3])]
    assert upper[0] == pytest.approx(upper[1], abs=1e-9)


def test_bowed_legs_stay_equal_and_reach_their_bow() -> None:
    made = worked([eye(intake="3 cm", bow="3 mm")], hip_pattern()).pattern.piece("front").fisheyes[0]
    straight = worked([eye(intake="3 cm")], hip_pattern()).pattern.piece("front").fisheyes[0]
    for leg, plain in zip(made.legs, straight.legs, strict=True):
        middle = leg.point_at(leg.length / 2.0)
        assert shapely.LineString(plain.outline).distance(shapely.Point(middle)) == pytest.approx(3.0, abs=1e-6)
    assert made.legs[0].length == pytest.approx(made.legs[3].length, abs=1e-9)
    assert made.width(-40.0) > straight.width(-40.0)


def test_a_fish_eye_goes_with_its_cloth_when_a_dart_moves() -> None:
    block = hip_pattern()
    made = worked([move("shoulder", "side_bust"), move("shoulder", "centre_bust")], block).pattern.piece("front")
    before, after = block.piece("front").fisheyes[0], made.fisheyes[0]
    assert after.intake == pytest.approx(before.intake, abs=1e-9)
    for leg, old in zip(after.legs, before.legs, strict=True):
        assert leg.length == pytest.approx(old.length, abs=1e-9)
    back = worked([move("shoulder", "side_bust"), move("shoulder", "mid_shoulder")], block).pattern.piece("front")
    assert np.allclose(back.fisheyes[0].corners, before.corners, atol=1e-9)
    assert all(account.is_whole for account in accounts(worked([move("shoulder", "side_bust")], block).pattern, block))


def test_a_turned_fish_eye_tells_its_width_in_its_own_direction() -> None:
    base = FishEye("waist", (0.0, -100.0), (10.0, 0.0), (0.0, 80.0), (-10.0, 0.0))
    turn = np.deg2rad(33.0)
    cos, sin = math.cos(turn), math.sin(turn)

    def at(x: float, y: float) -> tuple[float, float]:
        return cos * x - sin * y, sin * x + cos * y

    turned = FishEye("waist", at(0.0, -100.0), at(10.0, 0.0), at(0.0, 80.0), at(-10.0, 0.0))
    for below in (-60.0, -20.0, 0.0, 30.0):
        assert turned.width(below) == pytest.approx(base.width(below), abs=1e-9)


def test_an_unfolded_front_has_one_on_either_side() -> None:
    half = hip_pattern().piece("front")
    whole = unfold(half)
    assert [dart.id for dart in whole.fisheyes] == ["waist.left", "waist.right"]
    assert whole.fisheyes[1].top[0] == pytest.approx(-half.fisheyes[0].top[0])
    assert [whole.sides.of(eye.id) for eye in whole.fisheyes] == [Side.LEFT, Side.RIGHT]


@pytest.mark.parametrize("name", ["centre_waist", "side_waist", "french", "side_bust"])
def test_stations_of_the_waist_keep_to_the_waist_line(name: str) -> None:
    front = hip_pattern().piece("front")
    place = resolve(Spot(station=name), front, front, Scope(), "bust_point")  # type: ignore[arg-type]
    y = point(front, place)[1]
    if name.endswith("waist"):
        assert y == pytest.approx(front.levels["waist"], abs=1e-6)
    else:
        waist = resolve(Spot(edge="side_seam", level="waist"), front, front, Scope(), "bust_point")
        share = sewn_distance(front, place) / sewn_distance(front, waist)
        assert share == pytest.approx({"french": 0.85, "side_bust": 0.2}[name], abs=1e-9)


def test_the_stations_are_found_on_both_sides_of_an_unfolded_front() -> None:
    front = hip_pattern().piece("front")
    whole = unfold(front)
    spots = [resolve(Spot(station="french", side=side), whole, front, Scope(), "bust_point.left") for side in ("left", "right")]
    left, right = (point(whole, spot) for spot in spots)
    assert left[0] == pytest.approx(-right[0], abs=1e-9) and left[1] == pytest.approx(right[1], abs=1e-9)
    assert whole.sides.of(whole.runs[spots[1].run].edge) is Side.RIGHT
    assert origin_of(whole, spots[0]).line == origin_of(whole, spots[1]).line == "front.side_seam"
    assert not origin_of(whole, spots[0]).is_mirrored and origin_of(whole, spots[1]).is_mirrored


REFUSED = [
    (eye(intake="-1 cm"), "must be 0 or more"),
    (eye(intake="0", dart="other"), "no such fish-eye"),
    (eye(intake="40 cm"), "leaves the piece"),
    (eye(dart="shoulder"), "called 'shoulder' already"),
    (eye(top="30 cm"), "above and below the waist"),
    (eye(below="elbow"), "no pivot 'elbow'"),
    (eye(dart="second", axis="10 cm"), "crosses the fish-eye waist dart"),
    (move("shoulder", "waist"), "no waist seam to open"),
    ({"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"edge": "hem", "at": "62%"}}, "the fish-eye dart 'waist'"),
]


@pytest.mark.parametrize(("step", "text"), REFUSED)
def test_what_cannot_be_is_refused_in_one_sentence(step: dict[str, Any], text: str) -> None:
    found = Evaluator().evaluate(hip_pattern(), [registry.read(step)], Scope("cm", {}))
    (_number, fault) = found.broken[0]
    assert text in str(fault) and fault.advice and "\n" not in str(fault)


def test_on_a_waist_length_block_it_is_refused() -> None:
    from tests.samples import real_pattern

    found = Evaluator().evaluate(real_pattern(), [registry.read(eye(dart="new"))], Scope("cm", {}))
    assert "needs a hip-length piece" in str(found.broken[0][1])


def test_it_can_be_taken_away_and_drawn_again() -> None:
    block = hip_pattern()
    gone = worked([eye(intake=0)], block).pattern.piece("front")
    assert gone.fisheyes == ()
    again = worked([eye(intake=0), eye(intake="3.2 cm", top="2.5 cm", bottom="5 cm")], block).pattern.piece("front")
    assert np.allclose(again.fisheyes[0].corners, block.piece("front").fisheyes[0].corners)


def test_its_marks_are_on_the_sheet() -> None:
    made = worked([eye(intake="3 cm")], hip_pattern()).pattern.piece("front")
    sheet = finish_piece(made, Finish(), Scope("cm", {}), "Test")
    legs = next(stroke for stroke in sheet.strokes if stroke.id == "waist.legs")
    assert legs.layer == "seam" and len(legs.paths) == 4
    drills = {circle.id.rpartition(".")[2]: circle.at for circle in sheet.circles if circle.id.startswith("waist.drill")}
    assert set(drills) == {"top", "bottom", "left", "right"}
    # 1 to 1.3 cm inside the point: common practice, no source.
    assert 10.0 <= drills["top"][1] - made.fisheyes[0].top[1] <= 13.0
    hem = next(stroke for stroke in sheet.strokes if stroke.id == "hem")
    assert hem.paths[0].length == pytest.approx(262.0, abs=1e-6)


FAULTS = [
    (lambda front: front["levels"].pop("waist"), "no waist line"),
    (lambda front: front["fisheyes"][0].update(top=[96.0, 600.0]), "above and below"),
    (lambda front: front["fisheyes"][0].update(waist=[[80.0, 442.0], [400.0, 442.0]]), "leaves the piece"),
    (lambda front: front["fisheyes"][0].update(id="shoulder"), "two darts have one id"),
    (lambda front: front["edges"].pop(4), "edge 'waist' is missing"),
]


@pytest.mark.parametrize(("spoil", "text"), FAULTS)
def test_a_broken_hip_length_block_is_refused(spoil: Any, text: str) -> None:
    value = copy.deepcopy(hip_value())
    spoil(value["pieces"][0])
    with pytest.raises(FileError, match=text):
        block_file.from_value(value, "hip")
