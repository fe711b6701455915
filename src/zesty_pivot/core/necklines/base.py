"""What a neckline's shape is: the numbers it takes, and a drawing of it on half a front or back."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import field
from typing import Literal

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.piece.bodice_half import BodiceHalf
from zesty_pivot.core.record import record

Ends = Literal["shoulder", "armhole", "side_seam"]

Numbers = Mapping[str, float]
Start = Callable[[BodiceHalf, Numbers], float]

# The numbers that shapes take, by name, with the words for them. Lengths in mm inside.
WORDS: dict[str, str] = {
    "width": "Half width",
    "depth": "Depth",
    "corner": "Curve closeness to the corner",
    "drop": "Straight down",
    "bow": "Bowed in by",
    "turn": "Rounded at the shoulder over",
    "lobe": "Height of an arc",
    "hole_start": "Keyhole begins below the neckline",
    "hole_width": "Half width of the keyhole",
    "hole_height": "Keyhole's widest place below its beginning",
    "hole_end": "Keyhole ends below its widest place",
    "slit": "Slit down to",
    "open": "Slit open at the top by",
    "under": "Below the shoulder tip, on the armhole",
    "rise": "Rises by",
    "inset": "Along the shoulder from the neck point",
    "strap": "Width of the strap",
    "lower": "Underarm lowered by",
    "widen": "Underarm widened by",
    "flare": "Lower edge let out at the side by",
    "past": "Past the far waist dart",
    "up": "Above the waist there",
}


@record
class Asked:
    """What is asked for: numbers in mm, how many arcs, the end of a keyhole or the centre of an edge, a free curve's points
    (shares of the way from the centre to the width, and from the top to the depth), which of the shape's forms, and whether a
    keyhole goes through its yoke seam."""

    numbers: Numbers
    arcs: int = 3
    end: str = "round"
    points: tuple[tuple[float, float], ...] = ()
    form: str = ""
    through: bool = True

    def __getitem__(self, name: str) -> float:
        return self.numbers[name]


@record
class EdgePart:
    """A stretch of the new edge on its way outwards, with the role that it has on the piece."""

    path: Path
    role: str = "neckline"


@record
class Drawn:
    """The new edge of half a piece from its centre outwards, and where it ends. `is_pointed`: it meets the centre in a point;
    `bends`: where it ends on the shoulder, its end may be bent to meet the other piece without a corner. `is_straight`: its end
    stays straight whatever its angle; `turns`: its last curve is turned nearly square to the shoulder, its ends kept."""

    parts: tuple[EdgePart, ...]
    ends_on: Ends = "shoulder"
    is_pointed: bool = False
    bends: bool = True
    is_straight: bool = False
    turns: bool = False

    @property
    def path(self) -> Path:
        """The whole edge as one line."""
        return Path.chain([part.path for part in self.parts])


Draw = Callable[[BodiceHalf, Asked], Drawn]

MARK = "*neck.mark"  # the landmark of a shape's mark while the edge is drawn

# A point of the flat piece with its darts as they are, and the point of its lower edge that belongs to it, mm.
Mark = Callable[[BodiceHalf, Asked], tuple[Vector, Vector]]


@record
class NeckShape:
    """A shape by its name in files and its title. `starts` are the numbers it takes with their starting values, worked out in
    order from the block and those before; `at_end` are choices of `end`, `forms` of `form`, the usual first. `kind` says what
    is done with the drawing: `cut` away what lies above, `raise` the edge, `whole` shapes are drawn on the unfolded front."""

    name: str
    title: str
    hint: str
    starts: Mapping[str, Start]
    draw: Draw
    ends_on: Ends = "shoulder"
    kind: Literal["cut", "raise", "whole"] = "cut"
    arcs: bool = False
    at_end: tuple[str, ...] = ()
    forms: tuple[str, ...] = ()
    points: tuple[tuple[float, float], ...] = ()
    back: str = "round"
    backs: tuple[str, ...] = ("round", "v", "square", "deep", "keep")
    order: int = 0
    more: Mapping[str, str] = field(default_factory=dict)  # other words for some of its numbers
    mark: Mark | None = None  # what is measured before darts are put away, and stays on the cloth (as the landmark MARK)

    def goes_over(self, *, leads: bool) -> bool:
        """Whether the edge of a piece goes over the centre to the other side: of one shoulder on front and back, of other whole
        shapes on the piece that `leads`."""
        return self.kind == "whole" and (leads or self.name == "one_shoulder")

    def words_for(self, name: str) -> str:
        """What one of its numbers is called."""
        return self.more.get(name, WORDS[name])
