"""What steps share that make trims: parts of their own, measured from an edge of the garment, which they follow."""

from abc import abstractmethod
from collections.abc import Iterable
from typing import ClassVar

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Extra, Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.into_panels import free_name
from zesty_pivot.core.procedures.worn_edge import WORN, WornEdge, worn_edges
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.steps.base import FrontAndBackStep

# Sheer cloth gathers 3 to 1; more than this cannot be pushed together. Common practice, no source.
MOST_GATHERED = 4.0


@record
class Part:
    """A part as it is cut: the piece, how often for each edge that it is sewn to, and what there is to say of it. `cut` is an
    order of its own."""

    piece: Piece
    told: str
    times: int = 1
    cut: str = ""


class TiedStep(FrontAndBackStep):
    """A trim that is made anew whenever a later step changes what it is measured from."""

    called: ClassVar[str]  # what it is, in its pieces' names

    @abstractmethod
    def extras(self, pattern: Pattern, context: Context) -> tuple[Extra, ...]:
        """The parts, tied to this step. Raises a ZestyError where what it is measured from is not there, or sizes cannot be."""

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the parts beside it. Raises as `extras` does, and StepError where they are there already."""
        if any(extra.asked == self for extra in pattern.extras):
            raise StepError(
                f"there is such a {words(self.called)} already", where=self.on, advice="Change it, or leave one out."
            )
        extras = self.extras(pattern, context)
        alike = {extra.told: extra for extra in reversed(extras)}  # several parts that are told alike are told once
        notes = [Note(f"{words(one.piece.name)}: {one.told}", self.on, one.edge_mm) for one in alike.values()]
        return Outcome(replace(pattern, extras=(*pattern.extras, *extras)), tuple(reversed(notes)))

    def host(self, pattern: Pattern, edge: str) -> Piece:
        """The piece that it is on, or the panel of it that has the edge, by its id or role. Raises PlaceError."""
        if not pattern.has(self.on):
            for piece in pattern.come_from(self.on):
                if any(edge in one for one in piece.roles):
                    return piece
        return pattern.piece(self.on)

    def mm(self, field: str, what: str, context: Context, least: float = 1.0, most: float = 1000.0) -> float:
        """A length of the step in mm. Raises StepError where it lies outside its bounds: `what` is its name in a sentence."""
        value, unit = length_mm(getattr(self, field), context.scope), context.scope.unit
        if not least <= value <= most:
            said = f"{what} of {format_length(value, unit, fine=abs(value) < 10.0)}"
            advice = f"Enter {format_length(least, unit, fine=least < 10.0)} to {format_length(most, unit)}."
            raise StepError(said, where=self.on, advice=advice)
        return value


class TrimStep(TiedStep):
    """A trim of an edge of front and back, as the edge is worn; later steps that change the edge change the trim."""

    begins: ClassVar[tuple[str, ...]] = ("CB", "side", "shoulder", "CF")  # where it is begun on an edge all round

    edge: str = Field(
        default="neckline", description="the edge: neckline, armhole, waist, hem, lower, top, or one by its id", min_length=1
    )

    @abstractmethod
    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """The parts for an edge as it is worn, the first called `name`. Raises StepError for sizes that cannot be."""

    @abstractmethod
    def hand_text(self) -> str:
        """What is done by hand with `{name}`, which is measured along `{edge}`, `{long}` long, and comes to `{told}`."""

    def extras(self, pattern: Pattern, context: Context) -> tuple[Extra, ...]:
        """The parts for each edge that it is sewn to. Raises as `worn_edges` and `parts` do."""
        others = replace(pattern, extras=tuple(extra for extra in pattern.extras if extra.asked != self))
        found: list[Extra] = []
        for worn in self.worn(pattern):
            piece = pattern.piece(worn.parts[0].ref.piece)
            edge = piece.role(worn.parts[0].ref.edge) if self.edge in WORN else self.edge
            wanted = self.called if edge in self.called else f"{edge.replace('.', '_')}_{self.called}"
            name = free_name(replace(others, extras=(*others.extras, *found)), wanted)
            of = tuple(dict.fromkeys(part.ref.piece for part in worn.parts))
            for part in self.parts(worn, name, pattern, context):
                free = free_name(replace(others, extras=(*others.extras, *found)), part.piece.name)
                piece = part.piece if free == part.piece.name else replace(part.piece, name=free)
                times = part.times * worn.count
                cut = part.cut or {1: "one", 2: "pair" if worn.count == 2 else "2"}.get(times, str(times))
                found.append(Extra(piece, self.called, of, cut=cut, asked=self, told=part.told, edge_mm=worn.mm))
        return tuple(found)

    @property
    def edge_words(self) -> str:
        """The edge as it is read aloud."""
        return {"lower": "lower edge", "top": "top edge"}.get(self.edge) or words(self.edge)

    def worn(self, pattern: Pattern) -> tuple[WornEdge, ...]:
        """The edges that it is sewn to."""
        return tuple(worn.begun_at(*self.begins) for worn in worn_edges(pattern, self.edge, self.names()))

    def gathered(self, ratio: float) -> None:
        """Raises StepError for a strip that its edge cannot hold."""
        if not 1.0 <= ratio <= MOST_GATHERED:
            what = f"a {words(self.called)} {ratio:g} times as long as its edge"
            raise StepError(what, where=self.on, advice=f"Enter 1 to {MOST_GATHERED:g}; 1.5 to 2 are usual.")

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Measure, draw, notch, write; the same in both ways."""
        unit, lines = context.scope.unit, list[Line]()
        for extra in self.extras(pattern, context):
            names = " and ".join(words(name) for name in extra.of)
            text = (
                "Shut the darts and measure the {edge} of the {of} along the seam, all stretches added up: {long}. "
                + self.hand_text()
                + " It comes to {told}. Notch it where it crosses the seams; write its name, its grain and how often it is cut."
            )
            figures = {"edge": self.edge_words, "of": names, "long": format_length(extra.edge_mm, unit), "told": extra.told}
            lines.append(line("trim", text, name=words(extra.piece.name), **figures))
        return tuple(lines)
