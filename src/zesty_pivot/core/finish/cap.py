"""The cap at a dart's mouth by true folding.

Pressed to one side, the half of the intake next to that side lies mirrored under it across the leg, and the other
half lies on it as the dart shuts. So the cap is the outline of that side mirrored in its leg, up to the fold
line, and from there mirrored once more in the fold line to the other leg. Source: paper folded and traced through, common
practice, no source.
"""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.record import record

SLANTING = 3.0  # half a cap longer than so many mouths is no cap: its seam runs nearly along the leg. Our own choice


@record
class Cap:
    """The edge across a mouth in loop order, and its parts with the edges of the piece that they were traced from: one round a
    corner has more than one, each with the allowance of its own edge."""

    path: Path
    parts: tuple[tuple[str, Path], ...]


def cap(piece: Piece, dart: str, point: Vector, fold: str) -> Cap:
    """The edge across a dart's mouth in loop order. `point` is the sewn point, `fold` the side it is pressed to.

    Raises GeometryError when the folded outline does not reach the fold line.
    """
    first, second = piece.mouth(dart)
    near, far = (first, second) if fold == "before" else (second, first)
    mirror = Motion.reflect(point, near - point)
    middle = unit(np.asarray((first + second) / 2.0 - point))
    runs = [(edge, path.moved(mirror)) for edge, path in _outward(piece, dart, fold)]
    reach = _reach(Path.chain([path for _edge, path in runs]), point, middle)
    if reach > SLANTING * math.dist(first, second):
        raise GeometryError("the seam beside the mouth slants too much to be folded under it")
    half: list[tuple[str, Path]] = []
    for edge, path in runs:
        if reach <= JOIN_TOL:
            break
        half.append((edge, path if path.length <= reach else path.between(0.0, reach)))
        reach -= path.length
    other = [(edge, path.moved(Motion.reflect(point, middle)).reversed()) for edge, path in reversed(half)]
    gap = float(np.abs(other[-1][1].end - far).max())
    if gap > 1.0:
        raise GeometryError("the legs are not equal", where=piece.name, advice="True the edge first.")
    parts = [*half, *other]
    if gap > JOIN_TOL:  # legs that differ by less than a millimetre: along the leg to its mouth
        parts.append((parts[-1][0], Path.straight(other[-1][1].end, far)))
    if fold != "before":
        parts = [(edge, path.reversed()) for edge, path in reversed(parts)]
    return Cap(Path.chain([path for _edge, path in parts]), tuple(parts))


def pointed(piece: Piece, dart: str, edge: str, point: Vector, extension: float) -> Cap:
    """The mouth drawn out to a point: from its ends straight to the place on the dart's axis `extension` mm outside the mouth.
    Source: blouse blocks, whose darts' legs are led to a point 1/2 to 3/4 in outside the seam: common practice, no source."""
    first, second = piece.mouth(dart)
    middle = np.asarray((first + second) / 2.0)
    tip = middle + unit(middle - point) * extension
    path = Path.straight(first, tip, second)
    return Cap(path, ((edge, path),))


def _outward(piece: Piece, dart: str, fold: str) -> list[tuple[str, Path]]:
    """The outline from the mouth away on the pressed side, as far as the next mouth: each stretch with its edge."""
    index = piece.mouth_run(dart)
    parts: list[tuple[str, Path]] = []
    at = index if fold == "before" else piece.after(index)
    for _ in range(len(piece.runs)):
        run = piece.runs[at]
        path = run.path.reversed() if fold == "before" else run.path
        if parts and np.abs(path.start - parts[-1][1].end).max() > JOIN_TOL:
            break
        parts.append((run.edge, path))
        step = -1 if fold == "before" else 1
        after = (at + step) % len(piece.runs)
        opened = piece.runs[after].mouth if fold == "before" else run.mouth
        if opened is not None:
            break
        at = after
    return parts


def _reach(path: Path, on: Vector, towards: Vector) -> float:
    """How far along a path it first crosses a ray, mm. Raises GeometryError when it does not."""
    hits = [path.distance_of(segment, t) for segment, t, out in with_line(path.cubics, on, towards) if out > JOIN_TOL]
    ahead = [distance for distance in hits if distance > JOIN_TOL]
    if not ahead:
        raise GeometryError("the seam beside the mouth is too short to fold under it")
    return min(ahead)
