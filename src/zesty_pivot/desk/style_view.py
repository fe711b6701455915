"""The style view: steps to add at the left, the table in the middle, the panels at the right."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from typing import TYPE_CHECKING

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import (
    QFrame,
    QHBoxLayout,
    QLabel,
    QMenu,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from zesty_pivot.desk.bead_actions import BEAD_MENU
from zesty_pivot.desk.column import side
from zesty_pivot.desk.foot import Foot
from zesty_pivot.desk.forms.registry import all_forms
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.labels import label, repolish
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.panel_column import PanelColumn
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.style_table import StyleTable
from zesty_pivot.desk.tape_bar import TapeBar

if TYPE_CHECKING:
    from zesty_pivot.desk.table.walk_table import WalkTable

LEFT, NARROW_LEFT = 192, 72
# Steps by their family, as they are headed at the left.
GROUPS = {
    "dart": "Darts", "neck": "Necklines", "line": "Lines and panels", "trim.armhole": "Lines and panels",
    "trim.hem": "Lines and panels", "trim.strapless": "Lines and panels", "yoke": "Lines and panels",
    "fullness": "Flare and fullness", "drape": "Flare and fullness", "piece": "Pieces and seams", "measure": "Pieces and seams",
    "trim": "Trims",
}  # fmt: skip
OTHERS = "More steps"  # of a family that has no heading


def heading(do: str) -> str:
    """What a step stands under among those to add."""
    return GROUPS.get(do) or GROUPS.get(do.partition(".")[0], OTHERS)


NARROW = 1100  # a window narrower than this shows the steps as pictures only


Menu = Callable[[tuple[str, ...]], QMenu]


class StyleView(QWidget):
    """Puts the parts together and shows the table or the walk."""

    def __init__(
        self, model: DeskModel, lay: Lay, keeper: Keeper, run: Callable[[str], None], action: Callable[[str], QAction],
        menu: Menu,
    ) -> None:  # fmt: skip
        super().__init__()
        self._model, self._lay = model, lay
        self.table = StyleTable(model, lay, lambda: menu(BEAD_MENU))
        self.side = PanelColumn(model, lay, keeper, run, lambda id: action(id).toolTip(), self.table.setFocus)
        self.foot = Foot(model, lay)
        self.tables = QStackedWidget()
        self.tables.addWidget(self.table)
        self.left = side("left")
        self._steps: list[tuple[QPushButton, QAction]] = []
        self._build_left(action)
        middle = QVBoxLayout()
        middle.setSpacing(0)
        middle.addWidget(self.tables, 1)
        self.tape_bar = TapeBar(self.table.tape.tool, self._keep_tape)
        self._feet = QStackedWidget()
        self._feet.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
        for foot in (self.foot, self.tape_bar):
            self._feet.addWidget(foot)
        self.table.tape.tool.changed.connect(self._show_foot)
        middle.addWidget(self._feet)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.left)
        row.addLayout(middle, 1)
        row.addWidget(self.side)
        lay.changed.connect(self._show_table)
        model.changed.connect(self._show_table)
        self.is_narrow = False
        self.fit_width(1280)

    def _build_left(self, action: Callable[[str], QAction]) -> None:
        inside = QWidget()
        inside.setObjectName("left")
        column = QVBoxLayout(inside)
        column.setContentsMargins(10, 12, 10, 10)
        column.setSpacing(4)
        area = QScrollArea()
        area.setWidget(inside)
        area.setWidgetResizable(True)
        area.setFrameShape(QFrame.Shape.NoFrame)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        whole = QVBoxLayout(self.left)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(area)
        self._heading = label("Add a step", "heading")
        column.addWidget(self._heading)
        self._groups: list[QLabel] = []
        for do in all_forms():
            group = heading(do)
            if not self._groups or group != self._groups[-1].text():
                self._groups.append(label(group, "quiet"))
                column.addWidget(self._groups[-1])
            known = action(f"add.{do}")
            button = QPushButton()
            button.setObjectName("step")
            button.setIconSize(QSize(18, 18))
            button.clicked.connect(known.trigger)
            known.changed.connect(lambda button=button, known=known: self._follow(button, known))
            self._steps.append((button, known))
            column.addWidget(button)
        column.addSpacing(10)
        hint = (
            "Drag a bead round the ring and the pattern opens there; Shift leaves half behind. Right-click a bead to gather, "
            "pleat or ease it."
        )
        self._hint = label(hint, "quiet")
        column.addWidget(self._hint)
        column.addStretch(1)

    def _follow(self, button: QPushButton, action: QAction) -> None:
        button.setEnabled(action.isEnabled())
        button.setIcon(action.icon())
        button.setToolTip(action.toolTip())
        button.setAccessibleName(action.text())
        button.setText("" if self.is_narrow else action.text())
        name = "icon" if self.is_narrow else "step"
        if button.objectName() != name:
            button.setObjectName(name)
            repolish(button)

    def fit_width(self, width: int) -> None:
        """Fewer words at the left where the window is narrow."""
        self.is_narrow = width < NARROW
        self.left.setFixedWidth(NARROW_LEFT if self.is_narrow else LEFT)
        for widget in (self._heading, self._hint, *self._groups):
            widget.setVisible(not self.is_narrow)
        for button, action in self._steps:
            self._follow(button, action)

    @cached_property
    def walk_table(self) -> WalkTable:
        """The table of a walk, made when it is first looked at."""
        from zesty_pivot.desk.table.walk_table import WalkTable

        table = WalkTable(self._model, self._lay)
        self.tables.addWidget(table)
        return table

    def canvas(self) -> Canvas:
        """The canvas that is seen."""
        return self.walk_table if self._lay.is_walking else self.table

    def parts(self) -> tuple[QWidget, ...]:
        """The parts that F6 goes through."""
        return self.left, self.canvas(), self._feet, self.side

    def _keep_tape(self) -> None:
        if self.table.tape.tool.keep():
            self.table.pointing.begun()

    def _show_foot(self) -> None:
        self._feet.setCurrentWidget(self.tape_bar if self.table.tape.tool.is_on else self.foot)

    def _show_table(self) -> None:
        canvas = self.canvas()
        if self.tables.currentWidget() is not canvas:
            self.tables.setCurrentWidget(canvas)
            canvas.fit()
        self.foot.setEnabled(canvas is self.table)
