"""The main window: header, the three views, the message line, the recipe strip; and the work with files."""

from __future__ import annotations

from functools import cached_property
from pathlib import Path

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtGui import QAction, QCloseEvent, QDragEnterEvent, QDropEvent, QKeySequence, QResizeEvent
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QInputDialog,
    QLabel,
    QMainWindow,
    QMenu,
    QMessageBox,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)  # fmt: skip

from zesty_pivot import __version__
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import files
from zesty_pivot.core.formats.export import outputs
from zesty_pivot.core.formats.style_file import SUFFIX, Style
from zesty_pivot.data.demo import demo_style
from zesty_pivot.desk.actions import Action, actions
from zesty_pivot.desk.ask import Asker
from zesty_pivot.desk.finish_view import FinishView
from zesty_pivot.desk.header import Header
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.paper_view import FULL, PaperView
from zesty_pivot.desk.reading import ReadingPanel
from zesty_pivot.desk.strip import RecipeStrip
from zesty_pivot.desk.table.canvas import Canvas
from zesty_pivot.desk.table.style_table import StyleTable

MESSAGE_MS = 6000  # a message that is no fault is read by then
STYLES = "Styles (*.zpiv)"
STYLES_AND_BLOCKS = "Styles and blocks (*.zpiv *.zblock)"


class Window(QMainWindow):
    """Builds everything from the model and the table of actions."""

    def __init__(self, style: Style, path: Path | None = None) -> None:
        super().__init__()
        self.model = DeskModel(style)
        if path is not None:
            self.model.replace(style, path)
        self.ask = Asker(self)
        self.setAcceptDrops(True)
        self.setMinimumSize(960, 640)
        self.resize(1280, 800)
        self._qt_actions: dict[str, tuple[Action, QAction]] = {}
        self._build_actions()
        self.table = StyleTable(self.model)
        self.reading = ReadingPanel(self.model, self.table.setFocus)
        self.message = QLabel(self)  # lies over the foot of the view, so that nothing jumps when it speaks
        self.message.setObjectName("message")
        self.message.setWordWrap(True)
        self.strip = RecipeStrip(self.model)
        self.header = Header(self.model, self.qt_action)
        self.stack = QStackedWidget()
        self.stack.addWidget(self._style_view())
        middle = QWidget()
        column = QVBoxLayout(middle)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.header)
        column.addWidget(self.stack, 1)
        column.addWidget(self.strip)
        self.setCentralWidget(middle)
        self.model.said.connect(self._say)
        self.model.changed.connect(self._refresh)
        self.model.chosen_changed.connect(self._refresh)
        self.model.view_changed.connect(self._refresh)
        self.message.hide()
        self._quiet = QTimer(self)
        self._quiet.setSingleShot(True)
        self._quiet.timeout.connect(self.message.hide)
        self._refresh()
        self.table.setFocus()

    @cached_property
    def finish(self) -> FinishView:
        """The finish view, made when it is first looked at."""
        view = FinishView(self.model)
        self.stack.addWidget(view)
        return view

    @cached_property
    def paper(self) -> PaperView:
        """The paper view, made when it is first looked at."""
        view = PaperView(self.model, self.run)
        self.stack.addWidget(view)
        return view

    def _view(self) -> QWidget | None:
        """The widget of the view that is to be seen."""
        return {"finish": lambda: self.finish, "paper": lambda: self.paper}.get(self.model.view, lambda: self.stack.widget(0))()

    def _style_view(self) -> QWidget:
        view = QWidget()
        row = QHBoxLayout(view)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        left = QWidget()
        left.setObjectName("left")
        left.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        left.setFixedWidth(178)
        column = QVBoxLayout(left)
        column.setContentsMargins(12, 14, 12, 12)
        column.setSpacing(7)
        heading = QLabel("Add a step")
        heading.setObjectName("heading")
        column.addWidget(heading)
        for id, picture in (("add.dart.move", "rotate-cw"), ("add.piece.true", "spline")):
            column.addWidget(self._step_button(id, picture))
        column.addSpacing(10)
        hint = QLabel(
            "Drag a bead round the ring and the pattern opens there. Hold Shift to leave half behind; the wheel changes "
            "how much."
        )
        hint.setObjectName("quiet")
        hint.setWordWrap(True)
        column.addWidget(hint)
        column.addStretch(1)
        row.addWidget(left)
        row.addWidget(self.table, 1)
        row.addWidget(self.reading)
        return view

    def _step_button(self, id: str, picture: str) -> QPushButton:
        action = self._qt_actions[id][1]
        button = QPushButton(action.text())
        button.setObjectName("step")
        button.setIcon(icon(picture))
        button.setToolTip(action.toolTip())
        button.clicked.connect(action.trigger)
        action.changed.connect(lambda: button.setEnabled(action.isEnabled()))
        return button

    # Actions.

    def _build_actions(self) -> None:
        bar = self.menuBar()
        menus: dict[str, QMenu | None] = {}
        for action in actions():
            found = QAction(action.title, self)
            if action.shortcut:
                found.setShortcut(QKeySequence(action.shortcut))
            if action.icon:
                found.setIcon(icon(action.icon))
            keys = f" ({action.shortcut})" if action.shortcut else ""
            found.setToolTip(f"{action.tip or action.title.rstrip('…')}{keys}")
            found.triggered.connect(lambda _checked=False, action=action: self._do(action))
            if bar is not None:
                menu = menus.get(action.menu) or bar.addMenu(action.menu)
                menus[action.menu] = menu
                if menu is not None:
                    menu.addAction(found)
            self._qt_actions[action.id] = (action, found)

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

    def canvas(self) -> Canvas:
        """The canvas of the view that is seen."""
        if self.model.view == "style":
            return self.table
        return self.finish.canvas if self.model.view == "finish" else self.paper.canvas

    # Showing.

    def _refresh(self) -> None:
        for action, found in self._qt_actions.values():
            found.setEnabled(action.enabled(self.model))
        for id, verb, title in (("edit.undo", "Undo", self.model.undo_title), ("edit.redo", "Redo", self.model.redo_title)):
            self._qt_actions[id][1].setText(f"{verb} {title}".strip())
        view = self._view()
        if self.stack.currentWidget() is not view:
            self.stack.setCurrentWidget(view)
            self.canvas().setFocus()
        self.setWindowTitle(f"{self.model.style.name}{' *' if self.model.is_dirty else ''} - Zesty Pivot")

    def _say(self, text: str, fault: bool) -> None:
        self.message.setText(text)
        self.message.setProperty("fault", fault)
        style = self.message.style()
        if style is not None:
            style.unpolish(self.message)
            style.polish(self.message)
        self.message.setVisible(bool(text))
        self._place_message()
        self._quiet.stop()
        if not fault:
            self._quiet.start(MESSAGE_MS)

    def _place_message(self) -> None:
        canvas = self.canvas()
        text = self.message.fontMetrics().horizontalAdvance(self.message.text()) + 40
        width = max(200, min(canvas.width() - 50, text))
        self.message.setFixedSize(width, max(30, self.message.heightForWidth(width)))
        corner = canvas.mapTo(self, canvas.rect().bottomLeft())
        left = corner.x() + (canvas.width() - width) // 2
        self.message.move(left, corner.y() - self.message.height() - 10)
        self.message.raise_()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        super().resizeEvent(event)
        self._place_message()

    # Files.

    def _may_leave(self) -> bool:
        """Whether the document may be left: asks when something would be lost."""
        if not self.model.is_dirty:
            return True
        answer = self.ask.keep_changes(self.model.style.name)
        return self.save() if answer == "save" else answer == "discard"

    def open_path(self, path: Path) -> None:
        """Opens a file; what cannot be opened is said, and nothing is lost."""
        if not self._may_leave():
            return
        try:
            self.model.open(path)
            self.model.say(f"Opened {path.name}.")
        except ZestyError as fault:
            self.model.say(str(fault), fault=True)

    def open_dialog(self) -> None:
        """Asks for a style or block and opens it."""
        path = self.ask.open_file("Open a style or a block", STYLES_AND_BLOCKS)
        if path is not None:
            self.open_path(path)

    def new_from_block(self) -> None:
        """Asks for a block and begins a style over it."""
        path = self.ask.open_file("New style from a block", "Blocks (*.zblock)")
        if path is not None:
            self.open_path(path)

    def open_demo(self) -> None:
        """Opens the demo style."""
        if self._may_leave():
            self.model.replace(demo_style(), None)
            self.model.say("This is the demo: Isaura's Descant bodice.")

    def save(self) -> bool:
        """Saves, asking for a name when there is none; false when it was not saved."""
        return self._save_to(self.model.path) if self.model.path is not None else self.save_as()

    def save_as(self) -> bool:
        """Saves under another name."""
        start = f"{self.model.style.name}{SUFFIX}" if self.model.path is None else str(self.model.path)
        path = self.ask.save_file("Save the style", start, STYLES)
        if path is None:
            return False
        return self._save_to(path if path.suffix else path.with_suffix(SUFFIX))

    def _save_to(self, path: Path) -> bool:
        try:
            self.model.save(path)
        except ZestyError as fault:
            self.model.say(str(fault), fault=True)
            return False
        self.model.say(f"Saved {path.name}.")
        return True

    def rename(self) -> None:
        """Asks for the style's name."""
        name, ok = QInputDialog.getText(self, "Name the style", "Name", text=self.model.style.name)
        if ok and name.strip():
            self.model.edit(self.model.style.model_copy(update={"name": name.strip()[:200]}), "name the style")

    def export_pdf(self) -> None:
        """Saves the PDF that the paper view shows: tiled, or one page."""
        chosen = self.paper.chosen
        key = "full.pdf" if chosen == FULL else f"tiles-{chosen}.pdf"
        path = self.ask.save_file("Save the PDF", f"{self.model.style.name}.pdf", "PDF (*.pdf)")
        if path is not None:
            self._export(path, key, "pdf", "A4" if chosen == FULL else chosen)

    def export_svg(self) -> None:
        """Saves the sheet as SVG."""
        path = self.ask.save_file("Save the sheet", f"{self.model.style.name}.svg", "SVG (*.svg)")
        if path is not None:
            self._export(path, "sheet.svg", "svg", "A4")

    def _export(self, path: Path, key: str, kind: str, paper: str) -> None:
        target = path if path.suffix else path.with_suffix(f".{kind}")
        try:
            files.write_atomic(target, outputs(self.model.derived, (kind,), paper)[key])
            self.model.say(f"Saved {target.name}.")
        except ZestyError as fault:
            self.model.say(str(fault), fault=True)

    def export_all(self) -> None:
        """Saves SVG, PDF and report to a folder."""
        folder = self.ask.folder("Save everything to a folder")
        if folder is None:
            return
        paper = "A4" if self.paper.chosen == FULL else self.paper.chosen
        try:
            found = outputs(self.model.derived, ("svg", "pdf", "json"), paper)
            for name, content in found.items():
                files.write_atomic(folder / name, content)
            self.model.say(f"Saved {len(found)} files to {folder}.")
        except ZestyError as fault:
            self.model.say(str(fault), fault=True)

    def about(self) -> None:
        """Says what this is."""
        QMessageBox.about(
            self, "About Zesty Pivot",
            f"Zesty Pivot {__version__}\n\nStyled garment patterns from a fitted bodice block.\n"
            "Free software under the GNU General Public License, version 3 or later.",
        )  # fmt: skip

    # Events.

    def closeEvent(self, event: QCloseEvent | None) -> None:
        if event is not None:
            event.setAccepted(self._may_leave())

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        urls = data.urls() if data is not None else []
        if urls and urls[0].isLocalFile():
            self.open_path(Path(urls[0].toLocalFile()))
