"""The measure view: people at the left, the chart in the order in which one measures, what can be said of it at the right."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QResizeEvent
from PyQt6.QtWidgets import (
    QCheckBox,
    QFrame,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QPushButton,
    QVBoxLayout,
    QWidget,
)  # fmt: skip

from zesty_pivot.core.formats.measures_file import Person
from zesty_pivot.core.measure import BY_NAME, CHART, MEASUREMENTS
from zesty_pivot.core.measure.fractions import PARTS, fraction_table, told
from zesty_pivot.core.measure.plausible import CAUTION, again
from zesty_pivot.core.quantity import format_length
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column, abreast, side
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import Figures, empty, label
from zesty_pivot.desk.measure_figure import MeasureFigure
from zesty_pivot.desk.measure_row import MeasureRow
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.people import STYLE, BodyShown, People, title_of
from zesty_pivot.desk.tabs import Tabs

LEFT, RIGHT = 214, 384
NARROW, NARROW_LEFT, NARROW_RIGHT = 1000, 170, 336  # px: a window narrower than that has smaller sides


class MeasureView(QWidget):
    """People, chart, and pages beside it: where the tape goes, fractions, comparison."""

    def __init__(self, model: DeskModel, people: People, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._people, self._run = model, people, run
        self.list = QListWidget()
        self.rows: dict[str, MeasureRow] = {}
        self.figure = MeasureFigure()
        self.tape, self.iso = label("", "figure"), label("", "quiet")
        self.odd = QVBoxLayout()
        self.name, self.date, self.notes = QLineEdit(), QLineEdit(), QLineEdit()
        self.child = QCheckBox("a child")
        self.fractions = Figures(2 + len(PARTS))
        self.other = Choice("Compare with")
        self.differences = Figures(4)
        self.tabs = Tabs()
        self._other = ""
        self._compared_for: tuple[str, int] = ("", STYLE)  # whom the comparison was begun for
        abreast(self, self._left(), self._middle(), self._right(), widest=1)
        self.fit_width(1280)
        people.changed.connect(self.refresh)
        model.view_changed.connect(self.refresh)
        self.refresh()

    # Building.

    def _left(self) -> QWidget:
        self.left = side("left")
        column = QVBoxLayout(self.left)
        column.setContentsMargins(12, 12, 12, 12)
        column.addWidget(label("People", "heading"))
        column.addWidget(self.list, 1)
        self.list.setAccessibleName("People")
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.setWordWrap(True)
        self.list.setTextElideMode(Qt.TextElideMode.ElideNone)
        self.list.currentRowChanged.connect(lambda at: self._people.choose(at - 1))
        for id, text in (
            ("people.new", "New person"), ("people.again", "Measured again"), ("people.remove", "Take out"),
            ("people.import", "Bring in a file…"), ("people.export", "Save all…"),
        ):  # fmt: skip
            button = QPushButton(text)
            button.clicked.connect(lambda _checked=False, id=id: self._run(id))
            if id == "people.new":
                button.setObjectName("primary")
            column.addWidget(button)
        return self.left

    def _middle(self) -> QWidget:
        inside = Column()
        rows = inside.rows
        rows.setSpacing(3)
        facts = QHBoxLayout()
        for field, words, wide in ((self.name, "Name", 190), (self.date, "Date", 96), (self.notes, "Notes", 0)):
            field.setPlaceholderText(words)
            field.setAccessibleName(words)
            field.setToolTip(words)
            if wide:
                field.setFixedWidth(wide)
            facts.addWidget(field, 0 if wide else 1)
        facts.addWidget(self.child)
        rows.addLayout(facts)
        self.name.returnPressed.connect(self.rows_begin)
        self.name.editingFinished.connect(lambda: self._people.set_facts(name=self.name.text().strip()))
        self.date.editingFinished.connect(lambda: self._people.set_facts(date=self.date.text().strip()))
        self.notes.editingFinished.connect(lambda: self._people.set_facts(notes=self.notes.text().strip()))
        self.child.clicked.connect(lambda: self._people.set_facts(is_child=self.child.isChecked()))
        self.hint = label("", "quiet")
        rows.addWidget(self.hint)
        for measurement in CHART:
            row = MeasureRow(measurement)
            row.committed.connect(self._people.set_measure)
            row.entered.connect(self.light)
            row.done.connect(self._next)
            self.rows[measurement.name] = row
            rows.addWidget(row)
        rows.addStretch(1)
        area = inside.scrolled()
        area.setFrameShape(QFrame.Shape.NoFrame)
        return area

    def _right(self) -> QWidget:
        self.right = side("right")
        around = QVBoxLayout(self.right)
        around.setContentsMargins(0, 0, 0, 0)
        around.addWidget(self.tabs)
        page = self.tabs.add("tape", "Tape", "Where the tape goes, and what is odd").rows
        for widget in (self.figure, self.tape, self.iso):
            page.addWidget(widget)
        page.addSpacing(6)
        page.addLayout(self.odd)
        page.addStretch(1)
        page = self.tabs.add("fractions", "Fractions", "Halves, quarters, sixths, eighths and twelfths").rows
        page.addWidget(self.fractions)
        button = QPushButton("Save the table…")
        button.clicked.connect(lambda: self._run("people.fractions"))
        page.addWidget(button)
        page.addStretch(1)
        page = self.tabs.add("compare", "Compare", "With an earlier date or another person").rows
        page.addWidget(self.other)
        page.addWidget(self.differences)
        page.addStretch(1)
        self.other.picked.connect(self._compare)
        return self.right

    def fit_width(self, width: int) -> None:
        """Smaller sides where the window is narrow."""
        is_narrow = width < NARROW
        self.left.setFixedWidth(NARROW_LEFT if is_narrow else LEFT)
        self.right.setFixedWidth(NARROW_RIGHT if is_narrow else RIGHT)
        self.name.setFixedWidth(130 if is_narrow else 190)
        self.notes.setVisible(not is_narrow)
        for row in self.rows.values():
            row.fit(is_narrow=is_narrow)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.fit_width(self.width())

    # Doing.

    def light(self, name: str) -> None:
        """Shows where the tape goes for a measurement."""
        measurement = BY_NAME[name]
        self.figure.show_line(name)
        self.tape.setText(
            f"{measurement.title.partition(',')[0].capitalize()}: {measurement.tape[:1].lower()}{measurement.tape[1:]}"
        )
        self.iso.setText(
            f"ISO 8559-1 calls it {measurement.iso} (from memory)." if measurement.iso else "A measure of the trade."
        )

    def _next(self, name: str) -> None:
        names = list(self.rows)
        names = [known for known in names if self.rows[known].isVisibleTo(self)]
        after = names[(names.index(name) + 1) % len(names)]
        self.rows[after].edit.setFocus()
        self.rows[after].edit.selectAll()

    def _compare(self, value: str) -> None:
        self._other = value
        self.refresh()

    def rows_begin(self) -> None:
        """The hand goes on to the first measurement."""
        self.rows[CHART[0].name].edit.setFocus()

    def begin(self) -> None:
        """Puts the hand into the name of a person who was just added."""
        self.name.setFocus()
        self.name.selectAll()

    # Showing.

    @contained("the measure view")
    def refresh(self) -> None:
        """Shows the people, when this view is the one that is seen."""
        if self._model.view != "measure":
            return
        body = self._people.body()
        self._show_list()
        self._show_facts(body)
        guesses, unit = body.estimates, self._people.unit
        oddities = body.oddities(unit)
        odd_names = {name for odd in oddities if odd.is_likely_slip for name in odd.names}
        for name, row in self.rows.items():
            row.setVisible(not body.is_child or BY_NAME[name].child is not None or name in body.texts)
            row.title.setText("Chest" if body.is_child and name == "bust" else BY_NAME[name].short.capitalize())
            text = body.texts.get(name, "")
            if name in body.faults:
                row.show_body(text, str(body.faults[name].what), "fault")
            elif name in body.lengths:
                row.show_body(text, self._worth(text, body.lengths[name]), "warning" if name in odd_names else "quiet")
            elif name in guesses:
                guess = guesses[name]
                row.show_body("", f"estimate: {guess.why}", "quiet", f"≈ {format_length(guess.mm, unit)}")
            else:
                row.show_body("", "", "quiet")
        empty(self.odd)
        if body.is_child:
            self.odd.addWidget(label(CAUTION, "warning"))
        for odd in oddities:
            self.odd.addWidget(label(f"{odd.says[:1].upper()}{odd.says[1:]}.", "warning" if odd.is_likely_slip else "quiet"))
            self.odd.addWidget(label(again(odd), "quiet"))
        if body.lengths and not oddities:
            self.odd.addWidget(label("Nothing is odd about these measurements.", "quiet"))
        self._show_fractions(body)
        self._show_differences(body)
        if not self.tape.text():
            self.light("bust")

    def _worth(self, text: str, mm: float) -> str:
        """What a text comes to: in the other unit, and worked out where it is a formula."""
        unit = self._people.unit
        here, other = format_length(mm, unit), format_length(mm, "cm" if unit == "in" else "in")
        return other if text.replace(",", ".") in (here, here.replace(".0 ", " ")) else f"{here} · {other}"

    def _show_list(self) -> None:
        people = ("\n".join(filter(None, (person.name or "Somebody", person.date))) for person in self._people.all)
        titles = [self._people.body(STYLE).title, *people]
        self.list.blockSignals(True)
        if [self.list.item(k).text() for k in range(self.list.count())] != titles:  # type: ignore[union-attr]
            self.list.clear()
            self.list.addItems(titles)
        self.list.setCurrentRow(self._people.chosen + 1)
        self.list.blockSignals(False)

    def _show_facts(self, body: BodyShown) -> None:
        person = self._people.person or Person(name=body.name)
        for field, text in ((self.name, person.name), (self.date, person.date), (self.notes, person.notes)):
            if not (field.hasFocus() and field.isModified()):
                field.setText(text)
                field.setCursorPosition(0)
            field.setEnabled(not body.is_style)
        self.child.setChecked(body.is_child)
        self.child.setEnabled(not body.is_style)
        if not body.is_style:
            self.hint.setText("Type 96,5 or 38 1/4 in or bust - 4 cm. Enter goes on to the next.")
        elif self._model.style.block.method is not None:
            self.hint.setText("The body of the block. It was drafted: change a measurement, and the whole style follows.")
        else:
            self.hint.setText("The body of the block. The block was not drafted here: formulas follow, its lines stay.")

    def _show_fractions(self, body: BodyShown) -> None:
        unit = self._people.unit
        rows = []
        for row in fraction_table(body.lengths):
            cells = [cell.removesuffix(f" {unit}") for cell in told(row, unit)]
            rows.append((BY_NAME[row.name].short.capitalize(), *cells))
        self.fractions.show_rows(rows, head=("", unit, *(f"1/{part}" for part in PARTS)))

    def _show_differences(self, body: BodyShown) -> None:
        others = [(str(k), title_of(person)) for k, person in enumerate(self._people.all) if k != self._people.chosen]
        if not body.is_style:
            others.insert(0, (str(STYLE), self._people.body(STYLE).title))
        who = (body.title, self._people.chosen)
        if self._other not in [value for value, _title in others] or who != self._compared_for:
            self._compared_for = who
            same = [value for value, title in others if body.name and title.startswith(body.name)]
            self._other = (same or [value for value, _title in others] or [""])[0]
        self.other.show_choices(others or [("", "nobody else")], self._other)
        unit = self._people.unit
        found = self._people.body(int(self._other)) if self._other else body
        rows = []
        for name, title in MEASUREMENTS.items():
            one, two = body.lengths.get(name), found.lengths.get(name)
            if one is not None or two is not None:
                gap = "" if one is None or two is None else _signed(one - two, unit)
                cells = [format_length(mm, unit) if mm is not None else "–" for mm in (one, two)]
                rows.append((title.partition(",")[0].capitalize(), *cells, gap))
        self.differences.show_rows(rows, head=("", "this", "other", "more by"))


def _signed(mm: float, unit: str) -> str:
    text = format_length(abs(mm), unit)  # type: ignore[arg-type]
    return "=" if text.startswith("0 ") or text.startswith("0.0 ") else f"{'+' if mm > 0.0 else '−'}{text}"


def today() -> str:
    """The date as people are listed by."""
    return date.today().isoformat()
