"""neck.shape: the neckline of front and back drawn anew in one go, darts put away while it is drawn and brought back."""

from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field, FiniteFloat, model_validator

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.necklines.base import Asked
from zesty_pivot.core.necklines.registry import shape_of
from zesty_pivot.core.necklines.vest import left_of_shoulder
from zesty_pivot.core.piece import Measured, Pattern, Side
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.bodice_halves import block_half
from zesty_pivot.core.procedures.hand import Line, Way
from zesty_pivot.core.procedures.hand_neckline import neck_by_hand
from zesty_pivot.core.procedures.neckline_cut import carried_out
from zesty_pivot.core.procedures.neckline_edges import ROOM, NeckEdges, NeckTarget, drawn_on, follows_shoulder
from zesty_pivot.core.quantity import Scope, format_length, length_mm
from zesty_pivot.core.quantity.fields import Along, Length
from zesty_pivot.core.quantity.formula import distance_mm
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import FrontAndBackStep

UNEVEN = ("asymmetric", "one_shoulder")  # shapes that have a side

EVEN = 0.1  # mm that the two sides of a neckline may differ by and still be called halves

CLEAR = 20.0  # mm that it keeps from the lower end of the centre

Point = Annotated[tuple[FiniteFloat, FiniteFloat], Field(description="shares across and down")]


class ShapeNeck(FrontAndBackStep):
    """One shape for front and back: they meet at the same place of the shoulder, and cross it without a corner."""

    title: ClassVar[str] = "Neckline"
    summary: ClassVar[str] = "Draw the neckline of front and back: one of the shapes, or a curve of your own."
    half_by_half: ClassVar[bool] = True
    over_shoulders: ClassVar[bool] = True

    do: Literal["neck.shape"] = "neck.shape"
    shape: str = Field(
        default="round",
        max_length=40,
        description="round, square, rectangle, scoop, v, vest, sweetheart, queen_anne, canoe, keyhole, keyhole_yoke, scallop, "
        "slit, asymmetric, one_shoulder, off_shoulder, strapless, camisole, wrap, raised, funnel or free",
    )
    width: Length | None = Field(default=None, description="half width, square to the centre; from the block when not given")
    width_from: Literal["centre", "neck_point", "shoulder_tip", "shoulder_left"] = Field(
        default="centre",
        description="where the width is measured from; shoulder_left: what is left of the shoulder, along it",
    )
    depth: Length | None = Field(default=None, description="at the centre; from the block when not given")
    depth_from: Literal["neck_point", "centre_neck", "chest", "bust"] = Field(
        default="neck_point", description="the height the depth is measured from, downwards"
    )
    back: Literal["round", "v", "square", "deep", "keep", "razor"] | None = Field(
        default=None, description="the back's own shape"
    )
    back_depth: Length | None = Field(default=None, description="of the back at its centre, below the neck point")
    back_width: Length = Field(default="2 in", description="half the width of a camisole's razor back, at the chest line")
    turn: Length | None = Field(default=None, description="how far from the shoulder the edge begins to bend across it")
    corner: Length | None = Field(default=None, description="how near the curve passes the corner of its box")
    drop: Length | None = Field(default=None, description="how far down a side or a point lies below the neck point")
    bow: Length | None = Field(default=None, description="how far a V is bowed in towards the centre")
    arcs: int = Field(default=3, ge=2, le=7, description="how many scallops")
    lobe: Length | None = Field(default=None, description="height of a scallop")
    hole_start: Length | None = Field(default=None, description="where a keyhole begins, below the neckline")
    hole_width: Length | None = Field(default=None, description="half width of a keyhole")
    hole_height: Length | None = Field(default=None, description="from a keyhole's beginning to its widest place")
    hole_end: Length | None = Field(default=None, description="from a keyhole's widest place to its end")
    ends_on_seam: bool = Field(
        default=False, description="a keyhole ends on its yoke's seam, which crosses its widest place else"
    )
    end: Literal["round", "point", "heart"] | None = Field(default=None, description="how it ends at the centre")
    form: Literal["curve", "box", "straight", "heart"] | None = Field(
        default=None,
        description="an uneven edge: soft, or from a box corner curved or straight; a yoke's seam: curve, heart, straight",
    )
    slit: Length | None = Field(default=None, description="how far down a slit goes, below the neck point")
    open: Length | None = Field(default=None, description="how far half a slit is open at the top")
    under: Along | None = Field(default=None, description="along the armhole from the shoulder tip; 100% is the underarm")
    rise: Length | None = Field(default=None, description="how high a raised neck stands")
    inset: Length | None = Field(default=None, description="along the shoulder, where a raised neck begins")
    strap: Length | None = Field(default=None, description="finished width of the straps")
    lower: Length | None = Field(default=None, description="how far the underarm is lowered")
    widen: Length | None = Field(default=None, description="how far the side comes out at the underarm")
    flare: Length | None = Field(default=None, description="how far the side comes out at the lower edge")
    past: Length | None = Field(default=None, description="how far a wrap goes past the far waist dart")
    up: Length | None = Field(default=None, description="how far above the waist a wrap ends")
    side: Literal["left", "right"] = Field(default="left", description="the side as worn that an uneven shape changes")
    points: tuple[Point, ...] = Field(default=(), max_length=8, description="a free curve's points, from the centre outwards")
    stub: Literal["ease", "sew"] = Field(default="ease", description="a dart that is left too short to sew")

    @model_validator(mode="after")
    def _known(self) -> Self:
        try:
            shape_of(self.shape)
        except PlaceError as fault:
            raise ValueError(str(fault)) from fault
        return self

    def words(self) -> str:
        """`canoe, 1 in from the shoulder tip`."""
        found = shape_of(self.shape).title.lower() if self.shape not in ("v", "queen_anne") else shape_of(self.shape).title
        if self.shape in UNEVEN:
            found += f", {self.side} side"
        if self.width is not None:
            said = {"neck_point": "out", "shoulder_tip": "from the tip", "shoulder_left": "of the shoulder left"}
            found += f", {self.width} {said.get(self.width_from, 'wide')}"
        found += f", {self.depth} deep" if self.depth is not None else ""
        if self.under is not None:
            found += ", to the underarm" if self.under == "100%" else f", {self.under} down the armhole"
        return found

    # Numbers.

    def numbers(self, context: Context, name: str) -> dict[str, float]:
        """The shape's numbers (mm) on one piece: what is asked for, else the starting values from the block. Widths are from
        the centre, depths from the neck point. Raises StepError, PlaceError or FormulaError."""
        shape, bodice = shape_of(self.shape), block_half(context, name)
        found: dict[str, float] = {}
        for key, start in shape.starts.items():
            own = getattr(self, key)
            if own is None or (name != self.on and key in ("width", "depth", "drop")):
                found[key] = start(bodice, {**found, "arcs": float(self.arcs), "through": float(not self.ends_on_seam)})
                continue
            found[key] = self._placed(key, self._mm(key, own, bodice, context), bodice)
        if self.shape == "keyhole_yoke" and not self.ends_on_seam and self.drop is None and self.hole_height is not None:
            found["drop"] = found["depth"] + found["hole_start"] + found["hole_height"]  # the seam crosses the widest place
        return found

    @staticmethod
    def _mm(key: str, own: str | float, bodice: BodiceHalf, context: Context) -> float:
        """A number in mm; a place on the armhole may be a share of it, or a formula with its length."""
        if key != "under":
            return length_mm(own, context.scope)
        whole = bodice.armhole.length
        return distance_mm(own, whole, Scope(context.scope.unit, {"armhole": whole, **context.scope.measures}))

    def _placed(self, key: str, mm: float, bodice: BodiceHalf) -> float:
        if key == "width":
            if self.width_from == "shoulder_left":
                return left_of_shoulder(bodice, mm)
            return {"centre": mm, "neck_point": bodice.neck_x + mm, "shoulder_tip": bodice.tip_x - mm}[self.width_from]
        if key == "depth":
            if self.depth_from == "neck_point":
                return mm
            return mm + (bodice.natural if self.depth_from == "centre_neck" else bodice.level(self.depth_from))
        return mm

    def _asked(self, context: Context, name: str) -> Asked:
        shape = shape_of(self.shape)
        numbers = self.numbers(context, name)
        self._fits(numbers, block_half(context, name), name, context)
        end = self.end or (shape.at_end[0] if shape.at_end else "round")
        if shape.at_end and end not in shape.at_end:
            raise StepError(
                f"a {shape.title.lower()} cannot end like that",
                where=self.on,
                advice=f"Choose one of: {', '.join(shape.at_end)}.",
            )
        form = self.form or (shape.forms[0] if shape.forms else "")
        if shape.forms and form not in shape.forms:
            what = f"a {shape.title.lower()} has no such form"
            raise StepError(what, where=self.on, advice=f"Choose one of: {', '.join(shape.forms)}.")
        return Asked(numbers, self.arcs, end, self.points or shape.points, form, not self.ends_on_seam)

    def _fits(self, numbers: dict[str, float], bodice: BodiceHalf, name: str, context: Context) -> None:
        """Refuses what no block can give, with the nearest value that works."""
        unit = context.scope.unit

        def told(mm: float) -> str:
            return format_length(mm, unit)

        for key, mm in numbers.items():
            if mm < 0.0 and key != "bow":
                what = f"{shape_of(self.shape).words_for(key).lower()}: {told(mm)} is less than 0"
                raise StepError(what, where=name, advice="Enter 0 or more.")
        for key in ("strap", "hole_width", "hole_end", "rise"):
            if key in numbers and numbers[key] < 1.0:
                what = f"{shape_of(self.shape).words_for(key).lower()}: there is nothing left of it"
                raise StepError(what, where=name, advice=f"Enter {told(3.0)} or more.")
        most = bodice.lowest - CLEAR
        if "depth" in numbers and numbers["depth"] > most:
            what = f"a depth of {told(numbers['depth'])} below the neck point goes past the waist"
            raise StepError(what, where=name, advice=f"Enter up to {told(most)}.")
        if "depth" in numbers and numbers["depth"] < bodice.natural - 1e-6:
            what = f"a depth of {told(numbers['depth'])} below the neck point lies above the neckline of the block"
            raise StepError(what, where=name, advice=f"Enter {told(bodice.natural)} or more, or choose a raised shape.")
        if "width" in numbers and shape_of(self.shape).ends_on == "shoulder":
            low, high = bodice.neck_x, bodice.tip_x - ROOM
            if not low - 1e-6 <= numbers["width"] <= high + 1e-6:
                way = "wider than the shoulder" if numbers["width"] > high else "narrower than the neck of the block"
                what = f"a half width of {told(numbers['width'])} is {way}"
                raise StepError(what, where=name, advice=f"Enter {told(low)} to {told(high)} from the centre.")

    def kind_of_back(self) -> str:
        """The back's shape: as asked, else the one that goes with the shape."""
        return self.back or shape_of(self.shape).back

    # Making it.

    def _targets(self, pattern: Pattern, context: Context) -> list[NeckTarget]:
        """The pieces that change."""
        found = [NeckTarget(self.on, self._asked(context, self.on))]
        if self.other:
            if pattern.come_from(self.other) or pattern.has(self.other):
                found.append(NeckTarget(self.other, self._asked_back(context)))
            else:
                pattern.piece(self.other)
        return found

    def _asked_back(self, context: Context) -> Asked:
        """The back's numbers. Its width comes with the front's place on the shoulder."""
        if follows_shoulder(shape_of(self.shape)):
            return Asked({})
        asked, bodice = self._asked(context, self.other), block_half(context, self.other)
        numbers = dict(asked.numbers)
        if self.back_depth is not None:
            numbers["depth"] = length_mm(self.back_depth, context.scope)
        if self.kind_of_back() == "razor":  # the outer end of the strap's seat lies on the chest line
            numbers["width"] = length_mm(self.back_width, context.scope) - numbers["strap"] / 2.0
            numbers["drop"] = bodice.chest - numbers["strap"]
        self._fits(numbers, bodice, self.other, context)
        return replace(asked, numbers=numbers)

    def edges(self, pattern: Pattern, context: Context) -> NeckEdges:
        """The new edges as they are drawn on front and back. Raises as `apply` does."""
        targets = self._targets(pattern, context)
        turn = None if self.turn is None else length_mm(self.turn, context.scope)
        return drawn_on(pattern, targets, shape_of(self.shape), self._back(context), turn, context)

    def _back(self, context: Context) -> tuple[str, float | None]:
        kind = self.kind_of_back()
        if kind not in shape_of(self.shape).backs:
            what = f"a {kind} back does not suit this shape"
            raise StepError(what, where=self.on, advice=f"Choose one of: {', '.join(shape_of(self.shape).backs)}.")
        depth = None if self.back_depth is None else length_mm(self.back_depth, context.scope)
        return kind, depth

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the new neckline. Raises StepError, PlaceError, GeometryError or FormulaError when it cannot be."""
        made = self.apply_half(pattern, context)
        whole = self.settled(made.pattern, context)
        return Outcome(whole.pattern, (*whole.notes, *made.notes))

    def apply_half(self, pattern: Pattern, context: Context) -> Outcome:
        """The neckline drawn and cut, not yet measured. Raises as `apply` does."""
        edges = self.edges(pattern, context)
        made, notes = carried_out(edges, shape_of(self.shape), Side(self.side), context, eased=self.stub == "ease")
        return Outcome(made, tuple(notes))

    def settled(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with its finished neckline measured and written down."""
        unit = context.scope.unit
        whole = _neck_length(pattern)
        halves = [f"{half} {format_length(mm, unit)}" for half, mm in _half_lengths(pattern, self.names())]
        told = f"the finished neckline measures {format_length(whole, unit)} in all: {', '.join(halves)}"
        known = tuple(one for one in pattern.measured if one.role != "neckline")
        return Outcome(replace(pattern, measured=(*known, Measured("neckline", whole))), (Note(told, self.on, whole),))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Darts away, mark, draw, measure, cut, darts back; the same in both ways."""
        return neck_by_hand(shape_of(self.shape), self.edges(pattern, context), Side(self.side), context)


def _half_lengths(pattern: Pattern, names: list[str]) -> list[tuple[str, float]]:
    """How long half the finished neckline of each piece is, mm: what a hand measures along the edge, from CF or CB to the
    shoulder. Of a piece that is not the same left and right each has its own."""
    found: list[tuple[str, float]] = []
    for name in names:
        mine = [piece for piece in pattern.pieces if (piece.of or piece.name) == name]
        edges = [(piece, edge) for piece in mine for edge, role in piece.roles if role == "neckline"]
        halves = {
            side: sum(piece.edge(edge).sewn_length for piece, edge in edges if piece.sides.of(edge) is side) for side in Side
        }
        if any(halves.values()) and abs(halves[Side.LEFT] - halves[Side.RIGHT]) > EVEN:
            found += [(f"the {side.value} of the {words(name)}", mm) for side, mm in halves.items() if mm]
        elif edges:
            whole = sum(piece.times * piece.edge(edge).sewn_length for piece, edge in edges)
            found.append((f"half the {words(name)}", whole / 2.0))
    return found


def _neck_length(pattern: Pattern) -> float:
    """The finished neckline of all pieces, both halves, mm."""
    return sum(
        piece.times * piece.edge(edge).sewn_length
        for piece in pattern.pieces
        for edge, role in piece.roles
        if role == "neckline"
    )


STEP = ShapeNeck
