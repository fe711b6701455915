"""The cut line against Shapely's own buffer: everything of the seam is inside by its allowance, or there is no cut line."""

import numpy as np
import pytest
import shapely

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.finish.allowance import WITHIN, Stretch, cut_ring
from zesty_pivot.core.geometry import Path

Corners = list[tuple[float, float]]

# Clockwise on the paper, y down.
SQUARE: Corners = [(0, 0), (100, 0), (100, 100), (0, 100)]
HOLLOW: Corners = [(0, 0), (100, 0), (100, 100), (60, 100), (60, 40), (45, 40), (45, 100), (0, 100)]  # 15 mm wide
FINGER: Corners = [(0, 0), (60, 0), (60, -80), (64, -80), (64, 0), (100, 0), (100, 100), (0, 100)]  # 4 mm wide
JOG: Corners = [(0, 0), (50, 0), (50, 12), (100, 12), (100, 100), (0, 100)]
SPIKE: Corners = [(0, 0), (100, 0), (100, 100), (52, 100), (50, 20), (48, 100), (0, 100)]


def stretches(corners: Corners, allowances: list[float]) -> list[Stretch]:
    ends = [*corners[1:], corners[0]]
    sizes = allowances * len(corners) if len(allowances) == 1 else allowances
    return [Stretch(Path.straight(a, b), size) for a, b, size in zip(corners, ends, sizes, strict=True)]


@pytest.mark.parametrize("allowance", [0.0, 3.0, 10.0, 25.0])
@pytest.mark.parametrize("corners", [SQUARE, HOLLOW, FINGER, JOG, SPIKE], ids=["square", "hollow", "finger", "jog", "spike"])
def test_nothing_of_the_seam_is_lost(corners: Corners, allowance: float) -> None:
    """Round joins keep the allowance everywhere: what Shapely's buffer covers the cut line covers, and no more than the
    corners reach beyond it."""
    seam = shapely.Polygon(corners)
    cut = shapely.Polygon(cut_ring(stretches(corners, [allowance])))
    assert cut.is_valid
    flat = seam.buffer(max(allowance - WITHIN, 0.0), cap_style="flat", join_style="bevel")
    assert flat.difference(cut).area < 1e-3
    assert cut.difference(seam.buffer(1.9 * allowance + 0.1, join_style="mitre")).area < 1e-3


def test_a_square_grows_by_its_allowances() -> None:
    cut = shapely.Polygon(cut_ring(stretches(SQUARE, [10.0, 20.0, 30.0, 5.0])))
    assert cut.bounds == pytest.approx((-5.0, -10.0, 120.0, 130.0), abs=1e-6)
    assert cut.area == pytest.approx(125.0 * 140.0, abs=1e-3)


def test_a_hollow_narrower_than_its_allowances_is_filled_not_lost() -> None:
    cut = shapely.Polygon(cut_ring(stretches(HOLLOW, [10.0])))
    assert cut.covers(shapely.Polygon(HOLLOW).buffer(9.9, join_style="bevel")) and not cut.interiors
    assert cut.bounds == pytest.approx((-10.0, -10.0, 110.0, 110.0), abs=1e-6)


def test_a_ring_with_a_hole_in_its_allowances_is_refused() -> None:
    """A hollow with a narrow mouth: the cut line would be two lines."""
    flask: Corners = [
        (0, 0), (200, 0), (200, 200), (104, 200), (104, 150), (150, 150), (150, 50), (50, 50), (50, 150), (96, 150), (96, 200),
        (0, 200),
    ]  # fmt: skip
    assert shapely.Polygon(flask).is_valid
    with pytest.raises(GeometryError, match="close over an open place"):
        cut_ring(stretches(flask, [10.0]))
    assert shapely.Polygon(cut_ring(stretches(flask, [3.0]))).is_valid


def test_stretches_that_do_not_meet_keep_the_step_between_them() -> None:
    parts = [
        Stretch(Path.straight((0, 0), (50, 0)), 10.0), Stretch(Path.straight((50, 18), (100, 18)), 10.0),
        Stretch(Path.straight((100, 18), (100, 100)), 10.0), Stretch(Path.straight((100, 100), (0, 100)), 10.0),
        Stretch(Path.straight((0, 100), (0, 0)), 10.0),
    ]  # fmt: skip
    cut = shapely.Polygon(cut_ring(parts))
    for part in parts:
        start, end = np.asarray(part.path.start), np.asarray(part.path.end)
        way = (end - start) / np.hypot(*(end - start))
        out = np.array([way[1], -way[0]]) * (10.0 - WITHIN)
        assert cut.covers(shapely.Polygon([start, end, end + out, start + out]))
