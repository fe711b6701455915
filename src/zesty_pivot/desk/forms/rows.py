"""Rows of forms that are written as tables: a row for each parameter of a step, shown when it matters."""

from __future__ import annotations

from abc import abstractmethod
from collections.abc import Callable
from fractions import Fraction
from typing import Any, Protocol

from PyQt6.QtWidgets import QCheckBox, QVBoxLayout, QWidget

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern, Piece, dart_words
from zesty_pivot.core.piece.called import title_of
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.quantity import share_of
from zesty_pivot.core.record import record
from zesty_pivot.desk.choice import Choice
from zesty_pivot.desk.fields import CalcField
from zesty_pivot.desk.forms.place_field import PlaceField


class RowForm(Protocol):
    """What a row asks of the form that it is in."""

    before: Pattern | None

    def change(self, values: dict[str, Any], title: str) -> None:
        """Other values of the form's step, as one entry of the history."""

    def known_lengths(self) -> dict[str, dict[str, str]]:
        """The names that a formula may use, by heading, each with what it is worth."""

    def worth_of_length(self) -> Callable[[str], str]:
        """Words for a length field's value, in the style's unit."""

    def worth_of_signed(self, text: str) -> str:
        """Words for a length that may be negative or nothing."""

    def worth_of_place(self, text: str) -> str:
        """Words for how far along an edge a place is."""


Shown = Callable[[Any], bool]


NO_PLACE = "none"


def _always(_step: Any) -> bool:
    return True


@record
class Row:
    """A parameter: its name in the step, its title, and when it is shown. Subclasses say what its field is."""

    key: str
    title: str
    when: Shown = _always

    def is_shown(self, step: Any, before: Pattern) -> bool:
        """Whether it matters to a step that meets the pattern `before`."""
        return self.when(step)

    @abstractmethod
    def field(self, form: RowForm) -> QWidget:
        """A new field that writes into the form's step."""

    @abstractmethod
    def show(self, field: Any, step: Any, before: Pattern) -> None:
        """Shows the step's value; `before` is the pattern that the step meets."""

    def value(self, step: Any) -> Any:
        """The step's value."""
        return getattr(step, self.key)


@record
class ChoiceRow(Row):
    """A choice of named values; `choices` may look at the piece."""

    choices: Callable[[Any, Piece | None], list[tuple[str, str]]] = lambda _step, _piece: []
    written: str = ""  # the name in the file, where it is another

    def field(self, form: RowForm) -> QWidget:
        choice = Choice(self.title)
        choice.picked.connect(
            lambda value: form.change({self.written or self.key: value or None}, f"{self.title.lower()}: {words(value)}")
        )
        return choice

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        piece = before.piece(step.on) if before.has(step.on) else None
        value = self.value(step)
        field.show_choices(self.choices(step, piece), "" if value is None else str(value))


@record
class PieceRow(Row):
    """The piece; with another one, `follow` says what else changes."""

    key: str = "on"
    title: str = "Piece"
    follow: Callable[[Piece], dict[str, Any]] = lambda _piece: {}

    def field(self, form: RowForm) -> QWidget:
        choice = Choice(self.title)

        def pick(name: str) -> None:
            if form.before is not None:
                form.change({"on": name, **self.follow(form.before.piece(name))}, f"on the {words(name)}")

        choice.picked.connect(pick)
        return choice

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.show_choices([(piece.name, words(piece.name)) for piece in before.pieces], step.on)


@record
class OtherRow(Row):
    """Another piece, by its name."""

    def field(self, form: RowForm) -> QWidget:
        choice = Choice(self.title)
        choice.picked.connect(lambda name: form.change({self.key: name}, f"with the {words(name)}"))
        return choice

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.show_choices([(piece.name, words(piece.name)) for piece in before.pieces if piece.name != step.on], step.other)


@record
class LengthRow(Row):
    """A length; an empty field leaves it to the program where that is allowed."""

    empty: str = ""  # what an empty field means; nothing when it may not be empty
    signed: bool = False
    share: bool = False  # it may be a share of the edge as well
    clears: tuple[str, ...] = ()  # parameters that go when this one is given
    more: tuple[str, str] | None = None  # a parameter and its value that a plus in front means: so much more than it is

    def values(self, text: str) -> dict[str, Any]:
        """The step's parameters that change when this is written. Raises a ZestyError where it cannot be read."""
        besides: dict[str, Any] = dict.fromkeys(self.clears) if text else {}
        if self.more is not None and text.startswith("+"):
            text, besides = text.removeprefix("+").strip(), {**besides, self.more[0]: self.more[1]}
        return {self.key: self._value(text) if text else None, **besides}

    def _value(self, text: str) -> Any:
        return text

    def field(self, form: RowForm) -> QWidget:
        worth = form.worth_of_place if self.share else form.worth_of_signed if self.signed else form.worth_of_length()
        field = CalcField(worth, self.title, may_be_empty=bool(self.empty), known=form.known_lengths)
        field.edit.setPlaceholderText(self.empty)

        def commit(text: str) -> None:
            form.change(self.values(text), f"{self.title.lower()} {text or self.empty}")

        field.committed.connect(commit)
        return field

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        value = self.value(step)
        field.set_text("" if value is None else str(value), step)


@record
class NumberRow(LengthRow):
    """A plain number: a count, a ratio, or a share; `read` raises a ZestyError with what is wrong."""

    read: Callable[[str], object] = share_of

    def _value(self, text: str) -> Any:
        return self.read(text)

    def field(self, form: RowForm) -> QWidget:
        def worth(text: str) -> str:
            self.read(text)
            return ""

        field = CalcField(worth, self.title, may_be_empty=bool(self.empty))
        field.edit.setPlaceholderText(self.empty)

        def commit(text: str) -> None:
            form.change(self.values(text), f"{self.title.lower()} {text or self.empty}")

        field.committed.connect(commit)
        return field


@record
class CountRow(NumberRow):
    """A whole number, shown as it is."""

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.set_text(str(self.value(step)), step)


@record
class ShareRow(NumberRow):
    """A share, kept as it was written."""

    def _value(self, text: str) -> Any:
        return text

    def field(self, form: RowForm) -> QWidget:
        def worth(text: str) -> str:
            return f"= {100 * share_of(text):.4g} %"

        field = CalcField(worth, self.title, may_be_empty=bool(self.empty))
        field.edit.setPlaceholderText(self.empty)

        def commit(text: str) -> None:
            form.change(self.values(text), f"{self.title.lower()} {text or self.empty}")

        field.committed.connect(commit)
        return field


@record
class PlaceRow(Row):
    """A place: a station, a dart, or so far along an edge. `empty` is what none means, where there may be none."""

    written: str = ""  # the name in the file, where it is another
    empty: str = ""

    def field(self, form: RowForm) -> QWidget:
        place = PlaceField(self.title, form.worth_of_place, form.known_lengths)
        name = self.written or self.key
        place.placed.connect(lambda value: form.change({name: value}, "another place"))
        place.other.connect(lambda _key: form.change({name: None}, self.empty))
        return place

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        piece = before.piece(step.on) if before.has(step.on) else None
        first = [(NO_PLACE, self.empty)] if self.empty else []
        value = NO_PLACE if self.empty and self.value(step) is None else ""
        field.show_place(self.value(step), piece, piece.darts if piece else (), step, first, value)


@record
class FlagRow(Row):
    """Yes or no."""

    def field(self, form: RowForm) -> QWidget:
        box = QCheckBox(self.title)
        box.clicked.connect(lambda on: form.change({self.key: bool(on)}, self.title.lower()))
        return box

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.setChecked(bool(self.value(step)))


@record
class TicksRow(Row):
    """Several darts to tick; `known` gives their ids, `least` how many must stay."""

    known: Callable[[Piece], list[str]] = lambda piece: [dart.id for dart in piece.darts]
    least: int = 1

    def field(self, form: RowForm) -> QWidget:
        return Ticks(form, self)

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        piece = before.piece(step.on) if before.has(step.on) else None
        known, value = self.known(piece) if piece else [], self.value(step)
        field.show_ticks(known, tuple(known) if value is None else value, piece)


class Ticks(QWidget):
    """A column of darts to tick."""

    def __init__(self, form: RowForm, row: TicksRow) -> None:
        super().__init__()
        self._form, self._row = form, row
        self.boxes: dict[str, QCheckBox] = {}
        self._chosen: tuple[str, ...] = ()
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(1)

    def show_ticks(self, known: list[str], chosen: tuple[str, ...], piece: Piece | None) -> None:
        """Shows the darts with those that are chosen ticked."""
        self._chosen = chosen
        wanted = [*known, *(id for id in chosen if id not in known)]
        if list(self.boxes) != wanted:
            for box in self.boxes.values():
                self._column.removeWidget(box)
                box.hide()
                box.deleteLater()
            self.boxes = {}
            for id in wanted:
                box = QCheckBox()
                box.clicked.connect(lambda _on=False, id=id: self._tick(id))
                self.boxes[id] = box
                self._column.addWidget(box)
        for id, box in self.boxes.items():
            box.setText(f"{capital(title_of(piece, id))} dart")
            box.setChecked(id in chosen)
            box.setEnabled(not (id in chosen and len(chosen) <= self._row.least))

    def _tick(self, id: str) -> None:
        chosen = [dart for dart in self._chosen if dart != id] if id in self._chosen else [*self._chosen, id]
        self._form.change({self._row.key: chosen if chosen or not self._row.least else None}, "other darts")


def dart_choices(_step: Any, piece: Piece | None) -> list[tuple[str, str]]:
    """The darts of the piece."""
    return [(dart.id, f"{dart_words(piece, dart.id)} dart") for dart in piece.darts] if piece else []


def edge_choices(_step: Any, piece: Piece | None) -> list[tuple[str, str]]:
    """The edges of the piece other than its centre."""
    return [(edge, words(edge)) for edge, role in piece.roles if role != "centre"] if piece else []


def first_dart(piece: Piece) -> dict[str, Any]:
    """The first dart of another piece, where it has one."""
    return {"dart": piece.darts[0].id} if piece.darts else {}


def whole_number(least: int, most: int) -> Callable[[str], int]:
    """Reads a count. The reader raises a ZestyError for anything else."""

    def read(text: str) -> int:
        if not text.isdigit() or not least <= int(text) <= most:
            raise ZestyError(
                f"{text!r} is not a whole number from {least} to {most}", advice=f"Write a number such as {least}."
            )
        return int(text)

    return read


def ratio(text: str) -> float:
    """Reads a ratio over 1. Raises ZestyError for anything else."""
    try:
        value = float(text)
    except ValueError:
        value = 0.0
    if not 1.0 < value <= 20.0:
        raise ZestyError(f"{text!r} is no ratio", advice="Write how many times the finished length, such as 2 or 1.5.")
    return value


def number_over(least: float, most: float) -> Callable[[str], float]:
    """Reads a number over one bound, up to another: `0.5` or `1/2`. The reader raises a ZestyError for anything else."""

    def read(text: str) -> float:
        try:
            value = float(Fraction(text.strip()))
        except (ValueError, ZeroDivisionError):
            value = least
        if not least < value <= most:
            advice = f"Write a number over {least:g}, up to {most:g}, such as 1/2 or 1.5."
            raise ZestyError(f"{text!r} is not such a number", advice=advice)
        return value

    return read
