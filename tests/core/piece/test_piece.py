"""Pieces and places."""

import dataclasses

import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.samples import move, real_pattern, scaled, stretches, worked
from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.piece import Origin, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.region import contains, outline
from zesty_pivot.core.piece.spot import ALL_STATIONS, Spot, describe, resolve
from zesty_pivot.core.quantity import Scope


@settings(max_examples=25, deadline=None)
@given(stretches)
def test_area_against_shapely(stretch: tuple[float, float]) -> None:
    for piece in scaled(*stretch).pieces:
        assert piece.area == pytest.approx(shapely.Polygon(outline(piece)).area, rel=2e-5)


def test_values_cannot_be_written() -> None:
    piece = real_pattern().piece("front")
    with pytest.raises(dataclasses.FrozenInstanceError):
        piece.name = "other"
    with pytest.raises(ValueError, match="read-only"):
        piece.runs[0].path.cubics[0, 0, 0] = 1.0


def test_unknown_names_suggest_the_near_one() -> None:
    piece = real_pattern().piece("front")
    for call, said in (
        (lambda: piece.edge("sholder"), "Did you mean 'shoulder'"),
        (lambda: piece.dart("wiast"), "Did you mean 'waist'"),
        (lambda: piece.pivot("bust_pt"), "Did you mean 'bust_point'"),
        (lambda: piece.corner("underam"), "Did you mean 'underarm'"),
        (lambda: real_pattern().piece("fornt"), "Did you mean 'front'"),
    ):
        with pytest.raises(PlaceError, match=said):
            call()


def test_corners_are_where_the_block_says() -> None:
    piece = real_pattern().piece("front")
    assert piece.corner("shoulder_tip") == pytest.approx([262.168474, 76.103246])
    assert piece.corner("centre_waist") == pytest.approx([0.0, 438.0])


@given(st.floats(0.0, 1.0), st.sampled_from(["neckline", "shoulder", "armhole", "side_seam", "waist", "centre"]))
@settings(max_examples=60, deadline=None)
def test_a_place_is_found_again_by_provenance(share: float, edge: str) -> None:
    piece = real_pattern().piece("front")
    place = places.along(piece, edge, share * piece.edge(edge).sewn_length)
    again = places.by_origin(piece, places.origin_of(piece, place))
    assert places.point(piece, again) == pytest.approx(places.point(piece, place), abs=1e-4)


def test_provenance_survives_three_moves() -> None:
    """The middle of the shoulder of the block stays the same spot of cloth, wherever it has swung to."""
    block = real_pattern().piece("front")
    piece = worked(
        [move("shoulder", "mid_armhole"), move("waist", "mid_neck", "50%"), move("shoulder", "french")]
    ).pattern.piece("front")
    for u in (0.1, 0.45, 0.8):
        place = places.by_origin(piece, Origin("front.shoulder", u))
        assert places.sewn_distance(piece, place) == pytest.approx(u * block.edge("shoulder").sewn_length, abs=1e-6)


def test_a_place_off_the_edge_is_refused() -> None:
    with pytest.raises(PlaceError, match=r"off the edge\. The shoulder is 12\.6 cm long"):
        places.along(real_pattern().piece("front"), "shoulder", 500.0)


@pytest.mark.parametrize("name", ALL_STATIONS)
@pytest.mark.parametrize("side", ["front", "back"])
def test_every_station_has_a_place_that_is_called_by_its_name(name: str, side: str) -> None:
    piece = real_pattern().piece(side)
    pivot = "bust_point" if side == "front" else "waist_tip"
    place = resolve(Spot(station=name), piece, piece, Scope(), pivot)
    assert describe(piece, piece, place, pivot) == name


def test_ways_to_say_a_place() -> None:
    piece = real_pattern().piece("front")
    scope = Scope("cm", {"bust": 928.0})
    total = piece.edge("shoulder").sewn_length

    def distance(**words: object) -> float:
        place = resolve(Spot.model_validate(words), piece, piece, scope, "bust_point")
        return places.sewn_distance(piece, place)

    assert distance(edge="shoulder", at="50%") == pytest.approx(total / 2)
    assert distance(edge="shoulder", at=0.25) == pytest.approx(total / 4)
    assert distance(edge="shoulder", at="2 cm") == pytest.approx(20.0)
    assert distance(edge="shoulder", at="2") == pytest.approx(20.0)
    assert distance(**{"edge": "shoulder", "from": "shoulder_tip", "at": "2 cm"}) == pytest.approx(total - 20.0)
    assert distance(**{"edge": "shoulder", "from": "neck_point", "at": "bust/48"}) == pytest.approx(928.0 / 48)
    # y down: the centre runs from the waist (438) up, the bust line lies at 268.
    assert distance(edge="centre", level="bust") == pytest.approx(170.0)
    place = resolve(Spot(dart="waist"), piece, piece, scope, "bust_point")
    assert places.mouth_at(piece, place) == "waist"


@pytest.mark.parametrize(
    ("words", "said"),
    [
        ({"edge": "sholder", "at": "50%"}, "Did you mean 'shoulder'"),
        ({"edge": "shoulder", "at": "90 cm"}, "off the edge"),
        ({"edge": "shoulder", "from": "underarm", "at": "2 cm"}, "no end of the shoulder 'underarm'"),
        ({"edge": "shoulder", "level": "hip"}, "no level 'hip'"),
        ({"edge": "shoulder", "level": "bust"}, "does not meet"),
        ({"dart": "side"}, "no dart 'side'"),
    ],
)
def test_places_that_are_none(words: dict[str, object], said: str) -> None:
    piece = real_pattern().piece("front")
    with pytest.raises(PlaceError, match=said):
        resolve(Spot.model_validate(words), piece, piece, Scope(), "bust_point")


def test_the_start_of_a_run_is_the_joint_before_it() -> None:
    piece = real_pattern().piece("front")
    assert places.settled(piece, 1, 0.0) == Place(0, piece.runs[0].path.length)
    assert places.settled(piece, 0, 1e-9).run == len(piece.runs) - 1


def test_inside_and_outside_against_shapely() -> None:
    piece = real_pattern().piece("front")
    ring = outline(piece)
    polygon = shapely.Polygon(ring)
    for x in range(-20, 300, 23):
        for y in range(-20, 480, 29):
            assert contains(ring, ring[0] * 0 + [x, y]) == shapely.contains_xy(polygon.buffer(0), x, y)
