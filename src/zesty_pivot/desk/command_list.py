"""Every command in one list that is searched by typing."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import QEvent, QModelIndex, QObject, QRectF, QSize, Qt
from PyQt6.QtGui import QAction, QKeyEvent, QPainter
from PyQt6.QtWidgets import (
    QDialog,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)  # fmt: skip

from zesty_pivot.desk.action import Action
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.theme import NOW, text_font

ROW = 34  # px


def matches(text: str, action: Action) -> bool:
    """Whether every typed word is in the action's title, menu, tip or shortcut."""
    known = f"{action.menu} {action.title} {action.tip} {action.shortcut}".lower()
    return all(word in known for word in text.lower().split())


def rank(text: str, action: Action) -> int:
    """How well an action answers what was typed: 0 when its title has the words, 1 when words of it begin so, 2 else."""
    words = action.title.lower().rstrip("…").split()
    typed = text.lower().split()
    if all(word in words for word in typed):
        return 0
    return 1 if all(any(known.startswith(word) for known in words) for word in typed) else 2


class CommandList(QDialog):
    """Type, choose by arrows, Enter."""

    def __init__(self, entries: Sequence[tuple[Action, QAction]], parent: QWidget) -> None:
        super().__init__(parent)
        self.setWindowTitle("Find a command")
        self.resize(560, 460)
        self._entries = entries
        self.search, self.list, self.hint = QLineEdit(), QListWidget(), label("", "quiet")
        self.search.setPlaceholderText("Type what you want to do, such as fold or inches")
        self.search.setAccessibleName("Find a command")
        self.list.setAccessibleName("Commands")
        self.list.setItemDelegate(_Rows(self.list))
        layout = QVBoxLayout(self)
        layout.setContentsMargins(14, 14, 14, 12)
        layout.setSpacing(8)
        for widget in (self.search, self.list, self.hint):
            layout.addWidget(widget)
        self.search.textChanged.connect(self._fill)
        self.search.installEventFilter(self)
        self.list.itemActivated.connect(lambda _item: self.run())
        self.list.currentRowChanged.connect(self._tell)
        self._fill("")

    def _fill(self, text: str) -> None:
        self.list.clear()
        for action, found in sorted(self._entries, key=lambda entry: rank(text, entry[0])):
            if matches(text, action):
                item = QListWidgetItem(found.text())
                item.setData(Qt.ItemDataRole.UserRole, action.id)
                item.setData(Qt.ItemDataRole.UserRole + 1, (action, found.text(), found.icon().pixmap(16, 16)))
                if not found.isEnabled():
                    item.setFlags(item.flags() & ~Qt.ItemFlag.ItemIsEnabled)
                self.list.addItem(item)
        rows = [k for k in range(self.list.count()) if self._is_enabled(k)]
        self.list.setCurrentRow(rows[0] if rows else -1)
        self._tell()

    def _is_enabled(self, row: int) -> bool:
        item = self.list.item(row)
        return item is not None and bool(item.flags() & Qt.ItemFlag.ItemIsEnabled)

    def ids(self) -> list[str]:
        """The ids that are listed."""
        items = (self.list.item(k) for k in range(self.list.count()))
        return [str(item.data(Qt.ItemDataRole.UserRole)) for item in items if item is not None]

    def _tell(self, _row: int = 0) -> None:
        chosen = self._chosen()
        if chosen is None:
            self.hint.setText("Nothing of that name. Try another word." if not self.list.count() else "")
            return
        action, found = chosen
        self.hint.setText(action.tip if found.isEnabled() else f"{action.tip or action.title} (not now)")

    def _chosen(self) -> tuple[Action, QAction] | None:
        item = self.list.currentItem()
        if item is None:
            return None
        id = item.data(Qt.ItemDataRole.UserRole)
        return next(entry for entry in self._entries if entry[0].id == id)

    def run(self) -> None:
        """Does the chosen command and closes."""
        chosen = self._chosen()
        if chosen is not None and chosen[1].isEnabled():
            self.accept()
            chosen[1].trigger()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        """Arrows in the search field move in the list, Enter runs."""
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            by = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1, Qt.Key.Key_PageDown: 8, Qt.Key.Key_PageUp: -8}.get(Qt.Key(event.key()))
            if by is not None:
                self._move(by)
                return True
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self.run()
                return True
        return super().eventFilter(watched, event)

    def _move(self, by: int) -> None:
        """The next command that can be done, in a direction."""
        rows = [k for k in range(self.list.count()) if self._is_enabled(k)]
        if rows:
            now = self.list.currentRow()
            at = rows.index(now) if now in rows else 0
            self.list.setCurrentRow(rows[min(max(at + by, 0), len(rows) - 1)])


class _Rows(QStyledItemDelegate):
    """Paints an entry: its icon, what it is called, its menu, its shortcut."""

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        return QSize(300, ROW)

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        if painter is None:
            return
        action, title, picture = index.data(Qt.ItemDataRole.UserRole + 1)
        is_enabled = bool(option.state & QStyle.StateFlag.State_Enabled)
        box = QRectF(option.rect)
        painter.save()
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(box, NOW.color("cool_pale"))
        painter.drawPixmap(int(box.left()) + 10, int(box.center().y()) - 8, picture)
        middle = Qt.AlignmentFlag.AlignVCenter
        painter.setPen(NOW.color("ink" if is_enabled else "quiet"))
        painter.setFont(text_font())
        painter.drawText(box.adjusted(38, 0, -210, 0), middle | Qt.AlignmentFlag.AlignLeft, title)
        painter.setPen(NOW.color("quiet"))
        painter.drawText(box.adjusted(0, 0, -130, 0), middle | Qt.AlignmentFlag.AlignRight, action.menu)
        painter.setPen(NOW.color("ink" if is_enabled else "quiet"))
        painter.setFont(text_font(bold=True))
        keys = action.shortcut.replace("Ctrl+Return", "Ctrl+Enter")
        painter.drawText(box.adjusted(0, 0, -12, 0), middle | Qt.AlignmentFlag.AlignRight, keys)
        painter.restore()
