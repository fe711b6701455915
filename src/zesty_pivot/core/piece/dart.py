"""A dart: its pivot, what its fullness is used as, and how that is held."""

from __future__ import annotations

from enum import StrEnum

from zesty_pivot.core.piece.edge import Origin
from zesty_pivot.core.record import record


class Use(StrEnum):
    """What a dart's fullness is used as. In the model every use runs to the pivot."""

    DART = "dart"
    GATHERS = "gathers"
    TUCK = "tuck"
    PLEAT = "pleat"
    EASE = "ease"
    FLARE = "flare"
    DRAPE = "drape"  # only of what lies open in the cloth: a dart itself is not used so


# Uses that keep the cloth of the mouth flat in the seam line: the edge runs on across the mouth.
OPEN_USES = frozenset({Use.GATHERS, Use.EASE, Use.FLARE})


@record
class Hold:
    """How a use is held, mm: the seam to either side of the mouth that is gathered or eased with it, how far a gathered
    edge is raised in its middle, and how long a tuck is stitched."""

    before_mm: float = 0.0
    after_mm: float = 0.0
    raised_mm: float = 0.0
    stitched_mm: float = 0.0


@record
class Shape:
    """The lines a dart is sewn along, where they are not straight; they end at the mouth and at the sewn point as ever.

    `bow_mm` is how far each leg bows at its middle, outwards from the dart's axis when positive (more is taken in);
    both legs mirror each other. `bend_mm` is how far the axis lies beside the straight line at `bend_at` (a share of the
    way from the pivot to the mouth), clockwise about the pivot when positive. `even_mm` is how far up from a mouth at the waist
    both legs run side by side, the whole intake apart.
    """

    bow_mm: float = 0.0
    bend_mm: float = 0.0
    bend_at: float = 0.5
    even_mm: float = 0.0


@record
class LetIn:
    """Fullness of a dart that lies open in the cloth, across a line that was cut there: the dart, its pivot, its angle in
    radians, what it was used as, and what it was called."""

    dart: str
    pivot: str
    angle: float
    use: Use
    called: str


@record
class Parked:
    """A dart put away into another place for a while: its id, where on the cloth it came from, its angle in radians, its use
    how that is held, the sewn point that it has of its own, what it was called, and what was put away in it then."""

    id: str
    home: Origin
    angle: float
    use: Use
    hold: Hold
    extended_mm: float = 0.0
    beside: float = 0.0
    called: str = ""
    parked: tuple[Parked, ...] = ()
    at_tip: bool = False


@record
class Dart:
    """A dart by its id and pivot; its mouth is wherever the run that names it ends.

    `extended_mm` tells how far the block's dart stopped short of the pivot before it was led there: that is where the block
    wants it sewn; `beside` is how far (radians, clockwise about the pivot) that point lies beside the bisector of the mouth.
    `at_tip` is true where the pivot is no point of the body but the dart's own tip, to which it is sewn.
    `group` names the dart that several were made of, so that they can become one again. `parked` are the darts put away in it.
    """

    id: str
    pivot: str
    use: Use = Use.DART
    extended_mm: float = 0.0
    beside: float = 0.0
    hold: Hold = Hold()
    shape: Shape = Shape()
    group: str = ""
    parked: tuple[Parked, ...] = ()
    at_tip: bool = False
