"""yoke.cut: a yoke, a midriff or a hip yoke cut off across a piece; the darts in it are shut into its seam."""

from collections.abc import Callable
from typing import Annotated, ClassVar, Literal, Self

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import unit
from zesty_pivot.core.piece import Body, Pattern, Piece, Side, Use
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.procedures.into_panels import free_name
from zesty_pivot.core.procedures.line_cutting import cut_along
from zesty_pivot.core.procedures.unfolding import unfolded
from zesty_pivot.core.procedures.waist_seam import cut_at_waist
from zesty_pivot.core.procedures.yoke_fullness import SeamDarts, opened_in_seam, shut_above_seam
from zesty_pivot.core.procedures.yoke_line import Kind, Shape, YokeLine
from zesty_pivot.core.procedures.yoke_seam import YokeSeam, sewn_as, with_piping
from zesty_pivot.core.procedures.yoke_taper import Begun, cut_with_taper, meeting
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Along, Length, NamesDart
from zesty_pivot.core.steps.base import Step


class YokeCut(Step):
    """The line runs from the centre to the armhole, or to the side seam; the part without it keeps the piece's name."""

    title: ClassVar[str] = "Yoke"
    summary: ClassVar[str] = "Cut off a yoke above or a midriff at the waist; darts in it are shut into its seam."
    half_by_half: ClassVar[bool] = True

    do: Literal["yoke.cut"] = "yoke.cut"
    kind: Kind = Field(default="yoke", description="above, round the waist, or from the waist to the hip")
    at: Along | None = Field(
        default=None, description="down the armhole from the shoulder tip; up or down the side seam from the waist"
    )
    right: Along | None = Field(
        default=None, description="the same on the right side as worn: the piece is unfolded for a yoke that is not even"
    )
    centre: Length | None = Field(
        default=None, description="how much lower it meets the centre; negative higher; level or straight when none"
    )
    shape: Shape = Field(default="straight", description="how the seam runs")
    depth: Length = Field(default="3 cm", description="how far a curve, a point or scallops hang down")
    arcs: int = Field(default=3, ge=1, le=7, description="how many scallops on this half")
    back_dart: Literal["taper", "stay"] = Field(
        default="taper", description="a back's shoulder dart: a taper of the seam at the armhole, or as it is"
    )
    led: Annotated[str | None, NamesDart()] = Field(
        default=None, description="a dart led to the seam, in the part that keeps the piece's name: the bust dart say"
    )
    seam: YokeSeam = Field(default="plain", description="how it is sewn: plain, lapped over what is below, or piped")
    cord: Length = Field(default="3 mm", description="how thick the cord of a piping is")
    seam_darts: SeamDarts = Field(default="sewn", description="what darts that open in the seam are used as")

    def words(self) -> str:
        """`curved yoke`."""
        shape = "" if self.shape == "straight" else f"{self.shape} "
        uneven = "" if self.right is None else "uneven "
        return f"{uneven}{shape}{'hip yoke' if self.kind == 'hip' else self.kind}"

    def line(self, context: Context) -> YokeLine:
        """Its seam on a half. Raises as `length_mm` does."""

        def mm(value: str | float | None) -> float | None:
            return None if value is None else length_mm(value, context.scope)

        depth = length_mm(self.depth, context.scope)
        return YokeLine(self.on, self.kind, self.shape, self.at, mm(self.centre), depth, self.arcs, self.right)

    # The two sides of a whole piece.

    def readied(self, pattern: Pattern) -> Pattern:
        """With its piece unfolded where the seam is not even."""
        is_half = self.right is not None and pattern.has(self.on) and pattern.piece(self.on).fold is not None
        return unfolded(pattern, self.on) if is_half else pattern

    def for_side(self, side: Side, half: Pattern, context: Context) -> Self:
        """With what `at` is on this side, and on the other one."""
        if self.right is None:
            return self
        piece = half.piece(self.on)
        at = self.at if self.at is not None else f"{self.line(context).usual(piece, context)!r} mm"
        ends = (at, self.right) if side is Side.LEFT else (self.right, at)
        mine = self.model_copy(update={"at": ends[0], "right": ends[1]})
        return mine.model_copy(update={"centre": f"{mine.line(context).joined(half, context).centre!r} mm"})

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the yoke as a piece of its own. Raises StepError, PlaceError or GeometryError when it cannot be."""
        if self.right is not None:
            what = "a yoke that is not even needs a piece with both sides"
            raise StepError(what, where=self.on, advice="Choose one that lies on the fold, or leave the right side out.")
        made = self.apply_half(pattern, context)
        return made.then(self.settled(made.pattern, context))

    def settled(self, pattern: Pattern, context: Context) -> Outcome:
        """With the strip of a piping."""
        if self.seam != "piped":
            return Outcome(pattern)
        over, under = pattern.lines[-1].panels[:: 1 if self.kind == "hip" else -1]
        return with_piping(pattern, over, under, length_mm(self.cord, context.scope), context)

    def apply_half(self, pattern: Pattern, context: Context) -> Outcome:
        """The yoke of a half. Raises as `apply` does."""
        if self.kind == "hip":
            return self._hip(pattern, context)
        seamed, names = Outcome(pattern), self._names(pattern)
        if self.kind == "midriff" and pattern.piece(self.on).fisheyes:
            seamed = cut_at_waist(pattern, self.on, self._skirt(pattern), context)
        asked = self.line(context).cutting(names[0], context)
        piece = seamed.pattern.piece(self.on)
        dart = self._tapering(piece, context)
        if dart is None:
            made = cut_along(seamed.pattern, asked, context)
        else:
            made = cut_with_taper(seamed.pattern, asked, dart, self._beyond(context), context)
        return self._opened(seamed.then(made), names, context)

    def _names(self, pattern: Pattern) -> tuple[str, str]:
        """What the yoke will be called, and what it is sewn to."""
        kind = "hip_yoke" if self.kind == "hip" else self.kind
        wanted = self.on if self.on.endswith(f"_{kind}") else f"{self.on}_{kind}"  # of a yoke the second one
        return free_name(pattern, wanted), self._skirt(pattern) if self.kind == "hip" else self.on

    def _skirt(self, pattern: Pattern) -> str:
        return free_name(pattern, f"{self.on}_skirt")

    def _hip(self, pattern: Pattern, context: Context) -> Outcome:
        """Cut at the waist, then below it."""
        names = yoke, skirt = self._names(pattern)
        seamed = cut_at_waist(pattern, self.on, yoke, context)
        below = self.model_copy(update={"on": yoke}).line(context)
        made = seamed.then(cut_along(seamed.pattern, below.cutting(skirt, context), context))
        made = made.then(shut_above_seam(made.pattern, yoke, context))
        return self._opened(made, names, context)

    def _beyond(self, context: Context) -> Callable[[Path, float], Begun]:
        """How a seam goes on beyond a dart that is a taper of it."""
        seam = self.line(context)

        def run(drawn: Path, at: float) -> Begun:
            """Scallops end at the dart's point, level with their beginning; any other seam goes as it was drawn."""
            if self.shape == "scalloped":
                way = unit(drawn.end - drawn.start)
                return seam.run(drawn.start, drawn.start + way * float((drawn.point_at(at) - drawn.start) @ way), 0.0), way
            first = drawn.split_at(at)[0]
            return first, first.end_direction

        return run

    def _opened(self, made: Outcome, names: tuple[str, str], context: Context) -> Outcome:
        """With what opens in the seam, and how it is sewn, as it is asked for."""
        seam, (over, under) = made.pattern.lines[-1].id, names
        made = made.then(opened_in_seam(made.pattern, under, seam, self.led, self.seam_darts, context))
        return made.then(sewn_as(made.pattern, self.seam, over, under, seam, context))

    def _tapering(self, piece: Piece, context: Context) -> str | None:
        """The shoulder dart of a back that goes into the seam: the one whose point lies near it. One that shares its pivot with
        another stays: that one cannot be led along."""
        if self.back_dart != "taper" or self.kind != "yoke" or piece.body is not Body.BACK:
            return None
        drawn = self.line(context).cutting("", context).drawn(piece)
        for dart in piece.darts:
            role = piece.role(piece.dart_edge(dart.id))
            if sum(other.pivot == dart.pivot for other in piece.darts) > 1:
                continue
            if dart.use is Use.DART and role in ("shoulder", "neckline") and meeting(piece, dart.id, drawn) is not None:
                return dart.id
        return None

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Fold darts shut, mark, draw, notch, cut; the same in both ways."""
        made, role = self.apply_half(pattern, context).pattern, self.line(context).role
        name, below = self._names(pattern)
        yoke, unit = made.piece(name), context.scope.unit
        found = {its: sum(yoke.edge(id).sewn_length for id, own in yoke.roles if own == its) for its in (role, "centre")}
        ends = ("from the shoulder tip down", "from the neckline down") if self.kind == "yoke" else ("up", "up")
        text = (
            "On the {on}, fold the darts that the seam meets shut. Mark {at} along the {edge}, {outer}, and {middle} along the "
            "{centre}, {inner}; draw the {shape} seam from mark to mark. Notch it and cut along it: it is {long} long."
        )
        figures = {"at": found[role], "middle": found["centre"], "long": yoke.edge(made.lines[-1].id).sewn_length}
        names = {"on": words(self.on), "edge": words(role), "centre": centre_words(self.on), "shape": self.shape}
        told = {key: format_length(mm, unit) for key, mm in figures.items()}
        if self.kind == "hip":
            ends = ("from the waist down", "from the waist down")
        return (*self._waist_by_hand(pattern), line("yoke", text, outer=ends[0], inner=ends[1], **names, **told),
                *self._seam_by_hand(made.piece(below)))  # fmt: skip

    def _waist_by_hand(self, pattern: Pattern) -> list[Line]:
        """What is done first where the piece goes on below the waist."""
        if self.kind != "hip" and not (self.kind == "midriff" and pattern.piece(self.on).fisheyes):
            return []
        text = "Notch the {on} on its waist line and cut along it: a fish-eye dart is a dart above and a dart below."
        return [line("waist_seam", text, on=words(self.on))]

    def _seam_by_hand(self, below: Piece) -> list[Line]:
        """What is done with the darts of the seam."""
        found = []
        if self.led is not None:
            pivot = words(below.dart(self.led).pivot) if below.has_dart(self.led) else "point"
            text = "Slash the {on} from the seam to the {pivot} of the {dart} dart, and shut that dart: the slash opens."
            found.append(line("led", text, on=words(below.name), pivot=pivot, dart=words(self.led)))
        if self.seam_darts != "sewn":
            text = "Notch the seam where the {use} lie, and draw it across the mouth."
            found.append(line("seam_darts", text, use=self.seam_darts))
        return found


STEP = YokeCut
