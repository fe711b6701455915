"""fullness.pleat: pleats laid in an edge or across a piece: knife, box, inverted, accordion; even, graded or tapered."""

from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Fullness, Lies, Pattern, Piece, Taking
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.letting_in import AT_THE_FOLD, Heading, Slot, edge_place, headings, heads_on
from zesty_pivot.core.quantity import Unit, format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.let_in import CLEAR, LetInStep

MOST = 24
DEPTH, SPACING = 10.0, 25.0  # mm to begin with where there is room. Common practice, no source.

KINDS = {"knife": "knife pleat", "box": "box pleat", "inverted": "inverted pleat", "accordion": "accordion pleat"}


class Pleat(LetInStep):
    """Cloth is let in along slashes and folded; the edge is trued by folding, and is as long as before once sewn."""

    title: ClassVar[str] = "Pleats"
    summary: ClassVar[str] = "Lay knife, box, inverted or accordion pleats in an edge, across the piece or tapering to nothing."

    do: Literal["fullness.pleat"] = "fullness.pleat"
    kind: Literal["knife", "box", "inverted", "accordion"] = Field(default="knife", description="how they are folded")
    count: int = Field(default=2, ge=1, le=MOST, description="how many")
    depth: Length | None = Field(
        default=None,
        description="how deep each fold lies under, its underlay is twice that; 1 cm or as there is room when none",
    )
    last: Length | None = Field(
        default=None, description="how deep the last is, the others grading up to it; all alike when none"
    )
    width: Length | None = Field(default=None, description="the visible width of a box pleat; twice its depth when none")
    spacing: Length | None = Field(
        default=None, description="from pleat to pleat along the edge; 2.5 cm or as the depth wants it when none"
    )
    start: Spot | None = Field(default=None, description="where the first lies (of box and inverted pleats its middle)")
    stop: Spot | None = Field(default=None, description="where the last lies: they are spaced evenly then")
    towards: Heading | None = Field(default=None, description="the way the pleats follow each other from the first")
    lies: Heading | None = Field(default=None, description="the way the folds of knife and accordion pleats point")
    stitched: Length = Field(default="0 cm", description="how far they are stitched down from the edge")
    edge_stitched: bool = Field(default=False, description="each fold stitched close to its edge")
    soft: bool = Field(default=False, description="not pressed: the folds are marked near the edge only")

    def words(self) -> str:
        """`3 knife pleats in the waist, 2 cm deep`."""
        where = f" in the {words(self.edge)}" if self.edge else ""
        deep = "" if self.depth is None else f", {self.depth} deep"
        return f"{self.count} {KINDS[self.kind]}{'s' if self.count > 1 else ''}{where}{deep}"

    def _depths(self, context: Context, scale: float) -> list[float]:
        first = DEPTH * scale if self.depth is None else length_mm(self.depth, context.scope)
        last = first if self.last is None else length_mm(self.last, context.scope)
        if min(first, last) <= 0.0:
            raise StepError("a pleat must be deeper than 0", where=self.on, advice="Enter a depth such as 1.5 cm.")
        return [float(depth) for depth in np.linspace(first, last, self.count)]

    def _width(self, depths: list[float], context: Context) -> float:
        """The visible width of box pleats, mm."""
        if self.kind != "box":
            return 0.0
        width = 2.0 * max(depths) if self.width is None else length_mm(self.width, context.scope)
        if max(depths) > width / 2.0 + 1e-9:
            unit = context.scope.unit
            wide, deep = format_length(width, unit), format_length(max(depths), unit)
            what = f"the underlays of a box pleat {wide} wide and {deep} deep overlap"
            most = format_length(width / 2.0, unit)
            raise StepError(
                what, where=self.on, advice=f"Make it {most} deep at most, or {format_length(2 * max(depths), unit)} wide."
            )
        return width

    def _least(self, depths: list[float], width: float) -> float:
        """The least spacing (mm) at which pleats do not overlap."""
        return {"box": width, "inverted": 2.0 * max(depths)}.get(self.kind, max(depths))

    def _places(
        self, piece: Piece, edge: str, depths: list[float], width: float, scale: float, context: Context
    ) -> list[float]:
        """How far along the edge the pleats lie, mm, the first first."""
        unit, least, total = context.scope.unit, self._least(depths, width), piece.edge(edge).sewn_length
        usual = max(SPACING * scale, least + CLEAR)
        spacing = usual if self.spacing is None else length_mm(self.spacing, context.scope)
        beside = max(max(depths), width / 2.0)
        self._refuse_overlap(spacing if self.stop is None else least, depths, least, unit)
        if self.stop is None:
            found = self.in_a_row(piece, edge, self.count, spacing, beside, self.towards, context)
        else:
            found = self._between(piece, edge, context)
            spacing = abs(found[-1] - found[0]) / (self.count - 1)
            self._refuse_overlap(spacing, depths, least, unit)
        if min(found) < -AT_THE_FOLD or max(found) > total + AT_THE_FOLD:
            what = f"{self.count} pleats {format_length(spacing, unit)} apart reach past the end of the {words(edge)}"
            raise StepError(what, where=self.on, advice="Take fewer, closer ones, or begin elsewhere.")
        return found

    def _between(self, piece: Piece, edge: str, context: Context) -> list[float]:
        """Places spaced evenly from the first to the last, mm along the edge."""
        if self.start is None or self.stop is None:
            raise StepError("pleats need a first place to end at a last", where=self.on, advice="Say where the first lies.")
        first, (last_edge, last) = edge_place(self.start, piece, context)[1], edge_place(self.stop, piece, context)
        if last_edge != edge or self.count < 2:
            advice = "Choose two places of one edge, and two pleats or more."
            raise StepError("first and last pleat are not two places of one edge", where=self.on, advice=advice)
        return [float(at) for at in np.linspace(first, last, self.count)]

    def _refuse_overlap(self, spacing: float, depths: list[float], least: float, unit: Unit) -> None:
        if self.count > 1 and spacing < least - 1e-9:
            what = f"pleats {format_length(max(depths), unit)} deep overlap at a spacing of {format_length(spacing, unit)}"
            advice = f"Space them {format_length(least, unit)} or more, or make them less deep."
            raise StepError(what, where=self.on, advice=advice)

    def _slots(self, piece: Piece, edge: str, scale: float, context: Context) -> list[Slot]:
        depths = self._depths(context, scale)
        width = self._width(depths, context)
        total, slots = piece.edge(edge).sewn_length, []
        centre_on = heads_on(piece, edge, headings(piece, edge)[0])
        points_on = heads_on(piece, edge, self.lies or headings(piece, edge)[1])
        for at, depth in zip(self._places(piece, edge, depths, width, scale, context), depths, strict=True):
            from_fold = (total - at if centre_on else at) if self._meets_fold(piece, edge) else np.inf
            if self.kind == "inverted":
                slots.append(Slot(at, 4.0 * depth, Lies.MEET, at_fold=from_fold < AT_THE_FOLD))
            elif self.kind == "box":
                sides = [(-1.0, Lies.BEFORE), (1.0, Lies.AFTER)]
                if from_fold < AT_THE_FOLD:  # half a box pleat: the other half is beyond the fold
                    sides = sides[:1] if centre_on else sides[1:]
                slots += [Slot(at + side * width / 2.0, 2.0 * depth, lies) for side, lies in sides]
            elif from_fold < AT_THE_FOLD:
                what = f"a {KINDS[self.kind]} cannot lie on the fold"
                raise StepError(what, where=self.on, advice="Lay a box or an inverted pleat there, or begin beside the fold.")
            else:
                slots.append(Slot(at, 2.0 * depth, Lies.AFTER if points_on else Lies.BEFORE))
        return sorted(slots, key=lambda slot: slot.at)

    @staticmethod
    def _meets_fold(piece: Piece, edge: str) -> bool:
        """Whether an edge ends at the fold."""
        if piece.fold is None or edge == piece.fold:
            return False
        runs = piece.edge(edge).runs
        first, last = piece.runs.index(runs[0]), piece.runs.index(runs[-1])
        return piece.fold in (piece.runs[first - 1].edge, piece.runs[piece.after(last)].edge)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with pleats. Raises StepError, PlaceError or GeometryError, in one sentence, for what cannot be laid."""
        return self._fitted(pattern, context)[0]

    def _fitted(self, pattern: Pattern, context: Context) -> tuple[Outcome, list[Slot]]:
        return self.fitted(lambda scale: self._laid(pattern, scale, context), is_free=None in (self.depth, self.spacing))

    def _laid(self, pattern: Pattern, scale: float, context: Context) -> tuple[Outcome, list[Slot]]:
        piece = pattern.piece(self.on)
        edge = self.edge_of(piece, context)
        slots = self._slots(piece, edge, scale, context)
        stitched = length_mm(self.stitched, context.scope)
        if stitched < 0.0:
            raise StepError("stitching cannot be shorter than 0", where=self.on, advice="Enter 0 or more.")
        kept = ("soft" if self.soft else "pressed", *(("edge-stitched",) if self.edge_stitched else ()))
        full = Fullness("", Taking.PLEATS, style=KINDS[self.kind], stitched_mm=stitched, treated=kept)
        outcome, laid = self.let(pattern, edge, slots, full, context, [slot.at for slot in slots])
        shortest = min(fold.folds[0].length for fold in laid.lines)
        if stitched > shortest:
            most = format_length(shortest, context.scope.unit)
            raise StepError("the stitching is longer than the pleats", where=self.on, advice=f"Stitch up to {most}.")
        taken = sum(slot.parts for slot in slots)
        layers = Note(
            f"where pleats lie, the seam has 3 layers; {format_length(taken, context.scope.unit)} more cloth", self.on, taken
        )
        return Outcome(outcome.pattern, (*outcome.notes, layers)), slots

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Draw the slashes, cut, part them on fresh paper, fold, cut along the seam, unfold; the same in both ways."""
        piece, slots = pattern.piece(self.on), self._fitted(pattern, context)[1]
        edge = self.edge_of(piece, context)
        found = self.parted_by_hand(piece, edge, slots, "", context.scope.unit)
        text = (
            "Fold each pleat ({kind}), cut along the {edge} through all layers, and unfold. Notch folds and places, and draw "
            "arrows."
        )
        return (*found, line("true_folded", text, kind=KINDS[self.kind], edge=words(edge)))


STEP = Pleat
