"""14: a piece without grain, label or cut order."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.piece.names import words


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        if piece.grain is None:
            yield _finding(piece.name, "grain", f"the {words(piece.name)} has no grain line", "Give the block a grain line.")
        if not look.style.strip():
            yield _finding(piece.name, "label", f"the {words(piece.name)} has no style name on its label", "Name the style.")
        asked = look.finish.cut.get(piece.name, "auto")
        if asked == "auto" and piece.fold is None and not piece.is_unfolded and not _is_half(piece):
            yield _finding(piece.name, "cut", f"the {words(piece.name)} has no cut order", "Choose how it is cut.")
        if piece.is_unfolded and asked not in ("auto", "up"):
            mend = Mend("Cut 1, right side up", finish={"cut": {piece.name: "up"}})
            message = f"the {words(piece.name)} is not the same left and right, and its cut order does not say right side up"
            yield _finding(piece.name, "cut", message, "Cut 1, right side up: turned over it would be mirrored.", mend)
        elif asked == "fold" and not lies_on_fold(piece):
            mend = Mend("Cut 1 pair", finish={"cut": {piece.name: "pair"}})
            yield _finding(
                piece.name, "cut", f"the {words(piece.name)} is to be cut on the fold, but a dart opens on its centre",
                "Cut a pair with a seam at the centre.", mend,
            )  # fmt: skip


def _is_half(piece: Piece) -> bool:
    """Whether it is one of two by itself: a panel, or a half whose centre is a seam."""
    return bool(piece.of) or any(role == "centre" for _edge, role in piece.roles)


def _finding(piece: str, place: str, message: str, advice: str, mend: Mend | None = None) -> Finding:
    return Finding("labels", Severity.WARNING, piece, place, message, 0.0, 1.0, "present", advice, mend)


CHECK = Check("labels", "Pieces carry grain, label and cut order", _run)
