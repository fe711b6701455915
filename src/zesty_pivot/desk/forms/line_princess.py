"""The form of line.princess, with a table of intakes: what the darts give at each level, and what is asked for."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.procedures.intakes import INTAKES
from zesty_pivot.core.recipe.by_halves import by_halves
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.line_princess import Princess
from zesty_pivot.desk.forms.base import FormEntry, StepForm
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import PlainForm
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow, PlaceRow
from zesty_pivot.desk.model import DeskModel

DO = "line.princess"

STARTS = ("mid_shoulder", "mid_armhole", "mid_neck")

GIVE_BACK = [("outside", "outside, armhole redrawn"), ("underarm", "shoulder and underarm"), ("none", "not given back")]
MEND = [("top", "at the upper end"), ("bottom", "at the lower end")]
REST = [("bend", "darts bent to the line"), ("dart", "a small dart")]


@record
class IntakeRow(LengthRow):
    """The intake at a level: an empty field stays with the darts, and says what they give."""

    empty: str = "as the darts give"
    signed: bool = True


@record
class CentreRow(LengthRow):
    """How much of an intake comes off the centre panel; shown where there is an intake."""

    empty: str = "half"


def _takes(name: str) -> Callable[[Any], bool]:
    """Whether an intake of its own is asked for at a level."""
    return lambda step: any(getattr(step, key) is not None for key in (name, f"centre_{name}"))


class PrincessForm(PlainForm):
    """The rows, with the figures of the intake table in the empty fields."""

    def show_step(self, at: int, step: Any, before: Pattern) -> None:
        super().show_step(at, step, before)
        if isinstance(step, Princess):
            self._show_intakes(step, before)

    def _show_intakes(self, step: Princess, before: Pattern) -> None:
        try:
            plan = by_halves(step, before)  # a whole piece shows the figures of one side
            if plan is not None and isinstance(plan.step, Princess):
                step, before = plan.step, plan.halves[plan.sides[0]]
            found = step.intakes(before, self.model.derived.context)
        except ZestyError:
            return
        bottom = "waist" if "waist" not in found else "bottom"
        for name in ("top", "chest", "under_bust", "waist", "hip"):
            field = self.fields[name]
            given = found.get(name) or (found.get("bottom") if name == bottom else None)
            is_asked = getattr(step, name) is not None
            field.setEnabled(given is not None or is_asked)
            if given is None:
                field.edit.setPlaceholderText("not on this line")
                continue
            natural, made = (self.model.length(mm) for mm in given)
            field.edit.setPlaceholderText(f"darts give {natural}" if natural == made else f"{made} (darts {natural})")
            field.edit.setToolTip(f"The darts give {natural} here; it is {made} now")


ROWS = (
    PieceRow(),
    PlaceRow("from_", "From", written="from"),
    LengthRow("bow_above", "Upper part bowed to the side", signed=True),
    LengthRow("past", "Passes the point, to the side", signed=True),
    ChoiceRow("rest", "What lies between", when=lambda step: str(step.past) not in ("0", "0.0"), choices=lambda _s, _p: REST),
    PlaceRow("to", "To", empty="under its point"),
    LengthRow("bow_below", "Lower part bowed to the side", signed=True),
    ChoiceRow("school", "Intake, at least", choices=lambda _s, _p: [(name, school.title) for name, school in INTAKES.items()]),
    IntakeRow("top", "Intake at the upper end"),
    CentreRow("centre_top", "of it off the centre panel", when=_takes("top")),
    IntakeRow("chest", "at the chest line"),
    CentreRow("centre_chest", "of it off the centre panel", when=_takes("chest")),
    IntakeRow("under_bust", "at the under-bust line"),
    CentreRow("centre_under_bust", "of it off the centre panel", when=_takes("under_bust")),
    IntakeRow("waist", "at the waist"),
    CentreRow("centre_waist", "of it off the centre panel", when=_takes("waist")),
    IntakeRow("hip", "at the hip line"),
    CentreRow("centre_hip", "of it off the centre panel", when=_takes("hip")),
    ChoiceRow("give_back", "Width taken above", choices=lambda _s, _p: GIVE_BACK),
    ChoiceRow("mend", "Lengths made equal", choices=lambda _s, _p: MEND),
    LengthRow("smooth", "Corner rounded over", signed=True),
    LengthRow("ease", "Side panel eased in by", signed=True),
)


def make(model: DeskModel) -> StepForm:
    """A new form."""
    return PrincessForm(model, Princess, ROWS)


def _starts(piece: Piece) -> list[dict[str, object]]:
    return [
        {"do": DO, "on": piece.name, "from": {"station": start}, **({"bow_above": "-1.5 cm"} if start == "mid_armhole" else {})}
        for start in STARTS
    ]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: from mid shoulder, else from the armhole or the neck; on the chosen piece first."""
    return first_change(model, (value for piece in chosen_first(model) for value in _starts(piece)))


FORM = FormEntry(
    DO,
    make,
    first_step,
    lambda model: any(not piece.is_unfolded and not piece.of for piece in model.pattern.pieces),
    order=176,
)
