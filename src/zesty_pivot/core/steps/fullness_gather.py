"""fullness.gather: a stretch of an edge gathered: by ratio, by amount, or to fit what it is sewn to; shirring in rows."""

from typing import ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.laid_open import LaidOpen, laid_open
from zesty_pivot.core.piece import Fullness, Pattern, Piece, Taking
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.letting_in import Slot, clear_share, covered, edge_place, let_in, notched, partner
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.let_in import LetInStep

# Times its finished length that an edge has to begin with: light cloth 1.5, usual 2, sheer 2.5. Common practice, no source.
RATIO = {"light": 1.5, "usual": 2.0, "sheer": 2.5}

PLAIN_ENDS = 0.1  # of the edge that is left plain at both ends to begin with. Our own choice
EVERY = 12.0  # mm of the finished edge for each slash. Our own choice
FEWEST, MOST = 4, 24
MOST_RATIO = 6.0
LEAST = 10.0  # mm of an edge that can be gathered at least
SETTLED = 1e-6  # mm within which the asked length is met


def _free(piece: Piece, edge: str) -> tuple[float, float]:
    """The longest stretch of an edge (mm) without pleats or tucks, plain at both ends of the edge."""
    total = piece.edge(edge).sewn_length
    low, best = PLAIN_ENDS * total, (0.0, 0.0)
    stop = (1.0 - PLAIN_ENDS) * total
    taken = [(begin, end) for begin, end, what in covered(piece, edge) if what != Taking.GATHERS.value]
    for begin, end in [*sorted(taken), (stop, stop)]:
        if min(begin, stop) - low > best[1] - best[0]:
            best = (low, min(begin, stop))
        low = max(low, end)
    return best


class Gather(LetInStep):
    """Cloth is let in along many slashes and drawn up on a thread; the edge is as long as before once sewn."""

    title: ClassVar[str] = "Gathers"
    summary: ClassVar[str] = "Gather a stretch of an edge by ratio, by amount or to fit its partner; shirring in rows."

    do: Literal["fullness.gather"] = "fullness.gather"
    start: Spot | None = Field(default=None, description="where gathers start; near the end of the edge when none")
    stop: Spot | None = Field(default=None, description="where they stop, on the same edge; near its end when none")
    cloth: Literal["light", "usual", "sheer"] = Field(
        default="usual", description="the ratio to begin with: 1.5, 2 or 2.5 to 1"
    )
    ratio: float | None = Field(
        default=None, gt=1.0, le=MOST_RATIO, description="times its finished length; by the cloth when none"
    )
    by: Length | None = Field(default=None, description="or: how much more cloth")
    fit: bool = Field(default=False, description="or: as much of its own length as fits it to what it is sewn to")
    raised: Length = Field(default="5 mm", description="how far the edge is raised in the middle")
    rows: int = Field(default=0, ge=0, le=30, description="rows of shirring below the edge")
    apart: Length = Field(default="1 cm", description="from row to row")
    elastic: Share | None = Field(default=None, description="elastic thread, cut to this share of the gathered length")

    @model_validator(mode="after")
    def _one_amount(self) -> Self:
        if sum((self.ratio is not None, self.by is not None, self.fit)) > 1:
            raise ValueError("give one of: a ratio, an amount, or to fit its partner")
        return self

    def edge_of(self, piece: Piece, context: Context) -> str:
        """The edge of the place that is given."""
        if self.start is None and self.stop is not None:
            return edge_place(self.stop, piece, context)[0]
        return super().edge_of(piece, context)

    def words(self) -> str:
        """`gather the waist 2 to 1`."""
        edge = f"the {words(self.edge)}" if self.edge else "an edge"
        if self.fit:
            return f"gather {edge} to fit its partner"
        return f"gather {edge} by {self.by}" if self.by is not None else f"gather {edge} {self._ratio():g} to 1"

    def _ratio(self) -> float:
        return RATIO[self.cloth] if self.ratio is None else self.ratio

    def _stretch(self, piece: Piece, edge: str, context: Context) -> tuple[float, float]:
        """From where to where along the edge, mm."""
        unit = context.scope.unit
        ends = [(edge, at) for at in _free(piece, edge)]
        for number, spot in enumerate((self.start, self.stop)):
            ends[number] = ends[number] if spot is None else edge_place(spot, piece, context)
        (one, a), (two, b) = ends
        if one != two:
            what = f"gathers start on the {words(one)} and stop on the {words(two)}"
            raise StepError(what, where=self.on, advice="Choose two places of one edge.")
        if abs(b - a) < LEAST:
            what = f"a stretch of {format_length(abs(b - a), unit)} is too short to gather"
            raise StepError(
                what, where=self.on, advice=f"Let them stop {format_length(LEAST, unit)} or more from where they start."
            )
        low, high = min(a, b), max(a, b)
        over = next((what for begin, end, what in covered(piece, edge) if low < end and begin < high), None)
        if over not in (None, Taking.GATHERS.value):
            what = f"gathers there would lie over the {over} on the {words(edge)}"
            raise StepError(what, where=self.on, advice="Gather a stretch beside them, or take them out.")
        return low, high

    def _full(self, piece: Piece, edge: str, begin: float, end: float, context: Context) -> Fullness:
        raised, apart = length_mm(self.raised, context.scope), length_mm(self.apart, context.scope)
        if raised < 0.0:
            raise StepError("a gathered edge can only be raised", where=self.on, advice="Enter 0 or more.")
        if self.rows and apart <= 0.0:
            raise StepError("rows of shirring lie apart", where=self.on, advice="Enter a distance such as 1 cm.")
        stretch = [places.origin_of(piece, places.along(piece, edge, at)) for at in (begin, end)]
        elastic = 1.0 if self.elastic is None else share_of(self.elastic)
        style = "shirring" if self.rows else "gathers"
        return Fullness("", Taking.GATHERS, style=style, raised_mm=raised, stretch=(stretch[0], stretch[1]),
                        rows=self.rows, apart_mm=apart, elastic=elastic)  # fmt: skip

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with gathers. Raises StepError, PlaceError or GeometryError, in one sentence, for what cannot be
        gathered."""
        piece, unit = pattern.piece(self.on), context.scope.unit
        edge = self.edge_of(piece, context)
        begin, end = self._stretch(piece, edge, context)
        full = self._full(piece, edge, begin, end, context)
        quarters = [begin + (end - begin) * k / 4.0 for k in range(5)]
        pattern = notched(pattern, self.on, edge, quarters, f"gather {edge}")
        made, laid = (
            self._fitted(pattern, edge, full, context) if self.fit else self._widened(pattern, edge, begin, end, full, context)
        )
        near = next(found for found in laid.ends if found.edge == edge)
        after = pattern.with_piece(made)
        notes = self.told(pattern, laid, context)
        ratio = near.open_mm / near.sewn_mm
        text = (
            f"gather {format_length(near.open_mm, unit)} to {format_length(near.sewn_mm, unit)}, {ratio:.2f} to 1; it "
            f"is about {ratio:.1f} layers thick"
        )
        notes.append(Note(text, self.on, near.taken_mm))
        if self.rows:
            thread = f", elastic {format_length(near.sewn_mm * full.elastic, unit)} long" if self.elastic is not None else ""
            notes.append(Note(f"{self.rows} rows of shirring {format_length(full.apart_mm, unit)} apart{thread}", self.on))
        return Outcome(after, tuple(notes))

    def _widened(
        self, pattern: Pattern, edge: str, begin: float, end: float, full: Fullness, context: Context
    ) -> tuple[Piece, LaidOpen]:
        """Slashes spread evenly over the stretch, past darts, opened until the stretch is as long as asked."""
        piece, sewn = pattern.piece(self.on), end - begin
        count = min(MOST, max(FEWEST, round(sewn / EVERY)))
        places_ = [begin + sewn * (k + 0.5) / count for k in range(count)]
        leads = [k / (count - 1) for k in range(count)]
        clear = [pair for pair in zip(places_, leads, strict=True) if clear_share(piece, edge, pair[0], self.across(), pair[1])]
        if not clear:
            what = f"every slash from the {words(edge)} would meet a dart or a corner"
            raise StepError(what, where=self.on, advice="Move the dart away first, or gather another stretch.")
        wanted = length_mm(self.by, context.scope) if self.by is not None else (self._ratio() - 1.0) * sewn
        if wanted <= 0.0 or wanted > (MOST_RATIO - 1.0) * sewn:
            most = format_length((MOST_RATIO - 1.0) * sewn, context.scope.unit)
            raise StepError("that much cloth cannot be gathered there", where=self.on, advice=f"Enter up to {most}.")
        wide = wanted
        for _ in range(20):  # a raised or slanting edge is longer than what is let in
            slots = [Slot(at, wide / len(clear), leads=lead) for at, lead in clear]
            made, laid = let_in(pattern, piece, edge, slots, self.across(), full, self.held(pattern, piece))
            off = wanted - laid.ends[0].open_mm + sewn
            if abs(off) < SETTLED:
                break
            wide = max(wide + off, 0.01 * wanted)
        return made, laid

    def _fitted(self, pattern: Pattern, edge: str, full: Fullness, context: Context) -> tuple[Piece, LaidOpen]:
        """The edge is longer than what it is sewn to, and that much of its own length is gathered."""
        piece, mate, unit = pattern.piece(self.on), partner(pattern, self.on, edge), context.scope.unit
        if mate is None:
            what = f"the {words(edge)} is not sewn to anything"
            raise StepError(what, where=self.on, advice="Gather it by a ratio or an amount.")
        mine, its = piece.edge(edge).sewn_length, pattern.sewn_length(mate)
        if mine - its < 0.5:
            long, there = format_length(mine, unit), format_length(its, unit)
            what = f"the {words(edge)} is {long} and the {mate.words()} {there}: nothing to gather"
            raise StepError(what, where=self.on, advice="Gather it by a ratio or an amount instead.")
        first, last = (places.by_origin(piece, at) for at in full.stretch or ())
        if mine - its > abs(places.sewn_distance(piece, last) - places.sewn_distance(piece, first)) * (1.0 - 1.0 / MOST_RATIO):
            raise StepError("the stretch is too short for all that", where=self.on, advice="Gather more of the edge.")
        named = replace(full, id=f"{piece.name}.gathers.{edge}", own_mm=mine - its, raised_mm=0.0)
        others = tuple(other for other in piece.fullness if other.id != named.id)
        made = replace(piece, fullness=(*others, named))
        return made, laid_open(made)[1][-1]

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Slash, spread, notch, draw the edge; the same in both ways."""
        outcome = self.apply(pattern, context)
        piece, unit = pattern.piece(self.on), context.scope.unit
        edge = self.edge_of(piece, context)
        begin, end = self._stretch(piece, edge, context)
        laid = laid_open(outcome.pattern.piece(self.on))[1][-1]
        near = next(found for found in laid.ends if found.edge == edge)
        start = words(piece.ends.get(piece.role(edge), ("start", "end"))[0])
        figures = {"at": begin, "to": end, "open": near.open_mm, "sewn": near.sewn_mm, "raised": laid.fullness.raised_mm}
        told = {key: format_length(mm, unit) for key, mm in figures.items()}
        names = {"edge": words(edge), "start": start}
        notch = "Notch the {edge} {at} and {to} from the {start}, and every quarter between. Write “gather {open} to {sewn}”."
        found = [line("notch", notch, **names, **told)]
        if laid.fullness.lines:
            text = (
                "Slash across at {count} places between the notches, part each {by} there and {far} at the other end on fresh "
                "paper, and draw the {edge} through in one line, {raised} higher in the middle."
            )
            by = laid.fullness.lines[0].by
            parts = {"by": format_length(by[0], unit), "far": format_length(by[1], unit)}
            found.append(line("part", text, count=str(len(laid.fullness.lines)), **names, **told, **parts))
        return tuple(found)


STEP = Gather
