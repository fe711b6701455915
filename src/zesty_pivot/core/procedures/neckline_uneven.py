"""Necklines that are not the same on both sides: an edge over the centre as one for each side, and the wrap."""

from __future__ import annotations

from typing import cast

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.necklines.base import Drawn, EdgePart, Ends, NeckShape
from zesty_pivot.core.piece import Piece, Place, Side
from zesty_pivot.core.piece.bodice_half import nearest_place
from zesty_pivot.core.procedures.neckline_across import outwards
from zesty_pivot.core.procedures.neckline_edges import NeckEdge
from zesty_pivot.core.record import replace

_NEW = "*neck"

ENDS = ("shoulder", "armhole", "side_seam", "waist", "hem")

ASIDE = ("side_bust", "french")  # where the far front's darts go before they are cut away with it


def on_each_side(edge: NeckEdge, shape: NeckShape, side: Side) -> dict[Side, NeckEdge]:
    """An edge that is not the same on both sides as two, each drawn on a half from its centre outwards. `side` is the side as
    worn that it changes. Raises StepError when it does not cross the centre or misses the outline."""
    middle = float(edge.bodice.nape[0])
    near, far = outwards(edge.drawn.path, middle, edge.name)
    # Drawn for the left front deep, and for the right shoulder bare.
    turned = (side is Side.RIGHT) != (shape.name == "one_shoulder")
    found = {}
    for its, path, is_far in ((Side.LEFT, near, False), (Side.RIGHT, far, True)):
        beyond = edge.beyond if edge.beyond is not None and edge.is_far is is_far else None
        last, end = (edge.bodice.piece, path.end) if beyond is None else (beyond.side, beyond.outer[-1].path.end)
        parts: tuple[EdgePart, ...] = (EdgePart(path),)
        nape = edge.bodice.nape
        if path.start[1] < nape[1] - JOIN_TOL:  # over paper that is taped on above the centre
            parts = (EdgePart(Path.straight(nape, path.start), "centre"), *parts)
        drawn = Drawn(parts, ends_on=_role_at(last, end), bends=False)
        found[its.other if turned else its] = replace(edge, drawn=drawn, beyond=beyond)
    return {its: found[its] for its in Side}


def _role_at(piece: Piece, point: np.ndarray) -> Ends:
    """The role of the edge where a drawn edge ends. Raises StepError when it misses the outline."""
    place = _on(piece, point)
    return cast(Ends, piece.role(piece.runs[place.run].edge))


def _on(piece: Piece, point: np.ndarray) -> Place:
    """The place of the ring where a drawn edge ends. Raises StepError when it misses it."""
    found = nearest_place(piece, point, lambda run: piece.role(run.edge) in ENDS)
    if found is None:
        raise StepError("the edge misses the outline", where=piece.name, advice="Choose another width.")
    return found
