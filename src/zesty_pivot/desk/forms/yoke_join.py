"""The form of yoke.join."""

from __future__ import annotations

from zesty_pivot.core.steps.yoke_join import YokeJoin
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, OtherRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "yoke.join"

SEAMS = [("joined", "one piece"), ("kept", "the seam stays")]
GRAINS = [("back", "the back's centre"), ("front", "the front's centre")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the yokes joined; without yokes the shoulder seam 2 cm forward."""
    parts = [piece.name for piece in model.pattern.pieces]
    pairs = [(one, two) for one in parts for two in parts if "front" in one and "back" in two]
    yokes = [pair for pair in pairs if all("yoke" in name for name in pair)]
    tried: list[dict[str, object]] = [{"do": DO, "on": one, "other": two} for one, two in yokes]
    tried += [{"do": DO, "on": one, "other": two, "seam": "kept", "forward": "2 cm"} for one, two in pairs]
    return first_change(model, tried)


FORM = FormEntry(
    DO,
    plain(
        YokeJoin,
        PieceRow(title="Front"),
        OtherRow("other", "Back"),
        LengthRow("forward", "Shoulder seam forward by", empty="where it is"),
        ChoiceRow("seam", "At the shoulder", choices=lambda _step, _piece: SEAMS),
        ChoiceRow("grain", "On the grain", lambda step: step.seam == "joined", choices=lambda _step, _piece: GRAINS),
    ),
    first_step,
    lambda model: len(model.pattern.pieces) > 1,
    order=182,
)
