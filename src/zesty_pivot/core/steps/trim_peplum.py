"""trim.peplum: a peplum sewn to the waist of front and back."""

from collections.abc import Iterable
from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.piece import Body, Pattern, Piece
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.circles import Flared, flared_half
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.peplums import gathered_half, pleated_half, shaped_part, slashed_part
from zesty_pivot.core.procedures.raised_edge import raised
from zesty_pivot.core.procedures.sectors import Sector, sector
from zesty_pivot.core.procedures.strips import Crossing
from zesty_pivot.core.procedures.worn_edge import WornEdge
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.quantity.units import IN
from zesty_pivot.core.steps.trim import Part, TrimStep

# A hip is some 25 cm wider than the waist; 2 in of ease over it. Common practice, no source.
USUAL, EASE = 250.0, 2.0 * IN

Kind = Literal["circle", "slashed", "gathered", "pleated", "shaped"]


class Peplum(TrimStep):
    """Its inner edge is the finished waist, darts shut; front and back each from the centre to the side. Where the garment is
    not on the fold (a front opening, a zip at CB) its centre is a seam too."""

    title: ClassVar[str] = "Peplum"
    summary: ClassVar[str] = (
        "A peplum at the waist: part of a circle, slashed, gathered, pleated or shaped; even, dipped or uneven."
    )
    called: ClassVar[str] = "peplum"

    do: Literal["trim.peplum"] = "trim.peplum"
    edge: str = Field(default="lower", description="what it is sewn to: waist, lower, or an edge by its id", min_length=1)
    kind: Kind = Field(default="circle", description="how it widens")
    depth: Length = Field(default="15 cm", description="how deep it is, at CF")
    part: float = Field(default=0.5, gt=0.0, le=2.0, description="which part of a circle")
    slashes: int = Field(default=4, ge=1, le=30, description="slashes on a half front, and on a half back")
    spread: Length = Field(default="4 cm", description="how far each opens at the hem")
    ratio: float = Field(default=1.6, gt=0.0, description="gathered: how many times as long as the waist")
    pleats: int = Field(default=4, ge=1, le=30, description="pleats on a half front, and on a half back")
    underlay: Length = Field(default="2 cm", description="how deep each pleat is")
    hip: Length | None = Field(
        default=None, description="shaped: how wide it is where it goes over the hip; hip + 2 in when none"
    )
    hip_at: Length = Field(default="20 cm", description="and how far below the waist that is")
    hem: Literal["even", "dipped", "uneven"] = Field(
        default="even", description="dipped: longer at CB; uneven: longer on the left as worn"
    )
    dip: Length = Field(default="8 cm", description="how much longer")
    # A peplum is often sewn on 1 in above the waist: common practice, no source.
    raised_by: Length = Field(default="0 cm", description="how far above the waist it is sewn on")

    def words(self) -> str:
        """`half-circle peplum, 15 cm deep`."""
        known = {0.25: "quarter-circle", 0.5: "half-circle", 1.0: "full-circle"}
        kind = known.get(self.part, f"{self.part:g}-circle") if self.kind == "circle" else self.kind
        return f"{'' if self.hem == 'even' else f'{self.hem} '}{kind} peplum, {self.depth} deep"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the peplum, its waist raised where that is asked for. Raises as `extras` does."""
        by, unit = self.mm("raised_by", "a waist raised", context, 0.0, 200.0), context.scope.unit
        if by == 0.0:
            return super().apply(pattern, context)
        above = raised(pattern, self.names(), by)
        text = f"the lower edge is cut off {format_length(by, unit)} higher all round"
        return Outcome(above, (Note(text, self.on, by),)).then(super().apply(above, context))

    def parts(self, worn: WornEdge, name: str, pattern: Pattern, context: Context) -> Iterable[Part]:
        """Front and back."""
        unit = context.scope.unit
        depth = self.mm("depth", "a peplum with a depth", context, 10.0, 1200.0)
        dip = self.mm("dip", "a dip", context, 0.0, 600.0) if self.hem != "even" else 0.0
        flared = Flared(worn, self._part(worn, depth, context), depth)
        if self.hem == "dipped":
            flared = Flared(worn, flared.part, depth, depth + dip / 2.0, depth + dip)
        for body in (Body.FRONT, Body.BACK):

            def make(one: Sector, notches: list[Crossing]) -> Piece:
                return self._drawn(one, notches, context)

            piece, cut, times = flared_half(flared, name, body, pattern, make, dip if self.hem == "uneven" else None)
            told = f"inner edge {format_length(worn.mm, unit)}, the finished waist"
            if self.kind == "shaped" and self.hip is None and "hip" not in context.scope.measures:
                told += "; the hip is not measured and taken as usual"
            if self.kind in ("circle", "slashed", "shaped"):
                told += f", radius {format_length(flared.radius, unit)}"
            yield Part(piece, told, times, cut)

    def _part(self, worn: WornEdge, depth: float, context: Context) -> float:
        """Which part of a circle it is all round."""
        if self.kind == "slashed":
            spread = self.mm("spread", "slashes spread", context, 1.0, 300.0)
            return slashed_part(4 * self.slashes, spread, depth)
        if self.kind == "shaped":
            down = self.mm("hip_at", "a hip line", context, 30.0, 500.0)
            return shaped_part(worn.mm, self._over_the_hip(worn, context), down)
        return self.part

    def _over_the_hip(self, worn: WornEdge, context: Context) -> float:
        """How wide it is there: as asked, by the measured hip, else by a usual one."""
        if self.hip is not None:
            return length_mm(self.hip, context.scope)
        measured = context.scope.measures.get("hip")
        return worn.mm + USUAL if measured is None else max(measured + EASE, worn.mm + 2.0)

    def _drawn(self, one: Sector, notches: list[Crossing], context: Context) -> Piece:
        if self.kind == "gathered":
            self.gathered(self.ratio)
            lengths = [format_length(mm, context.scope.unit) for mm in (one.inner * self.ratio, one.inner)]
            return gathered_half(one, notches, self.ratio, f"gather {lengths[0]} to {lengths[1]}")
        if self.kind == "pleated":
            return pleated_half(one, notches, self.pleats, self.mm("underlay", "pleats", context, 1.0, 200.0))
        return sector(one, notches=notches)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """The waist raised first."""
        by = self.mm("raised_by", "a waist raised", context, 0.0, 200.0)
        if by == 0.0:
            return super().by_hand(pattern, context, way)
        text = "Draw a line {by} above the lower edge of front and back, all round, darts shut, and cut along it."
        above = raised(pattern, self.names(), by)
        return (line("raise", text, by=format_length(by, context.scope.unit)), *super().by_hand(above, context, way))

    def hand_text(self) -> str:
        """By its kind."""
        ways = {
            "circle": f"Its inner radius is that length through 2 pi and {self.part:g}; the hem lies {self.depth} further out.",
            "slashed": f"Draw strips {self.depth} deep, slash each half {self.slashes} times and spread each by {self.spread}.",
            "gathered": f"Draw strips {self.depth} deep, {self.ratio:g} times as long.",
            "pleated": f"Draw strips {self.depth} deep, with {self.pleats} pleats a half that take twice {self.underlay} each.",
            "shaped": f"Draw part of a circle as wide as the hip {self.hip_at} below the waist, {self.depth} deep.",
        }  # fmt: skip
        return f"{ways[self.kind]} The {{name}} goes from the centre to the side seam."


STEP = Peplum
