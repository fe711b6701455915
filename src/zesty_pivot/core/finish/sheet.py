"""Finished pieces laid side by side on one sheet."""

from __future__ import annotations

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.record import record

MARGIN = 15.0  # mm round the sheet
GAP = 25.0  # mm between pieces


@record
class Laid:
    """A piece with its shift (dx, dy) in mm on the sheet."""

    piece: FinishedPiece
    dx: float
    dy: float


@record
class Sheet:
    """All pieces of a style on one sheet of `width` by `height` mm; `title` is its title block, names and what they are."""

    width: float
    height: float
    laid: tuple[Laid, ...]
    title: tuple[tuple[str, str], ...] = ()


def lay(pieces: tuple[FinishedPiece, ...], title: tuple[tuple[str, str], ...] = ()) -> Sheet:
    """The pieces in their order from left to right, tops level."""
    laid: list[Laid] = []
    x, height = MARGIN, 0.0
    for piece in pieces:
        left, top, right, bottom = piece.box()
        laid.append(Laid(piece, x - left, MARGIN - top))
        x += right - left + GAP
        height = max(height, bottom - top)
    width = x - GAP + MARGIN if laid else 2.0 * MARGIN
    return Sheet(width, height + 2.0 * MARGIN, tuple(laid), title)
