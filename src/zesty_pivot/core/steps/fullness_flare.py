"""fullness.flare: an edge slashed at several places to hinges on another edge, each slash spread by the same amount."""

from typing import ClassVar, Literal, Self

from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Outcome
from zesty_pivot.core.procedures.flaring import Flaring, flared
from zesty_pivot.core.procedures.hand import Line, Way
from zesty_pivot.core.procedures.hand_flaring import flared_by_hand
from zesty_pivot.core.quantity import length_mm, share_of
from zesty_pivot.core.quantity.fields import Length, Share
from zesty_pivot.core.steps.base import Step

MOST = 12


class Flare(Step):
    """Spreads an edge evenly; every slash hinges at the far edge, whose length stays, and the centre stays where it is."""

    title: ClassVar[str] = "Flare an edge"
    summary: ClassVar[str] = (
        "Slash an edge at several places, hanging straight or radiating, and spread each by the same amount."
    )
    half_by_half: ClassVar[bool] = True

    do: Literal["fullness.flare"] = "fullness.flare"
    edge: str | None = Field(default=None, description="the edge that becomes wider; the waist or the hem when not given")
    hinge: str | None = Field(
        default=None,
        description="the edge that the slashes radiate from; they hang straight, parallel to the centre, when none",
    )
    count: int = Field(default=3, description="how many slashes", ge=1, le=MOST)
    by: Length = Field(default="3 cm", description="how far each opens")
    start: Share = Field(default="20%", description="where the first slash begins, along the edge")
    stop: Share = Field(default="80%", description="where the last slash begins")
    hinge_start: Share = Field(default="20%", description="where the first hinge is, from the other end of its edge")
    hinge_stop: Share = Field(default="80%", description="where the last hinge is")
    darts: Literal["round", "feed"] = Field(
        default="round", description="a dart in the way is shut while it is slashed, or feeds the slash and stays open as flare"
    )

    @model_validator(mode="after")
    def _ordered(self) -> Self:
        for low, high in ((self.start, self.stop), (self.hinge_start, self.hinge_stop)):
            if share_of(low) > share_of(high) or (share_of(low) == share_of(high) and self.count > 1):
                raise ValueError("the first place lies before the last")
        return self

    def words(self) -> str:
        """`flare the waist by 3 slashes of 3 cm`."""
        edge = words(self.edge) if self.edge else "lower edge"
        return f"flare the {edge} by {self.count} slash{'es' if self.count > 1 else ''} of {self.by}"

    def _asked(self, piece: Piece, context: Context) -> Flaring:
        edge = self.edge or next((id for id, role in piece.roles if role in ("waist", "hem")), "")
        if not edge:
            raise StepError("the piece has no lower edge", where=self.on, advice="Choose the edge that becomes wider.")
        piece.edge(edge)
        shares = []
        for number in range(self.count):
            share = number / (self.count - 1) if self.count > 1 else 0.5
            at = share_of(self.start) + (share_of(self.stop) - share_of(self.start)) * share
            # The two edges are walked the same way round, so the hinges are counted from the other end.
            there = 1.0 - (share_of(self.hinge_start) + (share_of(self.hinge_stop) - share_of(self.hinge_start)) * share)
            shares.append((at, there))
        by = length_mm(self.by, context.scope)
        return Flaring(self.on, edge, self.hinge, tuple(shares), by, self.darts == "feed")

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern flared. Raises StepError or GeometryError when a slash has no clear way."""
        return flared(self._asked(pattern.piece(self.on), context), pattern, context)

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Every place first, then the slashes one after the other; the same in both ways."""
        self.apply(pattern, context)
        return flared_by_hand(self._asked(pattern.piece(self.on), context), pattern, context)


STEP = Flare
