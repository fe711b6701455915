"""A card of the recipe strip: picture, number and name, figures, and a mark when a check speaks."""

from __future__ import annotations

from PyQt6.QtCore import QByteArray, QEvent, QMimeData, QPoint, QRect, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QContextMenuEvent, QDrag, QFocusEvent, QKeyEvent, QMouseEvent, QPainter, QPen, QPixmap
from PyQt6.QtWidgets import QApplication, QFrame, QLabel, QLineEdit, QVBoxLayout

from zesty_pivot.core.recipe import State
from zesty_pivot.desk.labels import repolish
from zesty_pivot.desk.theme import NOW, text_font

PICTURE = QSize(112, 56)
MIME = "application/x-zesty-pivot-step"
WIDTH = 172


class _Name(QLineEdit):
    """The name while it is typed; Escape leaves it as it was."""

    left = pyqtSignal()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)


class Card(QFrame):
    """Number 0 is the block, the others are the steps counted from 1."""

    chosen = pyqtSignal(int)
    extended = pyqtSignal(int)  # with Shift
    opened = pyqtSignal(int)  # to be edited
    renamed = pyqtSignal(int, str)
    asked = pyqtSignal(int, QPoint)  # for its menu
    focused = pyqtSignal(int)

    _words = "", ""  # title and figures, whole

    def __init__(self, number: int) -> None:
        super().__init__()
        self.setObjectName("card")
        self.number = number
        self.setFixedWidth(WIDTH)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.picture, self.title, self.figures = QLabel(), QLabel(), QLabel()
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.picture.setFixedHeight(PICTURE.height())
        self.title.setFont(text_font(9, bold=True))
        self.figures.setObjectName("quiet")
        self.figures.setFont(text_font(8.5))
        self.figures.setWordWrap(True)
        self.figures.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(9, 5, 9, 6)
        layout.setSpacing(1)
        for widget in (self.picture, self.title, self.figures):
            layout.addWidget(widget)
        self._dot, self.folded = "", 0
        self._shown: tuple[object, ...] = ()
        self._pressed: QPoint | None = None
        self.name_edit: QLineEdit | None = None

    def show_state(self, state: State, *, said: str, chosen: bool, dot: str, folded: int = 0) -> None:
        """Fills the card. `said` is what the step does in a few words; `dot` is empty, `warning` or `error`; `folded` is
        how many cards it stands for, where it stands for more than itself. A card that shows this already is left alone."""
        step = state.step
        wanted = (state.serial, state.step, chosen, dot, said, folded)
        if wanted == self._shown:
            return
        self._shown = wanted
        title = "Block" if step is None else step.name or step.title
        prefix = "" if step is None else f"{self.number - folded + 1}–{self.number}  " if folded else f"{self.number}  "
        if folded and step is not None:
            title = f"{step.group.rpartition(' ')[0].capitalize() or step.group}, {folded} steps"
        figures = said
        if step is not None and step.off:
            figures = "switched off"
        if state.error is not None:
            figures = state.error.what
        self._words = f"{prefix}{title}", figures
        self._letter()
        self.setToolTip(str(state.error) if state.error else f"{prefix}{title}\n{figures}")
        self.setAccessibleName(f"{prefix}{title}: {figures}")
        self._dot, self.folded = dot, folded
        marks = {"chosen": chosen, "broken": state.error is not None, "off": step is not None and step.off}
        if any(bool(self.property(name)) != value for name, value in marks.items()):
            for name, value in marks.items():
                self.setProperty(name, value)
            repolish(self)
        self.update()

    def mark(self, marked: bool) -> None:
        """Shows whether it is among the marked ones."""
        if bool(self.property("marked")) != marked:
            self.setProperty("marked", marked)
            repolish(self)

    def show_picture(self, picture: QPixmap) -> None:
        """The pattern after the step, if it is not the picture that is there."""
        if self.picture.pixmap().cacheKey() != picture.cacheKey():
            self.picture.setPixmap(picture)

    def _letter(self) -> None:
        for label, text, lines in zip((self.title, self.figures), self._words, (1, 2), strict=True):
            if label.text() != (short := self._short(text, label, lines)):
                label.setText(short)
        # A label of several lines would ask for the height that it has at another width.
        self.figures.setMaximumHeight(2 * self.figures.fontMetrics().lineSpacing())

    def changeEvent(self, event: QEvent | None) -> None:
        """Letters it anew when the style sheet gives it another type."""
        super().changeEvent(event)
        if event is not None and event.type() == QEvent.Type.StyleChange:
            self._letter()

    def _short(self, text: str, label: QLabel, lines: int) -> str:
        """The text as far as it fits; the whole of it stands in the tooltip and, for the chosen step, in the panel."""
        label.ensurePolished()  # the style sheet has its say on the type before it is measured
        room, metrics = WIDTH - 22, label.fontMetrics()
        if lines == 1:
            return metrics.elidedText(text, Qt.TextElideMode.ElideRight, room)
        wide = room * lines
        while True:  # words break where they like: what is elided by its length alone may take a line more
            short = metrics.elidedText(text, Qt.TextElideMode.ElideRight, wide)
            taken = metrics.boundingRect(QRect(0, 0, room, 1000), Qt.TextFlag.TextWordWrap, short)
            if taken.height() <= lines * metrics.lineSpacing() or wide <= room:
                return short
            wide -= 8

    # Naming.

    def type_name(self, name: str) -> None:
        """Puts a line edit over the title."""
        if self.name_edit is None:
            edit = _Name(name, self)
            edit.setAccessibleName("Name of the step")
            edit.setPlaceholderText("its own name")
            edit.setGeometry(5, self.title.y() - 5, WIDTH - 10, 30)
            edit.returnPressed.connect(self._take_name)
            edit.editingFinished.connect(self._take_name)
            edit.left.connect(self._leave_name)
            self.name_edit = edit
        self.name_edit.show()
        self.name_edit.selectAll()
        self.name_edit.setFocus()

    def _leave_name(self) -> None:
        edit, self.name_edit = self.name_edit, None
        if edit is not None:
            edit.blockSignals(True)
            edit.hide()
            edit.deleteLater()
            self.setFocus()

    def _take_name(self) -> None:
        if self.name_edit is not None:
            name = self.name_edit.text().strip()
            self._leave_name()
            self.renamed.emit(self.number, name)

    # Drawing.

    def paintEvent(self, event: object) -> None:
        super().paintEvent(event)  # type: ignore[arg-type]
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self._dot:
            # A round dot for a warning, a square for an error: the shape says it as well as the colour.
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(NOW.color("error" if self._dot == "error" else "citrus"))
            box = QRectF(self.width() - 17, 8, 9, 9)
            if self._dot == "error":
                painter.drawRect(box)
            else:
                painter.drawEllipse(box)
        if self.folded:  # more cards lie under this one
            painter.setPen(QPen(NOW.color("edge"), 1.2))
            for away in (3, 6):
                painter.drawLine(12, self.height() - away, self.width() - 12, self.height() - away)
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(NOW.color("cool"), 1, Qt.PenStyle.DotLine))
            painter.drawRect(self.rect().adjusted(4, 4, -5, -5))
        painter.end()

    # Hands.

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.button() == Qt.MouseButton.LeftButton:
            self._pressed = event.position().toPoint()
            shifted = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            (self.extended if shifted else self.chosen).emit(self.number)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._pressed is None or self.number == 0:
            return
        if (event.position().toPoint() - self._pressed).manhattanLength() >= QApplication.startDragDistance():
            held, self._pressed = self._pressed, None
            self._drag(held)

    def _drag(self, held: QPoint) -> None:
        drag, data = QDrag(self), QMimeData()
        data.setData(MIME, QByteArray(str(self.number - 1).encode()))
        drag.setMimeData(data)
        drag.setPixmap(self.grab())
        drag.setHotSpot(held)
        drag.exec(Qt.DropAction.MoveAction)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._pressed = None

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self.opened.emit(self.number)

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        if event is not None:
            self.asked.emit(self.number, event.globalPos())

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            shifted = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
            (self.extended if shifted else self.chosen).emit(self.number)
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        super().focusInEvent(event)
        self.focused.emit(self.number)
        self.update()
