"""A table that hands act on."""

from __future__ import annotations

from abc import abstractmethod

from PyQt6.QtCore import QEvent, QPointF, QRectF, Qt
from PyQt6.QtGui import QContextMenuEvent, QKeyEvent, QMouseEvent, QWheelEvent
from PyQt6.QtWidgets import QToolTip

from zesty_pivot.core.piece import Piece
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.hand import TableHand
from zesty_pivot.desk.table.kept_canvas import KeptCanvas
from zesty_pivot.desk.table.lying import Lying
from zesty_pivot.desk.table.ring_model import Ring
from zesty_pivot.desk.table.ring_paint import Size


class HandTable(KeptCanvas):
    """What hands ask of the table; each event goes to the first hand that takes it, else to the canvas."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.hands: list[TableHand] = []

    def _leave(self) -> None:
        for hand in self.hands:
            hand.leave()

    @property
    @abstractmethod
    def is_flat(self) -> bool:
        """Whether the darts lie open: folded paper has no ring, and nothing begins on it."""

    @property
    @abstractmethod
    def is_held(self) -> bool:
        """Whether a bead or a handle is in the hand."""

    @abstractmethod
    def layout_now(self) -> dict[str, Lying]:
        """Where each piece lies, by its name."""

    @abstractmethod
    def ring(self) -> Ring | None:
        """The ring of the chosen pivot for the pattern on the table, or None."""

    @abstractmethod
    def ring_size(self) -> Size:
        """How large the ring is on a table of this size."""

    @abstractmethod
    def is_ring_at(self, at: QPointF) -> bool:
        """Whether a place (px) is the ring's or a pin's, so that nothing else is meant there."""

    @abstractmethod
    def label_box(self, piece: Piece) -> QRectF:
        """Where a piece's name stands, px."""

    # Events.

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if event.button() == Qt.MouseButton.LeftButton and any(hand.press(event) for hand in self.hands):
            return
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._grab is not None:
            self._leave()
            super().mouseMoveEvent(event)
            return
        if any(hand.move(event) for hand in self.hands):
            return
        shapes = (hand.cursor(event.position()) for hand in self.hands)
        self.setCursor(next((shape for shape in shapes if shape is not None), Qt.CursorShape.ArrowCursor))

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        is_taken = any(hand.release(event) for hand in self.hands)
        if not is_taken or self._grab is not None:
            super().mouseReleaseEvent(event)

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        """What can be done with what is under the mouse, or, by the menu key, with what is chosen."""
        if event is not None:
            any(hand.menu(event) for hand in self.hands)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is None:
            return
        turn = event.angleDelta().y() or event.angleDelta().x()
        if not any(hand.turn_wheel(1 if turn > 0 else -1) for hand in self.hands):
            self._leave()
            super().wheelEvent(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and not any(hand.key(event) for hand in self.hands):
            super().keyPressEvent(event)

    def leaveEvent(self, event: QEvent | None) -> None:
        super().leaveEvent(event)
        self._leave()

    def event(self, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.ToolTip:
            at = QPointF(event.pos())  # type: ignore[attr-defined]
            tip = next((tip for hand in self.hands if (tip := hand.tip(at))), "")
            if tip:
                QToolTip.showText(event.globalPos(), tip, self)  # type: ignore[attr-defined]
                return True
        is_key = isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress
        if isinstance(event, QKeyEvent) and is_key and any(hand.walk(event) for hand in self.hands):
            return True
        return super().event(event)
