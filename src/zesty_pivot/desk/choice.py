"""A drop-down of named values."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QComboBox


class Choice(QComboBox):
    """Shows titles, carries values; `picked` is emitted when the user chose another value, never when the model did."""

    picked = pyqtSignal(str)

    def __init__(self, name: str) -> None:
        super().__init__()
        self.setAccessibleName(name)
        self.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
        self.setMinimumContentsLength(12)
        self._value = ""
        self.activated.connect(self._pick)

    def show_choices(self, choices: Sequence[tuple[str, str]], value: str, reasons: Mapping[str, str] | None = None) -> None:
        """The choices (value, title) with one chosen; a value that is not among them is shown as it is. `reasons` are
        their tooltips."""
        known = [item for item, _title in choices]
        rows = list(choices) if value in known else [*choices, (value, value)]
        if [(self.itemData(k), self.itemText(k)) for k in range(self.count())] != rows:
            self.clear()
            for item, title in rows:
                self.addItem(title, item)
                self.setItemData(self.count() - 1, (reasons or {}).get(item, ""), Qt.ItemDataRole.ToolTipRole)
        self.setCurrentIndex([item for item, _title in rows].index(value))
        self._value = value
        reason = (reasons or {}).get(value, "")
        self.setToolTip(f"{self.currentText()}. {reason}" if reason else self.currentText())

    def _pick(self, index: int) -> None:
        value, before = str(self.itemData(index)), self._value
        self._value = value
        if value != before:
            self.picked.emit(value)
