"""yoke.join: front and back yoke joined at the shoulder, the seam moved forward before; or only moved forward."""

from __future__ import annotations

from typing import ClassVar, Literal

from pydantic import Field

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.forward_shoulder import moved_forward, straightened
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.procedures.taping import seam_between, taped
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.steps.base import FrontAndBackStep

# Shoulders that differ by more than this (mm) are trued before they are joined; the back's is usually eased in by some 3 to 5
# mm, which a joined yoke cannot be. Common practice, no source.
MOST_APART = 12.0

YOKE = "yoke"  # what the joined piece is called


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
        unit, notes = context.scope.unit, []
        edges = self._edges(pattern)
        for name, edge in zip((self.on, self.other), edges, strict=True):
            flat, off = straightened(pattern.piece(name), edge)
            if off > 0.0:
                pattern = pattern.with_piece(flat)
                text = f"the step in the shoulder of the {words(name)} is trued, {format_length(off, unit, fine=True)}"
                notes.append(Note(text, name, off))
        apart = pattern.piece(self.on).edge(edges[0]).sewn_length - pattern.piece(self.other).edge(edges[1]).sewn_length
        by = 0.0 if self.forward is None else length_mm(self.forward, context.scope)
        if by < 0.0 or (self.seam == "kept" and by == 0.0):
            raise StepError(
                "the shoulder seam moves forward by more than 0", where=self.on, advice="Enter a length such as 2 cm."
            )
        if abs(apart) > MOST_APART:
            gap = format_length(abs(apart), unit, fine=True)
            raise StepError(f"the shoulders differ by {gap}", where=self.on, advice="True the shoulders first.")
        if abs(apart) > 0.01:
            which = self.other if by > 0.0 or self.grain == "front" else self.on
            text = (
                f"the shoulder of the {words(which)} is made as long as the other, {format_length(abs(apart), unit, fine=True)}"
            )
            notes.append(Note(text, which, abs(apart)))
        if by > 0.0:
            before = pattern.piece(self.on).area
            pattern = moved_forward(pattern, self.on, self.other, edges, by, unit)
            moved = (before - pattern.piece(self.on).area) / 100.0
            text = f"the shoulder seam is {format_length(by, unit)} forward: the back gains {moved:.0f} cm² of the front"
            notes.append(Note(text, self.on, by))
        if self.seam == "joined":
            first, second = (self.other, self.on) if self.grain == "back" else (self.on, self.other)
            pair = edges if first == self.on else (edges[1], edges[0])
            name = YOKE if not pattern.has(YOKE) and "yoke" in self.on else first
            made = taped(pattern, first, second, pair, name, unit, MOST_APART)
            pattern = made.pattern
            text = f"taped along {made.words}: the {self.grain}'s centre lies on the grain, the other's is a seam or opening"
            notes.append(Note(text, name, made.long_mm))
        return Outcome(pattern, tuple(notes))

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
