"""The strip under the table: fold the darts shut, lay tracing paper."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QLabel, QPushButton, QSlider, QWidget

from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel

TICKS = 100


class Foot(QWidget):
    """Fold slider and tracing paper switch."""

    def __init__(self, model: DeskModel, lay: Lay) -> None:
        super().__init__()
        self.setObjectName("foot")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._model, self._lay = model, lay
        self.slider = QSlider(Qt.Orientation.Horizontal)
        self.slider.setRange(0, TICKS)
        self.slider.setMinimumWidth(40)
        self.slider.setMaximumWidth(150)
        self.slider.setAccessibleName("Fold the darts shut")
        self.slider.setToolTip(
            "Fold the darts shut and look at the seam across each mouth. The paper is torn where it has to be."
        )
        self.told = QLabel()
        self.told.setObjectName("quiet")
        self.trace = QPushButton("Block under")
        self.trace.setCheckable(True)
        self.trace.setToolTip("Lay the block under the pattern, or take the tracing paper away")
        row = QHBoxLayout(self)
        row.setContentsMargins(14, 4, 12, 4)
        row.setSpacing(8)
        name = QLabel("Fold")
        name.setBuddy(self.slider)
        row.addWidget(name)
        row.addWidget(self.slider)
        row.addWidget(self.told)
        self.spread = QSlider(Qt.Orientation.Horizontal)
        self.spread.setRange(0, TICKS)
        self.spread.setMinimumWidth(36)
        self.spread.setMaximumWidth(110)
        self.spread.setAccessibleName("Move the panels apart")
        self.spread.setToolTip("Move the panels of a piece apart, or put them together again as they were cut")
        self._panels = QLabel("Panels")
        self._panels.setBuddy(self.spread)
        row.addSpacing(10)
        row.addWidget(self._panels)
        row.addWidget(self.spread)
        self.comb = QPushButton("Curvature")
        self.comb.setCheckable(True)
        self.comb.setToolTip("Teeth along each style line, as long as it is curved: a fair line has an even comb")
        self.comb.clicked.connect(lay.show_comb)
        row.addWidget(self.comb)
        row.addStretch(1)
        row.addWidget(self.trace)
        self.spread.valueChanged.connect(lambda value: lay.set_spread(value / TICKS))
        self.slider.valueChanged.connect(lambda value: lay.set_fold(value / TICKS))
        self.trace.clicked.connect(lambda checked: lay.trace_state(0 if checked else None))
        lay.changed.connect(self.refresh)
        model.pace.followed.connect(self.refresh)
        self.refresh()

    @contained("the strip under the table")
    def refresh(self) -> None:
        """Shows the lay."""
        self.slider.blockSignals(True)
        self.slider.setValue(round(self._lay.fold * TICKS))
        self.slider.blockSignals(False)
        self.spread.blockSignals(True)
        self.spread.setValue(round(self._lay.spread * TICKS))
        self.spread.blockSignals(False)
        self.comb.setChecked(self._lay.comb)
        for widget in (self._panels, self.spread, self.comb):
            widget.setVisible(bool(self._model.pattern.lines))
        self.slider.setEnabled(any(piece.darts for piece in self._model.pattern.pieces))
        self.told.setText(
            "darts open" if self._lay.fold == 0 else "darts shut" if self._lay.fold == 1 else f"{self._lay.fold:.0%} shut"
        )
        traced = self._lay.traced
        self.trace.setChecked(traced is not None)
        name = (traced.title if traced is not None else "the block").removeprefix("the ")
        where = "over" if self._lay.is_over and traced is not None else "under"
        shown = self.trace.fontMetrics().elidedText(name[:1].upper() + name[1:], Qt.TextElideMode.ElideRight, 150)
        self.trace.setText(f"{shown} {where}")
