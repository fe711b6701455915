"""The form of a step that has none of its own: a row for each of its fields, by the field's type."""

from __future__ import annotations

import itertools
from collections.abc import Iterator
from typing import Any, Literal, get_args, get_origin

from pydantic.fields import FieldInfo

from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot
from zesty_pivot.core.procedures.worn_edge import WORN
from zesty_pivot.core.quantity.fields import InUnits, OfWhole
from zesty_pivot.core.steps.base import FrontAndBackStep, Step
from zesty_pivot.core.steps.trim import TiedStep, TrimStep
from zesty_pivot.desk.forms.base import FormEntry
from zesty_pivot.desk.forms.places import chosen_first, first_change
from zesty_pivot.desk.forms.plain import plain
from zesty_pivot.desk.forms.rows import (
    ChoiceRow,
    CountRow,
    FlagRow,
    LengthRow,
    NumberRow,
    OtherRow,
    PieceRow,
    PlaceRow,
    Row,
    ShareRow,
    dart_choices,
    edge_choices,
    number_over,
    whole_number,
)
from zesty_pivot.desk.model import DeskModel

LAST = 900  # steps without a form of their own are offered after the others
FAMILIES = {"fullness": 187, "drape": 187, "trim": 800}  # but with their family


def entry_of(step: type[Step]) -> FormEntry:
    """The form of a kind of step, with a first step on the first piece where it can be done."""
    do = str(step.model_fields["do"].default)
    rows = [row for name, field in step.model_fields.items() if (row := _row(name, field)) is not None]
    if issubclass(step, TrimStep):
        rows = [ChoiceRow("edge", "Edge", choices=worn_choices) if row.key == "edge" else row for row in rows]
    if issubclass(step, TiedStep):  # it is of front and back, whatever pieces they are in
        own: dict[str, Row] = {"on": SourceRow(), "other": OtherSourceRow("other", "And")}
        rows = [own.get(row.key, row) for row in rows]

    def first(model: DeskModel) -> dict[str, object] | None:
        plain_ones = [{"do": do, "on": step.model_fields["on"].default}] if issubclass(step, TiedStep) else []
        more = (value for piece in chosen_first(model) for value in _values(step, do, piece))
        return first_change(model, itertools.chain(plain_ones, more))

    return FormEntry(do, plain(step, *rows), first, lambda _model: True, FAMILIES.get(do.partition(".")[0], LAST))


def _row(name: str, field: FieldInfo) -> Row | None:
    """The row of a field; None for what is not edited in a form."""
    if name in ("do", "off", "name"):
        return None
    if name == "on":
        return PieceRow()
    title = field.title or words(name.rstrip("_")).capitalize()
    empty = "" if field.is_required() or field.default is not None else "by itself"
    if name == "other":
        return OtherRow(name, field.title or "Its partner")
    if name in ("dart", "edge"):
        return ChoiceRow(name, title, choices=dart_choices if name == "dart" else edge_choices)
    kinds = _kinds(field.annotation)
    if _marked(field, InUnits):
        return LengthRow(name, title, empty=empty, signed=True)
    if _marked(field, OfWhole):
        return ShareRow(name, title, empty=empty)
    if Spot in kinds:
        return PlaceRow(name, title, written=field.alias or "", empty=empty)
    if bool in kinds:
        return FlagRow(name, title)
    if int in kinds or float in kinds:
        return _number_row(name, title, field, empty, whole=int in kinds)
    named = [value for kind in kinds if get_origin(kind) is Literal for value in get_args(kind)]
    if named:
        known = [(str(value), words(str(value))) for value in named]
        return ChoiceRow(name, title, choices=lambda _step, _piece: known, written=field.alias or "")
    return None


def _sources(before: Pattern) -> list[tuple[str, str]]:
    return [(name, words(name)) for name in dict.fromkeys(piece.of or piece.name for piece in before.pieces)]


class SourceRow(PieceRow):
    """The piece of the block, whole or in panels."""

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.show_choices(_sources(before), step.on)


class OtherSourceRow(OtherRow):
    """The other piece of the block, or none."""

    def show(self, field: Any, step: Any, before: Pattern) -> None:
        field.show_choices([("", "no other"), *(one for one in _sources(before) if one[0] != step.on)], step.other)


def worn_choices(_step: Any, piece: Piece | None) -> list[tuple[str, str]]:
    """The edges that a trim can be sewn to: as they are worn, and those of the piece by their ids."""
    own = [(edge, words(edge)) for edge, role in piece.roles if role not in WORN and role != "centre"] if piece else []
    named = {"lower": "waist or hem", "top": "top edge, with what is left of the armhole"}
    return [*((name, named.get(name, words(name))) for name in WORN), *own]


def _number_row(name: str, title: str, field: FieldInfo, empty: str, *, whole: bool) -> Row:
    """The row of a plain number with its bounds."""
    bounds = {
        key: value for mark in field.metadata for key in ("ge", "gt", "le") if (value := getattr(mark, key, None)) is not None
    }
    least, most = bounds.get("ge", bounds.get("gt", 0)), bounds.get("le", 1000)
    if whole:
        return CountRow(name, title, empty=empty, read=whole_number(int(least), int(most)))
    return NumberRow(name, title, empty=empty, read=number_over(float(least), float(most)))


def _kinds(annotation: Any) -> tuple[Any, ...]:
    """What a value may be: the parts of a union, or the one type."""
    return get_args(annotation) if get_origin(annotation) not in (None, Literal, tuple) else (annotation,)


def _marked(field: FieldInfo, mark: type) -> bool:
    held = [*field.metadata, *(part for kind in _kinds(field.annotation) for part in getattr(kind, "__metadata__", ()))]
    return any(isinstance(part, mark) for part in held)


def _values(step: type[Step], do: str, piece: Piece) -> Iterator[dict[str, object]]:
    """Steps to begin with on a piece: with each of its darts or edges where the step asks for one; where its partner would be
    itself, with the front, then with none."""
    if issubclass(step, FrontAndBackStep) and piece.name == step.model_fields["other"].default:
        for other in ("front", ""):
            yield {"do": do, "on": piece.name, "other": other}
        return
    value: dict[str, object] = {"do": do, "on": piece.name}
    asked = next(
        (name for name in ("dart", "edge") if name in step.model_fields and step.model_fields[name].is_required()), None
    )
    if asked is None:
        yield value
        return
    ids = [dart.id for dart in piece.darts] if asked == "dart" else [edge for edge, _role in piece.roles]
    yield from ({**value, asked: id} for id in ids)
