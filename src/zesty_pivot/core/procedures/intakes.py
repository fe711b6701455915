"""What a princess line takes in: schools of what a panel is given to begin with, and what is asked for by level. All figures
of the schools: common practice, no source."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.panel_shape import Wanted
from zesty_pivot.core.moves.panels import Panels
from zesty_pivot.core.piece import FishEye, Piece
from zesty_pivot.core.piece.heights import girth_level
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.sides import Body
from zesty_pivot.core.quantity.units import IN
from zesty_pivot.core.record import record

LEVELS = ("chest", "under_bust", "waist", "hip")

# Nearer to a point of the line than this (mm) a level is the point's. Our own choice.
CLEAR = 15.0


@record
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
        "For a block without waist darts that is to fit closely.",
    ),
    "close": Intakes(
        "shoulder 1/2 in, chest 1 in, under-bust and waist 1 1/2 in",
        {"top": 0.5 * IN, "chest": IN, "under_bust": 1.5 * IN, "waist": 1.5 * IN},
        {"top": 1.0 * IN, "waist": 1.5 * IN},
        "For a gown worn tight; what the shoulder loses is given back at the outer edge.",
    ),
}


@record
class PanelIntakes:
    """What a line is to take in, mm: its own numbers by level (and at its `top`), the school's least, the fish-eye darts
    that it takes in, and how much of an intake comes off the centre panel where that is not half."""

    own: Mapping[str, float]
    least: Mapping[str, float]
    eyes: tuple[FishEye, ...]
    off_centre: Mapping[str, float]

    def wanted(self, piece: Piece, cut: Panels, drafted: Piece) -> Wanted:
        """What the panels are to be shaped to. Raises StepError for a level of its own that the block does not have."""
        line = cut.stretches(False)
        reach = float(line[0].start[1]), float(line[-1].end[1])
        ends_at_waist = cut.bottom_role == "waist"
        levels = self._levels(piece, drafted, reach, {"waist"} if ends_at_waist else set())
        by_school = self.least.keys() - self.own.keys()
        least = by_school & {"top", *(name for name, _y, _mm in levels)}
        if ends_at_waist and "waist" in by_school:
            least |= {"bottom"}
        bust = drafted.levels.get("bust", -1e9)
        return Wanted(
            top=self._asked("top"),
            bottom=self._asked("waist") if ends_at_waist else None,
            levels=levels,
            at_least=frozenset(least),
            more=(*self._of_eyes(drafted, levels), *self._at_bust(drafted, line, reach)),
            still=tuple(y for eye in self.eyes for y in (eye.top[1], eye.bottom[1])),
            off_centre={"bottom" if name == "waist" and ends_at_waist else name: mm for name, mm in self.off_centre.items()},
            notch_y=bust if reach[0] < bust < reach[1] and "bust_point" not in piece.landmarks else None,
            strokes=2 if piece.body is Body.BACK else 1,
        )

    def _asked(self, name: str) -> float | None:
        return self.own.get(name, self.least.get(name))

    def _levels(
        self, piece: Piece, drafted: Piece, reach: tuple[float, float], ends: set[str]
    ) -> tuple[tuple[str, float, float], ...]:
        """The intakes by level: what is asked for must be there, what the school says where the line has room for it."""
        found: list[tuple[str, float, float]] = []
        for name in LEVELS:
            amount = self._asked(name)
            if amount is None or name in ends:
                continue
            y = drafted.levels.get(name)
            if y is None and name in self.own:
                raise StepError(f"the block has no {words(name)} line", where=piece.name, advice="Leave that intake empty.")
            if y is not None and (name in self.own or reach[0] + 20.0 < y < reach[1] - 5.0):
                found.append((name, y, amount))
        return tuple(found)

    def _of_eyes(
        self, drafted: Piece, levels: tuple[tuple[str, float, float], ...]
    ) -> list[tuple[str, float, float]]:  # fmt: skip
        if any(name == "waist" for name, _y, _mm in levels):
            return []
        return [("waist", drafted.levels["waist"], eye.intake) for eye in self.eyes]

    def _at_bust(
        self, drafted: Piece, line: Sequence[Path], reach: tuple[float, float]
    ) -> list[tuple[str, float, float]]:  # fmt: skip
        """The bust keeps its width, whatever the rounding does there."""
        y = girth_level(drafted.levels, "bust")
        if y is None or not reach[0] < y < reach[1]:
            return []
        if not all(abs(y - end) > CLEAR for path in line for end in (float(path.start[1]), float(path.end[1]))):
            return []
        waist = drafted.levels.get("waist", y)
        return [("bust", y, sum(eye.width(y - waist) for eye in self.eyes))]
