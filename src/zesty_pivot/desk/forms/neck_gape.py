"""The form of neck.gape."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.necklines.gape import suggested
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.steps.neck_gape import TakeGape
from zesty_pivot.desk.forms.base import FormEntry, StepForm
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import PlainForm
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow, PlaceRow, dart_choices
from zesty_pivot.desk.model import DeskModel

DO = "neck.gape"


class _IntoRow(ChoiceRow):
    def value(self, step: Any) -> Any:
        return step.into or "widest"


def _darts(step: Any, piece: Any) -> list[tuple[str, str]]:
    return [("widest", "the widest dart"), *dart_choices(step, piece)]


class GapeForm(PlainForm):
    """Shows what is suggested where no amount is given."""

    def change(self, values: dict[str, Any], title: str) -> None:
        super().change({key: None if value == "widest" else value for key, value in values.items()}, title)

    def show_step(self, at: int, step: Any, before: Pattern) -> None:
        super().show_step(at, step, before)
        if isinstance(step, TakeGape) and before.has(step.on):
            piece = before.piece(step.on)
            mm = suggested(piece, self.model.derived.derivation.block.drafted(piece))
            self.fields["amount"].edit.setPlaceholderText(f"{self.model.length(mm, fine=True)}, suggested" if mm else "")


def make(model: DeskModel) -> StepForm:
    """A new form."""
    return GapeForm(
        model, TakeGape, (
            PieceRow(follow=lambda _piece: {"into": None}),
            LengthRow("amount", "Taken out of the edge", empty="as suggested"),
            PlaceRow("at", "Where"),
            _IntoRow("into", "Into", choices=_darts),
        ),
    )  # fmt: skip


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: what is suggested, else half a centimetre."""
    values: list[dict[str, object]] = []
    for piece in chosen_first(model):
        values += [{"do": DO, "on": piece.name}, {"do": DO, "on": piece.name, "amount": "5 mm"}]
    return first_change(model, values)


FORM = FormEntry(
    DO,
    make,
    first_step,
    lambda model: any("bust_point" in piece.landmarks and piece.darts for piece in model.pattern.pieces),
    order=84,
)
