"""An outline taken apart: the darts cut into it, the notches cut into it, and the edges between its other corners."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.angles import between
from zesty_pivot.core.intake.corners import Corner, CorneredOutline
from zesty_pivot.core.intake.traced import Array
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record

# All our own choices, tried on drafts of random people.
BACK = math.radians(85.0)  # a corner that turns inwards by more than this may be a dart's point
WIDEST = math.radians(95.0)  # between the legs of a dart
UNEQUAL = 0.72  # of the longer leg that the shorter one is long, at least
BENT = 0.06  # of its length that a leg may stand off its chord
NICK = 12.0  # mm: legs no longer than this are a notch that was cut in
LEAST_LEG = 20.0  # mm: a dart is longer


@record(eq=False)
class CutDart:
    """A dart as it is cut into an outline: the mouth's ends in the order of the outline (clockwise), the point where its legs
    meet, and the legs from the mouth inwards, mm."""

    mouth: tuple[Array, Array]
    point: Array
    legs: tuple[Path, Path]

    @property
    def angle(self) -> float:
        """Between the legs at the drawn point, radians."""
        return abs(between(self.mouth[0] - self.point, self.mouth[1] - self.point))

    @property
    def intake(self) -> float:
        """The mouth's width, mm."""
        return math.dist(*self.mouth)

    def moved(self, motion: Motion) -> CutDart:
        """The same after a motion of the paper."""
        first, last = self.mouth
        return CutDart(
            (motion(first), motion(last)), motion(self.point), (self.legs[0].moved(motion), self.legs[1].moved(motion))
        )

    @property
    def length(self) -> float:
        """From the middle of the mouth to the point, mm."""
        return math.dist((self.mouth[0] + self.mouth[1]) / 2.0, self.point)


@record(eq=False)
class Span:
    """What lies between two corners that are no dart's: runs of the outline, a dart between each two."""

    runs: tuple[Path, ...]
    darts: tuple[CutDart, ...]

    @property
    def length(self) -> float:
        """The sewn length, mm: mouths skipped."""
        return sum(run.length for run in self.runs)

    @cached_property
    def closed(self) -> Array:
        """The edge as a polyline (m, 2) with its darts shut, laid on where its first run lies."""
        points = self.runs[0].flatten(0.1)
        motion = Motion.shift(np.zeros(2))
        for dart, run in zip(self.darts, self.runs[1:], strict=True):
            turn = between(dart.mouth[1] - dart.point, dart.mouth[0] - dart.point)
            motion = Motion.turn(dart.point, turn).then(motion)
            moved = motion(run.flatten(0.1))
            points = np.concatenate([points, moved + (points[-1] - moved[0])])
        return points

    @cached_property
    def bows(self) -> tuple[float, float]:
        """How far the shut edge stands off its chord to the inside and to the outside, in shares of the chord. The piece
        lies to the right of the way."""
        points = self.closed
        chord = points[-1] - points[0]
        size = float(np.hypot(*chord))
        if size <= 0.0:
            return 0.0, 0.0
        right = (points - points[0]) @ np.array([-chord[1], chord[0]]) / size**2
        return max(0.0, float(right.max())), max(0.0, float(-right.min()))


@record(eq=False)
class Parts:
    """An outline as corners and spans; span i runs from corner i to corner i + 1. `notches` are those that were cut in."""

    corners: tuple[Corner, ...]
    spans: tuple[Span, ...]
    notches: tuple[Array, ...] = ()

    @cached_property
    def length(self) -> float:
        """All sewn lengths together, mm."""
        return sum(span.length for span in self.spans)

    @property
    def darts(self) -> tuple[CutDart, ...]:
        """All darts, in the order of the outline."""
        return tuple(dart for span in self.spans for dart in span.darts)

    def between(self, first: int, last: int) -> Span:
        """The spans from one corner to another as one; the corners between are passed over."""
        count = len(self.spans)
        chosen = [self.spans[(first + step) % count] for step in range((last - first) % count or count)]
        runs, darts = list(chosen[0].runs), list(chosen[0].darts)
        for span in chosen[1:]:
            runs[-1] = Path.chain([runs[-1], span.runs[0]])
            runs += span.runs[1:]
            darts += span.darts
        return Span(tuple(runs), tuple(darts))

    def moved(self, motion: Motion) -> Parts:
        """The same after a turn or a shift of the paper."""
        spans = tuple(
            Span(tuple(run.moved(motion) for run in span.runs), tuple(dart.moved(motion) for dart in span.darts))
            for span in self.spans
        )  # fmt: skip
        corners = tuple(Corner(motion(corner.at), corner.turn) for corner in self.corners)
        return Parts(corners, spans, tuple(motion(at) for at in self.notches))

    def mirrored(self) -> Parts:
        """The same seen from the back of the paper, about x = 0, still clockwise: its corners run the other way round."""
        glass = Motion.reflect(np.zeros(2), np.array([0.0, 1.0]))

        def turned(path: Path) -> Path:
            return path.moved(glass).reversed()

        def dart(one: CutDart) -> CutDart:
            first, last = one.legs
            return CutDart(
                (glass(one.mouth[1]), glass(one.mouth[0])), glass(one.point), (last.moved(glass), first.moved(glass))
            )  # fmt: skip

        spans = [
            Span(tuple(turned(run) for run in reversed(span.runs)), tuple(dart(one) for one in reversed(span.darts)))
            for span in reversed(self.spans)
        ]
        corners = [Corner(glass(corner.at), corner.turn) for corner in reversed(self.corners)]
        # Span i reversed ends where it began: the corner before it comes after it.
        return Parts((corners[-1], *corners[:-1]), tuple(spans), tuple(glass(at) for at in self.notches))


def taken_apart(shape: CorneredOutline) -> Parts:
    """Finds the darts and notches that are cut into an outline, and what is left between its other corners."""
    corners, stretches = list(shape.corners), list(shape.stretches)
    notches: list[Array] = []
    _take_nicks(corners, stretches, notches)
    count = len(corners)
    found = _darts(corners, stretches)
    inside = {index % count for first, _point, last in found for index in range(first, last + 1)}
    kept = [index for index in range(count) if index not in inside]
    if not kept:
        return Parts(tuple(corners), tuple(Span((path,), ()) for path in stretches), tuple(notches))
    spans = []
    begins = {first % count: (first, point, last) for first, point, last in found}
    for index, after in zip(kept, [*kept[1:], kept[0] + count], strict=True):
        runs: list[Path] = []
        darts: list[CutDart] = []
        at, chain = index, list[Path]()
        while at < after:
            dart = begins.get(at % count)
            if dart is not None:
                first, point, last = dart
                if chain:
                    runs.append(Path.chain(chain))
                legs = (
                    Path.chain(stretches[k % count] for k in range(first, point)),
                    Path.chain(stretches[k % count] for k in range(point, last)).reversed(),
                )
                darts.append(CutDart((corners[first % count].at, corners[last % count].at), corners[point % count].at, legs))
                at, chain = at + (last - first), []
                continue
            chain.append(stretches[at % count])
            at += 1
        if chain:
            runs.append(Path.chain(chain))
        spans.append(Span(tuple(runs), tuple(darts)))
    return Parts(tuple(corners[index] for index in kept), tuple(spans), tuple(notches))


def _darts(corners: list[Corner], stretches: list[Path]) -> list[tuple[int, int, int]]:
    """The darts: numbers of the corner where the mouth begins, the point, the corner where it ends; the last may run over."""
    count = len(corners)
    found: list[tuple[int, int, int]] = []
    for point in range(count):
        if corners[point].turn > -BACK:
            continue
        # A shaped leg has small corners of its own: it goes on until the outline turns outwards.
        ends = []
        for way in (-1, 1):
            step = 1
            while step < min(4, count // 2) and corners[(point + way * step) % count].turn < math.radians(30.0):
                step += 1
            ends.append(step)
        first, last = point - ends[0], point + ends[1]
        if count < last - first + 2 or not _is_dart(corners, stretches, first, point, last):
            continue
        found.append((first + count, point + count, last + count) if first < 0 else (first, point, last))
    taken: set[int] = set()
    kept = []
    for first, point, last in sorted(found, key=lambda one: one[2] - one[0]):
        mine = {index % count for index in range(first, last + 1)}
        if not mine & taken:
            taken |= mine
            kept.append((first, point, last))
    return kept


def _is_dart(corners: list[Corner], stretches: list[Path], first: int, point: int, last: int) -> bool:
    count = len(corners)
    a, at, b = (corners[index % count].at for index in (first, point, last))
    if min(corners[first % count].turn, corners[last % count].turn) < math.radians(15.0):
        return False
    one, two = math.dist(a, at), math.dist(b, at)
    if min(one, two) < LEAST_LEG or min(one, two) < UNEQUAL * max(one, two):
        return False
    legs = (
        sum(stretches[k % count].length for k in range(first, point)),
        sum(stretches[k % count].length for k in range(point, last)),
    )
    if legs[0] > one * (1.0 + BENT) or legs[1] > two * (1.0 + BENT):
        return False
    turn = between(a - at, b - at)
    return 0.0 < turn <= WIDEST or -WIDEST <= turn < 0.0


def _take_nicks(corners: list[Corner], stretches: list[Path], notches: list[Array]) -> None:
    """Notches that are cut into the outline, as a V or a slit, are filled and remembered."""
    index = 0
    while index < len(corners) and len(corners) > 6:
        count = len(corners)
        before, after = (index - 1) % count, (index + 1) % count
        legs = stretches[before].length, stretches[index].length
        if corners[index].turn < -BACK / 2.0 and max(legs) <= NICK and min(corners[before].turn, corners[after].turn) > 0.1:
            start, end = corners[before].at, corners[after].at
            notches.append((start + end) / 2.0)
            filled = Path.straight(start, end) if math.dist(start, end) > 1e-3 else None
            last = (before - 1) % count
            joined = [stretches[last], *([filled] if filled is not None else []), stretches[after]]
            if filled is None:
                cubics = joined[1].cubics.copy()
                cubics[0, 0] = joined[0].end
                joined[1] = Path(cubics)
            merged = Path.chain(joined)
            gone = {before, index, after}
            stretches[last] = merged
            keep = [k for k in range(count) if k not in gone]
            stretches[:] = [stretches[k] for k in keep]
            corners[:] = [corners[k] for k in keep]
            index = 0
            continue
        index += 1
