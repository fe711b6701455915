"""What is drawn of a fitting, made once for each look and kept: skins, lines, and how much room it takes."""

from __future__ import annotations

import numpy as np
from PyQt6.QtGui import QColor

from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.core.stand.paper import Held
from zesty_pivot.core.stand.raster import Skin
from zesty_pivot.core.stand.scene import (
    LineOnBody,
    Palette,
    cloth_skin,
    extent,
    form_skin,
    grain,
    paper_lines,
    paper_skin,
    seams,
    tapes,
)
from zesty_pivot.desk.theme import NOW

LOOKS = (
    ("gap", "Where it stands off"), ("pull", "Where it pulls"), ("cloth", "Cloth with its seams"),
    ("grain", "Cloth with its grain"), ("paper", "Paper"),
)  # fmt: skip


def palette() -> Palette:
    """The colours of the theme that is on."""
    if NOW.name == "dark":
        return Palette(form=(104, 98, 90), cloth=(176, 160, 132), paper=(222, 216, 202))
    return Palette()


def rgb(color: QColor) -> tuple[int, int, int]:
    """Red, green, blue from 0 to 255."""
    return color.red(), color.green(), color.blue()


@record(eq=False)
class Figure:
    """A fitting or paper by one look: what is drawn of it."""

    shown: Fitting | Held
    look: str
    palette: Palette

    @cached_property
    def skins(self) -> tuple[Skin, ...]:
        """Form and cloth, or the paper about its middle."""
        if isinstance(self.shown, Held):
            skin = paper_skin(self.shown, self.palette)
            return (replace(skin, points=skin.points - self.middle),)
        return form_skin(self.shown.form, self.palette, self.extent[1]), cloth_skin(self.shown, self.look, self.palette)

    @cached_property
    def lines(self) -> tuple[LineOnBody, ...]:
        """What is drawn on them."""
        if isinstance(self.shown, Held):
            return tuple(replace(line, points=line.points - self.middle) for line in paper_lines(self.shown))
        sewn = seams(self.shown)
        return (*tapes(self.shown.form), *sewn, *(grain(self.shown) if self.look == "grain" else ()))

    @cached_property
    def extent(self) -> tuple[float, float, float]:
        """Half its width, its lowest and its highest height, mm, however it is turned."""
        if isinstance(self.shown, Held):
            points = self.shown.places - self.middle
            return (
                float(np.hypot(points[:, 0], points[:, 1]).max()) + 10.0,
                float(points[:, 2].min()),
                float(points[:, 2].max()),
            )
        return extent(self.shown)

    @cached_property
    def middle(self) -> np.ndarray:
        """What it is turned about, (3,) mm."""
        if isinstance(self.shown, Held):
            return np.array([0.0, float(self.shown.places[:, 1].mean()), 0.0])
        return np.zeros(3)
