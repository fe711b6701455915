"""A photograph without marks on the table: what is pointed at whose size is known."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.formats.photographed import BarePhoto
from zesty_pivot.core.intake.photo.sized import Known, Way
from zesty_pivot.core.nest.paged import PAPERS
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.record import record, replace
from zesty_pivot.desk.history import History
from zesty_pivot.desk.model import SIZING, DeskModel

SHEETS = {**PAPERS, "own": (300.0, 300.0)}
Points = tuple[tuple[float, float], ...]


@record
class Pointed:
    """Which thing, its points in the picture (px), its size as it is typed."""

    way: Way
    points: Points
    width: str
    height: str
    sheet: str = "A4"


class Sizing(QObject):
    """What was pointed at; a change is undone like any."""

    changed = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.photo: BarePhoto | None = None
        self.history: History[Pointed] = History([Pointed("sheet", (), "", "")])

    @property
    def pointed(self) -> Pointed:
        """What is so."""
        return self.history.value

    @property
    def size(self) -> tuple[int, int]:
        """Width and height of the picture, px."""
        if self.photo is None:
            return 1, 1
        high, wide = self.photo.pixels.shape[:2]
        return int(wide), int(high)

    def begin(self, photo: BarePhoto) -> None:
        """Shows a photograph with a sheet about its middle, to be pulled to where it lies."""
        self.photo = photo
        self.history = History([Pointed("sheet", self._about_middle("sheet"), "210 mm", "297 mm")])
        self._model.set_view(SIZING)
        self.changed.emit()

    def _about_middle(self, way: Way) -> Points:
        wide, high = self.size
        if way == "ruler":
            return ((0.3 * wide, 0.5 * high), (0.7 * wide, 0.5 * high))
        return ((0.35 * wide, 0.3 * high), (0.65 * wide, 0.3 * high), (0.65 * wide, 0.7 * high), (0.35 * wide, 0.7 * high))

    def set_way(self, way: str) -> None:
        """A sheet or a ruler."""
        chosen: Way = "ruler" if way == "ruler" else "sheet"
        if chosen != self.pointed.way:
            width, height = ("30 cm", "") if chosen == "ruler" else ("210 mm", "297 mm")
            self._push(Pointed(chosen, self._about_middle(chosen), width, height), "what is known")

    def set_sheet(self, sheet: str) -> None:
        """Which sheet, with its size."""
        width, height = SHEETS[sheet]
        self._push(replace(self.pointed, sheet=sheet, width=f"{width:g} mm", height=f"{height:g} mm"), "the sheet")

    def set_size(self, width: str, height: str) -> None:
        """Its size as typed. Raises a ZestyError for what is no length."""
        for text in (width, height) if self.pointed.way == "sheet" else (width,):
            self._mm(text)
        self._push(replace(self.pointed, width=width, height=height, sheet="own"), "the size")

    def move(self, number: int, x: float, y: float) -> None:
        """A point to a place in the picture, px."""
        wide, high = self.size
        place = (min(max(x, 0.0), wide - 1.0), min(max(y, 0.0), high - 1.0))
        points = tuple(place if k == number else at for k, at in enumerate(self.pointed.points))
        self._push(replace(self.pointed, points=points), "a point")

    def known(self) -> Known:
        """What was pointed at, in mm. Raises a ZestyError for a size that is none."""
        pointed = self.pointed
        height = self._mm(pointed.height) if pointed.way == "sheet" else 0.0
        return Known(pointed.way, pointed.points, self._mm(pointed.width), height)

    def undo(self, by: int) -> None:
        """Back or forth."""
        if self.history.step(by):
            self.changed.emit()

    def _mm(self, text: str) -> float:
        return length_mm(text, Scope(self._model.style.units))

    def _push(self, pointed: Pointed, title: str) -> None:
        if pointed != self.pointed:
            self.history.push(pointed, title)
            self.changed.emit()
