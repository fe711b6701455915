"""The form of yoke.join."""

from __future__ import annotations

from zesty_pivot.core.piece import Body
from zesty_pivot.core.steps.yoke_join import YokeJoin
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, OtherRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "yoke.join"

SEAMS = [("joined", "one piece"), ("kept", "the seam stays")]
GRAINS = [("back", "the back's centre"), ("front", "the front's centre")]


def _pairs(model: DeskModel) -> list[tuple[str, str]]:
    """Fronts and backs that are sewn along a shoulder in which no dart opens, yokes first."""
    found = []
    for one, two in (seam.pair for seam in model.pattern.seams if seam.pair is not None):
        pieces = [model.pattern.piece(at.piece) for at in (one, two)]
        runs = [run for piece, at in zip(pieces, (one, two), strict=True) for run in piece.edge(at.edge).runs]
        if pieces[0].role(one.edge) == "shoulder" and not any(run.mouth for run in runs):
            first, second = sorted(pieces, key=lambda piece: piece.body is Body.BACK)
            found.append((first.name, second.name))
    return sorted(found, key=lambda pair: "yoke" not in pair[0])


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the yokes joined; without yokes the shoulder seam 2 cm forward."""
    tried: list[dict[str, object]] = [{"do": DO, "on": one, "other": two} for one, two in _pairs(model) if "yoke" in one]
    tried += [{"do": DO, "on": one, "other": two, "seam": "kept", "forward": "2 cm"} for one, two in _pairs(model)]
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
    lambda model: bool(_pairs(model)),
    order=182,
)
