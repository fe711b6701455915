"""Dressing the application in a theme."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication, QWidget

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
    if theme is not NOW.theme or app.palette() != palette(theme):
        NOW.use(theme)
        app.setPalette(palette(theme))


def dress_window(window: QWidget) -> None:
    """A window, and what opens from it, in the theme that is in use. Done once when it is put together: a style sheet of the
    application would dress every part anew each time that it is put into another."""
    sheet = stylesheet(NOW.theme)
    if window.styleSheet() != sheet:
        window.setStyleSheet(sheet)
