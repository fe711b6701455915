"""The form of piece.true_seam."""

from __future__ import annotations

from zesty_pivot.core.steps.piece_true_seam import TrueSeam
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import first_change, offered
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, OtherRow, PieceRow
from zesty_pivot.desk.model import DeskModel

DO = "piece.true_seam"
MEETINGS = [
    ("shoulder", "neckline"),
    ("side_seam", "armhole"),
    ("side_seam", "waist"),
    ("side_seam", "hem"),
    ("shoulder", "armhole"),
]
SEAMS = [("shoulder", "the shoulder"), ("side_seam", "the side seam"), ("style_line", "the panels' line")]
EDGES = [("neckline", "neckline"), ("armhole", "armhole"), ("waist", "waist"), ("hem", "hem"), ("shoulder", "shoulder")]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: where a finding asks for one, else the first that would change something."""
    return offered(model, DO) or first_change(
        model, ({"do": DO, "on": "front", "seam": seam, "edge": edge} for seam, edge in MEETINGS)
    )


FORM = FormEntry(
    DO,
    plain(
        TrueSeam,
        PieceRow(),
        OtherRow("other", "And"),
        ChoiceRow("edge", "Edge", choices=lambda _step, _piece: EDGES),
        ChoiceRow("seam", "Across", choices=lambda _step, _piece: SEAMS),
        LengthRow("over", "Blended over, to either side"),
    ),
    first_step,
    lambda model: bool(model.pattern.seams),
    order=194,
)
