"""Cubics against SciPy, svgelements and known shapes."""

import itertools
import math

import numpy as np
import pytest
import scipy.integrate
import shapely
import svgelements
from hypothesis import assume, given

from tests.samples import cubics
from zesty_pivot.core.geometry import Path, bezier

S_CURVE = np.array([[0.0, 0.0], [100.0, 100.0], [0.0, -100.0], [100.0, 0.0]])
CUSP = np.array([[0.0, 0.0], [100.0, 100.0], [0.0, 100.0], [100.0, 0.0]])
POINT = np.zeros((4, 2))


def scipy_length(cubic: np.ndarray, stop: float = 1.0) -> float:
    """Arc length by adaptive quadrature of the speed, an algorithm that is not ours (scipy.integrate.quad)."""
    p = cubic

    def speed(t: float) -> float:
        d = 3 * ((1 - t) ** 2 * (p[1] - p[0]) + 2 * t * (1 - t) * (p[2] - p[1]) + t * t * (p[3] - p[2]))
        return math.hypot(*d)

    ends = np.linspace(0.0, stop, 9)
    return sum(scipy.integrate.quad(speed, a, b, epsabs=1e-11, limit=200)[0] for a, b in itertools.pairwise(ends))


@pytest.mark.parametrize("cubic", [S_CURVE, bezier.line(np.zeros(2), np.array([3.0, 4.0])), POINT])
def test_length_against_scipy(cubic: np.ndarray) -> None:
    assert bezier.lengths(cubic[None])[0] == pytest.approx(scipy_length(cubic), abs=1e-8)


@given(cubics)
def test_length_of_any_cubic_against_scipy(cubic: np.ndarray) -> None:
    speeds = np.hypot(*bezier.derivatives(cubic[None], np.linspace(0, 1, 200))[0].T)
    assume(speeds.min() > 1.0)  # at a cusp SciPy itself is not better than 1e-6
    assert bezier.lengths(cubic[None])[0] == pytest.approx(scipy_length(cubic), rel=1e-9, abs=1e-8)


def test_a_cusp_converges() -> None:
    fine = bezier.flatten(np.array([CUSP]), 1e-7)
    chords = float(np.hypot(*np.diff(fine, axis=0).T).sum())
    assert bezier.lengths(CUSP[None])[0] == pytest.approx(chords, abs=1e-4)


@pytest.mark.parametrize("bad", [np.nan, np.inf])
def test_a_point_at_no_place_has_no_length_and_ends(bad: float) -> None:
    """Once it was halved until the memory was full."""
    cubics = np.array([[[0.0, 0.0], [bad, 1.0], [2.0, 2.0], [3.0, 3.0]], [[0.0, 0.0], [1.0, 3.0], [2.0, -3.0], [3.0, 0.0]]])
    with np.errstate(all="ignore"):
        found = bezier.lengths(cubics)
    assert not np.isfinite(found[0]) and found[1] == pytest.approx(bezier.lengths(cubics[1:])[0])


def test_length_against_svgelements() -> None:
    text = "M 0 0 C 100 100 0 -100 100 0"
    theirs = svgelements.Path(text).length(error=1e-9)
    assert Path(S_CURVE[None]).length == pytest.approx(theirs, abs=1e-4)


@given(cubics)
def test_split_keeps_length_and_place(cubic: np.ndarray) -> None:
    path = Path(cubic[None])
    assume(path.length > 1.0)
    left, right = path.split_at(path.length * 0.37)
    assert left.length + right.length == pytest.approx(path.length, abs=1e-6)
    assert left.end == pytest.approx(right.start)
    fresh = Path(left.cubics)  # measured anew, not remembered
    assert fresh.length == pytest.approx(path.length * 0.37, abs=1e-6)


@given(cubics)
def test_point_at_length_lies_that_far(cubic: np.ndarray) -> None:
    path = Path(cubic[None])
    assume(path.length > 5.0)
    speeds = np.hypot(*bezier.derivatives(cubic[None], np.linspace(0, 1, 200))[0].T)
    assume(speeds.min() > 1.0)
    index, t = path._locate(path.length * 0.6)
    assert index == 0
    assert scipy_length(cubic, t) == pytest.approx(path.length * 0.6, abs=1e-6)


@pytest.mark.parametrize("cubic", [S_CURVE, CUSP])
@pytest.mark.parametrize("size", [0.01, 1.0, 100.0])
def test_flatten_keeps_within_its_bound(cubic: np.ndarray, size: float) -> None:
    path = Path(cubic[None] * size)
    line = shapely.LineString(path.flatten(0.05))
    dense = bezier.points(path.cubics, np.linspace(0, 1, 4001))[0]
    assert max(line.distance(shapely.Point(*p)) for p in dense[::8]) <= 0.05


def test_straight_lines_are_known() -> None:
    assert bezier.is_straight(bezier.line(np.array([1.0, 2.0]), np.array([30.0, -4.0])))
    assert not bezier.is_straight(S_CURVE)
