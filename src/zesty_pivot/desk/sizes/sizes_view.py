"""The sizes view: chart, nested, growth, grading, write all, each a station; at the right who, and how."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QTimer
from PyQt6.QtWidgets import QProgressBar, QStackedWidget, QVBoxLayout, QWidget

from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.sizes.batch import Made
from zesty_pivot.core.sizes.ways import WAYS
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, abreast
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.finish_view import WIDTH
from zesty_pivot.desk.labels import label, titled
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.sizes.chart_view import ChartView
from zesty_pivot.desk.sizes.grading_view import GradingView
from zesty_pivot.desk.sizes.growth_table import GrowthTable
from zesty_pivot.desk.sizes.nested_canvas import NestedCanvas
from zesty_pivot.desk.sizes.sizes import STATIONS, Sizes
from zesty_pivot.desk.sizes.wearer_list import WearerList
from zesty_pivot.desk.sizes.writing_all import WritingAll
from zesty_pivot.desk.sizes.writing_view import WritingView
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.tabs import station_row

FRAME_MS, BUSY_MS = 30, 250  # between two pictures of what comes in; longer while it comes in, which it keeps waiting
MORE_WIDE = 20  # px more than other views' sides: a name and what came of it


class SizesView(QWidget):
    """One station is seen; the side beside it is the same for all."""

    def __init__(self, model: DeskModel, sizes: Sizes, writing: WritingAll, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._sizes, self._writing, self._run = model, sizes, writing, run
        self.chart, self.nested = ChartView(model, sizes.charts, run), NestedCanvas(model, sizes)
        self.growth, self.grading = GrowthTable(model, sizes), GradingView(model, sizes)
        self.writing = WritingView(writing, run)
        self.list = WearerList(sizes)
        self.point, self.way, self.darts = Choice("Laid on"), Choice("Blocks of the sizes"), Choice("Darts")
        self.bar, self.why = QProgressBar(), label("", "quiet")
        self._stack = QStackedWidget()
        abreast(self, self._middle(), self._side(), widest=0)
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.timeout.connect(self.refresh)
        self._seen = ("", "")  # the station and the one that was chosen, when it was shown last
        self._connect()
        self.refresh()

    def _middle(self) -> QWidget:
        middle = QWidget()
        column = QVBoxLayout(middle)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        row, self.buttons = station_row(STATIONS, lambda id: self._run(f"sizes.{id}"))
        column.addLayout(row)
        column.addWidget(self._stack, 1)
        for station in (self.chart, self.nested, self.growth, self.grading, self.writing):
            self._stack.addWidget(station)
        return middle

    def _side(self) -> QWidget:
        side = SideColumn("right", 4)
        side.setFixedWidth(WIDTH + MORE_WIDE)
        rows = side.rows
        rows.addWidget(label("Made in", "heading"))
        self.list.setMinimumHeight(236)
        rows.addWidget(self.list)
        self.bar.setRange(0, 100)
        self.bar.setTextVisible(False)
        self.bar.setFixedHeight(6)
        self.bar.setAccessibleName("How many sizes are worked out")
        rows.addWidget(self.bar)
        rows.addWidget(self.why)
        titled(rows, "Laid on each other at", self.point)
        titled(rows, "Where their blocks come from", self.way)
        titled(rows, "Darts of graded blocks", self.darts)
        asked = (
            ("sizes.put_under", "Put it under the style"), ("sizes.trace", "Lay it under the table"),
            ("sizes.nested_sheets", "Save the nested sheets…"),
        )  # fmt: skip
        self.feet = side.ask(asked, self._run)
        return side

    def _connect(self) -> None:
        sizes = self._sizes
        sizes.changed.connect(self._later)
        sizes.rested.connect(self._rest)
        sizes.moved.connect(self._follow_hand)
        sizes.charts.changed.connect(self._later)
        self.list.chosen.connect(sizes.choose)
        self.list.ticked.connect(self._tick)
        self.list.opened.connect(lambda _title: self._run("sizes.put_under"))
        self.nested.picked.connect(sizes.choose)
        self.point.picked.connect(lambda point: sizes.ask(point=point))
        self.way.picked.connect(self._take_way)
        self.darts.picked.connect(lambda darts: sizes.ask(darts=darts))
        self.writing.opened.connect(self._open)

    def _tick(self, title: str, on: bool) -> None:
        sizes = self._sizes
        if title in {one.title for one in sizes.who.fitting}:
            titles = [one.title for one in sizes.who.made_in if one.title != title or on]
            sizes.make_in([*titles, *([title] if on else [])])
        else:
            sizes.show_person(title, on)

    def _take_way(self, way: str) -> None:
        if way == "own" and not self._sizes.own_blocks:
            self._run("sizes.own_blocks")
            self.refresh()
        else:
            self._sizes.ask(way=way or None)

    def _open(self, made: Made) -> None:
        if any(one.title == made.name for one in self._sizes.who.shown):
            self._sizes.choose(made.name)
        elif (guest := self._writing.wearer(made)) is not None:
            self._sizes.look_at(guest)

    @property
    def canvas(self) -> Canvas:
        """The canvas of the station; the nested one where it has none."""
        return self.grading.canvas if self._sizes.station == "grading" else self.nested

    def begin(self) -> None:
        """It is looked at: what is not known yet is worked out."""
        self._sizes.look()

    def _rest(self) -> None:
        """What was asked of the view is seen at once; what the sizes came to, in a moment."""
        if self._seen == (self._sizes.station, self._sizes.chosen):
            self._later()
        else:
            self.refresh()

    def _later(self) -> None:
        if not self._soon.isActive():
            self._soon.start(BUSY_MS if self._sizes.work.is_at_work else FRAME_MS)

    def _follow_hand(self) -> None:
        if self._sizes.station == "nested":
            self.nested.refresh()

    @contained("the sizes")
    def refresh(self) -> None:
        """Shows what is so."""
        if self._model.view != "sizes":
            return
        sizes = self._sizes
        self._seen = (sizes.station, sizes.chosen)
        self._stack.setCurrentIndex(list(STATIONS).index(sizes.station))
        for id, button in self.buttons.items():
            button.setChecked(id == sizes.station)
        if sizes.is_at_work:  # in a turn of its own: keys and the mouse are heard in between
            QTimer.singleShot(0, self.list.refresh)
        else:
            self.list.refresh()
        self.bar.setVisible(sizes.is_at_work)
        self.bar.setValue(round(100 * sizes.done))
        self.why.setText(self._why())
        points = [(one, capital(words(one))) for one in sizes.points]
        self.point.show_choices(points or [(sizes.point, capital(words(sizes.point)))], sizes.point)
        usual = WAYS[sizes.under().way_for(self._model.style)]
        self.way.show_choices(
            [("", f"As usual: {usual}"), *((way, capital(said)) for way, said in WAYS.items())], sizes.way or ""
        )
        self.darts.show_choices([("grow", "Grow with the bust"), ("keep", "Keep their mouth")], sizes.darts)
        self.darts.setEnabled(sizes.under().way_for(self._model.style) == "grade")
        for button in self.feet.values():
            found = sizes.sized(sizes.chosen)
            button.setEnabled(found is not None and found.derived is not None)
        shown = self._stack.currentWidget()
        if shown is not None and hasattr(shown, "refresh"):
            shown.refresh()

    def _why(self) -> str:
        """What is wrong with the chosen one, or that nothing is."""
        sizes = self._sizes
        found = sizes.sized(sizes.chosen)
        if found is None:
            return sizes.fault or sizes.note
        if found.derived is None:
            return f"{sizes.chosen}: {found.fault}"
        verdict = sizes.verdict(found.wearer)
        if verdict is None:
            return f"{sizes.chosen} is being looked over."
        bad = (*verdict.broken, *verdict.errors)
        if not bad:
            return f"{sizes.chosen} is sound" + (f"; {verdict.warnings} to look at." if verdict.warnings else ".")
        return f"{sizes.chosen}: {bad[0]}" + (f" And {len(bad) - 1} more." if len(bad) > 1 else "")
