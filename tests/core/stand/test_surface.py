"""The distance from a surface against one that is known in closed form, and against the nearest of many points."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.spatial import cKDTree

from tests.bodies import PERSON
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.core.stand.surface import Surface, taut

RANDOM = np.random.default_rng(4)


def cone(slope: float) -> Surface:
    """A round surface, 100 mm at z = 0, that narrows upwards."""
    heights = np.arange(-300.0, 301.0, 3.0)
    return Surface.over(-300.0, 3.0, np.repeat((100.0 - slope * heights)[:, None], 240, axis=1), np.full(201, 7.0))


@pytest.mark.parametrize("slope", [0.0, 0.15])
def test_distance_from_a_cone(slope: float) -> None:
    points = RANDOM.uniform((-150, -150, -100), (150, 150, 100), (400, 3))
    rho = np.hypot(points[:, 0], points[:, 1] - 7.0)
    points, rho = points[rho > 40.0], rho[rho > 40.0]
    wanted = (rho - 100.0 + slope * points[:, 2]) / np.hypot(1.0, slope)  # from the straight side of a cone
    surface = cone(slope)
    assert surface.distance(points) == pytest.approx(wanted, abs=0.02)
    assert surface.outside(points)[0] == pytest.approx(wanted, abs=0.02)
    ways = surface.outside(points)[1]
    assert np.linalg.norm(ways, axis=1) == pytest.approx(1.0)
    # Outwards, and up where it narrows upwards.
    assert ((ways[:, :2] * (points[:, :2] - (0.0, 7.0))).sum(axis=1) > 0.0).all()
    assert ways[:, 2] == pytest.approx(slope / np.hypot(1.0, slope), abs=1e-6)


def test_distance_from_a_body_is_that_of_the_nearest_of_many_points() -> None:
    surface = form_of(PERSON).surface
    around, up = np.meshgrid(np.linspace(0, 2 * np.pi, 1100), np.arange(-190.0, 330.0, 1.0))
    tree = cKDTree(surface.at(around.ravel(), up.ravel()))
    angles, heights = RANDOM.uniform(0, 2 * np.pi, 300), RANDOM.uniform(-150.0, 290.0, 300)
    points = surface.at(angles, heights)
    points = points + surface.outside(points)[1] * RANDOM.uniform(3.0, 22.0, 300)[:, None]
    nearest = tree.query(points)[0]  # never less than the true one
    off = np.abs(nearest - surface.distance(points))
    assert np.quantile(off, 0.97) < 0.1  # in folds of the shoulder a foot may be the second nearest
    assert off.max() < 1.0


def test_near_the_surface_the_first_order_is_right() -> None:
    surface = form_of(PERSON).surface
    angles, heights = RANDOM.uniform(0, 2 * np.pi, 500), RANDOM.uniform(-150.0, 320.0, 500)
    points = surface.at(angles, heights)
    assert np.abs(surface.outside(points)[0]).max() < 1e-9
    off = RANDOM.uniform(-1.0, 1.0, 500)
    there = points + surface.outside(points)[1] * off[:, None]
    assert np.abs(surface.outside(there)[0] - off).max() < 0.1
    assert np.quantile(np.abs(surface.outside(there)[0] - off), 0.95) < 0.02


def test_the_way_out_is_the_slope_of_the_distance() -> None:
    surface = form_of(PERSON).surface
    points = surface.at(RANDOM.uniform(0, 2 * np.pi, 60), RANDOM.uniform(-150.0, 320.0, 60))
    _value, slope = surface._value(points)
    for k in range(3):
        step = np.zeros(3)
        step[k] = 1e-4
        found = (surface._value(points + step)[0] - surface._value(points - step)[0]) / 2e-4
        assert found == pytest.approx(slope[:, k], abs=1e-5)


def test_a_tape_goes_straight_over_hollows() -> None:
    square = np.array([[0, 0], [100, 0], [100, 100], [50, 60], [0, 100]], dtype=float)
    assert taut(square) == pytest.approx(400.0)
    assert cone(0.0).girth(0.0) == pytest.approx(2.0 * np.pi * 100.0, rel=1e-4)
    assert cone(0.15).girth(100.0) == pytest.approx(2.0 * np.pi * 85.0, rel=1e-4)


def test_it_cannot_be_written() -> None:
    with pytest.raises(ValueError, match="read-only"):
        cone(0.0).radii[0, 0] = 1.0
