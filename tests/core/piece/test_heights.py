"""What lies at a height, against Shapely's own intersections (GEOS), which know nothing of ours."""

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.samples import hip_pattern, move, real_pattern, scaled, stretches, worked
from zesty_pivot.core.moves.mirror import unfold
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.heights import cloth_at, crossings, edges_at
from zesty_pivot.core.piece.region import cloth


@settings(max_examples=25, deadline=None)
@given(stretches, st.floats(0.05, 0.95), st.sampled_from(["front", "back"]))
def test_crossings_lie_on_the_line_and_miss_none(stretch: tuple[float, float], share: float, name: str) -> None:
    piece = scaled(*stretch).piece(name)
    for role in ("armhole", "side_seam", "neckline"):
        paths = [run.path for run in piece.runs if piece.role(run.edge) == role]
        ys = np.concatenate([path.outline[:, 1] for path in paths])
        y = float(ys.min() + share * (ys.max() - ys.min()))
        line = shapely.LineString(np.concatenate([path.flatten(1e-4) for path in paths]))
        theirs = sorted(shapely.get_coordinates(line.intersection(shapely.LineString([(-900.0, y), (900.0, y)])))[:, 0])
        mine = edges_at(piece, role, y)
        assert [x for _place, x in sorted(mine, key=lambda hit: hit[1])] == pytest.approx(theirs, abs=1e-2)
        for place, x in mine:
            assert places.point(piece, place) == pytest.approx((x, y), abs=1e-6)


def test_distances_run_on_over_several_stretches() -> None:
    path = real_pattern().piece("front").edge("armhole").runs[0].path
    middle = float(path.point_at(path.length * 0.7)[1])
    parts = path.split_at(path.length * 0.4)
    assert crossings(parts, middle) == [pytest.approx(hit, abs=1e-6) for hit in crossings((path,), middle)]
    assert crossings(parts, -1000.0) == []


@pytest.mark.parametrize("level", ["bust", "waist", "hip"])
def test_the_cloth_across_is_what_a_ruler_lies_on(level: str) -> None:
    piece = hip_pattern().piece("front")
    y = piece.levels[level]
    xs = np.arange(-50.0, 400.0, 0.05) + 0.025
    inside = shapely.contains_xy(cloth(piece), xs, np.full(len(xs), y))
    assert cloth_at(piece, y) == pytest.approx(0.05 * inside.sum(), abs=0.2)
    whole = unfold(piece)
    assert cloth_at(whole, y) * whole.times == pytest.approx(cloth_at(piece, y) * piece.times, abs=0.02)


@pytest.mark.parametrize("dart", ["shoulder", "waist"])
def test_a_level_in_the_mouth_of_a_dart_on_the_centre(dart: str) -> None:
    """It runs along the leg to the pivot and on outwards from there, by Shapely: the shut dart has no other cloth there."""
    front = worked([move(dart, "centre_bust")]).pattern.piece("front")
    (mouth,) = [front.mouth(one.id) for one in front.darts if front.role(front.dart_edge(one.id)) == "centre"]
    pin = np.array(front.landmarks["bust_point"])
    low, high = sorted(end[1] for end in mouth)
    ray = shapely.LineString([pin + np.array([1e-6, 0.0]), pin + np.array([900.0, 0.0])])
    beyond = cloth(front).intersection(ray)
    outwards = min(shapely.get_parts(beyond), key=lambda part: part.bounds[0]).length
    for share in (0.3, 0.7):
        y = float(low + share * (high - low))
        leg = float(np.hypot(*(mouth[0] - pin)))
        assert cloth_at(front, y) == pytest.approx(leg + outwards, abs=0.5)
        assert cloth_at(front, y) > 200.0
