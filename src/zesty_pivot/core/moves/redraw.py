"""Redraw: a stretch of seam replaced by a smooth curve, with how far it and its length moved."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, between
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece.edge import Run
from zesty_pivot.core.piece.piece import Piece


@dataclass(frozen=True)
class Redrawn:
    """A piece with one stretch redrawn; `moved_mm` is the furthest the line went, `longer_mm` its change in length."""

    piece: Piece
    moved_mm: float
    longer_mm: float


def corner(piece: Piece, index: int) -> float:
    """The corner in radians that the seam makes at the end of a run once any mouth there is sewn shut.

    Positive when the seam turns further clockwise. A smooth seam is 0.
    """
    first, second = piece.runs[index], piece.runs[piece.after(index)]
    turn = between(first.path.end_direction, second.path.start_direction)
    if first.mouth is not None:
        turn -= piece.angle(first.mouth)
    return (turn + np.pi) % (2.0 * np.pi) - np.pi


def jog(piece: Piece, index: int) -> float:
    """The step in mm between the two sides of a joint or of a mouth sewn shut (the legs' difference)."""
    first, second = piece.runs[index], piece.runs[piece.after(index)]
    if first.mouth is not None:
        legs = piece.legs(first.mouth)
        return abs(legs[0] - legs[1])
    return float(np.hypot(*(second.path.start - first.path.end)))


def blend(piece: Piece, index: int, reach: float) -> Redrawn:
    """The seam at the end of a run made smooth over `reach` mm to either side (at most half of either run).

    The mouth there, if any, is thought shut; a cubic leaves and meets the old line along its tangents, its handles two
    thirds of the way, as a quadratic towards the corner would; it is parted where the shut legs lie, so both legs end
    equal. Source of the construction: common practice, no source (a French curve laid to the fold).

    Raises GeometryError when the runs belong to different edges.
    """
    first, second = piece.runs[index], piece.runs[piece.after(index)]
    if first.edge != second.edge:
        raise GeometryError(
            f"no dart opens between {first.edge} and {second.edge}, so there is nothing to blend", where=piece.name
        )
    shutting, opening = _turns(piece, first)
    laid = second.path.moved(shutting) if shutting else second.path
    back, ahead = reaches(piece, index, reach)
    kept, tail = first.path.split_at(first.path.length - back)
    head, rest = laid.split_at(ahead)
    curve = _curve(kept, rest, (back + ahead) / 3.0)
    moved = _furthest(curve, tail, head)
    u_start = first.source.at(1.0 - back / first.path.length)
    u_stop = second.source.at(ahead / laid.length)
    before = Run(first.edge, kept, replace(first.source, u1=u_start))
    after = Run(second.edge, rest, replace(second.source, u0=u_stop), second.mouth)
    new: tuple[Run, ...]
    if first.mouth is None or opening is None:
        new = (before, Run(first.edge, curve, replace(first.source, u0=u_start, u1=u_stop)), after)
    else:
        left, right = _parted(piece, first.mouth, curve)
        new = (
            before,
            Run(first.edge, left, replace(first.source, u0=u_start), first.mouth),
            Run(second.edge, right.moved(opening), replace(second.source, u1=u_stop)),
            replace(after, path=after.path.moved(opening)),
        )
    longer = curve.length - tail.length - head.length
    following = piece.after(index)
    runs = [run for at, run in enumerate(piece.runs) if at not in (index, following)]
    at = index if following else index - 1
    return Redrawn(replace(piece, runs=(*runs[:at], *new, *runs[at:])), moved, longer)


def reaches(piece: Piece, index: int, reach: float) -> tuple[float, float]:
    """How far in mm a blend at the end of a run goes back and ahead: `reach`, at most half of either run."""
    first, second = piece.runs[index], piece.runs[piece.after(index)]
    return min(reach, first.path.length / 2.0), min(reach, second.path.length / 2.0)


def _turns(piece: Piece, run: Run) -> tuple[Motion | None, Motion | None]:
    """The turn that lays the far side of a run's mouth onto it, and the turn back."""
    if run.mouth is None:
        return None, None
    pin, angle = piece.pivot(piece.dart(run.mouth).pivot), piece.angle(run.mouth)
    return Motion.turn(pin, -angle), Motion.turn(pin, angle)


def _curve(kept: Path, rest: Path, handle: float) -> Path:
    start, stop = kept.end, rest.start
    inner = (start + kept.end_direction * handle, stop - rest.start_direction * handle)
    return Path(np.array([[start, inner[0], inner[1], stop]]))


def _parted(piece: Piece, dart: str, curve: Path) -> tuple[Path, Path]:
    """The curve's two sides of the shut legs' line."""
    pin = piece.pivot(piece.dart(dart).pivot)
    leg = piece.mouth(dart)[0] - pin
    hits = [hit for hit in with_line(curve.cubics, pin, leg / np.hypot(*leg)) if hit[2] > JOIN_TOL]
    if len(hits) != 1:
        raise GeometryError(f"the blend misses the legs of {dart!r}", where=piece.name, advice="Blend over less.")
    return curve.split_at(curve.distance_of(hits[0][0], hits[0][1]))


def _furthest(curve: Path, tail: Path, head: Path) -> float:
    """The furthest distance in mm between the new curve and the old line, to the flatness of drawing."""
    old: NDArray[np.float64] = np.concatenate([tail.outline, head.outline])
    return float(shapely.LineString(curve.outline).hausdorff_distance(shapely.LineString(old)))
