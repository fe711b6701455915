"""The form of dart.move."""

from __future__ import annotations

import math

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.called import title_of
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import share_of
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.dart_move import MoveDart
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.forms.base import FormEntry, StepForm
from zesty_pivot.desk.forms.place_field import PlaceField
from zesty_pivot.desk.forms.places import chosen_first, has_darts
from zesty_pivot.desk.model import DeskModel

DO = "dart.move"


class MoveDartForm(StepForm):
    """Which dart, where to, and how much: by share, by the new mouth, or by what stays."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.on, self.dart = Choice("Piece"), Choice("Dart")
        self.to = PlaceField("Opens at", self.worth_of_place)
        self.share = CalcField(_share_words, "Share")
        self.mouth = CalcField(self.worth_of_length(), "New mouth", may_be_empty=True, known=self.known_lengths)
        self.mouth.edit.setPlaceholderText("or a mouth, such as 4 cm")
        self.stays = CalcField(self.worth_of_length(), "Stays where it was", may_be_empty=True, known=self.known_lengths)
        self.stays.edit.setPlaceholderText("or all but, such as 1/4 in")
        self.add_row("Piece", self.on)
        self.add_row("Dart", self.dart)
        self.add_row("Opens at", self.to)
        self.add_row("Share that goes", self.share)
        self.add_row("New mouth", self.mouth)
        self.add_row("Stays where it was", self.stays)
        self.on.picked.connect(self._other_piece)
        self.dart.picked.connect(lambda dart: self.change({"dart": dart}, "move another dart"))
        self.to.placed.connect(lambda value: self.change({"to": value}, "another place"))
        self.share.committed.connect(lambda text: self.change({"share": text, "mouth": None, "stays": None}, f"share {text}"))
        self.mouth.committed.connect(self._mouth)
        self.stays.committed.connect(self._stays)
        self._before: Pattern | None = None

    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        if not isinstance(step, MoveDart):
            return
        self.at, self._before = at, before
        self.on.show_choices([(p.name, words(p.name)) for p in before.pieces if p.darts], step.on)
        piece = before.piece(step.on) if before.has(step.on) else None
        darts = piece.darts if piece else ()
        self.dart.show_choices([(d.id, f"{title_of(piece, d.id)} dart") for d in darts], step.dart)
        self.to.show_place(step.to, piece, [d for d in darts if d.id != step.dart], step)
        by_share = step.mouth is None and step.stays is None
        self.share.set_text(str(step.share) if by_share else "", step)
        self.share.setEnabled(by_share)
        self.mouth.set_text("" if step.mouth is None else str(step.mouth), step)
        self.stays.set_text("" if step.stays is None else str(step.stays), step)

    def _stays(self, text: str) -> None:
        told = f"all but {text}" if text else "the whole dart"
        self.change({"stays": text or None, "mouth": None, "share": None}, told)

    def _mouth(self, text: str) -> None:
        self.change({"mouth": text or None, "stays": None, "share": None}, f"mouth {text}" if text else "the whole dart")

    def _other_piece(self, name: str) -> None:
        if self._before is not None and self._before.piece(name).darts:
            self.change({"on": name, "dart": self._before.piece(name).darts[0].id}, f"on the {words(name)}")


def _share_words(text: str) -> str:
    if not any(letter.isdigit() for letter in text):
        raise ZestyError(f"{text!r} is not a share", advice="Write how much goes, such as 55%, 0.55 or 1/3.")
    share = share_of(text)
    return "all of it" if math.isclose(share, 1.0) else f"{100 * share:.4g} % goes, {100 * (1 - share):.4g} % stays"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the chosen dart, or the first, to a station where no dart is. None without darts."""
    for piece in chosen_first(model):
        for dart in piece.darts:
            if model.dart is not None and piece.has_dart(model.dart) and dart.id != model.dart:
                continue
            for name in ("french", "mid_armhole", "side_bust", "waist", "mid_shoulder"):
                found: dict[str, object] = {"do": DO, "on": piece.name, "dart": dart.id, "to": {"station": name}}
                if model.recipe.would_change(registry.read(found)):
                    return found
    return None


FORM = FormEntry(DO, MoveDartForm, first_step, has_darts, order=10)
