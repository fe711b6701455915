"""The hand that puts pieces elsewhere on the table: dragged by their names, turned, lined up. Kept with the style."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFontMetricsF, QKeyEvent, QMouseEvent

from zesty_pivot.core.formats.table_lay import PieceLay, TableLay
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.pattern import numbered
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.hand import TableHand
from zesty_pivot.desk.table.hand_table import HandTable
from zesty_pivot.desk.theme import display_font

SNAP = 7.0  # px within which a dragged piece lies level with where it would lie by itself, or with another
FAR = 20_000.0  # mm, as far as a piece may be put


class LayingHand(TableHand):
    """Drags a piece by its name."""

    def __init__(self, model: DeskModel, table: HandTable) -> None:
        self._model, self._table = model, table
        self._held: tuple[str, QPointF, PieceLay] | None = None  # the piece, where it was caught (mm), how it lay
        self._moved: TableLay | None = None

    @property
    def shown(self) -> TableLay:
        """How the pieces lie, with what is in the hand."""
        return self._moved or self._model.derived.style.table

    def name_at(self, at: QPointF) -> Piece | None:
        """The piece whose name lies under a place (px)."""
        metrics = QFontMetricsF(display_font(13))
        for piece in self._model.pattern.with_extras:
            box = self._table.label_box(piece)
            flags = Qt.AlignmentFlag.AlignLeft | Qt.TextFlag.TextWordWrap
            text = metrics.boundingRect(box, flags, numbered(self._model.pattern, piece))
            if QRectF(text).contains(at):
                return piece
        return None

    def press(self, event: QMouseEvent) -> bool:
        piece = self.name_at(event.position())
        if piece is None:
            return False
        at = self._table.to_mm(event.position())
        self._held = (piece.name, at, self.shown.pieces.get(piece.name, PieceLay()))
        return True

    def move(self, event: QMouseEvent) -> bool:
        if self._held is None:
            return False
        name, caught, lay = self._held
        by = self._table.to_mm(event.position()) - caught
        x, y = lay.x + by.x(), lay.y + by.y()
        if not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            others = [0.0, *(one.y for other, one in self.shown.pieces.items() if other != name)]
            near = min(others, key=lambda level: abs(level - y))
            y = near if abs(near - y) * self._table.scale <= SNAP else y
        put = PieceLay(x=min(max(x, -FAR), FAR), y=min(max(y, -FAR), FAR), turn=lay.turn)
        self._moved = _with(self._model.style.table, name, put)
        self._table.update()
        return True

    def release(self, event: QMouseEvent) -> bool:
        if self._held is None:
            return False
        name, self._held = self._held[0], None
        moved, self._moved = self._moved, None
        if moved is not None:
            self._put(moved, f"{words(name)} put elsewhere")
        self._table.update()
        return True

    def key(self, event: QKeyEvent) -> bool:
        if self._held is None or event.key() != Qt.Key.Key_Escape:
            return False
        self._held = self._moved = None
        self._table.update()
        return True

    def cursor(self, at: QPointF) -> Qt.CursorShape | None:
        return Qt.CursorShape.SizeAllCursor if self.name_at(at) is not None else None

    def tip(self, at: QPointF) -> str:
        piece = self.name_at(at)
        return "" if piece is None else "Drag the piece by its name; Ctrl keeps it from snapping level. Ctrl+Shift+R turns it."

    # What the actions do.

    def turn(self, name: str) -> None:
        """A piece turned by a quarter, clockwise."""
        lay = self._model.style.table.pieces.get(name, PieceLay())
        put = PieceLay.model_validate({"x": lay.x, "y": lay.y, "turn": (lay.turn + 90) % 360})
        self._put(_with(self._model.style.table, name, put), f"{words(name)} turned")

    def line_up(self) -> None:
        """Every piece level with where it would lie by itself, and upright; how far to the side it was put stays."""
        table = self._model.style.table
        pieces = {name: PieceLay(x=lay.x) for name, lay in table.pieces.items()}
        self._put(table.model_copy(update={"pieces": pieces}), "pieces lined up")

    def lay_back(self) -> None:
        """Every piece where it lies by itself."""
        self._put(self._model.style.table.model_copy(update={"pieces": {}}), "pieces laid back")

    def swap_sides(self) -> None:
        """The back on the left, or the front."""
        table = self._model.style.table
        left = "front" if table.left == "back" else "back"
        self._put(table.model_copy(update={"left": left}), f"{left} on the left")

    def _put(self, table: TableLay, title: str) -> None:
        self._model.edit(self._model.style.model_copy(update={"table": table}), title)


def _with(table: TableLay, name: str, lay: PieceLay) -> TableLay:
    pieces = {**table.pieces, name: lay}
    if lay == PieceLay():
        del pieces[name]
    return table.model_copy(update={"pieces": pieces})
