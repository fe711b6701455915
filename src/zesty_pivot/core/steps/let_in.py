"""What steps share that let fullness in from an edge: where they begin, where their slashes lead, what is said of them."""

from collections.abc import Callable, Sequence
from typing import ClassVar, Literal, TypeVar

from pydantic import Field

from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.moves.laid_open import LaidOpen
from zesty_pivot.core.moves.open_up import home_edge, mouth_distance
from zesty_pivot.core.piece import Fullness, Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, line
from zesty_pivot.core.procedures.letting_in import (
    Across,
    Heading,
    Held,
    Slot,
    clear_share,
    covered,
    edge_place,
    headings,
    heads_on,
    let_in,
    notched,
    partner,
)
from zesty_pivot.core.quantity import Unit, format_length, share_of
from zesty_pivot.core.quantity.fields import Share
from zesty_pivot.core.steps.base import Step

Made = TypeVar("Made")

SCALES = (1.0, 0.75, 0.5, 0.35)  # of the usual size, tried where it is left to the program. Our own choice
CLEAR = 2.0  # mm that is left beside the outermost where their place is found. Our own choice
SAMPLES = 60  # places of an edge that are tried for room


class LetInStep(Step):
    """A step that slashes a piece from one of its edges and lets cloth in there; the piece stays as it is once sewn."""

    half_by_half: ClassVar[bool] = True

    edge: str | None = Field(
        default=None, description="the edge it is taken up in; the lower edge, else the longest, when none"
    )
    start: Spot | None = Field(default=None, description="where it begins, on any edge")
    to: str | None = Field(default=None, description="the edge that the slashes lead to; straight across when none")
    to_start: Share = Field(default="25%", description="where the first ends there, from the other end of that edge")
    to_stop: Share = Field(default="75%", description="where the last ends there")
    far: Share | None = Field(
        default=None,
        description="what is let in at the far end: 100% widens the whole piece, 0% hinges there; 0% when an edge is named",
    )
    far_end: Literal["taken", "free"] | None = Field(
        default=None,
        description="taken up at the far end too, or hanging free; free in a hem or a waist without a seam",
    )

    def fitted(self, work: Callable[[float], Made], *, is_free: bool) -> Made:
        """What comes of some work at its usual size, else smaller: where the user leaves the place and a size open, there is
        room for a smaller one. Raises as the work does at its usual size."""
        first: ZestyError | None = None
        for scale in SCALES if is_free and self.start is None else SCALES[:1]:
            try:
                return work(scale)
            except ZestyError as fault:
                first = first or fault
        assert first is not None
        raise first

    def across(self) -> Across:
        """Where the slashes lead."""
        far = share_of(self.far) if self.far is not None else 0.0 if self.to is not None else 1.0
        return Across(self.to, (share_of(self.to_start), share_of(self.to_stop)), far)

    def edge_of(self, piece: Piece, context: Context) -> str:
        """The edge that it begins on. Raises PlaceError for one that the piece has not."""
        if self.start is not None:
            return edge_place(self.start, piece, context)[0]
        if self.edge is not None:
            return piece.edge(self.edge).id
        lower = [id for id, role in piece.roles if role in ("waist", "hem")]
        return lower[0] if lower else max(piece.edges, key=lambda edge: edge.sewn_length if edge.id != piece.fold else 0.0).id

    def held(self, pattern: Pattern, piece: Piece) -> Held:
        """Whether it is taken up at edges of the far end."""

        def taken(edges: Sequence[str]) -> bool:
            if self.far_end is not None:
                return self.far_end == "taken"
            hems = [edge for edge in edges if piece.role(edge) in ("hem", "waist")]
            return not any(partner(pattern, piece.name, edge) is None for edge in hems)

        return taken

    def room(self, piece: Piece, edge: str, needed: float, context: Context) -> float:
        """The middle (mm along the edge) of the stretch of at least `needed` mm where slashes pass every dart: the widest one.
        Raises StepError where none is so wide."""
        total, across = piece.edge(edge).sewn_length, self.across()
        step = total / SAMPLES
        mouths = [mouth_distance(piece, dart.id) for dart in piece.darts if home_edge(piece, dart.id) == edge]
        taken = covered(piece, edge)
        best, begun, last = (0.0, 0.0), None, 0.0
        for number in range(SAMPLES + 1):
            at = min(max(number * step, 1.0), total - 1.0)
            if any(low - 1.0 <= at <= high + 1.0 for low, high, _what in taken):
                begun, last = None, at
                continue
            begun = None if any(last < mouth < at for mouth in mouths) else begun
            last = at
            if clear_share(piece, edge, at, across, number / SAMPLES):
                begun = at if begun is None else begun
                if at - begun > best[1] - best[0] + 1e-6:
                    best = (begun, at)
            else:
                begun = None
        if best[1] - best[0] < needed:
            unit = context.scope.unit
            widest, wanted = format_length(best[1] - best[0], unit), format_length(needed, unit)
            what = f"the {words(edge)} has {widest} clear of darts and corners, and {wanted} are needed"
            raise StepError(what, where=self.on, advice="Take fewer or smaller ones, move a dart away, or choose another edge.")
        return (best[0] + best[1]) / 2.0

    def let(
        self, pattern: Pattern, edge: str, slots: Sequence[Slot], full: Fullness, context: Context, notches: Sequence[float]
    ) -> tuple[Outcome, LaidOpen]:
        """The pattern with fullness let in at slots of an edge, notched there and on what it is sewn to."""
        # The notches first: what is worked out of a piece is kept with it.
        pattern = notched(pattern, self.on, edge, notches, f"{full.taking.value.removesuffix('s')} {edge}")
        piece = pattern.piece(self.on)
        made, laid = let_in(pattern, piece, edge, slots, self.across(), full, self.held(pattern, piece))
        return Outcome(pattern.with_piece(made), tuple(self.told(pattern, laid, context))), laid

    def in_a_row(
        self, piece: Piece, edge: str, count: int, spacing: float, beside: float, towards: Heading | None, context: Context
    ) -> list[float]:
        """How far along the edge (mm) so many lie, the first first: from `start` on, else where there is room for them with
        `beside` mm at both ends."""
        sign = 1.0 if heads_on(piece, edge, towards or headings(piece, edge)[1]) else -1.0
        span = (count - 1) * spacing
        if self.start is not None:
            first = edge_place(self.start, piece, context)[1]
        else:
            first = self.room(piece, edge, span + 2.0 * (beside + CLEAR), context) - sign * span / 2.0
        return [first + sign * k * spacing for k in range(count)]

    def parted_by_hand(self, piece: Piece, edge: str, slots: Sequence[Slot], more: str, unit: Unit) -> list[Line]:
        """A line for each slash: mark, draw across, cut, part; `more` goes on from there."""
        start = piece.ends.get(piece.role(edge), ("start", "end"))[0]
        text = (
            "Line {number}: mark the {edge} {at} from the {start}, draw across, cut, and part it {by} there and {far} at the "
            "other end"
        )
        found = []
        for number, slot in enumerate(slots, start=1):
            figures = {"at": slot.at, "by": slot.parts, "far": slot.parts * self.across().far}
            told = {key: format_length(mm, unit) for key, mm in figures.items()}
            found.append(line("part", f"{text}{more}.", number=str(number), edge=words(edge), start=words(start), **told))
        return found

    def told(self, pattern: Pattern, laid: LaidOpen, context: Context) -> list[Note]:
        """What there is to say of each edge: from what length to what, and against what it is sewn to."""
        unit, notes = context.scope.unit, []
        for end in laid.ends:
            whole = pattern.piece(self.on).edge(end.edge).sewn_length
            taken = format_length(end.taken_mm, unit)
            if not end.held:
                notes.append(Note(f"the {words(end.edge)} hangs {taken} wider", self.on, end.taken_mm))
                continue
            text = (
                f"the {words(end.edge)} is {format_length(whole + end.taken_mm - laid.fullness.own_mm, unit)} on the paper and "
                f"{format_length(whole - laid.fullness.own_mm, unit)} once sewn: {laid.fullness.taking.value} take up {taken}"
            )
            mate = partner(pattern, self.on, end.edge)
            if mate is not None:
                text += f"; it is sewn to the {mate.words()}, {format_length(pattern.sewn_length(mate), unit)}"
            notes.append(Note(text, self.on, end.taken_mm))
        return notes
