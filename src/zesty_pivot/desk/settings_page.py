"""The settings page: all of the user's preferences on one page, each in force at once."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QDialog, QDialogButtonBox, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.nest.paged import PAPERS
from zesty_pivot.core.recipe.hand import WAYS
from zesty_pivot.desk import desktop_entry
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.labels import label, titled
from zesty_pivot.desk.settings import SCALES, settings_file

THEMES = [("system", "as the system"), ("light", "light"), ("dark", "dark")]
UNITS = [("cm", "centimetres"), ("mm", "millimetres"), ("in", "inches and fractions")]


class SettingsPage(QDialog):
    """Choices; what is picked is kept at once."""

    def __init__(self, keeper: Keeper, set_theme: Callable[[str], None], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Settings")
        self.setMinimumWidth(430)
        self._keeper = keeper
        settings = keeper.settings
        self.rows = QVBoxLayout(self)
        self.rows.setContentsMargins(22, 18, 22, 16)
        self.rows.setSpacing(4)
        self.theme = self._row("Theme", THEMES, settings.theme, set_theme)
        scales = [(str(scale), f"{scale} %") for scale in SCALES]
        self.scale = self._row("Size of text and controls", scales, str(settings.scale), self._set_scale)
        self.later = label("", "quiet")
        self.rows.addWidget(self.later)
        self.later.hide()
        self.units = self._row("Unit of new styles", UNITS, settings.units, self._keeps("units"))
        papers = [*((name, f"{name}, in pages") for name in PAPERS), ("full", "one page at full size")]
        self.paper = self._row("Paper", papers, settings.paper, self._keeps("paper"))
        self.way = self._row("Hand sheets", list(WAYS.items()), settings.hand_way, self._keeps("hand_way"))
        self.rows.addSpacing(8)
        self.menu = QPushButton("Put Zesty Pivot into the desktop's menu")
        self.menu.setToolTip("Writes the menu entry, the icon and the file types to your own folders")
        self.menu.clicked.connect(self._integrate)
        self.rows.addWidget(self.menu)
        self.told = label("", "quiet")
        self.rows.addWidget(self.told)
        self.rows.addWidget(label(f"Kept in {settings_file()}", "quiet"))
        self.rows.addSpacing(8)
        box = QDialogButtonBox(QDialogButtonBox.StandardButton.Close)
        box.rejected.connect(self.accept)
        self.rows.addWidget(box)

    def _row(self, title: str, choices: list[tuple[str, str]], value: str, picked: Callable[[str], None]) -> Choice:
        choice = Choice(title)
        choice.show_choices(choices, value)
        choice.picked.connect(picked)
        titled(self.rows, title, choice)
        self.rows.addSpacing(4)
        return choice

    def _keeps(self, field: str) -> Callable[[str], None]:
        def keep(value: str) -> None:
            self._keeper.change(lambda settings: settings.model_copy(update={field: value}))

        return keep

    def _set_scale(self, value: str) -> None:
        self._keeper.change(lambda settings: settings.model_copy(update={"scale": int(value)}))
        self.later.setText("The new size holds from the next start.")
        self.later.show()

    def _integrate(self) -> None:
        try:
            written = desktop_entry.install()
            self.told.setText(f"Done: {len(written)} files in {written[0].parents[1]}.")
        except ZestyError as fault:
            self.told.setText(str(fault))
