"""A place in a form: a station, a dart, or so far along an edge."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterable, Sequence
from typing import Any

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from zesty_pivot.core.piece import Dart, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import STATIONS, Spot
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.fields import CalcField, Known
from zesty_pivot.desk.forms.places import place_choices, place_key, place_value

ALONG = "along"


class PlaceField(QWidget):
    """Picks a place; `placed` carries the spot's JSON. `other` carries the key of a choice that is no place of its own."""

    placed = pyqtSignal(dict)
    other = pyqtSignal(str)

    def __init__(self, name: str, worth: Callable[[str], str], known: Known | None = None) -> None:
        super().__init__()
        self.choice = Choice(name)
        self.edge, self.start = Choice(f"{name}: edge"), Choice(f"{name}: measured from")
        self.at = CalcField(worth, f"{name}: how far along", known=known)
        for choice in (self.edge, self.start):  # two in a row have little room
            choice.setMinimumContentsLength(4)
        self._spot: Spot | None = None
        self._usual = "waist"  # the edge that is shown first
        self.more = QWidget()
        row = QHBoxLayout()
        row.setSpacing(4)
        row.addWidget(self.edge, 1)
        row.addWidget(self.start, 1)
        more = QVBoxLayout(self.more)
        more.setContentsMargins(0, 3, 0, 0)
        more.setSpacing(3)
        more.addLayout(row)
        more.addWidget(self.at)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.choice)
        column.addWidget(self.more)
        self.choice.picked.connect(self._pick)
        self.edge.picked.connect(lambda edge: self._along(edge=edge))
        self.start.picked.connect(lambda end: self._along(start=end))
        self.at.committed.connect(lambda text: self._along(at=text))

    def show_place(
        self, spot: Spot | None, piece: Piece | None, darts: Iterable[Dart], owner: Hashable,
        first: Sequence[tuple[str, str]] = (), value: str = "",
    ) -> None:  # fmt: skip
        """Shows a spot; `first` are choices of their own before the places, of which `value` may be the present one."""
        self._spot = spot
        if piece is not None:
            edges = [edge for edge, role in piece.roles if role != "centre"]
            asked = getattr(owner, "edge", None)
            self._usual = next((edge for edge in (asked, "waist", "hem") if edge in edges), edges[0])
        is_along = spot is not None and spot.edge is not None and spot.at is not None
        key = value or (ALONG if is_along else place_key(spot) if spot is not None else "")
        rows = [*first, (ALONG, "so far along an edge…"), *place_choices(piece, darts, None if is_along else spot)]
        self.choice.show_choices(rows, key)
        self.more.setVisible(is_along and not value)
        if spot is None or not is_along or piece is None:
            return
        edge = spot.edge or ""
        self.edge.show_choices([(id, words(id)) for id, _role in piece.roles], edge)
        role = dict(piece.roles).get(edge, "")
        ends = piece.ends.get(role, ("start", "end"))
        self.start.show_choices([(end, f"from the {words(end)}") for end in ends], spot.from_ or ends[0])
        self.at.set_text(spot.said_at, owner)

    def _pick(self, key: str) -> None:
        value = place_value(key)
        if value is not None:
            self.placed.emit(value)
        elif key == ALONG:
            known = STATIONS.get(self._spot.station or "") if self._spot is not None else None
            edge = known.edge if known is not None and known.edge is not None else self._usual
            at = known.at if known is not None and known.at is not None else "50%"
            self.placed.emit({"edge": edge, "at": at})
        else:
            self.other.emit(key)

    def _along(self, **change: str) -> None:
        spot = self._spot
        if spot is None or spot.edge is None:
            return
        value: dict[str, Any] = {"edge": spot.edge, "at": spot.at}
        if spot.from_ is not None:
            value["from"] = spot.from_
        if "edge" in change:
            value = {"edge": change["edge"], "at": spot.at}
        if "start" in change:
            value["from"] = change["start"]
        if "at" in change:
            value["at"] = change["at"]
        self.placed.emit(value)
