"""The card of a thing on the table: its figures where the eye is, and the steps that begin there."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QPoint, QPointF, QSize, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QFrame, QGraphicsDropShadowEffect, QHBoxLayout, QPushButton, QScrollArea, QVBoxLayout, QWidget

from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.labels import Figures, empty, label, repolish
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.step_pictures import PICTURES
from zesty_pivot.desk.table.begins import Beginning, Offer, offers
from zesty_pivot.desk.table.canvas import RULER, Canvas
from zesty_pivot.desk.table.thing_words import figures_of, piece_of, title_of_thing
from zesty_pivot.desk.table.things import Thing
from zesty_pivot.desk.theme import NOW
from zesty_pivot.desk.trying import Trial, first_that_works

WIDE, FIGURES, BESIDE = 452, 200, 14  # px: the card, its figures, and how far it stands from the place
ROWS = 8.4  # steps that are seen at once: that there are more shows by the one that is cut off
ROW = 29  # px


class ThingCard(QFrame):
    """Lies on the table beside the thing; closes when something begins, on Escape, and on a click elsewhere."""

    begun = pyqtSignal()
    measured = pyqtSignal(object)

    def __init__(self, model: DeskModel, table: Canvas) -> None:
        super().__init__(table)
        self.setObjectName("thing_card")
        self._model, self._table = model, table
        self.thing: Thing | None = None
        self.offers: list[Offer] = []
        self.buttons: list[QPushButton] = []
        self._tried: dict[int, Trial] = {}
        self._shown: object = None  # the pattern that it is about
        self.title = label("", "heading")
        self.figures = Figures(2)
        self._list = QWidget()
        self._list.setObjectName("thing_list")
        self._rows = QVBoxLayout(self._list)
        self._rows.setContentsMargins(0, 0, 0, 0)
        self._rows.setSpacing(1)
        self._area = QScrollArea()
        self._area.setWidget(self._list)
        self._area.setWidgetResizable(True)
        self._area.setFrameShape(QFrame.Shape.NoFrame)
        self._area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.why = label("", "quiet")
        self.tape = QPushButton("Measure from here")
        self.tape.setIcon(icon("tape"))
        self.tape.clicked.connect(self._measure)
        self._put_together()
        shadow = QGraphicsDropShadowEffect(self)
        shadow.setBlurRadius(18)
        shadow.setOffset(0, 3)
        shadow.setColor(NOW.color("shadow", 70))
        self.setGraphicsEffect(shadow)
        self._later = QTimer(self)
        self._later.setInterval(0)
        self._later.timeout.connect(self._try_one)
        self.hide()

    def _put_together(self) -> None:
        side = QWidget()
        side.setFixedWidth(FIGURES)
        left = QVBoxLayout(side)
        left.setContentsMargins(0, 0, 0, 0)
        left.setSpacing(6)
        left.addWidget(self.figures)
        left.addStretch(1)
        left.addWidget(self.why)
        left.addWidget(self.tape)
        row = QHBoxLayout()
        row.setSpacing(12)
        row.addWidget(side)
        row.addWidget(self._area, 1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(12, 8, 8, 10)
        layout.setSpacing(6)
        layout.addWidget(self.title)
        layout.addLayout(row, 1)

    @contained("what begins here")
    def show_thing(self, thing: Thing, at: QPointF, snap: float, *, by_key: bool) -> None:
        """Shows a thing beside a place of the table (px); `snap` (mm) is how near a station is meant."""
        model = self._model
        self.thing, self._shown, self._tried = thing, model.pattern, {}
        piece = piece_of(model, thing)
        block = model.derived.derivation.block.drafted(piece)
        self.title.setText(title_of_thing(model, thing))
        self.figures.show_rows(figures_of(model, thing))
        self.why.setText("")
        is_body = model.pattern.has(thing.piece)
        place = Beginning(thing, piece, block, model.pattern, model.style.units, snap)
        self.offers = offers(place) if is_body else []
        empty(self._rows)
        self.buttons = [self._button(number, offer) for number, offer in enumerate(self.offers)]
        for button in self.buttons:
            self._rows.addWidget(button)
        if not self.offers:
            self._rows.addWidget(label("A part of its own: it follows the edge that it was made for.", "quiet"))
        self._rows.addStretch(1)
        self._place(at)
        self.show()
        self.raise_()
        self._later.start()
        if by_key or self._table.hasFocus():
            (self.buttons[0] if self.buttons else self.tape).setFocus(Qt.FocusReason.OtherFocusReason)

    def _button(self, number: int, offer: Offer) -> QPushButton:
        button = QPushButton(offer.title)
        button.setObjectName("offer")
        button.setIcon(icon(PICTURES.get(offer.do, "plus")))
        button.setIconSize(QSize(16, 16))
        button.setFixedHeight(ROW - 1)
        button.clicked.connect(lambda _on=False, number=number: self.begin(number))
        button.installEventFilter(self)
        return button

    def _place(self, at: QPointF) -> None:
        """Beside the place, on the side with more room, whole on the table."""
        rows = min(max(len(self.offers), 4.0), ROWS)
        high = int(min(max(rows * ROW + 52, self.figures.sizeHint().height() + 140), self._table.height() - RULER - 12))
        self.setFixedSize(min(WIDE, self._table.width() - RULER - 8), high)
        right = at.x() + BESIDE + self.width() <= self._table.width() - 4
        x = at.x() + BESIDE if right else at.x() - BESIDE - self.width()
        x = min(max(x, RULER + 4.0), self._table.width() - self.width() - 4.0)
        y = min(max(at.y() - 40.0, RULER + 4.0), self._table.height() - self.height() - 6.0)
        self.move(QPoint(round(x), round(y)))

    def follow(self) -> None:
        """Closes when the pattern that it is about has changed."""
        if self.isVisible() and (self.thing is None or self._shown is not self._model.pattern):
            self.hide()

    @contained("what begins here")
    def _try_one(self) -> None:
        """Whether the next step can be done: one that cannot is dim and says why."""
        number = next((k for k in range(len(self.offers)) if k not in self._tried), None)
        if number is None or not self.isVisible():
            self._later.stop()
            return
        tried = first_that_works(self._model, self.offers[number].values)
        self._tried[number] = tried
        button = self.buttons[number]
        button.setProperty("dim", tried.step is None)
        button.setToolTip(tried.fault)
        button.setAccessibleDescription(tried.fault)
        if tried.step is None:
            repolish(button)

    def finish(self) -> None:
        """Tries what was not tried yet at once."""
        while self.isVisible() and len(self._tried) < len(self.offers):
            self._try_one()

    def begin(self, number: int) -> None:
        """Begins a step here; one that cannot be done says why, and the card stays."""
        tried = self._tried.get(number) or first_that_works(self._model, self.offers[number].values)
        if tried.step is None:
            self.why.setText(tried.fault)
            return
        self.hide()
        self._model.recipe.add_step(tried.step)
        self.begun.emit()

    def _measure(self) -> None:
        thing = self.thing
        self.hide()
        if thing is not None:
            self._table.setFocus()
            self.measured.emit(thing)

    # Keys.

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        if event.key() == Qt.Key.Key_Escape:
            self.hide()
            self._table.setFocus()
            return
        super().keyPressEvent(event)

    def eventFilter(self, watched: object, event: QEvent | None) -> bool:
        """Up and down go through the steps; what cannot be done says why as soon as it is reached."""
        if event is None or watched not in self.buttons:
            return False
        number = self.buttons.index(watched)
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            by = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
            if by:
                goal = self.buttons[(number + by) % len(self.buttons)]
                goal.setFocus(Qt.FocusReason.TabFocusReason)
                self._area.ensureWidgetVisible(goal)
                return True
            if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
                self.begin(number)
                return True
        if event.type() in (QEvent.Type.FocusIn, QEvent.Type.Enter):
            tried = self._tried.get(number)
            self.why.setText(tried.fault if tried is not None else "")
        return False

    def mousePressEvent(self, event: object) -> None:
        """A press on the card is not one on the table under it."""
