"""The main window: header, the views, the panels, the recipe strip; built from the model and the table of actions."""

from __future__ import annotations

from collections.abc import Callable
from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, Qt, QUrl
from PyQt6.QtGui import QAction, QCloseEvent, QDesktopServices, QDragEnterEvent, QDropEvent, QKeySequence, QResizeEvent
from PyQt6.QtWidgets import QApplication, QDialog, QMainWindow, QMenu, QMessageBox, QStackedWidget, QVBoxLayout, QWidget

from zesty_pivot import __version__
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.desk.actions import Action, actions
from zesty_pivot.desk.ask import Asker
from zesty_pivot.desk.beginning import begin
from zesty_pivot.desk.contained import contained, tried
from zesty_pivot.desk.documents import Documents
from zesty_pivot.desk.fault_teller import FaultTeller
from zesty_pivot.desk.header import Header
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.message import Message
from zesty_pivot.desk.model import START, DeskModel
from zesty_pivot.desk.notice import Notice
from zesty_pivot.desk.settings import ThemeName
from zesty_pivot.desk.strip import RecipeStrip
from zesty_pivot.desk.style_view import StyleView
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.theming import dress
from zesty_pivot.desk.work import ProgressBox, Worker

if TYPE_CHECKING:
    from zesty_pivot.desk.finish_view import FinishView
    from zesty_pivot.desk.guide_window import GuideWindow
    from zesty_pivot.desk.paper_view import PaperView
    from zesty_pivot.desk.start_page import StartPage
    from zesty_pivot.desk.tour import Tour

LEAST = (840, 500)  # logical px: 1280x800 at 150 % less the desktop's own bars
LOW = 640  # a window lower than this has a low recipe strip


class Window(QMainWindow):
    """Builds everything; what is shown is the model's, the lay's and the keeper's."""

    def __init__(self, style: Style, path: Path | None = None) -> None:
        super().__init__()
        self.faults = FaultTeller(lambda: self._first if "model" not in self.__dict__ else self.model.style)
        self._first = style  # what is being opened, for a fault that comes while the window is built
        self.model = DeskModel(style, path)
        self.lay = Lay(self.model)
        self.keeper = Keeper(self.model)
        self.lay.way = self.keeper.settings.hand_way
        self.worker = Worker()
        self.ask = Asker(self, lambda: self.keeper.settings.begin_folder(), self._used_folder)
        self.notice = Notice()
        self.docs = Documents(self)
        self.setAcceptDrops(True)
        self.setMinimumSize(*LEAST)
        self.resize(1280, 800)
        self._qt_actions: dict[str, tuple[Action, QAction]] = {}
        self._build_actions()
        self.style_view = StyleView(self.model, self.lay, self.keeper, self.run, self.qt_action, self.menu_of)
        self.table, self.side = self.style_view.table, self.style_view.side
        self.strip = RecipeStrip(self.model, self.run, self.menu_of)
        self.header = Header(self.model, self.qt_action)
        self.stack = QStackedWidget()
        self.stack.addWidget(self.style_view)
        self._put_together()
        self.message = Message(self, self.canvas)
        self.progress = ProgressBox(self.worker, self)
        self.model.said.connect(self.message.say)
        self.faults.told.connect(self._tell_fault)
        if self.faults.last:
            self._tell_fault(self.faults.last)
        self.model.document_changed.connect(lambda: self.notice.drop("printed"))
        for signal in (self.model.changed, self.model.chosen_changed, self.model.view_changed):
            signal.connect(self._refresh)
        for signal in (self.lay.changed, self.lay.panel_changed, self.keeper.settings_changed, self.worker.changed):
            signal.connect(self._refresh_actions)
        self._refresh()
        self.table.setFocus()
        if self.keeper.trouble:  # it was found before there was a window to say it
            self.model.say(self.keeper.trouble, fault=True)

    def _put_together(self) -> None:
        middle = QWidget()
        column = QVBoxLayout(middle)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.header)
        column.addWidget(self.notice)
        column.addWidget(self.stack, 1)
        column.addWidget(self.strip)
        self.setCentralWidget(middle)

    # Views that are made when they are first looked at.

    @cached_property
    def finish(self) -> FinishView:
        """The finish view."""
        from zesty_pivot.desk.finish_view import FinishView

        view = FinishView(self.model)
        self.stack.addWidget(view)
        return view

    @cached_property
    def paper(self) -> PaperView:
        """The paper view."""
        from zesty_pivot.desk.paper_view import PaperView

        view = PaperView(self.model, self.keeper, self.run)
        self.stack.addWidget(view)
        return view

    @cached_property
    def start_page(self) -> StartPage:
        """The start page."""
        from zesty_pivot.desk.start_page import StartPage

        page = StartPage(self.docs, self.keeper, self.run)
        self.stack.addWidget(page)
        return page

    @cached_property
    def tour(self) -> Tour:
        """The walk through the ring."""
        from zesty_pivot.desk.tour import Tour

        tour = Tour(self.table, self.model)
        tour.ended.connect(lambda: self.keeper.change(lambda settings: settings.model_copy(update={"has_toured": True})))
        return tour

    @cached_property
    def guide(self) -> GuideWindow:
        """The guide."""
        from zesty_pivot.desk.guide_window import GuideWindow

        return GuideWindow(self)

    def _view(self) -> QWidget:
        """The widget of the view that is to be seen."""
        makers: dict[str, Callable[[], QWidget]] = {
            "finish": lambda: self.finish,
            "paper": lambda: self.paper,
            START: lambda: self.start_page,
        }
        return makers[self.model.view]() if self.model.view in makers else self.style_view

    @property
    def reading(self) -> QWidget:
        """The reading panel."""
        return self.side.reading

    def _used_folder(self, folder: Path) -> None:
        self.keeper.change(lambda settings: settings.model_copy(update={"folder": str(folder)}))

    def _tell_fault(self, text: str) -> None:
        self.notice.put("fault", text, [("Save a report…", self.docs.save_fault_report)])

    # Actions.

    def _build_actions(self) -> None:
        bar = self.menuBar()
        menus: dict[str, QMenu | None] = {}
        for action in actions():
            found = QAction(action.title, self)
            if action.shortcut:
                found.setShortcut(QKeySequence(action.shortcut))
            keys = f" ({action.shortcut})" if action.shortcut else ""
            found.setToolTip(f"{action.tip or action.title.rstrip('…')}{keys}")
            found.triggered.connect(lambda _checked=False, action=action: self._do(action))
            if bar is not None:
                menu = menus.get(action.menu) or bar.addMenu(action.menu)
                menus[action.menu] = menu
                if menu is not None:
                    menu.addAction(found)
            self._qt_actions[action.id] = (action, found)
        self._draw_icons()

    def _draw_icons(self) -> None:
        for action, found in self._qt_actions.values():
            if action.icon:
                found.setIcon(icon(action.icon))

    def qt_action(self, id: str) -> QAction:
        """The Qt action of an id."""
        return self._qt_actions[id][1]

    def _do(self, action: Action) -> None:
        """Runs an action; what is in the hand is let go first, unless only the view changes."""
        if action.menu != "View":
            self.table.control.let_go()
        action.run(self)

    def run(self, id: str) -> None:
        """Runs an action by its id, if it can be done now."""
        self._qt_actions[id][1].trigger()

    def action_ids(self) -> tuple[str, ...]:
        """The ids of all actions."""
        return tuple(self._qt_actions)

    def menu_of(self, ids: tuple[str, ...]) -> QMenu:
        """A menu of some actions."""
        menu = QMenu(self)
        menu.addActions([self.qt_action(id) for id in ids])
        menu.aboutToHide.connect(menu.deleteLater)
        return menu

    def canvas(self) -> Canvas:
        """The canvas of the view that is seen."""
        if self.model.view == "finish":
            return self.finish.canvas
        if self.model.view == "paper":
            return self.paper.canvas
        return self.style_view.canvas()

    # What actions ask for.

    def edit_step(self) -> None:
        """Puts the hand into the fields of the chosen step."""
        self.lay.show_panel("reading")
        self.side.reading.edit_fields()

    def rename_step(self) -> None:
        """Lets the chosen step's name be typed on its card."""
        self.strip.rename()

    def set_theme(self, look: ThemeName) -> None:
        """Another theme, kept from now on."""
        self.keeper.change(lambda settings: settings.model_copy(update={"theme": look}))
        self.restyle()

    def restyle(self) -> None:
        """Everything in the colours of the theme that the settings ask for."""
        app = QApplication.instance()
        if isinstance(app, QApplication):
            dress(app, self.keeper.settings.theme)
        self._draw_icons()
        self.side.reading.restyle()
        if "neck" in self.side.__dict__:
            self.side.neck.gallery.restyle()
        self.strip.refresh()
        if "start_page" in self.__dict__:
            self.start_page.restyle()
        self.canvas().update()

    def focus_next(self) -> None:
        """The keyboard goes on to the next part: header, view, panel, recipe."""
        parts: list[QWidget] = [self.header, *self.style_view.parts(), self.strip]
        if self.model.view != "style":
            parts = [self.header, self._view(), *([self.strip] if self.strip.isVisible() else [])]
        holder = self.focusWidget()
        at = next(
            (k for k, part in enumerate(parts) if holder is not None and (part is holder or part.isAncestorOf(holder))), -1
        )
        for step in range(1, len(parts) + 1):
            if _focus_first(parts[(at + step) % len(parts)]):
                return

    def show_settings(self) -> None:
        """The settings page."""
        from zesty_pivot.desk.settings_page import SettingsPage

        page = SettingsPage(self.keeper, self.set_theme, self)  # type: ignore[arg-type]
        page.way.picked.connect(self.lay.read_way)
        page.paper.picked.connect(lambda paper: self.paper.choose(paper))
        self._open(page)

    def show_commands(self) -> None:
        """The searchable list of commands."""
        from zesty_pivot.desk.command_list import CommandList

        self._open(CommandList(list(self._qt_actions.values()), self))

    def _open(self, dialog: QDialog) -> None:
        dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        dialog.open()

    def show_guide(self) -> None:
        """The guide at the page about what is seen."""
        from zesty_pivot.desk.guide_window import page_for

        self.guide.show_page(page_for(self.model.view, self.lay.panel))
        self.guide.show()
        self.guide.raise_()

    def show_file(self, path: Path) -> None:
        """A file in the program that the desktop has for it."""
        if not QDesktopServices.openUrl(QUrl.fromLocalFile(str(path))):
            self.model.say(f"No program was found to open {path}. Open it from your file manager.", fault=True)

    def show_tour(self) -> None:
        """The walk through the ring."""
        self.model.set_view("style")
        self.lay.show_panel("reading")
        self.lay.set_fold(0.0)
        self.tour.begin()

    def about(self) -> None:
        """Says what this is."""
        QMessageBox.about(
            self, "About Zesty Pivot",
            f"Zesty Pivot {__version__}\n\nStyled garment patterns from a fitted bodice block.\n"
            "Free software under the GNU General Public License, version 3 or later.",
        )  # fmt: skip

    # Showing.

    def _can(self, action: Action) -> bool:
        return tried(lambda: action.enabled(self), False, f"whether “{action.title}” can be done")

    def _refresh_actions(self) -> None:
        for action, found in self._qt_actions.values():
            found.setEnabled(self._can(action))
        for id, verb, title in (("edit.undo", "Undo", self.model.undo_title), ("edit.redo", "Redo", self.model.redo_title)):
            self._qt_actions[id][1].setText(f"{verb} {title}".strip())

    @contained("the window")
    def _refresh(self) -> None:
        self._refresh_actions()
        view = self._view()
        if self.stack.currentWidget() is not view:
            self.stack.setCurrentWidget(view)
            if view is not self.__dict__.get("start_page"):
                self.canvas().setFocus()
            else:
                self.start_page.refresh()
                self.start_page.setFocus()
        self.strip.setVisible(self.model.view != START)
        self.setWindowTitle(f"{self.model.style.name}{' *' if self.model.is_dirty else ''} - Zesty Pivot")

    # Starting and ending.

    def begin(self, *, with_start_page: bool) -> None:
        """What happens once the window is there: its place, unsaved work, the first-run walk."""
        begin(self, with_start_page=with_start_page)

    # Events.

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self.strip.set_low(self.height() < LOW)
        self.style_view.fit_width(self.width())
        self.header.fit_width(self.width())
        self.message.place()

    def changeEvent(self, event: QEvent | None) -> None:
        super().changeEvent(event)
        if event is not None and event.type() == QEvent.Type.ActivationChange and self.isActiveWindow():
            self.docs.look_at_disk()

    def closeEvent(self, event: QCloseEvent | None) -> None:
        if event is None:
            return
        event.setAccepted(self.docs.may_leave())
        if event.isAccepted():
            place = bytes(self.saveGeometry().toHex().data()).decode()
            self.keeper.change(lambda settings: settings.model_copy(update={"window": place}))
            self.keeper.close()
            self.faults.close()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        urls = data.urls() if data is not None else []
        if urls and urls[0].isLocalFile():
            self.docs.open_path(Path(urls[0].toLocalFile()))


def _focus_first(part: QWidget) -> bool:
    """Gives the keyboard to a part, or to the first widget in it that takes it."""
    for widget in (part, *part.findChildren(QWidget)):
        if widget.isVisibleTo(part.window()) and widget.isEnabled() and widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
            widget.setFocus(Qt.FocusReason.TabFocusReason)
            return True
    return False
