"""piece.facing: facings that follow the finished edges, and a lining, as pieces of their own."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import GeometryError, StepError
from zesty_pivot.core.moves.facing import grain_of
from zesty_pivot.core.piece import Extra, Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.facings import TracedFacing, neck_facing, whole_facing, with_edge
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.hem_facings import hem_facing, with_lower_edge
from zesty_pivot.core.procedures.yoke_facing import yoke_facing, yokes
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import FrontAndBackStep

FacingKind = Literal["neck", "all_in_one", "camisole", "hem", "yoke", "lining"]

TITLES: dict[str, str] = {
    "neck": "neck facing", "all_in_one": "all-in-one facing", "camisole": "camisole facing", "hem": "hem facing",
    "yoke": "yoke facing", "lining": "lining",
}  # fmt: skip

LEAST, MOST = 15.0, 300.0  # mm of depth
MOST_SHADE = 5.0  # mm; 1 to 2 mm are usual


class Facing(FrontAndBackStep):
    """Traced from front and back with their darts closed; a facing is traced anew when a later step changes the edge that it
    follows, a lining stays as it is."""

    title: ClassVar[str] = "Facing or lining"
    summary: ClassVar[str] = (
        "Trace facings along the finished edges, shorter by the turn of cloth so that they roll inside; a yoke's second layer; "
        "or a lining, a copy of the pieces."
    )

    do: Literal["piece.facing"] = "piece.facing"
    kind: FacingKind = Field(default="neck", description="which facing")
    # 5 to 7 cm deep: common practice, no source.
    depth: Length = Field(default="6 cm", description="from the edge inwards")
    # 1 to 2 mm: common practice, no source.
    shade: Length = Field(default="1.5 mm", description="how much shorter each facing's edge is than the garment's")

    def words(self) -> str:
        """`neck facing, 6 cm deep`."""
        if self.kind == "lining":
            return "lining of all pieces"
        return TITLES[self.kind] + ("" if self.kind in ("camisole", "yoke") else f", {self.depth} deep")

    def _sizes(self, context: Context) -> tuple[float, float]:
        unit = context.scope.unit
        depth, shade = length_mm(self.depth, context.scope), length_mm(self.shade, context.scope)
        if not LEAST <= depth <= MOST:
            what = f"a facing {format_length(depth, unit)} deep"
            advice = f"Enter {format_length(LEAST, unit)} to {format_length(MOST, unit)}; 6 cm is usual."
            raise StepError(what, where=self.on, advice=advice)
        if not 0.0 <= shade <= MOST_SHADE:
            what = f"a turn of cloth of {format_length(shade, unit, fine=True)}"
            raise StepError(what, where=self.on, advice="Enter 0 to 5 mm; 1 to 2 mm are usual.")
        return depth, shade

    def _traced(self, pattern: Pattern, name: str, context: Context, down: float | None) -> TracedFacing:
        depth, shade = self._sizes(context)
        try:
            if self.kind == "neck":
                return neck_facing(pattern, name, depth, shade, context)
            if self.kind == "hem":
                return hem_facing(pattern, name, depth, shade, context)
            return whole_facing(pattern, name, None if self.kind == "camisole" else depth, shade, context, down)
        except GeometryError as fault:
            raise StepError(fault.what, where=name, advice=fault.advice or "Choose another facing.") from fault

    def extras(self, pattern: Pattern, context: Context) -> list[Extra]:
        """The parts that this step makes. Raises StepError, PlaceError or FormulaError."""
        if self.kind == "lining":
            return [
                Extra(replace(piece, name=f"{piece.name}_lining"), "lining", (piece.name,), cut=_cut_of(piece))
                for piece in pattern.pieces
            ]
        if self.kind == "yoke":
            shade = self._sizes(context)[1]
            try:
                return [yoke_facing(pattern, piece, shade, _cut_of(piece)) for piece in yokes(pattern, self.names())]
            except GeometryError as fault:
                raise StepError(fault.what, where=self.on, advice=fault.advice or "Take less off.") from fault
        found: list[Extra] = []
        if self.kind == "hem":
            pieces = [piece for name in self.names() for piece in with_lower_edge(pattern, name)]
            return [self._extra(pattern, piece.name, context) for piece in pieces]
        for wanted in self.names():
            name = with_edge(pattern, wanted, "neckline")
            if sum(role == "centre" for _edge, role in pattern.piece(name).roles) > 1:
                what = f"the {words(name)} is front and back in one"
                raise StepError(what, where=name, advice="Trace the facing before they are joined.")
            # Both facings are sewn at the side: the second is as long there as the first.
            down = _down_side(found[0].piece) if found and self.kind in ("camisole", "all_in_one") else None
            found.append(self._extra(pattern, name, context, down))
        return found

    def _extra(self, pattern: Pattern, name: str, context: Context, down: float | None = None) -> Extra:
        made = self._traced(pattern, name, context, down)
        facing = replace(made.piece, grain=grain_of(made.piece))
        cut = "fold" if facing.fold else "one" if pattern.piece(name).is_unfolded else "pair"
        return Extra(facing, "facing", (name,), made.follows, cut, traced=self)

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the parts beside it. Raises StepError, PlaceError or FormulaError when one cannot be traced."""
        extras = self.extras(pattern, context)
        known = {extra.piece.name for extra in pattern.extras}
        taken = next((extra.piece.name for extra in extras if extra.piece.name in known), None)
        if taken is not None:
            raise StepError(f"there is a {words(taken)} already", where=self.on, advice="Leave one of the two steps out.")
        unit = context.scope.unit
        notes = []
        for extra in extras:
            edges = [
                f"{words(follow.edge)} {format_length(extra.piece.edge(follow.edge).sewn_length, unit, fine=True)}"
                for follow in extra.follows
            ]
            text = f"{words(extra.piece.name)}: {', '.join(edges) if edges else 'a copy of the piece'}"
            notes.append(Note(text, extra.of[0]))
        return Outcome(replace(pattern, extras=(*pattern.extras, *extras)), tuple(notes))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Darts shut, trace, the shade off, grain; the same in both ways."""
        unit, found = context.scope.unit, []
        for extra in self.extras(pattern, context):
            names = {"name": words(extra.piece.name), "on": words(extra.of[0])}
            if extra.kind == "lining":
                found.append(line("lining", "Trace the {on} once more for the {name}.", **names))
                continue
            if self.kind == "yoke":
                text = "Trace the {on} once more for the {name} and cut {shade} off its neckline and its armhole."
                turn = format_length(self._sizes(context)[1], unit, fine=True)
                found.append(line("yoke_facing", text, shade=turn, **names))
                continue
            text = (
                "Pin the darts of the {on} shut. Trace the {name} along {edges}, {deep} deep, and take {shade} off its end for "
                "the turn of cloth, so that it rolls inside. Write its grain as that of the {on}."
            )
            edges = " and ".join(
                f"the {words(follow.edge)} ({format_length(extra.piece.edge(follow.edge).sewn_length, unit)})"
                for follow in extra.follows
            )
            depth, shade = self._sizes(context)
            deep = "3 1/2 in below the bust line" if self.kind == "camisole" else format_length(depth, unit)
            found.append(line("facing", text, edges=edges, deep=deep, shade=format_length(shade, unit), **names))
        return tuple(found)


def _down_side(facing: Piece) -> float:
    """How long a facing is at the side, mm."""
    return next(edge.sewn_length for edge in facing.edges if edge.role == "side_seam")


def _cut_of(piece: Piece) -> str:
    if piece.is_unfolded:
        return "up"
    return "fold" if piece.fold else "pair"


STEP = Facing
