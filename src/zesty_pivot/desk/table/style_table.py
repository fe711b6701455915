"""The table of the style view: front and back on cutting paper, with the ring, and the hands that act there."""

from __future__ import annotations

from collections.abc import Callable, Hashable

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter
from PyQt6.QtWidgets import QMenu

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.pattern import numbered
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table import laid
from zesty_pivot.desk.table import ring_paint as paint
from zesty_pivot.desk.table.canvas import RULER
from zesty_pivot.desk.table.comb import paint_comb
from zesty_pivot.desk.table.hand_table import HandTable
from zesty_pivot.desk.table.handle_hand import HandleHand
from zesty_pivot.desk.table.handles import Handles
from zesty_pivot.desk.table.laying_hand import LayingHand
from zesty_pivot.desk.table.lying import FLAT, Lying, layout_of
from zesty_pivot.desk.table.piece_paint import paint_piece
from zesty_pivot.desk.table.point_hand import PointHand
from zesty_pivot.desk.table.ring_control import RingControl
from zesty_pivot.desk.table.ring_hand import RingHand
from zesty_pivot.desk.table.ring_model import Ring, ring_of
from zesty_pivot.desk.table.shapes import shapes_of
from zesty_pivot.desk.table.tape_hand import TapeHand, TapeTool
from zesty_pivot.desk.table.things import Thing
from zesty_pivot.desk.table.words import NAME, Words, plain
from zesty_pivot.desk.theme import display_font

NAME_HIGH = 24.0  # px of a line of a piece's name


class StyleTable(HandTable):
    """Shows the pattern of the model's state; its hands let beads be dragged, handles be moved, things be pointed at."""

    def __init__(self, model: DeskModel, lay: Lay, bead_menu: Callable[[], QMenu]) -> None:
        super().__init__(model)
        self._lay, self._was_laid = lay, (False, lay.spread)
        self._ring_cache: tuple[tuple[object, ...], Ring] | None = None
        self._layout: tuple[tuple[object, ...], dict[str, Lying]] | None = None
        self._opened, self._variants = model.opened, len(model.style.variants)
        self.words = Words()
        self.control = RingControl(model, self.ring)
        self.handles = Handles(model, self)
        self.ring_hand = RingHand(model, self, self.control, bead_menu)
        self.pointing = PointHand(model, lay, self)
        self.laying = LayingHand(model, self)
        self.tape = TapeHand(model, self, TapeTool(model))
        self.pointing.measure = self._measure_from
        self.hands = [
            self.tape, HandleHand(self.handles, self), self.ring_hand, self.laying, self.pointing,
        ]  # fmt: skip
        self.setAccessibleName("Cutting table")
        self.setAccessibleDescription(
            "Left and right choose a dart, Enter picks it up, left and right carry it, up and down change the share; "
            "the menu key offers other uses of the chosen dart. Tab walks along edges and darts, Enter opens what begins there."
        )
        model.changed.connect(self._refresh)
        model.chosen_changed.connect(self._refresh)
        lay.changed.connect(self._lay_changed)

    def _lay_changed(self) -> None:
        if not self.is_flat:
            self.control.let_go()
        now = (self._lay.fold > 0.0, self._lay.spread)
        if now != self._was_laid:
            self._was_laid = now
            self._keep_in_sight()
        self.update()

    # What lies on it.

    def content_box(self) -> QRectF:
        box = self._pieces_box()
        # Room for the names of pieces below, of stations to the left, and above for what is in the hand, in words.
        return box.adjusted(-0.065 * box.width(), -0.055 * box.height(), 0, 0.05 * box.height())

    def _pieces_box(self) -> QRectF:
        box, layout = QRectF(), self.layout_now()
        for piece in self._model.pattern.with_extras:
            lying = layout.get(piece.name, FLAT)
            box = box.united(lying.box(shapes_of(piece).box))
            if not self.is_flat:  # room for the darts wholly shut, so that nothing jumps while they close
                box = box.united(lying.box(shapes_of(laid.shown_piece(piece, 1.0, self._sewing)).box))
        return box

    @property
    def is_flat(self) -> bool:
        """Whether the darts lie open: folded paper has no ring, and nothing begins on it."""
        return self._lay.fold == 0.0

    @property
    def is_held(self) -> bool:
        """Whether a bead or a handle is in the hand."""
        return self.control.carry is not None or self.handles.held is not None

    def is_ring_at(self, at: QPointF) -> bool:
        """Whether a place (px) is the ring's or a pin's, so that nothing else is meant there."""
        return self.ring_hand.is_over(at)

    @property
    def _sewing(self) -> Sewing:
        return self._model.derived.derivation.sewing

    def layout_now(self) -> dict[str, Lying]:
        """Where each piece lies, by its name."""
        pattern, own = self._model.pattern, self.laying.shown
        key = (id(pattern), id(self._model.derived.derivation.block), self._lay.spread, own)
        if self._layout is None or self._layout[0] != (*key, pattern):
            found = layout_of(self._model.derived.derivation.block, pattern, self._lay.spread, own)
            self._layout = ((*key, pattern), found)
        return self._layout[1]

    @contained("the table")
    def _refresh(self) -> None:
        self.pointing.follow()
        self._keep_in_sight()
        self.update()

    def _keep_in_sight(self) -> None:
        """The paper keeps still, unless something is out of sight that was in sight before; another document is seen whole."""
        opened = self._model.opened, len(self._model.style.variants)
        is_new = opened != (self._opened, self._variants)
        self._opened, self._variants = opened
        if self._fitted and not self.is_held and (is_new or not self.shows(self._pieces_box())):
            self.fit()

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
        return self.ring_hand.pin_of(ring.piece, ring.pivot) if ring is not None else None

    def ring_size(self) -> paint.Size:
        """How large the ring is on a table of this size."""
        return paint.Size.on(QRectF(self.rect()).adjusted(RULER, RULER, 0, 0))

    def bead_at(self, at: QPointF) -> str | None:
        """The dart whose bead lies under a place (px)."""
        return self.ring_hand.bead_at(at)

    def chosen_piece(self) -> str:
        """The piece that is pointed at, else the one with the ring; nothing when there is none."""
        name = self.pointing.piece or (self._model.pivot[0] if self._model.pivot is not None else "")
        pattern = self._model.pattern
        known = [piece.name for piece in pattern.with_extras]
        return name if name in known else next((piece.name for piece in pattern.come_from(name)), "")

    def show_piece(self) -> None:
        """The chosen piece as large as there is room."""
        name = self.chosen_piece()
        pattern = self._model.pattern
        pieces = [piece for piece in pattern.with_extras if piece.name == name]
        box = QRectF()
        for piece in pieces or pattern.pieces:
            box = box.united(self._box_of(piece))
        self.fit_to(box.adjusted(-0.05 * box.width(), 0.0, 0.05 * box.width(), 0.08 * box.height()))
        self._fitted = False

    def _measure_from(self, thing: Thing) -> None:
        end = self.tape.end_of(thing)
        if end is not None:
            self.tape.tool.take(end)

    def take_tape(self) -> None:
        """The tape in the hand, from what is pointed at by keys; or put away."""
        tool = self.tape.tool
        if tool.is_on:
            tool.put_away()
            return
        chosen = self.pointing.chosen
        self.pointing.close()
        tool.take(self.tape.end_of(chosen) if chosen is not None else None)
        self.setFocus()

    # Drawing.

    def still_key(self) -> Hashable | None:
        pieces = self._still()
        traced, layout = self._lay.traced_pattern, self.layout_now()
        lying = tuple((id(piece), layout.get(piece.name, FLAT)) for piece in pieces)
        under = id(traced[0]) if traced is not None else None
        return (lying, under, self._lay.is_over, self._lay.fold, self._lay.comb, self._sewing)

    def _still(self) -> tuple[Piece, ...]:
        """The pieces that keep still: all of them, while something is dragged those that it leaves as they are."""
        pieces = self._model.pattern.with_extras
        if not self._model.is_previewing or self._lay.traced is not None or self._lay.comb:
            return pieces
        settled = {id(piece) for piece in self._settled()}
        return tuple(piece for piece in pieces if id(piece) in settled)

    def _settled(self) -> tuple[Piece, ...]:
        """The pieces as they were before something was dragged."""
        return self._model.settled.derivation.states[-1].pattern.with_extras

    def paint_content(self, painter: QPainter) -> None:
        self._paint_pieces(painter, self._model.pattern.with_extras)

    def paint_still(self, painter: QPainter) -> None:
        self._paint_pieces(painter, self._still())

    def paint_moving(self, painter: QPainter) -> None:
        still = {id(piece) for piece in self._still()}
        settled = {piece.name: piece for piece in self._settled()}
        for piece in self._model.pattern.with_extras:
            if id(piece) not in still:
                self._paint_piece(painter, piece, shows_through=False, moves_from=settled.get(piece.name))

    def _paint_pieces(self, painter: QPainter, pieces: tuple[Piece, ...]) -> None:
        layout, traced = self.layout_now(), self._lay.traced_pattern
        if traced is not None and not self._lay.is_over:
            laid.paint_traced(painter, traced[0], layout, 1.0 / self.scale)
        # Over tracing paper the pattern lets it show through.
        shows_through = traced is not None and not self._lay.is_over
        for piece in pieces:
            self._paint_piece(painter, piece, shows_through=shows_through)
        if self._lay.comb:
            paint_comb(painter, self._model.pattern, layout, 1.0 / self.scale)
        if traced is not None and self._lay.is_over:
            laid.paint_traced(painter, traced[0], layout, 1.0 / self.scale)

    def _paint_piece(self, painter: QPainter, piece: Piece, *, shows_through: bool, moves_from: Piece | None = None) -> None:
        painter.save()
        self.layout_now().get(piece.name, FLAT).place(painter)
        shown = laid.shown_piece(piece, self._lay.fold, self._sewing)
        paint_piece(painter, shown, 1.0 / self.scale, is_traced=shows_through, moves_from=moves_from)
        painter.restore()

    def paint_over(self, painter: QPainter) -> None:
        layout, words = self.layout_now(), self.words
        words.begin()
        for piece in self._model.pattern.with_extras if self.is_flat else self._model.pattern.pieces:
            self._label(piece)
        if self.is_flat:
            for piece in self._model.pattern.pieces:
                marks = shapes_of(piece).words
                if not marks:
                    continue
                lying = layout.get(piece.name, FLAT)
                others = [self._ground_of(one) for one in self._model.pattern.with_extras if one.name != piece.name]
                laid.write_marks(words, ((self.to_px(*lying.on_table((at.x(), at.y()))), text) for at, text in marks), others)
            for hand in reversed(self.hands):
                hand.paint(painter, words)
            figures = self._lay.figures
            if figures is not None and self.control.carry is None:
                laid.write_tags(words, laid.difference_marks(self, self._model.pattern, figures, layout))
        else:
            laid.write_crossings(words, self, self._model.pattern, self._lay.fold, layout, self._sewing)
        words.paint(painter, QRectF(self.rect()).adjusted(RULER, RULER, 0, 0))

    def _box_of(self, piece: Piece) -> QRectF:
        """The box that a piece lies in, mm."""
        return self.layout_now().get(piece.name, FLAT).box(shapes_of(piece).box)

    def _ground_of(self, piece: Piece) -> QRectF:
        """The box that a piece lies in, px."""
        box = self._box_of(piece)
        return QRectF(self.to_px(box.left(), box.top()), self.to_px(box.right(), box.bottom()))

    def label_box(self, piece: Piece) -> QRectF:
        """Where a piece's name stands, px: under it, or within it where another lies under it. A long name of a narrow panel
        goes on in a second line, or it would run into its neighbour's."""
        layout = self.layout_now()
        box = self._box_of(piece)
        at = self.to_px(box.left(), box.bottom())
        wide = max(box.width() * self.scale, 130.0) if piece.of else 200.0
        below = QRectF(box.left(), box.bottom(), box.width(), NAME_HIGH / self.scale)
        others = (one for one in self._model.pattern.with_extras if one.name in layout and one.name != piece.name)
        if any(self._box_of(one).intersects(below) for one in others):
            return QRectF(at.x() + 5, at.y() - 2 * NAME_HIGH, max(box.width() * self.scale - 10.0, 60.0), 2 * NAME_HIGH)
        return QRectF(at.x() + 5, at.y() + 4, wide, 2 * NAME_HIGH)

    def _label(self, piece: Piece) -> None:
        box, font, text = self.label_box(piece), display_font(13), numbered(self._model.pattern, piece)
        flags = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop
        wide = self._box_of(piece).width() * self.scale
        narrow = QRectF(box.left(), box.top(), max(wide, 60.0), 3 * NAME_HIGH)
        others = [box.translated(*by) for by in ((0.0, 20.0), (40.0, 0.0), (0.0, 40.0), (0.0, -30.0), (80.0, 20.0))]
        places = [box, *([narrow] if piece.of and wide < box.width() else []), *others]
        self.words.add(NAME, text, (plain(text, font, place, "ink", flags) for place in places))
