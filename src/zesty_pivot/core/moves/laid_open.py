"""Laid open: a piece with its gathers, pleats and tucks as it lies on the paper before they are taken up.

The piece is slashed and its strips are parted, each a rigid motion. Where cloth is folded the edge is drawn as it is trued by
hand (`folded_edge`), a gathered edge as one smooth line (`gathered`).
"""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.errors import GeometryError, ZestyError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.moves.folded_edge import NOTHING, Parting, folded_edge, parting_of
from zesty_pivot.core.moves.gathered import smoothed
from zesty_pivot.core.moves.laid_ends import LaidEnd, edge_parted, ends_of, gathered_end
from zesty_pivot.core.piece.edge import Run, Source
from zesty_pivot.core.piece.fullness import Fullness, Lies, Taking
from zesty_pivot.core.piece.pattern import Pattern
from zesty_pivot.core.piece.piece import Piece, Point, well_begun
from zesty_pivot.core.piece.place import Place, by_origin
from zesty_pivot.core.record import record, replace

UNDERLAY = "underlay."  # the provenance of folded cloth in an edge is this, the fullness and the number of its slash

FOLDED = 3.0  # layers where a pleat or a tuck lies


@record
class FoldLines:
    """One slash on the paper: `folds` are the lines that come to lie on `places`, `inner` the folds that lie under (of a tuck
    the fold that stands out, between its two stitching lines). Each runs from the slash's first end."""

    folds: tuple[Path, ...]
    places: tuple[Path, ...]
    inner: tuple[Path, ...]


@record
class LaidOpen:
    """One fullness on the paper, with an end for each edge that it changes. `borders` are its slashes on the piece before,
    `strips` the motions that carry what lies before, between and behind them."""

    fullness: Fullness
    ends: tuple[LaidEnd, ...]
    lines: tuple[FoldLines, ...]
    borders: tuple[tuple[Vector, Vector], ...] = ()
    strips: tuple[Motion, ...] = ()

    def strip_of(self, at: Point) -> int:
        """The strip of the piece that a point lies in."""
        return sum(_is_behind(border, at) for border in self.borders)

    def carried(self, at: Point) -> Point:
        """Where a point of the piece lies on the paper."""
        return _moved(self.strips[self.strip_of(at)], at) if self.strips else at

    def put_back(self, at: Point) -> Point:
        """Where a point of the paper lies on the piece; one on the folded cloth where it is let in."""
        for strip, motion in enumerate(self.strips):
            found = _moved(motion.undone, at)
            if self.strip_of(found) == strip:
                return found
        nearest = [(strip, _onto(border, self.strips[strip], at)) for strip, border in enumerate(self.borders)]
        strip, there = min(nearest, key=lambda pair: math.dist(pair[1], at), default=(0, at))
        return _moved(self.strips[strip].undone, there) if self.strips else at


@kept_with
def laid_open(piece: Piece) -> tuple[Piece, tuple[LaidOpen, ...]]:
    """The piece as it lies on the paper, and what was let in where.

    The strip with the longer stretch of the centre stays. Raises GeometryError where a slash has lost its place, has no clear
    way, or a fold reaches past the end of its edge.
    """
    made, found = piece, list[LaidOpen]()
    for full in piece.fullness:
        made, laid = _parted(made, full)
        found = [*(_carried_on(earlier, laid) for earlier in found), laid]
    return made, tuple(found)


def _carried_on(earlier: LaidOpen, later: LaidOpen) -> LaidOpen:
    """What was laid open where it lies once something else is: a line across the later slashes is drawn out with them."""

    def at(point_: Vector) -> Vector:
        return np.array(later.carried((float(point_[0]), float(point_[1]))))

    def line(path: Path) -> Path:
        return Path.straight(at(path.start), at(path.end))

    def lines(paths: tuple[Path, ...]) -> tuple[Path, ...]:
        return tuple(line(path) for path in paths)

    ends = tuple(
        replace(end, start=at(end.start), stop=at(end.stop), middle=at(end.middle),
                outwards=unit(at(end.middle) - at(end.middle - end.outwards)))
        for end in earlier.ends
    )  # fmt: skip
    folds = tuple(FoldLines(lines(one.folds), lines(one.places), lines(one.inner)) for one in earlier.lines)
    return replace(earlier, ends=ends, lines=folds)


def layers(laid: LaidOpen, end: LaidEnd) -> float:
    """How many layers of cloth lie in the seam where fullness is taken up: three where it is folded, of gathers as many as
    their ratio. What it is sewn to comes to that."""
    return end.open_mm / max(end.sewn_mm, 1.0) if laid.fullness.taking is Taking.GATHERS else FOLDED


def on_paper(piece: Piece, at: Point) -> Point:
    """Where a point of a piece as it is sewn lies on the paper, mm."""
    for laid in laid_open(piece)[1] if piece.fullness else ():
        at = laid.carried(at)
    return at


def from_paper(piece: Piece, at: Point) -> Point:
    """Where a point of the paper lies on the piece as it is sewn, mm."""
    for laid in reversed(laid_open(piece)[1]) if piece.fullness else ():
        at = laid.put_back(at)
    return at


def shut_in_part(piece: Piece, share: float) -> Piece:
    """The piece with its folds shut one after the other as far as a share (0 to 1) of all of them: what is left open of each is
    less."""
    folds = [1 if full.taking is Taking.GATHERS else len(full.lines) for full in piece.fullness]  # gathers are drawn up at once
    done, found = 0, []
    for full, count in zip(piece.fullness, folds, strict=True):
        lines = []
        for number, line in enumerate(full.lines):
            left = min(1.0, max(0.0, 1.0 + done + (number if count > 1 else 0) - share * sum(folds)))
            lines.append(replace(line, by=(line.by[0] * left, line.by[1] * left)))
        found.append(replace(full, lines=tuple(lines), raised_mm=full.raised_mm * left if lines else 0.0))
        done += count
    return replace(piece, fullness=tuple(found))


def fullness_fault(pattern: Pattern, before: Pattern) -> str | None:
    """Why fullness of a pattern cannot be laid open, in words that go on with "this would leave"; None when all can. Pieces
    that are the same as `before` are not looked at again."""
    known = {id(piece) for piece in before.pieces}
    for piece in pattern.pieces:
        if piece.fullness and id(piece) not in known:
            try:
                laid_open(piece)
            except ZestyError as fault:
                what = " and ".join(dict.fromkeys(full.taking.value for full in piece.fullness))
                return f"{what} that cannot be laid: {fault.what}"
    return None


def _parted(piece: Piece, full: Fullness) -> tuple[Piece, LaidOpen]:
    if not full.lines:
        edge = "" if full.stretch is None else edge_parted(piece, by_origin(piece, full.stretch[1]))
        made = replace(piece, fullness=tuple(other for other in piece.fullness if other.id != full.id))
        return made, LaidOpen(full, (gathered_end(piece, made, full, edge),), ())
    slashes = _gathering(piece, full) if full.taking is Taking.GATHERS else [parting_of(piece, line) for line in full.lines]
    order = sorted(range(len(slashes)), key=lambda k: (slashes[k].places[0].run, slashes[k].places[0].at))
    slashes = [slashes[k] for k in order]
    runs, cuts = _fragments(piece, [place for slash in slashes for place in slash.places])
    strips = _strips(piece, len(runs), cuts)
    motions = _motions(piece, runs, strips, slashes)
    items = _ring(piece, full, runs, strips, cuts, slashes, motions)
    ring = tuple(run for run, _gap in items)
    ring = smoothed(items, full.raised_mm) if full.taking is Taking.GATHERS else ring

    laid = LaidOpen(full, (), (), tuple(slash.ends for slash in slashes), tuple(motions))
    homes = {dart.pivot: _strip_of_dart(dart.id, runs, strips) for dart in piece.darts}
    marks = {name: _moved(motions[homes.get(name, laid.strip_of(at))], at) for name, at in piece.landmarks.items()}
    grain = piece.grain
    if grain is not None:
        carry = motions[laid.strip_of((float(np.mean([p[0] for p in grain])), float(np.mean([p[1] for p in grain]))))]
        grain = _moved(carry, grain[0]), _moved(carry, grain[1])
    made = replace(
        piece,
        runs=well_begun(ring, dict(piece.roles)),
        landmarks=marks,
        grain=grain,
        fisheyes=tuple(eye.moved(motions[laid.strip_of(eye.top)]) for eye in piece.fisheyes),
        fullness=tuple(other for other in piece.fullness if other.id != full.id),
    )
    folded = full.taking is not Taking.GATHERS
    folds = tuple(_lines(piece, full, slash, motions[k], motions[k + 1]) for k, slash in enumerate(slashes) if folded)
    ends = tuple(ends_of(piece, made, full, slashes, motions))
    return made, replace(laid, ends=ends, lines=folds)


def _gathering(piece: Piece, full: Fullness) -> list[Parting]:
    """The slashes of gathers that have a clear way; a dart that lies in the way of some by now leaves what they let in to the
    others. Raises GeometryError where none has."""
    found, fault = [], None
    for line in full.lines:
        try:
            found.append(parting_of(piece, line))
        except GeometryError as barred:
            fault = barred
    if fault is not None and not found:
        raise fault
    share = sum(line.by[0] for line in full.lines) / max(sum(slash.line.by[0] for slash in found), NOTHING)
    if fault is None:
        return found
    return [parting_of(piece, replace(s.line, by=(s.line.by[0] * share, s.line.by[1] * share))) for s in found]


def _moved(motion: Motion, at: Point) -> Point:
    x, y = motion(np.array(at))
    return float(x), float(y)


def _onto(border: tuple[Vector, Vector], motion: Motion, at: Point) -> Point:
    """The point of a slash, where a motion has carried it, that lies nearest to a point of the paper."""
    first, last = motion(border[0]), motion(border[1])
    way = last - first
    share = min(1.0, max(0.0, float((np.array(at) - first) @ way) / float(way @ way)))
    x, y = first + way * share
    return float(x), float(y)


def _is_behind(border: tuple[Vector, Vector], at: Point) -> bool:
    """Whether a point lies on the side of a slash that it carries away."""
    (x0, y0), (x1, y1) = border[0].tolist(), border[1].tolist()
    return bool((at[0] - x0) * (y1 - y0) - (at[1] - y0) * (x1 - x0) > 0.0)


def _strip_of_dart(dart: str, runs: Sequence[Run], strips: Sequence[int]) -> int:
    return next(strip for run, strip in zip(runs, strips, strict=True) if run.mouth == dart)


def _fragments(piece: Piece, cuts: Sequence[Place]) -> tuple[list[Run], list[int]]:
    """The ring parted at places: its runs, and for each place the index of the run that ends there."""
    runs: list[Run] = []
    ends: dict[tuple[int, float], int] = {}
    for index, run in enumerate(piece.runs):
        size = run.path.length
        stops = sorted({place.at for place in cuts if place.run == index and JOIN_TOL < place.at < size - JOIN_TOL})
        stops = [at for k, at in enumerate(stops) if k == 0 or at - stops[k - 1] > JOIN_TOL]
        begin = 0.0
        for at in [*stops, size]:
            whole = begin == 0.0 and at == size
            path = run.path if whole else run.path.between(begin, at)
            source = run.source if whole else replace(run.source, u0=run.source.at(begin / size), u1=run.source.at(at / size))
            runs.append(Run(run.edge, path, source, run.mouth if at == size else None))
            ends[(index, at)] = len(runs) - 1
            begin = at
    found = []
    for place in cuts:
        near = min((key for key in ends if key[0] == place.run), key=lambda key: abs(key[1] - place.at))
        found.append(ends[near])
    return runs, found


def _strips(piece: Piece, count: int, cuts: Sequence[int]) -> list[int]:
    """The strip that each run lies in: 0 before the first slash, the number of slashes behind the last. `cuts` are the runs
    that end at the slashes' places, two of each. Raises GeometryError when slashes cross each other."""
    steps = [0] * count
    for number, run in enumerate(cuts):
        steps[run] += 1 if number % 2 == 0 else -1
    first = cuts[0]
    around = [(first + 1 + k) % count for k in range(count)]
    strips = [0] * count
    level = sum(1 for number, run in enumerate(cuts) if number % 2 == 0 and run == first)
    for index in around:
        strips[index] = level
        level += steps[index]
    slashes = len(cuts) // 2
    for k in range(slashes):
        begins, stops = strips[(cuts[2 * k] + 1) % count], strips[cuts[2 * k + 1]]
        if begins < k + 1 or stops < k + 1:
            raise GeometryError("the slashes cross each other", where=piece.name, advice="Let them in further apart.")
    return strips


def _motions(piece: Piece, runs: Sequence[Run], strips: Sequence[int], slashes: Sequence[Parting]) -> list[Motion]:
    """The motion of each strip: the one with the longer stretch of centre stays, of strips without any the longest outline."""

    def weight(strip: int) -> tuple[float, float]:
        mine = [run for run, at in zip(runs, strips, strict=True) if at == strip]
        return sum(run.path.length for run in mine if piece.role(run.edge) == "centre"), sum(r.path.length for r in mine)

    still = max(range(len(slashes) + 1), key=weight)
    motions = [Motion.shift(np.zeros(2))] * (len(slashes) + 1)
    for k in range(still, len(slashes)):
        motions[k + 1] = slashes[k].moved.then(motions[k])
    for k in range(still - 1, -1, -1):
        motions[k] = slashes[k].moved.undone.then(motions[k + 1])
    return motions


def _ring(
    piece: Piece,
    full: Fullness,
    runs: Sequence[Run],
    strips: Sequence[int],
    cuts: Sequence[int],
    slashes: Sequence[Parting],
    motions: Sequence[Motion],
) -> list[tuple[Run, tuple[int, int] | None]]:
    """The runs where they lie on the paper, with folded cloth between them; each with the slash that was passed before it, as
    its number and which of its ends."""
    found: list[tuple[Run, tuple[int, int] | None]] = []
    for index, (run, strip) in enumerate(zip(runs, strips, strict=True)):
        before = (index - 1) % len(runs)
        gap = None
        passed = [number for number, end in enumerate(cuts) if end == before]
        # At one place slashes are passed in the order of their strips.
        passed.sort(key=lambda number: number // 2 if number % 2 == 0 else -(number // 2))
        for number in passed:
            gap = divmod(number, 2)
            slash = slashes[gap[0]]
            if full.taking is Taking.GATHERS or slash.line.by[gap[1]] <= NOTHING:
                continue
            beside = runs[before]
            edge = run.edge if piece.role(beside.edge) == "centre" != piece.role(run.edge) else beside.edge
            for part, path in enumerate(folded_edge(piece, full, slash, gap[1], motions[gap[0]], motions[gap[0] + 1])):
                source = Source(f"{UNDERLAY}{full.id}.{gap[0]}.{gap[1]}.{part}", 0.0, 1.0)
                found.append((Run(edge, path, source), None))
        found.append((replace(run, path=run.path.moved(motions[strip])), gap))
    return found


def _lines(piece: Piece, full: Fullness, slash: Parting, near: Motion, far: Motion) -> FoldLines:
    """The lines of a slash on the paper; those of inner folds from where they meet the edge that was trued by folding."""
    line = Path.straight(*slash.ends)
    first, last = line.moved(near), line.moved(far)
    corners = [_inner_corners(piece, full, slash, end, near, far) for end in (0, 1)]
    inner = tuple(Path.straight(one, two) for one, two in zip(*corners, strict=True))
    if slash.line.lies is Lies.MEET:
        middle = line.moved(slash.half.then(near))
        return FoldLines((first, last), (middle, middle), inner)
    pair = (first, last) if slash.line.lies is Lies.AFTER else (last, first)
    return FoldLines((pair[0],), (pair[1],), inner)


def _inner_corners(piece: Piece, full: Fullness, slash: Parting, end: int, near: Motion, far: Motion) -> list[Vector]:
    """Where the inner folds of a slash meet the edge at one of its ends, from before to behind it."""
    if slash.line.by[end] <= NOTHING:
        return [near(slash.ends[end])] * (2 if slash.line.lies is Lies.MEET else 1)
    parts = folded_edge(piece, full, slash, end, near, far)
    parts = parts if end == 0 else [part.reversed() for part in reversed(parts)]
    return [part.end for part in parts[::2]]
