"""Presses of a digitiser as outlines with marks: corners, straight and curved stretches as the buttons say, legs, notches,
holes."""

from __future__ import annotations

import itertools
import math
from collections.abc import Sequence

import numpy as np
import shapely

from zesty_pivot.core.errors import FileError, GeometryError
from zesty_pivot.core.geometry import Path, bezier
from zesty_pivot.core.geometry.angles import unit
from zesty_pivot.core.geometry.fit import fitted, straight
from zesty_pivot.core.intake.corners import crossing_of
from zesty_pivot.core.intake.digitiser.stream import Press
from zesty_pivot.core.intake.loops import clockwise
from zesty_pivot.core.intake.traced import Array, Point, TracedPaper, TracedPiece
from zesty_pivot.core.record import record

HAND = 0.3  # mm that a hand strays with the cursor, a standard deviation. Common practice, no source
AT_EDGE = 12.0  # mm from the outline that a notch is pressed
LOOKS = (400.0, 200.0, 120.0, 80.0, 50.0, 30.0)  # mm of an edge that tell where and how it begins: as much as one cubic fits
LEAST = 3  # corners of an outline


@record
class _Raw:
    outline: tuple[Press, ...]
    legs: tuple[tuple[Point, ...], ...]
    notches: tuple[Point, ...]
    holes: tuple[Point, ...]
    points: tuple[Point, ...]
    grain: tuple[Point, ...]


def traced(presses: Sequence[Press], notes: tuple[str, ...] = ()) -> TracedPaper:
    """The pieces that were pressed. Raises FileError where none has an outline."""
    told = list(notes)
    pieces = []
    for number, raw in enumerate(_parted(presses), 1):
        piece = _piece(raw)
        if piece is None:
            told.append(f"Piece {number} has no outline: fewer than three places at its edge.")
        else:
            pieces.append(piece)
    if not pieces:
        raise FileError(
            "no outline was pressed", advice="Press the corners and curves all round a piece, then the button that closes it."
        )
    return TracedPaper(tuple(pieces), tuple(told))


def _parted(presses: Sequence[Press]) -> list[_Raw]:
    """The presses of each piece; `back` takes the last one away, whatever it was."""
    kept: list[Press] = []
    for press in presses:
        if press.deed == "back":
            if kept:
                kept.pop()
        else:
            kept.append(press)
    found, mine = [], list[Press]()
    for press in kept:
        if press.deed == "next":
            found.append(_raw(mine))
            mine = []
        else:
            mine.append(press)
    if mine:
        found.append(_raw(mine))
    return [raw for raw in found if raw.outline or raw.legs]


def _raw(presses: Sequence[Press]) -> _Raw:
    outline: list[Press] = []
    legs: list[list[Point]] = []
    places: dict[str, list[Point]] = {"notch": [], "hole": [], "point": [], "grain": []}
    is_closed, before = False, ""
    for press in presses:
        at = (press.x, press.y)
        if press.deed in ("line", "curve", "corner"):
            if is_closed:  # what is pressed along an edge after it was closed is a line inside
                legs.append([at]) if before not in ("line", "curve", "corner") else legs[-1].append(at)
            else:
                outline.append(press)
        elif press.deed == "leg":
            legs.append([at]) if before != "leg" else legs[-1].append(at)
        elif press.deed == "close":
            is_closed = is_closed or bool(outline)
            if before == "leg":  # ends one line inside, so that the next begins anew
                before = ""
                continue
        else:
            places[press.deed].append(at)
        before = press.deed
    lines = tuple(tuple(leg) for leg in legs if len(leg) > 1)
    return _Raw(
        tuple(outline), lines, tuple(places["notch"]), tuple(places["hole"]), tuple(places["point"]), tuple(places["grain"])
    )  # fmt: skip


def _piece(raw: _Raw) -> TracedPiece | None:
    outline = list(raw.outline)
    if len(outline) > 3 and math.dist((outline[0].x, outline[0].y), (outline[-1].x, outline[-1].y)) < 3.0:
        outline.pop()  # the first corner pressed once more at the end
    if len(outline) < LEAST:
        return None
    try:
        path = clockwise(_outline(outline))
    except GeometryError:
        return None
    edge = shapely.LinearRing(path.outline[:-1])
    notches = []
    for at in raw.notches:
        where = edge.interpolate(edge.project(shapely.Point(at)))
        if edge.distance(shapely.Point(at)) <= AT_EDGE:
            notches.append((float(where.x), float(where.y)))
    grain = (raw.grain[0], raw.grain[1]) if len(raw.grain) >= 2 else None
    return TracedPiece(
        path, inner=tuple(Path.straight(*leg) for leg in raw.legs), notches=tuple(notches), holes=raw.holes, crosses=raw.points,
        grain=grain, error=2.0 * HAND,
    )  # fmt: skip


def _outline(presses: Sequence[Press]) -> Path:
    """The closed outline: between corners what was pressed as line is straight, as curve is fitted. A corner with places
    along both of its edges lies where these edges cross: a hand strays at a corner as anywhere."""
    first = next((k for k, press in enumerate(presses) if press.deed == "corner"), 0)
    ring = [*presses[first:], *presses[:first]]
    ends = [0, *(k for k, press in enumerate(ring) if k and press.deed == "corner"), len(ring)]
    parts = [[*ring[start:stop], ring[stop % len(ring)]] for start, stop in itertools.pairwise(ends)]
    strays = _strays(parts)
    corners = [_corner(before, after, strays) for before, after in zip([parts[-1], *parts[:-1]], parts, strict=True)]
    cubics: list[Array] = []
    for part, start, end in zip(parts, corners, [*corners[1:], corners[0]], strict=True):
        points = np.array([start, *((press.x, press.y) for press in part[1:-1]), end])
        if math.dist(start, end) < 1e-6 and len(points) == 2:
            continue
        if len(points) == 2 or all(press.deed == "line" for press in part[1:-1]):
            cubics.append(bezier.line(points[0], points[-1])[None])
        else:
            cubics.append(fitted(points, 3.0 * strays)[0])
    return Path(np.concatenate(cubics))


def _strays(parts: Sequence[Sequence[Press]]) -> float:
    """How far the hand strayed, mm: what the straight edges leave, else as hands do."""
    left = []
    for part in parts:
        if len(part) >= 5 and all(press.deed == "line" for press in part[1:-1]):
            points = np.array([(press.x, press.y) for press in part])
            middle, along = straight(points)
            off = (points - middle) @ np.array([-along[1], along[0]])
            left.append(float((off**2).sum()) / (len(points) - 2))
    return float(np.clip(np.sqrt(np.median(left)), 0.02, 3.0 * HAND)) if left else HAND


def _corner(before: Sequence[Press], after: Sequence[Press], strays: float) -> Array:
    """A corner by the places along the edges that meet there, or where it was pressed."""
    at = np.array((after[0].x, after[0].y))
    one, two = (_edge_at(part, strays) for part in (list(reversed(before)), after))
    if one is None or two is None:
        return at
    crossing = crossing_of(one, two)
    return crossing if crossing is not None and math.dist(crossing, at) <= 5.0 * max(strays, 0.1) else at


def _edge_at(part: Sequence[Press], strays: float) -> tuple[Array, Array] | None:
    """Where an edge begins and in which direction, by the places along it; None for fewer than three between its ends."""
    points = np.array([(press.x, press.y) for press in part])
    if len(points) < 5:
        return None
    if all(press.deed == "line" for press in part[1:-1]):
        return straight(points)
    along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    for look in LOOKS:
        near = along <= look
        few, t = points[near], along[near] / max(float(along[near][-1]), 1e-9)
        if len(few) < 6:
            continue
        basis = np.stack([np.ones_like(t), t, t * t, t**3], axis=-1)
        solved, *_ = np.linalg.lstsq(basis, few, rcond=None)
        left = (few - basis @ solved) ** 2
        if float(np.sqrt(left.sum() / (2 * (len(few) - 4)))) <= 1.2 * strays or look == LOOKS[-1]:
            return solved[0], unit(solved[1])
    return None
