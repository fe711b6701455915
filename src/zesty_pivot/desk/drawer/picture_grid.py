"""A grid of small pictures to choose from, each worked out while nothing else is to be done."""

from __future__ import annotations

from collections.abc import Callable, Collection, Mapping

from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QEnterEvent, QFocusEvent, QFontMetrics, QIcon, QPainter, QPen, QPixmap
from PyQt6.QtWidgets import QGridLayout, QToolButton, QWidget

from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.record import record
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.labels import repolish
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.theme import NOW

PICTURE = QSize(78, 58)
COLUMNS = 2
HELD = 100  # ms until it is asked again whether pictures may be made


@record
class Tried:
    """The pattern that a choice makes, or why it cannot be."""

    pattern: Pattern | None
    fault: str = ""


class Pictured(QToolButton):
    """One picture with its title."""

    looked = pyqtSignal(str)
    left = pyqtSignal()

    def __init__(self, name: str, title: str, hint: str, kind: str, lines: int) -> None:
        super().__init__()
        self.name, self.title, self.hint = name, title, hint
        self.setObjectName("shape")
        self.setText(_in_lines(title, lines, self.fontMetrics(), PICTURE.width() + 8))
        self.setAccessibleName(f"{title} {kind}".strip())
        self.setToolTip(f"{title}: {hint}")
        self.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
        self.setIconSize(PICTURE)
        # So high before its picture is made as after: nothing moves under the hand.
        self.setFixedSize(PICTURE.width() + 10, PICTURE.height() + lines * self.fontMetrics().height() + 14)
        self.setCheckable(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def enterEvent(self, event: QEnterEvent | None) -> None:
        super().enterEvent(event)
        self.looked.emit(self.name)

    def leaveEvent(self, event: QEvent | None) -> None:
        super().leaveEvent(event)
        self.left.emit()

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        super().focusInEvent(event)
        if event is not None and event.reason() in (Qt.FocusReason.TabFocusReason, Qt.FocusReason.BacktabFocusReason):
            self.looked.emit(self.name)

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        super().focusOutEvent(event)
        self.left.emit()


def _in_lines(title: str, lines: int, metrics: QFontMetrics, wide: int) -> str:
    """A title in as many lines as it may have, cut short where it is longer."""
    found, rest = [""], title.split()
    for word in rest:
        longer = f"{found[-1]} {word}".strip()
        if metrics.horizontalAdvance(longer) > wide and found[-1] and len(found) < lines:
            found.append(word)
        else:
            found[-1] = longer
    return "\n".join(metrics.elidedText(line, Qt.TextElideMode.ElideRight, wide) for line in found)


class PictureGrid(QWidget):
    """Choices by name, with title and hint. Emits what is looked at (hover or focus), what is left, and what is chosen."""

    looked = pyqtSignal(str)
    left = pyqtSignal()
    chosen = pyqtSignal(str)

    def __init__(
        self, titles: Mapping[str, tuple[str, str]], kind: str, columns: int = COLUMNS, *, may_be_dim: bool = False
    ) -> None:  # fmt: skip
        super().__init__()
        self._columns, self._may_be_dim = columns, may_be_dim
        self._grid = grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(4)
        self.choices: dict[str, Pictured] = {}
        for number, (name, (title, hint)) in enumerate(titles.items()):
            choice = Pictured(name, title, hint, kind, 2 if may_be_dim else 1)
            choice.looked.connect(self.looked)
            choice.left.connect(self.left)
            choice.clicked.connect(lambda _on=False, name=name: self.chosen.emit(name))
            self.choices[name] = choice
            grid.addWidget(choice, number // columns, number % columns)
        grid.setColumnStretch(columns, 1)
        self._made: dict[str, Tried] = {}
        self._waiting: list[str] = []
        self._work: Callable[[str], Tried] | None = None  # until it is known for what
        self._draw: Callable[[Pattern], QPixmap] = lambda _pattern: QPixmap()
        self.is_held: Callable[[], bool] = lambda: False  # whether pictures have to wait, while something is dragged say
        self._timer = QTimer(self)
        self._timer.setInterval(0)
        self._timer.timeout.connect(self._one_more)

    def begin(self, work: Callable[[str], Tried], draw: Callable[[Pattern], QPixmap]) -> None:
        """The pictures of all choices that are shown anew: `work` makes a choice's pattern, `draw` a pattern's picture."""
        self._work, self._draw = work, draw
        self._made = {}
        self._waiting = [name for name, choice in self.choices.items() if not choice.isHidden()]
        self._timer.start(HELD)  # what was done is painted before

    def wait(self) -> None:
        """Something is done meanwhile: it is painted before more pictures are made."""
        if self._timer.isActive():
            self._timer.start(HELD)

    def fold(self, names: Collection[str]) -> None:
        """Shows these choices only; pictures that are missing are made."""
        for name, choice in self.choices.items():
            choice.setVisible(name in names)
        for number, name in enumerate(names):
            self._grid.addWidget(self.choices[name], number // self._columns, number % self._columns)
        self._waiting += [name for name in names if name not in self._made and name not in self._waiting]
        self._timer.start()

    def check(self, now: str | None) -> None:
        """Marks the choice that is in use."""
        for name, choice in self.choices.items():
            choice.setChecked(name == now)

    def restyle(self) -> None:
        """Draws the pictures anew in other colours."""
        for name in self._made:
            self._show(name)

    def finish(self) -> None:
        """Makes what is still waiting at once."""
        while self._waiting and self._work is not None:
            self._one_more()

    @contained("a picture in the gallery")
    def _one_more(self) -> None:
        if not self._waiting or self._work is None:
            self._timer.stop()
            return
        is_held = self.is_held() and self.sender() is self._timer
        self._timer.setInterval(HELD if is_held else 0)
        if is_held:
            return
        name = self._waiting.pop(0)
        self._made[name] = self._work(name)
        self._show(name)

    @contained("a picture in the gallery")
    def _show(self, name: str) -> None:
        made, choice = self._made[name], self.choices[name]
        if self._may_be_dim:  # one that is dim can still be reached, and says why
            choice.setProperty("dim", made.pattern is None)
            repolish(choice)
        else:
            choice.setEnabled(made.pattern is not None)
        choice.setToolTip(f"{choice.title}: {choice.hint if made.pattern is not None else made.fault}")
        choice.setIcon(QIcon() if made.pattern is None else QIcon(self._draw(made.pattern)))

    def said(self, name: str) -> str:
        """What is said of a choice: why it cannot be, else its hint."""
        made = self._made.get(name)
        return made.fault if made is not None and made.pattern is None else self.choices[name].hint


def blank(ratio: float) -> QPixmap:
    """An empty picture; `ratio` is pixels per logical pixel."""
    pixmap = QPixmap(PICTURE * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(Qt.GlobalColor.transparent)
    return pixmap


def is_half(piece: Piece) -> bool:
    """Whether its other half is drawn as well: all but whole pieces, and parts of their own without a centre."""
    return not piece.is_unfolded and (bool(piece.of) or any(role == "centre" for _edge, role in piece.roles))


def drawn(pieces: list[tuple[Piece, str]], shown: QRectF, ratio: float, *, marked: bool = False) -> QPixmap:
    """A picture of pieces, each filled with a colour of the theme, as far as they lie in a box (mm); halves on the fold with
    their other half. `marked` draws their marks too."""
    pixmap = blank(ratio)
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    scale = min(PICTURE.width() / shown.width(), PICTURE.height() / shown.height())
    painter.translate(QPointF(PICTURE.width() / 2, PICTURE.height() / 2) - shown.center() * scale)
    painter.scale(scale, scale)
    painter.setClipRect(shown)
    for piece, brush in pieces:
        pen = QPen(NOW.color("faint" if brush == "table" else "ink"), 1.1 / scale)
        for mirrored in (False, True) if is_half(piece) else (False,):
            painter.save()
            if mirrored:
                painter.scale(-1.0, 1.0)
            shapes = shapes_of(piece)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(NOW.color(brush))
            painter.drawPath(shapes.fill)
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(pen)
            for lines in (shapes.seams, shapes.legs):
                painter.drawPath(lines)
            if marked:
                painter.setPen(QPen(NOW.color("cool"), 0.9 / scale))
                painter.drawPath(shapes.marks)
            painter.restore()
    painter.end()
    return pixmap
