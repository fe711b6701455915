"""The view of a block by ruler: the sheet of distances beside the table, what lies on the edges, what does not close."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from functools import partial

from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLineEdit, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.intake.ruler.sheet import NECK, RUNS_TO, WAIST, RulerPoint, edge_words, is_tip, item_words, point_words
from zesty_pivot.core.piece import Body
from zesty_pivot.core.piece.names import capital
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column, SideColumn, abreast, asking, side
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import empty, label
from zesty_pivot.desk.model import RULER, DeskModel
from zesty_pivot.desk.ruler_field import RulerField
from zesty_pivot.desk.ruling import Ruling
from zesty_pivot.desk.table.ruler_table import RulerTable

LEFT, TITLE, UNDER = 476, 128, 118
MOST_SAID = 5  # of what does not close
BODIES = (("front", "Front"), ("back", "Back"))
UNITS = (("cm", "Centimetres"), ("mm", "Millimetres"), ("in", "Inches"))
ASKED = (
    ("ruler.finish", "Make a block of it"), ("ruler.open", "Open…"), ("ruler.save", "Save…"),
    ("ruler.begin_again", "Begin again"),
)  # fmt: skip


class RulerView(QWidget):
    """Shows the sheet; every change goes to it."""

    def __init__(self, model: DeskModel, ruling: Ruling, run: Callable[[str], None], action: Callable[[str], QAction]) -> None:
        super().__init__()
        self._model, self._ruling, self._run, self._action = model, ruling, run, action
        self.canvas = RulerTable(model, ruling)
        self.name, self.body, self.unit, self.edge = QLineEdit(), Choice("Piece"), Choice("Unit"), Choice("Edge")
        self.fields: dict[tuple[str, str], RulerField] = {}
        self.lengths: dict[str, RulerField] = {}
        self.outs: dict[tuple[str, int], QPushButton] = {}
        self.buttons: dict[str, QPushButton] = {}
        self.rows, self.tape, self.items = QGridLayout(), QGridLayout(), QVBoxLayout()
        self.says = QVBoxLayout()
        self._laid: object = None
        abreast(self, self._left(), self._right(), widest=1)
        ruling.changed.connect(self.refresh)
        model.view_changed.connect(self.refresh)
        self.canvas.picked.connect(self.go_to)
        self.refresh()

    def _left(self) -> QWidget:
        found = SideColumn("left", 6)
        found.setFixedWidth(LEFT)
        rows = found.rows
        rows.addWidget(label("A block by ruler", "heading"))
        self.name.setAccessibleName("Name of the block")
        self.name.editingFinished.connect(lambda: self._ruling.set_name(self.name.text()))
        rows.addWidget(self.name)
        head = QHBoxLayout()
        for choice in (self.body, self.unit):
            head.addWidget(choice, 1)
        rows.addLayout(head)
        self.body.picked.connect(lambda value: self._ruling.set_body(Body(value)))
        self.unit.picked.connect(self._ruling.set_unit)
        self.rows.setHorizontalSpacing(5)
        self.rows.setVerticalSpacing(4)
        rows.addLayout(self.rows)
        rows.addWidget(label("Along the edge with a tape, without the mouths of darts", "quiet"))
        rows.addLayout(self.tape)
        rows.addWidget(label("On the edges, in order from the centre neck", "heading"))
        rows.addLayout(self.items)
        add = QHBoxLayout()
        self.edge.show_choices([(edge, edge_words(edge).capitalize()) for edge in RUNS_TO], "shoulder")
        add.addWidget(self.edge, 1)
        for item, text in (("dart", "Add a dart"), ("point", "Add a point of the curve")):
            button = QPushButton(text)
            button.clicked.connect(partial(self._add, item))
            self.buttons[f"add.{item}"] = button
            add.addWidget(button)
        rows.addLayout(add)
        self.buttons |= found.ask(ASKED[:1], self._run, lambda id: self._action(id).toolTip())
        beside = QHBoxLayout()
        for id, text in ASKED[1:]:
            self.buttons[id] = asking(id, text, self._run, lambda id: self._action(id).toolTip())
            beside.addWidget(self.buttons[id])
        found.foot.addLayout(beside)
        return found

    def _right(self) -> QWidget:
        """The table, and under it what is missing or does not close: it takes no room from what is typed."""
        found, under = QWidget(), side("right")
        column = QVBoxLayout(found)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.canvas, 1)
        inside = Column()
        inside.rows.addLayout(self.says)
        inside.rows.addStretch(1)
        around = QVBoxLayout(under)
        around.setContentsMargins(0, 0, 0, 0)
        around.addWidget(inside.scrolled())
        under.setFixedHeight(UNDER)
        column.addWidget(under)
        return found

    def _add(self, item: str, _checked: bool = False) -> None:
        self._ruling.add(str(self.edge.currentData()), "dart" if item == "dart" else "point")

    # Showing.

    @contained("the block by ruler")
    def refresh(self) -> None:
        """Shows the sheet, when this view is the one that is seen."""
        if self._model.view != RULER:
            return
        ruling = self._ruling
        if not self.name.hasFocus() and self.name.text() != ruling.file.name:
            self.name.setText(ruling.file.name)
        self.body.show_choices(BODIES, ruling.body.value)
        self.unit.show_choices(UNITS, ruling.file.units)
        laid = (ruling.body, ruling.measures.items)
        if laid != self._laid:
            self._laid = laid
            self._lay_rows()
        for (id, source), field in self.fields.items():
            field.show_text(ruling.text(id, source))
        for edge, field in self.lengths.items():
            field.show_text(ruling.along(edge))
        self._say()
        for id, _text in ASKED:
            self.buttons[id].setEnabled(self._action(id).isEnabled())

    def _lay_rows(self) -> None:
        ruling = self._ruling
        for layout in (self.rows, self.tape, self.items):
            empty(layout)
        self.fields, self.lengths, self.outs = {}, {}, {}
        for column, text in enumerate(("", "centre neck", "centre waist", "one before", "")):
            self.rows.addWidget(label(f"from the {text}" if text else "", "quiet"), 0, column)
        self.rows.setColumnMinimumWidth(0, TITLE)
        self.rows.setColumnStretch(0, 1)
        points = sorted(ruling.points, key=lambda point: point.id != WAIST)  # the centre first: all is measured from it
        for number, point in enumerate(points, 1):
            self._lay_row(number, point)
        for number, edge in enumerate(RUNS_TO):
            field = RulerField(f"Along the {edge_words(edge)}", partial(ruling.set_along, edge))
            self.lengths[edge] = field
            self.tape.addWidget(label(edge_words(edge).capitalize(), "quiet", wraps=False), 0, number)
            self.tape.addWidget(field, 1, number)
        for edge in RUNS_TO:
            counts: Counter[str] = Counter()
            for place, item in enumerate(ruling.measures.items.get(edge, ())):
                counts[item] += 1
                row = QWidget()
                line = QHBoxLayout(row)
                line.setContentsMargins(0, 0, 0, 0)
                line.addWidget(label(item_words(edge, item, counts[item]).capitalize(), wraps=False), 1)
                button = QPushButton("Take out")
                button.clicked.connect(lambda _checked=False, edge=edge, place=place: ruling.take_out(edge, place))
                self.outs[edge, place] = button
                line.addWidget(button)
                self.items.addWidget(row)

    def _lay_row(self, number: int, point: RulerPoint) -> None:
        self.rows.addWidget(label(point.name.capitalize()), number, 0)
        places = {NECK: 1, WAIST: 2}
        rest = 3
        for source in point.sources:
            column = places.get(source, rest)
            rest += source not in places
            says = f"{point.name} from {point_words(source)}"
            field = RulerField(says, partial(self._ruling.set_distance, point.id, source), f"{says.capitalize()}, straight")
            if is_tip(point.id) and column > 2:
                field.setPlaceholderText("leg 1" if column == 3 else "leg 2")
            field.entered.connect(partial(self._ruling.light, point.id))
            self.fields[point.id, source] = field
            self.rows.addWidget(field, number, column)

    def _say(self) -> None:
        """What is missing or does not close, the likeliest mistake first."""
        empty(self.says)
        ruling = self._ruling
        fault = ruling.source.faults.get(ruling.body, "")
        if fault:
            self.says.addWidget(label(fault, "quiet"))
        suspects = ruling.suspects
        if suspects:
            names = [f"{point_words(point)} from {point_words(other)}" for point, other in suspects[:4]]
            which = names[0] if len(names) == 1 else f"one of these is likely to be wrong: {'; '.join(names)}"
            self.says.addWidget(label(f"Measure again: {which}.", "warning"))
        unclosed = ruling.source.unclosed(ruling.body)
        for text in unclosed[:MOST_SAID]:
            self.says.addWidget(label(f"{capital(text)}.", "warning"))
        net = ruling.source.nets.get(ruling.body)
        if net is not None and not fault and not unclosed:
            checked = (
                "Everything closes." if net.is_checked else "It is drawn as measured. Nothing was measured twice to check it."
            )
            self.says.addWidget(label(checked, "quiet"))

    def go_to(self, id: str) -> None:
        """The first empty field of a point, else its first."""
        mine = [field for (point, _source), field in self.fields.items() if point == id]
        for field in [one for one in mine if not one.text()] or mine:
            field.setFocus()
            return
