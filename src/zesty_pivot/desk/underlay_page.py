"""The underlay calculator: how many pleats, how much cloth, what is left, with a picture of the folded cloth."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QDialog, QGridLayout, QLabel, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.procedures.underlay import PleatKind, Underlay, profile, underlay
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.forms.rows import whole_number
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.theme import NOW

KINDS = [("knife", "knife pleats"), ("box", "box pleats"), ("inverted", "inverted pleats"), ("tuck", "tucks")]
COUNT = whole_number(1, 500)
LAYER = 16.0  # px from one layer of cloth to the next in the picture


class FoldedCloth(QWidget):
    """The cloth seen from its edge once it is folded."""

    def __init__(self) -> None:
        super().__init__()
        self.shown: Underlay | None = None
        self.setMinimumSize(QSize(460, 110))
        self.setAccessibleName("The folded cloth from its edge")

    def paintEvent(self, _event: QPaintEvent | None) -> None:
        """Paper, the finished width as a thin line, the cloth above and below it."""
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(self.rect()).adjusted(1, 1, -1, -1)
        painter.setPen(QPen(NOW.color("edge"), 1.0))
        painter.setBrush(NOW.color("paper"))
        painter.drawRoundedRect(box, 6, 6)
        if self.shown is None:
            return
        inner = box.adjusted(16, 0, -16, 0)
        scale, middle = inner.width() / self.shown.finished, box.center().y() - 6.0
        points = [QPointF(inner.left() + x * scale, middle + down * LAYER) for x, down in profile(self.shown)]
        painter.setPen(QPen(NOW.color("citrus"), 1.0, Qt.PenStyle.DashLine))
        painter.drawLine(QPointF(inner.left(), box.bottom() - 14), QPointF(inner.right(), box.bottom() - 14))
        painter.setPen(QPen(NOW.color("ink"), 2.0, Qt.PenStyle.SolidLine, Qt.PenCapStyle.RoundCap, Qt.PenJoinStyle.RoundJoin))
        painter.drawPolyline(QPolygonF(points))


class UnderlayPage(QDialog):
    """Fields at the top, the answer in words, and the picture. Everything follows what is typed."""

    def __init__(self, model: DeskModel, parent: QWidget) -> None:
        super().__init__(parent)
        self._model = model
        self.setWindowTitle("Underlay calculator")
        self.kind = Choice("Pleats")
        self.over = CalcField(self._worth, "Finished width")
        self.deep = CalcField(self._worth, "Depth")
        self.cloth = CalcField(self._worth, "Width of the cloth")
        self.joins = CalcField(self._worth, "Allowance, both edges")
        self.many = CalcField(lambda text: str(COUNT(text)) and "", "How many", may_be_empty=True)
        self.many.edit.setPlaceholderText("as many as fit")
        self.answer, self.picture = label("", ""), FoldedCloth()
        self.answer.setWordWrap(True)
        rows: list[tuple[str, QWidget]] = [
            ("Pleats", self.kind), ("Finished width", self.over), ("Depth of each", self.deep),
            ("Width of the cloth", self.cloth), ("Allowance, both edges together", self.joins), ("How many", self.many),
        ]  # fmt: skip
        grid = QGridLayout(self)
        for number, (title, field) in enumerate(rows):
            name = QLabel(title)
            name.setBuddy(field)
            grid.addWidget(name, number, 0, Qt.AlignmentFlag.AlignTop)
            grid.addWidget(field, number, 1)
        grid.addWidget(self.answer, len(rows), 0, 1, 2)
        grid.addWidget(self.picture, len(rows) + 1, 0, 1, 2)
        self._kind: PleatKind = "knife"
        self.kind.show_choices(KINDS, self._kind)
        inches = model.style.units == "in"
        usual = ("28 in", "3/4 in", "55 in", "1 in") if inches else ("72 cm", "2 cm", "140 cm", "2 cm")
        for field, text in zip((self.over, self.deep, self.cloth, self.joins), usual, strict=True):
            field.set_text(text)
            field.committed.connect(lambda _text: self._show())
        self.many.committed.connect(lambda _text: self._show())
        self.kind.picked.connect(self._pick)
        self._show()

    def _worth(self, text: str) -> str:
        return f"= {self._model.length(length_mm(text, self._model.style.scope()), fine=self._model.style.units != 'in')}"

    def _pick(self, kind: str) -> None:
        self._kind = next(known for known in ("knife", "box", "inverted", "tuck") if known == kind)
        self._show()

    def _show(self) -> None:
        unit, scope = self._model.style.units, self._model.style.scope()
        typed = self.many.edit.text().strip()
        try:
            fields = self.over, self.deep, self.cloth, self.joins
            finished, depth, width, joins = (length_mm(field.edit.text(), scope) for field in fields)
            made = underlay(self._kind, finished, depth, width, joins, COUNT(typed) if typed else None, unit)
        except ZestyError as fault:
            self.picture.shown = None
            self.answer.setText(f"{fault.what[:1].upper()}{fault.what[1:]}. {fault.advice}")
        else:
            self.picture.shown = made
            left = format_length(abs(made.left), unit)
            cloth, apart = format_length(made.cloth, unit), format_length(made.spacing, unit)
            self.answer.setText(
                f"{made.count} of them, {apart} from one to the next, need {cloth} of cloth: {made.times:.2f} times the "
                f"finished width. {left} {'left of the cloth' if made.left >= 0.0 else 'are lacking'}."
            )
        self.picture.update()
