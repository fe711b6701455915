"""The form of trim.strap."""

from __future__ import annotations

from zesty_pivot.core.steps.trim_strap import Strap
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PlaceRow
from zesty_pivot.desk.model import DeskModel

DO = "trim.strap"
KINDS = [("strap", "folded, on the straight"), ("rouleau", "a bias tube")]
PLACES = ({"edge": "neckline", "at": "100%"}, {"edge": "neckline", "at": "60%"})


def first_step(model: DeskModel) -> dict[str, object] | None:
    """Straps at the outer ends of front and back, else further in on their top edges."""
    return first_change(model, ({"do": DO, "on": "front", "at": one, "to": two} for one in PLACES for two in PLACES))


FORM = FormEntry(
    DO,
    plain(
        Strap,
        ChoiceRow("kind", "Kind", choices=lambda _step, _piece: KINDS),
        PlaceRow("at", "Sewn to the front at"),
        PlaceRow("to", "Sewn to the back at"),
        LengthRow("wide", "Width"),
        LengthRow("more", "Longer by, to be fitted", signed=True),
    ),
    first_step,
    lambda model: not model.pattern.covers_shoulders,
    order=800,
)
