"""Strips of cloth: straps and facings of slits, and the trims that are cut straight."""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import Literal

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece import Body, Mark, Notch, Origin, Piece, Run, Source

Grain = Literal["along", "across", "bias"]

Crossing = tuple[str, float]  # what a strip is sewn across, and how far along (mm)

STRIP = "strip"  # the role of a strip's edges
RAW = "raw_edge"  # the role of one that has no allowance

SEAM, LOOSE = "seam", "loose_edge"  # the edge of a trim that is sewn on, and the one across from it


def rectangle(name: str, long: float, wide: float) -> Piece:
    """A strip, its grain along it; folded along its middle it is half as wide."""
    points = [np.array(at) for at in ((0.0, 0.0), (wide, 0.0), (wide, long), (0.0, long))]
    names = ("end", "side", "end_back", "side_back")
    grain = ((wide / 2.0, long * 0.2), (wide / 2.0, long * 0.8))
    return ringed(name, [(names[k], STRIP, Path.straight(points[k], points[(k + 1) % 4])) for k in range(4)], grain)


def ringed(
    name: str, edges: Sequence[tuple[str, str, Path]], grain: tuple[tuple[float, float], tuple[float, float]] | None,
    *, fold: str | None = None, notches: Sequence[Crossing] = (), marks: Sequence[Mark] = (), body: Body = Body.NONE,
) -> Piece:  # fmt: skip
    """A part of its own with these edges (id, role, line) in loop order. `notches` lie along its first edge, double on a
    back."""
    runs = tuple(Run(edge, path, Source(f"{name}.{edge}", 0.0, 1.0)) for edge, _role, path in edges)
    first, long = edges[0][0], edges[0][2].length
    made = tuple(
        Notch(f"{first}.{number}", called, Origin(f"{name}.{first}", at / long), 2 if body is Body.BACK else 1)
        for number, (called, at) in enumerate(notches)
        if 1e-6 < at < long - 1e-6
    )
    roles = tuple((edge, role) for edge, role, _path in edges)
    return Piece(name, fold, runs, roles, grain=grain, notches=made, marks=tuple(marks), body=body)


def straight_strip(
    name: str, long: float, deep: float, grain: Grain, crossings: Sequence[Crossing] = (), marks: Sequence[Mark] = (),
    loose: str = STRIP,
) -> Piece:  # fmt: skip
    """A strip that lies level: its upper edge is sewn on and is notched where it crosses seams; `loose` is the role of the
    lower one."""
    corners = [np.array(at) for at in ((0.0, 0.0), (long, 0.0), (long, deep), (0.0, deep))]
    names = ((SEAM, STRIP if loose != RAW else RAW), ("end", STRIP), (LOOSE, loose), ("end_back", STRIP))
    edges = [(*names[k], Path.straight(corners[k], corners[(k + 1) % 4])) for k in range(4)]
    return ringed(name, edges, grain_in(np.array([long / 2.0, deep / 2.0]), long, deep, grain), notches=crossings, marks=marks)


def grain_in(middle: Vector, long: float, deep: float, grain: Grain) -> tuple[tuple[float, float], tuple[float, float]]:
    """A grain line about the middle of a strip."""
    if grain == "bias":
        half = np.array([1.0, -1.0]) * 0.35 * min(long, deep)
    elif grain == "across":
        half = np.array([0.0, 0.4 * deep])
    else:
        half = np.array([0.3 * long, 0.0])
    one, two = middle - half, middle + half
    return (float(one[0]), float(one[1])), (float(two[0]), float(two[1]))


def fold_along(long: float, deep: float) -> Mark:
    """The fold along the middle of a strip that is doubled."""
    return Mark("fold", "crease", Path.straight(np.array([0.0, deep / 2.0]), np.array([long, deep / 2.0])))


def in_strips(long: float, crossings: Sequence[Crossing], longest: float) -> list[tuple[float, tuple[Crossing, ...], int]]:
    """A length shared out evenly on strips of at most `longest` mm: of each its length, where it crosses seams, and how often
    one like it is cut; those that are alike are one."""
    count = max(1, math.ceil(long / longest - 1e-9))
    each = long / count
    found: dict[tuple[tuple[str, float], ...], int] = {}
    for number in range(count):
        begin = number * each
        mine = tuple((name, at - begin) for name, at in crossings if begin + 1e-6 < at < begin + each - 1e-6)
        key = next((known for known in found if _like(known, mine)), mine)
        found[key] = found.get(key, 0) + 1
    return [(each, mine, times) for mine, times in found.items()]


def _like(one: tuple[Crossing, ...], two: tuple[Crossing, ...]) -> bool:
    return len(one) == len(two) and all(a[0] == b[0] and abs(a[1] - b[1]) < 0.01 for a, b in zip(one, two, strict=True))
