"""drape.fan: folds that radiate from a stretch of seam: darts led there and slashes opened."""

from typing import Annotated, ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Extra, Lies, Pattern, Piece
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.cowl_finish import on_bias
from zesty_pivot.core.procedures.drapes import Drape, Fold, TakenUp, draped
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.into_panels import free_name
from zesty_pivot.core.procedures.letting_in import Heading, headings, heads_on
from zesty_pivot.core.quantity import distance_mm, format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Along, Length, NamesDart, Share
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

LEAST = 20.0  # mm of the seam that the folds lie on at least. Our own choice
MOST_OPEN = 150.0  # mm that one slash is opened; the trade opens 2 to 5 cm. Our own choice


class DrapeFan(Step):
    """Slashes hinge at the far seam, which stays as it is; the folds' seam is as long as before once they are taken up."""

    title: ClassVar[str] = "Drape"
    summary: ClassVar[str] = (
        "Folds that radiate from a stretch of a side, a shoulder or another seam: darts led there, slashes."
    )
    half_by_half: ClassVar[bool] = True

    do: Literal["drape.fan"] = "drape.fan"
    edge: str = Field(default="side_seam", description="the seam that the folds are caught in", min_length=1)
    start: Along = Field(default="8%", description="where the stretch with the folds begins along it")
    stop: Along = Field(default="95%", description="where it stops")
    darts: Annotated[tuple[str, ...] | None, NamesDart()] = Field(
        default=None, description="the darts led there; all of the piece when none"
    )
    # 2 to 5 cm each: common practice, no source.
    slashes: tuple[Length, ...] = Field(
        default=("3 cm", "3 cm", "3 cm"), max_length=12, description="what each slash is opened by, in order along the far seam"
    )
    order: Annotated[tuple[str, ...], NamesDart()] = Field(
        default=(), description="darts by name and slashes by number, as their folds lie along the seam; by itself when empty"
    )
    to: str | None = Field(default=None, description="the seam that they lead to; one across the piece when none")
    to_start: Share = Field(default="20%", description="where the first ends there, from the other end of that seam")
    to_stop: Share = Field(default="80%", description="where the last ends there")
    taken: TakenUp = Field(default="pleats", description="how the folds are taken up in the seam")
    lies: Heading | None = Field(default=None, description="the way the folds point; down, or to the centre, when none")
    stitched: Length = Field(default="3 cm", description="how far tucks are stitched from the seam")
    bias: bool = Field(default=False, description="the grain at 45 degrees: it falls softer")
    lining: bool = Field(default=True, description="a lining of the piece as it was, without the drape")

    def words(self) -> str:
        """`drape at the left side seam, 3 slashes in pleats`."""
        return (
            f"drape at the {words(self.edge)}, {len(self.slashes)} slash{'es' if len(self.slashes) != 1 else ''}, {self.taken}"
        )

    def drape(self, piece: Piece, context: Context) -> Drape:
        """What is asked for, in mm. Raises StepError, PlaceError or FormulaError."""
        unit, edge = context.scope.unit, piece.edge(self.edge)
        ends = sorted(distance_mm(at, edge.sewn_length, context.scope) for at in (self.start, self.stop))
        if ends[0] < 0.0 or ends[1] > edge.sewn_length or ends[1] - ends[0] < LEAST:
            what = f"a stretch from {format_length(ends[0], unit)} to {format_length(ends[1], unit)} of the {words(edge.id)}"
            advice = f"Let it be {format_length(LEAST, unit)} or longer, within {format_length(edge.sewn_length, unit)}."
            raise StepError(what, where=self.on, advice=advice)
        darts = tuple(dart.id for dart in piece.darts) if self.darts is None else self.darts
        for dart in darts:
            piece.dart(dart)
        amounts = tuple(length_mm(by, context.scope) for by in self.slashes)
        if not amounts and not darts:
            raise StepError("a drape needs a dart or a slash", where=self.on, advice="Open a slash by 2 to 5 cm.")
        for by in amounts:
            if not 0.0 < by <= MOST_OPEN:
                what = f"a slash opened by {format_length(by, unit)}"
                raise StepError(what, where=self.on, advice=f"Enter more than 0, up to {format_length(MOST_OPEN, unit)}.")
        wanted = sorted([*darts, *(str(number + 1) for number in range(len(amounts)))])
        if self.order and sorted(self.order) != wanted:
            what = f"the order of the folds names {', '.join(self.order)}"
            raise StepError(what, where=self.on, advice=f"Name each of these once: {', '.join(wanted)}; or leave it empty.")
        usual = headings(piece, edge.id)
        heading = self.lies or ("down" if "down" in usual else "centre")
        lies = Lies.AFTER if heads_on(piece, edge.id, heading) else Lies.BEFORE
        across = share_of(self.to_start), share_of(self.to_stop)
        stitched = length_mm(self.stitched, context.scope)
        return Drape(
            self.on, edge.id, (ends[0], ends[1]), darts, amounts, self.to, across, self.taken, lies, stitched, self.order
        )

    def _draped(self, pattern: Pattern, context: Context) -> tuple[Pattern, tuple[Fold, ...]]:
        return draped(pattern, self.drape(pattern.piece(self.on), context), context, may_leave=self.darts is None)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the drape. Raises StepError, PlaceError or GeometryError, with what works, where it cannot be."""
        piece, unit = pattern.piece(self.on), context.scope.unit
        pattern, folds = self._draped(pattern, context)
        notes: list[Note] = []
        told = ", ".join(f"{number} {self._told(piece, fold, context)}" for number, fold in enumerate(folds, start=1))
        notes.append(Note(f"the folds along the {words(self.edge)} in order: {told}", self.on))
        left = [dart.id for dart in piece.darts if self.darts is None and dart.id not in {fold.dart for fold in folds}]
        if left:
            named = " and ".join(f"the {words(dart)} dart" for dart in left)
            notes.append(Note(f"{named} cannot be led there and stays", self.on))
        hinges = list(dict.fromkeys(words(fold.hinge) for fold in folds if fold.hinge))
        if hinges:
            notes.append(Note(f"the slashes hinge at the {' and the '.join(hinges)}: there the seam stays as it is", self.on))
        if self.bias:
            pattern = pattern.with_piece(on_bias(pattern.piece(self.on)))
        elif self.taken != "tucks":
            notes.append(Note("a drape falls softer on the bias", self.on))
        if self.lining:
            name = free_name(pattern, f"{self.on}_lining")
            cut = "up" if piece.is_unfolded else "fold" if lies_on_fold(piece) else "pair"
            flat = replace(piece, name=name)
            pattern = replace(pattern, extras=(*pattern.extras, Extra(flat, "lining", (self.on,), cut=cut)))
            long = format_length(piece.edge(self.edge).sewn_length, unit)
            notes.append(Note(f"the {words(name)} stays undraped: its {words(self.edge)} is {long}", self.on))
        return Outcome(pattern, tuple(notes))

    def _told(self, piece: Piece, fold: Fold, context: Context) -> str:
        if fold.dart is not None:
            return f"the {words(fold.dart)} dart" if piece.has_dart(fold.dart) else "a dart"
        return f"a slash of {format_length(length_mm(self.slashes[fold.slash], context.scope), context.scope.unit)}"

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Mark the folds, slash, shut the darts, open the slashes, fold, true; the same in both ways."""
        piece, unit = pattern.piece(self.on), context.scope.unit
        _made, folds = self._draped(pattern, context)
        names = {"on": words(self.on), "edge": words(self.edge)}
        start = piece.ends.get(piece.role(self.edge), ("one end", ""))[0]
        lines = []
        mark = "Fold {number}: mark the {edge} of the {on} {at} from the {start}, slash to the "
        for number, fold in enumerate(folds, start=1):
            told = {"number": str(number), "at": format_length(fold.at, unit), "start": words(start), **names}
            if fold.dart is not None:
                told |= {"pin": words(piece.dart(fold.dart).pivot), "dart": words(fold.dart)}
                lines.append(line("drape_dart", mark + "{pin}, and shut the {dart} dart.", **told))
            else:
                by = format_length(length_mm(self.slashes[fold.slash], context.scope), unit)
                text = mark + "{to}, but not through it, and open it by {by}."
                lines.append(line("drape_slash", text, to=words(fold.hinge), by=by, **told))
        text = "Number the folds. {how}: cut along the {edge} through all layers, unfold, and draw arrows."
        how = {"pleats": "Lay them as pleats", "tucks": f"Stitch them {self.stitched} deep", "gathers": "Draw them up"}[
            self.taken
        ]
        lines.append(line("drape_true", text, how=how, edge=words(self.edge)))
        if self.lining:
            lines.append(line("drape_lining", "Trace the {on} as it was once more for its lining.", on=words(self.on)))
        return tuple(lines)


STEP = DrapeFan
