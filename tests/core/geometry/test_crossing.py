"""Crossings of curves, against closed forms and Shapely."""

import math

import numpy as np
import pytest
import shapely
from hypothesis import example, given, settings
from hypothesis import strategies as st

from tests.samples import cubics
from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path, bezier
from zesty_pivot.core.geometry.crossing import _quadratic_roots, _roots, of_curves, with_line

ARCH = np.array([[0.0, 0.0], [0.0, 100.0], [100.0, 100.0], [100.0, 0.0]])


def test_a_line_through_an_arch_meets_it_twice() -> None:
    hits = with_line(ARCH[None], np.array([-50.0, 50.0]), np.array([1.0, 0.0]))
    assert len(hits) == 2
    for _index, t, distance in hits:
        x, y = bezier.point(ARCH, t)
        assert y == pytest.approx(50.0, abs=1e-9)
        assert x == pytest.approx(distance - 50.0, abs=1e-9)


def test_a_touching_line_meets_once() -> None:
    hits = with_line(ARCH[None], np.array([0.0, 75.0]), np.array([1.0, 0.0]))
    assert {round(t, 5) for _i, t, _d in hits} == {0.5}


def test_a_segment_along_the_line_is_no_crossing() -> None:
    flat = bezier.line(np.zeros(2), np.array([10.0, 0.0]))
    assert with_line(flat[None], np.zeros(2), np.array([1.0, 0.0])) == []


@given(cubics)
def test_line_crossings_against_sign_changes(cubic: np.ndarray) -> None:
    direction = np.array([math.cos(0.3), math.sin(0.3)])
    normal = np.array([-direction[1], direction[0]])
    heights = bezier.points(cubic[None], np.linspace(0.0, 1.0, 2000))[0] @ normal
    changes = int((np.sign(heights[1:]) * np.sign(heights[:-1]) < 0).sum())
    hits = with_line(cubic[None], np.zeros(2), direction)
    if min(abs(heights[0]), abs(heights[-1])) > 0.1:
        assert len(hits) >= changes
    for _index, t, distance in hits:
        assert bezier.point(cubic, t) == pytest.approx(direction * distance, abs=1e-4)
    far = with_line(cubic[None], np.array([0.0, 5000.0]), np.array([1.0, 0.0]))
    assert far == []


def test_two_curves_against_shapely() -> None:
    one, other = ARCH, ARCH[:, ::-1] * np.array([1.0, 1.0]) + np.array([20.0, -30.0])
    ours = sorted((bezier.point(one, t).tolist()) for _i, t, _j, _u in of_curves(one[None], other[None]))
    lines = [shapely.LineString(bezier.flatten(c[None], 1e-6)) for c in (one, other)]
    theirs = sorted([p.x, p.y] for p in shapely.get_parts(shapely.intersection(*lines)))
    assert len(ours) == len(theirs) > 0
    assert np.array(ours) == pytest.approx(np.array(theirs), abs=1e-3)


@settings(max_examples=40, deadline=None)
@given(cubics, cubics)
def test_curve_crossings_lie_on_both(one: np.ndarray, other: np.ndarray) -> None:
    try:
        hits = of_curves(one[None], other[None])
    except GeometryError:
        return
    for _i, t, _j, u in hits:
        assert bezier.point(one, t) == pytest.approx(bezier.point(other, u), abs=2e-5)


def test_curves_that_run_along_each_other_are_refused() -> None:
    with pytest.raises(GeometryError, match="run along each other"):
        of_curves(ARCH[None], ARCH[None])


def test_curves_apart_do_not_meet() -> None:
    assert of_curves(ARCH[None], ARCH[None] + 500.0) == []
    assert Path(ARCH[None]).length > 0


@pytest.mark.parametrize(("coefficients", "roots"), [
    ((0.0, 2.0, -1.0), [0.5]), ((0.0, 0.0, 3.0), []), ((1.0, 0.0, 1.0), []), ((1.0, -3.0, 2.0), [1.0, 2.0]),
    ((1.0, 3.0, 2.0), [-2.0, -1.0]), ((2.0, 0.0, 0.0), [0.0]), ((1.0, -1e8, 1.0), [1e-8, 1e8]),
])  # fmt: skip
def test_quadratic_roots_against_the_formula(coefficients: tuple[float, float, float], roots: list[float]) -> None:
    """The last cancels in the schoolbook formula: its small root is lost there."""
    assert sorted(_quadratic_roots(*coefficients)) == pytest.approx(roots, rel=1e-12)


@given(
    st.tuples(*[st.floats(0.1, 1.0) | st.floats(-1.0, -0.1)] * 3),
    st.floats(-300.0, 300.0),
    st.integers(-16, 0),
    st.integers(-16, 0),
)
@example((0.594, 0.1847, 0.05366), -10.87566567, -12, -2)
@settings(max_examples=300, deadline=None)
def test_roots_of_nearly_lower_powers_against_numpy(
    power: tuple[float, float, float], d: float, cubic: int, square: int
) -> None:
    """A curve drawn almost as a parabola has a root some 1e9 away: a shoulder was met at 0.92 of its way instead of 0.66.
    Checked against the eigenvalues of the companion matrix (numpy.roots)."""
    a, b, c = power[0] * 300.0 * 10.0**cubic, power[1] * 300.0 * 10.0**square, power[2] * 300.0
    wanted = [float(root.real) for root in np.roots([a, b, c, d]) if abs(root.imag) < 1e-12 and 1e-6 < root.real < 1.0 - 1e-6]
    slopes = [abs((3.0 * a * t + 2.0 * b) * t + c) for t in wanted]
    if any(slope < 1e-3 for slope in slopes):
        return  # a touching pair: whether it is one root or none is a matter of rounding
    heights = np.array([d, d + c / 3.0, d + 2.0 * c / 3.0 + b / 3.0, a + b + c + d])
    found = [t for t in _roots(heights) if 1e-6 < t < 1.0 - 1e-6]
    assert found == pytest.approx(sorted(wanted), abs=1e-9)
