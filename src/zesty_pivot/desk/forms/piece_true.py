"""The form of piece.true."""

from __future__ import annotations

from PyQt6.QtWidgets import QCheckBox

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.piece_true import TruePiece, worst
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.forms.base import FormEntry, StepForm
from zesty_pivot.desk.model import DeskModel

DO = "piece.true"


class TruePieceForm(StepForm):
    """Which edge, and over how far."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__(model)
        self.on, self.edge = Choice("Piece"), Choice("Edge")
        self.over = CalcField(self.worth_of_length(), "Blended over", known=self.known_lengths)
        self.add_row("Piece", self.on)
        self.add_row("Edge", self.edge)
        self.add_row("Blended over, to either side", self.over)
        self.straight = QCheckBox("Instead: one straight line")
        self.straight.setToolTip("For a shoulder or side seam from which a dart has gone")
        self._rows.addWidget(self.straight)
        self.straight.clicked.connect(lambda on: self.change({"straight": on or None}, "straight" if on else "blended"))
        self.on.picked.connect(lambda name: self.change({"on": name}, f"true the {name}"))
        self.edge.picked.connect(lambda edge: self.change({"edge": edge}, f"true the {words(edge)}"))
        self.over.committed.connect(lambda text: self.change({"over": text}, f"blend over {text}"))

    def show_step(self, at: int, step: Step, before: Pattern) -> None:
        if not isinstance(step, TruePiece):
            return
        self.at = at
        self.on.show_choices([(p.name, words(p.name)) for p in before.pieces], step.on)
        roles = before.piece(step.on).roles if before.has(step.on) else ()
        self.edge.show_choices([(edge, words(edge)) for edge, role in roles if role != "centre"], step.edge)
        self.over.set_text(str(step.over), step)
        self.over.setEnabled(not step.straight)
        self.straight.setChecked(step.straight)


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the first edge with a corner across a mouth, else the waist."""
    for piece in model.pattern.pieces:
        for edge, role in piece.roles:
            if role != "centre" and worst(piece, edge, model.derived.derivation.sewing) is not None:
                return {"do": DO, "on": piece.name, "edge": edge}
    piece = model.pattern.pieces[0]
    return {"do": DO, "on": piece.name, "edge": next(edge for edge, role in piece.roles if role == "waist")}


FORM = FormEntry(DO, TruePieceForm, first_step, lambda _model: True, order=192)
