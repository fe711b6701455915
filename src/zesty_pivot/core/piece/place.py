"""A place on a piece's ring, and how it is found along sewn seams and by provenance."""

from __future__ import annotations

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece.edge import Origin
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record


@record
class Place:
    """A distance (mm) along one run of a piece; at the run's full length it is the joint (or mouth) at its end."""

    run: int
    at: float


def settled(piece: Piece, run: int, at: float) -> Place:
    """A place with ends settled: the start of a run is the joint at the end of the run before."""
    size = piece.runs[run].path.length
    if at <= JOIN_TOL:
        before = (run - 1) % len(piece.runs)
        return Place(before, piece.runs[before].path.length)
    return Place(run, size if at >= size - JOIN_TOL else at)


def is_joint(piece: Piece, place: Place) -> bool:
    """Whether a place is the end of its run."""
    return place.at >= piece.runs[place.run].path.length - JOIN_TOL


def mouth_at(piece: Piece, place: Place) -> str | None:
    """The dart that opens at a place, if one does."""
    return piece.runs[place.run].mouth if is_joint(piece, place) else None


def point(piece: Piece, place: Place) -> Vector:
    """The point of a place, (2,) mm."""
    return piece.runs[place.run].path.point_at(place.at)


def along(piece: Piece, edge: str, distance: float) -> Place:
    """The place at a sewn distance (mm) from an edge's first landmark, open mouths skipped.

    Raises PlaceError when the distance is off the edge.
    """
    total = piece.edge(edge).sewn_length
    if not -JOIN_TOL <= distance <= total + JOIN_TOL:
        raise PlaceError(
            f"{format_length(distance, 'cm')} along the {words(edge)} is off the edge",
            where=piece.name,
            advice=f"The {words(edge)} is {format_length(total, 'cm')} long.",
        )
    indices = [index for index, run in enumerate(piece.runs) if run.edge == edge]
    for index in indices:
        size = piece.runs[index].path.length
        if distance <= size + JOIN_TOL or index == indices[-1]:
            return settled(piece, index, distance)
        distance -= size
    raise PlaceError(f"edge {edge!r} has no line", where=piece.name)


def by_origin(piece: Piece, at: Origin) -> Place:
    """Where a place of the cloth lies on the ring now.

    Raises PlaceError when that stretch is no longer on this piece.
    """
    for index, run in enumerate(piece.runs):
        source = run.source
        if source.line != (at.line, at.is_mirrored) or source.u0 == source.u1:
            continue
        share = (at.u - source.u0) / (source.u1 - source.u0)
        slack = JOIN_TOL / run.path.length
        if -slack <= share <= 1.0 + slack:
            return settled(piece, index, min(max(share, 0.0), 1.0) * run.path.length)
    raise PlaceError(f"this part of {at.line} has been cut away", where=piece.name, advice="Choose another place.")


def origin_of(piece: Piece, place: Place) -> Origin:
    """Where on the cloth a place of the ring lies."""
    run = piece.runs[place.run]
    return Origin(run.source.edge, run.source.at(place.at / run.path.length), run.source.is_mirrored)


def sewn_distance(piece: Piece, place: Place) -> float:
    """The sewn distance (mm) of a place from the first landmark of its run's edge."""
    run = piece.runs[place.run]
    before = sum(other.path.length for other in piece.runs[: place.run] if other.edge == run.edge)
    return before + place.at
