"""neck.gape: an edge that stands off the body is tightened; what is taken out goes into the bust dart."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.cut import part_twice
from zesty_pivot.core.moves.join import shut
from zesty_pivot.core.moves.redraw import blend
from zesty_pivot.core.moves.swing import swing
from zesty_pivot.core.necklines.gape import suggested
from zesty_pivot.core.piece import Dart, Pattern, Piece, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.region import crosses
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length, NamesDart
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

_SLIT = "*gape"

MOST = 30.0  # mm; an edge that stands off by more wants another neckline. Common practice, no source.
BLEND = 30.0  # mm to either side of where the edge was closed

_SECANTS = 30
_EXACT = 1e-6  # mm


class TakeGape(Step):
    """A wedge from the edge to the pivot is taken out, and its angle opens in a dart there."""

    title: ClassVar[str] = "Take out gape"
    summary: ClassVar[str] = "Tighten a low or wide neckline: take a little out of its edge and pivot it into the bust dart."
    half_by_half: ClassVar[bool] = True

    do: Literal["neck.gape"] = "neck.gape"
    on: str = Field(default="front", description="the piece", min_length=1)
    amount: Length | None = Field(
        default=None, description="taken out of the edge; suggested from depth and width when not given"
    )
    at: Spot = Field(default=Spot(edge="neckline", at="50%"), description="where the edge is tightened")
    into: Annotated[str | None, NamesDart()] = Field(
        default=None, description="the dart that takes it; the widest when not given"
    )

    def words(self) -> str:
        """`1 cm of gape into the waist dart`."""
        amount = "gape" if self.amount is None else f"{self.amount} of gape"
        return f"{amount} into the {words(self.into)} dart" if self.into else f"{amount} into the bust dart"

    def _dart(self, piece: Piece) -> Dart:
        """The dart that takes it. Raises StepError or PlaceError."""
        if self.into is not None:
            return piece.dart(self.into)
        main = "bust_point" if "bust_point" in piece.landmarks else None
        known = [dart for dart in piece.darts if dart.use is Use.DART and main in (None, dart.pivot)]
        if not known:
            raise StepError(
                "the piece has no dart to take it up", where=self.on, advice="Keep a dart at the bust point for it."
            )
        return max(known, key=lambda dart: piece.angle(dart.id))

    def taken(self, piece: Piece, context: Context) -> float:
        """How much (mm) is taken out. Raises StepError or FormulaError."""
        amount = (
            suggested(piece, context.block.drafted(piece)) if self.amount is None else length_mm(self.amount, context.scope)
        )
        if not 0.0 < amount <= MOST:
            unit = context.scope.unit
            what = "this neckline is unlikely to gape" if self.amount is None else f"{format_length(amount, unit)} of gape"
            raise StepError(what, where=self.on, advice=f"Enter more than 0 and up to {format_length(MOST, unit)}.")
        return amount

    def _made(self, pattern: Pattern, context: Context) -> tuple[Piece, str, float]:
        """The piece after it, the dart, and the amount (mm) by which the edge is shorter.

        An edge that runs slanting to the pivot leaves a step when a stretch of it is closed, and blending gives some length
        back; the stretch is sought that makes the blended edge shorter by just the amount.
        """
        piece = pattern.piece(self.on)
        dart = self._dart(piece)
        amount = self.taken(piece, context)
        edge = self._edge(piece, dart, context)
        whole = piece.edge(edge).sewn_length

        def off(stretch: float) -> tuple[Piece, float]:
            made = self._without(piece, dart, stretch, context)
            return made, whole - made.edge(edge).sewn_length - amount

        one, two = amount, 1.2 * amount
        made, beyond = off(one)
        for _ in range(_SECANTS):
            if abs(beyond) <= _EXACT:
                return made, dart.id, amount
            made, after = off(two)
            if after == beyond:
                break
            one, two, beyond = two, two - after * (two - one) / (after - beyond), after
            if not 0.0 < two < 6.0 * amount:
                break
        raise StepError("the edge runs along the way to the pivot there", where=self.on, advice="Choose another place.")

    def _edge(self, piece: Piece, dart: Dart, context: Context) -> str:
        middle = resolve(self.at, piece, context.block.drafted(piece), context.scope, dart.pivot)
        return piece.runs[middle.run].edge

    def _without(self, piece: Piece, dart: Dart, amount: float, context: Context) -> Piece:
        """The piece with a stretch (mm) of its edge closed and blended."""
        block = context.block.drafted(piece)
        middle = resolve(self.at, piece, block, context.scope, dart.pivot)
        edge = piece.runs[middle.run].edge
        if piece.role(edge) not in ("neckline", "armhole"):
            raise StepError("gape is taken out of a neckline or armhole", where=self.on, advice="Choose a place on one.")
        at = places.sewn_distance(piece, middle)
        total = piece.edge(edge).sewn_length
        if not amount / 2.0 + 2.0 < at < total - amount / 2.0 - 2.0:
            raise StepError("there is no room for it at that place", where=self.on, advice="Choose a place nearer the middle.")
        first, last = (places.along(piece, edge, at + way * amount / 2.0) for way in (-1.0, 1.0))
        if first.run != last.run:
            raise StepError("a dart opens at that place", where=self.on, advice="Choose a place beside it.")
        pin = piece.pivot(dart.pivot)
        for place in (first, last):
            crossed = crosses(piece, places.point(piece, place), pin)
            if crossed is not None:
                raise StepError(f"the way to the pivot crosses {crossed}", where=self.on, advice="Choose another place.")
        parted, one, two = part_twice(piece, first, last)
        runs = list(parted.runs)
        runs[one] = replace(runs[one], mouth=_SLIT)
        del runs[two]
        open_ = replace(parted, runs=tuple(runs), darts=(*parted.darts, Dart(_SLIT, dart.pivot)))
        angle = open_.angle(_SLIT)
        swung = swing(open_, _SLIT, dart.id, angle)
        index = swung.mouth_run(_SLIT)
        closed = shut(swung, _SLIT)
        closed = replace(closed, added=(*closed.added, (dart.pivot, angle)))
        return blend(closed, index, BLEND, context.sewing).piece

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the tighter edge. Raises StepError, PlaceError, GeometryError or FormulaError when it cannot be."""
        made, dart, amount = self._made(pattern, context)
        piece, unit = pattern.piece(self.on), context.scope.unit
        edge = self._edge(piece, piece.dart(dart), context)
        wider = made.intake(dart) - piece.intake(dart)
        text = (
            f"{format_length(amount, unit, fine=True)} taken out of the {words(edge)}; the {dart_words(piece, dart)} dart is "
            f"{format_length(wider, unit, fine=True)} wider"
        )
        after = pattern.with_piece(made)
        if piece.role(edge) == "neckline":
            halves = piece.times
            after = replace(
                after,
                measured=tuple(replace(m, mm=m.mm - halves * amount) if m.role == "neckline" else m for m in after.measured),
            )
        return Outcome(after, (Note(text, self.on, amount),))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Fold a wedge out, let the dart open, redraw; the same in both ways."""
        made, dart, amount = self._made(pattern, context)
        unit = context.scope.unit
        pivot = words(pattern.piece(self.on).dart(dart).pivot)
        text = (
            "On the {on}, cut from the {at} to the {pin} and lap over there until the edge, "
            "redrawn smooth, is {amount} shorter; the {dart} dart opens by the same angle. Its mouth now measures {mouth}."
        )
        figures = {"amount": format_length(amount, unit), "mouth": format_length(made.intake(dart), unit)}
        return (
            line(
                "gape",
                text,
                on=words(self.on),
                at=self.at.words(),
                pin=pivot,
                dart=dart_words(pattern.piece(self.on), dart),
                **figures,
            ),
        )


STEP = TakeGape
