"""Redraw across a seam: two pieces laid together at the end of the seam that joins them, an edge of both made one smooth
line there, and parted again."""

from __future__ import annotations

import math

import numpy as np
import shapely

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.shaping import displaced
from zesty_pivot.core.piece import Piece, Run
from zesty_pivot.core.record import record, replace


@record
class Meeting:
    """Where a seam ends on a piece: the runs of the seam and of the edge that meet there, and both walked away from it."""

    piece: Piece
    seam: int
    edge: int
    at_end: bool  # the corner lies at the seam's end, on the way round the piece

    @property
    def seam_away(self) -> Path:
        """The seam's run, from the corner."""
        path = self.piece.runs[self.seam].path
        return path.reversed() if self.at_end else path

    @property
    def edge_away(self) -> Path:
        """The edge's run, from the corner."""
        path = self.piece.runs[self.edge].path
        return path if self.at_end else path.reversed()

    def redrawn(self, seam: Path, edge: Path) -> Piece:
        """The piece with other paths, both given from the corner."""
        runs = list(self.piece.runs)
        runs[self.seam] = replace(runs[self.seam], path=seam.reversed() if self.at_end else seam)
        runs[self.edge] = replace(runs[self.edge], path=edge if self.at_end else edge.reversed())
        return replace(self.piece, runs=tuple(runs))


@record
class Blended:
    """Both pieces after it; `moved_mm` is the furthest the line went, `seam_mm` how much longer both seams are, and
    `corner` the angle (radians) that there was."""

    one: Piece
    two: Piece
    moved_mm: float
    seam_mm: float
    corner: float


def meeting(piece: Piece, role: str, edge: str) -> Meeting | None:
    """Where the seam of a role meets an edge by its role, or None when they do not meet.

    Raises GeometryError when a dart opens at that corner.
    """
    if piece.is_unfolded:
        raise GeometryError("the piece is unfolded", where=piece.name, advice="True the half before it is unfolded.")
    seams = [index for index, run in enumerate(piece.runs) if piece.role(run.edge) == role]
    if not seams:
        return None
    for index, other, at_end in (
        (seams[-1], piece.after(seams[-1]), True),
        (seams[0], (seams[0] - 1) % len(piece.runs), False),
    ):
        if piece.role(piece.runs[other].edge) == edge:
            first: Run = piece.runs[index if at_end else other]
            if first.mouth is not None:
                what = f"the dart {first.mouth!r} opens where the seam ends"
                raise GeometryError(what, where=piece.name, advice="Move or park it first.")
            return Meeting(piece, index, other, at_end)
    return None


def corner_at(one: Meeting, two: Meeting) -> float:
    """The corner (radians) of the edge across the seam when both pieces lie together; 0 is smooth."""
    openings = [abs(between(m.seam_away.start_direction, m.edge_away.start_direction)) for m in (one, two)]
    return sum(openings) - math.pi


def blend_across(one: Meeting, two: Meeting, reach: float) -> Blended:
    """The edge of both pieces led over `reach` mm to either side of the seam (at most half of either run) until it crosses the
    seam without a corner.

    Each edge turns by half of the corner at the seam, which dies away along it as a parabola: two straight edges become one
    arc between them, tangent to both, and curved ones keep their curve. The line moves most at the seam, by
    reach tan(corner / 2) / 2, cut off both seams (or added), so they stay equally long. Source: a parabola between two tangents
    (textbook geometry).
    """
    corner = corner_at(one, two)
    over = min(reach, one.edge_away.length / 2.0, two.edge_away.length / 2.0)
    into = -over * math.tan(corner / 2.0) / 2.0
    seams = [_shortened(m.seam_away, into) for m in (one, two)]
    edges = [_turned(m, seam.start, corner / 2.0, over) for m, seam in zip((one, two), seams, strict=True)]
    moved = max(
        float(shapely.LineString(new.outline).hausdorff_distance(shapely.LineString(m.edge_away.outline)))
        for m, new in zip((one, two), edges, strict=True)
    )
    return Blended(one.redrawn(seams[0], edges[0]), two.redrawn(seams[1], edges[1]), moved, -into, corner)


def _turned(meeting: Meeting, start: Vector, less: float, over: float) -> Path:
    """An edge that begins at another point of its seam, at an angle to it that is smaller by `less` (radians)."""
    seam, path = meeting.seam_away.start_direction, meeting.edge_away
    angle = between(seam, path.start_direction)
    to = Motion.turn(np.zeros(2), math.copysign(abs(angle) - less, angle))(seam)
    knots = [(0.0, start - path.start), (over, np.zeros(2))]
    (made,) = displaced([path], knots, slopes={0.0: to - path.start_direction, over: np.zeros(2)})
    return _ended(made, start)


def square_at_centre(piece: Piece, edge: str, reach: float) -> tuple[Piece, float]:
    """The piece with an edge redrawn over `reach` mm so that it leaves the fold square, and how far the line moved (mm).

    Raises GeometryError when the edge does not meet the fold, or a dart opens there.
    """
    for index, run in enumerate(piece.runs):
        after = piece.runs[piece.after(index)]
        if {run.edge, after.edge} != {edge, piece.fold}:
            continue
        if run.mouth is not None:
            raise GeometryError(f"the dart {run.mouth!r} opens at the centre", where=piece.name, advice="Move it first.")
        begins = after.edge == edge  # the edge starts at the fold
        at = piece.after(index) if begins else index
        path = piece.runs[at].path if begins else piece.runs[at].path.reversed()
        fold = run.path.end_direction if begins else after.path.start_direction
        square = np.array([-fold[1], fold[0]])
        square = square if float(square @ (path.point_at(min(reach, path.length / 2)) - path.start)) > 0.0 else -square
        tail, kept = path.split_at(min(reach, path.length / 2.0))
        handle = tail.length / 3.0
        control = (path.start + square * handle, kept.start - kept.start_direction * handle)
        curve = Path(np.array([[path.start, control[0], control[1], kept.start]]))
        moved = float(shapely.LineString(curve.outline).hausdorff_distance(shapely.LineString(tail.outline)))
        whole = Path.chain([curve, kept])
        runs = list(piece.runs)
        runs[at] = replace(runs[at], path=whole if begins else whole.reversed())
        return replace(piece, runs=tuple(runs)), moved
    raise GeometryError(f"the {edge} does not meet the fold", where=piece.name, advice="Choose the neckline or the waist.")


def _shortened(path: Path, by: float) -> Path:
    """A seam that begins `by` mm further in; longer, straight on, where negative."""
    if abs(by) <= JOIN_TOL:
        return path
    if by > 0.0:
        return path.split_at(by)[1]
    return Path.chain([Path.straight(path.start + path.start_direction * by, path.start), path])


def _ended(path: Path, start: Vector) -> Path:
    """A path whose start is put exactly on a point; a curved seam leaves its tangent by microns there."""
    cubics = path.cubics.copy()
    cubics[0, 0] = start
    return Path(cubics)
