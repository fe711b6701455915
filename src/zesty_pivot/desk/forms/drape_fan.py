"""The form of drape.fan: a field for each slash."""

from __future__ import annotations

from typing import Any

from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.drape_fan import DrapeFan
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, FlagRow, LengthRow, PieceRow, Row, RowForm, ShareRow, TicksRow, edge_choices
from zesty_pivot.desk.model import DeskModel

DO = "drape.fan"
MOST = 12  # slashes
TAKEN = [("pleats", "laid in pleats"), ("gathers", "gathered"), ("tucks", "stitched as tucks")]
WAYS = [
    ("", "by itself: down, or to the centre"), ("down", "down"), ("up", "up"), ("centre", "to the centre"),
    ("side", "to the side"),
]  # fmt: skip


@record
class SlashesRow(Row):
    """Several slashes, each with its own amount."""

    def field(self, form: RowForm) -> QWidget:
        return Slashes(form, self)

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.show_amounts(tuple(str(by) for by in self.value(step)), step)


class Slashes(QWidget):
    """A column of lengths, one a slash, and buttons for one more and one less."""

    def __init__(self, form: RowForm, row: SlashesRow) -> None:
        super().__init__()
        self._form, self._row = form, row
        self.fields: list[CalcField] = []
        self._amounts: tuple[str, ...] = ()
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(3)
        buttons = QHBoxLayout()
        self.more, self.less = QPushButton("One more"), QPushButton("One less")
        self.more.clicked.connect(lambda: self._write((*self._amounts, *(self._amounts[-1:] or ("3 cm",)))))
        self.less.clicked.connect(lambda: self._write(self._amounts[:-1]))
        for button in (self.more, self.less):
            buttons.addWidget(button)
        buttons.addStretch(1)
        self._column.addLayout(buttons)

    def show_amounts(self, amounts: tuple[str, ...], owner: Any) -> None:
        """Shows the slashes of a step."""
        self._amounts = amounts
        while len(self.fields) < len(amounts):
            number = len(self.fields)
            field = CalcField(self._form.worth_of_length(), f"Slash {number + 1} opens by")
            field.edit.setPlaceholderText(f"slash {number + 1}")
            field.committed.connect(lambda text, number=number: self._change(number, text))
            self._column.insertWidget(number, field)
            self.fields.append(field)
        while len(self.fields) > len(amounts):
            field = self.fields.pop()
            self._column.removeWidget(field)
            field.hide()
            field.deleteLater()
        for field, text in zip(self.fields, amounts, strict=True):
            field.set_text(text, owner)
        self.more.setEnabled(len(amounts) < MOST)
        self.less.setEnabled(bool(amounts))

    def _change(self, number: int, text: str) -> None:
        self._write((*self._amounts[:number], text, *self._amounts[number + 1 :]))

    def _write(self, amounts: tuple[str, ...]) -> None:
        self._form.change({self._row.key: list(amounts), "order": None}, "the slashes of the drape")


def _far_choices(step: DrapeFan, piece: Piece | None) -> list[tuple[str, str]]:
    return [("", "any seam across the piece"), *(one for one in edge_choices(step, piece) if one[0] != step.edge)]


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: the left side of a whole piece, the side of a half; with all darts, else with none."""
    values: list[dict[str, object]] = []
    tried: list[dict[str, object]] = [{}, {"darts": []}, {"darts": [], "slashes": ["2 cm", "2 cm"]}]
    for more in tried:
        for piece in chosen_first(model):
            edges = [edge for edge, role in piece.roles if role == "side_seam"]
            values += [{"do": DO, "on": piece.name, "edge": edge, **more} for edge in edges]
    return first_change(model, values)


FORM = FormEntry(
    DO,
    plain(
        DrapeFan,
        PieceRow(),
        ChoiceRow("edge", "Seam with the folds", choices=edge_choices),
        LengthRow("start", "From, along it", share=True),
        LengthRow("stop", "To, along it", share=True),
        TicksRow("darts", "Darts led there", least=0),
        SlashesRow("slashes", "Slashes, each opened by"),
        ChoiceRow("to", "Slashes lead to", choices=_far_choices),
        ShareRow("to_start", "The first ends there at", lambda step: step.to is not None),
        ShareRow("to_stop", "The last at", lambda step: step.to is not None),
        ChoiceRow("taken", "Taken up", choices=lambda _step, _piece: TAKEN),
        LengthRow("stitched", "Tucks stitched by", lambda step: step.taken == "tucks"),
        ChoiceRow("lies", "Folds point", lambda step: step.taken != "gathers", choices=lambda _step, _piece: WAYS),
        FlagRow("bias", "On the bias"),
        FlagRow("lining", "A lining without the drape"),
    ),
    first_step,
    lambda model: bool(model.pattern.pieces),
    order=187,
)
