"""A style line through its points: where it passes, how it passes, to which side it bows."""

import itertools

import numpy as np
import pytest
from scipy.interpolate import CubicSpline

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.moves import style_lines
from zesty_pivot.core.moves.panels import drawn

POINTS = [np.array(point) for point in ((0.0, 300.0), (30.0, 200.0), (20.0, 100.0), (0.0, 0.0))]
"""From the top down: the side is to the left of the way, at smaller x."""


def test_it_passes_every_point_without_a_corner() -> None:
    made = drawn(POINTS, (0.0, 0.0))
    assert len(made) == 3
    for path, start, stop in zip(made, POINTS, POINTS[1:], strict=False):
        assert path.start == pytest.approx(start) and path.end == pytest.approx(stop)
    for before, after in itertools.pairwise(made):
        leaving, entering = before.cubics[-1][3] - before.cubics[-1][2], after.cubics[0][1] - after.cubics[0][0]
        assert leaving @ entering == pytest.approx(np.hypot(*leaving) * np.hypot(*entering))
        assert leaving[1] < 0.0  # on its way down


def test_its_ends_bow_to_the_side_they_are_told() -> None:
    plain, bowed = drawn(POINTS, (0.0, 0.0)), drawn(POINTS, (6.0, -4.0))
    assert np.array_equal(plain[1].cubics, bowed[1].cubics)
    for number, mm in ((0, 6.0), (-1, -4.0)):
        start, stop = plain[number].start, plain[number].end
        way = (stop - start) / np.hypot(*(stop - start))
        left = np.array([way[1], -way[0]])
        # One handle stands 8/3 of the bow off its chord: 3 t (1 - t)^2 is 3/8 half way along.
        off = (bowed[number].cubics[0].mean(axis=0) - plain[number].cubics[0].mean(axis=0)) * 4.0
        assert off @ left == pytest.approx(mm * 8.0 / 3.0) and off @ way == pytest.approx(0.0, abs=1e-9)


def test_a_straight_line_bows_by_the_millimetres_asked() -> None:
    (made,) = drawn([np.array([0.0, 200.0]), np.array([0.0, 0.0])], (5.0, 5.0))
    xs = made.flatten(1e-3)[:, 0]
    assert xs[np.argmax(abs(xs))] == pytest.approx(-10.0, abs=0.01)  # both ends of the one stretch
    assert drawn([np.array([0.0, 200.0]), np.array([0.0, 0.0])], (5.0, 0.0))[0].flatten(1e-3)[:, 0].min() < -4.9


def test_two_points_in_one_are_refused() -> None:
    with pytest.raises(GeometryError, match="coincide"):
        drawn([POINTS[0], POINTS[0] + 1e-9, POINTS[1]], (0.0, 0.0))


def test_a_line_beside_an_edge_is_a_natural_spline_through_its_points() -> None:
    """Against SciPy's cubic spline with natural ends, over the chords."""
    points = [np.array(p) for p in ((0.0, 0.0), (11.0, 3.0), (24.0, 2.0), (40.0, -6.0), (52.0, -7.0))]
    made = style_lines._through(points)
    at = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(np.array(points), axis=0).T))])
    theirs = CubicSpline(at, np.array(points), bc_type="natural")
    for k, cubic in enumerate(made.cubics):
        for t in (0.0, 0.3, 0.5, 0.9, 1.0):
            weights = np.array([(1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t**2 * (1 - t), t**3])
            assert weights @ cubic == pytest.approx(theirs(at[k] + t * (at[k + 1] - at[k])), abs=1e-9)
