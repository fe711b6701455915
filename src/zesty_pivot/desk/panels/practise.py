"""Practise: a question before the pattern opens, a guess, and the table shows the answer. The score is kept by kind of move."""

from __future__ import annotations

import random

from PyQt6.QtWidgets import QButtonGroup, QGridLayout, QHBoxLayout, QPushButton, QRadioButton, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece.spot import STATION_WORDS
from zesty_pivot.core.procedures.dart_moves import DartMove
from zesty_pivot.core.quantity import length_mm
from zesty_pivot.core.recipe.practise import CHOICES, KINDS, Question, QuestionKind, question
from zesty_pivot.core.steps.dart_move import MoveDart
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.column import Column
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.keeping import Keeper
from zesty_pivot.desk.labels import empty, label
from zesty_pivot.desk.lay import Lay
from zesty_pivot.desk.model import DeskModel

ANY = "any"


class PractisePanel(QWidget):
    """Asks, shows, counts. The document is never changed; the answer is only a preview until it is kept."""

    def __init__(self, model: DeskModel, lay: Lay, keeper: Keeper, chance: random.Random | None = None) -> None:
        super().__init__()
        self._model, self._lay, self._keeper = model, lay, keeper
        self._chance = chance or random.Random()  # a game, not a secret
        self.asked: Question | None = None
        self._at = 0  # how many steps lie before the move in question
        self.is_shown = False
        self.kind = Choice("Kind of question")
        self.kind.show_choices([(ANY, "all kinds"), *((kind, title) for kind, title in KINDS.items())], ANY)
        self.text, self.verdict = label(""), label("", "heading")
        self.guess = CalcField(self._worth, "Your guess", may_be_empty=True)
        self.places = [QRadioButton() for _ in range(CHOICES)]
        self._group = QButtonGroup(self)
        self.show_it, self.next_one, self.keep = (
            QPushButton("Show it"),
            QPushButton("Next question"),
            QPushButton("Keep as a step"),
        )
        self.clear = QPushButton("Begin the score anew")
        self._score = QWidget()
        self._score_rows = QGridLayout(self._score)
        self._score_rows.setContentsMargins(0, 0, 0, 0)
        self._score_rows.setColumnStretch(0, 1)
        self._build()
        lay.panel_changed.connect(self.refresh)
        model.document_changed.connect(self._forget)
        model.view_changed.connect(self._put_away)
        keeper.settings_changed.connect(self._show_score)
        self._show_score()
        self.refresh()

    def _build(self) -> None:
        inside = Column()
        layout = inside.rows
        layout.setSpacing(7)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(inside.scrolled())
        layout.addWidget(label("Practise", "heading"))
        layout.addWidget(label("Guess before the pattern opens. A tenth off, or half a centimetre, counts as right.", "quiet"))
        layout.addWidget(self.kind)
        layout.addSpacing(4)
        layout.addWidget(self.text)
        layout.addWidget(self.guess)
        for number, place in enumerate(self.places):
            self._group.addButton(place, number)
            layout.addWidget(place)
        row = QHBoxLayout()
        row.addWidget(self.show_it)
        row.addWidget(self.next_one)
        layout.addLayout(row)
        layout.addWidget(self.verdict)
        layout.addWidget(self.keep)
        layout.addSpacing(8)
        layout.addWidget(label("Score", "heading"))
        layout.addWidget(self._score)
        layout.addWidget(self.clear)
        layout.addStretch(1)
        self.kind.picked.connect(lambda _kind: self.ask())
        self.show_it.clicked.connect(self.reveal)
        self.next_one.clicked.connect(self.ask)
        self.keep.clicked.connect(self._keep)
        self.clear.clicked.connect(lambda: self._keeper.change(lambda s: s.model_copy(update={"practise": {}})))
        self.guess.edit.returnPressed.connect(self.reveal)

    def _worth(self, text: str) -> str:
        mm = length_mm(text, self._model.style.scope())
        if mm <= 0.0:
            raise ZestyError("the mouth must be greater than 0", advice="Write a number such as 3.")
        return f"= {self._model.length(mm)}"

    @contained("the practise panel")
    def refresh(self) -> None:
        """A first question when the panel is looked at; the answer goes from the table when it is left."""
        if self._lay.panel != "practise":
            self._put_away()
        elif self.asked is None:
            self.ask()

    def _put_away(self) -> None:
        if self.asked is not None and (self._lay.panel != "practise" or self._model.view != "style"):
            shown, self.asked = self.is_shown, None
            if shown:
                self._model.preview(None)

    def _forget(self) -> None:
        """Another document or another step: the question was about what is there no longer."""
        self.asked = None
        if self._lay.panel == "practise" and self._model.view == "style":
            self.ask()

    def begin_with(self, seed: int, kind: QuestionKind) -> None:
        """Questions of one kind in an order that can be had again, for pictures and tests."""
        self._chance.seed(seed)
        self.kind.setCurrentIndex(self.kind.findData(kind))
        self.ask()

    def ask(self) -> None:
        """Another question about the pattern on the table."""
        if self.asked is not None and self.is_shown:
            self._model.preview(None)
        value = self.kind.currentData()
        kind: QuestionKind = self._chance.choice(list(KINDS)) if value == ANY else value
        context = self._model.derived.context
        self.is_shown, self._at = False, self._model.state_index
        try:
            self.asked = question(kind, self._model.pattern, context, self._chance)
        except ZestyError as fault:
            self.asked = None
            self.text.setText(str(fault))
        self._show()

    def _show(self) -> None:
        asked = self.asked
        if asked is not None:
            self.text.setText(asked.text)
        chooses = asked is not None and bool(asked.choices)
        self.guess.setVisible(asked is not None and not chooses)
        self.guess.set_text("", id(asked))
        self._group.setExclusive(False)
        for number, place in enumerate(self.places):
            is_there = asked is not None and number < len(asked.choices)
            place.setVisible(is_there)
            place.setChecked(False)
            place.setEnabled(True)
            if asked is not None and is_there:
                place.setText(STATION_WORDS[asked.choices[number]])
        self._group.setExclusive(True)
        self.verdict.setText("")
        self.verdict.hide()
        self.keep.hide()
        self.show_it.setEnabled(asked is not None)

    def _guessed(self) -> float | str | None:
        """The guess, or None when there is none that can be read."""
        if self.asked is not None and self.asked.choices:
            number = self._group.checkedId()
            return self.asked.choices[number] if 0 <= number < len(self.asked.choices) else None
        text = self.guess.edit.text().strip()
        return None if not text or self.guess.fault() else length_mm(text, self._model.style.scope())

    def reveal(self) -> None:
        """Opens the pattern on the table and says how near the guess was."""
        asked, guess = self.asked, self._guessed()
        if asked is None or self.is_shown:
            return
        if guess is None:
            self._model.say("Make a guess first: that is how the eye learns.", fault=True)
            return
        right = asked.is_right(guess)
        self.is_shown = True
        piece = asked.move.on
        self._model.choose_pivot((piece, self._model.pattern.piece(piece).dart(asked.move.dart).pivot))
        steps = self._model.style.steps
        self._model.preview(self._model.style.with_steps((*steps[: self._at], step_of(asked.move), *steps[self._at :])))
        mouth = self._model.length(asked.mouth_mm)
        answer = STATION_WORDS[asked.answer] if asked.choices else mouth
        self.verdict.setText(f"Right: {answer}." if right else f"It is {answer}.")
        self.verdict.show()
        self.keep.show()
        self.show_it.setEnabled(False)
        for place in self.places:
            place.setEnabled(False)
        self._count(asked.kind, right=right)

    def _count(self, kind: QuestionKind, *, right: bool) -> None:
        done, good = self._keeper.settings.practise.get(kind, (0, 0))
        score = {**self._keeper.settings.practise, kind: (done + 1, good + int(right))}
        self._keeper.change(lambda settings: settings.model_copy(update={"practise": score}))

    def _show_score(self) -> None:
        empty(self._score_rows)
        score = self._keeper.settings.practise
        for number, (kind, title) in enumerate(KINDS.items()):
            done, good = score.get(kind, (0, 0))
            self._score_rows.addWidget(label(title.capitalize()), number, 0)
            self._score_rows.addWidget(label(f"{good} of {done}" if done else "none yet", "figure", wraps=False), number, 1)
        self.clear.setEnabled(bool(score))

    def _keep(self) -> None:
        """The move becomes a step of the recipe."""
        asked = self.asked
        if asked is not None and self.is_shown:
            self.asked = None
            step = step_of(asked.move)
            self._model.recipe.add_step(step)


def step_of(move: DartMove) -> MoveDart:
    """The step that makes a move of a question."""
    values = {"on": move.on, "dart": move.dart, "to": move.to, "share": f"{100.0 * move.share:g}%"}
    return MoveDart.model_validate(values)
