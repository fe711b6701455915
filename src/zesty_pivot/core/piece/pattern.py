"""All pieces of a style with the seams that join them."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.errors import PlaceError, one_of
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.refs import EdgeRef, Seam, SeamSide
from zesty_pivot.core.piece.sides import Body, Side
from zesty_pivot.core.piece.soundness import piece_fault
from zesty_pivot.core.record import record, replace


def panel_number(pattern: Pattern, piece: Piece) -> int | None:
    """A panel's number, counted round the body from CF over the side to CB; None for a piece that is none."""
    panels = [name for line in pattern.lines for name in line.panels if pattern.has(name)]
    if piece.name not in panels:
        return None
    front = [other.name for other in pattern.pieces if other.name in panels and other.body is not Body.BACK]
    back = [other.name for other in pattern.pieces if other.name in panels and other.body is Body.BACK]
    return [*front, *reversed(back)].index(piece.name) + 1


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


@record
class StyleLine:
    """A piece cut into two panels along a designed line, and what went into the seam.

    `angles` are the pivots on the line with the fullness (radians) that the panels hold there, measured from their corners
    as they were cut; `taken` the widths (mm, of one half) taken beyond what the darts give, by level, and at the line's `top`
    and `bottom` end, `given` what was given back outside. `side` is the side of the body that it is on by itself; its `id` has
    that side then, as the edges do.
    """

    id: str
    of: str
    panels: tuple[str, str]
    angles: tuple[tuple[str, float], ...]
    taken: tuple[tuple[str, float], ...] = ()
    given: float = 0.0
    side: Side | None = None

    @property
    def halves(self) -> float:
        """How much what it takes of one half counts: a line on one side of the body by half."""
        return 1.0 if self.side is None else 0.5


@record
class Opening:
    """Where the finished neck can be opened: a `slit` in the cloth or a `zip` in the seam at a piece's centre, down from the
    neckline, `length_mm` long."""

    piece: str
    kind: str
    length_mm: float


@record
class Measured:
    """A finished length written down when an edge was drawn, both halves, mm: `role` is the edge's."""

    role: str
    mm: float


@record
class Tape:
    """A tape that is kept: what it is called, `key` as formulas after it call it (empty for one without a name), what it showed
    (mm) at its place in the recipe, what it is asked to hold (mm), whether it is on the sheet, and the step that `asked`."""

    name: str
    key: str
    on: str
    mm: float
    hold_mm: float | None
    on_sheet: bool
    asked: Any


@record
class Follow:
    """An edge of a facing that runs along the garment's, and how much shorter (mm) it is."""

    edge: str
    along: SeamSide
    shorter_mm: float


@record
class Extra:
    """A part of its own beside the body's pieces: a facing, a strap, a lining. `kind` says which, `of` are the pieces it
    belongs to; `follows` are its edges that run along the garment's. `cut` is its order, or how often it is cut.

    `asked` is the step of a trim, which makes it anew when the edge that it is measured from has changed; `lost` says why that
    could not be. `traced` is the step of a facing, which traces it anew when it no longer meets its edges. `told` is
    what there is to say of a trim, `edge_mm` the length of the edge that it is sewn to.
    """

    piece: Piece
    kind: str
    of: tuple[str, ...]
    follows: tuple[Follow, ...] = ()
    cut: str = "pair"
    asked: Any = None
    traced: Any = None
    lost: str = ""
    told: str = ""
    edge_mm: float = 0.0


@record
class Joined:
    """Pieces that were joined, so that they can be taken apart while an edge over both is drawn: as they were `made`, the
    `parts` they were, the seams and lines of that pattern, and what was `asked`."""

    made: tuple[Piece, ...]
    parts: tuple[Piece, ...]
    seams: tuple[Seam, ...]
    lines: tuple[StyleLine, ...]
    asked: Any


@record
class Pattern:
    """Pieces and seams, and the lines that pieces were cut along. `extras` are not part of the body: no step changes them, no
    account counts them. `joins` are the pieces that were joined, in their order; `tapes` are what was measured on the way."""

    pieces: tuple[Piece, ...]
    seams: tuple[Seam, ...] = ()
    lines: tuple[StyleLine, ...] = ()
    extras: tuple[Extra, ...] = ()
    openings: tuple[Opening, ...] = ()
    measured: tuple[Measured, ...] = ()
    joins: tuple[Joined, ...] = ()
    tapes: tuple[Tape, ...] = ()

    @property
    def with_extras(self) -> tuple[Piece, ...]:
        """All pieces that are cut: the body's, then facings, straps and linings."""
        return (*self.pieces, *(extra.piece for extra in self.extras))

    def piece(self, name: str) -> Piece:
        """A piece by its name. Raises PlaceError with the near name."""
        for piece in self.pieces:
            if piece.name == name:
                return piece
        parts = [words(part.name) for part in self.come_from(name)]
        if parts:
            what = f"the {words(name)} is in parts by now: {', '.join(parts)}"
            raise PlaceError(what, advice="Choose one of them, or do this before the line that cut it.")
        what, advice = one_of("piece", name, (piece.name for piece in self.pieces))
        raise PlaceError(what, advice=advice)

    @property
    def covers_shoulders(self) -> bool:
        """Whether it goes over the shoulders: with a seam there, or with a yoke in one piece, which has the centres of front
        and back both."""
        centres = (sum(role == "centre" for _edge, role in piece.roles) for piece in self.pieces if not piece.is_unfolded)
        roles = {role for piece in self.pieces for _edge, role in piece.roles}
        return "shoulder" in roles or any(count > 1 for count in centres)

    def has(self, name: str) -> bool:
        """Whether a piece of this name is there."""
        return any(piece.name == name for piece in self.pieces)

    def with_piece(self, changed: Piece) -> Pattern:
        """The pattern with the piece of the same name exchanged."""
        self.piece(changed.name)
        return replace(self, pieces=tuple(changed if p.name == changed.name else p for p in self.pieces))

    def check(self, before: Pattern | None = None) -> str | None:
        """Why the pattern does not hold together, in words that go on with "this would leave"; None when it does: names are
        unique, every dart has its mouth and its pivot, every seam its edges, and no outline is open or a sliver. Pieces that
        are the same as `before` are not looked at again."""
        names = [piece.name for piece in self.with_extras]
        twice = next((name for name in names if names.count(name) > 1), None)
        if twice is not None:
            return f"two pieces called {words(twice)}"
        known = {id(piece) for piece in before.with_extras} if before is not None else set()
        faults = (piece_fault(piece) for piece in self.with_extras if id(piece) not in known)
        fault = next((fault for fault in faults if fault is not None), None)
        if fault is not None:
            return fault
        edges = {piece.name: {edge for edge, _role in piece.roles} for piece in self.pieces}
        lost = next((part for seam in self.seams for part in seam.parts if part.edge not in edges.get(part.piece, ())), None)
        return None if lost is None else f"a seam with the {words(lost.edge)} of the {words(lost.piece)}, which is not there"

    def drafted(self, piece: Piece) -> Piece:
        """The piece of this block that a piece comes from; one that comes from none is its own."""
        name = piece.of or piece.name
        return self.piece(name) if self.has(name) else piece

    def come_from(self, name: str) -> tuple[Piece, ...]:
        """The pieces that come from one piece of the block: itself, or its panels."""
        return tuple(piece for piece in self.pieces if (piece.of or piece.name) == name)

    def edge_length(self, edge: EdgeRef) -> float:
        """The sewn length of an edge, mm. Raises PlaceError for one that is not there."""
        return self.piece(edge.piece).edge(edge.edge).sewn_length

    def sewn_length(self, side: SeamSide) -> float:
        """The sewn length of one side of a seam, mm. Raises PlaceError for an edge that is not there."""
        return sum(self.edge_length(edge) for edge in side.parts)

    def are_sewn(self, one: str, two: str, role: str) -> bool:
        """Whether a seam of a role joins two pieces directly."""
        pairs = [seam.pair for seam in self.seams if seam.pair is not None]
        return any({a.piece, b.piece} == {one, two} and self.piece(a.piece).role(a.edge) == role for a, b in pairs)
