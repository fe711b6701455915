"""What opens over the window: settings, the list of commands, the guide, the walk through the ring. Each is made when it is
first asked for."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QDialog, QMessageBox, QWidget

from zesty_pivot import __version__
from zesty_pivot.core.kept import cached_property
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.qt_actions import QtActions
from zesty_pivot.desk.settings import ThemeName
from zesty_pivot.desk.views import Views

if TYPE_CHECKING:
    from zesty_pivot.desk.guide_window import GuideWindow
    from zesty_pivot.desk.tour import Tour


class Pages:
    """Pages and dialogs of a window."""

    def __init__(
        self, parent: QWidget, model: DeskModel, lay: Lay, keeper: Keeper, views: Views, actions: QtActions,
        set_theme: Callable[[ThemeName], None],
    ) -> None:  # fmt: skip
        self._parent, self._model, self._lay, self._keeper = parent, model, lay, keeper
        self._views, self._actions, self._set_theme = views, actions, set_theme

    @cached_property
    def tour(self) -> Tour:
        """The walk through the ring."""
        from zesty_pivot.desk.tour import Tour

        tour = Tour(self._views.style_view.table, self._model)
        tour.ended.connect(lambda: self._keeper.change(lambda settings: settings.model_copy(update={"has_toured": True})))
        return tour

    @cached_property
    def guide(self) -> GuideWindow:
        """The guide."""
        from zesty_pivot.desk.guide_window import GuideWindow

        return GuideWindow(self._parent)

    def show_settings(self) -> None:
        """The settings page."""
        from zesty_pivot.desk.settings_page import SettingsPage

        page = SettingsPage(self._keeper, self._set_theme, self._parent)  # type: ignore[arg-type]
        page.way.picked.connect(self._lay.read_way)
        page.paper.picked.connect(lambda paper: self._views.paging.change(paper=paper))
        self._open(page)

    def show_commands(self) -> None:
        """The searchable list of commands."""
        from zesty_pivot.desk.command_list import CommandList

        self._actions.ask()
        commands = CommandList(list(self._actions.known.values()), self._parent)
        commands.finished.connect(self._actions.refresh)
        self._open(commands)

    def show_underlay(self) -> None:
        """The underlay calculator."""
        from zesty_pivot.desk.underlay_page import UnderlayPage

        self._open(UnderlayPage(self._model, self._parent))

    def show_variants(self) -> None:
        """The variants side by side."""
        from zesty_pivot.desk.variant_sheet import VariantSheet

        self._open(VariantSheet(self._model, self._actions.run, self._parent))

    def show_history(self) -> None:
        """What was done, in words and pictures."""
        from zesty_pivot.desk.undo_list import UndoList

        self._open(UndoList(self._model, self._parent))

    def show_title_block(self) -> None:
        """The style's name, season, client and the like."""
        from zesty_pivot.desk.title_page import TitlePage

        self._open(TitlePage(self._model, self._parent))

    def _open(self, dialog: QDialog) -> None:
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.open()

    def show_guide(self) -> None:
        """The guide at the page about what is seen."""
        from zesty_pivot.desk.guide_window import page_for

        self.guide.show_page(page_for(self._model.view, self._lay.panel))
        self.guide.show()
        self.guide.raise_()

    def show_tour(self) -> None:
        """The walk through the ring."""
        self._model.set_view("style")
        self._lay.show_panel("reading")
        self._lay.set_fold(0.0)
        self.tour.begin()

    def about(self) -> None:
        """Says what this is."""
        QMessageBox.about(
            self._parent, "About Zesty Pivot",
            f"Zesty Pivot {__version__}\n\nStyled garment patterns from a fitted bodice block.\n"
            "Free software under the GNU General Public License, version 3 or later.",
        )  # fmt: skip
