"""Who a style is made for: sizes by group and people, with a tick, the look of their line, and what came of them."""

from __future__ import annotations

from PyQt6.QtCore import QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QColor, QIcon, QPainter, QPixmap
from PyQt6.QtWidgets import QTreeWidget, QTreeWidgetItem, QWidget

from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.sizes.sized import Wearer
from zesty_pivot.desk.sizes.size_looks import pen_of
from zesty_pivot.desk.sizes.sizes import Sizes
from zesty_pivot.desk.theme import NOW

SWATCH = QSize(30, 12)
NAMES = 160  # px of the names
TITLE = Qt.ItemDataRole.UserRole
PEOPLE, GUESTS = "People", "Out of a table"


class WearerList(QTreeWidget):
    """The list; `chosen` and `ticked` are emitted when the user did it, never when the model did."""

    chosen = pyqtSignal(str)
    ticked = pyqtSignal(str, bool)
    opened = pyqtSignal(str)

    def __init__(self, sizes: Sizes) -> None:
        super().__init__()
        self._sizes = sizes
        self.setAccessibleName("Sizes and people")
        self.setColumnCount(2)
        self.setHeaderHidden(True)
        self.setIconSize(SWATCH)
        self.setIndentation(12)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        header = self.header()
        if header is not None:
            header.setStretchLastSection(True)
            header.resizeSection(0, NAMES)
        self._rows: dict[str, QTreeWidgetItem] = {}
        self._shape: tuple[object, ...] = ()
        self._told: dict[str, tuple[object, ...]] = {}  # what the rows show
        self.currentItemChanged.connect(self._choose)
        self.itemChanged.connect(self._tick)
        self.itemActivated.connect(self._open)

    def refresh(self) -> None:
        """Shows what is so."""
        sizes = self._sizes
        groups: dict[str, list[Wearer]] = {}
        for one in sizes.who.fitting:
            groups.setdefault(capital(one.group) or "Sizes", []).append(one)
        if sizes.who.everybody:
            groups[PEOPLE] = list(sizes.who.everybody)
        if sizes.who.guests:
            groups[GUESTS] = list(sizes.who.guests)
        self.blockSignals(True)
        shape = tuple((group, *(one.title for one in of_group)) for group, of_group in groups.items())
        if shape != self._shape:
            self._shape = shape
            self._build(groups)
        shown = {one.title: n for n, one in enumerate(sizes.who.shown)}
        asked = {one.title for one in sizes.who.asked}
        for one in (each for of_group in groups.values() for each in of_group):
            self._show(self._rows[one.title], one, shown.get(one.title), is_asked=one.title in asked)
        self.setCurrentItem(self._rows.get(sizes.chosen))
        self.blockSignals(False)

    def _build(self, groups: dict[str, list[Wearer]]) -> None:
        self.clear()
        self._rows, self._told = {}, {}
        for group, of_group in groups.items():
            head = QTreeWidgetItem(self, [group])
            head.setFlags(Qt.ItemFlag.ItemIsEnabled)
            head.setExpanded(True)
            for one in of_group:
                row = QTreeWidgetItem(head, [one.short if one.group else one.title])
                row.setData(0, TITLE, one.title)
                self._rows[one.title] = row

    def _show(self, row: QTreeWidgetItem, wearer: Wearer, number: int | None, *, is_asked: bool) -> None:
        away = ("not shown", self._sizes.note, False) if is_asked else ("", wearer.title, False)
        said, why, is_bad = self._said(wearer) if number is not None else away
        shown = ((number, is_asked, NOW.name), said, why)
        before = self._told.get(wearer.title)
        if before == shown:
            return
        self._told[wearer.title] = shown
        if before is None or before[0] != shown[0]:
            row.setCheckState(0, Qt.CheckState.Checked if is_asked else Qt.CheckState.Unchecked)
            row.setIcon(0, QIcon() if number is None else _swatch(number, self))
        row.setText(1, said)
        row.setForeground(1, NOW.color("error" if is_bad else "quiet"))
        for column in (0, 1):
            row.setToolTip(column, why)

    def _said(self, wearer: Wearer) -> tuple[str, str, bool]:
        """What came of one, why, and whether it is not sound."""
        sized = self._sizes.sized(wearer.title)
        if sized is None:
            return "…", "It is being worked out.", False
        if sized.derived is None:
            return "cannot be made", sized.fault, True
        verdict = self._sizes.verdict(wearer)
        if verdict is None:
            broken = len(sized.derived.derivation.broken)
            return (f"{broken} broken" if broken else "…"), "It is being looked over.", bool(broken)
        why = "\n".join((*verdict.broken, *verdict.errors))
        if verdict.broken:
            return f"{len(verdict.broken)} broken", why, True
        if verdict.errors:
            return f"{len(verdict.errors)} to mend", why, True
        count = verdict.warnings
        return ("sound" if not count else f"sound, {count} to look at"), why or "It can be cut as it is.", False

    def _choose(self, item: QTreeWidgetItem | None) -> None:
        title = item.data(0, TITLE) if item is not None else None
        if title:
            self.chosen.emit(title)

    def _open(self, item: QTreeWidgetItem, _column: int) -> None:
        if item.data(0, TITLE):
            self.opened.emit(item.data(0, TITLE))

    def _tick(self, item: QTreeWidgetItem, column: int) -> None:
        title = item.data(0, TITLE)
        if title and column == 0:
            self._told.pop(title, None)  # what the hand did is no longer what is so
            on, parent = item.checkState(0) == Qt.CheckState.Checked, item.parent()
            if parent is not None and parent.text(0) == GUESTS:  # whose row goes with it: not while it is being told
                QTimer.singleShot(0, lambda: self.ticked.emit(title, on))
            else:
                self.ticked.emit(title, on)


def _swatch(number: int, of: QWidget) -> QIcon:
    """The line of a size as a small picture."""
    ratio = of.devicePixelRatioF()
    picture = QPixmap(SWATCH * ratio)
    picture.setDevicePixelRatio(ratio)
    picture.fill(QColor(0, 0, 0, 0))
    painter = QPainter(picture)
    pen = pen_of(number, is_chosen=False)
    pen.setWidthF(1.8)
    painter.setPen(pen)
    painter.drawLine(1, SWATCH.height() // 2, SWATCH.width() - 1, SWATCH.height() // 2)
    painter.end()
    return QIcon(picture)
