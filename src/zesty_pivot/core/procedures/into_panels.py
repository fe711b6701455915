"""What steps share that cut a piece into panels: its seams go to the panels, panels are named."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.piece import Body, EdgeRef, Notch, Origin, Pattern, Piece, Seam, SeamSide
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.record import replace

# Panels of front and back whose edges differ by less than this (mm) are sewn to each other, one by one; lines that meet less
# well leave one seam across both. Common practice, no source (a pencil line to either side).
MEET = 1.0


def with_panels(pattern: Pattern, name: str, panels: Sequence[Piece], seams: Sequence[Seam]) -> Pattern:
    """The pattern with a piece exchanged for its panels, each of its seams led to those that have the edge now."""
    pieces = tuple(made for piece in pattern.pieces for made in (panels if piece.name == name else (piece,)))
    made = replace(pattern, pieces=pieces)
    led = [seam for old in pattern.seams for seam in _led(made, old, name, panels)]
    return replace(made, seams=(*led, *seams))


def _led(pattern: Pattern, seam: Seam, name: str, panels: Sequence[Piece]) -> list[Seam]:
    ends = []
    for side in (seam.a, seam.b):
        parts: list[EdgeRef] = []
        for part in side.parts:
            parts += _having(panels, part.edge) if part.piece == name else [part]
        ends.append(parts)
    if not all(ends):
        return []
    if len(ends[0]) == len(ends[1]) > 1:
        pairs = list(zip(*ends, strict=True))
        longer = [pattern.edge_length(b) - pattern.edge_length(a) for a, b in pairs]
        # The ease of the whole goes with the part that has it.
        eases = [seam.ease_mm if abs(by - seam.ease_mm) < abs(by) else 0.0 for by in longer]
        if all(abs(by - ease) <= MEET for by, ease in zip(longer, eases, strict=True)):
            return [sewn(a, b, ease) for (a, b), ease in zip(pairs, eases, strict=True)]
        # Where one side is longer in all, each part has its share of that, and of the ease.
        whole, other = (sum(pattern.edge_length(part) for part in end) for end in ends)
        shares = [pattern.edge_length(a) / whole for a, _b in pairs]
        if all(abs(by - share * (other - whole)) <= MEET for by, share in zip(longer, shares, strict=True)):
            return [sewn(a, b, seam.ease_mm * share) for (a, b), share in zip(pairs, shares, strict=True)]
    one, two = (SeamSide(tuple(parts)) for parts in ends)
    return [replace(seam, a=one, b=two)]


def _having(panels: Sequence[Piece], edge: str) -> list[EdgeRef]:
    """The panels that have an edge, in the order of the edge from its first landmark."""
    found = []
    for panel in panels:
        places = [run.source.u0 for run in panel.runs if run.edge == edge]
        if places:
            found.append((min(places), panel.name))
    return [EdgeRef(name, edge) for _u, name in sorted(found)]


def lined(part: Piece, edge: str, source: str, shares: Sequence[float]) -> Piece:
    """A part of a cut piece whose line has its own provenance, with notches at shares of it."""
    runs = tuple(replace(run, source=replace(run.source, edge=source)) if run.edge == edge else run for run in part.runs)
    strokes = 2 if part.body is Body.BACK else 1
    marks = tuple(
        Notch(f"{edge}.{number}", str(number), Origin(source, share), strokes) for number, share in enumerate(shares, start=1)
    )
    return replace(part, runs=runs, notches=(*part.notches, *marks))


def free_name(pattern: Pattern, wanted: str) -> str:
    """A name that no piece has: the wanted one, or with a number."""
    taken = {piece.name for piece in pattern.with_extras}
    number, name = 2, wanted
    while name in taken:
        name, number = f"{wanted}_{number}", number + 1
    return name


def free_line(piece: Piece, wanted: str) -> str:
    """An edge name that the piece does not have."""
    known = {edge for edge, _role in piece.roles}
    number, name = 2, wanted
    while name in known:
        name, number = f"{wanted}_{number}", number + 1
    return name
