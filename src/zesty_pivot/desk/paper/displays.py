"""The screens and projectors that there are, each with what is kept of it; a simulated projector is always among them."""

from __future__ import annotations

from PyQt6.QtGui import QGuiApplication, QScreen

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.true_size.display import Display, shown_by
from zesty_pivot.core.true_size.simulated import SimulatedProjector
from zesty_pivot.desk.keeping import Keeper

SIMULATED = "simulated"


class Displays:
    """One of them is chosen. What is told of one is kept by its name and resolution."""

    def __init__(self, keeper: Keeper) -> None:
        self._keeper = keeper
        self.projector = SimulatedProjector()

    def all(self) -> dict[str, QScreen | None]:
        """The simulated projector, and every screen."""
        return {SIMULATED: None, **{_key(screen): screen for screen in QGuiApplication.screens()}}

    @property
    def key(self) -> str:
        """The chosen one; the simulated projector where that is not plugged in."""
        kept = self._keeper.settings.screen
        return kept if kept in self.all() else SIMULATED

    @property
    def is_simulated(self) -> bool:
        """Whether it is the simulated projector."""
        return self.key == SIMULATED

    @property
    def kept(self) -> Display | None:
        """What is kept of it."""
        return self._keeper.settings.screens.get(self.key)

    @property
    def size(self) -> tuple[float, float]:
        """Its picture, px."""
        screen = self.all()[self.key]
        return self.projector.size if screen is None else _size(screen)

    def choose(self, key: str) -> None:
        """Another one."""
        self._keeper.change(lambda settings: settings.model_copy(update={"screen": key}))

    def keep(self, display: Display) -> None:
        """Keeps something else of the chosen one."""
        key = self.key
        self._keeper.change(lambda settings: settings.model_copy(update={"screens": {**settings.screens, key: display}}))

    def scale_of(self, screen: QScreen | None) -> float | None:
        """Px to a mm of a screen, the mean of both ways; None where its bars were not measured."""
        display = None if screen is None else self._keeper.settings.screens.get(_key(screen))
        if screen is None or display is None or display.way != "bars":
            return None
        try:
            shown = shown_by(display, _size(screen))
        except ZestyError:
            return None
        return None if shown is None else float(shown.matrix[0, 0] + shown.matrix[1, 1]) / 2.0


def _size(screen: QScreen) -> tuple[float, float]:
    return float(screen.size().width()), float(screen.size().height())


def _key(screen: QScreen) -> str:
    return f"{screen.name()} {screen.size().width()}x{screen.size().height()}"
