"""fullness.flare: an edge slashed at several places to hinges on another edge, each slash spread by the same amount."""

from __future__ import annotations

import math
from typing import ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.moves.spread import wedge
from zesty_pivot.core.piece import Pattern, Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way, arc_figures, line
from zesty_pivot.core.quantity import format_length, length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.base import Step

MOST = 12


class Flare(Step):
    """Spreads an edge evenly; every slash hinges at the far edge, whose length stays."""

    title: ClassVar[str] = "Flare an edge"
    summary: ClassVar[str] = "Slash an edge at several places to hinges on another edge and spread each by the same amount."

    do: Literal["fullness.flare"] = "fullness.flare"
    edge: str = Field(default="waist", description="the edge that becomes wider", min_length=1)
    hinge: str = Field(default="shoulder", description="the edge that the slashes hinge on", min_length=1)
    count: int = Field(default=3, description="how many slashes", ge=1, le=MOST)
    by: Length = Field(default="3 cm", description="how far each opens")
    start: Share = Field(default="20%", description="where the first slash begins, along the edge")
    stop: Share = Field(default="80%", description="where the last slash begins")
    hinge_start: Share = Field(default="20%", description="where the first hinge is, from the other end of its edge")
    hinge_stop: Share = Field(default="80%", description="where the last hinge is")

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        for low, high in ((self.start, self.stop), (self.hinge_start, self.hinge_stop)):
            if share_of(low) > share_of(high) or (share_of(low) == share_of(high) and self.count > 1):
                raise ValueError("the first place lies before the last")
        return self

    def words(self) -> str:
        """`flare the waist by 3 slashes of 3 cm`."""
        return f"flare the {words(self.edge)} by {self.count} slash{'es' if self.count > 1 else ''} of {self.by}"

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern flared. Raises StepError or GeometryError when a slash has no clear way."""
        piece = before = pattern.piece(self.on)
        for place, hinge, angle, _reach in self._slashes(before, context):
            at, stop = (places.by_origin(piece, places.origin_of(before, spot)) for spot in (place, hinge))
            piece = wedge(piece, at, stop, angle)
        change = piece.edge(self.edge).sewn_length - before.edge(self.edge).sewn_length
        text = f"the {words(self.edge)} is {format_length(change, context.scope.unit)} longer; the {words(self.hinge)} stays"
        return Outcome(pattern.with_piece(piece), (Note(text, self.on, change),))

    def _slashes(self, piece: Piece, context: Context) -> list[tuple[Place, Place, float, float]]:
        """Each slash: its place, its hinge, its angle (radians) and its length (mm)."""
        if self.edge == self.hinge:
            raise StepError("the hinges lie on the edge that is flared", where=self.on, advice="Choose another edge for them.")
        by, unit = length_mm(self.by, context.scope), context.scope.unit
        if by <= 0.0:
            raise StepError("the slashes must open by more than 0", where=self.on, advice="Enter an amount such as 3 cm.")
        ends = [piece.edge(edge).sewn_length for edge in (self.edge, self.hinge)]
        found: list[tuple[Place, Place, float, float]] = []
        for number in range(self.count):
            share = number / (self.count - 1) if self.count > 1 else 0.5
            at = share_of(self.start) + (share_of(self.stop) - share_of(self.start)) * share
            # The two edges are walked the same way round, so the hinges are counted from the other end.
            there = 1.0 - (share_of(self.hinge_start) + (share_of(self.hinge_stop) - share_of(self.hinge_start)) * share)
            place = places.along(piece, self.edge, at * ends[0])
            hinge = places.along(piece, self.hinge, there * ends[1])
            reach = math.dist(places.point(piece, place), places.point(piece, hinge))
            if by > reach:
                what = f"a slash of {format_length(reach, unit)} cannot open by {format_length(by, unit)}"
                raise StepError(what, where=self.on, advice="Spread less, or use more slashes.")
            found.append((place, hinge, 2.0 * math.asin(by / (2.0 * reach)), reach))
        return found

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Every place first, then the slashes one after the other; the same in both ways."""
        piece, unit = pattern.piece(self.on), context.scope.unit
        self.apply(pattern, context)
        slashes = self._slashes(piece, context)
        names = {"on": words(self.on), "edge": words(self.edge), "hinge": words(self.hinge)}
        starts = [words(piece.ends.get(piece.role(edge), ("start", ""))[0]) for edge in (self.edge, self.hinge)]
        found: list[Line] = []
        for number, (place, hinge, _angle, _reach) in enumerate(slashes, start=1):
            text = (
                "On the {on}, mark A{number} on the {edge} {at} from the {start}, and H{number} on the {hinge} {there} "
                "from the {begin}, open mouths skipped."
            )
            at, there = (format_length(places.sewn_distance(piece, spot), unit) for spot in (place, hinge))
            marks = {"number": str(number), "at": at, "there": there, "start": starts[0], "begin": starts[1]}
            found.append(line("mark_slash", text, **names, **marks))
        for number, (_place, _hinge, angle, _reach) in enumerate(slashes, start=1):
            text = (
                "Cut from A{number} to H{number}, but not through it. Turn the part that follows A{number} clockwise until the "
                "cut stands open by {chord}, measured {radius} from H{number}. Tape paper behind and draw the {edge} straight "
                "across."
            )
            found.append(line("spread_marked", text, number=str(number), edge=names["edge"], **arc_figures(angle, unit)))
        return tuple(found)


STEP = Flare
