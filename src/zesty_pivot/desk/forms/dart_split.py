"""The form of dart.split: a row for each place."""

from __future__ import annotations

from typing import Any

from PyQt6.QtWidgets import QCheckBox, QHBoxLayout, QPushButton, QToolButton, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.called import title_of
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import share_of
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.dart_split import MOST_PARTS, DartPart, SplitDart
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.forms.base import FormEntry, StepForm
from zesty_pivot.desk.forms.places import chosen_first, has_darts, place_choices, place_key, place_value
from zesty_pivot.desk.icons import icon
from zesty_pivot.desk.model import DeskModel

DO = "dart.split"

# Offered one after the other when a place is added: more than the most parts a split can have.
OFFERED = (
    "mid_armhole", "french", "mid_neck", "side_bust", "mid_shoulder", "waist", "centre_bust", "centre_neck", "side_waist",
)  # fmt: skip


class PartRow(QWidget):
    """One place and how much goes there."""

    def __init__(self, form: SplitDartForm, number: int) -> None:
        super().__init__()
        self.to = Choice(f"Place {number + 1}")
        self.amount = CalcField(form.worth_of_amount, f"Amount at place {number + 1}", may_be_empty=True)
        self.amount.edit.setPlaceholderText("the rest; or 40%; or 4 cm")
        self.away = QToolButton()
        self.away.setIcon(icon("trash-2"))
        self.away.setToolTip("Take this place out")
        self.away.setAccessibleName(f"Take place {number + 1} out")
        head = QHBoxLayout()
        head.setSpacing(4)
        head.addWidget(self.to, 1)
        head.addWidget(self.away)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 4)
        layout.setSpacing(3)
        layout.addLayout(head)
        layout.addWidget(self.amount)
        self.to.picked.connect(lambda key: form.place(number, key))
        self.amount.committed.connect(lambda text: form.amount(number, text))
        self.away.clicked.connect(lambda: form.take_out(number))


class SplitDartForm(StepForm):
    """Which dart, and its places."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.on, self.dart = Choice("Piece"), Choice("Dart")
        self.equal = QCheckBox("Equal mouths")
        self.equal.setToolTip("All mouths come out equally wide; take “where it is” as a place to leave some there")
        self.rows: list[PartRow] = []
        self._parts = QVBoxLayout()
        self.more = QPushButton("Another place")
        self.add_row("Piece", self.on)
        self.add_row("Dart", self.dart)
        self._rows.addWidget(self.equal)
        self._rows.addLayout(self._parts)
        self._rows.addWidget(self.more)
        self.on.picked.connect(self._other_piece)
        self.dart.picked.connect(lambda dart: self.change({"dart": dart}, "split another dart"))
        self.equal.clicked.connect(self._equal)
        self.more.clicked.connect(self._add)
        self._before: Pattern | None = None

    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        if not isinstance(step, SplitDart):
            return
        self.at, self._before = at, before
        self.on.show_choices([(p.name, words(p.name)) for p in before.pieces if p.darts], step.on)
        piece = before.piece(step.on) if before.has(step.on) else None
        darts = piece.darts if piece else ()
        self.dart.show_choices([(d.id, f"{title_of(piece, d.id)} dart") for d in darts], step.dart)
        self.equal.setChecked(step.equal)
        while len(self.rows) < len(step.parts):
            row = PartRow(self, len(self.rows))
            self.rows.append(row)
            self._parts.addWidget(row)
        while len(self.rows) > len(step.parts):
            row = self.rows.pop()
            self._parts.removeWidget(row)
            row.hide()
            row.deleteLater()
        for number, (row, part) in enumerate(zip(self.rows, step.parts, strict=True)):
            row.to.show_choices(place_choices(piece, darts, part.to), place_key(part.to))
            row.amount.set_text(_amount(part), (step, number))
            row.amount.setVisible(not step.equal)
            row.away.setEnabled(len(step.parts) > 1)
        self.more.setEnabled(len(step.parts) < MOST_PARTS)

    def worth_of_amount(self, text: str) -> str:
        """Words for an amount: a share ends in %, anything else is a mouth. Raises a ZestyError for what is neither."""
        if text.endswith("%"):
            share = share_of(text)
            if share <= 0.0:
                raise ZestyError("a share of 0% moves nothing", advice="Give a share over 0%, or take the place out.")
            return f"{100 * share:.4g} % of the dart goes there"
        return f"{self.worth_of_length()(text)} wide"

    def _values(self) -> list[dict[str, Any]]:
        """The parts as JSON."""
        found: list[dict[str, Any]] = registry.dump(self.model.style.steps[self.at])["parts"]
        return found

    def place(self, number: int, key: str) -> None:
        """Another place for a part."""
        value = place_value(key)
        if value is not None:
            parts = self._values()
            parts[number]["to"] = value
            self.change({"parts": parts}, "another place")

    def amount(self, number: int, text: str) -> None:
        """Another amount for a part; no text is the rest."""
        parts = self._values()
        for key in ("share", "mouth"):
            parts[number].pop(key, None)
        if text:
            parts[number]["share" if text.endswith("%") else "mouth"] = text
        self.change({"parts": parts}, f"amount {text}" if text else "the rest")

    def take_out(self, number: int) -> None:
        """A part less."""
        parts = self._values()
        del parts[number]
        self.change({"parts": parts}, "remove a place")

    def _add(self) -> None:
        """A part more, at a station that is not taken, with a small share so that it can be."""
        parts = self._values()
        taken = [part["to"].get("station") for part in parts]
        free = next((name for name in OFFERED if name not in taken), OFFERED[0])
        new: dict[str, Any] = {"to": {"station": free}}
        if not self.equal.isChecked():
            new["share"] = "10%"
        self.change({"parts": [*parts, new]}, "another place")

    def _equal(self, equal: bool) -> None:
        """With equal mouths amounts go; without, all but the last begin with equal shares."""
        parts = [{"to": part["to"]} for part in self._values()]
        if not equal:
            for part in parts[:-1]:
                part["share"] = f"{100 // len(parts)}%"
        self.change({"parts": parts, "equal": equal or None}, "equal mouths" if equal else "amounts of their own")

    def _other_piece(self, name: str) -> None:
        if self._before is not None and self._before.piece(name).darts:
            self.change({"on": name, "dart": self._before.piece(name).darts[0].id}, f"on the {words(name)}")


def _amount(part: DartPart) -> str:
    return str(part.share if part.share is not None else part.mouth if part.mouth is not None else "")


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: half of the chosen dart, or the first, to a station where it is not."""
    for piece in chosen_first(model):
        for dart in sorted(piece.darts, key=lambda dart: dart.id != model.dart):
            for name in ("mid_armhole", "side_bust", "mid_neck", "waist"):
                part = {"to": {"station": name}, "share": "50%"}
                value: dict[str, object] = {"do": DO, "on": piece.name, "dart": dart.id, "parts": [part]}
                if model.recipe.would_change(registry.read(value)):
                    return value
    return None


FORM = FormEntry(DO, SplitDartForm, first_step, has_darts, order=20)
