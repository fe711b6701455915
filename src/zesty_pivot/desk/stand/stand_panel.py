"""The stand beside the table: a coarse figure that follows when the hand rests, and what it tells."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.checks.base import Mend
from zesty_pivot.core.stand.told import StandFinding
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.stand.saying import nothing_told, progress
from zesty_pivot.desk.stand.stand_canvas import StandCanvas
from zesty_pivot.desk.stand.stand_card import StandCards
from zesty_pivot.desk.stand.trying_on import TryingOn

TALL = 330  # px of the figure
FACES = (("front", "Front"), ("left", "Side"), ("back", "Back"))


class StandPanel(QWidget):
    """The figure, and under it what it tells. It tries on when it is the panel that is seen."""

    def __init__(self, model: DeskModel, lay: Lay, trying: TryingOn, run: Callable[[str], None]) -> None:
        super().__init__()
        self._model, self._lay, self._trying = model, lay, trying
        self.canvas = StandCanvas(model, trying)
        self.canvas.setMinimumSize(280, TALL)
        self.canvas.has_tapes = False
        self.state, self.told = label("", "quiet"), StandCards()
        inside = Column()
        inside.rows.setContentsMargins(0, 0, 0, 10)
        inside.rows.addWidget(self.canvas)
        below = QVBoxLayout()
        below.setContentsMargins(16, 4, 16, 0)
        below.setSpacing(6)
        below.addLayout(self._buttons(run))
        below.addWidget(self.state)
        below.addWidget(label("What it tells", "heading"))
        below.addWidget(self.told)
        inside.rows.addLayout(below)
        inside.rows.addStretch(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(inside.scrolled())
        self.told.looked.connect(self._face)
        self.told.mended.connect(self._mend)
        trying.changed.connect(self.refresh)
        lay.panel_changed.connect(self._begin)
        model.view_changed.connect(self._begin)
        model.pace.followed.connect(self._follow)
        self._begin()

    def _buttons(self, run: Callable[[str], None]) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setSpacing(4)
        for side, text in FACES:
            button = QPushButton(text)
            button.clicked.connect(lambda _on=False, side=side: self.canvas.face_side(side))
            row.addWidget(button)
        larger = QPushButton("Larger")
        larger.setToolTip("The stand in a view of its own: finer, with all that can be chosen")
        larger.clicked.connect(lambda _on=False: run("view.stand"))
        row.addWidget(larger)
        return row

    @property
    def _is_seen(self) -> bool:
        return self._model.view == "style" and self._lay.panel == "stand"

    def _begin(self) -> None:
        """It is looked at from now on."""
        if self._is_seen:
            self._trying.look()

    def _follow(self) -> None:
        if self._is_seen:
            self._trying.follow()

    @contained("the stand beside the table")
    def refresh(self) -> None:
        """Shows what there is by now."""
        if not self._is_seen:
            return
        trying = self._trying
        self.state.setText(progress(trying))
        self.state.setVisible(bool(self.state.text()))
        self.told.show_told(trying.told, nothing_told(trying))

    def _face(self, told: StandFinding) -> None:
        self.canvas.face_place(told.place)

    def _mend(self, mend: Mend) -> None:
        self._model.recipe.mend(mend)
        self.canvas.setFocus()
