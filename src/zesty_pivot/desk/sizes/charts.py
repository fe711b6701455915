"""The user's size chart, with a history of its own; every change is written down at once."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.errors import FormulaError, ZestyError
from zesty_pivot.core.formats import files
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.quantity import with_unit
from zesty_pivot.core.sizes import chart as charts
from zesty_pivot.core.sizes.chart import BodySize, SizeChart
from zesty_pivot.core.sizes.jumps import Jump, jumps
from zesty_pivot.core.sizes.sized import Wearer
from zesty_pivot.data.sizes import shipped_chart
from zesty_pivot.desk.history import History
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.own_file import own_or_shipped
from zesty_pivot.desk.settings import chart_file


class Charts(QObject):
    """The chart, read when it is first asked for; the one that ships where the user has none."""

    changed = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.history: History[SizeChart] = History([self._read()])
        self._jumps: Kept[tuple[Jump, ...]] = Kept(2)
        self._worn: Kept[tuple[Wearer, ...]] = Kept(2)

    def _read(self) -> SizeChart:
        def say(text: str) -> None:
            self._model.say(text, fault=True)

        return own_or_shipped(chart_file(), charts.read, shipped_chart, say, "The chart that ships is shown")

    @property
    def chart(self) -> SizeChart:
        """The chart as it is."""
        return self.history.value

    @property
    def jumps(self) -> tuple[Jump, ...]:
        """The steps between its sizes; none where a size cannot be worked out."""

        def work() -> tuple[Jump, ...]:
            try:
                return jumps(self.chart)
            except FormulaError:
                return ()

        return self._jumps.get((self.chart,), (), work)

    @property
    def wearers(self) -> tuple[Wearer, ...]:
        """All sizes, in their order; what cannot be worked out says so."""
        return self._worn.get((self.chart,), (), lambda: tuple(self._wearer(size) for size in self.chart.sizes))

    def _wearer(self, size: BodySize) -> Wearer:
        try:
            lengths = tuple(sorted(self.chart.lengths(size).items()))
        except ZestyError as fault:
            return Wearer(size.title, (), size.is_child, size.group, str(fault))
        return Wearer(size.title, lengths, size.is_child, size.group)

    # What can be changed.

    def set_cell(self, title: str, name: str, text: str) -> None:
        """A measurement of a size, as it was typed; nothing takes it out. A fault is said and nothing is changed."""
        size = self.chart.size(title)
        try:
            written = str(with_unit(text, self._model.style.units)) if text.strip() else ""
            measures = {known: held for known, held in size.measures.items() if known != name}
            if written:
                measures[name] = written
            made = self._with(size, size.model_copy(update={"measures": measures}))
            made.lengths(made.size(title))
        except ZestyError as fault:
            self._model.say(f"{MEASUREMENTS[name]}, size {title}: {fault}", fault=True)
            self.changed.emit()
            return
        self._put(made, f"{MEASUREMENTS[name]} of size {title}")

    def set_base(self, title: str) -> None:
        """The size that is the middle of it: sizes over each other stay where it lies."""
        self._put(self.chart.model_copy(update={"base": title}), f"base {title}")

    def add(self, name: str, after: str) -> bool:
        """Another size after one, with its measurements to be written over. A name that is taken is said."""
        size = self.chart.size(after)
        made = size.model_copy(update={"name": name.strip()[:60]})
        if not made.name or made.title in self.chart.titles:
            self._model.say(f"There is a size {made.title} already. Give it another name.", fault=True)
            return False
        at = self.chart.titles.index(after) + 1
        sizes = (*self.chart.sizes[:at], made, *self.chart.sizes[at:])
        self._put(self.chart.model_copy(update={"sizes": sizes}), f"add size {made.title}")
        return True

    def remove(self, title: str) -> None:
        """Takes a size out, but the last one."""
        if len(self.chart.sizes) == 1:
            self._model.say("A chart keeps one size at least.", fault=True)
            return
        sizes = tuple(size for size in self.chart.sizes if size.title != title)
        base = "" if self.chart.base == title else self.chart.base
        self._put(self.chart.model_copy(update={"sizes": sizes, "base": base}), f"take out size {title}")

    def take_in(self, path: Path) -> list[str]:
        """A chart of a .zsizes or .csv file in the place of this one; what was left out, a line each. Raises FileError."""
        if path.suffix.lower() == ".csv":
            found, told = charts.from_csv(files.read_bytes(path), files.shown(path), self._model.style.units)
        else:
            found, told = charts.read(path), []
        self._put(found, f"bring in {path.name}")
        return told

    def back_to_shipped(self) -> None:
        """The chart that ships, in the place of this one."""
        self._put(shipped_chart(), "the chart that ships")

    def write_to(self, path: Path) -> None:
        """The chart as a .zsizes or .csv file. Raises FileError."""
        is_csv = path.suffix.lower() == ".csv"
        files.write_atomic(path, charts.write_csv(self.chart, self._model.style.units) if is_csv else charts.dump(self.chart))

    def undo(self, by: int) -> None:
        """Takes back the last change of the chart (-1), or does it again (1)."""
        title = self.history.undo_title if by < 0 else self.history.redo_title
        if self.history.step(by):
            self._kept()
            self._model.say(f"{'Undone' if by < 0 else 'Done again'}: {title}")

    def _with(self, old: BodySize, new: BodySize) -> SizeChart:
        sizes = tuple(new if size is old else size for size in self.chart.sizes)
        return self.chart.model_copy(update={"sizes": sizes})

    def _put(self, chart: SizeChart, title: str) -> None:
        if chart != self.chart:
            self.history.push(chart, title)
            self._kept()

    def _kept(self) -> None:
        try:
            files.write_atomic(chart_file(), charts.dump(self.chart))
        except ZestyError as fault:
            self._model.say(str(fault), fault=True)
        self.changed.emit()
