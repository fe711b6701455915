"""The form of yoke.cut."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.steps.yoke_cut import YokeCut
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, CountRow, LengthRow, PieceRow, dart_choices, whole_number
from zesty_pivot.desk.model import DeskModel

DO = "yoke.cut"

KINDS = [("yoke", "a yoke above"), ("midriff", "a midriff at the waist"), ("hip", "a hip yoke below the waist")]
SHAPES = [("straight", "straight"), ("curved", "curved"), ("pointed", "pointed at the centre"), ("scalloped", "scalloped")]
BACK_DARTS = [("taper", "a taper of the seam at the armhole"), ("stay", "stays as it is")]
SEAMS = [("plain", "plain"), ("lapped", "lapped over what is below"), ("piped", "with a piping")]
SEAM_DARTS = [("sewn", "sewn as darts"), ("gathers", "gathers"), ("pleats", "soft pleats"), ("tucks", "tucks")]


def led_choices(step: Any, piece: Piece | None) -> list[tuple[str, str]]:
    """No dart, or one of the piece."""
    return [("", "no dart"), *((id, f"the {title}") for id, title in dart_choices(step, piece))]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: a yoke on the chosen piece, else on another; else a midriff."""
    pieces = sorted(chosen_first(model), key=lambda piece: any(edge.startswith("yoke") for edge, _role in piece.roles))
    return first_change(model, ({"do": DO, "on": piece.name, "kind": kind} for kind, _title in KINDS for piece in pieces))


FORM = FormEntry(
    DO,
    plain(
        YokeCut,
        PieceRow(),
        ChoiceRow("kind", "Cut off", choices=lambda _step, _piece: KINDS),
        LengthRow("at", "At the outer edge", empty="level with the centre", share=True),
        LengthRow("right", "On the right side as worn", empty="the same", share=True),
        LengthRow("centre", "Lower at the centre by", empty="level", signed=True),
        ChoiceRow("shape", "Seam", choices=lambda _step, _piece: SHAPES),
        LengthRow("depth", "Hangs down by", when=lambda step: step.shape != "straight"),
        CountRow("arcs", "Arcs", lambda step: step.shape == "scalloped", read=whole_number(1, 7)),
        ChoiceRow(
            "back_dart", "The back's shoulder dart", lambda step: step.kind == "yoke", choices=lambda _step, _piece: BACK_DARTS
        ),
        ChoiceRow("seam", "Sewn", choices=lambda _step, _piece: SEAMS),
        LengthRow("cord", "Cord of the piping", when=lambda step: step.seam == "piped", signed=True),
        ChoiceRow("led", "Led to the seam", choices=led_choices),
        ChoiceRow("seam_darts", "Darts in the seam", choices=lambda _step, _piece: SEAM_DARTS),
    ),
    first_step,
    lambda _model: True,
    order=181,
)
