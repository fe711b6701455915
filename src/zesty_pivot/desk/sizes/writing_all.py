"""A style written for all its sizes, or for everybody in a table, in processes beside the interface."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from zesty_pivot.core.formats.folder import write_together
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.batch import LEDGER, Made, Order, write_bodies
from zesty_pivot.core.sizes.bodies import BodyRow, of_file
from zesty_pivot.core.sizes.nested_files import nested_files
from zesty_pivot.core.sizes.sized import Sizer, Wearer, wearer_of
from zesty_pivot.desk.beside import Beside
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.sizes.sizes import Sizes

FEW = 4  # bodies that are written sooner without processes of their own
KEPT = 500  # lines that are kept of those that are sound; those that are not all are
NESTED = "nested"  # the folder of the nested sheets


@record
class WrittenNested:
    """The nested sheets are written: how many files."""

    count: int


class WritingAll(QObject):
    """One order at a time."""

    changed = pyqtSignal()
    begun = pyqtSignal()  # or ended

    def __init__(self, model: DeskModel, sizes: Sizes, printing: Callable[[], Printing]) -> None:
        super().__init__()
        self._model, self._sizes, self._printing = model, sizes, printing
        self.work = Beside("writing the sizes")
        self.formats: tuple[str, ...] = ("pdf", "svg")
        self.is_nested, self.is_zip = True, False
        self.folder: Path | None = None
        self.made: list[Made] = []
        self.count = self.sound = self.nested = 0
        self.total: int | None = None
        self.was_stopped, self.fault = False, ""
        self._wearers: dict[int, Wearer] = {}  # of those that are not sound, by their numbers
        self.work.improved.connect(self._improve)
        self.work.ended.connect(self._end)

    def write_sizes(self, folder: Path) -> None:
        """All sizes and people, a folder or an archive each; the nested sheets of those that are shown."""
        asked, shown = self._sizes.who.asked, self._sizes.who.shown
        rows = [BodyRow(n, one.title, one.is_child, dict(one.lengths), one.fault, one.group) for n, one in enumerate(asked, 1)]
        base, point = self._sizes.who.base, self._sizes.point
        self._begin(folder, rows, len(rows), shown if self.is_nested else (), base, point)

    def write_table(self, table: Path, folder: Path) -> None:
        """Everybody in a CSV, JSON lines or measurement file. Raises FileError where nothing can be read out of it."""
        rows = of_file(table, self._model.style.units)
        self._begin(folder, rows, None, (), 0, "")

    def stop(self) -> None:
        """Nothing new is begun; the same order goes on from there."""
        if self.work.is_at_work:
            self.was_stopped = True
            self.work.stop()
            self._tell()

    def close(self) -> None:
        """Stops, and waits for the thread."""
        self.work.close()

    def wearer(self, made: Made) -> Wearer | None:
        """Whom one was made for, where it is not sound."""
        return self._wearers.get(made.number)

    def _begin(
        self, folder: Path, rows: Sequence[BodyRow] | Iterator[BodyRow], total: int | None, nested: Sequence[Wearer], base: int,
        point: str,
    ) -> None:  # fmt: skip
        self.folder, self.total, self.made, self.count, self.sound, self.nested = folder, total, [], 0, 0, 0
        self.was_stopped, self.fault, self._wearers = False, "", {}
        style, under, printing = self._model.style, self._sizes.under(), self._printing()
        order = Order(style, under, self.formats, printing, folder, self.is_zip)
        jobs = 1 if total is not None and total <= FEW else 0

        def search(stop: threading.Event) -> Iterator[object]:
            seen: dict[int, BodyRow] = {}

            def told() -> Iterator[BodyRow]:
                for row in rows:
                    seen[row.number] = row
                    yield row

            for made in write_bodies(order, told(), jobs=jobs, stop=stop.is_set):
                row = seen.pop(made.number, None)
                yield made, None if made.is_valid or row is None else wearer_of(row)
            if nested and not stop.is_set():
                sizer = Sizer()
                sizes = [sizer.sized(style, under, one) for one in nested]
                files = nested_files(style.title, sizes, point, base, style.units, printing)
                yield WrittenNested(len(write_together(folder / NESTED, files)))

        self.work.begin((str(folder),), search)
        self._tell()

    def _tell(self) -> None:
        self.changed.emit()
        self.begun.emit()

    def _improve(self, _asked: object, found: object) -> None:
        if isinstance(found, WrittenNested):
            self.nested = found.count
        elif isinstance(found, tuple):
            made, wearer = found
            self.count, self.sound = self.count + 1, self.sound + made.is_valid
            if not made.is_valid or self.sound <= KEPT:
                self.made.append(made)
            if wearer is not None:
                self._wearers[made.number] = wearer
        self.changed.emit()

    def _end(self, _asked: object, fault: str) -> None:
        self.fault = fault
        self._tell()

    # In words.

    def said(self) -> str:
        """How it goes, or how it went."""
        if self.fault:
            return self.fault
        if self.folder is None:
            return "Every size is written to a folder of its own, with its report; bodies.jsonl is the report of all."
        of = f" of {self.total}" if self.total is not None else ""
        bad = self.count - self.sound
        words = f"{self.count}{of} worked out, {self.sound} of them sound" + (f", {bad} not" if bad else "") + "."
        if self.work.is_at_work:
            return words
        if self.was_stopped:
            return f"Stopped. {words} The same again, into the same folder, goes on from there."
        nested = f" The nested sheets are {self.nested} files in {self.folder / NESTED}." if self.nested else ""
        return f"{words} They are in {self.folder}; the report of all is {LEDGER}.{nested}"
