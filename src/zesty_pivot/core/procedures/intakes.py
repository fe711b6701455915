"""Schools of intake along a princess line: what a panel is given to begin with. All figures: common practice, no source."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from zesty_pivot.core.piece.sides import Body

IN = 25.4


@dataclass(frozen=True)
class Intakes:
    """A school: least intakes in mm by level on the front and on the back; `top` is meant for the shoulder."""

    title: str
    front: Mapping[str, float]
    back: Mapping[str, float]
    reason: str

    def of(self, body: Body) -> Mapping[str, float]:
        """The intakes for a piece of the front or the back."""
        return self.back if body is Body.BACK else self.front


INTAKES: dict[str, Intakes] = {
    "darts": Intakes("as the darts give", {}, {}, "The block was fitted: its darts go into the seam, and nothing more."),
    "hollow": Intakes(
        "and 1 in in the hollow above the bust", {"chest": IN}, {}, "A fitted bust leaves the chest above it hollow."
    ),
    "fitted": Intakes(
        "1 in under the bust and at the waist",
        {"under_bust": 1.0 * IN, "waist": 1.0 * IN},
        {"waist": 1.0 * IN},
        "For a block without waist darts that shall sit close.",
    ),
    "close": Intakes(
        "shoulder 1/2 in, chest 1 in, under-bust and waist 1 1/2 in",
        {"top": 0.5 * IN, "chest": IN, "under_bust": 1.5 * IN, "waist": 1.5 * IN},
        {"top": 1.0 * IN, "waist": 1.5 * IN},
        "A gown that is worn tight; what the shoulder loses is given back outside.",
    ),
}
