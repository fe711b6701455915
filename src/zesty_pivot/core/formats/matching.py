"""Stripes and checks: which notches can be matched, and where on each piece they must fall so that they are."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

import numpy as np

from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.nest.cloth import Cloth
from zesty_pivot.core.nest.cut_pieces import CutPiece, fold_line
from zesty_pivot.core.nest.fill import Phase
from zesty_pivot.core.piece import Side
from zesty_pivot.core.piece.names import words

FIRST = "side_seam."  # notches of the side seams come first: where two chains of matches meet, theirs holds


def matchable(derived: Derived, pieces: Sequence[CutPiece]) -> tuple[str, ...]:
    """The notches at which pieces can be matched: those that two of them have on a seam between them."""
    found = dict.fromkeys(id for _one, _other, id in _links(derived, {piece.piece.name: piece for piece in pieces}))
    return tuple(sorted(found, key=lambda id: not id.startswith(FIRST)))


def notch_words(id: str) -> str:
    """A notch by its id as it is read aloud: `side seam, balance`."""
    edge, _dot, rest = id.partition(".")
    return f"{words(edge)}, {rest.removesuffix('.notch').removesuffix('notches').replace('.', ' ').strip()}".rstrip(", ")


def phases_of(derived: Derived, pieces: Sequence[CutPiece], match: Sequence[str], cloth: Cloth) -> dict[str, Phase]:
    """Where stripes and checks fall on each piece, by its key. Along the cloth: of pieces that are sewn to each other what
    meets at a named notch has the same stripe, from piece to piece. Across it: in the middle of pieces that have one."""
    by_name = {piece.piece.name: piece for piece in pieces}
    along = _along(derived, by_name, tuple(_plain(id) for id in match)) if cloth.repeat[0] else {}
    found: dict[str, Phase] = {}
    for piece in pieces:
        x = along.get(piece.piece.name)
        y = _middle_at(piece) if cloth.repeat[1] else None
        if x is not None or y is not None:
            found[piece.key] = Phase(x, y)
    return found


def _along(derived: Derived, pieces: dict[str, CutPiece], match: tuple[str, ...]) -> dict[str, float]:
    """For each piece the place in its frame that falls on whole repeats, mm."""
    links = [link for id in match for link in _links(derived, pieces) if link[2] == id]
    found: dict[str, float] = {}
    for name, piece in pieces.items():
        notches = _notches(piece)
        begin = next((notches[id] for id in match if id in notches), None)
        if name in found or begin is None:
            continue
        found[name] = begin
        reached = [name]
        while reached:
            mine = reached.pop(0)
            for one, other, id in links:
                for here, there in ((one, other), (other, one)):
                    if here == mine and there not in found:
                        # The partner's notch is as far from its whole repeat as ours is.
                        found[there] = _notches(pieces[there])[id] - (_notches(pieces[here])[id] - found[here])
                        reached.append(there)
    return found


def _links(derived: Derived, pieces: dict[str, CutPiece]) -> Iterator[tuple[str, str, str]]:
    """Pieces that a seam joins, with a notch that both have on it."""
    for seam in derived.pattern.seams:
        for a in seam.a.parts:
            for b in seam.b.parts:
                if a.piece in pieces and b.piece in pieces and a.piece != b.piece:
                    for id in _notches(pieces[a.piece]):
                        on_both = all(id.startswith(f"{_plain(part.edge)}.") for part in (a, b))
                        if on_both and id in _notches(pieces[b.piece]):
                            yield a.piece, b.piece, id


def _notches(piece: CutPiece) -> dict[str, float]:
    """The notches of a piece without their side, each with where it lies along the grain, mm of the frame."""
    found: dict[str, float] = {}
    for stroke in piece.piece.strokes:
        if stroke.kind == "notch":
            places = np.array([path.start for path in stroke.paths])
            found.setdefault(_plain(stroke.id), float(piece.motion(places.mean(axis=0))[0]))
    return found


def _plain(id: str) -> str:
    """An id without the side of the body that it is on."""
    return ".".join(part for part in id.split(".") if part not in {side.value for side in Side})


def _middle_at(piece: CutPiece) -> float | None:
    """The fold of an opened piece, across the cloth."""
    if not piece.is_opened:
        return None
    return float(piece.motion(fold_line(piece.piece)[0])[1])
