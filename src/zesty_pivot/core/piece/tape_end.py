"""Where a tape begins or ends: on an edge, at a landmark, at a point of a dart, or so far from a landmark."""

from typing import Literal

from pydantic import Field

from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.quantity.fields import Length

DartPart = Literal["first", "second", "pivot", "sewn"]
DART_PARTS: dict[str, str] = {
    "first": "first leg of the {} dart", "second": "second leg of the {} dart", "pivot": "pivot of the {} dart",
    "sewn": "sewn point of the {} dart",
}  # fmt: skip


class TapeEnd(Spot):
    """An end of a tape. A place on an edge is said as everywhere; of a dart it is the end of a leg (the first is the one met
    first on the way round from the neck over shoulder and side to the waist), the pivot, or the point that it is sewn to."""

    on: str = Field(default="", max_length=60, description="the piece; empty for the piece that the step is on")
    part: DartPart | None = Field(default=None, description="which point of the dart")
    landmark: str | None = Field(default=None, max_length=60, description="a landmark such as bust_point")
    across: Length = Field(default=0, description="so far to the right of the landmark on the piece as it lies")
    down: Length = Field(default=0, description="so far below the landmark on the piece as it lies")

    def fault(self) -> str:
        """What is wrong with how it says a place, if anything is."""
        if self.landmark is None:
            if self.across or self.down:
                return "'across' and 'down' go with a landmark"
            if (self.part is not None) != (self.dart is not None):
                return "an end at a dart names the dart and the 'part' of it"
            return super().fault()
        others = (self.station, self.dart, self.edge, self.at, self.level, self.from_, self.as_far_as, self.part)
        if any(way is not None for way in others):
            return "an end is one of: a station, a dart with its part, an edge, or a landmark"
        return ""

    def words(self) -> str:
        """The end as it is read aloud, its piece left out."""
        if self.dart is not None and self.part is not None:
            return DART_PARTS[self.part].format(words(self.dart))
        if self.landmark is None:
            return super().words()
        away = [f"{self._said(size)} {way}" for size, way in ((self.across, "across"), (self.down, "down")) if size]
        near = words(self.landmark)
        return near if not away else f"{' and '.join(away)} from the {near}"

    @staticmethod
    def _said(size: str | float) -> str:
        return size if isinstance(size, str) else f"{size:g}"
