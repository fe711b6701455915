"""References from a pattern into its pieces. Files and messages write them as text: `front.waist`, `front.a+front.b`."""

from __future__ import annotations

from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record


@record(order=True)
class EdgeRef:
    """An edge of a piece; its text is `piece.edge`."""

    piece: str
    edge: str

    def __str__(self) -> str:
        return f"{self.piece}.{self.edge}"

    @staticmethod
    def read(text: str) -> EdgeRef:
        """The reference that a text of a file stands for. A piece's name has no full stop in it; an edge's may."""
        piece, _dot, edge = text.partition(".")
        return EdgeRef(piece, edge)


@record(order=True)
class DartRef:
    """A dart of a piece; its text is `piece.dart`."""

    piece: str
    dart: str

    def __str__(self) -> str:
        return f"{self.piece}.{self.dart}"

    @staticmethod
    def read(text: str) -> DartRef:
        """The reference that a text of a file stands for. A piece's name has no full stop in it; a dart's may."""
        piece, _dot, dart = text.partition(".")
        return DartRef(piece, dart)


@record
class SeamSide:
    """One side of a seam: an edge, or those of several panels in a row; its text joins them by `+`."""

    parts: tuple[EdgeRef, ...]

    def __str__(self) -> str:
        return "+".join(str(part) for part in self.parts)

    @property
    def only(self) -> EdgeRef | None:
        """The edge of a side that is not of several panels."""
        return self.parts[0] if len(self.parts) == 1 else None

    def words(self) -> str:
        """As it is read aloud: `front shoulder`, `front centre and front side shoulder`."""
        pieces, edge = " and ".join(words(part.piece) for part in self.parts), words(self.parts[0].edge)
        if edge.startswith(pieces):
            return edge
        return pieces if pieces.endswith(edge) else f"{pieces} {edge}"


def side_of_seam(piece: str, *edges: str) -> SeamSide:
    """The side of a seam that is made of edges of one piece, in a row."""
    return SeamSide(tuple(EdgeRef(piece, edge) for edge in edges))


@record
class Seam:
    """Two edges sewn to each other; `ease_mm` is how much longer b may be than a."""

    a: SeamSide
    b: SeamSide
    ease_mm: float = 0.0

    @property
    def pair(self) -> tuple[EdgeRef, EdgeRef] | None:
        """The two edges of a seam that joins one piece to one other; None where a side is of several panels."""
        a, b = self.a.only, self.b.only
        return None if a is None or b is None else (a, b)

    @property
    def parts(self) -> tuple[EdgeRef, ...]:
        """The edges of both sides."""
        return (*self.a.parts, *self.b.parts)


def sewn(one: EdgeRef, two: EdgeRef, ease_mm: float = 0.0) -> Seam:
    """The seam of two edges."""
    return Seam(SeamSide((one,)), SeamSide((two,)), ease_mm)
