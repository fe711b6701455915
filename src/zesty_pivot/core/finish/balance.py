"""Balance notches: matching points half way along a long seam, carried by provenance through every step."""

from __future__ import annotations

from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.piece import Notch, Origin, Piece
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import SEAM_ROLES
from zesty_pivot.core.piece.place import Place

# Seams shorter than this are held by their ends. Common practice, no source.
LONG_SEAM = 150.0  # mm

BALANCE = 0.5  # of the block's edge

# Notches nearer than this to each other (mm) meet; further apart they miss. Common practice, no source (the chalk's width).
MEETS = 0.5

# Nearer than this (mm) to a dart's mouth the leg notch does the same work. Common practice, no source.
BESIDE_A_DART = 8.0


def balance_point(piece: Piece, edge: str) -> Place | None:
    """The place of an edge's balance notch, or None for a short edge, one that is not sewn to a partner, or one whose
    middle has been cut away."""
    role = piece.role(edge)
    if role not in SEAM_ROLES or piece.edge(edge).sewn_length < LONG_SEAM:
        return None
    source = piece.edge(edge).runs[0].source
    try:
        return places.by_origin(piece, Origin(source.edge, BALANCE, source.is_mirrored))
    except PlaceError:
        return None


def notch_place(piece: Piece, notch: Notch) -> Place | None:
    """Where a panel's notch lies now, or None when that part of its line has been cut away."""
    try:
        return places.by_origin(piece, notch.at)
    except PlaceError:
        return None


def notch_distances(piece: Piece, edge: str, *, from_end: bool) -> dict[str, float]:
    """The notches of an edge by id, with their sewn distance (mm) from its first landmark, or from its end."""
    total = piece.edge(edge).sewn_length
    found: dict[str, float] = {}
    for mark in piece.notches:
        place = notch_place(piece, mark)
        if place is not None and piece.runs[place.run].edge == edge:
            distance = places.sewn_distance(piece, place)
            found[mark.id] = total - distance if from_end else distance
    return found


def is_beside_a_dart(piece: Piece, place: Place) -> bool:
    """Whether a mouth opens within BESIDE_A_DART of a place, along the seam."""
    run, before = piece.runs[place.run], piece.runs[place.run - 1]
    near_end = run.mouth is not None and run.path.length - place.at < BESIDE_A_DART
    return near_end or (before.mouth is not None and place.at < BESIDE_A_DART)
