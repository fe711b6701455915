"""The cap at a dart's mouth by true folding.

Pressed to one side, the half of the intake next to that side lies mirrored under it across the leg, and the other
half lies on it as the dart shuts. So the cap is the outline of that side mirrored in its leg, up to the fold
line, and from there mirrored once more in the fold line to the other leg. Source: paper folded and traced through, common
practice, no source.
"""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece import Piece


def cap(piece: Piece, dart: str, point: Vector, fold: str) -> Path:
    """The edge across a dart's mouth in loop order. `point` is the sewn point, `fold` the side it is pressed to.

    Raises GeometryError when the folded outline does not reach the fold line.
    """
    first, second = piece.mouth(dart)
    near, far = (first, second) if fold == "before" else (second, first)
    outline = _outward(piece, dart, fold)
    mirrored = outline.moved(Motion.reflect(point, near - point))
    middle = unit(np.asarray((first + second) / 2.0 - point))
    half = _up_to(mirrored, point, middle)
    other = half.moved(Motion.reflect(point, middle))
    if np.abs(other.start - far).max() > 1.0:
        raise GeometryError("the legs are not equal", where=piece.name, advice="True the edge first.")
    whole = [half, other.reversed()]
    if np.abs(other.start - far).max() > JOIN_TOL:  # legs that differ by less than a millimetre: along the leg to its mouth
        whole.append(Path.straight(other.start, far))
    made = Path.chain(whole)
    return made if fold == "before" else made.reversed()


def _outward(piece: Piece, dart: str, fold: str) -> Path:
    """The outline from the mouth away on the pressed side, as far as the next mouth."""
    index = piece.mouth_run(dart)
    parts: list[Path] = []
    at = index if fold == "before" else piece.after(index)
    for _ in range(len(piece.runs)):
        run = piece.runs[at]
        path = run.path.reversed() if fold == "before" else run.path
        if parts and np.abs(path.start - parts[-1].end).max() > JOIN_TOL:
            break
        parts.append(path)
        step = -1 if fold == "before" else 1
        after = (at + step) % len(piece.runs)
        opened = piece.runs[after].mouth if fold == "before" else run.mouth
        if opened is not None:
            break
        at = after
    return Path.chain(parts)


def _up_to(path: Path, on: Vector, towards: Vector) -> Path:
    """A path from its start to where it first crosses a ray."""
    hits = [path.distance_of(segment, t) for segment, t, out in with_line(path.cubics, on, towards) if out > JOIN_TOL]
    ahead = [distance for distance in hits if distance > JOIN_TOL]
    if not ahead:
        raise GeometryError("the seam beside the mouth is too short to fold under it")
    return path.between(0.0, min(ahead))
