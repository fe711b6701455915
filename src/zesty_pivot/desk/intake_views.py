"""The views of blocks that come in, by file, digitiser or ruler, and of those on the rail: made when first looked at."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import pyqtBoundSignal
from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QWidget

from zesty_pivot.core.kept import cached_property
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.kept_work import KeptWork
from zesty_pivot.desk.model import DIGITISER, IMPORT, LIBRARY, RULER, SIZING, DeskModel
from zesty_pivot.desk.table.canvas import Canvas

if TYPE_CHECKING:
    from zesty_pivot.desk.digitiser_view import DigitiserView
    from zesty_pivot.desk.digitising import Digitising
    from zesty_pivot.desk.incoming import Incoming
    from zesty_pivot.desk.incoming_view import IncomingView
    from zesty_pivot.desk.library_view import LibraryView
    from zesty_pivot.desk.rail import Rail
    from zesty_pivot.desk.ruler_view import RulerView
    from zesty_pivot.desk.ruling import Ruling
    from zesty_pivot.desk.sizing import Sizing
    from zesty_pivot.desk.sizing_view import SizingView


class IntakeViews:
    """What comes in, with its views. `add` puts a view into the window, `touched` tells that what can be done changed."""

    def __init__(
        self, model: DeskModel, keeper: Keeper, run: Callable[[str], None], action: Callable[[str], QAction],
        add: Callable[[QWidget], object], touched: pyqtBoundSignal,
    ) -> None:  # fmt: skip
        self._model, self._keeper, self._run, self._action = model, keeper, run, action
        self._add, self._touched = add, touched

    def makers(self) -> dict[str, Callable[[], QWidget]]:
        """By view: what makes it."""
        return {
            IMPORT: lambda: self.import_view,
            LIBRARY: lambda: self.library,
            DIGITISER: lambda: self.digitiser_view,
            RULER: lambda: self.ruler_view,
            SIZING: lambda: self.sizing_view,
        }

    def canvas(self, view: str) -> Canvas:
        """The canvas of the import, the digitiser or the ruler."""
        if view == SIZING:
            return self.sizing_view.canvas
        if view == DIGITISER:
            return self.digitiser_view.canvas
        return self.ruler_view.canvas if view == RULER else self.import_view.canvas

    def let_go(self) -> None:
        """Lets go of what is open outside: the digitiser's line."""
        if "digitising" in vars(self):
            self.digitising.stop()

    @cached_property
    def incoming(self) -> Incoming:
        """The block that comes in from outside."""
        from zesty_pivot.desk.incoming import Incoming

        found = Incoming(self._model)
        found.changed.connect(self._touched)
        return found

    @property
    def has_import(self) -> bool:
        """Whether something came in; nothing is loaded to tell."""
        return "incoming" in vars(self) and self.incoming.is_open

    @cached_property
    def import_view(self) -> IncomingView:
        """The import view."""
        from zesty_pivot.desk.incoming_view import IncomingView

        view = IncomingView(self._model, self.incoming, self._run, self._action)
        self._add(view)
        return view

    @cached_property
    def digitising(self) -> Digitising:
        """The block that is traced."""
        from zesty_pivot.desk.digitising import Digitising

        found = Digitising(self._model, KeptWork("trace", self._keeper.writer.put))
        found.changed.connect(self._touched)
        found.came.connect(self._touched)
        return found

    @cached_property
    def digitiser_view(self) -> DigitiserView:
        """The digitiser's view."""
        from zesty_pivot.desk.digitiser_view import DigitiserView

        view = DigitiserView(self._model, self.digitising, self._run, self._action)
        self._add(view)
        return view

    @cached_property
    def ruling(self) -> Ruling:
        """The block that is measured."""
        from zesty_pivot.desk.ruling import Ruling

        found = Ruling(self._model, KeptWork("sheet", self._keeper.writer.put))
        found.changed.connect(self._touched)
        return found

    @cached_property
    def ruler_view(self) -> RulerView:
        """The view of a block by ruler."""
        from zesty_pivot.desk.ruler_view import RulerView

        view = RulerView(self._model, self.ruling, self._run, self._action)
        self._add(view)
        return view

    @cached_property
    def sizing(self) -> Sizing:
        """The photograph whose size is asked."""
        from zesty_pivot.desk.sizing import Sizing

        found = Sizing(self._model)
        found.changed.connect(self._touched)
        return found

    @cached_property
    def sizing_view(self) -> SizingView:
        """The view of such a photograph."""
        from zesty_pivot.desk.sizing_view import SizingView

        view = SizingView(self._model, self.sizing, self._run, self._action)
        self._add(view)
        return view

    @cached_property
    def rail(self) -> Rail:
        """The blocks of the library, read when they are first asked for."""
        from zesty_pivot.desk.rail import Rail

        found = Rail(self._model, self._keeper)
        found.changed.connect(self._touched)
        found.chosen_changed.connect(self._touched)
        return found

    @cached_property
    def library(self) -> LibraryView:
        """The library view."""
        from zesty_pivot.desk.library_view import LibraryView

        view = LibraryView(self._model, self.rail, self._run)
        self._add(view)
        return view
