"""The form of piece.facing."""

from __future__ import annotations

from zesty_pivot.core.steps.piece_facing import TITLES, Facing
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow
from zesty_pivot.desk.model import DeskModel

DO = "piece.facing"


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the facing that fits, of front and back."""
    names = list(dict.fromkeys(piece.of or piece.name for piece in model.pattern.pieces))
    values: list[dict[str, object]] = []
    for kind in TITLES:
        if {"front", "back"} <= set(names):
            values.append({"do": DO, "on": "front", "kind": kind})
        values += [{"do": DO, "on": name, "other": "", "kind": kind} for name in names]
    return first_change(model, values)


def _has_depth(step: Facing) -> bool:
    return step.kind not in ("lining", "camisole", "yoke")


FORM = FormEntry(
    DO,
    plain(
        Facing,
        ChoiceRow("kind", "Kind", choices=lambda _step, _piece: list(TITLES.items())),
        LengthRow("depth", "Depth", when=_has_depth),
        LengthRow("shade", "Shorter than the edge by", when=lambda step: bool(step.kind != "lining"), signed=True),
    ),
    first_step,
    lambda model: bool(model.pattern.pieces),
    order=199,
)
