"""The form of drape.cowl, with a picture of its folds as they will hang."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QSizePolicy, QWidget

from zesty_pivot.core.piece import Hang, Pattern
from zesty_pivot.core.procedures.hanging import hung, sag
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.drape_cowl import Cowl
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import PlainForm
from zesty_pivot.desk.forms.rows import ChoiceRow, CountRow, FlagRow, LengthRow, OtherRow, PieceRow, Row, whole_number
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.theme import NOW, text_font

DO = "drape.cowl"

LEVELS = [
    ("high", "high: to the pit of the neck"), ("mid", "mid: half way to the bust line"),
    ("low", "low: three quarters of the way"), ("bust", "to the bust line"),
]  # fmt: skip
DARTS = [("all", "all that it needs"), ("upper", "only those above"), ("none", "none")]
GRAINS = [("bias", "on the bias"), ("straight", "straight along the fold")]

_MARGIN = 12.0  # px round the folds


def _by_level(step: Cowl) -> bool:
    return step.depth is None and step.edge is None and step.spread is None


ROWS: tuple[Row, ...] = (
    PieceRow(),
    OtherRow("other", "Its partner"),
    ChoiceRow("level", "How deep", _by_level, choices=lambda _step, _piece: LEVELS),
    LengthRow("depth", "Or below the shoulder point by", empty="by the level", clears=("edge", "spread")),
    LengthRow("edge", "Or half its edge", empty="by the depth", clears=("depth", "spread")),
    LengthRow("spread", "Or the slash open by", empty="as it needs", clears=("depth", "edge")),
    LengthRow("widen", "Out from the neck point by", signed=True),
    CountRow("folds", "Folds", read=whole_number(1, 6)),
    LengthRow(
        "pleat", "Shoulder pleats deep", lambda step: bool(step.folds > 1), empty="1.5 cm, as there is room", signed=True
    ),
    ChoiceRow("darts", "Darts that go into it", choices=lambda _step, _piece: DARTS),
    ChoiceRow("grain", "Grain", choices=lambda _step, _piece: GRAINS),
    LengthRow("facing", "Facing cut in one, deep", signed=True),
    LengthRow("facing_end", "And along the shoulder", empty="4 cm, with room"),
    FlagRow("stay", "A stay for the shoulder"),
)


class HangingView(QWidget):
    """The folds between the shoulders, each a catenary by its numbers, its sag written below."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self.hangs: tuple[Hang, ...] = ()
        self.setFixedHeight(168)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setAccessibleName("The folds as they will hang")

    def sizeHint(self) -> QSize:
        return QSize(280, 168)

    def show_hangs(self, hangs: tuple[Hang, ...]) -> None:
        """Other folds; none for a step that is broken."""
        self.hangs = hangs
        self.update()

    @contained("the picture of the folds")
    def paintEvent(self, _event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), NOW.color("table"))
        if self.hangs:
            self._paint(painter)
        painter.end()

    def _paint(self, painter: QPainter) -> None:
        wide = 2.0 * max(hang.open_mm for hang in self.hangs)
        deep = max(hang.drop_mm + sag(hang) for hang in self.hangs) + 1.0
        room = QRectF(self.rect()).adjusted(_MARGIN, _MARGIN, -_MARGIN, -_MARGIN - 14.0)
        scale = min(room.width() / wide, room.height() / deep)
        middle = room.center().x()
        for number, hang in enumerate(self.hangs):
            points = QPolygonF([QPointF(middle + x * scale, room.top() + (hang.drop_mm + y) * scale) for x, y in hung(hang)])
            style = Qt.PenStyle.SolidLine if number == 0 else Qt.PenStyle.DashLine
            painter.setPen(QPen(NOW.color("ink" if number == 0 else "quiet"), 2.0 if number == 0 else 1.3, style))
            painter.drawPolyline(points)
            painter.setBrush(NOW.color("ink"))
            for end in (points.first(), points.last()):
                painter.drawEllipse(end, 2.2, 2.2)
            painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(NOW.color("quiet"))
        painter.setFont(text_font(9))
        told = ", ".join(self._model.length(sag(hang)) for hang in self.hangs)
        painter.drawText(
            QRectF(0.0, self.height() - 20.0, self.width(), 18.0), Qt.AlignmentFlag.AlignCenter, f"as a chain: {told} deep"
        )


class CowlForm(PlainForm):
    """The fields, and below them the folds."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model, Cowl, ROWS)
        self.hanging = HangingView(model)
        self._rows.addWidget(self.hanging)

    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        super().show_step(at, step, before)
        states = self.model.derived.derivation.states
        state = states[at + 1] if at + 1 < len(states) else states[-1]
        is_there = state.error is None and state.pattern.has(step.on)
        self.hanging.show_hangs(state.pattern.piece(step.on).hangs if is_there and not step.off else ())


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: on the front with its back, else on any piece by itself."""
    values: list[dict[str, object]] = [{"do": DO, "on": "front", "other": "back"}]
    values += [{"do": DO, "on": piece.name, "other": ""} for piece in model.pattern.pieces]
    values += [{"do": DO, "on": piece.name, "other": "", "level": "low"} for piece in model.pattern.pieces]
    return first_change(model, values)


FORM = FormEntry(DO, CowlForm, first_step, lambda model: bool(model.pattern.pieces), order=187)
