"""Fullness that is let in along slashes across a piece: gathers, pleats, tucks. The piece itself stays as it is sewn."""

from __future__ import annotations

from collections.abc import Callable
from enum import StrEnum

from zesty_pivot.core.piece.edge import Origin
from zesty_pivot.core.record import record, replace


class Taking(StrEnum):
    """What takes the fullness up."""

    GATHERS = "gathers"
    PLEATS = "pleats"
    TUCKS = "tucks"


class Lies(StrEnum):
    """The side that a folded edge points to, going clockwise round the piece along the edge where the slashes begin; of two
    folds that meet on one slash both at once."""

    BEFORE = "before"
    AFTER = "after"
    MEET = "meet"

    @property
    def turned(self) -> Lies:
        """The side on a piece that was turned over."""
        return {Lies.BEFORE: Lies.AFTER, Lies.AFTER: Lies.BEFORE, Lies.MEET: Lies.MEET}[self]


@record
class LetLine:
    """A straight slash from one place of the outline to another, and how far (mm) the cloth is parted at its two ends. `lies`
    is the side that the fold points to; `at_fold` is true of two folds that meet on the centre line, of which a half on the
    fold has one."""

    start: Origin
    stop: Origin
    by: tuple[float, float]
    lies: Lies = Lies.AFTER
    at_fold: bool = False


@record
class Fullness:
    """Slashes that belong together, in order along the edge where they begin. `style` is what the trade calls it (knife, box,
    pin tuck ...). `held` tells at which of the two ends it is taken up in a seam; where it is not, it hangs free there.
    `stitched_mm` is how far it is stitched down from the first end; None is all the way, 0 in the seam only. `treated` is how
    the folds are kept: pressed, edge-stitched.

    Of gathers `stretch` is where they start and stop, `raised_mm` how far their edge is raised in the middle, `own_mm` how
    much of the edge's own length they take up, `rows` and `apart_mm` are lines of shirring, `elastic` the share of the
    gathered length that elastic thread is cut to.
    """

    id: str
    taking: Taking
    lines: tuple[LetLine, ...] = ()
    style: str = ""
    held: tuple[bool, bool] = (True, True)
    stitched_mm: float | None = 0.0
    treated: tuple[str, ...] = ()
    stretch: tuple[Origin, Origin] | None = None
    raised_mm: float = 0.0
    own_mm: float = 0.0
    rows: int = 0
    apart_mm: float = 0.0
    elastic: float = 1.0

    def with_origins(self, of: Callable[[Origin], Origin]) -> Fullness:
        """The same fullness with its places said otherwise."""
        lines = tuple(replace(line, start=of(line.start), stop=of(line.stop)) for line in self.lines)
        return replace(self, lines=lines, stretch=self.stretch and (of(self.stretch[0]), of(self.stretch[1])))

    @property
    def turned(self) -> Fullness:
        """As it is on a piece that was turned over: its slashes are met in the other order."""
        lines = tuple(replace(line, lies=line.lies.turned) for line in reversed(self.lines))
        return replace(self, lines=lines, stretch=self.stretch and (self.stretch[1], self.stretch[0]))
