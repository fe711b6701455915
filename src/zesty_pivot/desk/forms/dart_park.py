"""The form of dart.park."""

from __future__ import annotations

from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.dart_park import ParkDarts
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, has_darts
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import PieceRow, PlaceRow, TicksRow
from zesty_pivot.desk.model import DeskModel

DO = "dart.park"
HARMLESS = ("side_waist", "side_bust", "centre_waist", "waist", "mid_armhole")


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the chosen dart, or those above the waist, to a place out of the way."""
    for piece in chosen_first(model):
        chosen = [dart.id for dart in piece.darts if dart.id == model.dart]
        high = [dart.id for dart in piece.darts if piece.role(piece.dart_edge(dart.id)) in ("neckline", "shoulder")]
        for darts in (chosen, high, [dart.id for dart in piece.darts]):
            for place in HARMLESS if darts else ():
                value: dict[str, object] = {"do": DO, "on": piece.name, "darts": darts, "to": {"station": place}}
                if model.would_change(registry.read(value)):
                    return value
    return None


FORM = FormEntry(
    DO,
    plain(
        ParkDarts,
        PieceRow(follow=lambda piece: {"darts": [dart.id for dart in piece.darts][:1]}),
        TicksRow("darts", "Put away"),
        PlaceRow("to", "Put away at"),
    ),
    first_step,
    has_darts,
    order=70,
)
