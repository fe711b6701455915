"""fullness.tuck: tucks stitched in an edge or across a piece: plain, pin and blind tucks, all the way or released."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Fullness, Lies, Pattern, Piece, Taking
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.letting_in import Heading, Slot, headings, heads_on
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.let_in import LetInStep

MOST = 40

# Stitched depth and spacing (mm) to begin with. Pin tucks take 2 to 3 mm; blind tucks meet the next one's stitching, so they
# are spaced as deep as they are. Common practice, no source.
DEPTH = {"plain": 8.0, "pin": 3.0, "blind": 10.0}
SPACING = {"plain": 20.0, "pin": 10.0}


class Tuck(LetInStep):
    """A fold stitched along its depth stands on the outside and is pressed to one side; it takes twice its depth."""

    title: ClassVar[str] = "Tucks"
    summary: ClassVar[str] = "Stitch plain, pin or blind tucks, across the piece or released after a length."

    do: Literal["fullness.tuck"] = "fullness.tuck"
    kind: Literal["plain", "pin", "blind"] = Field(default="plain", description="what the tucks are")
    count: int = Field(default=3, ge=1, le=MOST, description="how many")
    depth: Length | None = Field(default=None, description="stitched depth; as the kind has it when none")
    spacing: Length | None = Field(default=None, description="from stitching to stitching; as the kind has it when none")
    start: Spot | None = Field(default=None, description="where the first is stitched")
    towards: Heading | None = Field(default=None, description="the way the tucks follow each other from the first")
    lies: Heading | None = Field(default=None, description="the way they are pressed")
    stitched: Length | None = Field(default=None, description="released after so much; stitched all the way when none")

    def words(self) -> str:
        """`5 pin tucks in the waist`."""
        kind = "" if self.kind == "plain" else f"{self.kind} "
        where = f" in the {words(self.edge)}" if self.edge else ""
        return f"{self.count} {kind}tuck{'s' if self.count > 1 else ''}{where}"

    def _sizes(self, scale: float, context: Context) -> tuple[float, float]:
        """Depth and spacing, mm. Raises StepError where tucks would overlap."""
        depth = DEPTH[self.kind] * scale if self.depth is None else length_mm(self.depth, context.scope)
        if depth <= 0.0:
            raise StepError("a tuck must be deeper than 0", where=self.on, advice="Enter a depth such as 5 mm.")
        usual = depth if self.kind == "blind" else max(SPACING.get(self.kind, 0.0) * scale, depth)
        spacing = usual if self.spacing is None else length_mm(self.spacing, context.scope)
        if self.count > 1 and spacing < depth - 1e-9:
            unit = context.scope.unit
            what = f"tucks {format_length(depth, unit)} deep overlap at a spacing of {format_length(spacing, unit)}"
            raise StepError(
                what, where=self.on, advice=f"Space them {format_length(depth, unit)} or more, or make them less deep."
            )
        return depth, spacing

    def _slots(self, piece: Piece, edge: str, scale: float, context: Context) -> list[Slot]:
        depth, spacing = self._sizes(scale, context)
        found = self.in_a_row(piece, edge, self.count, spacing, depth, self.towards, context)
        lies = Lies.AFTER if heads_on(piece, edge, self.lies or headings(piece, edge)[1]) else Lies.BEFORE
        if min(found) < 0.0 or max(found) > piece.edge(edge).sewn_length:
            what = (
                f"{self.count} tucks {format_length(spacing, context.scope.unit)} apart reach past the end of the {words(edge)}"
            )
            raise StepError(what, where=self.on, advice="Take fewer, closer ones, or begin elsewhere.")
        return sorted((Slot(at, 2.0 * depth, lies) for at in found), key=lambda slot: slot.at)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with tucks. Raises StepError, PlaceError or GeometryError, in one sentence, for what cannot be
        stitched."""
        return self._fitted(pattern, context)[0]

    def _fitted(self, pattern: Pattern, context: Context) -> tuple[Outcome, list[Slot]]:
        return self.fitted(lambda scale: self._laid(pattern, scale, context), is_free=None in (self.depth, self.spacing))

    def _laid(self, pattern: Pattern, scale: float, context: Context) -> tuple[Outcome, list[Slot]]:
        piece, unit = pattern.piece(self.on), context.scope.unit
        edge = self.edge_of(piece, context)
        slots = self._slots(piece, edge, scale, context)
        stitched = None if self.stitched is None else length_mm(self.stitched, context.scope)
        if stitched is not None and stitched <= 0.0:
            raise StepError("a tuck must be stitched over more than 0", where=self.on, advice="Enter a length such as 6 cm.")
        style = "tuck" if self.kind == "plain" else f"{self.kind} tuck"
        full = Fullness("", Taking.TUCKS, style=style, stitched_mm=stitched)
        outcome, laid = self.let(pattern, edge, slots, full, context, [slot.at for slot in slots])
        shortest = min(fold.folds[0].length for fold in laid.lines)
        if stitched is not None and stitched > shortest:
            most = format_length(shortest, unit)
            raise StepError("the stitching is longer than the tucks", where=self.on, advice=f"Stitch up to {most}.")
        taken = sum(slot.by for slot in slots)
        notes = (
            *outcome.notes,
            Note(f"each takes {format_length(slots[0].by, unit)}, all {format_length(taken, unit)}", self.on, taken),
        )
        return Outcome(outcome.pattern, notes), slots

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Cut and part for each tuck, mark both stitching lines, fold, cut along the seam; the same in both ways."""
        piece, slots = pattern.piece(self.on), self._fitted(pattern, context)[1]
        edge = self.edge_of(piece, context)
        more = "; both cut edges are stitching lines"
        found = self.parted_by_hand(piece, edge, slots, more, context.scope.unit)
        text = "Fold the tucks, press them, cut along the {edge} through all layers, and unfold."
        return (*found, line("true_folded", text, edge=words(edge)))


STEP = Tuck
