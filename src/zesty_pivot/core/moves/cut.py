"""Cut: a slit from the outline to a pivot, or a cut right through that leaves two pieces."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.errors import GeometryError, PlaceError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece.dart import Dart
from zesty_pivot.core.piece.edge import Run, Source
from zesty_pivot.core.piece.names import DART_LEG, words
from zesty_pivot.core.piece.piece import Piece, well_begun
from zesty_pivot.core.piece.place import Place, is_joint, mouth_at, point
from zesty_pivot.core.piece.region import arc, contains, crosses, polygon
from zesty_pivot.core.record import replace

# The lips of a slit lie together within this angle (radians); a step in the edge that points past the pivot opens it wider,
# and the dart would begin with fullness that nobody put there.
TOGETHER = 1e-10


def part_run(piece: Piece, place: Place) -> tuple[Piece, int]:
    """The piece with a joint at a place, and the index of the run that ends there."""
    if is_joint(piece, place):
        return piece, place.run
    run = piece.runs[place.run]
    first, second = run.path.split_at(place.at)
    before, after = run.source.parted(place.at / run.path.length)
    parts = (Run(run.edge, first, before, None), Run(run.edge, second, after, run.mouth))
    return replace(piece, runs=piece.runs[: place.run] + parts + piece.runs[place.run + 1 :]), place.run


def part_twice(piece: Piece, first: Place, second: Place) -> tuple[Piece, int, int]:
    """The piece with joints at two places, and the indices of the runs that end there."""
    count = len(piece.runs)
    parted, one = part_run(piece, first)
    grown = len(parted.runs) - count
    if grown and second.run == first.run and second.at > first.at:
        second = Place(second.run + 1, second.at - first.at)
    elif grown and second.run > first.run:
        second = Place(second.run + 1, second.at)
    again, two = part_run(parted, second)
    if len(again.runs) > len(parted.runs) and two <= one:
        one += 1
    return again, one, two


def slit(piece: Piece, place: Place, pivot: str, dart: str) -> Piece:
    """The piece slit from a place to a pivot: a new dart `dart` of no angle, both lips still together.

    Raises PlaceError when a dart opens there already, GeometryError when the slit would leave the piece or
    cross an edge or a dart.
    """
    taken = mouth_at(piece, place)
    if taken is not None:
        raise PlaceError(f"the dart {taken!r} opens there already", where=piece.name, advice="Merge with it, or move aside.")
    crossed = crosses(piece, _nearer(piece, place, piece.pivot(pivot)), piece.pivot(pivot))
    if crossed is not None:
        raise GeometryError(
            f"the slash crosses {crossed}", where=piece.name, advice="Choose a place with a clear way to the pivot."
        )
    parted, index = part_run(piece, place)
    run = replace(parted.runs[index], mouth=dart)
    runs = (*parted.runs[:index], run, *parted.runs[index + 1 :])
    made = replace(parted, runs=runs, darts=(*parted.darts, Dart(dart, pivot)))
    if abs(made.angle(dart)) > TOGETHER:
        edge = words(run.edge)
        raise PlaceError(f"the {edge} has a step there", where=piece.name, advice=f"True the {edge} first, or move aside.")
    return made


def _nearer(piece: Piece, place: Place, pin: Vector) -> Vector:
    """Where a slit begins: at a joint with a step, as a dart with unequal legs leaves it when shut, the nearer end."""
    here = point(piece, place)
    if not is_joint(piece, place):
        return here
    beyond = piece.runs[piece.after(place.run)].path.start
    return min((here, beyond), key=lambda end: float(np.hypot(*(end - pin))))


def apart(piece: Piece, first: str, second: str, names: tuple[str, str]) -> tuple[Piece, Piece]:
    """Cut right through a pivot along two darts (or slits) that share it: two pieces, the second being the
    part from the mouth of `first` clockwise to the mouth of `second`. Their legs become edges
    `<first>.leg` and `<second>.leg` on each piece.

    Raises GeometryError when the darts have different pivots.
    """
    pivot = piece.dart(first).pivot
    if pivot != piece.dart(second).pivot:
        raise GeometryError(f"the darts {first!r} and {second!r} have different pivots", where=piece.name)
    one, two = piece.mouth_run(first), piece.mouth_run(second)
    pin = piece.pivot(pivot)
    freed = _with_legs(piece, arc(piece, piece.after(one), two), second, first, names[1], pin)
    kept = _with_legs(piece, arc(piece, piece.after(two), one), first, second, names[0], pin)
    return kept, freed


def _with_legs(piece: Piece, indices: tuple[int, ...], ending: str, starting: str, name: str, pin: Vector) -> Piece:
    """An arc of runs closed by the leg from its last mouth to the pivot and the leg back to its first."""
    runs = [piece.runs[index] for index in indices]
    down = Run(f"{ending}.leg", Path.straight(runs[-1].path.end, pin), Source(f"{piece.name}.{ending}", 0.0, 1.0))
    up = Run(f"{starting}.leg", Path.straight(pin, runs[0].path.start), Source(f"{piece.name}.{starting}", 1.0, 0.0))
    closed = (*runs[:-1], replace(runs[-1], mouth=None), down, up)
    pivot = piece.dart(ending).pivot
    made = part_of(piece, indices, closed, name, [pin], DART_LEG)
    return replace(made, landmarks={**made.landmarks, pivot: piece.landmarks[pivot]})


def across(
    piece: Piece, start: Place, stop: Place, line: Path, edge: str, role: str, names: tuple[str, str]
) -> tuple[Piece, Piece]:
    """Cut right across along a line from one place of the outline to another: two pieces with partner edges.

    The second piece is the part from `start` clockwise to `stop`, closed by the line walked backwards. Both
    sides carry the line's own provenance (`edge`, 0 to 1 along the line), so they know each other.

    Where a dart opens at an end, the line begins (or ends) at one of the mouth's ends, and the dart is left whole on the other
    side of the line: it opens at a corner there.

    Raises GeometryError when the line does not run from place to place.
    """
    ends = lips(piece, start), lips(piece, stop)
    if any(_off(line_end, points_) > JOIN_TOL for line_end, points_ in zip((line.start, line.end), ends, strict=True)):
        raise GeometryError("the line does not run from the one place to the other", where=piece.name)
    parted, one, two = part_twice(piece, start, stop)
    if one == two:
        raise GeometryError("the line begins where it ends", where=piece.name, advice="Choose two places.")
    first, last = parted.runs[one].mouth, parted.runs[two].mouth
    out, back = Run(edge, line, Source(edge, 0.0, 1.0)), Run(edge, line.reversed(), Source(edge, 1.0, 0.0))
    runs = list(parted.runs)
    # At the near end of a mouth the dart stays behind the line, at the far end before it.
    if first is not None and _off(line.start, ends[0][:1]) <= JOIN_TOL:
        runs[one], back = replace(runs[one], mouth=None), replace(back, mouth=first)
    if last is not None and _off(line.end, ends[1][:1]) <= JOIN_TOL:
        runs[two], out = replace(runs[two], mouth=None), replace(out, mouth=last)
    parted = replace(parted, runs=tuple(runs))
    freed_arc, kept_arc = arc(parted, parted.after(one), two), arc(parted, parted.after(two), one)
    points = list(line.outline)
    kept = part_of(parted, kept_arc, (*[parted.runs[i] for i in kept_arc], out), names[0], points, role)
    freed = part_of(parted, freed_arc, (*[parted.runs[i] for i in freed_arc], back), names[1], points[::-1], role)
    return kept, replace(freed, added=(), taken=(), let_in=())  # what was added, taken or let in is told once


def lips(piece: Piece, place: Place) -> tuple[Vector, ...]:
    """The points where a line may begin at a place: of a mouth both ends, in loop order."""
    dart = mouth_at(piece, place)
    return (point(piece, place),) if dart is None else piece.mouth(dart)


def _off(end: Vector, points: tuple[Vector, ...]) -> float:
    return min(float(abs(end - at).max()) for at in points)


def part_of(
    piece: Piece, indices: tuple[int, ...], runs: tuple[Run, ...], name: str, closing: Sequence[Vector], role: str
) -> Piece:
    """One part of a cut piece: its runs, with the darts, landmarks and grain that lie in it."""
    ring = polygon(piece, indices, tuple(closing))
    known = dict(piece.roles)
    runs = well_begun(runs, known)
    edges = dict.fromkeys(run.edge for run in runs)
    mouths = {run.mouth for run in runs if run.mouth}
    darts = tuple(dart for dart in piece.darts if dart.id in mouths)
    inside = {key: at for key, at in piece.landmarks.items() if contains(ring, np.array(at))}
    inside.update({dart.pivot: piece.landmarks[dart.pivot] for dart in darts})
    grain = piece.grain if piece.grain and contains(ring, np.mean(piece.grain, axis=0)) else None
    return replace(
        piece,
        name=name,
        fold=piece.fold if piece.fold in edges else None,
        runs=runs,
        roles=tuple((edge, known.get(edge, role)) for edge in edges),
        darts=darts,
        landmarks=inside,
        grain=grain,
        fisheyes=tuple(eye for eye in piece.fisheyes if contains(ring, np.mean(eye.corners, axis=0))),
    )
