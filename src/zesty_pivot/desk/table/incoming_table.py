"""The table of the import view: the block as it is read, on what came in as tracing paper; corners, darts and pivots to
point at."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPen,
    QPolygonF,
)  # fmt: skip

from zesty_pivot.core.geometry import Path
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.incoming import Incoming
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.table.incoming_marks import IncomingMarks
from zesty_pivot.desk.table.incoming_things import IncomingThing, LaidPiece, laid_pieces, nearest_on_outline, things_of
from zesty_pivot.desk.table.loupe import paint_loupe
from zesty_pivot.desk.table.shapes import qt_path
from zesty_pivot.desk.table.under_picture import UnderPicture
from zesty_pivot.desk.theme import NOW, text_font

EDGE, TOP = 115.0, 80.0  # mm of table beside and above the pieces, for the names of corners
NEAR = 12.0  # px from something that the pointer means it
ON_OUTLINE = 5.0  # px from an outline that it is dragged
STEP = 1.0  # mm that an arrow key moves a bust point
SHIFTED = 0.5  # of that a corner moves with Shift held
LIT_BY = {"centre": "fold", "waist": "length"}  # by role: the proposal that lights this edge


class IncomingTable(Canvas):
    """Shows the import. What is pointed at is named; a click or Enter asks what it is; a bust point is dragged."""

    asked = pyqtSignal(object, object, QPointF)  # a thing or None, a piece, the place on the table (mm): what may be said of it

    def __init__(self, model: DeskModel, incoming: Incoming) -> None:
        super().__init__(model)
        self._incoming = incoming
        self.laid: list[LaidPiece] = []
        self.things: list[IncomingThing] = []
        self._pointed: IncomingThing | None = None
        self._moving: IncomingThing | None = None
        self._pulling: tuple[LaidPiece, QPointF] | None = None  # a piece and the place of its outline (mm) that is dragged
        self._moved: QPointF | None = None
        self._pressed = QPointF()
        self.shows_paper = True
        self._under = UnderPicture(incoming)
        self.setAccessibleName("Import")
        incoming.changed.connect(self.refresh)
        incoming.chosen_changed.connect(self.update)

    @contained("the import")
    def refresh(self) -> None:
        """Lays the pieces out again."""
        was = self.content_box()
        self.laid = laid_pieces(self._incoming)
        self.things = [thing for laid in self.laid for thing in things_of(laid)]
        self._under.forget()
        self._pointed = self._moving = self._pulling = None
        self._fit_again(was)

    def content_box(self) -> QRectF:
        box = QRectF()
        for laid in self.laid:
            box = box.united(laid.box)
        return box.adjusted(-EDGE, -TOP, EDGE, TOP / 2.0) if self.laid else QRectF(0, 0, 600, 500)

    @property
    def chosen(self) -> IncomingThing | None:
        """The thing that is chosen, where it is one that lies on the table."""
        return next((thing for thing in self.things if (thing.number, thing.what) == self._incoming.chosen), None)

    # Drawing.

    def paint_content(self, painter: QPainter) -> None:
        px = 1.0 / self.scale
        for laid in self.laid:
            if self.shows_paper:
                self._under.paint(painter, laid)
            self._piece(painter, laid, px)
        if self.shows_paper:
            self._paper(painter, px)

    def _piece(self, painter: QPainter, laid: LaidPiece, px: float) -> None:
        outline = qt_path([laid.traced.outline.moved(laid.motion)])
        painter.setPen(QPen(NOW.color("faint"), 1.0 * px))
        on_picture = self.shows_paper and self._under.is_picture
        painter.setBrush(NOW.color("paper", 60 if on_picture else 255 if laid.tagged is not None else 110))
        painter.drawPath(outline)
        band = laid.traced.error
        if band > 0.0:
            painter.setPen(QPen(NOW.color("citrus_fill", 90), 2.0 * band, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPath(outline)
        tagged = laid.tagged
        if tagged is None:
            return
        painter.setBrush(Qt.BrushStyle.NoBrush)
        lay = laid.shift
        for level in ("chest", "bust", "waist"):
            if level in tagged.levels and (level != "waist" or tagged.is_hip):
                y = float(lay(np.array([0.0, tagged.levels[level]]))[1])
                painter.setPen(QPen(NOW.color("faint"), 0.8 * px, Qt.PenStyle.DashLine))
                painter.drawLine(QPointF(laid.box.left(), y), QPointF(laid.box.right(), y))
        for role, span in tagged.seen.edges.items():
            is_fold = role == "centre" and tagged.is_on_fold
            is_lit = self._incoming.chosen is not None and self._incoming.chosen == (laid.number, LIT_BY.get(role, ""))
            style = Qt.PenStyle.DashDotLine if is_fold else Qt.PenStyle.SolidLine
            painter.setPen(QPen(NOW.color("cool" if is_lit else "ink"), (4.0 if is_lit else 2.0) * px, style))
            painter.drawPath(qt_path(run.moved(lay) for run in span.runs))
        painter.setPen(QPen(NOW.color("ink"), 1.2 * px))
        for dart in tagged.darts:
            painter.drawPath(qt_path(leg.moved(lay) for leg in dart.cut.legs))
            self._to_pivot(painter, laid, dart.cut.point, np.array(tagged.inside[dart.pivot]), px)
        for eye in tagged.eyes:
            painter.setPen(QPen(NOW.color("ink"), 1.2 * px))
            painter.drawPolygon(QPolygonF([QPointF(*map(float, lay(corner))) for corner in eye.corners]))
        start, stop = (lay(np.array(at)) for at in tagged.grain)
        painter.setPen(QPen(NOW.color("quiet"), 1.1 * px))
        painter.drawPath(qt_path([Path.straight(start, stop)]))

    def _to_pivot(self, painter: QPainter, laid: LaidPiece, point: np.ndarray, pin: np.ndarray, px: float) -> None:
        if float(np.hypot(*(point - pin))) > 0.5:
            a, b = laid.shift(point), laid.shift(pin)
            painter.setPen(QPen(NOW.color("citrus"), 1.2 * px, Qt.PenStyle.DashLine))
            painter.drawLine(QPointF(*map(float, a)), QPointF(*map(float, b)))
            painter.setPen(QPen(NOW.color("ink"), 1.2 * px))

    def _paper(self, painter: QPainter, px: float) -> None:
        """What came in, under and over the block: as tracing paper."""
        came = self._incoming.came
        if came is None:
            return
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(NOW.color("cool", 150), 1.0 * px, Qt.PenStyle.DashLine))
        for laid in self.laid:
            painter.drawPath(self._under.lines_near(laid))

    def paint_over(self, painter: QPainter) -> None:
        marks = IncomingMarks(painter, self, self._incoming, self.laid, on_picture=self.shows_paper and self._under.is_picture)
        if not self.laid:
            self._say(painter, self._incoming.outcome.fault or "Drop a file here, or choose one.")
            return
        for laid in self.laid:
            marks.title(laid)
            if laid.tagged is not None:
                marks.roles(laid)
        for thing in self.things:
            marks.thing(thing, self._seen_at(thing), is_pointed=thing is self._pointed)
        for number, far in self._incoming.far.items() if self.shows_paper else ():
            marks.farthest(number, far.mm, far.at)
        if self._moved is not None and (self._moving is not None or self._pulling is not None):
            at = self.to_px(self._moved.x(), self._moved.y())
            if self._pulling is not None:
                painter.setPen(QPen(NOW.color("citrus"), 1.6, Qt.PenStyle.DashLine))
                painter.drawLine(self.to_px(self._pulling[1].x(), self._pulling[1].y()), at)
            paint_loupe(painter, self, at)

    def _say(self, painter: QPainter, text: str) -> None:
        painter.setFont(text_font(11))
        painter.setPen(NOW.color("error" if self._incoming.outcome.fault else "quiet"))
        room = QRectF(self.rect()).adjusted(RULER + 60, RULER + 60, -60, -60)
        painter.drawText(room, Qt.TextFlag.TextWordWrap, text)

    def _seen_at(self, thing: IncomingThing) -> QPointF:
        """Where a thing is drawn, px: under the hand while it is moved."""
        x, y = (self._moved.x(), self._moved.y()) if thing is self._moving and self._moved is not None else thing.at
        return self.to_px(x, y)

    # Pointing.

    def thing_at(self, at: QPointF) -> IncomingThing | None:
        """The thing that lies nearest to a place in px, within reach; pivots before what lies under them."""
        near = [
            (abs(gap.x()) + abs(gap.y()), thing)
            for thing in self.things
            if abs((gap := self.to_px(*thing.at) - at).x()) <= NEAR and abs(gap.y()) <= NEAR
        ]
        return min(near, key=lambda one: one[0] - (3.0 if one[1].what.endswith("point") else 0.0))[1] if near else None

    def piece_at(self, at: QPointF) -> LaidPiece | None:
        """The piece under a place in px, or whose outline runs by."""
        place = self.to_mm(at)
        here = np.array([place.x(), place.y()])
        inside = next((laid for laid in self.laid if laid.box.contains(place)), None)
        if inside is not None:
            return inside
        near = [(nearest_on_outline(laid, here)[0], laid) for laid in self.laid]
        best = min(near, key=lambda one: one[0], default=None)
        return best[1] if best is not None and best[0] * self.scale <= NEAR else None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            super().mousePressEvent(event)
            return
        self._pressed = event.position()
        thing = self.thing_at(event.position())
        if thing is not None:
            self._incoming.choose((thing.number, thing.what))
            if thing.what == "bust_point":
                self._moving = thing
            elif thing.what.startswith("corner") and self._is_loose(laid := self._laid_of(thing)):
                self._pulling = laid, QPointF(*thing.at)
            return
        self._pulling = self._outline_at(event.position())
        if self._pulling is not None:
            return
        super().mousePressEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._moving is not None or self._pulling is not None:
            self._moved = self.to_mm(event.position())
            self.update()
            return
        if self._grab is not None:
            super().mouseMoveEvent(event)
            return
        thing = self.thing_at(event.position())
        if thing is not self._pointed:
            self._pointed = thing
            self.setCursor(Qt.CursorShape.PointingHandCursor if thing is not None else Qt.CursorShape.ArrowCursor)
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        moving, pulling, moved = self._moving, self._pulling, self._moved
        self._moving = self._pulling = self._moved = None
        self.update()
        super().mouseReleaseEvent(event)
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        is_click = (event.position() - self._pressed).manhattanLength() < 5
        if moving is not None and moved is not None and not is_click:
            self._put_bust_point(moving.number, moved.x(), moved.y())
            return
        if pulling is not None and moved is not None and not is_click:
            self._pull(pulling[0], pulling[1], moved)
            return
        if is_click:
            thing, piece = self.thing_at(event.position()), self.piece_at(event.position())
            if thing is not None or piece is not None:
                self.asked.emit(thing, piece, self.to_mm(event.position()))

    def _laid_of(self, thing: IncomingThing) -> LaidPiece:
        return next(one for one in self.laid if one.number == thing.number)

    @staticmethod
    def _is_loose(laid: LaidPiece) -> bool:
        """Whether a piece is known within a band only: what is exact is not dragged."""
        return laid.traced.error > 0.0

    def _outline_at(self, at: QPointF) -> tuple[LaidPiece, QPointF] | None:
        """The piece whose outline runs by a place in px, and the place of it, mm; of one that is known within a band only."""
        place = self.to_mm(at)
        here = np.array([place.x(), place.y()])
        for laid in self.laid:
            off, on = nearest_on_outline(laid, here)
            if self._is_loose(laid) and off * self.scale <= ON_OUTLINE:
                return laid, QPointF(*on)
        return None

    def _pull(self, laid: LaidPiece, at: QPointF, to: QPointF) -> None:
        self._incoming.pull(laid.number, laid.on_paper(at.x(), at.y()), laid.on_paper(to.x(), to.y()))

    def _put_bust_point(self, number: int, x: float, y: float) -> None:
        laid = next(one for one in self.laid if one.number == number)
        self._incoming.say(number, "the bust point", bust_point=laid.on_paper(x, y))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        key, chosen = Qt.Key(event.key()), self.chosen
        deeds: dict[Qt.Key, Callable[[], None]] = {
            Qt.Key.Key_PageDown: lambda: self._next(1), Qt.Key.Key_PageUp: lambda: self._next(-1),
        }  # fmt: skip
        moves = {
            Qt.Key.Key_Left: (-STEP, 0.0),
            Qt.Key.Key_Right: (STEP, 0.0),
            Qt.Key.Key_Up: (0.0, -STEP),
            Qt.Key.Key_Down: (0.0, STEP),
        }
        if key in deeds:
            deeds[key]()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and chosen is not None:
            self.asked.emit(chosen, self._laid_of(chosen), QPointF(*chosen.at))
        elif key in moves and chosen is not None and chosen.what == "bust_point":
            self._put_bust_point(chosen.number, chosen.at[0] + moves[key][0], chosen.at[1] + moves[key][1])
        elif key in moves and chosen is not None and self._is_dragged_by_keys(chosen, event):
            at = QPointF(*chosen.at)
            self._pull(self._laid_of(chosen), at, at + QPointF(moves[key][0], moves[key][1]) * SHIFTED)
        else:
            super().keyPressEvent(event)

    def _is_dragged_by_keys(self, thing: IncomingThing, event: QKeyEvent) -> bool:
        is_shifted = bool(event.modifiers() & Qt.KeyboardModifier.ShiftModifier)
        return is_shifted and thing.what.startswith("corner") and self._is_loose(self._laid_of(thing))

    def _next(self, by: int) -> None:
        """The next thing, or the one before."""
        if not self.things:
            return
        at = next((k for k, thing in enumerate(self.things) if thing is self.chosen), -1 if by > 0 else 0)
        thing = self.things[(at + by) % len(self.things)]
        self._incoming.choose((thing.number, thing.what))
