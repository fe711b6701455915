"""The hands on the ring, as the table has them: beads are caught, carried and dropped, pins clicked."""

from __future__ import annotations

import math
from collections.abc import Callable

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QContextMenuEvent, QKeyEvent, QMouseEvent, QPainter, QPen
from PyQt6.QtWidgets import QMenu

from zesty_pivot.core.moves.laid_open import on_paper
from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.piece.names import capital
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table import ring_paint as paint
from zesty_pivot.desk.table.canvas import RULER
from zesty_pivot.desk.table.hand import TableHand
from zesty_pivot.desk.table.hand_table import HandTable
from zesty_pivot.desk.table.lying import FLAT
from zesty_pivot.desk.table.ring_control import RingControl
from zesty_pivot.desk.table.ring_model import Bead, Ring, beads_of, turned
from zesty_pivot.desk.table.words import Words
from zesty_pivot.desk.theme import NOW

DEAD = 12.0  # px round the pivot where no direction is meant
PIN = 11.0  # px round a pin where it is clicked


class RingHand(TableHand):
    """Beads and pins."""

    def __init__(self, model: DeskModel, table: HandTable, control: RingControl, bead_menu: Callable[[], QMenu]) -> None:
        self._model, self._table, self._control, self._bead_menu = model, table, control, bead_menu
        self._is_near = False  # whether the pointer is on the ring

    # Where things are.

    def pin_of(self, piece: Piece, pivot: str) -> QPointF:
        """Where a pivot is, px."""
        lying = self._table.layout_now().get(piece.name, FLAT)
        return self._table.to_px(*lying.on_table(on_paper(piece, piece.landmarks[pivot])))

    def _turn(self, ring: Ring) -> float:
        """How far (radians, clockwise) the piece with the ring lies turned."""
        return self._table.layout_now().get(ring.piece.name, FLAT).quarters * math.pi / 2.0

    def bead_at(self, at: QPointF) -> str | None:
        """The dart whose bead lies under a place (px)."""
        ring = self._table.ring() if self._table.is_flat else None  # folded paper has no ring
        if ring is None:
            return None
        away = at - self.pin_of(ring.piece, ring.pivot)
        distance, angle = math.hypot(away.x(), away.y()), math.atan2(away.y(), away.x()) - self._turn(ring)
        size = self._table.ring_size()
        if not size.inner - paint.GRIP <= distance <= size.outer + paint.GRIP:
            return None
        slack = 3.0 / size.outer
        for bead in ring.beads:
            if (angle - bead.start + slack) % math.tau <= bead.sweep + 2 * slack:
                return bead.dart
        return None

    def _pivot_at(self, at: QPointF) -> tuple[str, str] | None:
        for piece in self._model.pattern.pieces:
            for pivot in pivots(piece):
                away = at - self.pin_of(piece, pivot)
                if math.hypot(away.x(), away.y()) <= PIN:
                    return piece.name, pivot
        return None

    def is_over(self, at: QPointF) -> bool:
        """Whether a place (px) is the ring's or a pin's, so that nothing else is meant there."""
        ring = self._table.ring() if self._table.is_flat else None
        if ring is not None and not ring.is_sewn:
            away = at - self.pin_of(ring.piece, ring.pivot)
            if math.hypot(away.x(), away.y()) <= self._table.ring_size().outer + paint.GRIP:
                return True
        return self._pivot_at(at) is not None

    # Hands.

    def leave(self) -> None:
        if self._is_near:
            self._is_near = False
            self._table.update()

    def _look(self, at: QPointF) -> None:
        """Whether the pointer is on the ring: then every station says its name."""
        is_near = self.is_over(at)
        if is_near != self._is_near:
            self._is_near = is_near
            self._table.update()

    def press(self, event: QMouseEvent) -> bool:
        dart = self.bead_at(event.position())
        if dart is not None:
            self._control.pick_up(dart)
            self._follow(event)
            return True
        pivot = self._pivot_at(event.position())
        if pivot is not None and pivot != self._model.pivot:
            self._model.choose_pivot(pivot)
        return pivot is not None

    def move(self, event: QMouseEvent) -> bool:
        self._look(event.position())
        if self._control.carry is None or not event.buttons() & Qt.MouseButton.LeftButton:
            return False
        self._follow(event)
        return True

    def _follow(self, event: QMouseEvent) -> None:
        carry = self._control.carry
        if carry is None:
            return
        self._control.leave_behind(bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier))
        self._control.snaps = not event.modifiers() & Qt.KeyboardModifier.ControlModifier
        away = event.position() - self.pin_of(carry.ring.piece, carry.ring.pivot)
        if math.hypot(away.x(), away.y()) > DEAD:
            self._control.point(math.atan2(away.y(), away.x()) - self._turn(carry.ring))
        self._table.update()

    def release(self, event: QMouseEvent) -> bool:
        if self._control.carry is None:
            return False
        self._control.drop()
        self._table.update()
        return True

    def turn_wheel(self, steps: int) -> bool:
        if self._control.carry is None:
            return False
        self._control.change_share(steps)
        self._table.update()
        return True

    def menu(self, event: QContextMenuEvent) -> bool:
        """The uses of a bead: of the one under the mouse, or, by the menu key, of the chosen one."""
        ring = self._table.ring() if self._table.is_flat else None
        if ring is None or self._control.carry is not None:
            return False
        by_key = event.reason() == QContextMenuEvent.Reason.Keyboard
        dart = self._model.dart if by_key else self.bead_at(QPointF(event.pos()))
        bead = ring.bead(dart or "")
        if bead is None:
            return False
        if dart != self._model.dart:
            self._model.choose_pivot(self._model.pivot, dart)
        angle = bead.middle + self._turn(ring)
        out = QPointF(math.cos(angle), math.sin(angle)) * self._table.ring_size().outer
        at = (self.pin_of(ring.piece, ring.pivot) + out).toPoint() if by_key else event.pos()
        self._bead_menu().popup(self._table.mapToGlobal(at))
        return True

    def cursor(self, at: QPointF) -> Qt.CursorShape | None:
        return Qt.CursorShape.OpenHandCursor if self.bead_at(at) is not None else None

    def tip(self, at: QPointF) -> str:
        dart = self.bead_at(at)
        if dart is None or self._model.pivot is None or not self._model.pattern.has(self._model.pivot[0]):
            return ""
        piece = self._model.pattern.piece(self._model.pivot[0])
        mouth = self._model.length(piece.intake(dart))
        tip = f"{capital(dart_words(piece, dart))} dart, mouth {mouth}. Drag it round; Shift leaves half behind, Ctrl keeps it "
        return f"{tip}from snapping. Right-click for gathers, pleats, ease."

    def key(self, event: QKeyEvent) -> bool:
        done = self._carry_key(event.key()) if self._control.carry else self._choose_key(event.key())
        if done:
            self._table.update()
        return done

    def _carry_key(self, key: int) -> bool:
        control = self._control
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
        ring = self._table.ring() if self._table.is_flat else None
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
            self._control.pick_up(self._model.dart if self._model.dart in darts else darts[0])
            return True
        return False

    def _next_pivot(self) -> None:
        known = [(piece.name, pivot) for piece in self._model.pattern.pieces for pivot in pivots(piece)]
        if known:
            index = (known.index(self._model.pivot) + 1) % len(known) if self._model.pivot in known else 0
            self._model.choose_pivot(known[index])

    # Drawing.

    def paint(self, painter: QPainter, words: Words) -> None:
        for piece in self._model.pattern.pieces:
            self._pins(painter, piece)
        self._ring(painter, words)

    def _pins(self, painter: QPainter, piece: Piece) -> None:
        """The pivots that have darts but not the ring: a pin to click on."""
        for pivot in pivots(piece):
            if (piece.name, pivot) != self._model.pivot:
                at = self.pin_of(piece, pivot)
                painter.setPen(QPen(NOW.color("cool"), 1.6))
                painter.setBrush(NOW.color("paper"))
                painter.drawEllipse(at, 6, 6)
                painter.setBrush(NOW.color("cool"))
                painter.drawEllipse(at, 2, 2)

    def _ring(self, painter: QPainter, words: Words) -> None:
        carry = self._control.carry
        ring = self._table.ring() if carry is None else carry.ring
        if ring is None:
            return
        shown = self._model.pattern.piece(ring.piece.name)
        at, size, turn = self.pin_of(shown, ring.pivot), self._table.ring_size(), self._turn(ring)
        target = carry.target if carry and not carry.is_here else None
        if target is not None:
            lying = self._table.layout_now().get(ring.piece.name, FLAT)
            color = NOW.color("error" if carry and carry.fault else "citrus")
            paint.paint_slash(painter, at, self._table.to_px(*lying.on_table(target.point)), color)
        if ring.is_sewn:  # all of it went into a line: what is left is the account
            paint.paint_hub(painter, words, at - QPointF(size.inner, 0.0), size, self._model.tally)
            return
        lies = turned(ring, turn)
        paint.paint_band(painter, words, at, size, lies, target)
        every = carry is not None or self._is_near
        paint.write_stations(words, at, size, lies, target, every=every)
        beads = tuple(bead.turned(turn) for bead in beads_of(shown, ring.pivot))
        tight = paint.crowded(beads)
        for bead in beads:
            paint.paint_bead(painter, words, at, size, bead, self._bead_state(bead), is_crowded=bead.dart in tight)
        paint.paint_hub(painter, words, at, size, self._model.tally)
        if carry is not None:  # what is in the hand, in words, at the head of the table
            middle = (self._table.width() + RULER) / 2
            paint.write_hint(words, middle, RULER + 10, self._control.words(), is_fault=carry.is_faulty)

    def _bead_state(self, bead: Bead) -> str:
        carry = self._control.carry
        if carry is not None:
            known = {b.dart for b in carry.ring.beads}
            moving = bead.dart == carry.dart if carry.share >= 1.0 else bead.dart not in known
            return "carried" if moving or (carry.is_here and bead.dart == carry.dart) else "idle"
        return "chosen" if bead.dart == self._model.dart else "idle"


def pivots(piece: Piece) -> tuple[str, ...]:
    """The pivots of a piece that have darts."""
    return tuple(dict.fromkeys(dart.pivot for dart in piece.darts))
