"""How the line of a size looks on the screen: by its dashes and its words as well as by its colour."""

from __future__ import annotations

from PyQt6.QtGui import QColor, QPen

from zesty_pivot.core.sizes.nested_sheet import look_of
from zesty_pivot.desk.theme import NOW

PLAIN, CHOSEN = 1.1, 2.6  # px


def color_of(number: int) -> QColor:
    """The colour of a size, by its number from 0: as on paper, or as light as it is dark there."""
    color = QColor(look_of(number).colour)
    if NOW.name == "dark":
        hue, saturation, light, _alpha = color.getHslF()
        color = QColor.fromHslF(max(hue or 0.0, 0.0), saturation or 0.0, 0.95 - 0.75 * (light or 0.0))
    return color


def hairline_of(number: int) -> QPen:
    """Its pen on a screen of plain resolution: one pixel wide at any scale, which is painted fifteen times as fast."""
    pen = pen_of(number, is_chosen=False)
    pen.setWidthF(1.0)
    pen.setCosmetic(True)
    return pen


def pen_of(number: int, *, is_chosen: bool, px: float = 1.0) -> QPen:
    """Its pen, `px` mm or px of a pixel; dashes are as long however wide it is."""
    wide = CHOSEN if is_chosen else PLAIN
    pen = QPen(color_of(number), wide * px)
    dash = look_of(number).dash_px
    if dash:
        pen.setDashPattern([part * 1.6 / wide * 1.2 for part in dash])
    return pen
