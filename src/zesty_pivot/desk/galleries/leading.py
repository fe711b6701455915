"""Where the slashes of gathers, pleats and tucks can lead on a piece."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.let_in import LetInStep
from zesty_pivot.desk.galleries.base import Fields

ABOVE = ("shoulder", "style_line", "neckline", "armhole", "side_seam")  # what a fan from below may radiate to


def _begins(step: Step, piece: Piece) -> str | None:
    """The edge that a step begins on, as far as it can be told without its places."""
    assert isinstance(step, LetInStep)
    spot = step.start
    named = step.edge or (spot.edge if spot is not None else None)
    lower = [edge for edge, role in piece.roles if role in ("waist", "hem")]
    return named or (lower[0] if lower else None)


def fanned(step: Step, piece: Piece) -> list[Fields]:
    """Slashes that radiate to the middle of an edge above: the first that they reach."""
    begins = _begins(step, piece)
    edges = [edge for wanted in ABOVE for edge, role in piece.roles if role == wanted and edge not in (begins, piece.fold)]
    return [{"to": edge} for edge in edges]


def at_the_fold(step: Step, piece: Piece) -> list[Fields]:
    """On the fold, at the end of the edge that meets it."""
    begins = _begins(step, piece)
    if begins is None or piece.fold is None or begins not in dict(piece.roles):
        return []
    runs = piece.edge(begins).runs
    last = piece.runs.index(runs[-1])
    beyond = piece.runs[piece.after(last)].edge == piece.fold
    start: dict[str, Any] = {"edge": begins, "at": "100%" if beyond else "0%"}
    return [{"start": start}]
