"""The style view: steps to add at the left, the table in the middle, the panels at the right."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QMenu,
    QSizePolicy,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from zesty_pivot.core.checks.base import Finding
from zesty_pivot.core.kept import cached_property
from zesty_pivot.desk.bead_actions import BEAD_MENU
from zesty_pivot.desk.drawer.drawer import Drawer
from zesty_pivot.desk.foot import Foot
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.panel_column import PanelColumn
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.style_table import StyleTable
from zesty_pivot.desk.tape_bar import TapeBar

if TYPE_CHECKING:
    from zesty_pivot.desk.stand.trying_on import TryingOn
    from zesty_pivot.desk.table.walk_table import WalkTable

NARROW = 1100  # a window narrower than this shows the steps as pictures only


Menu = Callable[[tuple[str, ...]], QMenu]


class StyleView(QWidget):
    """Puts the parts together and shows the table or the walk."""

    def __init__(
        self, model: DeskModel, lay: Lay, keeper: Keeper, run: Callable[[str], None], action: Callable[[str], QAction],
        menu: Menu, titles: Callable[[], dict[str, str]], trying: Callable[[], TryingOn],
    ) -> None:  # fmt: skip
        super().__init__()
        self._model, self._lay = model, lay
        self.table = StyleTable(model, lay, lambda: menu(BEAD_MENU))
        self.side = PanelColumn(model, lay, keeper, run, lambda id: action(id).toolTip(), self.table.setFocus, trying)
        self.side.reading.findings.looked.connect(self._show_place)
        self.foot = Foot(model, lay)
        self.tables = QStackedWidget()
        self.tables.addWidget(self.table)
        self.left = Drawer(model, keeper, run, titles)
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
        self.fit_width(1280)

    def fit_width(self, width: int) -> None:
        """Fewer words at the left where the window is narrow."""
        self.left.set_narrow(width < NARROW)

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

    def _show_place(self, finding: Finding | None) -> None:
        self.table.pointing.show_place(*((finding.piece, finding.place) if finding is not None else ("", "")))

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
