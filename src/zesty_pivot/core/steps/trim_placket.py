"""trim.placket: a button and buttonhole placket down the centre."""

from collections.abc import Sequence
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Extra, Mark, Opening, Pattern, Piece
from zesty_pivot.core.piece.heights import crossings
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.sides import body_of
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.procedures.strips import fold_along, straight_strip
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.trim import TiedStep

CLEAR = 20.0  # mm above a waist seam that no button lies on. Common practice, no source


class Placket(TiedStep):
    """A folded band on each side, its middle on the centre line, so that buttons lie there; the piece is cut half its width
    beyond the centre and is no longer on the fold."""

    title: ClassVar[str] = "Button placket"
    summary: ClassVar[str] = "Plackets for buttons and buttonholes down the centre, spaced evenly with one at the bust line."
    called: ClassVar[str] = "placket"

    do: Literal["trim.placket"] = "trim.placket"
    other: str = Field(default="", description="none")
    wide: Length = Field(default="3 cm", description="how wide a placket is once finished")
    first: Length = Field(default="1.5 cm", description="the first button's middle, down from the neckline")
    spacing: Length = Field(default="8 cm", description="from button to button, about")
    button: Length = Field(default="1.2 cm", description="across a button")

    def words(self) -> str:
        """`button placket, 3 cm wide`."""
        return f"button placket, {self.wide} wide"

    def extras(self, pattern: Pattern, context: Context) -> tuple[Extra, ...]:
        """The placket, cut as a pair: for the buttons and for the buttonholes."""
        piece, unit = self.host(pattern, "centre"), context.scope.unit
        paths = _centre(piece)
        wide = self.mm("wide", "a placket with a width", context, 8.0, 120.0)
        button = self.mm("button", "a button", context, 4.0, wide - 2.0)
        first = self.mm("first", "a first button", context, button / 2.0, 200.0)
        spacing = self.mm("spacing", "a spacing", context, button * 1.5, 400.0)
        long = sum(path.length for path in paths)
        bust = next((at for at, _x in crossings(paths, piece.levels["bust"])), None) if "bust" in piece.levels else None
        places = button_places(long, first, spacing, bust)
        if len(places) < 2:
            what = f"a placket of {format_length(long, unit)} has no room for two buttons"
            raise StepError(what, where=self.on, advice="Space them closer, or begin higher.")
        marks = [fold_along(long, 2.0 * wide)]
        marks.append(Mark("cf", "thin", Path.straight(np.array([0.0, wide / 2.0]), np.array([long, wide / 2.0]))))
        for number, at in enumerate(places, start=1):
            hole = Path.straight(np.array([at - button * 0.6, wide / 2.0]), np.array([at + button * 0.6, wide / 2.0]))
            marks.append(Mark(f"button.{number}", "hole", at=(at, wide / 2.0), radius=button / 2.0))
            marks.append(Mark(f"buttonhole.{number}", "cross", hole))
        strip = straight_strip(f"{self.on}_placket", long, 2.0 * wide, "along", [("bust line", bust)] if bust else (), marks)
        apart = format_length(places[1] - places[0], unit, fine=True)
        lies = ", one at the bust line" if bust is not None and any(abs(at - bust) < 0.01 for at in places) else ""
        told = f"{format_length(long, unit)} by {format_length(wide, unit)}, folded; {len(places)} buttons {apart} apart{lies}"
        return (Extra(strip, self.called, (piece.name,), cut="pair", asked=self, told=told, edge_mm=long),)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the placket, and the piece open at its centre. Raises as `extras` does."""
        made = super().apply(pattern, context)
        piece, unit = self.host(pattern, "centre"), context.scope.unit
        half, edge = self.mm("wide", "a placket", context) / 2.0, _edge(piece)
        opened = replace(piece, fold=None, sewn_as=(*piece.sewn_as, (edge, "under a placket", half)))
        text = f"the {centre_words(self.on)} opens: cut as a pair, {format_length(half, unit)} wider there under the placket"
        openings = (*made.pattern.openings, Opening(piece.name, "placket", made.pattern.extras[-1].edge_mm))
        later = replace(made.pattern.with_piece(opened), openings=openings)
        return Outcome(later, (*made.notes, Note(text, self.on, half)))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Measure, draw, fold, mark the buttons; the same in both ways."""
        (extra,) = self.extras(pattern, context)
        text = (
            "Measure the {centre}: {long}. Draw a strip as long and twice {wide} wide, with its fold in the middle, and a line "
            "half way between its seam and its fold: that is the {centre}. Mark the buttons on it: {told}. Cut two; cut the "
            "{on} half of {wide} beyond its centre and lay them over it."
        )
        figures = {"centre": centre_words(self.on), "long": format_length(extra.edge_mm, context.scope.unit)}
        return (line("placket", text, **figures, wide=str(self.wide), told=extra.told, on=words(self.on)),)


def _edge(piece: Piece) -> str:
    """The centre that a piece can be opened at. Raises StepError where it has none."""
    found = [edge for edge, role in piece.roles if role == "centre"]
    if len(found) > 1:  # of a piece that is front and back in one, its own
        found = [edge for edge in found if body_of(piece.edge(edge).runs[0].source.edge, piece.body) is piece.body]
    if len(found) != 1:
        what = f"the {words(piece.name)} has no centre line to open"
        raise StepError(what, where=piece.name, advice="Choose a half with its centre.")
    return found[0]


def _centre(piece: Piece) -> list[Path]:
    """The centre from the neckline down."""
    edge = piece.edge(_edge(piece))
    return [run.path.reversed() for run in reversed(edge.runs)]


def button_places(long: float, first: float, spacing: float, bust: float | None) -> Sequence[float]:
    """How far down (mm) buttons lie on a centre so long: the first so far down, then evenly, about `spacing` apart, one of them
    at the bust line, none on the seam at its end."""
    each = spacing
    if bust is not None and bust > first + spacing / 2.0:
        each = (bust - first) / max(1, round((bust - first) / spacing))
    count = int((long - CLEAR - first) / each + 1e-9) + 1 if long - CLEAR > first else 0
    return [first + number * each for number in range(count)]


STEP = Placket
