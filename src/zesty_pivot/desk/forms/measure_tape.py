"""The form of measure.tape."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from zesty_pivot.core.piece import Body, Pattern, Piece, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.tape_end import DART_PARTS, TapeEnd
from zesty_pivot.core.procedures.tape_measure import LAYINGS
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.measure_tape import MeasuringTape, formula_name
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.place_field import PlaceField
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import ChoiceRow, FlagRow, LengthRow, Row, RowForm
from zesty_pivot.desk.model import DeskModel

DO = "measure.tape"
AS_IT_IS = "here"  # the choice that stands for an end that is said in another way


class EndField(QWidget):
    """The piece and the place of an end."""

    def __init__(self, name: str, form: RowForm) -> None:
        super().__init__()
        self.piece, self.place = Choice(f"{name}: piece"), PlaceField(name, form.worth_of_place)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(3)
        column.addWidget(self.piece)
        column.addWidget(self.place)


@record
class TapeEndRow(Row):
    """An end of the tape."""

    written: str = ""

    def field(self, form: RowForm) -> QWidget:
        field = EndField(self.title, form)

        def put(value: dict[str, Any]) -> None:
            form.change({self.written: {**value, "on": str(field.piece.currentData())}}, f"{self.title.lower()} another place")

        def on_piece(name: str) -> None:
            form.change({self.written: {"station": "centre_neck", "on": name}}, f"{self.title.lower()} on the {words(name)}")

        def named(key: str) -> None:
            kind, _colon, name = key.partition(":")
            part, _colon, dart = name.partition(":")
            put({"landmark": name} if kind == "landmark" else {"dart": dart, "part": part})

        field.place.placed.connect(put)
        field.place.other.connect(named)
        field.piece.picked.connect(on_piece)
        return field

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        end: TapeEnd = self.value(step)
        name = end.on or step.on
        field.piece.show_choices([(piece.name, words(piece.name)) for piece in before.pieces], name)
        piece = before.piece(name) if before.has(name) else None
        key = _key(end)
        first = list(_named(piece)) if piece is not None else []
        if key and key not in [known for known, _title in first]:
            first.insert(0, (key, end.words()))
        field.place.show_place(None if key else end, piece, (), step, first, key)


def _key(end: TapeEnd) -> str:
    if end.landmark is not None:
        return f"landmark:{end.landmark}" if not end.across and not end.down else AS_IT_IS
    return f"dart:{end.part}:{end.dart}" if end.dart is not None else ""


def _named(piece: Piece) -> Iterator[tuple[str, str]]:
    """Landmarks and points of darts as choices."""
    for name in piece.landmarks:
        yield f"landmark:{name}", words(name)
    for dart in piece.darts:
        for part, title in DART_PARTS.items():
            yield f"dart:{part}:{dart.id}", title.format(dart_words(piece, dart.id))


@record
class NameRow(Row):
    """What the tape is called, with what formulas call it below."""

    def field(self, form: RowForm) -> QWidget:
        def worth(text: str) -> str:
            key = formula_name(text)
            return f"in formulas: {key}" if key else "no name that a formula could use"

        field = CalcField(worth, self.title, may_be_empty=True)
        field.edit.setPlaceholderText("such as half neckline")
        field.edit.setMaxLength(120)
        field.committed.connect(lambda text: form.change({"name": text or None}, f"tape called {text}"))
        return field

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.set_text(step.name, step)


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A tape to begin with: half the neckline, from CF over the shoulder to CB; else down a centre, else from end to end of an
    edge."""

    def tapes() -> Iterator[dict[str, object]]:
        bodies = {piece.body: piece.name for piece in model.pattern.pieces}
        if Body.FRONT in bodies and Body.BACK in bodies:
            ends: dict[str, object] = {
                "from": {"station": "centre_neck"}, "to": {"on": bodies[Body.BACK], "station": "centre_neck"},
            }  # fmt: skip
            yield {"do": DO, "on": bodies[Body.FRONT], "name": "half neckline", "way": "seam", **ends}
        for piece in chosen_first(model):
            yield {"do": DO, "on": piece.name, "from": {"station": "centre_neck"}, "to": {"station": "centre_waist"}}
            for edge, _role in piece.roles:
                whole = {"from": {"edge": edge, "at": "0%"}, "to": {"edge": edge, "at": "100%"}}
                yield {"do": DO, "on": piece.name, "way": "seam", **whole}

    return first_change(model, tapes())


FORM = FormEntry(
    DO,
    plain(
        MeasuringTape,
        NameRow("name", "Name"),
        TapeEndRow("from_", "From", written="from"),
        TapeEndRow("to", "To", written="to"),
        ChoiceRow("way", "Laid", choices=lambda _step, _piece: [(str(way), title) for way, title in LAYINGS.items()]),
        ChoiceRow(
            "darts", "Darts on its way", choices=lambda _step, _piece: [("shut", "shut, as they are sewn"), ("open", "open")]
        ),
        LengthRow("hold", "Should show", empty="whatever it shows"),
        FlagRow("on_sheet", "On the sheets"),
    ),
    first_step,
    lambda _model: True,
    order=198,
)
