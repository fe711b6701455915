"""The corners of an outline and the smooth stretches between them; many short lines become cubics on the way."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.geometry import Path, bezier
from zesty_pivot.core.geometry.angles import between, lines_cross, unit
from zesty_pivot.core.geometry.fit import fitted, noise, straight
from zesty_pivot.core.geometry.tolerance import JOIN_TOL
from zesty_pivot.core.intake.traced import Array, Flags
from zesty_pivot.core.record import record

# All our own choices, tried on drafts of random people.
CORNER = math.radians(18.0)  # a turn beyond this is a corner; seams that run on across a shut dart turn less
SURE = math.radians(40.0)  # a turn from line to line beyond this is one without looking farther
SPIKE = math.radians(165.0)  # no piece ends in a point as sharp as this leaves
FINE = 30.0  # mm: straight lines shorter than this may be parts of a curve
FEW = 4  # so many in a row are
NEAR_ANGLE = math.radians(32.0)  # a curve's short lines do not turn farther than this from one to the next
WINDOW = 6.0  # mm along both sides that tell a corner from a tight curve
FIT = 0.03  # mm: how closely cubics follow points without noise
NOISY = 0.06  # mm: points that stray farther than this from a smooth line are noisy
AROUND = 4.0  # standard deviations that a noisy point may lie off the line


@record(eq=False)
class Corner:
    """A corner: its place (mm) and its turn in radians, positive clockwise; on a clockwise outline a positive turn is
    convex."""

    at: Array
    turn: float


@record(eq=False)
class CorneredOutline:
    """An outline as corners and the stretches between them: stretch i runs from corner i to corner i + 1. `error` is how far
    the stretches may lie from what was traced (mm), `sigma` how far its points stray."""

    corners: tuple[Corner, ...]
    stretches: tuple[Path, ...]
    error: float
    sigma: float

    @property
    def length(self) -> float:
        """The length all round, mm."""
        return sum(path.length for path in self.stretches)


def shaped(outline: Path, sigma: float | None = None, least: float | None = None) -> CorneredOutline:
    """The corners and stretches of a closed outline that runs clockwise. `sigma` is how far its points stray (mm) where that is
    known; else it is told from them. `least` is the least turn (radians) of a corner that is looked at over a longer way."""
    cubics = outline.cubics
    is_fine = bezier.are_straight(cubics) & (outline.lengths < FINE)
    if sigma is None:
        sigma = _strays(cubics, is_fine)
    turns = _turns(cubics)
    starts = np.concatenate([[0.0], np.cumsum(outline.lengths)[:-1]])
    corners = _corners(outline, turns, starts, is_fine, sigma, least)
    if not corners:
        corners = [(int(np.abs(turns).argmax()), float(turns[np.abs(turns).argmax()]))]
    places = {index: cubics[index, 0] for index, _turn in corners}
    if sigma > NOISY:
        places = _refined(cubics, dict(corners), sigma)
    stretches, worst = [], 0.0
    order = [index for index, _turn in corners]
    for index, after in zip(order, [*order[1:], order[0] + len(cubics)], strict=True):
        part = np.take(cubics, np.arange(index, after), axis=0, mode="wrap").copy()
        fine = np.take(is_fine, np.arange(index, after), mode="wrap")
        ends = places[index], places[after % len(cubics)]
        part, fine = _clear_of(part, fine, *ends)
        path, error = _smooth(part, fine, *ends, sigma)
        stretches.append(path)
        worst = max(worst, error)
    found = tuple(Corner(path.start, turn) for (_index, turn), path in zip(corners, stretches, strict=True))
    return CorneredOutline(found, tuple(stretches), worst, sigma)


def _strays(cubics: Array, is_fine: Flags) -> float:
    """How far the points of an outline of short lines stray from a smooth one."""
    if is_fine.mean() < 0.6:
        return 0.0
    points = cubics[:, 0]
    found = noise(np.concatenate([points, points[:6]]))
    return found if found > NOISY / 2.0 else 0.0


def _turns(cubics: Array) -> Array:
    """The turn at the beginning of each cubic from the one before, radians, positive clockwise."""
    leaving, arriving = _directions(cubics, 0.0), np.roll(_directions(cubics, 1.0), 1, axis=0)
    cross = arriving[:, 0] * leaving[:, 1] - arriving[:, 1] * leaving[:, 0]
    found: Array = np.arctan2(cross, (arriving * leaving).sum(axis=1))
    # An outline that turns back on itself does so at a dart's point, inwards; rounding may tell it the other way.
    return np.where(found > SPIKE, found - 2.0 * math.pi, found)


def _directions(cubics: Array, at: float) -> Array:
    """The unit tangents at the start (0) or the end (1) of each cubic."""
    slopes = bezier.derivatives(cubics, np.array([at]))[:, 0]
    sizes = np.hypot(*slopes.T)
    found: Array = slopes / np.maximum(sizes, JOIN_TOL)[:, None]
    for index in np.flatnonzero(sizes <= JOIN_TOL).tolist():  # control points fall together
        path = Path(cubics[index][None])
        found[index] = path.start_direction if at == 0.0 else path.end_direction
    return found


def _corners(
    outline: Path, turns: Array, starts: Array, is_fine: Flags, sigma: float, asked: float | None
) -> list[tuple[int, float]]:
    """The joints that are corners, in order, each with its turn."""
    total = float(outline.lengths.sum())
    beside_fine = is_fine | np.roll(is_fine, 1)
    lengths = outline.lengths
    least = np.minimum(lengths, np.roll(lengths, 1))
    is_sure = (np.abs(turns) > SURE) & ((sigma <= NOISY) | (least > 12.0 * sigma))
    is_sure |= ~beside_fine & (np.abs(turns) > CORNER)
    window = max(WINDOW, 45.0 * sigma)
    least_turn = max(CORNER, math.radians(22.0) if sigma > NOISY else 0.0) if asked is None else asked
    sure = starts[is_sure]
    found = {int(index): float(turns[index]) for index in np.flatnonzero(is_sure)}
    # What turns a little from line to line is looked at over a longer way.
    candidates: list[tuple[float, int]] = []
    points = outline.flatten(0.05) if not is_fine.all() else np.concatenate([outline.cubics[:, 0], outline.cubics[:1, 0]])
    asked_at = np.flatnonzero(beside_fine & ~is_sure)
    at = starts[asked_at]
    off = np.abs(at[:, None] - sure[None, :]) % total
    rooms = np.minimum(np.minimum(off, total - off).min(axis=1, initial=total), total)
    reaches = np.minimum(window, rooms / 2.0)
    ring = _Ring(points)
    nears, fars = ring.turns(at, reaches), ring.turns(at, np.minimum(2.0 * reaches, rooms))
    for index, reach, near, far in zip(*(one.tolist() for one in (asked_at, reaches, nears, fars)), strict=True):
        if reach < 1.5:
            if abs(turns[index]) > least_turn and sigma <= NOISY:
                candidates.append((float(turns[index]), index))
            continue
        if abs(near) < least_turn:
            continue
        estimate = 2.0 * near - far if abs(2.0 * near - far) <= math.pi else near
        if estimate > SPIKE:
            estimate, near = estimate - 2.0 * math.pi, -near
        if abs(estimate) > least_turn and estimate * near > 0.0:
            candidates.append((estimate, index))
    for turn, index in sorted(candidates, key=lambda one: -abs(one[0])):
        place = float(starts[index])
        if all(_along(place, float(starts[other]), total) > min(window, 8.0) for other in found):
            found[index] = turn
    return [(index, found[index]) for index in sorted(found)]


def _along(one: float, two: float, total: float) -> float:
    off = abs(one - two) % total
    return min(off, total - off)


class _Ring:
    """A closed polyline that is asked for the direction it turns at places, by points some way before and after."""

    def __init__(self, points: Array) -> None:
        self._at = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
        self._points, self._total = points, float(self._at[-1])

    def _spots(self, distances: Array) -> Array:
        distances = distances % self._total
        return np.stack([np.interp(distances, self._at, self._points[:, axis]) for axis in (0, 1)], axis=-1)

    def turns(self, distances: Array, reaches: Array) -> Array:
        """The turn at each of the distances (n,) along it, by points so far before and after (n,): (n,), radians."""
        here = self._spots(distances)
        (bx, by), (ax, ay) = (here - self._spots(distances - reaches)).T, (self._spots(distances + reaches) - here).T
        found: Array = np.arctan2(bx * ay - by * ax, bx * ax + by * ay)
        return found


def _refined(cubics: Array, turns: dict[int, float], sigma: float) -> dict[int, Array]:
    """Corners of a noisy outline (numbers and turns) as the crossings of the smooth lines on both sides."""
    count, order = len(cubics), list(turns)
    is_dense = float(np.median(np.hypot(*(cubics[:, 3] - cubics[:, 0]).T))) < DENSE
    # What neighbours stray from each other tells how closely a curve can be followed; all of them may lie off together.
    among = float(np.clip(noise(cubics[:, 0]), sigma / 3.0, sigma)) if is_dense else sigma
    found: dict[int, Array] = {}
    for k, index in enumerate(order):
        at = cubics[index, 0]
        before = (index - order[k - 1]) % count or count
        after = (order[(k + 1) % len(order)] - index) % count or count
        back = np.take(cubics[:, 0], np.arange(index, index - before - 1, -1), axis=0, mode="wrap")
        ahead = np.take(cubics[:, 0], np.arange(index, index + after + 1), axis=0, mode="wrap")
        blunt = 0.0 if not is_dense else BLUNT if abs(turns[index]) > SHARP else ROUNDED
        one, two = begins(back, sigma, blunt, among), begins(ahead, sigma, blunt, among)
        crossing = None if one is None or two is None else crossing_of(one, two)
        is_near = (
            crossing is not None
            and one is not None
            and two is not None
            and math.dist(crossing, at) <= _reach(one, two, sigma, is_dense=is_dense)
        )
        found[index] = crossing if is_near and crossing is not None else at
    return found


def _reach(one: tuple[Array, Array], two: tuple[Array, Array], sigma: float, *, is_dense: bool) -> float:
    """How far from the traced corner the crossing of its lines may lie: the farther, the flatter they cross; a narrow dart
    is cut off blunt. Of dense points the one that turns most may lie beside the corner; else it is the corner that was
    traced."""
    if not is_dense:
        return 6.0 * sigma + 0.3
    (_a, u), (_b, v) = one, two
    return (6.0 * sigma + BESIDE) / max(abs(float(u[0] * v[1] - u[1] * v[0])), 0.08)


BLUNT, SHARP = 11.0, math.radians(115.0)  # mm of both legs that are rounded off at a point this sharp
ROUNDED = 1.7  # mm of both edges that a device rounds off at any corner
LOOSELY = 1.3  # times what neighbours stray that a curve may stand off them
BESIDE = 1.8  # mm that the place which turns most may lie beside the corner, on a rounded one. Our own choice
DENSE = 2.5  # mm between points, on the average, that are dense: a device's, not a hand's
LOOKS = (60.0, 40.0, 25.0, 16.0, 10.0, 6.0, 4.0)  # mm of a stretch that tell how it begins


def begins(points: Array, sigma: float, blunt: float, among: float) -> tuple[Array, Array] | None:
    """A place on the smooth line through points (m, 2) near its beginning, and its direction there. The corner itself strays as
    the others do, and belongs to two lines: it is left out; and so is what lies within `blunt` mm of it. `among` is how far
    neighbours stray from each other, mm: how closely a curve is followed."""
    points = points[1:-1] if len(points) > 4 else points
    if blunt:
        clear = np.hypot(*(points - points[0]).T) > blunt
        points = points[clear] if clear.sum() >= 8 else points
    if len(points) == 2 and math.dist(*points) > 12.0 * sigma:  # one line, as it was drawn
        return points[0], unit(points[1] - points[0])
    if len(points) < 3:
        return None
    t = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(points, axis=0).T))])
    middle, along = straight(points)
    off = np.abs((points - middle) @ np.array([-along[1], along[0]]))
    if float(np.sqrt((off**2).mean())) <= 1.5 * sigma:  # a straight stretch tells by all of its points but those that stray
        kept = points[off <= max(2.5 * float(np.median(off)), 0.5 * sigma)]
        middle, along = straight(kept) if len(kept) >= 3 else (middle, along)
        return middle + along * float((points[0] - middle) @ along), along
    for look in LOOKS:  # a parabola over as much as one fits
        near = t <= max(look, float(t[min(4, len(t) - 1)]))
        few, along = points[near], t[near]
        if len(few) < 4:
            return None
        basis = np.stack([np.ones_like(along), along, along * along], axis=-1)
        solved, *_ = np.linalg.lstsq(basis, few, rcond=None)
        left = np.hypot(*(few - basis @ solved).T)
        if float(np.sqrt((left**2).mean())) <= LOOSELY * among or look == LOOKS[-1]:
            return solved[0], unit(solved[1])
    return None


def crossing_of(one: tuple[Array, Array], two: tuple[Array, Array]) -> Array | None:
    """Where two lines, each a place and a way of length 1, cross; None where they run nearly alike."""
    return lines_cross(*one, *two, least=0.08)


def _clear_of(part: Array, is_fine: Flags, start: Array, end: Array) -> tuple[Array, Flags]:
    """A stretch without the short lines beside a corner that was moved to where its lines cross: they led to where the corner
    seemed to be."""
    first, last = 0, len(part)
    for at, was in ((start, part[0, 0]), (end, part[-1, 3])):
        moved = math.dist(at, was)
        if moved <= 0.3:
            continue
        reach = 1.5 * moved + 2.0
        while last - first > FEW and at is start and is_fine[first] and math.dist(part[first, 3], start) < reach:
            first += 1
        while last - first > FEW and at is end and is_fine[last - 1] and math.dist(part[last - 1, 0], end) < reach:
            last -= 1
    if first:  # the first line that stays begins at the corner
        part[first] = bezier.line(start, part[first, 3])
    if last < len(part):
        part[last - 1] = bezier.line(part[last - 1, 0], end)
    return part[first:last], is_fine[first:last]


def _smooth(part: Array, is_fine: Flags, start: Array, end: Array, sigma: float) -> tuple[Path, float]:
    """A stretch from one corner to the next: what is short lines in a row becomes cubics, the rest stays as it is."""
    is_line = bezier.are_straight(part)
    part[0, 0], part[-1, 3] = start, end
    pieces: list[Array] = []
    worst, at = 0.0, 0
    tolerance = max(FIT, AROUND * sigma if sigma > NOISY else 0.0)
    while at < len(part):
        stop = at
        while stop < len(part) and is_fine[stop] and (stop == at or _runs_on(part[stop - 1], part[stop], sigma)):
            stop += 1
        if stop - at >= FEW:
            points = np.concatenate([part[at:stop, 0], part[stop - 1 : stop, 3]])
            cubics, error = fitted(_even(points), tolerance)
            pieces.append(cubics)
            worst = max(worst, error)
            at = stop
            continue
        pieces.append((bezier.line(part[at, 0], part[at, 3]) if is_line[at] else part[at])[None])
        at += 1
    return Path(np.concatenate(pieces)), worst


def _runs_on(one: Array, two: Array, sigma: float) -> bool:
    limit = NEAR_ANGLE if sigma <= NOISY else math.pi
    return abs(between(one[3] - one[0], two[3] - two[0])) <= limit


def _even(points: Array) -> Array:
    """Points with more between those that lie much farther apart than the others: a straight line that runs into a curve."""
    steps = np.hypot(*np.diff(points, axis=0).T)
    usual = float(np.median(steps))
    if usual <= 0.0 or float(steps.max()) <= 4.0 * usual:
        return points
    parts = [points[:1]]
    for one, two, step in zip(points, points[1:], steps, strict=False):
        count = max(1, min(40, round(float(step) / (2.0 * usual)))) if step > 4.0 * usual else 1
        parts.append(one + (two - one) * (np.arange(1, count + 1) / count)[:, None])
    return np.concatenate(parts)
