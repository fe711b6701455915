"""Open up: the edge drawn on across mouths whose cloth stays in the seam (gathers, ease, flare)."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.geometry import JOIN_TOL, Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece import OPEN_USES, Dart, Piece, Place, Run, Source, Use
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.piece import well_begun
from zesty_pivot.core.record import record, replace

# A gathered edge begins to rise this far (mm) from its mouth. Common practice, no source.
RAISED_OVER = 25.0


BRIDGE = "bridge."  # the provenance of the line across an opened mouth is this and the dart's id


@record
class OpenedMouth:
    """A mouth that was drawn across. The stretch from `start` to `stop` (points, mm) is `open_mm` long on the paper and
    `sewn_mm` once it is gathered or eased in; of a flare both are the same."""

    dart: Dart
    edge: str
    start: Vector
    stop: Vector
    middle: Vector
    outwards: Vector
    open_mm: float
    sewn_mm: float

    @property
    def taken_mm(self) -> float:
        """How much is taken up."""
        return self.open_mm - self.sewn_mm


def home_edge(piece: Piece, dart: str) -> str:
    """The edge whose habits a dart follows; at a corner with the centre the other edge, as the centre lies still."""
    index = piece.mouth_run(dart)
    before, after = piece.runs[index].edge, piece.runs[piece.after(index)].edge
    return after if piece.role(before) == "centre" and before != after else before


def mouth_distance(piece: Piece, dart: str) -> float:
    """Where a dart opens: the sewn distance in mm from its edge's first landmark."""
    index = piece.mouth_run(dart)
    run = piece.runs[index]
    if run.edge != home_edge(piece, dart):
        return 0.0
    return places.sewn_distance(piece, Place(index, run.path.length))


@kept_with
def open_up(piece: Piece) -> tuple[Piece, tuple[OpenedMouth, ...]]:
    """The piece as it lies on the paper: without the darts of open uses, their edges running on across the mouths.

    A gathered edge is raised in the middle of its mouth by what the dart says, in a smooth line of two cubics.
    """
    made, found = piece, []
    for dart in piece.darts:
        if dart.use in OPEN_USES:
            made, opened = drawn_on(made, dart)
            found.append(opened)
    return made, tuple(found)


def bridge(start: Vector, leaving: Vector, stop: Vector, arriving: Vector) -> Path:
    """One cubic from start to stop that leaves and arrives in these directions, its handles a third of the chord."""
    handle = math.dist(start, stop) / 3.0
    return Path(np.array([[start, start + leaving * handle, stop - arriving * handle, stop]]))


def drawn_on(piece: Piece, dart: Dart) -> tuple[Piece, OpenedMouth]:
    """The piece with its edge drawn on across the mouth of one dart, and that mouth."""
    index = piece.mouth_run(dart.id)
    runs = piece.runs[index:] + piece.runs[:index]
    first, second, others = runs[0], runs[1], runs[2:]
    edge = home_edge(piece, dart.id)
    before = min(dart.hold.before_mm, first.path.length) if first.edge == edge else 0.0
    after = min(dart.hold.after_mm, second.path.length) if second.edge == edge else 0.0
    line = bridge(first.path.end, first.path.end_direction, second.path.start, second.path.start_direction)
    chord = second.path.start - first.path.end
    chord = unit(chord) if math.hypot(*chord) > JOIN_TOL else first.path.end_direction
    outwards = np.array([chord[1], -chord[0]])
    middle = line.point_at(line.length / 2.0) + outwards * dart.hold.raised_mm
    near, far = min(before, RAISED_OVER), min(after, RAISED_OVER)
    kept, leaving = _before(first, first.path.length - near)
    rest, arriving = _behind(second, far)
    start, stop = first.path.point_at(first.path.length - before), second.path.point_at(after)
    if dart.hold.raised_mm > 0.0:
        ends = first.path.point_at(first.path.length - near), second.path.point_at(far)
        over = Path.chain([bridge(ends[0], leaving, middle, chord), bridge(middle, chord, ends[1], arriving)])
        span = before - near + over.length + after - far
    else:
        over, span = line, before + line.length + after
        kept, rest = replace(first, mouth=None), second
    crossing = Run(edge, over, Source(BRIDGE + dart.id, 0.0, 1.0), second.mouth if rest is None else None)
    made = (*((kept,) if kept else ()), crossing, *((rest,) if rest else ()), *others)
    sewn = span if dart.use is Use.FLARE else before + after
    darts = tuple(other for other in piece.darts if other.id != dart.id)
    opened = OpenedMouth(dart, edge, start, stop, middle, outwards, span, sewn)
    return replace(piece, runs=well_begun(made, dict(piece.roles)), darts=darts), opened


def _before(run: Run, at: float) -> tuple[Run | None, Vector]:
    """What is left of a run before a place, without a mouth, and the direction there."""
    if at <= JOIN_TOL:
        return None, run.path.start_direction
    if at >= run.path.length - JOIN_TOL:
        return replace(run, mouth=None), run.path.end_direction
    path, _ = run.path.split_at(at)
    return replace(run, path=path, source=run.source.parted(at / run.path.length)[0], mouth=None), path.end_direction


def _behind(run: Run, at: float) -> tuple[Run | None, Vector]:
    """What is left of a run behind a place, and the direction there."""
    if at <= JOIN_TOL:
        return run, run.path.start_direction
    if at >= run.path.length - JOIN_TOL:
        return None, run.path.end_direction
    _, path = run.path.split_at(at)
    return replace(run, path=path, source=run.source.parted(at / run.path.length)[1]), path.start_direction
