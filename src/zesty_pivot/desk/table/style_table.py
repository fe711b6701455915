"""The table of the style view: back and front on cutting paper, with the ring."""

from __future__ import annotations

import math
from collections.abc import Callable

from PyQt6.QtCore import QEvent, QPointF, QRectF, Qt
from PyQt6.QtGui import QContextMenuEvent, QKeyEvent, QMouseEvent, QPainter, QPen, QWheelEvent
from PyQt6.QtWidgets import QMenu, QToolTip

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.moves.laid_open import on_paper
from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.piece.pattern import numbered
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table import laid
from zesty_pivot.desk.table import ring_paint as paint
from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.table.comb import paint_comb
from zesty_pivot.desk.table.handles import Handles
from zesty_pivot.desk.table.piece_paint import paint_piece
from zesty_pivot.desk.table.ring_control import RingControl
from zesty_pivot.desk.table.ring_model import Bead, Ring, beads_of, ring_of
from zesty_pivot.desk.table.shapes import offsets, shapes_of
from zesty_pivot.desk.theme import NOW, display_font


class StyleTable(Canvas):
    """Shows the pattern of the model's state and lets beads be dragged round the ring."""

    def __init__(self, model: DeskModel, lay: Lay, bead_menu: Callable[[], QMenu]) -> None:
        super().__init__(model)
        self._bead_menu = bead_menu
        self._lay, self._was_laid = lay, (False, lay.spread)
        self._ring_cache: tuple[tuple[object, ...], Ring] | None = None
        self.control = RingControl(model, self.ring)
        self.handles = Handles(model, self)
        self.setAccessibleName("Cutting table")
        self.setAccessibleDescription(
            "Left and right choose a dart, Enter picks it up, left and right carry it, up and down change the share; "
            "the menu key offers other uses of the chosen dart."
        )
        model.changed.connect(self._refresh)
        model.chosen_changed.connect(self._refresh)
        lay.changed.connect(self._lay_changed)

    def _lay_changed(self) -> None:
        if self._lay.fold > 0.0:
            self.control.let_go()
        now = (self._lay.fold > 0.0, self._lay.spread)
        if now != self._was_laid:
            self._was_laid = now
            if self._fitted:
                self.fit()
        self.update()

    # What lies on it.

    def content_box(self) -> QRectF:
        box = QRectF()
        shifts = self._offsets()
        for piece in self._model.pattern.with_extras:
            dx, dy = shifts.get(piece.name, (0.0, 0.0))
            box = box.united(shapes_of(piece).box.translated(dx, dy))
            if self._lay.fold > 0.0:  # room for the darts wholly shut, so that nothing jumps while they close
                box = box.united(shapes_of(laid.shown_piece(piece, 1.0, self._sewing)).box.translated(dx, dy))
        # Room for the names of pieces below, and of stations to the left.
        return box.adjusted(-0.065 * box.width(), 0, 0, 0.05 * box.height())

    @property
    def _sewing(self) -> Sewing:
        return self._model.derived.derivation.sewing

    def _offsets(self) -> dict[str, tuple[float, float]]:
        return offsets(self._model.derived.derivation.block, self._model.pattern, self._lay.spread)

    @contained("the table")
    def _refresh(self) -> None:
        if self._fitted and self.control.carry is None and self.handles.held is None:
            self.fit()
        self.update()

    def ring(self) -> Ring | None:
        """The ring of the chosen pivot for the pattern on the table, or None."""
        if self._model.pivot is None:
            return None
        name, pivot = self._model.pivot
        block = self._model.derived.derivation.block
        known = [piece for piece in self._model.pattern.pieces if name in (piece.name, piece.of) and pivot in piece.landmarks]
        if not known:
            return None
        piece = known[0]
        key = (id(piece), pivot, self._model.style.scope().key())
        if self._ring_cache is None or self._ring_cache[0] != key:
            self._ring_cache = (key, ring_of(piece, block.drafted(piece), pivot, self._model.style.scope()))
        return self._ring_cache[1]

    def pin(self) -> QPointF | None:
        """Where the pivot of the ring is, px; None without a ring."""
        ring = self.ring()
        return self._pin(ring.piece, ring.pivot) if ring is not None else None

    def ring_size(self) -> paint.Size:
        """How large the ring is on a table of this size."""
        return paint.Size.on(QRectF(self.rect()).adjusted(RULER, RULER, 0, 0))

    def _pin(self, piece: Piece, pivot: str) -> QPointF:
        dx, dy = self._offsets().get(piece.name, (0.0, 0.0))
        x, y = on_paper(piece, piece.landmarks[pivot])
        return self.to_px(x + dx, y + dy)

    # Drawing.

    def paint_content(self, painter: QPainter) -> None:
        shifts, traced = self._offsets(), self._lay.traced_pattern
        if traced is not None and not self._lay.is_over:
            laid.paint_traced(painter, traced[0], shifts, 1.0 / self.scale)
        # Over tracing paper the pattern lets it show through.
        shows_through = traced is not None and not self._lay.is_over
        for piece in self._model.pattern.with_extras:
            painter.save()
            painter.translate(*shifts.get(piece.name, (0.0, 0.0)))
            paint_piece(
                painter, laid.shown_piece(piece, self._lay.fold, self._sewing), 1.0 / self.scale, is_traced=shows_through
            )
            painter.restore()
        if self._lay.comb:
            paint_comb(painter, self._model.pattern, shifts, 1.0 / self.scale)
        if traced is not None and self._lay.is_over:
            laid.paint_traced(painter, traced[0], shifts, 1.0 / self.scale)

    def paint_over(self, painter: QPainter) -> None:
        shifts = self._offsets()
        if self._lay.fold > 0.0:
            self._paint_folded(painter, shifts)
            return
        for piece in self._model.pattern.pieces:
            dx, dy = shifts.get(piece.name, (0.0, 0.0))
            self._label(painter, piece, dx, dy)
            laid.paint_words(painter, ((self.to_px(at.x() + dx, at.y() + dy), text) for at, text in shapes_of(piece).words))
            self._pins(painter, piece)
        for extra in self._model.pattern.extras:
            self._label(painter, extra.piece, *shifts.get(extra.piece.name, (0.0, 0.0)))
        self._ring(painter)
        self.handles.paint(painter, shifts)
        figures = self._lay.figures
        if figures is not None and self.control.carry is None:
            laid.paint_tags(painter, laid.difference_marks(self, self._model.pattern, figures, shifts))

    def _paint_folded(self, painter: QPainter, shifts: laid.Shifts) -> None:
        for piece in self._model.pattern.pieces:
            self._label(painter, piece, *shifts.get(piece.name, (0.0, 0.0)))
        laid.paint_crossings(painter, self, self._model.pattern, self._lay.fold, shifts, self._sewing)

    def _label(self, painter: QPainter, piece: Piece, dx: float, dy: float) -> None:
        box = shapes_of(piece).box
        at = self.to_px(box.left() + dx, box.bottom() + dy)
        painter.setPen(NOW.color("ink"))
        painter.setFont(display_font(13))
        # A long name of a narrow panel goes on in a second line, or it would run into its neighbour's.
        wide = max(self.to_px(box.right() + dx, 0.0).x() - at.x(), 130.0) if piece.of else 200.0
        flags = Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap
        painter.drawText(QRectF(at.x() + 5, at.y() + 4, wide, 48), flags, numbered(self._model.pattern, piece))

    def _pins(self, painter: QPainter, piece: Piece) -> None:
        """The pivots that have darts but not the ring: a pin to click on."""
        for pivot in self.pivots(piece):
            if (piece.name, pivot) != self._model.pivot:
                at = self._pin(piece, pivot)
                painter.setPen(QPen(NOW.color("cool"), 1.6))
                painter.setBrush(NOW.color("paper"))
                painter.drawEllipse(at, 6, 6)
                painter.setBrush(NOW.color("cool"))
                painter.drawEllipse(at, 2, 2)

    @staticmethod
    def pivots(piece: Piece) -> tuple[str, ...]:
        """The pivots of a piece that have darts."""
        return tuple(dict.fromkeys(dart.pivot for dart in piece.darts))

    def _ring(self, painter: QPainter) -> None:
        carry = self.control.carry
        ring = self.ring() if carry is None else carry.ring
        if ring is None:
            return
        shown = self._model.pattern.piece(ring.piece.name)
        at = self._pin(shown, ring.pivot)
        target = carry.target if carry and not carry.is_here else None
        if target is not None:
            dx, dy = self._offsets().get(ring.piece.name, (0.0, 0.0))
            color = NOW.color("error" if carry and carry.fault else "citrus")
            paint.paint_slash(painter, at, self.to_px(target.point[0] + dx, target.point[1] + dy), color)
        size = self.ring_size()
        if ring.is_sewn:  # all of it went into a line: what is left is the account
            paint.paint_hub(painter, at - QPointF(size.inner, 0.0), size, self._model.account)
            return
        paint.paint_band(painter, at, size, ring, target)
        beads = beads_of(shown, ring.pivot)
        tight = paint.crowded(beads)
        for bead in beads:
            paint.paint_bead(painter, at, size, bead, self._bead_state(bead), is_crowded=bead.dart in tight)
        paint.paint_hub(painter, at, size, self._model.account)
        if carry is not None:
            self._hint(painter)

    def _bead_state(self, bead: Bead) -> str:
        carry = self.control.carry
        if carry is not None:
            known = {b.dart for b in carry.ring.beads}
            moving = bead.dart == carry.dart if carry.share >= 1.0 else bead.dart not in known
            return "carried" if moving or (carry.is_here and bead.dart == carry.dart) else "idle"
        return "chosen" if bead.dart == self._model.dart else "idle"

    def _hint(self, painter: QPainter) -> None:
        """What is in the hand, in words, at the head of the table."""
        carry = self.control.carry
        if carry is not None:
            paint.paint_hint(painter, (self.width() + RULER) / 2, RULER + 10, self.control.words(), is_fault=carry.is_faulty)

    # Hands.

    def bead_at(self, at: QPointF) -> str | None:
        """The dart whose bead lies under a place (px)."""
        ring = self.ring() if self._lay.fold == 0.0 else None  # folded paper has no ring
        if ring is None:
            return None
        away = at - self._pin(ring.piece, ring.pivot)
        distance, angle = math.hypot(away.x(), away.y()), math.atan2(away.y(), away.x())
        size = self.ring_size()
        if not size.inner - paint.GRIP <= distance <= size.outer + paint.GRIP:
            return None
        slack = 3.0 / size.outer
        for bead in ring.beads:
            if (angle - bead.start + slack) % math.tau <= bead.sweep + 2 * slack:
                return bead.dart
        return None

    def _pivot_at(self, at: QPointF) -> tuple[str, str] | None:
        for piece in self._model.pattern.pieces:
            for pivot in self.pivots(piece):
                away = at - self._pin(piece, pivot)
                if math.hypot(away.x(), away.y()) <= 11:
                    return piece.name, pivot
        return None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if event.button() == Qt.MouseButton.LeftButton:
            if self._lay.fold == 0.0 and self.handles.press(event.position(), self._offsets()):
                self.update()
                return
            dart = self.bead_at(event.position())
            if dart is not None:
                self.control.pick_up(dart)
                self._follow(event)
                return
            pivot = self._pivot_at(event.position())
            if pivot is not None:
                if pivot != self._model.pivot:
                    self._model.choose_pivot(pivot)
                return
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self.handles.held is not None:
            self._drag_handle(event.position())
        elif self.control.carry is not None and event.buttons() & Qt.MouseButton.LeftButton:
            self._follow(event)
        elif self._grab is not None:
            super().mouseMoveEvent(event)
        else:
            over = self.bead_at(event.position()) or self.handles.under(event.position(), self._offsets())
            shape = Qt.CursorShape.OpenHandCursor if over else Qt.CursorShape.ArrowCursor
            self.setCursor(shape)

    def _follow(self, event: QMouseEvent) -> None:
        carry = self.control.carry
        if carry is None:
            return
        self.control.leave_behind(bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier))
        away = event.position() - self._pin(carry.ring.piece, carry.ring.pivot)
        if math.hypot(away.x(), away.y()) > 12:
            self.control.point(math.atan2(away.y(), away.x()))
        self.update()

    def _drag_handle(self, at: QPointF) -> None:
        here = self.to_mm(at)
        self.handles.drag(here.x(), here.y())
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self.handles.held is not None:
            self.handles.drop()
            self.update()
        elif self.control.carry is not None:
            self.control.drop()
            self.update()
        else:
            super().mouseReleaseEvent(event)

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        """The uses of a bead: of the one under the mouse, or, by the menu key, of the chosen one."""
        ring = self.ring() if self._lay.fold == 0.0 else None
        if event is None or ring is None or self.control.carry is not None:
            return
        by_key = event.reason() == QContextMenuEvent.Reason.Keyboard
        dart = self._model.dart if by_key else self.bead_at(QPointF(event.pos()))
        bead = ring.bead(dart or "")
        if bead is None:
            return
        if dart != self._model.dart:
            self._model.choose_pivot(self._model.pivot, dart)
        size = self.ring_size()
        out = QPointF(math.cos(bead.middle), math.sin(bead.middle)) * size.outer
        at = (self._pin(ring.piece, ring.pivot) + out).toPoint() if by_key else event.pos()
        self._bead_menu().popup(self.mapToGlobal(at))

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None and self.control.carry is not None:
            turn = event.angleDelta().y() or event.angleDelta().x()
            self.control.change_share(1 if turn > 0 else -1)
            self.update()
        else:
            super().wheelEvent(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if self.handles.held is not None and event.key() == Qt.Key.Key_Escape:
            self.handles.let_go()
            handled = True
        else:
            handled = self._carry_key(event.key()) if self.control.carry else self._choose_key(event.key())
        if handled:
            self.update()
        else:
            super().keyPressEvent(event)

    def _carry_key(self, key: int) -> bool:
        control = self.control
        actions = {
            Qt.Key.Key_Left: lambda: control.step_target(-1), Qt.Key.Key_Right: lambda: control.step_target(1),
            Qt.Key.Key_Up: lambda: control.change_share(1), Qt.Key.Key_Down: lambda: control.change_share(-1),
            Qt.Key.Key_Return: control.drop, Qt.Key.Key_Enter: control.drop, Qt.Key.Key_Space: control.drop,
            Qt.Key.Key_Escape: control.let_go,
        }  # fmt: skip
        action = actions.get(Qt.Key(key))
        if action is not None:
            action()
        return action is not None

    def _choose_key(self, key: int) -> bool:
        ring = self.ring() if self._lay.fold == 0.0 else None
        if key == Qt.Key.Key_P:
            self._next_pivot()
            return True
        if ring is None or not ring.beads:
            return False
        darts = [bead.dart for bead in ring.beads]
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            by = 1 if key == Qt.Key.Key_Right else -1
            index = (darts.index(self._model.dart) + by) % len(darts) if self._model.dart in darts else 0
            self._model.choose_pivot(self._model.pivot, darts[index])
            return True
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.control.pick_up(self._model.dart if self._model.dart in darts else darts[0])
            return True
        return False

    def _next_pivot(self) -> None:
        known = [(piece.name, pivot) for piece in self._model.pattern.pieces for pivot in self.pivots(piece)]
        if known:
            index = (known.index(self._model.pivot) + 1) % len(known) if self._model.pivot in known else 0
            self._model.choose_pivot(known[index])

    def event(self, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.ToolTip:
            dart = self.bead_at(QPointF(event.pos()))  # type: ignore[attr-defined]
            if dart is not None and self._model.pivot is not None:
                piece = self._model.pattern.piece(self._model.pivot[0])
                mouth = self._model.length(piece.intake(dart))
                tip = f"{capital(dart_words(piece, dart))} dart, mouth {mouth}. Drag it round; Shift leaves half behind."
                tip += " Right-click for gathers, pleats, ease."
                QToolTip.showText(event.globalPos(), tip, self)  # type: ignore[attr-defined]
                return True
        return super().event(event)
