"""The hand with the measuring tape: from a place to a place, with the running figure; kept as a step when it is asked to be."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import TYPE_CHECKING, cast

from PyQt6.QtCore import QObject, QPointF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen, QPolygonF

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.moves.laid_open import on_paper
from zesty_pivot.core.piece.pattern import Tape
from zesty_pivot.core.procedures.tape_measure import Darts, Laying, Reading
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.steps import registry
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.canvas import RULER
from zesty_pivot.desk.table.hand import TableHand
from zesty_pivot.desk.table.hand_table import HandTable
from zesty_pivot.desk.table.lying import FLAT
from zesty_pivot.desk.table.tape_ends import End, free_end, nearest, snaps
from zesty_pivot.desk.table.things import Thing, thing_at
from zesty_pivot.desk.table.words import HELD, MEASURED, Words, slip, wide
from zesty_pivot.desk.theme import NOW, text_font

if TYPE_CHECKING:
    from zesty_pivot.core.steps.measure_tape import MeasuringTape

SNAP, REACH = 11.0, 8.0  # px: from a place that draws the tape, from an edge
OTHER: dict[Unit, Unit] = {"cm": "in", "mm": "in", "in": "cm"}
BAR = 5.0  # px, half of the stroke at a tape's end


class TapeTool(QObject):
    """What the tape is set to, and what lies under it."""

    changed = pyqtSignal()

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.is_on = False
        self.way: Laying = "straight"
        self.darts: Darts = "shut"
        self.start: End | None = None
        self.stop: End | None = None
        self.is_laid = False  # whether both ends are put down
        self.fault = ""
        self.reading: Reading | None = None

    def take(self, start: End | None = None) -> None:
        """The tape in the hand, its beginning put down already where it is known."""
        self.is_on, self.start, self.stop, self.is_laid = True, start, None, False
        self._measure()

    def put_away(self) -> None:
        """Off the table."""
        self.is_on, self.start, self.stop, self.is_laid = False, None, None, False
        self._measure()

    def lay(self, way: Laying | None = None, darts: Darts | None = None) -> None:
        """Laid another way, or with the darts shut or open."""
        self.way, self.darts = way or self.way, darts or self.darts
        self._measure()

    def hold(self, end: End | None) -> None:
        """The loose end over a place."""
        if not self.is_laid and end != self.stop:
            self.stop = end
            self._measure()

    def put(self, end: End) -> None:
        """An end put down: the beginning, then the other; once both lie, a new tape begins there."""
        if self.start is None or self.is_laid:
            self.start, self.stop, self.is_laid = end, None, False
        else:
            self.stop, self.is_laid = end, True
        self._measure()

    def step(self, name: str = "") -> MeasuringTape | None:
        """The tape as a step; None while an end is missing."""
        if self.start is None or self.stop is None:
            return None
        ends = {
            key: {**end.value, **({"on": end.piece} if end.piece != self.start.piece else {})}
            for key, end in (("from", self.start), ("to", self.stop))
        }
        value = {"do": "measure.tape", "on": self.start.piece, "name": name, "way": self.way, "darts": self.darts, **ends}
        return cast("MeasuringTape", registry.read(value))

    @contained("the tape")
    def _measure(self) -> None:
        self.reading, self.fault = None, ""
        step = self.step()
        if step is not None:
            context = self._model.derived.context.at(self._model.pattern)
            try:
                self.reading = step.with_ids(self._model.pattern).reading(self._model.pattern, context)
            except ZestyError as fault:
                self.fault = fault.what
        self.changed.emit()

    def figure(self) -> str:
        """What it shows, in the style's unit and the other one."""
        if self.reading is None:
            return ""
        unit = self._model.style.units
        return " = ".join(format_length(self.reading.mm, each, fine=each != "in") for each in (unit, OTHER[unit]))

    def keep(self) -> bool:
        """Keeps the tape as a step; false while there is none to keep."""
        step = self.step() if self.reading is not None else None
        if step is None or not self.is_laid:
            return False
        self.put_away()
        self._model.recipe.add_step(step)
        return True


class TapeHand(TableHand):
    """While the tape is in the hand, pointer and keys are its; tapes that were kept are drawn always."""

    def __init__(self, model: DeskModel, table: HandTable, tool: TapeTool) -> None:
        self._model, self._table, self.tool = model, table, tool
        self._snaps: tuple[object, list[End]] | None = None
        self._drawn: tuple[tuple[object, ...], list[tuple[Tape, Reading]]] | None = None
        self._stepped: int | None = None  # the place that keys have reached
        self.begun: Callable[[], None] = lambda: None  # what is done once a tape is kept: the hand goes into its fields
        tool.changed.connect(table.update)

    def places(self) -> list[End]:
        """The places that draw a tape to them."""
        pattern = self._model.pattern
        if self._snaps is None or self._snaps[0] is not pattern:
            derivation = self._model.derived.derivation
            self._snaps = (pattern, snaps(pattern, derivation.block, derivation.sewing, self._model.style.units))
        return self._snaps[1]

    def end_at(self, at: QPointF, *, snapping: bool = True) -> End | None:
        """The place under the pointer (px): one that draws the tape to it, else any on an edge or a piece."""
        here = self._table.to_mm(at)
        layout, scale = self._table.layout_now(), self._table.scale
        place = (here.x(), here.y())
        near = nearest(self.places(), layout, place, SNAP / scale) if snapping else None
        if near is not None:
            return near
        thing = thing_at(self._model.pattern, layout, place, REACH / scale)
        return self.end_of(thing) if thing is not None else None

    def end_of(self, thing: Thing) -> End | None:
        """Where a thing of the table was pointed at, as an end."""
        block = self._model.derived.derivation.block
        if thing.kind == "dart":
            thing = Thing("piece", thing.piece, at=thing.at)
        return free_end(self._model.pattern, block, thing, self._model.style.units)

    # Hands.

    @property
    def _is_busy(self) -> bool:
        return self.tool.is_on and self._table.is_flat

    def press(self, event: QMouseEvent) -> bool:
        if not self._is_busy:
            return False
        end = self.end_at(event.position(), snapping=not event.modifiers() & Qt.KeyboardModifier.ControlModifier)
        if end is not None:
            self.tool.put(end)
        return True

    def move(self, event: QMouseEvent) -> bool:
        if not self._is_busy:
            return False
        self._stepped = None
        snapping = not event.modifiers() & Qt.KeyboardModifier.ControlModifier
        self.tool.hold(self.end_at(event.position(), snapping=snapping))
        self._table.setCursor(Qt.CursorShape.CrossCursor)
        return True

    def release(self, event: QMouseEvent) -> bool:
        return self._is_busy

    def key(self, event: QKeyEvent) -> bool:
        if not self._is_busy:
            return False
        key = Qt.Key(event.key())
        if key == Qt.Key.Key_Escape:
            self.tool.put_away()
            return True
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            known = self.places()
            by = 1 if key == Qt.Key.Key_Right else -1
            at = (0 if by > 0 else -1) if self._stepped is None else (self._stepped + by) % len(known)
            self._stepped = at % len(known)
            if self.tool.is_laid:
                self.tool.take()
            self.tool.hold(known[self._stepped])
            return True
        if key in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            if self.tool.is_laid:
                return self._kept()
            if self._stepped is not None:
                self.tool.put(self.places()[self._stepped])
            return True
        return False

    def _kept(self) -> bool:
        if self.tool.keep():
            self.begun()
        return True

    # Drawing.

    def paint(self, painter: QPainter, words: Words) -> None:
        if not self._model.is_previewing:
            for tape, reading in self._readings():
                self._lines(painter, reading, "good", 1.6)
                named = tape.asked.name
                text = f"{named}  {self._model.length(tape.mm)}" if named else self._model.length(tape.mm)
                font = text_font(8.5, bold=True)
                words.add(MEASURED, text, [slip(text, font, at, "good") for at in self._along(reading)])
        if not self._is_busy:
            return
        tool = self.tool
        for end in (tool.start, tool.stop):
            if end is not None:
                at = self._px(end.piece, end.at)
                painter.setPen(QPen(NOW.color("citrus"), 2.0))
                painter.setBrush(NOW.color("paper"))
                painter.drawEllipse(at, 4.5, 4.5)
        if tool.reading is not None:
            self._lines(painter, tool.reading, "citrus", 2.4)
        loose = tool.stop
        if loose is not None:
            text = "  ".join(part for part in (tool.figure() or tool.fault, "" if tool.is_laid else loose.title) if part)
            self._write_running(words, text, self._px(loose.piece, loose.at))

    def _write_running(self, words: Words, text: str, at: QPointF) -> None:
        font = text_font(8.5, bold=True)
        half = wide(text, font) / 2.0 + 8.0
        x = min(max(at.x(), RULER + half), self._table.width() - half - 4.0)
        color = "error" if self.tool.fault else "citrus"
        ways = [slip(text, font, QPointF(x, y), color) for y in (at.y() - 22.0, at.y() + 22.0) if y > RULER + 10.0]
        words.add(HELD, text, ways, has_to=True)

    def _readings(self) -> list[tuple[Tape, Reading]]:
        """The tapes that were kept, where they lie on the pattern as it is now; one that cannot be laid there is not drawn."""
        pattern = self._model.pattern
        key = (pattern, self._model.style.units)
        if self._drawn is None or self._drawn[0] != key:
            context, found = self._model.derived.context.at(pattern), []
            for tape in pattern.tapes:
                try:
                    found.append((tape, tape.asked.reading(pattern, context)))
                except ZestyError:
                    continue
            self._drawn = (key, found)
        return self._drawn[1]

    def _px(self, piece: str, at: tuple[float, float]) -> QPointF:
        known = self._model.pattern.piece(piece)
        return self._table.to_px(*self._table.layout_now().get(piece, FLAT).on_table(on_paper(known, at)))

    def _lines(self, painter: QPainter, reading: Reading, color: str, wide: float) -> None:
        """The tape itself, with a stroke across at both ends."""
        painter.setPen(QPen(NOW.color(color), wide, Qt.PenStyle.SolidLine, Qt.PenCapStyle.FlatCap))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        for name, path in reading.lines:
            points = [self._px(name, (float(x), float(y))) for x, y in path.outline]
            painter.drawPolyline(QPolygonF(points))
            for end, other in ((points[0], points[1]), (points[-1], points[-2])):
                way = other - end
                size = max((way.x() ** 2 + way.y() ** 2) ** 0.5, 1e-6)
                across = QPointF(-way.y() / size * BAR, way.x() / size * BAR)
                painter.drawLine(end - across, end + across)

    def _along(self, reading: Reading) -> Iterator[QPointF]:
        """Places for its figure, px: the middle of its longest line first, then to either side of it, then beside it."""
        if not reading.lines:
            return
        name, path = max(reading.lines, key=lambda line: line[1].length)
        for away in (0.0, 24.0, -24.0):
            for share in (0.5, 0.35, 0.65, 0.2, 0.8):
                x, y = path.point_at(path.length * share)
                yield self._px(name, (float(x), float(y))) + QPointF(0.0, away)
