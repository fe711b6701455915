"""Slits that are cut into a piece: at its centre, and where a twist goes through the other half."""

from __future__ import annotations

import math
from collections.abc import Iterator

from zesty_pivot.core.finish.balance import notch_place
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.names import TWIST
from zesty_pivot.core.record import record

SLIT_END = "slit.end"  # the notch where a slit ends


@record
class Slit:
    """A cut inside a piece, by its id."""

    id: str
    paths: tuple[Path, ...]


def slits(drawn: Piece, piece: Piece) -> tuple[Slit, ...]:
    """All slits of a piece as it is `drawn`; the `piece` itself knows what is gathered."""
    return (*_at_centre(drawn), *_of_twist(drawn, piece))


def _at_centre(piece: Piece) -> Iterator[Slit]:
    """A slit is cut: the centre from its upper end down to the slit's notch."""
    for mark in piece.notches:
        place = notch_place(piece, mark) if mark.id == SLIT_END else None
        if place is not None:
            run = piece.runs[place.run]
            rest = [run.path.between(place.at, run.path.length)] if place.at < run.path.length - 1.0 else []
            after = [other.path for other in piece.runs[place.run + 1 :] if other.edge == run.edge]
            yield Slit("slit", (*rest, *after))


def _of_twist(piece: Piece, gathered: Piece) -> Iterator[Slit]:
    """The slit of a twist, where the centre was: as long as the tab is once gathered."""
    ids = [edge for edge, role in piece.roles if role == TWIST]
    if len(ids) != 3:
        return
    lower, upper = piece.edge(ids[0]).runs[0].path.start, piece.edge(ids[2]).runs[-1].path.end
    width = next((full.own_mm for full in gathered.fullness if full.id.startswith(f"{piece.name}.{TWIST}")), None)
    long = piece.edge(TWIST).sewn_length - (width or 0.0)
    half = (upper - lower) / math.dist(upper, lower) * min(long, math.dist(upper, lower) * 0.9) / 2.0
    middle = (upper + lower) / 2.0
    yield Slit("twist.slit", (Path.straight(middle - half, middle + half),))
