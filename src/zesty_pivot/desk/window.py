"""The main window: header, the views, the panels, the recipe strip; built from the model and the table of actions."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QByteArray, QEvent, Qt, QTimer, QUrl
from PyQt6.QtGui import QAction, QCloseEvent, QDesktopServices, QDragEnterEvent, QDropEvent, QResizeEvent
from PyQt6.QtWidgets import QApplication, QMainWindow, QMenuBar, QVBoxLayout, QWidget

from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.ask import Asker
from zesty_pivot.desk.contained import contained, tried
from zesty_pivot.desk.crashes import crashes
from zesty_pivot.desk.documents import Documents
from zesty_pivot.desk.fault_teller import FaultTeller
from zesty_pivot.desk.header import Header
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.message import Message
from zesty_pivot.desk.model import BESIDE, START, DeskModel
from zesty_pivot.desk.notice import Notice
from zesty_pivot.desk.pages import Pages
from zesty_pivot.desk.qt_actions import QtActions
from zesty_pivot.desk.recipe_pieces import RecipePieces
from zesty_pivot.desk.settings import ThemeName, crash_folder
from zesty_pivot.desk.strip import RecipeStrip
from zesty_pivot.desk.style_view import StyleView
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.theming import dress, dress_window
from zesty_pivot.desk.views import Views
from zesty_pivot.desk.work import ProgressBox, Worker

if TYPE_CHECKING:
    from zesty_pivot.desk.bodies import Bodies
    from zesty_pivot.desk.paper.paging import Paging
    from zesty_pivot.desk.stand.trying_on import TryingOn

# Endings by what is done with a file; the formats themselves are loaded when one comes.
OPENED, RAIL, RULER_SHEET, TRACE, CHART = (".zpiv", ".zblock"), ".zrail", ".zruler", ".ztrace", ".zsizes"
PICTURES = (".jpg", ".jpeg", ".png")
BROUGHT_IN = (".zmeas", ".csv", ".zmethod")  # files that join what is there
LEAST = (840, 500)  # logical px: 1280x800 at 150 % less the desktop's own bars
SHOWN_MS = 50  # by then a window that is shown has been painted
LOW = 640  # a window lower than this has a low recipe strip


class Window(QMainWindow):
    """Builds everything; what is shown is the model's, the lay's and the keeper's."""

    def __init__(self, style: Style, path: Path | None = None) -> None:
        super().__init__()
        self.faults = FaultTeller(lambda: self.model.style if "model" in vars(self) else self._first)
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
        bar = self.menuBar() or QMenuBar(self)
        self.qt_actions = QtActions(self, bar, self)
        self.style_view = StyleView(
            self.model, self.lay, self.keeper, self.run, self.qt_action, self.qt_actions.menu_of, self.qt_actions.titles,
            self._trying,
        )  # fmt: skip
        self.table, self.side = self.style_view.table, self.style_view.side
        self.drawer = self.style_view.left
        self.recipe_pieces = RecipePieces(self.model)
        self.drawer.show_own(self.recipe_pieces)
        self.drawer.begun.connect(self.edit_step)
        self.table.pointing.begun = self.table.tape.begun = self.edit_step
        self.qt_actions.table = self.table
        self.strip = RecipeStrip(self.model, self.run, self.qt_actions.menu_of)
        self.header = Header(self.model, self.qt_action)
        self.views = Views(self.model, self.keeper, self.docs, self.style_view, self.run, self.qt_action)
        self.pages = Pages(self, self.model, self.lay, self.keeper, self.views, self.qt_actions, self.set_theme)
        self._put_together()
        dress_window(self)
        self.message = Message(self, bar)
        self.progress = ProgressBox(self.worker, self)
        self.model.said.connect(self._say)
        self.faults.told.connect(self._tell_fault)
        if self.faults.last:
            self._tell_fault(self.faults.last)
        self.model.document_changed.connect(lambda: self.notice.drop("printed"))
        for signal in (self.model.pace.followed, self.model.chosen_changed, self.model.view_changed):
            signal.connect(self._refresh)
        others = (
            self.lay.changed,
            self.lay.panel_changed,
            self.keeper.settings_changed,
            self.worker.changed,
            self.views.touched,
            self.model.pace.checked,
        )
        for signal in others:
            signal.connect(self.qt_actions.refresh)
        self._refresh()
        self.table.setFocus()
        if self.keeper.trouble:  # it was found before there was a window to say it
            self.model.say(self.keeper.trouble, fault=True)

    def _trying(self) -> TryingOn:
        return self.views.trying

    def _put_together(self) -> None:
        middle = QWidget()
        column = QVBoxLayout(middle)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.header)
        column.addWidget(self.notice)
        column.addWidget(self.views, 1)
        column.addWidget(self.strip)
        self.setCentralWidget(middle)

    def _used_folder(self, folder: Path) -> None:
        self.keeper.change(lambda settings: settings.model_copy(update={"folder": str(folder)}))

    def _say(self, text: str, fault: bool) -> None:
        """A sentence beside the menus; a fault that has no room there, whole in a line of its own."""
        self.message.say(text, fault)
        if fault and text and not self.message.is_whole:
            self.notice.put("said", text, ())
        else:
            self.notice.drop("said")

    def _tell_fault(self, text: str) -> None:
        self.notice.put("fault", text, [("Save a report…", self.docs.save_fault_report)])

    @cached_property
    def bodies(self) -> Bodies:
        """The work with people and drafts, loaded when it is first asked for: it brings the PDF library with it."""
        from zesty_pivot.desk.bodies import Bodies

        return Bodies(self)

    # What is asked of the window.

    def qt_action(self, id: str) -> QAction:
        """The Qt action of an id."""
        return self.qt_actions.of(id)

    def run(self, id: str) -> None:
        """Runs an action by its id, if it can be done now."""
        self.qt_actions.run(id)

    def canvas(self) -> Canvas:
        """The canvas of the view that is seen."""
        return self.views.canvas()

    @property
    def paging(self) -> Paging:
        """The pages of the style."""
        return self.views.paging

    def edit_step(self) -> None:
        """Puts the hand into the fields of the chosen step."""
        self.lay.show_panel("reading")
        self.side.reading.edit_fields()

    def rename_step(self) -> None:
        """Lets the chosen step's name be typed on its card."""
        self.strip.rename()

    def marked_steps(self) -> tuple[Step, ...]:
        """The steps of the cards that are marked, else of the chosen one."""
        first, last = self.strip.marked
        return self.model.style.steps[first:last]

    def fold_card(self) -> None:
        """Shows the cards under the chosen one, or puts them there again."""
        self.strip.toggle_fold()

    def set_theme(self, look: ThemeName) -> None:
        """Another theme, kept from now on."""
        self.keeper.change(lambda settings: settings.model_copy(update={"theme": look}))
        self.restyle()

    def restyle(self) -> None:
        """Everything in the colours of the theme that the settings ask for."""
        app = QApplication.instance()
        if isinstance(app, QApplication):
            dress(app, self.keeper.settings.theme)
        dress_window(self)
        self.qt_actions.restyle()
        self.side.restyle()
        self.drawer.restyle()
        self.strip.refresh()
        self.views.restyle()

    def focus_next(self) -> None:
        """The keyboard goes on to the next part: header, view, panel, recipe."""
        parts: list[QWidget] = [self.header, *self.style_view.parts(), self.strip]
        if self.model.view != "style":
            parts = [self.header, self.views.shown(), *([self.strip] if self.strip.isVisible() else [])]
        holder = self.focusWidget()
        at = next(
            (k for k, part in enumerate(parts) if holder is not None and (part is holder or part.isAncestorOf(holder))), -1
        )
        for step in range(1, len(parts) + 1):
            if _focus_first(parts[(at + step) % len(parts)]):
                return

    def take(self, path: Path) -> None:
        """A file that was dropped here: measurements and methods are brought in, styles and blocks opened."""
        ending = path.suffix.lower()
        if ending in BROUGHT_IN:
            self.bodies.take(path)
        elif ending == RAIL:
            self.bodies.arriving.take_library(path)
        elif ending in OPENED:
            self.docs.open_path(path)
        elif ending == CHART:
            self.model.set_view("sizes")
            self.model.tried(lambda: self.views.in_sizes.charts.take_in(path), f"{path.name} is the size chart now.")
        elif ending == RULER_SHEET:
            self.bodies.by_ruler.take(path)
        else:
            self.bodies.arriving.take(path)

    def show_file(self, path: Path) -> None:
        """A file in the program that the desktop has for it."""
        if not QDesktopServices.openUrl(QUrl.fromLocalFile(str(path))):
            self.model.say(f"No program was found to open {path}. Open it from your file manager.", fault=True)

    # Showing.

    @contained("the window")
    def _refresh(self) -> None:
        self.qt_actions.refresh()
        self.views.show_view()
        self.strip.setVisible(self.model.view not in (*BESIDE, "measure", "block"))
        self.setWindowTitle(f"{self.model.style.name}{' *' if self.model.file.is_dirty else ''} - Zesty Pivot")

    # Starting and ending.

    def begin(self, *, with_start_page: bool) -> None:
        """What happens once the window is there: its place, unsaved work, what was set aside, the first-run walk. Whatever
        stands in settings and journals, the window opens."""
        settings = self.keeper.settings
        if settings.window:
            self.restoreGeometry(QByteArray.fromHex(settings.window.encode()))
        else:
            screen = self.screen()
            if screen is not None:  # no larger than the screen, which at 150 % may well be smaller than 1280x800
                self.resize(self.size().boundedTo(screen.availableGeometry().size()))
        found = self.keeper.leftovers()
        if found.offered or with_start_page:
            self.model.set_view(START)
            self.views.start_page.show_leftovers(found.offered)
        elif not settings.has_toured:
            QTimer.singleShot(0, self.pages.show_tour)
        told = " ".join(text for text in (found.told, self.keeper.settings_told) if text)
        if told:
            self.notice.put("set aside", told, ())
        crash = tried(lambda: crashes(crash_folder()), "", "the look for crashes")
        if crash:
            self.faults.add_crash(crash, found.offered[0].style if found.offered else None)
            text = "Zesty Pivot stopped in the middle of its work the last time. What was unsaved is offered below."
            self.notice.put("crash", text, [("Save a report…", self.docs.save_fault_report)])
        self.keeper.change(lambda known: known.model_copy(update={"has_started": True}))

    # Events.

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        if not self.model.pace.is_checked:  # shown for the first time: the findings are looked for once it is painted
            QTimer.singleShot(SHOWN_MS, self.model.pace.check)
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
            self.views.let_go()
            self.keeper.close()
            self.faults.close()
            self.model.pace.close()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        urls = data.urls() if data is not None else []
        if urls and urls[0].isLocalFile():
            self.take(Path(urls[0].toLocalFile()))


def _focus_first(part: QWidget) -> bool:
    """Gives the keyboard to a part, or to the first widget in it that takes it."""
    for widget in (part, *part.findChildren(QWidget)):
        if widget.isVisibleTo(part.window()) and widget.isEnabled() and widget.focusPolicy() & Qt.FocusPolicy.TabFocus:
            widget.setFocus(Qt.FocusReason.TabFocusReason)
            return True
    return False
