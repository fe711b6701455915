"""Redraw across a seam: two pieces laid together at the end of the seam that joins them, an edge of both made one smooth
line there, and parted again."""

from __future__ import annotations

import math
from dataclasses import dataclass, replace

import numpy as np
import shapely

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, between
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.piece import Piece, Run


@dataclass(frozen=True)
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


@dataclass(frozen=True)
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
    """The edge of both pieces drawn as one cubic over `reach` mm to either side of the seam (at most half of either run).

    The second piece is turned over and laid along the seam; the cubic leaves and meets the old lines along their tangents
    and is parted where it crosses the seam, so both seams end there and stay equally long. Source of the
    construction: common practice, no source (front and back pinned at the shoulder, a French curve laid across).

    Raises GeometryError when the line misses the seam.
    """
    lay = _laid(one, two)
    near, far = one.edge_away, two.edge_away.moved(lay)
    back, ahead = min(reach, near.length / 2.0), min(reach, far.length / 2.0)
    tail, kept = near.split_at(back)
    head, rest = far.split_at(ahead)
    handle = (back + ahead) / 3.0
    start, stop = kept.start, rest.start
    inner = (start - kept.start_direction * handle, stop - rest.start_direction * handle)
    curve = Path(np.array([[start, inner[0], inner[1], stop]]))
    hits = with_line(curve.cubics, one.seam_away.start, one.seam_away.start_direction)
    if len(hits) != 1:
        raise GeometryError("the blend misses the seam", where=one.piece.name, advice="Blend over less.")
    segment, t, into = hits[0]
    left, right = curve.split_at(curve.distance_of(segment, t))
    seams = [_shortened(m.seam_away, into) for m in (one, two)]
    edge_one = Path.chain([_ended(left.reversed(), seams[0].start), kept])
    edge_two = Path.chain([_ended(right.moved(_inverse(lay)), seams[1].start), two.edge_away.between(ahead, far.length)])
    old = np.concatenate([tail.reversed().outline, head.outline])
    moved = float(shapely.LineString(curve.outline).hausdorff_distance(shapely.LineString(old)))
    return Blended(one.redrawn(seams[0], edge_one), two.redrawn(seams[1], edge_two), moved, -into, corner_at(one, two))


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


def _laid(one: Meeting, two: Meeting) -> Motion:
    """The motion that turns the second piece over and lays its seam on the first's, corner to corner."""
    frames = []
    for m in (one, two):
        along = m.seam_away.start_direction
        frames.append(np.array([along, [-along[1], along[0]]]).T)
    # Walked away from the corner, both edges lie on the same hand of their seams, so the second is turned over; where the
    # one corner is a seam's start and the other its end, they lie on different hands already.
    flip = np.diag([1.0, -1.0 if one.at_end == two.at_end else 1.0])
    return Motion(frames[0] @ flip @ frames[1].T, two.seam_away.start, one.seam_away.start)


def _inverse(motion: Motion) -> Motion:
    return Motion(motion.matrix.T, motion.target, motion.origin)


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
