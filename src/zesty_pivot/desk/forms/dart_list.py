"""Darts to tick, for steps that take several of one pivot."""

from __future__ import annotations

from PyQt6.QtWidgets import QCheckBox, QVBoxLayout, QWidget

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.called import title_of
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.forms.base import StepForm
from zesty_pivot.desk.forms.places import chosen_first, pivots_with_two
from zesty_pivot.desk.labels import empty, label
from zesty_pivot.desk.model import DeskModel

LEAST = 2


class DartList(QWidget):
    """The piece, and its darts with ticks; what is ticked is the step's `darts`, in the order they were ticked."""

    def __init__(self, form: StepForm) -> None:
        super().__init__()
        self._form = form
        self.on = Choice("Piece")
        self.boxes: dict[str, QCheckBox] = {}
        self._chosen: tuple[str, ...] = ()
        self._before: Pattern | None = None
        self._column = QVBoxLayout()
        self._column.setSpacing(1)
        layout = QVBoxLayout(self)
        layout.setContentsMargins(0, 0, 0, 5)
        layout.setSpacing(3)
        layout.addWidget(label("Piece", "quiet"))
        layout.addWidget(self.on)
        layout.addWidget(label("Darts of one pivot", "quiet"))
        layout.addLayout(self._column)
        self.on.picked.connect(self._other_piece)

    def show_darts(self, on: str, chosen: tuple[str, ...], before: Pattern) -> None:
        """Shows the darts of a piece; those that cannot be ticked, for another pivot or too few left, are greyed."""
        self._chosen, self._before = chosen, before
        self.on.show_choices([(p.name, words(p.name)) for p in before.pieces if pivots_with_two(p)], on)
        piece = before.piece(on) if before.has(on) else None
        known = [dart.id for dart in piece.darts] if piece else []
        wanted = [*known, *(id for id in chosen if id not in known)]
        if list(self.boxes) != wanted:
            empty(self._column)
            self.boxes = {}
            for id in wanted:
                box = QCheckBox()
                box.clicked.connect(lambda _checked=False, id=id: self._tick(id))
                self.boxes[id] = box
                self._column.addWidget(box)
        pivots = {piece.dart(id).pivot for id in chosen if piece and piece.has_dart(id)} if piece else set()
        for id, box in self.boxes.items():
            box.setText(f"{capital(title_of(piece, id))} dart")
            box.setChecked(id in chosen)
            fits = piece is None or not piece.has_dart(id) or piece.dart(id).pivot in pivots
            box.setEnabled(fits and not (id in chosen and len(chosen) <= LEAST))

    def _tick(self, id: str) -> None:
        chosen = tuple(dart for dart in self._chosen if dart != id) if id in self._chosen else (*self._chosen, id)
        self._form.change({"darts": list(chosen)}, "other darts")

    def _other_piece(self, name: str) -> None:
        if self._before is not None:
            self._form.change({"on": name, "darts": pivots_with_two(self._before.piece(name))[0]}, f"on the {words(name)}")


def pair_to_begin(model: DeskModel) -> tuple[str, list[str]] | None:
    """A piece and the darts of one of its pivots, for a step to begin with; None where no pivot has two."""
    for piece in chosen_first(model):
        for ids in pivots_with_two(piece):
            return piece.name, ids
    return None
