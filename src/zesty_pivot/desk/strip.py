"""The recipe strip: the block and every step as a card with a picture of the pattern after it."""

from __future__ import annotations

from collections import OrderedDict

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, QTimer
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPen, QPixmap
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QLabel, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.recipe import State
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.shapes import offsets, shapes_of
from zesty_pivot.desk.theme import LIGHT, text_font

PICTURE = QSize(112, 56)
_kept: OrderedDict[tuple[int, int], QPixmap] = OrderedDict()


def thumbnail(pattern: Pattern, block: Pattern, serial: int, ratio: float) -> QPixmap:
    """A picture of a pattern; states that have not changed keep theirs. `serial` tells states apart."""
    key = (serial, round(ratio * 100))
    found = _kept.get(key)
    if found is None:
        found = _drawn(pattern, block, ratio)
        _kept[key] = found
        while len(_kept) > 400:
            _kept.popitem(last=False)
    return found


def _drawn(pattern: Pattern, block: Pattern, ratio: float) -> QPixmap:
    pixmap = QPixmap(PICTURE * ratio)
    pixmap.setDevicePixelRatio(ratio)
    pixmap.fill(Qt.GlobalColor.transparent)
    shifts = offsets(block)
    box = QRectF()
    for piece in pattern.pieces:
        box = box.united(shapes_of(piece).box.translated(*shifts.get(piece.name, (0.0, 0.0))))
    scale = min((PICTURE.width() - 6) / box.width(), (PICTURE.height() - 6) / box.height())
    painter = QPainter(pixmap)
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    painter.translate(QPointF(PICTURE.width() / 2, PICTURE.height() / 2) - box.center() * scale)
    painter.scale(scale, scale)
    painter.setPen(QPen(LIGHT.color("ink"), 1.0 / scale))
    painter.setBrush(LIGHT.color("table"))
    for piece in pattern.pieces:
        painter.save()
        painter.translate(*shifts.get(piece.name, (0.0, 0.0)))
        painter.drawPath(shapes_of(piece).fill)
        painter.restore()
    painter.end()
    return pixmap


class Card(QFrame):
    """One card. Number 0 is the block, the others are the steps counted from 1."""

    def __init__(self, strip: RecipeStrip, number: int) -> None:
        super().__init__()
        self.setObjectName("card")
        self._strip = strip
        self.number = number
        self.setFixedWidth(172)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.picture, self.title, self.figures = QLabel(), QLabel(), QLabel()
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.title.setFont(text_font(9, bold=True))
        self.figures.setObjectName("quiet")
        self.figures.setFont(text_font(8.5))
        self.figures.setWordWrap(True)
        self.figures.setAlignment(Qt.AlignmentFlag.AlignTop | Qt.AlignmentFlag.AlignLeft)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(9, 5, 9, 6)
        layout.setSpacing(1)
        for widget in (self.picture, self.title, self.figures):
            layout.addWidget(widget)
        self._dot = ""

    def show_state(self, state: State, picture: QPixmap, *, chosen: bool, dot: str) -> None:
        """Fills the card. `dot` is empty, `warning` or `error`."""
        step = state.step
        title = "Block" if step is None else step.name or step.title
        prefix = "" if step is None else f"{self.number}  "
        figures = "as drafted" if step is None else step.words()
        if step is not None and step.off:
            figures = "switched off"
        if state.error is not None:
            figures = state.error.what
        self.picture.setPixmap(picture)
        self.title.setText(self._short(f"{prefix}{title}", self.title, 1))
        self.figures.setText(self._short(figures, self.figures, 2))
        self.setToolTip(str(state.error) if state.error else figures)
        self.setAccessibleName(f"{prefix}{title}: {figures}")
        self._dot = dot
        for name, value in (
            ("chosen", chosen), ("broken", state.error is not None), ("off", step is not None and step.off),
        ):  # fmt: skip
            self.setProperty(name, value)
        style = self.style()
        if style is not None:
            style.unpolish(self)
            style.polish(self)
        self.update()

    def _short(self, text: str, label: QLabel, lines: int) -> str:
        """The text as far as it fits; the whole of it stands in the tooltip."""
        room = self.width() - 22
        return label.fontMetrics().elidedText(text, Qt.TextElideMode.ElideRight, room * lines - (26 if lines > 1 else 0))

    def paintEvent(self, event: object) -> None:
        super().paintEvent(event)  # type: ignore[arg-type]
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if self._dot:
            # A round dot for a warning, a square for an error: the shape says it as well as the colour.
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(LIGHT.color("error" if self._dot == "error" else "citrus"))
            box = QRectF(self.width() - 17, 8, 9, 9)
            if self._dot == "error":
                painter.drawRect(box)
            else:
                painter.drawEllipse(box)
        if self.hasFocus():
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(LIGHT.color("cool"), 1, Qt.PenStyle.DotLine))
            painter.drawRect(self.rect().adjusted(4, 4, -5, -5))
        painter.end()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self._strip.choose(self.number)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self._strip.choose(self.number)
        else:
            super().keyPressEvent(event)

    def focusInEvent(self, event: object) -> None:
        super().focusInEvent(event)  # type: ignore[arg-type]
        self._strip.bring_into_view(self)
        self.update()


class RecipeStrip(QWidget):
    """All cards in a row that scrolls."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self.setObjectName("strip")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._model = model
        self.cards: list[Card] = []
        self._seen = (-1, -1)  # the chosen card and how many there were, when it was last brought into view
        self._inside = QWidget()
        self._row = QHBoxLayout(self._inside)
        self._row.setContentsMargins(12, 8, 12, 8)
        self._row.setSpacing(8)
        self._row.addStretch(1)
        self._area = QScrollArea()
        self._area.setWidgetResizable(True)
        self._area.setWidget(self._inside)
        self._area.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        layout = QHBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.addWidget(self._area)
        self.setFixedHeight(136)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        model.changed.connect(self.refresh)
        model.chosen_changed.connect(self.refresh)
        self.refresh()

    def refresh(self) -> None:
        """Shows the model's states."""
        derivation = self._model.derived.derivation
        states = derivation.states
        while len(self.cards) < len(states):
            card = Card(self, len(self.cards))
            self.cards.append(card)
            self._row.insertWidget(self._row.count() - 1, card)
        while len(self.cards) > len(states):
            card = self.cards.pop()
            self._row.removeWidget(card)
            card.hide()
            card.deleteLater()
        for card, state in zip(self.cards, states, strict=True):
            picture = thumbnail(state.pattern, derivation.block, state.serial, self.devicePixelRatioF())
            chosen = card.number == self._model.state_index
            card.show_state(state, picture, chosen=chosen, dot=self._dot(card.number, state))
        if self._seen != (self._model.state_index, len(states)):
            self._seen = (self._model.state_index, len(states))
            QTimer.singleShot(0, self._show_chosen)  # once the cards have their places

    def _show_chosen(self) -> None:
        if self._model.state_index < len(self.cards):
            self.bring_into_view(self.cards[self._model.state_index])

    def _dot(self, number: int, state: State) -> str:
        if state.error is not None:
            return "error"
        if number == len(self._model.derived.derivation.states) - 1:
            severities = {finding.severity.value for finding in self._model.derived.findings}
            return "error" if "error" in severities else "warning" if severities & {"warning"} else ""
        return ""

    def choose(self, number: int) -> None:
        """Looks at the state after a card."""
        self._model.choose_step(number - 1)

    def bring_into_view(self, card: Card) -> None:
        """Scrolls so that a card can be seen."""
        self._area.ensureWidgetVisible(card)
