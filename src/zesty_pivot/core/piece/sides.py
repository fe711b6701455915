"""Which body a piece covers, and left and right as worn on a piece that is opened to the whole."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import field
from enum import StrEnum

from zesty_pivot.core.record import record


class Body(StrEnum):
    """Which half of the body a piece covers: set when it is made, kept by whatever is cut, mirrored or taped."""

    FRONT = "front"
    BACK = "back"
    NONE = "none"  # a side panel, a strap


def body_of(source: str, own: Body) -> Body:
    """Which body a line comes from by its provenance, `piece.edge` of the block; a piece's own where that does not tell."""
    name = source.partition(".")[0]
    return next((body for body in (Body.FRONT, Body.BACK) if body.value == name), own)


class Side(StrEnum):
    """A side as worn. A front drawn right side up shows the wearer's left to the right of CF (x > 0)."""

    LEFT = "left"
    RIGHT = "right"

    @property
    def other(self) -> Side:
        """The other side."""
        return Side.RIGHT if self is Side.LEFT else Side.LEFT

    def id(self, name: str) -> str:
        """The id that an edge, dart or pivot of a half has on this side of the whole: `waist.left`."""
        return f"{name}.{self.value}"


@record
class Sided:
    """What an id of an unfolded piece stands for: the name that it had on the half, and the side as worn."""

    name: str
    side: Side


@record
class Sides:
    """The ids of an unfolded piece that belong to one side of it; none of them on a half."""

    known: Mapping[str, Sided] = field(default_factory=dict)

    def of(self, id: str) -> Side | None:
        """The side of an edge, dart, pivot or notch; None for one that is on neither, and on a half."""
        found = self.known.get(id)
        return None if found is None else found.side

    def name(self, id: str) -> str:
        """What it was called on the half."""
        found = self.known.get(id)
        return id if found is None else found.name

    def id(self, name: str, side: Side | None) -> str:
        """The id of what the half called so, on a side; the name itself where there is none."""
        return next((id for id, found in self.known.items() if found == Sided(name, side)), name) if side is not None else name

    def joined(self, more: Mapping[str, Sided]) -> Sides:
        """These and others."""
        return Sides({**self.known, **more}) if more else self


HALF = Sides()  # nothing of a half is on a side
