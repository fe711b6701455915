"""A block being measured with a ruler: what was typed, the outlines that it makes, what does not close."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core import faults
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import ruled
from zesty_pivot.core.formats.ruled import RuledSource, RulerFile, RulerMeasures
from zesty_pivot.core.intake.ruler.net import OpenDistance
from zesty_pivot.core.intake.ruler.sheet import Item, RulerPoint, points_of
from zesty_pivot.core.piece import Body
from zesty_pivot.core.quantity import Scope, Unit, length_mm
from zesty_pivot.desk.history import History
from zesty_pivot.desk.kept_work import KeptWork
from zesty_pivot.desk.model import RULER, DeskModel

NOTHING = RulerMeasures()


class Ruling(QObject):
    """The ruler's sheet; the outlines are worked out again from what was typed."""

    changed = pyqtSignal()
    lit_changed = pyqtSignal()

    def __init__(self, model: DeskModel, kept: KeptWork) -> None:
        """`kept` holds the sheet as it was left."""
        super().__init__()
        self._model, self._kept = model, kept
        self.history: History[RulerFile] = History([self._left()])
        self.body = Body.FRONT
        self.lit = ""  # the point whose measures are typed
        self.source: RuledSource = ruled.source(self.file)

    def _left(self) -> RulerFile:
        """The sheet as it was left, else an empty one."""
        content = self._kept.read()
        try:
            return ruled.from_bytes("the sheet that was left", content) if content else self._empty()
        except FileError:
            return self._empty()

    def _empty(self) -> RulerFile:
        return RulerFile(units=self._model.style.units, front=NOTHING, back=NOTHING)

    # What is so.

    @property
    def file(self) -> RulerFile:
        """What was typed."""
        return self.history.value

    @property
    def measures(self) -> RulerMeasures:
        """Of the piece that is looked at."""
        return self.file.of(self.body) or NOTHING

    @property
    def points(self) -> list[RulerPoint]:
        """The points of the piece that is looked at."""
        return points_of(self.measures.items)

    @property
    def open(self) -> list[OpenDistance]:
        """What does not close on the piece that is looked at."""
        net = self.source.nets.get(self.body)
        return net.open if net is not None else []

    @property
    def suspects(self) -> tuple[tuple[str, str], ...]:
        """The measures of which one is likely to be wrong."""
        net = self.source.nets.get(self.body)
        return net.suspects if net is not None else ()

    def text(self, id: str, source: str) -> str:
        """What was typed for a distance."""
        return str(self.measures.distances.get(id, {}).get(source, ""))

    def along(self, edge: str) -> str:
        """What was typed for an edge's length."""
        return str(self.measures.along.get(edge, ""))

    def worth(self, text: str) -> float:
        """A text as a length, mm. Raises a ZestyError for one that is none."""
        return length_mm(text, Scope(self.file.units))

    # What is said.

    def set_distance(self, id: str, source: str, text: str) -> None:
        """A distance, or nothing of it any longer. Raises a ZestyError for what is no length."""
        rows = {point: dict(row) for point, row in self.measures.distances.items()}
        row = rows.setdefault(id, {})
        if text:
            self.worth(text)
            row[source] = _plain(text)
        else:
            row.pop(source, None)
        self._say(
            self.measures.model_copy(update={"distances": {point: row for point, row in rows.items() if row}}), "a distance"
        )

    def set_along(self, edge: str, text: str) -> None:
        """An edge's length, or nothing of it. Raises a ZestyError for what is no length."""
        along = {known: value for known, value in self.measures.along.items() if known != edge}
        if text:
            self.worth(text)
            along[edge] = _plain(text)
        self._say(self.measures.model_copy(update={"along": along}), "a length")

    def add(self, edge: str, item: Item) -> None:
        """A dart or a point more on an edge, after those that are there."""
        items = self.measures.items.get(edge, ())
        if len(items) < ruled.MOST_ITEMS:
            grown = {**self.measures.items, edge: (*items, item)}
            self._say(self.measures.model_copy(update={"items": grown}), f"a {item}")

    def take_out(self, edge: str, place: int) -> None:
        """The dart or point at a place (from 0) of an edge, with its distances."""
        self._say(ruled.without_item(self.measures, edge, place), "what lay on the edge")

    def set_body(self, body: Body) -> None:
        """Which piece is looked at."""
        if body is not self.body:
            self.body, self.lit = body, ""
            self.changed.emit()

    def set_unit(self, unit: Unit) -> None:
        """The unit of plain numbers from now on; what was typed stays as long as it was."""
        self._push(ruled.with_units(self.file, unit), "the unit")

    def set_name(self, name: str) -> None:
        """What the block is called."""
        name = name.strip()[:200]
        if name and name != self.file.name:
            self._push(self.file.model_copy(update={"name": name}), "the name")

    def light(self, id: str) -> None:
        """The point whose measures are typed."""
        if id != self.lit:
            self.lit = id
            self.lit_changed.emit()

    def open_file(self, path: Path) -> None:
        """A sheet from its file. Raises FileError."""
        self.take(ruled.read(path))

    def take(self, file: RulerFile) -> None:
        """Shows a sheet."""
        self._push(file, "the sheet that was opened")
        self._model.set_view(RULER)

    def begin_again(self) -> None:
        """An empty sheet."""
        self._push(self._empty().model_copy(update={"units": self.file.units}), "what was measured")

    def undo(self, by: int) -> None:
        """Back or forth."""
        if self.history.step(by):
            self._work_out()

    def _say(self, measures: RulerMeasures, title: str) -> None:
        self._push(self.file.model_copy(update={self.body.value: measures}), title)

    def _push(self, file: RulerFile, title: str) -> None:
        if file != self.file:
            self.history.push(file, title)
            self._work_out()

    def _work_out(self) -> None:
        self._kept.write(ruled.dump(self.file))
        try:
            self.source = ruled.source(self.file)
        except Exception as fallen:  # noqa: BLE001 - the boundary of a drawing: what was typed stays
            says = f"{faults.sentence('this sheet', faults.caught(fallen, 'a block by ruler'))}."
            self.source = RuledSource(self.file, {}, {}, {self.body: says})
        self.changed.emit()


def _plain(text: str) -> str | float:
    """A plain number as a number, so that a file has it so."""
    try:
        return float(text)
    except ValueError:
        return text
