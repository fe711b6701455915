"""The findings in the reading panel: by what they mean for the sewing, with what mends them; accepted with a reason."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, Qt, pyqtSignal
from PyQt6.QtGui import QEnterEvent, QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QBoxLayout, QFrame, QHBoxLayout, QLabel, QLineEdit, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.checks.base import Finding, Mend, Severity
from zesty_pivot.core.formats import accepted
from zesty_pivot.core.piece.names import words
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.labels import empty, label
from zesty_pivot.desk.mending import true_all, truing
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.theme import NOW

HEADS = {Severity.ERROR: "Stops the sewing", Severity.WARNING: "Will show", Severity.REMARK: "Good to know"}
PICTURES = {
    Severity.ERROR: ("circle-x", "error"),
    Severity.WARNING: ("triangle-alert", "citrus"),
    Severity.REMARK: ("info", "cool"),
}


class Findings(QWidget):
    """Shows the model's findings. `looked` carries one that is pointed at or chosen, None when none is."""

    looked = pyqtSignal(object)

    def __init__(self, model: DeskModel, after: Callable[[], None]) -> None:
        super().__init__()
        self._model, self._after = model, after
        self.title = label("Findings", "heading")
        self._rows = QVBoxLayout()
        self._rows.setSpacing(6)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(self.title)
        column.addLayout(self._rows)
        self._shown: tuple[Finding, ...] | None = None  # None makes them anew
        model.pace.checked.connect(self.refresh)
        self.mends: list[tuple[QPushButton, Mend]] = []
        self.cards: list[FindingCard] = []

    def restyle(self) -> None:
        """Draws what holds colours of its own anew."""
        self._shown = None
        self.refresh()

    @contained("the findings")
    def refresh(self) -> None:
        """Shows the model."""
        if not self._model.pace.is_checked and not self._model.is_previewing:
            return  # those of a moment ago stay until the new ones are known
        found = self._model.findings
        if found == self._shown:
            return
        spare = self.cards if self._shown is not None else []
        self._shown = found
        self.mends.clear()
        order = list(HEADS)
        self.cards = [self._card(each, spare) for each in sorted(found, key=lambda each: order.index(each.severity))]
        for card in self.cards:
            self._rows.removeWidget(card)
        empty(self._rows)
        count = sum(not finding.accepted for finding in found)
        self.title.setText(f"Findings  {count}" if count else "Findings")
        if not found:
            self._rows.addWidget(label("Nothing to mend: it will sew together.", "quiet"))
        if self._model.looking is None and len(truing(self._model.derived)) > 1:
            button = QPushButton(icon("wand-sparkles"), "True all flagged seams")
            button.setToolTip("A step for each corner, jog and unequal leg, on one card (Ctrl+Shift+T)")
            button.clicked.connect(self._true_all)
            self._rows.addWidget(button)
        for severity, head in HEADS.items():
            mine = [card for card in self.cards if card.finding.severity is severity]
            if mine:
                self._rows.addWidget(label(head, "quiet"))
            for card in mine:
                if card.mend is not None and card.finding.mend is not None:
                    self.mends.append((card.mend, card.finding.mend))
                self._rows.addWidget(card)

    def _card(self, finding: Finding, spare: list[FindingCard]) -> FindingCard:
        """A finding's card: the one that shows it already, else a new one."""
        limit = self._limit(finding)
        known = next((card for card in spare if card.finding == finding and card.limit == limit), None)
        if known is not None:
            spare.remove(known)
            return known
        card = FindingCard(finding, limit)
        card.mended.connect(self._mend)
        card.accepted.connect(self._accept)
        card.taken_back.connect(self._take_back)
        card.looked.connect(self.looked)
        return card

    def _mend(self, mend: Mend) -> None:
        """Does what the finding offers. Its button goes with the finding, so the hand goes back to the table."""
        self._model.recipe.mend(mend)
        self._after()

    def _true_all(self) -> None:
        true_all(self._model)
        self._after()

    def _accept(self, finding: Finding, reason: str) -> None:
        self._model.recipe.accept(finding, reason)
        self._after()

    def _take_back(self, finding: Finding) -> None:
        self._model.recipe.accept(finding, "")
        self._after()

    def _limit(self, finding: Finding) -> str:
        if finding.unit == "mm":
            return self._model.length(finding.limit, fine=True)
        if finding.unit == "deg":
            return f"{finding.limit:g}°" if finding.limit > 1e-6 else "0°"
        return ""


SHORT = 18  # letters of a button that another stands beside


class FindingCard(QFrame):
    """One finding. A click shows its place on the table."""

    mended = pyqtSignal(object)
    accepted = pyqtSignal(object, str)
    taken_back = pyqtSignal(object)
    looked = pyqtSignal(object)

    def __init__(self, finding: Finding, limit: str) -> None:
        super().__init__()
        self.finding, self.limit = finding, limit
        self.setObjectName("finding")
        self.setProperty("severity", finding.severity.value)
        self.setProperty("accepted", bool(finding.accepted))
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.mend: QPushButton | None = None
        self.accept: QPushButton | None = None
        self.reason = QLineEdit()
        self.reason.setPlaceholderText("Why it may stay, then Enter")
        self.reason.setAccessibleName("Why this finding may stay")
        self.reason.setMaxLength(500)
        self.reason.hide()
        self.reason.returnPressed.connect(self._give_reason)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(10, 7, 10, 8)
        layout.setSpacing(3)
        head = QHBoxLayout()
        head.setSpacing(7)
        mark, (picture, color) = QLabel(), PICTURES[finding.severity]
        mark.setPixmap(icon(picture, NOW.quiet if finding.accepted else getattr(NOW, color)).pixmap(16, 16))
        mark.setAlignment(Qt.AlignmentFlag.AlignTop)
        place = f"{words(finding.piece).capitalize()}: " if finding.piece else ""
        head.addWidget(mark)
        head.addWidget(label(f"{place}{finding.message}.", "quiet" if finding.accepted else ""), 1)
        layout.addLayout(head)
        if finding.accepted:
            layout.addWidget(label(f"Accepted: {finding.accepted}", "quiet"))
        else:
            layout.addWidget(label(f"Limit {limit}. {finding.advice}" if limit else finding.advice, "quiet"))
        layout.addLayout(self._buttons())
        layout.addWidget(self.reason)

    def _buttons(self) -> QBoxLayout:
        """What mends it, and beside it (under it where both are too wide for the panel) what lets it stay."""
        row = QHBoxLayout()
        row.setSpacing(6)
        finding = self.finding
        if finding.mend is not None and not finding.accepted:
            self.mend = QPushButton(finding.mend.title)
            self.mend.setIcon(icon("wand-sparkles", NOW.cool))
            self.mend.clicked.connect(lambda: self.mended.emit(finding.mend))
            row.addWidget(self.mend)
        if accepted.may_be(finding):
            self.accept = QPushButton("Take back" if finding.accepted else "Accept…")
            self.accept.setObjectName("plain")
            tip = (
                "It is told again"
                if finding.accepted
                else "It may stay, for a reason that is kept; it is told again when it gets worse"
            )
            self.accept.setToolTip(tip)
            self.accept.clicked.connect(self._ask_reason)
            row.addWidget(self.accept)
        is_wide = self.mend is not None and self.accept is not None and len(self.mend.text()) > SHORT
        if is_wide:
            row.setDirection(QBoxLayout.Direction.TopToBottom)
            for button in (self.mend, self.accept):
                row.setAlignment(button, Qt.AlignmentFlag.AlignLeft)
        else:
            row.addStretch(1)
        return row

    def _ask_reason(self) -> None:
        if self.finding.accepted:
            self.taken_back.emit(self.finding)
            return
        self.reason.show()
        self.reason.setFocus()

    def _give_reason(self) -> None:
        reason = self.reason.text().strip()
        if reason:
            self.accepted.emit(self.finding, reason)

    # Looking.

    def enterEvent(self, event: QEnterEvent | None) -> None:
        super().enterEvent(event)
        self.looked.emit(self.finding)

    def leaveEvent(self, event: QEvent | None) -> None:
        super().leaveEvent(event)
        self.looked.emit(None)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        super().mousePressEvent(event)
        self.looked.emit(self.finding)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self.looked.emit(self.finding)
        elif event is not None and event.key() == Qt.Key.Key_Escape and self.reason.isVisible():
            self.reason.hide()
            self.setFocus()
        else:
            super().keyPressEvent(event)
