"""The gallery of necklines: each shape as a small picture, worked out on the user's own block."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QEvent, QPointF, QRectF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QEnterEvent, QFocusEvent, QIcon, QPainter, QPen, QPixmap
from PyQt6.QtWidgets import QGridLayout, QToolButton, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.necklines.registry import all_shapes
from zesty_pivot.core.piece import Body, Pattern, Piece
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.clearing import cleared
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.steps.neck_shape import ShapeNeck
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.theme import NOW

PICTURE = QSize(78, 58)
COLUMNS = 3
_DOWN = 0.74  # of the block's front from its top, shown


@dataclass(frozen=True)
class _Tried:
    """A shape's pattern on the block, or why it cannot be."""

    pattern: Pattern | None
    fault: str = ""


class _Choice(QToolButton):
    """One shape."""

    looked = pyqtSignal(str)
    left = pyqtSignal()

    def __init__(self, name: str, title: str) -> None:
        super().__init__()
        self.name = name
        self.setObjectName("shape")
        self.setText(title)
        self.setAccessibleName(f"{title} neckline")
        self.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
        self.setIconSize(PICTURE)
        self.setFixedWidth(PICTURE.width() + 10)
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


class Gallery(QWidget):
    """All shapes. Emits what is looked at (hover or focus), what is left, and what is chosen."""

    looked = pyqtSignal(str)
    left = pyqtSignal()
    chosen = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        grid = QGridLayout(self)
        grid.setContentsMargins(0, 0, 0, 0)
        grid.setSpacing(4)
        self.choices: dict[str, _Choice] = {}
        for number, (name, shape) in enumerate(all_shapes().items()):
            choice = _Choice(name, shape.title)
            choice.setToolTip(f"{shape.title}: {shape.hint}")
            choice.looked.connect(self.looked)
            choice.left.connect(self.left)
            choice.clicked.connect(lambda _on=False, name=name: self.chosen.emit(name))
            self.choices[name] = choice
            grid.addWidget(choice, number // COLUMNS, number % COLUMNS)
        self._block: Pattern | None = None
        self._plain = Pattern(())  # the block with its upper darts put away, on which a shape is seen best
        self._made: dict[str, _Tried] = {}
        self._waiting: list[str] = []
        self._scope = Scope()
        self._timer = QTimer(self)
        self._timer.setInterval(0)
        self._timer.timeout.connect(self._one_more)

    def show_block(self, block: Pattern, scope: Scope, now: str | None) -> None:
        """The pictures for a block, made one after the other while nothing else is to be done; `now` is the shape in use."""
        for name, choice in self.choices.items():
            choice.setChecked(name == now)
        if self._block is block and self._scope.key() == scope.key():
            return
        self._block, self._scope = block, scope
        self._plain = _without_darts(block, scope)
        self._made = {}
        self._waiting = list(self.choices)
        self._timer.start()

    def restyle(self) -> None:
        """Draws the pictures anew in other colours."""
        for name in self._made:
            self._show(name)

    def finish(self) -> None:
        """Makes what is still waiting at once."""
        while self._waiting:
            self._one_more()

    def _one_more(self) -> None:
        if not self._waiting or self._block is None:
            self._timer.stop()
            return
        name = self._waiting.pop(0)
        self._made[name] = _worked(name, self._plain, self._block, self._scope)
        self._show(name)

    @contained("a shape in the gallery")
    def _show(self, name: str) -> None:
        made, choice, shape = self._made[name], self.choices[name], all_shapes()[name]
        choice.setEnabled(made.pattern is not None)
        choice.setToolTip(f"{shape.title}: {shape.hint}" if made.pattern is not None else f"{shape.title}: {made.fault}")
        if made.pattern is not None and self._block is not None:
            choice.setIcon(QIcon(_picture(made.pattern, self._block, self.devicePixelRatioF())))


def _without_darts(block: Pattern, scope: Scope) -> Pattern:
    made = block
    for piece in block.pieces:
        try:
            made = cleared(made, piece.name, Context(block, scope)).pattern
        except ZestyError:
            continue
    return made


def _worked(name: str, plain: Pattern, block: Pattern, scope: Scope) -> _Tried:
    names = [piece.name for piece in block.pieces]
    on = "front" if "front" in names else names[0]
    other = "back" if "back" in names and on != "back" else ""
    step, fault = ShapeNeck(on=on, other=other, shape=name), ""
    for pattern in (plain, block):  # some shapes cut darts away that cannot wait below
        try:
            return _Tried(attempt(step, pattern, Context(block, scope)).pattern)
        except ZestyError as found:
            fault = str(found)
    return _Tried(None, fault)


def _picture(pattern: Pattern, block: Pattern, ratio: float) -> QPixmap:
    """The whole front down to below the bust, its other half mirrored; the back's neckline behind it."""
    pixmap = QPixmap(PICTURE * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(Qt.GlobalColor.transparent)
    front = pattern.pieces[0]
    whole = shapes_of(block.piece(front.of or front.name)).box
    wide = max(whole.right(), 1.0)
    shown = QRectF(-wide, whole.top() - 75.0, 2.0 * wide, whole.height() * _DOWN + 75.0)
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    scale = min(PICTURE.width() / shown.width(), PICTURE.height() / shown.height())
    painter.translate(QPointF(PICTURE.width() / 2, PICTURE.height() / 2) - shown.center() * scale)
    painter.scale(scale, scale)
    painter.setClipRect(shown)
    backs = [piece for piece in pattern.pieces if piece.body is Body.BACK]
    for piece, brush in [(piece, "table") for piece in backs] + [(piece, "paper") for piece in _fronts(pattern)]:
        pen = QPen(NOW.color("ink" if brush == "paper" else "faint"), 1.1 / scale)
        for mirrored in (False, True) if not piece.is_unfolded else (False,):
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
            painter.restore()
    painter.end()
    return pixmap


def _fronts(pattern: Pattern) -> list[Piece]:
    return [piece for piece in pattern.pieces if piece.body is not Body.BACK]
