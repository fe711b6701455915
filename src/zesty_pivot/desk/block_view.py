"""The block view: a method and its conventions, the draft as it grows, its instruction and check."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

from PyQt6.QtCore import QRect, QSize, Qt
from PyQt6.QtGui import QAction, QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QListWidget, QPushButton, QSlider, QToolButton, QVBoxLayout, QWidget

from zesty_pivot.core.drafting.method import Parameter
from zesty_pivot.core.errors import FormulaError
from zesty_pivot.core.formats.draft_sheet import SCALES
from zesty_pivot.core.measure import BY_NAME
from zesty_pivot.core.quantity import Scope, format_length, length_mm, share_of
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import SideColumn, side
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.drafting import COMPARED, Drafting
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.labels import Figures, empty, label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.people import People
from zesty_pivot.desk.table.draft_table import DraftTable
from zesty_pivot.desk.tabs import Tabs

LEFT, RIGHT = 296, 330
NARROW, NARROW_LEFT, NARROW_RIGHT = 1000, 250, 250  # px: a window narrower than that has smaller sides
SAID = 62  # px for three lines under the draft, so that it keeps still
STEPS_LESS = 84  # px of the right side that are not a step's words: margins, padding, the scroll bar


class BlockView(QWidget):
    """Shows the drafting; every change goes to it."""

    def __init__(
        self, model: DeskModel, people: People, drafting: Drafting, run: Callable[[str], None], action: Callable[[str], QAction]
    ) -> None:
        super().__init__()
        self._model, self._people, self._drafting, self._run = model, people, drafting, run
        self.canvas = DraftTable(model, drafting)
        self.whose, self.method = Choice("Body"), Choice("Drafting method")
        self.scale = Choice("Scale of the print")
        self.summary, self.told = label("", "quiet"), label("", "warning")
        self.fields: dict[str, CalcField | Choice] = {}
        self.conventions = QVBoxLayout()
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.said = label("", "figure")
        self.steps = QListWidget()
        self.check = QVBoxLayout()
        self.compare, self.moved = Choice("Tracing paper"), Figures(2)
        self.swapped = QVBoxLayout()
        self.tabs = Tabs()
        self._built = ""
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self._left())
        row.addLayout(self._middle(action), 1)
        row.addWidget(self._right())
        self.fit_width(1280)
        drafting.changed.connect(self.refresh)
        drafting.stepped.connect(self.show_step)
        model.view_changed.connect(self.refresh)
        self.refresh()

    # Building.

    def _left(self) -> QWidget:
        self.left = SideColumn("left")
        rows = self.left.rows
        rows.addWidget(label("Draft a block for", "heading"))
        rows.addWidget(self.whose)
        rows.addWidget(self.method)
        rows.addWidget(self.summary)
        rows.addWidget(self.told)
        rows.addWidget(label("Conventions", "heading"))
        rows.addLayout(self.conventions)
        asked = (
            ("draft.new_style", "New style over this block"), ("draft.put_under", "Put it under this style"),
            ("draft.print", "Print the draft…"), ("draft.instruction", "Print the instruction…"),
        )  # fmt: skip
        self.left.ask(asked, self._run)
        self.left.foot.insertWidget(2, self.scale)
        self.scale.show_choices([(scale, f"printed {scale}") for scale in SCALES], self._drafting.scale)
        self.scale.picked.connect(lambda scale: setattr(self._drafting, "scale", scale))
        self.whose.picked.connect(lambda at: self._people.choose(int(at)))
        self.method.picked.connect(self._drafting.choose_method)
        return self.left

    def _middle(self, action: Callable[[str], QAction]) -> QVBoxLayout:
        column = QVBoxLayout()
        column.setSpacing(0)
        column.addWidget(self.canvas, 1)
        row = QHBoxLayout()
        row.setContentsMargins(12, 6, 12, 2)
        for id in ("draft.first", "draft.back"):
            row.addWidget(self._tool(action(id)))
        row.addWidget(self.slider, 1)
        for id in ("draft.on", "draft.last"):
            row.addWidget(self._tool(action(id)))
        column.addLayout(row)
        self.said.setFixedHeight(SAID)
        self.said.setContentsMargins(14, 0, 14, 8)
        self.said.setAlignment(Qt.AlignmentFlag.AlignTop)
        column.addWidget(self.said)
        self.slider.setAccessibleName("How far the draft is drawn")
        self.slider.setTracking(True)
        self.slider.valueChanged.connect(self._drafting.go)
        return column

    def _tool(self, action: QAction) -> QToolButton:
        button = QToolButton()
        button.setDefaultAction(action)
        button.setIconSize(QSize(18, 18))
        button.setAccessibleName(action.text())
        return button

    def _right(self) -> QWidget:
        self.right = side("right")
        around = QVBoxLayout(self.right)
        around.setContentsMargins(0, 0, 0, 0)
        around.addWidget(self.tabs)
        page = self.tabs.add("steps", "Steps", "The draft in words, with the arithmetic of these measurements").rows
        page.addWidget(self.steps, 1)
        self.steps.setAccessibleName("Steps of the draft")
        self.steps.setWordWrap(True)
        self.steps.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.steps.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOn)
        self.steps.setTextElideMode(Qt.TextElideMode.ElideNone)
        self.steps.setMinimumHeight(420)
        self.steps.currentRowChanged.connect(self._pick_step)
        page = self.tabs.add("check", "Check", "Girths, partners, corners, balance, each with its mend").rows
        page.addLayout(self.check)
        page.addStretch(1)
        page = self.tabs.add("moved", "Moved", "What a convention moved, and by how much").rows
        page.addWidget(label("Tracing paper under the draft", "quiet"))
        page.addWidget(self.compare)
        page.addWidget(self.moved)
        page.addStretch(1)
        page = self.tabs.add("swapped", "Style", "What the block changed in the style it was put under").rows
        page.addLayout(self.swapped)
        page.addStretch(1)
        self.compare.picked.connect(self._drafting.compare)
        return self.right

    def fit_width(self, width: int) -> None:
        """Smaller sides where the window is narrow."""
        is_narrow = width < NARROW
        self.left.setFixedWidth(NARROW_LEFT if is_narrow else LEFT)
        self.right.setFixedWidth(NARROW_RIGHT if is_narrow else RIGHT)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        was = self.right.width()
        self.fit_width(self.width())
        if self.right.width() != was:
            self._make_room([self.steps.item(k).text() for k in range(self.steps.count())])  # type: ignore[union-attr]

    def _pick_step(self, row: int) -> None:
        if row >= 0:
            self._drafting.go(row + 1)

    # Showing.

    @contained("the block view")
    def refresh(self) -> None:
        """Shows the drafting, when this view is the one that is seen."""
        if self._model.view != "block":
            return
        drafting = self._drafting
        bodies = [(str(k), self._people.body(k).title) for k in range(-1, len(self._people.all))]
        self.whose.show_choices(bodies, str(self._people.chosen))
        self.method.show_choices([(m.id, m.title) for m in drafting.methods], drafting.method.id)
        self.summary.setText(drafting.method.summary)
        _lengths, filled = drafting.used
        unit = self._model.style.units
        titles = {guess.name: BY_NAME[guess.name].short for guess in filled}
        guessed = [f"{titles[guess.name]} {format_length(guess.mm, unit)} ({guess.why})" for guess in filled]
        told = [f"Estimated: {', '.join(guessed)}."] if guessed else []
        self.told.setText(" ".join(told))
        self.told.setVisible(bool(self.told.text()))
        self._show_conventions()
        self._show_steps()
        self._show_check()
        self._show_moved()
        self._show_swapped()
        self.show_step()

    def _show_conventions(self) -> None:
        method, settings = self._drafting.method, self._drafting.conventions.settings
        if self._built != method.id:
            self._built = method.id
            empty(self.conventions)
            self.fields = {}
            for parameter in method.parameters:
                self._add_field(parameter)
            button = QPushButton("The method's own conventions")
            button.clicked.connect(self._drafting.reset)
            self.conventions.addWidget(button)
        for parameter in method.parameters:
            field, text = self.fields[parameter.id], settings.get(parameter.id, parameter.default)
            if isinstance(field, CalcField):
                field.set_text(text, method.id)
            else:
                field.show_choices([(choice.word, choice.title) for choice in parameter.choices], text)

    def _add_field(self, parameter: Parameter) -> None:
        title = label(parameter.title)
        tip = " ".join(
            filter(None, (parameter.why, f"Other schools: {'; '.join(parameter.schools)}." if parameter.schools else ""))
        )
        self.conventions.addWidget(title)
        field: CalcField | Choice
        if parameter.kind == "word":
            field = Choice(parameter.title)
            field.picked.connect(partial(self._drafting.set, parameter.id))
        else:
            field = CalcField(partial(self._worth, parameter), parameter.title, may_be_empty=parameter.is_optional)
            field.committed.connect(partial(self._drafting.set, parameter.id))
            field.edit.setToolTip(tip)
        title.setToolTip(tip)
        self.fields[parameter.id] = field
        self.conventions.addWidget(field)
        if tip and parameter.schools:
            self.conventions.addWidget(label(f"Other schools: {'; '.join(parameter.schools)}", "quiet"))

    def _worth(self, parameter: Parameter, text: str) -> str:
        """What a convention comes to, in the style's unit. Raises FormulaError."""
        if parameter.kind == "share":
            try:
                return f"{share_of(float(text)):.0%}"
            except ValueError:
                return f"{share_of(text):.0%}"
        unit = self._model.style.units
        lengths = self._drafting.known
        if not text:
            raise FormulaError("nothing is entered here", advice="Write a length such as 1 in.")
        return format_length(length_mm(text, Scope(unit, lengths)), unit)

    def _show_steps(self) -> None:
        drawn = self._drafting.drawn
        unit = self._model.style.units
        lines = (
            [] if drawn is None else [f"{drawn.label(done)}  {drawn.instruction(done, unit)}".strip() for done in drawn.shown]
        )
        self.steps.blockSignals(True)
        if [self.steps.item(k).text() for k in range(self.steps.count())] != lines:  # type: ignore[union-attr]
            self.steps.clear()
            self.steps.addItems(lines)
            self._make_room(lines)
        self.steps.blockSignals(False)

    def _make_room(self, lines: Sequence[str]) -> None:
        """Each line as high as its words need; the list by itself would cut the last of them short."""
        metrics, wide = self.steps.fontMetrics(), self.right.width() - STEPS_LESS
        for row, text in enumerate(lines):
            item = self.steps.item(row)
            if item is not None:
                box = metrics.boundingRect(QRect(0, 0, wide, 2000), int(Qt.TextFlag.TextWordWrap), text)
                item.setSizeHint(QSize(wide, box.height() + 14))

    @contained("the step of the draft")
    def show_step(self) -> None:
        """Shows how far the draft is drawn."""
        drafting = self._drafting
        reached = drafting.reached
        self.slider.blockSignals(True)
        self.slider.setRange(0, drafting.count)
        self.slider.setValue(reached)
        self.slider.blockSignals(False)
        self.steps.blockSignals(True)
        self.steps.setCurrentRow(reached - 1)
        self.steps.blockSignals(False)
        if drafting.drawn is None or not reached:
            self.said.setText("")
            return
        done = drafting.drawn.shown[reached - 1]
        where = f"{done.piece}, " if done.piece else ""
        why = f" {done.operation.why}" if done.operation.why else ""
        text = drafting.drawn.instruction(done, self._model.style.units)
        self.said.setText(f"{reached} of {drafting.count}   {where}{text}.{why}")

    def _show_check(self) -> None:
        empty(self.check)
        for line in self._drafting.lines:
            mark = "✓" if line.is_right else "●"
            self.check.addWidget(label(f"{mark}  {line.title}: {line.says}", "" if line.is_right else "warning"))
            if line.advice:
                self.check.addWidget(label(line.advice, "quiet"))
            if line.mend is not None:
                button = QPushButton(line.mend.title)
                button.clicked.connect(partial(lambda mend, _checked=False: self._drafting.set(mend.id, mend.value), line.mend))
                self.check.addWidget(button)

    def _show_moved(self) -> None:
        self.compare.show_choices(list(COMPARED.items()), self._drafting.compared)
        unit = self._model.style.units
        rows = [(f"{moved.title}, {moved.piece}", format_length(moved.by, unit, fine=True)) for moved in self._drafting.moved]
        self.moved.show_rows(rows or [("Nothing lies elsewhere.", "")])

    def _show_swapped(self) -> None:
        empty(self.swapped)
        if not self._drafting.swapped:
            self.swapped.addWidget(
                label("Put the block under the style: what it changes and what it breaks is listed here.", "quiet")
            )
        for change in self._drafting.swapped:
            self.swapped.addWidget(label(f"{change.title}: {change.says}", "warning" if change.is_broken else ""))
