"""line.cut: a free style line from seam to seam, or a heart or keyhole at the centre: two partners that sew together."""

from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.cut import lips
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.style_lines import at_centre, bowed, crossed
from zesty_pivot.core.piece import Pattern, Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line, place_line
from zesty_pivot.core.procedures.line_across import shut_under
from zesty_pivot.core.procedures.line_cutting import Cutting, cut_along
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.base import Step


class CutLine(Step):
    """The part with the centre and the top keeps the piece's name, the other gets one of its own: the same on every size."""

    title: ClassVar[str] = "Style line"
    summary: ClassVar[str] = (
        "Cut a piece along a line of your own, from seam to seam, or a heart or keyhole panel at the centre."
    )
    half_by_half: ClassVar[bool] = True

    do: Literal["line.cut"] = "line.cut"
    from_: Spot = Field(alias="from", description="where the line begins")
    to: Spot = Field(description="where it ends")
    shape: Literal["line", "heart", "keyhole"] = Field(default="line", description="a heart or keyhole runs from CF to CF")
    bow: Length = Field(default=0, description="how far the line stands off, to the right of its way when positive")
    peak: Share = Field(default="50%", description="where it stands off most")
    width: Length = Field(default="6 cm", description="of half a heart or keyhole")
    as_: str = Field(default="panel", alias="as", min_length=1, max_length=40, pattern=r"^[a-z][a-z0-9_ ]*$",
                     description="the new piece's name, after the name of the piece it is cut from")  # fmt: skip
    keeps: Literal["upper", "lower", "centre", "side", "larger"] | None = Field(
        default=None, description="the part that keeps the piece's name; what holds the centre and the top when not given"
    )

    def words(self) -> str:
        """`style line from mid armhole to waist, 20%`."""
        what = "style line" if self.shape == "line" else f"{self.shape} panel"
        return f"{what} from {self.from_.words()} to {self.to.words()}"

    def _ends(self, piece: Piece, context: Context) -> tuple[Place, Place]:
        pivot = piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")
        block = context.block.drafted(piece)
        start, stop = (resolve(spot, piece, block, context.scope, pivot) for spot in (self.from_, self.to))
        if start == stop:
            raise StepError("the line begins where it ends", where=self.on, advice="Choose two places.")
        return start, stop

    def _line(self, piece: Piece, start: Place, stop: Place, context: Context) -> Path:
        if self.shape == "line":
            peak = share_of(self.peak)
            if not 0.1 <= peak <= 0.9:
                raise StepError("the line stands off most at its end", where=self.on, advice="Enter 10% to 90% of the way.")
            bow = length_mm(self.bow, context.scope)
            # Where a dart opens at an end there are two to begin at: the one from which the line passes beside the dart.
            drawn = [bowed(one, two, bow, peak) for one in lips(piece, start) for two in lips(piece, stop)]
            return next((path for path in drawn if not crossed(piece, path)), drawn[0])
        ends = places.point(piece, start), places.point(piece, stop)
        if any(
            piece.role(piece.runs[place.run].edge) != "centre" and not self._at_centre(piece, place) for place in (start, stop)
        ):
            raise StepError(f"a {self.shape} runs from CF to CF", where=self.on, advice="Begin and end it on the centre.")
        width = length_mm(self.width, context.scope)
        if width <= 0.0:
            raise StepError(f"a {self.shape} must be wider than 0", where=self.on, advice="Enter half its width.")
        if ends[0][1] > ends[1][1]:
            raise StepError(f"the {self.shape} must end below its start", where=self.on, advice="Swap the two places.")
        return at_centre(self.shape, *ends, width)

    @staticmethod
    def _at_centre(piece: Piece, place: Place) -> bool:
        """Whether a place is an end of the centre."""
        return places.is_joint(piece, place) and piece.role(piece.runs[piece.after(place.run)].edge) == "centre"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with both parts. Raises StepError, PlaceError or GeometryError when it cannot be cut."""
        return cut_along(pattern, self._cutting(context), context)

    def _cutting(self, context: Context) -> Cutting:
        return Cutting(
            self.on,
            f"{self.on}_{self.as_.replace(' ', '_')}",
            lambda piece: self._ends(piece, context),
            lambda piece, start, stop: self._line(piece, start, stop, context),
            self._named,
        )

    def _named(self, one: Piece, two: Piece, line_: Path) -> tuple[Piece, Piece]:
        """The part that keeps the piece's name, then the other."""
        if self.shape != "line" and self.keeps is None:
            return (two, one) if _is_shape(one) else (one, two)
        kept = self.keeps or ("upper" if _lies_across(one, two, line_) else "centre")
        if kept == "larger":
            return (one, two) if one.area >= two.area else (two, one)
        upper, inner = (one, two) if _height(one) <= _height(two) else (two, one), _by_centre(one, two)
        first, second = upper if kept in ("upper", "lower") else inner
        return (first, second) if kept in ("upper", "centre") else (second, first)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Mark both places, draw, notch, cut; the same in both ways."""
        self.apply(pattern, context)
        pattern, away, _told = shut_under(pattern, self.on, self._cutting(context).drawn, context)
        piece, unit = pattern.piece(self.on), context.scope.unit
        start, stop = self._ends(piece, context)
        drawn = self._line(piece, start, stop, context)
        pivot = piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")
        shut = " and ".join(f"{name} dart" for name in away.values())
        found = [place_line(spot, piece, context.scope, pivot) for spot in (self.from_, self.to)]
        if away:
            text = "Fold the {darts} of the {on} shut from the mouth to the point and pin it: the line is drawn over it."
            found.insert(0, line("fold_shut", text, darts=shut, on=words(self.on)))
        if self.shape == "line":
            off = format_length(abs(length_mm(self.bow, context.scope)), unit)
            text = "Join both places by a line that stands off by {off} at {peak} of the way."
            found.append(line("draw_line", text, off=off, peak=f"{100.0 * share_of(self.peak):.4g}%"))
        else:
            text = "Draw half a {shape} between both places, {width} wide."
            found.append(
                line("draw_shape", text, shape=self.shape, width=format_length(length_mm(self.width, context.scope), unit))
            )
        text = "Notch it, write a grain line on both parts, and cut along it: it is {long} long."
        found.append(line("cut_line", text, long=format_length(drawn.length, unit)))
        if away:
            text = "Unfold the {darts} in the part that holds the point; in the other part tape the fold down for good."
            found.append(line("fold_open", text, darts=shut))
        return tuple(found)


def _is_shape(piece: Piece) -> bool:
    """Whether a part is a heart or keyhole itself: it has the centre and the line, and nothing else."""
    return {role for _edge, role in piece.roles} <= {"centre", STYLE_LINE}


def _lies_across(one: Piece, two: Piece, line_: Path) -> bool:
    """Whether a line parts a piece into an upper and a lower part rather than into an inner and an outer one: both hold some of
    the centre, or neither does and the line runs more level than upright."""
    held = [_centre_length(part) > 0.0 for part in (one, two)]
    if held[0] != held[1]:
        return False
    way = line_.end - line_.start
    return all(held) or abs(float(way[0])) >= abs(float(way[1]))


def _centre_length(piece: Piece) -> float:
    return sum(run.path.length for run in piece.runs if piece.role(run.edge) == "centre")


def _by_centre(one: Piece, two: Piece) -> tuple[Piece, Piece]:
    """The part that holds the centre, or more of it, first; of two without any the one that lies nearer to it."""
    held = [_centre_length(part) for part in (one, two)]
    if held[0] != held[1]:
        return (one, two) if held[0] > held[1] else (two, one)
    return (one, two) if _middle(one)[0] <= _middle(two)[0] else (two, one)


def _height(piece: Piece) -> float:
    """How high a part lies on the body: the top of its centre, else its middle; smaller is higher."""
    ends = [float(end[1]) for run in piece.runs if piece.role(run.edge) == "centre" for end in (run.path.start, run.path.end)]
    return min(ends, default=_middle(piece)[1])


def _middle(piece: Piece) -> tuple[float, float]:
    """The middle of a piece's outline, mm."""
    lows = np.min([run.path.box()[0] for run in piece.runs], axis=0)
    highs = np.max([run.path.box()[1] for run in piece.runs], axis=0)
    return float(lows[0] + highs[0]) / 2.0, float(lows[1] + highs[1]) / 2.0


STEP = CutLine
