"""The pattern at true size on a screen or by a projector: which device, how it was told what is true size, what is shown."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.moved import moved_piece, quarter_turned
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.finish.sheet import Laid
from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.nest.lay import LayPlan
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.true_size.display import Display, TrueSize, first_marks, shown_by, unset_marks
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper.displays import Displays

LAY = "*lay"
# Mm from the first mark to the last where nobody has said: crosses that a mat with this unit has.
MATS: dict[str, tuple[float, float]] = {"mm": (500.0, 300.0), "cm": (500.0, 300.0), "in": (508.0, 304.8)}
NEAR = 60.0  # px of the picture: so near a mark it is picked up
SMALL, LARGE = 1.0, 10.0  # px that a mark is moved by an arrow key, and with Shift
STEP, LEAP = 5.0, 50.0  # mm that the pattern is moved so


class Showing(QObject):
    """What is decided of a device is kept with the settings; what is shown, and where, is of this sitting."""

    changed = pyqtSignal()
    dragged = pyqtSignal()  # the pattern or a mark is elsewhere while it is dragged; nothing else is otherwise

    def __init__(self, model: DeskModel, keeper: Keeper, lay: Callable[[], LayPlan | None]) -> None:
        """`lay` gives the lay on the cloth that was looked at."""
        super().__init__()
        self._model, self._lay = model, lay
        self.displays = Displays(keeper)
        self.is_aiming = False
        self.mark = 0  # the chosen mark
        self.shift = (0.0, 0.0)  # mm of the pattern from the middle
        self.quarters = 0
        self._what = ""
        self._held: tuple[float, float] | None = None  # where the hand was last, px of the picture
        self._dragged: tuple[tuple[float, float], ...] = ()  # the marks while one is dragged: kept when it is let go

    # The device.

    @property
    def device(self) -> Display:
        """What is kept of it."""
        first = Display(way="marks" if self.displays.is_simulated else "bars", mat=MATS[self._model.style.units])
        return self.displays.kept or first

    @property
    def size(self) -> tuple[float, float]:
        """Its picture, px."""
        return self.displays.size

    @property
    def shown(self) -> TrueSize | None:
        """How the pattern lies on it; None while it was not told what true size is, or told wrongly."""
        try:
            return shown_by(self._as_dragged, self.size)
        except ZestyError:
            return None

    @property
    def marks(self) -> tuple[tuple[float, float], ...]:
        """The marks, px; where nobody has laid them yet, somewhere on the picture."""
        device = self._as_dragged
        return device.marks if len(device.marks) == device.count else first_marks(device, self.size)

    @property
    def _as_dragged(self) -> Display:
        return self.device.model_copy(update={"marks": self._dragged}) if self._dragged else self.device

    @property
    def told(self) -> str:
        """How true it is, in a sentence."""
        device, unit = self._as_dragged, self._model.length
        try:
            shown = shown_by(device, self.size)
        except ZestyError as fault:
            return str(fault)
        if shown is None:
            if device.way == "bars":
                return "Not at true size yet: measure both bars with a ruler, and write down what they measure."
            left = unset_marks(device, self.size)
            if left and len(left) < device.count:
                still = f"mark {left[0]} is" if len(left) == 1 else f"marks {', '.join(map(str, left))} are"
                return f"Not at true size yet: {still} still where all begin. Set each on its cross of the mat."
            return "Not at true size yet: set the marks, each on its cross of the mat."
        if shown.off is None:
            if device.way == "bars":
                return "Measured. Look at it once more: a square of the grid measured with a ruler."
            return "Four marks always fit: look at the grid, it must lie on the mat's."
        off = f"The marks fit within {unit(2.0 * shown.off, fine=True)}."
        return off if shown.off < 1.0 or shown.worst is None else f"{off} Mark {shown.worst + 1} fits worst: set it again."

    def choose(self, key: str) -> None:
        """Another device."""
        self.displays.choose(key)
        self.is_aiming, self.mark = False, 0
        self.changed.emit()

    def keep(self, **told: object) -> None:
        """Keeps another thing of the device. Another number of marks or another mat is aimed anew."""
        display = self.device.model_copy(update=told)
        if {"count", "mat"} & set(told):
            display, self.mark = display.model_copy(update={"marks": ()}), 0
        self.displays.keep(display)
        self.changed.emit()

    # What is shown.

    @property
    def choices(self) -> list[tuple[str, str]]:
        """What can be shown: each piece, and the lay where one was looked at."""
        found = [(piece.name, words(piece.name)) for piece in self._model.derived.sheet_pieces if not piece.fault]
        return [*found, *([(LAY, "the lay on the cloth")] if self._lay() is not None else [])]

    @property
    def what(self) -> str:
        """A piece's name, or LAY."""
        known = [what for what, _title in self.choices]
        return self._what if self._what in known else known[0] if known else ""

    def show(self, what: str) -> None:
        """Shows something else, in the middle."""
        self._what, self.shift = what, (0.0, 0.0)
        self.changed.emit()

    def step(self, by: int) -> None:
        """The next piece, or mark, or the one before."""
        if self.is_aiming:
            self.mark = (self.mark + by) % self.device.count
            self.changed.emit()
            return
        known = [what for what, _title in self.choices]
        if known:
            self.show(known[(known.index(self.what) + by) % len(known)])

    def turn(self) -> None:
        """Turns it by a quarter."""
        self.quarters = (self.quarters + 1) % 4
        self.changed.emit()

    def middle(self) -> None:
        """Back to the middle."""
        self.shift = (0.0, 0.0)
        self.changed.emit()

    @property
    def laid(self) -> tuple[Laid, ...]:
        """What is drawn, mm from the middle."""
        plan = self._lay() if self.what == LAY else None
        found = tuple(Laid(one, 0.0, 0.0) for one in self._model.derived.sheet_pieces if one.name == self.what)
        return _about_middle(found if plan is None else plan.laid, self.quarters, self.device.mirrored, self.shift)

    # By hand, in px of the picture.

    def aim(self) -> None:
        """Sets the marks or shows the bars; or is done with it."""
        self.is_aiming = not self.is_aiming
        if self.is_aiming and self.device.way == "marks" and len(self.device.marks) != self.device.count:
            self.keep(marks=self.marks)
        self.changed.emit()

    def press(self, at: tuple[float, float]) -> None:
        """The hand takes hold of the nearest mark, or of the pattern."""
        self._held = at
        if self.is_aiming and self.device.way == "marks":
            gaps = np.hypot(*(np.array(self.marks) - at).T)
            if gaps.min() <= NEAR * self.size[0] / 1920.0:
                self.mark = int(gaps.argmin())
            else:
                self._held = None
            self.changed.emit()

    def drag(self, at: tuple[float, float]) -> None:
        """The hand moves."""
        if self._held is None:
            return
        before, self._held = self._held, at
        if self.is_aiming:
            if self.device.way == "marks":
                self._dragged = self._with_mark_moved(at[0] - before[0], at[1] - before[1])
                self.dragged.emit()
        elif (shown := self.shown) is not None:
            (x, y), (to_x, to_y) = shown.to_mm(np.array([before, at]))
            self.shift = (self.shift[0] + float(to_x - x), self.shift[1] + float(to_y - y))
            self.dragged.emit()

    def let_go(self) -> None:
        """The hand lets go; a mark that it moved is kept."""
        if self._held is None:
            return
        self._held = None
        if self._dragged:
            marks, self._dragged = self._dragged, ()
            self.keep(marks=marks)
        else:
            self.changed.emit()

    def nudge(self, dx: int, dy: int, *, leaps: bool) -> None:
        """An arrow key: the chosen mark by px, or the pattern by mm."""
        if self.is_aiming:
            if self.device.way == "marks":
                self.keep(marks=self._with_mark_moved(dx * (LARGE if leaps else SMALL), dy * (LARGE if leaps else SMALL)))
        else:
            far = LEAP if leaps else STEP
            self.shift = (self.shift[0] + dx * far, self.shift[1] + dy * far)
            self.changed.emit()

    def _with_mark_moved(self, dx: float, dy: float) -> tuple[tuple[float, float], ...]:
        marks = list(self.marks)
        (x, y), (wide, tall) = marks[self.mark], self.size
        marks[self.mark] = (min(max(x + dx, 0.0), wide), min(max(y + dy, 0.0), tall))
        return tuple(marks)


@kept_with
def _as_shown(piece: FinishedPiece, quarters: int, is_mirrored: bool) -> FinishedPiece:
    """A piece turned by quarters, and turned over where it is to be seen from the other side."""
    turned = quarter_turned(piece, quarters)
    return moved_piece(turned, _OVER) if is_mirrored else turned


_OVER = Motion.reflect(np.zeros(2), np.array([0.0, 1.0]))


def _about_middle(
    laid: tuple[Laid, ...], quarters: int, is_mirrored: bool, shift: tuple[float, float]
) -> tuple[Laid, ...]:  # fmt: skip
    """Pieces turned all together, turned over where asked, their middle shifted so far from (0, 0) mm."""
    if not laid:
        return ()
    pieces = [_as_shown(one.piece, quarters, is_mirrored) for one in laid]
    places = Motion.turn(np.zeros(2), quarters * np.pi / 2.0)(np.array([(one.dx, one.dy) for one in laid]))
    if is_mirrored:
        places = _OVER(places)
    rings = np.concatenate([piece.ring + place for piece, place in zip(pieces, places, strict=True)])
    at = places - (rings.min(axis=0) + rings.max(axis=0)) / 2.0 + shift
    return tuple(Laid(piece, float(x), float(y)) for piece, (x, y) in zip(pieces, at, strict=True))
