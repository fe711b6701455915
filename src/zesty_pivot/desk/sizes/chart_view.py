"""The size chart with what is done with it: group, base, sizes added and taken out, files in and out."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.piece.names import capital
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.sizes.chart_table import ChartTable
from zesty_pivot.desk.sizes.charts import Charts

ASKED = (
    (("chart.import", "Bring in…"), ("chart.export", "Save…")),
    (("chart.base", "Make it the base"), ("chart.add", "Add a size…"), ("chart.remove", "Take it out")),
)  # fmt: skip


class ChartView(QWidget):
    """Choices above, the table below, a line that says what is odd."""

    def __init__(self, model: DeskModel, charts: Charts, run: Callable[[str], None]) -> None:
        super().__init__()
        self._charts = charts
        self.group, self.table, self.said = Choice("Sizes"), ChartTable(model, charts), label("", "quiet")
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 6, 12, 8)
        rows = QHBoxLayout(), QHBoxLayout()
        rows[0].addWidget(self.group)
        self.buttons: dict[str, QPushButton] = {}
        for row, asked in zip(rows, ASKED, strict=True):
            for id, text in asked:
                button = QPushButton(text)
                button.clicked.connect(lambda _on=False, id=id: run(id))
                self.buttons[id] = button
                row.addWidget(button)
            row.addStretch(1)
            column.addLayout(row)
        column.addWidget(self.table, 1)
        column.addWidget(self.said)
        self.group.picked.connect(self._turn)
        self.table.committed.connect(charts.set_cell)

    def _turn(self, group: str) -> None:
        self.table.group = group
        self.refresh()

    @contained("the size chart")
    def refresh(self) -> None:
        """Shows the chart."""
        chart = self._charts.chart
        if self.table.group not in chart.groups:
            base = next((size for size in chart.sizes if size.title == chart.base), chart.sizes[0])
            self.table.group = base.group
        self.group.show_choices([(group, capital(group) or "Sizes") for group in chart.groups], self.table.group)
        self.table.refresh()
        odd = [one for one in self._charts.jumps if one.is_odd and one.group == self.table.group]
        faults = [f"{one.title}: {one.fault}" for one in self._charts.wearers if one.fault and one.group == self.table.group]
        if faults:
            self.said.setText(faults[0])
        elif odd:
            first = f"{odd[0].measure.replace('_', ' ')} from {odd[0].before} to {odd[0].after}"
            more = f", and {len(odd) - 1} more" if len(odd) > 1 else ""
            self.said.setText(f"Uneven steps, marked ◆: {first}{more}. Look whether it is a slip of the pen.")
        else:
            self.said.setText("All steps are even. A cell takes a length or a formula: 92 cm, bust/3 + 7 cm.")
