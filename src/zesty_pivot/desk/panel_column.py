"""The right side of the style view: seven panels under one row of tabs."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, TypeVar

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QStackedWidget, QVBoxLayout, QWidget

from zesty_pivot.core.kept import cached_property
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.lay import PANELS, Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.panels.reading import ReadingPanel

if TYPE_CHECKING:
    from zesty_pivot.desk.panels.hand import HandPanel
    from zesty_pivot.desk.panels.neck import NeckPanel
    from zesty_pivot.desk.panels.practise import PractisePanel
    from zesty_pivot.desk.panels.trace import TracePanel
    from zesty_pivot.desk.panels.walk import WalkPanel
    from zesty_pivot.desk.stand.stand_panel import StandPanel
    from zesty_pivot.desk.stand.trying_on import TryingOn

P = TypeVar("P", bound=QWidget)

WIDTH = 312
TITLES = {
    "reading": "Reading",
    "trace": "Trace",
    "walk": "Walk",
    "hand": "Hand",
    "practise": "Practise",
    "neck": "Neck",
    "stand": "Stand",
}
TIPS = {
    "reading": "The chosen step, accounts and findings",
    "trace": "Tracing paper: lay the block, an earlier state or another style on the table",
    "walk": "Walk two seams along each other",
    "hand": "The paper procedure with this pattern's numbers",
    "practise": "Guess the new mouth, or where the fullness went, before the pattern opens",
    "neck": "Front and back matched at the shoulder, and the opening against the head",
    "stand": "The pattern sewn and seen on the body while you work on it",
}


class PanelColumn(QWidget):
    """Tabs and panels; which one is seen is the lay's."""

    def __init__(
        self, model: DeskModel, lay: Lay, keeper: Keeper, run: Callable[[str], None], tip: Callable[[str], str],
        after: Callable[[], None], trying: Callable[[], TryingOn],
    ) -> None:  # fmt: skip
        super().__init__()
        self.setObjectName("right")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(WIDTH)
        self._model, self._lay, self._keeper, self._run = model, lay, keeper, run
        self._after, self._trying = after, trying
        self.reading = ReadingPanel(model, after)
        self.stack = QStackedWidget()
        self.tabs: dict[str, QPushButton] = {}
        row = QHBoxLayout()
        row.setContentsMargins(6, 2, 6, 0)
        row.setSpacing(3)
        for name in PANELS:
            tab = QPushButton(TITLES[name])
            tab.setObjectName("tab")
            tab.setCheckable(True)
            tab.setToolTip(tip(f"panel.{name}"))
            tab.clicked.connect(lambda _checked=False, name=name: run(f"panel.{name}"))
            self.tabs[name] = tab
            row.addWidget(tab)
        self.stack.addWidget(self.reading)
        row.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        layout.addLayout(row)
        layout.addWidget(self.stack, 1)
        lay.panel_changed.connect(self.refresh)
        self.refresh()

    @cached_property
    def trace(self) -> TracePanel:
        """Tracing paper, made when it is first looked at."""
        from zesty_pivot.desk.panels.trace import TracePanel

        return self._added(TracePanel(self._model, self._lay, self._run))

    @cached_property
    def walk(self) -> WalkPanel:
        """The walk, made when it is first looked at."""
        from zesty_pivot.desk.panels.walk import WalkPanel

        return self._added(WalkPanel(self._model, self._lay))

    @cached_property
    def hand(self) -> HandPanel:
        """The hand sheet, made when it is first looked at."""
        from zesty_pivot.desk.panels.hand import HandPanel

        return self._added(HandPanel(self._model, self._lay, self._run))

    @cached_property
    def practise(self) -> PractisePanel:
        """Questions, made when they are first asked for."""
        from zesty_pivot.desk.panels.practise import PractisePanel

        return self._added(PractisePanel(self._model, self._lay, self._keeper))

    @cached_property
    def neck(self) -> NeckPanel:
        """Necklines, made when they are first looked at."""
        from zesty_pivot.desk.panels.neck import NeckPanel

        return self._added(NeckPanel(self._model, self._lay))

    @cached_property
    def stand(self) -> StandPanel:
        """The stand beside the table, made when it is first looked at."""
        from zesty_pivot.desk.stand.stand_panel import StandPanel

        return self._added(StandPanel(self._model, self._lay, self._trying(), self._run))

    def watch(self, trying: TryingOn) -> None:
        """Shows among the findings what the stand tells, as long as it is of the pattern on the table."""
        from zesty_pivot.desk.stand.stand_among import StandAmong

        self.reading.put_in(StandAmong(self._model, trying, self._run, self._after))

    def let_go(self) -> None:
        """Waits for what goes on beside."""
        if "stand" in vars(self):
            self.stand.canvas.close_work()

    def restyle(self) -> None:
        """What is drawn once, in the colours of another theme."""
        self.reading.restyle()
        if "stand" in vars(self):
            self.stand.canvas.refresh()

    def _added(self, panel: P) -> P:
        self.stack.addWidget(panel)
        return panel

    @contained("the panel at the right")
    def refresh(self) -> None:
        """Shows the chosen panel."""
        for name, tab in self.tabs.items():
            tab.setChecked(name == self._lay.panel)
        self.stack.setCurrentWidget(getattr(self, self._lay.panel))
