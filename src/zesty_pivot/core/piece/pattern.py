"""All pieces of a style with the seams that join them."""

from __future__ import annotations

from dataclasses import dataclass, replace

from zesty_pivot.core.errors import PlaceError, one_of
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Piece


@dataclass(frozen=True)
class Seam:
    """Two edges sewn to each other, each written `piece.edge`; `ease_mm` is how much longer b may be than a. Where a side is
    of several panels in a row, it is `piece.edge+piece.edge`."""

    a: str
    b: str
    ease_mm: float = 0.0


def parts_of(end: str) -> tuple[tuple[str, str], ...]:
    """The (piece, edge) pairs of one side of a seam, in a row."""
    return tuple((piece, edge) for piece, _dot, edge in (part.partition(".") for part in end.split("+")))


def said(end: str) -> str:
    """One side of a seam as it is read aloud: `front shoulder`, `front centre and front side shoulder`."""
    parts = parts_of(end)
    return f"{' and '.join(words(piece) for piece, _edge in parts)} {words(parts[0][1])}"


def panel_number(pattern: Pattern, piece: Piece) -> int | None:
    """A panel's number, counted round the body from CF over the side to CB; None for a piece that is none."""
    panels = [name for line in pattern.lines for name in line.panels if pattern.has(name)]
    if piece.name not in panels:
        return None
    front = [other.name for other in pattern.pieces if other.name in panels and not _is_back(other)]
    back = [other.name for other in pattern.pieces if other.name in panels and _is_back(other)]
    return [*front, *reversed(back)].index(piece.name) + 1


def _is_back(piece: Piece) -> bool:
    return (piece.of or piece.name).startswith("back")


def panel_words(pattern: Pattern, piece: Piece) -> str:
    """`panel 2 of 4` for a panel, nothing for other pieces."""
    number = panel_number(pattern, piece)
    if number is None:
        return ""
    return f"panel {number} of {sum(panel_number(pattern, other) is not None for other in pattern.pieces)}"


def numbered(pattern: Pattern, piece: Piece) -> str:
    """A piece's name as it is written on it, panels with their number."""
    number = panel_number(pattern, piece)
    name = words(piece.name).capitalize()
    return name if number is None else f"{number}  {name}"


@dataclass(frozen=True)
class StyleLine:
    """A piece cut into two panels along a designed line, and what went into the seam.

    `angles` are the pivots on the line with the fullness (radians) that the panels hold there, measured from their corners
    as they were cut; `taken` the widths (mm, of one half) taken beyond what the darts give, by level, and at the line's `top`
    and `bottom` end, `given` what was given back outside.
    """

    id: str
    of: str
    panels: tuple[str, str]
    angles: tuple[tuple[str, float], ...]
    taken: tuple[tuple[str, float], ...] = ()
    given: float = 0.0


@dataclass(frozen=True)
class Opening:
    """Where the finished neck can be opened: a `slit` in the cloth or a `zip` in the seam at a piece's centre, down from the
    neckline, `length_mm` long."""

    piece: str
    kind: str
    length_mm: float


@dataclass(frozen=True)
class Measured:
    """A finished length written down when an edge was drawn, both halves, mm: `role` is the edge's."""

    role: str
    mm: float


@dataclass(frozen=True)
class Extra:
    """A part of its own beside the body's pieces: a facing, a strap, a lining. `kind` says which, `of` are the pieces it
    belongs to; `follows` are its edges that run along the garment's, each (its edge, `piece.edge` of the garment, how much
    shorter it is, mm)."""

    piece: Piece
    kind: str
    of: tuple[str, ...]
    follows: tuple[tuple[str, str, float], ...] = ()
    cut: str = "pair"


@dataclass(frozen=True)
class Pattern:
    """Pieces and seams, and the lines that pieces were cut along. `extras` are not part of the body: no step changes them, no
    account counts them."""

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...] = ()
    lines: tuple[StyleLine, ...] = ()
    extras: tuple[Extra, ...] = ()
    openings: tuple[Opening, ...] = ()
    measured: tuple[Measured, ...] = ()

    @property
    def with_extras(self) -> tuple[Piece, ...]:
        """All pieces that are cut: the body's, then facings, straps and linings."""
        return (*self.pieces, *(extra.piece for extra in self.extras))

    def piece(self, name: str) -> Piece:
        """A piece by its name. Raises PlaceError with the near name."""
        for piece in self.pieces:
            if piece.name == name:
                return piece
        what, advice = one_of("piece", name, (piece.name for piece in self.pieces))
        raise PlaceError(what, advice=advice)

    def has(self, name: str) -> bool:
        """Whether a piece of this name is there."""
        return any(piece.name == name for piece in self.pieces)

    def with_piece(self, changed: Piece) -> Pattern:
        """The pattern with the piece of the same name exchanged."""
        self.piece(changed.name)
        return replace(self, pieces=tuple(changed if p.name == changed.name else p for p in self.pieces))

    def drafted(self, piece: Piece) -> Piece:
        """The piece of this block that a piece comes from; one that comes from none is its own."""
        name = piece.of or piece.name
        return self.piece(name) if self.has(name) else piece

    def come_from(self, name: str) -> tuple[Piece, ...]:
        """The pieces that come from one piece of the block: itself, or its panels."""
        return tuple(piece for piece in self.pieces if (piece.of or piece.name) == name)

    def sewn_length(self, end: str) -> float:
        """The sewn length in mm of one side of a seam."""
        return sum(self.piece(piece).edge(edge).sewn_length for piece, edge in parts_of(end))

    def are_sewn(self, one: str, two: str, role: str) -> bool:
        """Whether a seam of a role joins two pieces directly."""
        for seam in self.seams:
            if "+" in seam.a + seam.b:
                continue
            (first, edge), (second, _other) = parts_of(seam.a)[0], parts_of(seam.b)[0]
            if {first, second} == {one, two} and self.piece(first).role(edge) == role:
                return True
        return False
