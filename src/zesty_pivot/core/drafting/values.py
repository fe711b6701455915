"""What an expression of a method can be worth: a number with its dimension, a word, a truth, a point, a direction, a stroke."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.record import record


@record
class Number:
    """A number: `power` 1 is a length in mm, 0 a plain number (angles are radians), 2 an area in mm2."""

    amount: float
    power: int = 0


@record(eq=False)
class Point:
    """A place in the frame of its piece, (2,) mm: x from the straight centre towards the side, y down from the top line."""

    at: Vector

    @classmethod
    def of(cls, x: float, y: float) -> Point:
        """From its two coordinates, mm."""
        at = np.array([x, y])
        at.flags.writeable = False
        return cls(at)

    @property
    def x(self) -> float:
        """How far from the straight centre, mm."""
        return float(self.at[0])

    @property
    def y(self) -> float:
        """How far below the top line, mm."""
        return float(self.at[1])


@record(eq=False)
class Direction:
    """A direction, (2,) of length 1."""

    way: Vector


@record(eq=False)
class Inked:
    """A line or curve that is drawn, from its beginning to its end."""

    path: Path


Value = Number | str | bool | Point | Direction | Inked

_KINDS = {str: "word", bool: "truth", Point: "point", Direction: "direction", Inked: "stroke"}


def kind_of(value: Value) -> str:
    """What a value is, in a word: `length`, `point`."""
    if isinstance(value, Number):
        return {0: "number", 1: "length", 2: "area"}.get(value.power, "number of an odd dimension")
    return _KINDS[type(value)]
