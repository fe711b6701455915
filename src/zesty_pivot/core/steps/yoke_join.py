"""yoke.join: front and back yoke joined at the shoulder, the seam moved forward before; or only moved forward."""

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.taping import seam_between
from zesty_pivot.core.procedures.yoke_joining import JoinAsked, join_yokes
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import FrontAndBackStep


class YokeJoin(FrontAndBackStep):
    """The joined yoke lies on the grain of the piece that is chosen; the other's centre is a seam or an opening."""

    title: ClassVar[str] = "Join yokes"
    summary: ClassVar[str] = "Join front and back yoke at the shoulder, or move the shoulder seam forward."
    half_by_half: ClassVar[bool] = True

    do: Literal["yoke.join"] = "yoke.join"
    on: str = Field(default="front_yoke", description="the front yoke, or the front", min_length=1)
    other: str = Field(default="back_yoke", description="the back yoke, or the back")
    forward: Length | None = Field(default=None, description="how far the shoulder seam is moved forward before; not when none")
    seam: Literal["joined", "kept"] = Field(default="joined", description="one piece, or the seam stays")
    grain: Literal["back", "front"] = Field(default="back", description="whose centre lies on the grain and on the fold")

    def words(self) -> str:
        """`join front yoke and back yoke, shoulder 2 cm forward`."""
        moved = "" if self.forward is None else f"shoulder {self.forward} forward"
        if self.seam == "kept":
            return moved or "shoulder seam as it is"
        return f"join {words(self.on)} and {words(self.other)}" + (f", {moved}" if moved else "")

    def _edges(self, pattern: Pattern) -> tuple[str, str]:
        return seam_between(pattern, self.on, self.other, role="shoulder")

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the yokes joined. Raises StepError or GeometryError when they cannot be."""
        forward = None if self.forward is None else length_mm(self.forward, context.scope)
        return join_yokes(JoinAsked(self.on, self.other, forward, self.seam == "kept", self.grain), pattern, context)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Draw, cut, tape; the same in both ways."""
        self.apply(pattern, context)
        unit, found = context.scope.unit, []
        names = {"on": words(self.on), "other": words(self.other)}
        if self.forward is not None:
            by = format_length(length_mm(self.forward, context.scope), unit)
            text = (
                "On the {on}, draw a line parallel to the shoulder, {by} below it. Notch the armhole at the old shoulder for "
                "the sleeve. Cut the strip off and tape it to the shoulder of the {other}."
            )
            found.append(line("forward", text, by=by, **names))
        if self.seam == "joined":
            long = format_length(pattern.piece(self.on).edge(self._edges(pattern)[0]).sewn_length, unit)
            text = "Lay the {on}, turned over, to the {other} so that both shoulders of {long} meet, and tape them."
            found.append(line("join", text, long=long, **names))
        return tuple(found)


STEP = YokeJoin
