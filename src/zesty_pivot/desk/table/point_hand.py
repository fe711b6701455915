"""The hand that points: what lies under the pointer is lit and named, a click shows its figures and what begins there. By keys:
Tab walks along edges and darts, left and right go along an edge, Enter opens."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QContextMenuEvent, QKeyEvent, QMouseEvent, QPainter, QPainterPath, QPen, QPolygonF

from zesty_pivot.core.piece import Piece
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import RULER
from zesty_pivot.desk.table.hand import TableHand
from zesty_pivot.desk.table.hand_table import HandTable
from zesty_pivot.desk.table.lying import FLAT
from zesty_pivot.desk.table.outline import outline_of
from zesty_pivot.desk.table.shapes import add_path
from zesty_pivot.desk.table.thing_words import is_there, piece_of, title_of_thing
from zesty_pivot.desk.table.things import Thing, edge_of, in_order, moved_along, thing_at, thing_of
from zesty_pivot.desk.table.words import HELD, Words, slip, wide
from zesty_pivot.desk.theme import NOW, text_font

if TYPE_CHECKING:
    from zesty_pivot.desk.table.thing_card import ThingCard

REACH = 7.0  # px round an edge where it is meant
CLICK = 4.0  # px that a hand may slip in a click
ALONG = {"mm": 5.0, "cm": 5.0, "in": 25.4 / 4.0}  # mm that a key goes along an edge


class PointHand(TableHand):
    """Knows what is pointed at: by the pointer (`over`), or by keys (`chosen`)."""

    def __init__(self, model: DeskModel, lay: Lay, table: HandTable) -> None:
        self._model, self._lay, self._table = model, lay, table
        self.over: Thing | None = None
        self.chosen: Thing | None = None
        self.shown: Thing | None = None  # what a finding is about
        self._at = QPointF()  # where the pointer is, px
        self._pressed: QPointF | None = None
        self._was_open = False  # whether a card was open when the button went down
        self._card: ThingCard | None = None
        self.begun: Callable[[], None] = lambda: None  # what is done once a step has begun: the hand goes into its fields
        self.measure: Callable[[Thing], None] = lambda _thing: None  # a tape from there

    @property
    def card(self) -> ThingCard:
        """The card, made when it is first opened."""
        if self._card is None:
            from zesty_pivot.desk.table.thing_card import ThingCard

            self._card = ThingCard(self._model, self._table)
            self._card.begun.connect(lambda: self.begun())
            self._card.measured.connect(lambda thing: self.measure(thing))
        return self._card

    @property
    def is_open(self) -> bool:
        """Whether a card is open."""
        return self._card is not None and self._card.isVisible()

    @property
    def piece(self) -> str:
        """The piece of what is pointed at."""
        thing = self.chosen or self.over
        return thing.piece if thing is not None else ""

    def follow(self) -> None:
        """What is gone from the table is pointed at no more; a card is about the pattern that it was opened on."""
        if self.over is not None and not is_there(self._model, self.over):
            self.over = None
        if self.chosen is not None and not is_there(self._model, self.chosen):
            self.chosen = None
        self.shown = None
        if self._card is not None:
            self._card.follow()

    # Hands.

    @contained("what lies under the pointer")
    def _look(self, at: QPointF) -> None:
        self._at = at
        place = self._table.to_mm(at)
        found = None
        if self._table.is_flat and not self._table.is_ring_at(at) and not self.is_open:
            within = REACH / self._table.scale
            found = thing_at(self._model.pattern, self._table.layout_now(), (place.x(), place.y()), within)
        if found != self.over:
            self.over = found
            self._table.update()

    def move(self, event: QMouseEvent) -> bool:
        if not event.buttons():
            self._look(event.position())
        return False

    def press(self, event: QMouseEvent) -> bool:
        self._was_open = self.is_open
        self.close()
        self._look(event.position())
        self._pressed = event.position()
        return False  # the table may be pushed about from here

    def release(self, event: QMouseEvent) -> bool:
        pressed, self._pressed = self._pressed, None
        if pressed is None or not self._table.is_flat:
            return False
        slip = event.position() - pressed
        if abs(slip.x()) > CLICK or abs(slip.y()) > CLICK:
            return False
        self._look(event.position())
        self.chosen = None
        # A click beside an open card shuts it; only another edge or dart opens another.
        if self.over is not None and not (self._was_open and self.over.kind == "piece"):
            self.open(self.over, event.position())
        return False

    def menu(self, event: QContextMenuEvent) -> bool:
        at = QPointF(event.pos())
        if event.reason() == QContextMenuEvent.Reason.Keyboard:
            return self._open_chosen()
        self._look(at)
        if self.over is None:
            return False
        self.open(self.over, at)
        return True

    def key(self, event: QKeyEvent) -> bool:
        if event.key() == Qt.Key.Key_Escape and (self.is_open or self.chosen is not None):
            self.close()
            self.chosen = None
            self._table.update()
            return True
        return False

    def walk(self, event: QKeyEvent) -> bool:
        """Tab and what goes with it, before anybody else asks for keys. False at the ends of the walk, where the keyboard goes
        on to the next part of the window."""
        if not self._table.is_flat or self._table.is_held:
            return False
        key = Qt.Key(event.key())
        if key in (Qt.Key.Key_Tab, Qt.Key.Key_Backtab):
            return self._step(1 if key == Qt.Key.Key_Tab else -1)
        if self.chosen is None:
            return False
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            return event.modifiers() == Qt.KeyboardModifier.NoModifier and self._open_chosen()
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right) and self.chosen.kind == "edge":
            by = ALONG[self._model.style.units] * (1 if key == Qt.Key.Key_Right else -1)
            self.chosen = moved_along(self._model.pattern, self.chosen, by)
            self._table.update()
            return True
        return False

    def _step(self, by: int) -> bool:
        things = in_order(self._model.pattern)
        keys = [thing.key for thing in things]
        at = keys.index(self.chosen.key) + by if self.chosen is not None and self.chosen.key in keys else (0 if by > 0 else -1)
        if self.chosen is not None and not 0 <= at < len(things):
            self.chosen = None
            self._table.update()
            return False
        self.over, self.chosen = None, things[at] if things else None
        self._table.update()
        return self.chosen is not None

    def _open_chosen(self) -> bool:
        if self.chosen is None:
            return False
        self.open(self.chosen, self.place_of(self.chosen), by_key=True)
        return True

    def open(self, thing: Thing, at: QPointF, *, by_key: bool = False) -> None:
        """Shows the card of a thing beside a place (px)."""
        self.chosen = thing
        self.card.show_thing(thing, at, REACH / self._table.scale, by_key=by_key)
        self._table.update()

    def close(self) -> None:
        """Takes the card away."""
        if self.is_open:
            self.card.hide()
            self.chosen = None
            self._table.update()

    def cursor(self, at: QPointF) -> Qt.CursorShape | None:
        over = self.over is not None and self.over.kind != "piece"
        return Qt.CursorShape.PointingHandCursor if over else None

    def show_place(self, piece: str, place: str) -> None:
        """Lights what a finding is about; nothing when it is about no piece."""
        self.shown = thing_of(self._model.pattern, piece, place) if piece else None
        self._table.update()

    def leave(self) -> None:
        if self.over is not None:
            self.over = None
            self._table.update()

    # Drawing.

    def place_of(self, thing: Thing) -> QPointF:
        """Where a thing's place is, px."""
        return self._table.to_px(*self._table.layout_now().get(thing.piece, FLAT).on_table(thing.at))

    def paint(self, painter: QPainter, words: Words) -> None:
        thing = self.chosen or self.over or self.shown
        if thing is None or not self._table.is_flat or self._model.is_previewing:
            return
        piece = piece_of(self._model, thing)
        painter.save()
        painter.translate(self._table.origin)
        painter.scale(self._table.scale, self._table.scale)
        self._table.layout_now().get(piece.name, FLAT).place(painter)
        self._light(painter, piece, thing)
        painter.restore()
        if thing.kind in ("edge", "notch") and thing is self.chosen:
            at = self.place_of(thing)
            painter.setPen(QPen(NOW.color("cool"), 2.0))
            painter.setBrush(NOW.color("paper"))
            painter.drawEllipse(at, 4.5, 4.5)
        if not self.is_open and thing is not self.shown:
            self._tag(words, thing, self.place_of(thing) if thing is self.chosen else self._at)

    def _light(self, painter: QPainter, piece: Piece, thing: Thing) -> None:
        px = 1.0 / self._table.scale
        outline = outline_of(piece)
        pen = QPen(NOW.color("cool", 150), 5.0 * px, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap)
        if thing.kind == "dart":
            corners = next(corners for id, corners in outline.darts if id == thing.id)
            painter.setPen(QPen(NOW.color("cool"), 2.0 * px))
            painter.setBrush(NOW.color("cool_pale", 200))
            painter.drawPolygon(QPolygonF([QPointF(*corner) for corner in corners]))
            return
        painter.setBrush(Qt.BrushStyle.NoBrush)
        drawn = QPainterPath()
        if thing.kind == "piece":
            pen = QPen(NOW.color("cool", 110), 2.5 * px)
            for run in outline.paper.runs:
                add_path(drawn, run.path)
        else:
            for run in outline.paper.edge(edge_of(thing)).runs:
                add_path(drawn, run.path)
        painter.setPen(pen)
        painter.drawPath(drawn)

    def _tag(self, words: Words, thing: Thing, at: QPointF) -> None:
        """What it is called, on a slip beside the pointer that keeps on the table."""
        text = title_of_thing(self._model, thing)
        if thing.kind in ("edge", "notch"):
            text += f"  {self._model.length(piece_of(self._model, thing).edge(edge_of(thing)).sewn_length)}"
        font = text_font(9.0)
        half = wide(text, font) / 2.0 + 8.0
        x = min(max(at.x() + 14.0 + half, RULER + half), self._table.width() - half - 4.0)
        y = at.y() + 27.0 if at.y() + 44.0 < self._table.height() else at.y() - 27.0
        words.add(HELD, text, [slip(text, font, QPointF(x, y), "cool", high=22.0)], has_to=True)
