"""Cubics through points: distances and lengths against the curve that the points came from."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
import shapely

from zesty_pivot.core.geometry import Path, bezier
from zesty_pivot.core.geometry.fit import fitted, noise


def circle(radius: float, start: float, stop: float, count: int) -> np.ndarray:
    t = np.linspace(start, stop, count)
    return radius * np.stack([np.cos(t), np.sin(t)], axis=-1)


@pytest.mark.parametrize("radius", [2.0, 30.0, 400.0])
def test_an_arc_has_its_length(radius: float) -> None:
    """Length r times angle: the definition of the radian."""
    cubics, error = fitted(circle(radius, 0.3, 2.9, 60), 0.001 * radius)
    assert error <= 0.001 * radius
    assert Path(cubics).length == pytest.approx(2.6 * radius, rel=1e-3)


def test_no_point_lies_farther_off_than_told() -> None:
    """By Shapely's distances to a fine polyline of the cubics."""
    cubic = np.array([[0.0, 0.0], [150.0, -40.0], [-60.0, 180.0], [90.0, 160.0]])  # an S with a tight bend
    points = bezier.flatten(cubic[None], 0.005)
    cubics, error = fitted(points, 0.02)
    line = shapely.LineString(bezier.flatten(cubics, 1e-4))
    worst = max(line.distance(shapely.Point(point)) for point in points)
    assert worst <= error + 1e-3 <= 0.021


def test_a_straight_line_stays_one() -> None:
    cubics, error = fitted(np.linspace([0.0, 0.0], [300.0, 120.0], 40), 0.01)
    assert len(cubics) == 1 and bezier.is_straight(cubics[0]) and error < 1e-9


def test_it_runs_on_smoothly_where_it_is_parted() -> None:
    cubics, _error = fitted(circle(120.0, 0.0, 4.0, 200), 0.001)
    assert len(cubics) > 1
    for one, two in itertools.pairwise(cubics):
        before, after = one[3] - one[2], two[1] - two[0]
        assert abs(math.atan2(before[0] * after[1] - before[1] * after[0], before @ after)) < 1e-6


@pytest.mark.parametrize("sigma", [0.1, 0.3])
def test_noise_is_told(sigma: float) -> None:
    chance = np.random.default_rng(5)
    found = np.median([noise(circle(200.0, 0.0, 3.0, 120) + chance.normal(0.0, sigma, (120, 2))) for _ in range(20)])
    assert found == pytest.approx(sigma, rel=0.25)


def test_points_without_noise_have_none() -> None:
    assert noise(circle(200.0, 0.0, 3.0, 120)) < 0.01


@pytest.mark.parametrize("count", [2, 3, 4, 5, 6, 7, 9])
def test_few_points_give_a_line_as_long_as_they_are(count: int) -> None:
    points = circle(50.0, 0.0, 1.0, count)
    cubics, _error = fitted(points, 0.01)
    assert np.array_equal(cubics[0, 0], points[0]) and np.array_equal(cubics[-1, 3], points[-1])
    assert Path(cubics).length == pytest.approx(50.0, rel=0.05)


def test_points_that_fall_together_do_not_throw_it_off() -> None:
    points = np.repeat(circle(80.0, 0.0, 2.0, 12), 3, axis=0)
    cubics, _error = fitted(points, 0.05)
    assert np.abs(cubics).max() < 200.0
