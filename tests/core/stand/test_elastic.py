"""Cloth against what is known in closed form: stretched and hanging strips, a catenary, a cylinder; slopes by differences."""

from __future__ import annotations

import numpy as np
import pytest
from scipy.optimize import brentq
from scipy.sparse import diags
from scipy.sparse.linalg import splu

from zesty_pivot.core.stand.cloth import GRAVITY, THICK, ClothKind, ElasticCloth, SewnSheet
from zesty_pivot.core.stand.settle import let_go

KIND = ClothKind("test", "test", 200.0, 0.8, 0.02)
NONE = np.empty(0, dtype=np.int64)


def strip(long: float, wide: float, step: float) -> tuple[np.ndarray, np.ndarray]:
    """Points (n, 2) and triangles of a strip along the second coordinate."""
    xs, ys = np.linspace(0.0, wide, round(wide / step) + 1), np.linspace(0.0, long, round(long / step) + 1)
    x, y = np.meshgrid(xs, ys)
    first = np.arange(x.size).reshape(x.shape)
    a, b, c, d = (part.ravel() for part in (first[:-1, :-1], first[:-1, 1:], first[1:, 1:], first[1:, :-1]))
    return np.stack([x.ravel(), y.ravel()], axis=1), np.concatenate([np.stack([a, b, c], 1), np.stack([a, c, d], 1)])


def sheet(points: np.ndarray, triangles: np.ndarray, held: np.ndarray, axis: np.ndarray = NONE) -> SewnSheet:
    fixed = np.zeros((len(points), 3), dtype=bool)
    fixed[held] = True
    return SewnSheet(points[triangles], triangles, len(points), axis, fixed)


def rest(cloth: ElasticCloth, start: np.ndarray, most: int = 200) -> np.ndarray:
    return list(let_go(cloth, start, most))[-1].places


def test_a_strip_hangs_as_long_as_its_weight_makes_it() -> None:
    points, triangles = strip(400.0, 40.0, 8.0)
    heavy = ClothKind("heavy", "heavy", 20_000.0, 0.8, 0.02)
    cloth = ElasticCloth(sheet(points, triangles, np.flatnonzero(points[:, 1] == 0.0)), heavy)
    found = rest(cloth, np.stack([points[:, 0], np.zeros(len(points)), -points[:, 1]], axis=1))
    # Longer by w g L² / 2 k: what hangs below pulls, most at the top (strength of materials).
    wanted = 20_000.0 * 1e-6 * GRAVITY * 400.0**2 / (2.0 * 0.8)
    assert -found[:, 2].min() - 400.0 == pytest.approx(wanted, rel=0.01)
    top = cloth.stretches(found)[0][:10].mean() - 1.0
    assert top == pytest.approx(2.0 * wanted / 400.0, rel=0.03)


def test_a_stretched_strip() -> None:
    points, triangles = strip(200.0, 50.0, 10.0)
    cloth = ElasticCloth(sheet(points, triangles, np.flatnonzero(np.isin(points[:, 1], (0.0, 200.0)))), KIND, is_heavy=False)
    start = np.stack([points[:, 0], np.zeros(len(points)), 1.05 * points[:, 1]], axis=1)
    found = rest(cloth, start)
    first, second, _on, _in = cloth.stretches(found)
    assert first == pytest.approx(1.05, abs=1e-6)
    assert second == pytest.approx(1.0, abs=1e-6)  # nothing draws it in
    assert cloth.energy(found) == pytest.approx(0.5 * 0.8 * 200.0 * 50.0 * 0.05**2, rel=1e-6)


def test_a_hanging_strip_is_a_catenary() -> None:
    long, apart = 400.0, 300.0
    points, triangles = strip(long, 16.0, 8.0)
    ends = np.flatnonzero(np.isin(points[:, 1], (0.0, long)))
    limp = ClothKind("limp", "limp", 200.0, 20.0, 1e-5)
    cloth = ElasticCloth(sheet(points, triangles, ends), limp)
    share = points[:, 1] / long
    start = np.stack([points[:, 0], apart * (share - 0.5), -400.0 * share * (1.0 - share)], axis=1)
    found = rest(cloth, start)
    # z = a cosh(y / a) - a cosh(d / 2 a), as long as the strip: 2 a sinh(d / 2 a) = L.
    a = brentq(lambda a: 2.0 * a * np.sinh(apart / (2.0 * a)) - long, 50.0, 1000.0)
    wanted = a * np.cosh(found[:, 1] / a) - a * np.cosh(apart / (2.0 * a))
    assert np.abs(found[:, 2] - wanted).max() < 0.6
    assert found[:, 2].min() < -100.0


@pytest.mark.parametrize("radius", [60.0, 150.0])
def test_a_cylinder_takes_half_the_rigidity_by_its_curve_squared(radius: float) -> None:
    points, triangles = strip(160.0, 60.0, 4.0)
    cloth = ElasticCloth(sheet(points, triangles, NONE), KIND, is_heavy=False)
    angle = points[:, 1] / radius
    bent = np.stack([points[:, 0], radius * np.sin(angle), radius * np.cos(angle)], axis=1)
    stretch = 0.5 * 0.8 * float((cloth.areas * ((np.array(cloth.stretches(bent)[:2]) - 1.0) ** 2).sum(axis=0)).sum())
    # Free edges count half: their triangles have one neighbour only.
    inner = 160.0 * 60.0 * (1.0 - 4.0 / 160.0)
    assert cloth.energy(bent) - stretch == pytest.approx(0.5 * 0.02 * inner / radius**2, rel=0.03)


def test_half_a_cloth_with_its_mirror_is_as_stiff_as_the_whole() -> None:
    points, triangles = strip(160.0, 60.0, 5.0)
    both = np.concatenate([points, points[points[:, 0] > 0.0] * (-1.0, 1.0)])
    over = np.arange(len(points))
    over[points[:, 0] > 0.0] = len(points) + np.arange((points[:, 0] > 0.0).sum())
    whole = ElasticCloth(sheet(both, np.concatenate([triangles, over[triangles][:, ::-1]]), NONE), KIND)
    half = ElasticCloth(sheet(points, triangles, NONE, np.flatnonzero(points[:, 0] == 0.0)), KIND)

    def bent(at: np.ndarray) -> np.ndarray:
        return np.stack([80.0 * np.sin(at[:, 0] / 80.0), 80.0 * np.cos(at[:, 0] / 80.0), -at[:, 1]], axis=1)

    assert half.energy(bent(points)) == pytest.approx(0.5 * whole.energy(bent(both)), rel=1e-9)


def block(seed: int = 1) -> tuple[ElasticCloth, np.ndarray]:
    """A small crumpled cloth, partly within a wall at y = 0."""

    def wall(at: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        return at[:, 1], np.repeat([[0.0, 1.0, 0.0]], len(at), axis=0)

    points, triangles = strip(40.0, 24.0, 8.0)
    cloth = ElasticCloth(sheet(points, triangles, np.array([0, 1])), KIND, outside=wall)
    start = np.stack([points[:, 0], np.full(len(points), 0.2), -points[:, 1]], axis=1)
    return cloth, start + np.random.default_rng(seed).normal(0.0, 0.4, start.shape)


def test_slopes_by_differences() -> None:
    cloth, places = block()
    slope, _bend = cloth.slope_and_bend(places)
    found = np.empty(cloth.unknowns)
    for k in range(cloth.unknowns):
        by = np.zeros(cloth.unknowns)
        by[k] = 1e-5
        found[k] = (cloth.energy(cloth.moved(places, by)) - cloth.energy(cloth.moved(places, -by))) / 2e-5
    assert found == pytest.approx(slope, abs=2e-6 * max(1.0, np.abs(slope).max()))


def test_second_derivatives_are_positive_and_right_where_nothing_was_changed() -> None:
    cloth, places = block()
    stretched = places * (1.1, 1.0, 1.1)  # stretched everywhere: nothing is negative
    slope, bend = cloth.slope_and_bend(stretched)
    assert np.linalg.eigvalsh(bend.toarray()).min() > -1e-9
    assert np.linalg.eigvalsh(cloth.slope_and_bend(places)[1].toarray()).min() > -1e-9
    if cloth.stretches(stretched)[1].min() > 1.0:
        way = np.random.default_rng(2).normal(size=cloth.unknowns)
        after = cloth.slope_and_bend(cloth.moved(stretched, 1e-5 * way))[0]
        before = cloth.slope_and_bend(cloth.moved(stretched, -1e-5 * way))[0]
        assert (after - before) / 2e-5 == pytest.approx(bend @ way, rel=2e-3, abs=1e-5)
    # The sparse solver against a dense one.
    held = bend + diags(1e-4 * cloth.masses)
    assert splu(held.tocsc()).solve(slope) == pytest.approx(np.linalg.solve(held.toarray(), slope), rel=1e-8, abs=1e-10)


def test_cloth_lies_on_what_it_touches() -> None:
    def floor(at: np.ndarray) -> tuple[np.ndarray, np.ndarray]:
        return at[:, 2], np.repeat([[0.0, 0.0, 1.0]], len(at), axis=0)

    points, triangles = strip(80.0, 80.0, 8.0)
    cloth = ElasticCloth(sheet(points, triangles, NONE), KIND, outside=floor)
    found = rest(cloth, np.stack([points[:, 0], points[:, 1], np.full(len(points), 20.0)], axis=1))
    assert found[:, 2] == pytest.approx(THICK, abs=0.02)
