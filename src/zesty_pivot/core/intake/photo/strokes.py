"""What is drawn on a piece in a photograph: dart legs, grain, crosses, holes; and the notches at its edge."""

from __future__ import annotations

import itertools
import math

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import between, lines_cross
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
ACROSS = math.radians(6.0)  # lines that meet at less run on
NEAR_END = 12.0  # mm from its end that a line may cross another and end there
DRAW_ON = 260.0  # mm that a line is drawn on at most
HOLE = 5.0  # mm, the widest drill hole
SHARP, OVER = math.radians(65.0), 4.0  # an outline that turns inwards by more over so many mm is at the point of a dart
DEEP = 15.0  # mm that a dart is deep at least
AT_POINT = 12.0  # mm about the point of a dart that is cut out
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
    finer = [_drawn_out(_finer(line, dark, flat.fine), dark, deep, flat.fine) for line in _parted(long)]
    finer = [_finer(line, dark, flat.fine) for line in _parted(_merged(finer)) if math.dist(*line) >= LEAST_LINE]
    finer = _without_inner(_met(finer))
    paths = tuple(Path.straight(a + shift, b + shift) for a, b in finer)
    holes, crosses, notches = [], [], []
    points = points_of_darts(outline)
    for middle, extent, is_cross in blobs:
        at = middle + shift
        if len(points) and float(np.hypot(*(points - at).T).min()) < AT_POINT:
            continue  # where the legs of a dart come together the table shows through
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


def turning(points: Array) -> Array:
    """How much a closed outline of points a millimetre apart turns over 3 mm to both sides of each, radians."""
    before, after = points - np.roll(points, 3, axis=0), np.roll(points, -3, axis=0) - points
    cross = before[:, 0] * after[:, 1] - before[:, 1] * after[:, 0]
    found: Array = np.abs(np.arctan2(cross, (before * after).sum(axis=1)))
    return found


def points_of_darts(outline: Array) -> Array:
    """Where a closed outline of even steps turns sharply inwards: the points of darts that are cut out, (n, 2) mm."""
    step = float(np.median(np.hypot(*np.diff(outline, axis=0).T)))
    reach = max(1, round(OVER / max(step, 1e-6)))
    before, after = outline - np.roll(outline, reach, axis=0), np.roll(outline, -reach, axis=0) - outline
    turn = np.arctan2(before[:, 0] * after[:, 1] - before[:, 1] * after[:, 0], (before * after).sum(axis=1))
    following = np.roll(outline, -1, axis=0)
    swept = float((outline[:, 0] * following[:, 1] - following[:, 0] * outline[:, 1]).sum())
    # The legs of a dart lie beside each other for long; the way in and out of a notch does not.
    far = max(1, round(DEEP / max(step, 1e-6)))
    beside = np.hypot(*(np.roll(outline, far, axis=0) - np.roll(outline, -far, axis=0)).T) < DEEP
    turns_in = (turn * (1.0 if swept > 0.0 else -1.0) < -SHARP) | (np.abs(turn) > math.radians(150.0))
    return np.asarray(outline[turns_in & beside])


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


def _drawn_out(line: tuple[Array, Array], dark: Mask, deep: Mask, fine: float) -> tuple[Array, Array]:
    """A line drawn on at both ends as far as there is ink under it: where the light is weak less of it is seen at once."""
    start, end = line
    size = math.dist(start, end)
    way = (end - start) / size
    usual = float(np.median(_ink_along(start, way, np.arange(2.0, size - 2.0, 1.0), dark, fine)))
    found = []
    for origin, ahead in ((start, -way), (end, way)):
        steps = np.arange(1.0, DRAW_ON, 1.0)
        ink = _ink_along(origin, ahead, steps, dark, fine)
        places = np.round((origin + steps[:, None] * ahead) * fine).astype(int)
        inside = (places >= 0).all(axis=1) & (places[:, 0] < deep.shape[1]) & (places[:, 1] < deep.shape[0])
        inside[inside] = deep[places[inside, 1], places[inside, 0]] > 0
        window = np.convolve(np.where(inside, ink, 0.0), np.ones(7) / 7.0, mode="full")[6:] if len(ink) > 7 else ink
        goes_on = (window[: len(steps)] > 0.4 * usual) & inside
        reach = int(np.argmin(goes_on)) if not goes_on.all() else len(steps)
        found.append(origin + ahead * float(reach))
    return found[0], found[1]


def _ink_along(origin: Array, way: Array, steps: Array, dark: Mask, fine: float) -> Array:
    """How much darker a line is than what lies beside it, at steps (mm) from a place."""
    across = np.array([-way[1], way[0]])
    values = []
    for off in (-2.4, -0.8, -0.4, 0.0, 0.4, 0.8, 2.4):
        at = np.round((origin + steps[:, None] * way + off * across) * fine).astype(int)
        rows, columns = np.clip(at[:, 1], 0, dark.shape[0] - 1), np.clip(at[:, 0], 0, dark.shape[1] - 1)
        values.append(dark[rows, columns].astype(float))
    return np.asarray(np.max(values[1:-1], axis=0) - (values[0] + values[-1]) / 2.0)


def _parted(lines: list[tuple[Array, Array]]) -> list[tuple[Array, Array]]:
    """Lines parted where others end on them: legs of two darts that run on through one point."""
    found = []
    for number, (start, end) in enumerate(lines):
        size = math.dist(start, end)
        way = (end - start) / size
        cuts = [0.0]
        for other, ends in enumerate(lines):
            turn = abs(between(way, ends[1] - ends[0]))
            crosses = other != number and ACROSS < turn < math.pi - ACROSS
            for at in ends if crosses else ():
                along = float((at - start) @ way)
                beside = abs(float((at - start) @ np.array([-way[1], way[0]])))
                if beside <= 2.5 and LEAST_LINE < along < size - LEAST_LINE and all(abs(along - cut) > 4.0 for cut in cuts):
                    cuts.append(along)
        cuts = [*sorted(cuts), size]
        found += [(start + way * one, start + way * two) for one, two in itertools.pairwise(cuts)]
    return found


def _met(lines: list[tuple[Array, Array]]) -> list[tuple[Array, Array]]:
    """Lines whose ends come near to each other, ended where they cross."""
    found = [list(line) for line in lines]
    for number, line in enumerate(lines):
        for end in (0, 1):
            near = []
            for other, theirs in enumerate(lines):
                at = _crossing(line, theirs) if other != number else None
                if (
                    at is not None
                    and math.dist(at, line[end]) <= NEAR_END
                    and min(math.dist(at, one) for one in theirs) <= NEAR_END
                ):
                    near.append(at)
            if near:
                found[number][end] = np.mean(near, axis=0)
    return [(line[0], line[1]) for line in found]


def _crossing(one: tuple[Array, Array], two: tuple[Array, Array]) -> Array | None:
    u, v = one[1] - one[0], two[1] - two[0]
    return lines_cross(one[0], u, two[0], v, least=math.sin(ACROSS) * math.dist(*one) * math.dist(*two))


def _without_inner(lines: list[tuple[Array, Array]]) -> list[tuple[Array, Array]]:
    """Without those that lie on a longer one."""
    found: list[tuple[Array, Array]] = []
    for line in sorted(lines, key=lambda one: -math.dist(*one)):
        ends = shapely.MultiPoint(line)
        if not any(shapely.LineString(other).buffer(1.2).covers(ends) for other in found):
            found.append(line)
    return found


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
