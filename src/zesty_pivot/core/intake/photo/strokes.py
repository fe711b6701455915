"""What is drawn on a piece in a photograph: dart legs, grain, crosses, holes; and the notches at its edge."""

from __future__ import annotations

import itertools
import math

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import between
from zesty_pivot.core.intake.photo.picture import Flat, opencv
from zesty_pivot.core.intake.traced import Array, Point

Mask = NDArray[np.uint8]

# All our own choices, tried on rendered photographs.
PEN = 1.6  # mm, the widest line that is one
DARK = 4.0  # standard deviations of the paper's own unevenness that a line is darker by
INSIDE = 2.5  # mm inside the edge where lines are looked for: nearer, the edge itself is dark
LEAST_LINE = 18.0  # mm, a line; what is shorter is a mark
LEAST_MARK = 2.5  # mm
ALONG, BESIDE = math.radians(2.5), 1.5  # lines that run on: their directions, and how far beside each other they lie, mm
GAP = 12.0  # mm that a line may be broken by: writing over it, a crease
HOLE = 5.0  # mm, the widest drill hole
NEAR_EDGE = 9.0  # mm from the edge that a notch begins

Strokes = tuple[tuple[Path, ...], tuple[Point, ...], tuple[Point, ...], tuple[Point, ...]]


def strokes_in(flat: Flat, outline: Array) -> Strokes:
    """The lines drawn in a piece, the places of its drawn notches, its holes and its crosses, mm."""
    cv2 = opencv()
    low, high = outline.min(axis=0), outline.max(axis=0)
    x0, y0 = (max(0, int((value - 4.0) * flat.fine)) for value in low)
    x1, y1 = (int((value + 4.0) * flat.fine) for value in high)
    part = flat.pixels[y0:y1, x0:x1]
    mask = np.zeros(part.shape[:2], np.uint8)
    cv2.fillPoly(mask, [np.round(outline * flat.fine - [x0, y0]).astype(np.int32)], 1)
    size = max(3, round(2.0 * INSIDE * flat.fine) | 1)
    deep = cv2.erode(mask, cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (size, size)))
    grey = cv2.cvtColor(part, cv2.COLOR_BGR2GRAY)
    wide = max(5, round(PEN * 2.5 * flat.fine) | 1)
    # Outside the piece lies another colour: it is filled so that the edge throws no dark line inwards.
    filled = grey.copy()
    filled[mask == 0] = int(np.median(grey[mask > 0])) if (mask > 0).any() else 255
    dark = cv2.morphologyEx(filled, cv2.MORPH_BLACKHAT, cv2.getStructuringElement(cv2.MORPH_ELLIPSE, (wide, wide)))
    values = dark[deep > 0]
    if len(values) < 1000:
        return (), (), (), ()
    spread = max(2.0, 1.4826 * float(np.median(np.abs(values - np.median(values)))))
    ink = ((dark > np.median(values) + DARK * spread) & (deep > 0)).astype(np.uint8)
    blobs = _blobs(ink, flat.fine)
    lines = _merged(_segments(ink, flat.fine))
    shift = np.array([x0, y0]) / flat.fine
    region = shapely.Polygon(outline)
    edge = region.exterior
    long = [line for line in lines if math.dist(*line) >= LEAST_LINE]
    finer = _merged([_finer(line, dark, flat.fine) for line in long])
    paths = tuple(Path.straight(a + shift, b + shift) for a, b in finer)
    holes, crosses, notches = [], [], []
    for middle, extent, is_cross in blobs:
        at = middle + shift
        if any(shapely.LineString([a + shift, b + shift]).distance(shapely.Point(at)) < 2.0 for a, b in finer):
            continue
        if edge.distance(shapely.Point(at)) <= NEAR_EDGE and extent >= LEAST_MARK:
            where = edge.interpolate(edge.project(shapely.Point(at)))
            notches.append((float(where.x), float(where.y)))
        elif is_cross:
            crosses.append((float(at[0]), float(at[1])))
        elif extent <= HOLE:
            holes.append((float(at[0]), float(at[1])))
    return paths, tuple(notches), tuple(holes), tuple(crosses)


def _blobs(ink: Mask, fine: float) -> list[tuple[Array, float, bool]]:
    """Small marks: middle and extent (mm), and whether it is a cross: it fills little of its box."""
    cv2 = opencv()
    count, _labels, stats, middles = cv2.connectedComponentsWithStats(ink, connectivity=8)
    found = []
    for number in range(1, count):
        _x, _y, wide, high, area = stats[number].tolist()
        extent = max(wide, high) / fine
        if extent < 1.0 or extent > 16.0 or area < 4:
            continue
        is_even = min(wide, high) > 0.6 * max(wide, high)
        is_cross = is_even and extent > 5.0 and area < 0.5 * wide * high
        found.append((np.asarray(middles[number]) / fine, extent, is_cross))
    return found


def _segments(ink: Mask, fine: float) -> list[tuple[Array, Array]]:
    """Straight lines in the ink, mm."""
    cv2 = opencv()
    found = cv2.HoughLinesP(
        ink * 255, 1.0, math.pi / 720.0, max(15, round(7.0 * fine)), minLineLength=8.0 * fine, maxLineGap=2.5 * fine
    )
    if found is None:
        return []
    lines = found.reshape(-1, 4).astype(float) / fine
    return [(line[:2], line[2:]) for line in lines[:2000]]


def _merged(lines: list[tuple[Array, Array]]) -> list[tuple[Array, Array]]:
    """Lines that run on, one on the other, as one; the longest first."""
    rest = sorted(lines, key=lambda line: -math.dist(*line))
    found: list[tuple[Array, Array]] = []
    for one in rest:
        for number, other in enumerate(found):
            joined = _as_one(other, one)
            if joined is not None:
                found[number] = joined
                break
        else:
            found.append(one)
    changed = True
    while changed:
        changed = False
        for a, b in itertools.combinations(range(len(found)), 2):
            joined = _as_one(found[a], found[b])
            if joined is not None:
                found[a] = joined
                del found[b]
                changed = True
                break
    return found


def _as_one(one: tuple[Array, Array], two: tuple[Array, Array]) -> tuple[Array, Array] | None:
    long, short = (one, two) if math.dist(*one) >= math.dist(*two) else (two, one)
    way = (long[1] - long[0]) / max(math.dist(*long), 1e-9)
    turn = abs(between(way, short[1] - short[0]))
    if min(turn, math.pi - turn) > ALONG + 1.0 / max(math.dist(*short), 1.0):
        return None
    beside = [abs(float((end - long[0]) @ np.array([-way[1], way[0]]))) for end in short]
    if max(beside) > BESIDE:
        return None
    size = math.dist(*long)
    along = sorted(float((end - long[0]) @ way) for end in short)
    if along[0] > size + GAP or along[1] < -GAP:
        return None
    return long[0] + way * min(0.0, along[0]), long[0] + way * max(size, along[1])


def _finer(line: tuple[Array, Array], dark: Mask, fine: float) -> tuple[Array, Array]:
    """A line laid through the middle of its ink: the darkest place across it at many places, and the straight line nearest to
    them."""
    start, end = line
    size = math.dist(start, end)
    way = (end - start) / size
    across = np.array([-way[1], way[0]])
    along = np.linspace(2.0, size - 2.0, max(4, int(size)))
    reach = np.arange(-2.0, 2.01, 0.1)
    places = (start + along[:, None] * way)[:, None, :] + reach[None, :, None] * across
    rows = np.clip(np.round(places[..., 1] * fine).astype(int), 0, dark.shape[0] - 1)
    columns = np.clip(np.round(places[..., 0] * fine).astype(int), 0, dark.shape[1] - 1)
    weights = dark[rows, columns].astype(float) ** 2
    total = weights.sum(axis=1)
    good = total > 0.2 * float(np.median(total))
    if good.sum() < 4:
        return line
    off = (weights * reach).sum(axis=1)[good] / total[good]
    basis = np.stack([np.ones(int(good.sum())), along[good]], axis=-1)
    kept = np.ones(len(off), bool)
    solved = np.zeros(2)
    for _round in range(3):
        solved, *_ = np.linalg.lstsq(basis[kept], off[kept], rcond=None)
        left = np.abs(off - basis @ solved)
        kept = left <= max(2.5 * float(np.median(left)), 0.05)
    return start + across * solved[0], end + across * (solved[0] + solved[1] * size)
