"""trim.armhole: the armholes for a sleeveless style: underarm lowered or raised, shoulder cut in, razor back."""

import math
from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.cut import part_run
from zesty_pivot.core.moves.shaping import displaced
from zesty_pivot.core.piece import Pattern, Piece, Run, Source, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.bodice_halves import half_of
from zesty_pivot.core.procedures.clearing import brought_back, cleared, first_way
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.side_let_out import side_let_out
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import FrontAndBackStep

LEFT_OVER = 5.0  # mm of shoulder that is left at least
# Where a dart goes that a razor back cuts off, the likeliest first: into what is cut away.
CUT_OFF = (
    Spot(station="mid_armhole"), Spot(edge="armhole", at="30%"), Spot(edge="armhole", at="70%"), Spot(station="shoulder_tip"),
    Spot(edge="armhole", at="15%"), Spot(edge="armhole", at="85%"),
)  # fmt: skip

BEND = 30.0  # mm over which a razor's strap line is led into its narrowest place. Our own choice
MOST_LOWER = 120.0  # mm; more is another garment. Common practice, no source.


class TrimArmhole(FrontAndBackStep):
    """Draws both armholes anew from the shoulder to the side seam, on the pieces with their upper darts put away."""

    title: ClassVar[str] = "Armhole"
    summary: ClassVar[str] = "For a sleeveless style: lower or raise the underarm, cut the shoulder in, make a razor back."
    half_by_half: ClassVar[bool] = True

    do: Literal["trim.armhole"] = "trim.armhole"
    shoulder_in: Length = Field(default=0, description="how far the shoulder is cut in from its tip")
    # Lowered 1/2 in: common practice, no source.
    lower: Length = Field(default="1/2 in", description="how far the underarm is lowered; negative raises it")
    widen: Length = Field(default=0, description="how far the side comes out at the underarm; negative takes it in")
    back: Literal["plain", "razor"] = Field(default="plain", description="the back's armhole")
    # 2 in from CB at the chest line: common practice, no source.
    razor: Length = Field(default="2 in", description="half width of a razor back at the chest line")

    def words(self) -> str:
        """`armhole, 1/2 in lower, shoulder 2 cm in`."""
        parts = ["razor back"] if self.back == "razor" else []
        parts += [f"{self.lower} lower"] if str(self.lower) not in ("0", "0.0") else []
        parts += [f"shoulder {self.shoulder_in} in"] if str(self.shoulder_in) not in ("0", "0.0") else []
        return "armhole, " + (", ".join(parts) if parts else "as it is")

    def _asked(self, bodice: BodiceHalf, context: Context) -> tuple[float, float, float]:
        unit = context.scope.unit
        inwards, lower, widen = (length_mm(mm, context.scope) for mm in (self.shoulder_in, self.lower, self.widen))
        most = bodice.shoulder.length - LEFT_OVER
        if not 0.0 <= inwards <= most:
            what = f"the shoulder cannot be cut in by {format_length(inwards, unit)}"
            raise StepError(what, where=bodice.piece.name, advice=f"Enter 0 to {format_length(most, unit)}.")
        room = min(MOST_LOWER, bodice.side.paths[0].length - 10.0)
        if not -40.0 <= lower <= room:
            what = f"the underarm cannot be lowered by {format_length(lower, unit)}"
            advice = f"Enter up to {format_length(room, unit)}, or raise it by at most {format_length(40.0, unit)}."
            raise StepError(what, where=bodice.piece.name, advice=advice)
        if abs(widen) > 60.0:
            what = f"the side cannot be moved by {format_length(abs(widen), unit)}"
            raise StepError(what, where=bodice.piece.name, advice=f"Enter up to {format_length(60.0, unit)}.")
        return inwards, lower, widen

    def _one(self, pattern: Pattern, asked: str, context: Context) -> tuple[Pattern, Path, list[Note]]:
        name = _with_armhole(pattern, asked)
        is_razor = self.back == "razor" and asked == self.other
        outside: set[str] = set()
        if is_razor:
            pattern, outside = self._outside(pattern, name, context)
        # A razor's line runs far in: across a slash to the side, where darts would wait else.
        made = (
            cleared(pattern, name, context, outside, ("mid_neck", "centre_neck", "waist"), ("shoulder", "armhole"))
            if is_razor
            else cleared(pattern, name, context, outside)
        )
        piece = made.pattern.piece(name)
        bodice = half_of(piece, context.block.drafted(piece), context.scope.unit)
        inwards, lower, widen = self._asked(bodice, context)
        if is_razor:
            stretches = [self._razor(bodice, inwards, lower, context)]
        else:
            old = bodice.armhole
            ends = bodice.shoulder.point_at(bodice.shoulder.length - inwards), _side_point(bodice, lower)
            knots = [(0.0, ends[0] - old.start), (old.length, ends[1] - old.end)]
            stretches = list(displaced(list(old.paths), knots, held=(True, True)))
        drawn = _redrawn(piece, bodice, stretches, inwards, lower)
        pattern, notes = brought_back(
            made.pattern.with_piece(drawn), piece, name, made.darts, (), context, eased=False
        )  # fmt: skip
        pattern = pattern.with_piece(side_let_out(pattern.piece(name), context.block, widen, 0.0))
        before = context.block.drafted(piece).edge(_armhole(piece)).sewn_length
        after = sum(run.path.length for run in pattern.piece(name).runs if pattern.piece(name).role(run.edge) == "armhole")
        unit = context.scope.unit
        change = f"{format_length(abs(after - before), unit)} {'longer' if after >= before else 'shorter'}"
        text = f"the {words(name)} armhole measures {format_length(after, unit)}, {change}"
        return pattern, Path.chain(_closed(stretches)), [Note(text, name, after), *made.notes, *notes]

    def _outside(self, pattern: Pattern, name: str, context: Context) -> tuple[Pattern, set[str]]:
        """Darts whose pivots a razor back cuts off, moved to the armhole, with which they go; and these pivots."""
        piece = pattern.piece(name)
        bodice = half_of(piece, context.block.drafted(piece), context.scope.unit)
        inwards, lower, _widen = self._asked(bodice, context)
        points = self._razor(bodice, inwards, lower, context).outline
        gone: set[str] = set()
        for dart in piece.darts:
            x, y = piece.pivot(dart.pivot)
            order = np.argsort(points[:, 1])
            if y < points[:, 1].max() and x > float(np.interp(y, points[order, 1], points[order, 0])):
                gone.add(dart.pivot)
                if piece.role(piece.dart_edge(dart.id)) != "armhole":
                    made = first_way(pattern, name, dart.id, CUT_OFF, context)
                    if made is None:
                        what = f"the {dart_words(piece, dart.id)} dart is in the way of the razor back"
                        raise StepError(what, where=name, advice="Move it to the side seam first, or make it wider.")
                    pattern = made.pattern
        return pattern, gone

    def _razor(self, bodice: BodiceHalf, inwards: float, lower: float, context: Context) -> Path:
        """Straight from the shoulder to the narrowest place, which lies on the chest line, then out to the underarm."""
        wide = length_mm(self.razor, context.scope)
        start, stop = bodice.shoulder.point_at(bodice.shoulder.length - inwards), _side_point(bodice, lower)
        low = min(bodice.top + bodice.chest, float(stop[1]) - 3.0)
        narrow = np.array([float(bodice.nape[0]) + wide, low])
        if not 5.0 <= wide < float(stop[0] - bodice.nape[0]) - 10.0:
            most = format_length(float(stop[0] - bodice.nape[0]) - 10.0, context.scope.unit)
            what = f"a razor back of {format_length(wide, context.scope.unit)} does not fit"
            raise StepError(what, where=bodice.piece.name, advice=f"Enter 0.5 cm to {most}.")
        # A straight strap line, led upright into the narrowest place.
        bend = min(BEND, 0.25 * float(narrow[1] - start[1]))
        corner = narrow - np.array([0.0, bend])
        away = start - corner
        above = corner + away * (bend / math.hypot(*away))
        led = [above, above + (corner - above) * 0.6, narrow + (corner - narrow) * 0.6, narrow]
        along = bodice.side.direction_at(max(lower, 0.0))
        square = np.array([-along[1], along[0]])
        # It turns out above the underarm's height, however near that is.
        on = min(math.dist(narrow, stop) / 3.0, 0.8 * float(stop[1] - narrow[1]))
        turn = [narrow, narrow + np.array([0.0, on]), stop + square * math.dist(narrow, stop) * 0.4, stop]
        return Path.chain([Path.straight(start, above), Path(np.array([led, turn]))])

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with both armholes. Raises StepError, PlaceError or GeometryError when they cannot be drawn."""
        notes: list[Note] = []
        for name in self.names():
            pattern, _drawn, mine = self._one(pattern, name, context)
            notes += mine
        return Outcome(pattern, tuple(notes))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Marks on shoulder and side, the curve, its length; the same in both ways."""
        unit, found = context.scope.unit, []
        for name in self.names():
            pattern, drawn, _notes = self._one(pattern, name, context)
            inwards, lower = length_mm(self.shoulder_in, context.scope), length_mm(self.lower, context.scope)
            tip = f"{format_length(inwards, unit)} from the shoulder tip inwards" if inwards > 0.0 else "at the shoulder tip"
            where = "below" if lower > 0.0 else "above"
            under = f"{format_length(abs(lower), unit)} {where} the underarm" if lower else "at the underarm"
            text = "On the {on}, mark {marks}, and draw the armhole from mark to mark: it measures {long}."
            figures = {"marks": f"{tip} and {under}", "long": format_length(drawn.length, unit)}
            found.append(line("armhole", text, on=words(name), **figures))
        return tuple(found)


def _with_armhole(pattern: Pattern, name: str) -> str:
    """The piece that has the armhole from the shoulder to the side seam: itself, or one of its panels. Raises StepError when it
    is on more than one, PlaceError for a piece that is not there."""
    parts = pattern.come_from(name)
    if pattern.has(name) or not parts:
        return pattern.piece(name).name
    held = [piece for piece in parts if "armhole" in dict(piece.roles).values()]
    if len(held) != 1 or not {"shoulder", "side_seam"} <= set(dict(held[0].roles).values()):
        what = f"the armhole of the {words(name)} is on more than one panel"
        raise StepError(what, where=name, advice="Do this before the style line.")
    return held[0].name


def _armhole(piece: Piece) -> str:
    return next(edge for edge, role in piece.roles if role == "armhole")


def _side_point(bodice: BodiceHalf, lower: float) -> np.ndarray:
    """The underarm lowered along the side seam, or raised straight on from it."""
    if lower >= 0.0:
        return bodice.side.point_at(lower)
    point: np.ndarray = bodice.side.start + bodice.side.direction_at(0.0) * lower
    return point


def _closed(stretches: list[Path]) -> list[Path]:
    """Stretches that meet; a step between two is closed by a straight line."""
    found = [stretches[0]]
    for path in stretches[1:]:
        if np.abs(path.start - found[-1].end).max() > 1e-6:
            found.append(Path.straight(found[-1].end, path.start))
        found.append(path)
    return found


def _redrawn(piece: Piece, bodice: BodiceHalf, stretches: list[Path], inwards: float, lower: float) -> Piece:
    """The piece with new armhole runs, its shoulder and side seam cut off or led to them."""
    shoulder = next(edge for edge, role in piece.roles if role == "shoulder")
    old = [run for run in piece.runs if piece.role(run.edge) == "armhole"]
    if len(stretches) == len(old):
        new = [replace(run, path=path) for run, path in zip(old, stretches, strict=True)]
    else:
        new = [Run(old[0].edge, stretches[0], Source(f"{piece.of or piece.name}.razor", 0.0, 1.0))]
    if inwards > 0.0:
        piece, last = part_run(piece, places.along(piece, shoulder, bodice.shoulder.length - inwards))
    else:
        last = max(index for index, run in enumerate(piece.runs) if run.edge == shoulder)
    runs = [*piece.runs[: last + 1], *new]
    rest = [run for run in piece.runs[last + 1 :] if piece.role(run.edge) not in ("armhole", "shoulder")]
    if not rest:  # a front that was taped to the side panel, turned over, not the panel to it
        what = f"the armhole of the {words(piece.name)} does not run from the shoulder to the side"
        raise StepError(what, where=piece.name, advice="Tape the side panel to the front or back, not the other way round.")
    side = rest[0]
    if lower > 0.0:
        _before, after = side.source.parted(lower / side.path.length)
        side = replace(side, path=side.path.split_at(lower)[1], source=after)
    elif lower < 0.0:
        up = Path.straight(new[-1].path.end, side.path.start)
        side = replace(side, path=Path.chain([up, side.path]))
    whole = (*runs, side, *rest[1:])
    mouths = {run.mouth for run in whole}
    gone = [dart for dart in piece.darts if dart.id not in mouths]
    pins = {dart.pivot for dart in gone}
    return replace(
        piece,
        runs=whole,
        darts=tuple(dart for dart in piece.darts if dart.id in mouths),
        landmarks={name: at for name, at in piece.landmarks.items() if name not in pins},
        added=(*piece.added, *((dart.pivot, -piece.angle(dart.id)) for dart in gone)),
    )


STEP = TrimArmhole
