"""The recipe strip: the block and every step as a card with a picture of the pattern after it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QPointF, Qt, QTimer
from PyQt6.QtGui import QDragEnterEvent, QDragMoveEvent, QDropEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.recipe import State
from zesty_pivot.core.steps.base import FrontAndBackStep
from zesty_pivot.desk.card import MIME, PICTURE, Card
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.theme import NOW
from zesty_pivot.desk.thumbs import is_drawn, thumbnail
from zesty_pivot.desk.variant_bar import HIGH as VARIANTS_HIGH
from zesty_pivot.desk.variant_bar import VariantBar

HEIGHT, LOW_HEIGHT = 136, 78
MENU = (
    "step.edit", "step.fold", "step.rename", "variant.new", "step.duplicate", "step.copy", "step.keep", "step.off",
    "step.earlier", "step.later", "step.remove",
)  # fmt: skip
BLOCK_MENU = ("variant.new", "step.paste", "step.find", "trace.block")
SHOWN_MS = 60  # pictures of a window that is being opened are drawn once it has been painted


class _Row(QWidget):
    """What scrolls: the cards, and the line where a dragged card would go. Takes the drop."""

    def __init__(self, strip: RecipeStrip) -> None:
        super().__init__()
        self._strip = strip
        self.goal: int | None = None  # the step before which a dragged card would go
        self.setAcceptDrops(True)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is not None and event.mimeData() is not None and event.mimeData().hasFormat(MIME):  # type: ignore[union-attr]
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        if event is not None:
            self.goal = self._strip.goal_at(event.position().x())
            self._strip.reveal(event.position().x())
            event.acceptProposedAction()
            self.update()

    def dragLeaveEvent(self, event: object) -> None:
        self.goal = None
        self.update()

    def dropEvent(self, event: QDropEvent | None) -> None:
        self.goal = None
        self.update()
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and data.hasFormat(MIME):
            self._strip.drop(int(bytes(data.data(MIME).data()).decode()), event.position().x())
            event.acceptProposedAction()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self.goal is None:
            return
        painter = QPainter(self)
        x = self._strip.gap_before(self.goal)
        painter.setPen(QPen(NOW.color("citrus"), 3))
        painter.drawLine(QPointF(x, 6), QPointF(x, self.height() - 6))
        painter.end()


def _groups(states: tuple[State, ...]) -> dict[str, tuple[int, int]]:
    """The first and the last number of the steps of each group, where they stand beside each other and are more than one."""
    found: dict[str, tuple[int, int]] = {}
    for number, state in enumerate(states):
        name = state.step.group if state.step is not None else ""
        if name and name in found and found[name][1] == number - 1:
            found[name] = (found[name][0], number)
        elif name and name not in found:
            found[name] = (number, number)
    return {name: ends for name, ends in found.items() if ends[1] > ends[0]}


class RecipeStrip(QWidget):
    """All cards in a row that scrolls. What is done with a card is an action of the window's table."""

    def __init__(self, model: DeskModel, run: Callable[[str], None], menu: Callable[[tuple[str, ...]], QMenu]) -> None:
        super().__init__()
        self.setObjectName("strip")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._model, self._run, self._menu = model, run, menu
        self.cards: list[Card] = []
        self._seen = (-1, -1)  # the chosen card and how many there were, when it was last brought into view
        self._inside = _Row(self)
        self._row = QHBoxLayout(self._inside)
        self._row.setContentsMargins(12, 8, 12, 8)
        self._row.setSpacing(8)
        self._row.addStretch(1)
        self._area = QScrollArea()
        self._area.setWidgetResizable(True)
        self._area.setWidget(self._inside)
        self._area.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.variants = VariantBar(model, menu)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 0)
        layout.setSpacing(0)
        layout.addWidget(self.variants)
        layout.addWidget(self._area)
        self.is_low = False
        self._anchor: int | None = None  # where marking by Shift began
        self.unfolded: set[str] = set()  # groups whose cards are all shown
        self._last_dot = ""  # the last card's, as it was when the findings were looked for
        self._next = 0  # the card whose picture comes next
        self._fit_height()
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self._later = QTimer(self)  # pictures that are not at hand are drawn one by one, once there is time
        self._later.setSingleShot(True)
        self._later.timeout.connect(self._draw_next)
        model.pace.followed.connect(self.refresh)
        model.chosen_changed.connect(self.refresh)
        model.pace.checked.connect(self.refresh)
        self.refresh()

    def set_low(self, low: bool) -> None:
        """A low strip, without pictures, where the window has no height to spare."""
        if low != self.is_low:
            self.is_low = low
            self._fit_height()
            for card in self.cards:
                card.picture.setVisible(not low)
            self.refresh()

    def _fit_height(self) -> None:
        has_variants = bool(self._model.variants.all)
        self.variants.setVisible(has_variants)
        self.setFixedHeight((LOW_HEIGHT if self.is_low else HEIGHT) + (VARIANTS_HIGH if has_variants else 0))

    @contained("the recipe strip")
    def refresh(self) -> None:
        """Shows the model's states."""
        self.variants.refresh()
        self._fit_height()
        states = self._model.derived.derivation.states
        while len(self.cards) < len(states):
            card = Card(len(self.cards))
            card.picture.setVisible(not self.is_low)
            card.chosen.connect(self.choose)
            card.extended.connect(self.extend)
            card.renamed.connect(self._rename)
            card.opened.connect(lambda number: self._on(number, "step.edit"))
            card.asked.connect(self._ask)
            card.focused.connect(lambda number: self.bring_into_view(self.cards[number]))
            self.cards.append(card)
            self._row.insertWidget(self._row.count() - 1, card)
        # While a step is dragged those after it wait, and their cards stay as they were.
        while len(self.cards) > len(states) and not self._model.is_previewing:
            card = self.cards.pop()
            self._row.removeWidget(card)
            card.hide()
            card.deleteLater()
        groups = _groups(states)
        self.unfolded &= set(groups)
        for name, (first, last) in groups.items():
            if first <= self._model.state_index < last:
                self.unfolded.add(name)  # one of its cards is chosen
        for card, state in zip(self.cards, states, strict=False):
            name = state.step.group if state.step is not None else ""
            first, last = groups.get(name, (card.number, card.number))
            is_folded = last > first and name not in self.unfolded
            start, stop = self.marked
            card.mark(self._anchor is not None and start < card.number <= stop)
            chosen = card.number == self._model.state_index
            card.show_state(
                state, said=self._said(card.number, state, first if is_folded else card.number), chosen=chosen,
                dot=self._dot(card.number, state), folded=last - first + 1 if is_folded and card.number == last else 0,
            )  # fmt: skip
            card.setVisible(not is_folded or card.number == last)
        self._next = 0
        if self.isVisible():
            self._draw_next()
        else:
            self._later.start(SHOWN_MS)
        if self._seen != (self._model.state_index, len(states)):
            self._seen = (self._model.state_index, len(states))
            QTimer.singleShot(0, self._show_chosen)  # once the cards have their places

    def _said(self, number: int, state: State, first: int) -> str:
        """What a card says: whose step it is and what it does; a tape what it shows; a folded one what lies in it."""
        step, derivation = state.step, self._model.derived.derivation
        if step is None:
            return derivation.said(number)
        if first < number:
            return "; ".join(
                dict.fromkeys(self._said(each, derivation.states[each], each) for each in range(first, number + 1))
            )
        names = step.names() if isinstance(step, FrontAndBackStep) else [step.on]
        whose = capital(" and ".join(words(name) for name in names))
        said = derivation.said(number)
        before = derivation.states[number - 1].pattern
        if len(state.pattern.tapes) > len(before.tapes):
            said = f"{said.removeprefix('tape: ')}: {self._model.length(state.pattern.tapes[-1].mm)}"
        return said if any(said.lower().startswith(words(name)) for name in names) else f"{whose}: {said}"

    def toggle_fold(self) -> None:
        """Shows the cards that lie under the chosen one, or puts them under it again."""
        step = self._model.style.steps[self._model.step] if self._model.step is not None else None
        groups = _groups(self._model.derived.derivation.states)
        if step is None or step.group not in groups:
            return
        if step.group in self.unfolded:
            self.unfolded.discard(step.group)
            self._model.choose_step(groups[step.group][1] - 1)
        else:
            self.unfolded.add(step.group)
        self.refresh()

    @contained("the pictures of the recipe")
    def _draw_next(self) -> None:
        """Puts pictures on the cards from where it was left: all that are at hand, and two that have to be drawn."""
        if self.is_low:
            return
        derivation, ratio, drawn = self._model.derived.derivation, self.devicePixelRatioF(), 0
        left = self._model.style.table.left
        while self._next < min(len(self.cards), len(derivation.states)):
            pattern = derivation.states[self._next].pattern
            if not is_drawn(pattern, PICTURE, ratio, left):
                drawn += 1
                if drawn > 2:
                    self._later.start(0)
                    return
            self.cards[self._next].show_picture(thumbnail(pattern, derivation.block, PICTURE, ratio, left))
            self._next += 1

    def _show_chosen(self) -> None:
        if self._model.state_index < len(self.cards):
            self.bring_into_view(self.cards[self._model.state_index])

    def _dot(self, number: int, state: State) -> str:
        if state.error is not None:
            return "error"
        if number < len(self.cards) - 1:
            return ""
        if self._model.pace.is_checked:  # else that of a moment ago, until it is known
            severities = {finding.severity.value for finding in self._model.derived.findings if not finding.accepted}
            self._last_dot = "error" if "error" in severities else "warning" if severities & {"warning"} else ""
        return self._last_dot

    def choose(self, number: int) -> None:
        """Looks at the state after a card."""
        self._anchor = None
        self._model.choose_step(number - 1)

    def extend(self, number: int) -> None:
        """Marks the cards from the chosen one to another, with Shift."""
        self._anchor = self._model.state_index if self._anchor is None else self._anchor
        self._model.choose_step(number - 1)

    @property
    def marked(self) -> tuple[int, int]:
        """The first of the marked steps and the one behind the last, counted from 0: those with Shift, the whole of a folded
        card, else the chosen one."""
        at = self._model.state_index
        first, last = (at, at) if self._anchor is None else (min(at, self._anchor), max(at, self._anchor))
        for name, (start, stop) in _groups(self._model.derived.derivation.states).items():
            if name not in self.unfolded:
                first = start if start <= first <= stop else first
                last = stop if start <= last <= stop else last
        return max(first, 1) - 1, last

    def _on(self, number: int, action: str) -> None:
        """An action for the step of a card."""
        if number > 0:
            if self._model.step != number - 1:
                self.choose(number)
            self._run(action)

    def _ask(self, number: int, place: object) -> None:
        """The menu of a card."""
        self.choose(number)
        if number == 0:
            self._menu(BLOCK_MENU).popup(place)  # type: ignore[arg-type]
        else:
            self._menu(MENU).popup(place)  # type: ignore[arg-type]

    def rename(self) -> None:
        """Lets the chosen step's name be typed on its card."""
        if self._model.step is not None:
            self.cards[self._model.step + 1].type_name(self._model.style.steps[self._model.step].name)

    def _rename(self, number: int, name: str) -> None:
        step = self._model.style.steps[number - 1]
        if name != step.name:
            self._model.recipe.replace_step(
                number - 1, step.model_copy(update={"name": name[:120]}), f"name {self._model.recipe.said(number - 1)}"
            )

    # Dragging cards.

    def goal_at(self, x: float) -> int:
        """The step before which a card dropped at x (px of the row) would go."""
        return sum(1 for card in self.cards[1:] if card.geometry().center().x() < x)

    def gap_before(self, step: int) -> float:
        """Where the gap before a step is, px of the row."""
        card = self.cards[min(step, len(self.cards) - 1)]
        return card.geometry().right() + self._row.spacing() / 2 + 1

    def drop(self, step: int, x: float) -> None:
        """Puts a dragged step down at x (px of the row)."""
        goal = self.goal_at(x)
        self._model.recipe.move_step(step, (goal - 1 if goal > step else goal) - step)

    def reveal(self, x: float) -> None:
        """Scrolls on while a card is dragged to an end of the strip."""
        self._area.ensureVisible(round(x), 0, 70, 0)

    def bring_into_view(self, card: Card) -> None:
        """Scrolls so that a card can be seen."""
        self._area.ensureWidgetVisible(card)
