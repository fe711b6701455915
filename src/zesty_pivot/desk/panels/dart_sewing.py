"""How the chosen dart is sewn, beside its step: its point, its fold, the end of its mouth."""

from __future__ import annotations

from typing import Any

from PyQt6.QtWidgets import QVBoxLayout, QWidget

from zesty_pivot.core.conventions.schools import SETBACKS, reasons_of
from zesty_pivot.core.piece import Piece, Use, dart_key, dart_words
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.contained import contained
from zesty_pivot.desk.dart_choices import AS_STYLE, OWN, end_choices, fold_choices, point_choices
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.labels import label, titled
from zesty_pivot.desk.model import DeskModel


class DartSewing(QWidget):
    """Shows the chosen bead's dart of the pattern at the end of the recipe; hidden when there is none that is sewn."""

    def __init__(self, model: DeskModel) -> None:
        super().__init__()
        self._model = model
        self._key = ""
        self.title = label("", "heading")
        self.point, self.fold, self.end = Choice("Sewn point"), Choice("Folded"), Choice("Mouth of this dart")
        self.own = CalcField(self._worth, "Set back by", may_be_empty=True)
        self.own.edit.setPlaceholderText("a length of its own")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 4, 0, 4)
        column.setSpacing(3)
        column.addWidget(self.title)
        for name, field in (("Sewn point", self.point), ("Set back by", self.own), ("Folded", self.fold), ("Mouth", self.end)):
            titled(column, name, field)
        self.point.picked.connect(self._set_school)
        self.own.committed.connect(lambda text: self._set({"setback": text or None, "school": None}, "another sewn point"))
        self.fold.picked.connect(lambda way: self._set({"fold": None if way == AS_STYLE else way}, "another fold"))
        self.end.picked.connect(lambda end: self._set({"end": None if end == AS_STYLE else end}, "end at the mouth"))
        self.refresh()

    def _worth(self, text: str) -> str:
        unit = self._model.style.units
        return f"= {format_length(length_mm(text, self._model.look.scope), unit, fine=unit != 'in')}"

    def _set_school(self, name: str) -> None:
        if name != OWN:
            self._set({"school": name or None, "setback": None}, "another sewn point")

    def _set(self, change: dict[str, Any], title: str) -> None:
        if self._key:
            self._model.recipe.set_finish({"darts": {self._key: change}}, title)

    def _chosen(self) -> tuple[Piece, str] | None:
        """The chosen dart as it is at the end of the recipe, where it is sewn."""
        model = self._model
        if model.pivot is None or model.dart is None or model.is_previewing:
            return None
        pattern = model.derived.pattern
        pieces = [piece for piece in pattern.pieces if model.pivot[0] in (piece.name, piece.of) and piece.has_dart(model.dart)]
        if not pieces or pieces[0].dart(model.dart).use is not Use.DART or pieces[0].dart(model.dart).parked:
            return None
        return pieces[0], model.dart

    @contained("how the dart is sewn")
    def refresh(self) -> None:
        """Shows the model."""
        if self._model.is_previewing:
            return
        found = self._chosen()
        self.setVisible(found is not None)
        if found is None:
            self._key = ""
            return
        piece, dart = found
        self._key = dart_key(piece, dart)
        self.title.setText(f"{capital(dart_words(piece, dart))} dart of the {words(piece.name)}, as it is sewn")
        own = self._model.style.finish.darts.get(self._key)
        self.point.show_choices(*point_choices(self._model, piece, dart, self._key), reasons_of(SETBACKS))
        self.own.set_text("" if own is None or own.setback is None else str(own.setback), self._key)
        self.fold.show_choices(*fold_choices(self._model, piece, dart, self._key))
        self.end.show_choices(*end_choices(self._model, self._key))
