"""The form of line.cut."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.steps.line_cut import CutLine
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, PieceRow, PlaceRow, ShareRow
from zesty_pivot.desk.model import DeskModel

DO = "line.cut"

SHAPES = [("line", "a line"), ("heart", "a heart at the centre"), ("keyhole", "a keyhole at the centre")]

# Lines tried one after the other for the step to begin with.
LINES: tuple[dict[str, Any], ...] = (
    {"from": {"edge": "armhole", "at": "60%"}, "to": {"edge": "side_seam", "at": "60%"}, "bow": "2 cm"},
    {"from": {"edge": "armhole", "at": "70%"}, "to": {"edge": "side_seam", "at": "40%"}, "bow": "2 cm"},
    {"from": {"edge": "neckline", "at": "80%"}, "to": {"edge": "shoulder", "at": "30%"}, "bow": "1 cm"},
    {"from": {"edge": "side_seam", "at": "30%"}, "to": {"edge": "centre", "at": "50%"}},
    {"from": {"edge": "centre", "at": "80%"}, "to": {"edge": "centre", "at": "60%"}, "shape": "heart", "width": "3 cm"},
)


KEEPS = [
    ("", "what holds the centre and the top"), ("upper", "the upper part"), ("lower", "the lower part"),
    ("centre", "the part nearer to the centre"), ("side", "the part nearer to the side"), ("larger", "the larger part"),
]  # fmt: skip


def _is_line(step: Any) -> bool:
    return bool(step.shape == "line")


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: a line with a clear way on the chosen piece, or on another."""
    return first_change(model, ({"do": DO, "on": piece.name, **line} for piece in chosen_first(model) for line in LINES))


FORM = FormEntry(
    DO,
    plain(
        CutLine,
        PieceRow(),
        ChoiceRow("shape", "Shape", choices=lambda _step, _piece: SHAPES),
        PlaceRow("from_", "From", written="from"),
        PlaceRow("to", "To"),
        LengthRow("bow", "Stands off by", when=_is_line, signed=True),
        ShareRow("peak", "most at", when=_is_line),
        ChoiceRow("keeps", "Keeps the piece's name", choices=lambda _step, _piece: KEEPS),
        LengthRow("width", "Width of its half", when=lambda step: not _is_line(step)),
    ),
    first_step,
    lambda _model: True,
    order=178,
)
