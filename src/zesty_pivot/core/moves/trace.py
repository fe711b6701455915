"""Trace: copy a stretch of the outline, or a whole piece, onto fresh paper."""

from __future__ import annotations

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.place import Place
from zesty_pivot.core.piece.region import arc
from zesty_pivot.core.record import replace


def piece(original: Piece, name: str) -> Piece:
    """A copy of a piece under another name; provenance still tells which block edges it comes from."""
    return replace(original, name=name)


def stretch(original: Piece, start: Place, stop: Place) -> list[Path]:
    """The outline from one place clockwise to another: a path for each stretch between open mouths.

    Raises GeometryError when nothing lies between the places.
    """
    found: list[Path] = []
    for path, opens in _parts(original, start, stop):
        if found and not opens:
            found[-1] = Path.chain([found[-1], path])
        else:
            found.append(path)
    if not found:
        raise GeometryError("nothing lies between the two places", where=original.name)
    return found


def _parts(original: Piece, start: Place, stop: Place) -> list[tuple[Path, bool]]:
    """Paths in order, each with whether the paper is open before it."""
    if start == stop:
        return []
    if start.run == stop.run and start.at < stop.at:
        return [(original.runs[start.run].path.between(start.at, stop.at), True)]
    indices = arc(original, start.run, stop.run)
    if start.run == stop.run:  # all the way round
        indices = (*arc(original, start.run, (start.run - 1) % len(original.runs)), stop.run)
    parts: list[tuple[Path, bool]] = []
    opens = True
    for number, index in enumerate(indices):
        run = original.runs[index]
        low = start.at if number == 0 else 0.0
        high = stop.at if number == len(indices) - 1 else run.path.length
        if high - low > JOIN_TOL:
            parts.append((run.path.between(low, high), opens))
        opens = run.mouth is not None
    return parts
