"""Dressing the application in a theme."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication

from zesty_pivot.desk.settings import ThemeName
from zesty_pivot.desk.theme import DARK, LIGHT, NOW, THEMES, Theme, palette, stylesheet


def chosen(app: QApplication, look: ThemeName) -> Theme:
    """The theme that a setting means here."""
    if look != "system":
        return THEMES[look]
    hints = app.styleHints()
    is_dark = hints is not None and hints.colorScheme() == Qt.ColorScheme.Dark
    return DARK if is_dark else LIGHT


def dress(app: QApplication, look: ThemeName) -> None:
    """Puts a theme in use."""
    theme = chosen(app, look)
    NOW.use(theme)
    sheet = stylesheet(theme)
    if app.styleSheet() != sheet:  # every widget is dressed anew, which takes a while
        app.setPalette(palette(theme))
        app.setStyleSheet(sheet)
