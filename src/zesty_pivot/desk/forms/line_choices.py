"""What is chosen behind a comma in a note: a piece, an item of a list, or a place: `princess line, back, mid arm`."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.forms.number_line import length_and_words
from zesty_pivot.desk.forms.places import place_choices, place_value
from zesty_pivot.desk.forms.plain import PlainForm
from zesty_pivot.desk.forms.rows import ChoiceRow, PieceRow, PlaceRow, Row

MOST_TOLD = 6  # names in a sentence


def _is_called(title: str, asked: str) -> bool:
    """Whether the words asked for begin words of a title, in their order."""
    names = iter(title.lower().replace(",", " ").split())
    return all(any(name.startswith(word) for name in names) for word in asked.lower().split())


def _choices(row: Row, step: Step, before: Pattern, piece: Piece | None) -> Iterator[tuple[str, dict[str, Any]]]:
    """What may be chosen in a row: titles with the parameters that they are. A list of one is no choice."""
    if isinstance(row, PieceRow):
        for one in before.pieces:
            yield words(one.name), {row.key: one.name, **row.follow(one)}
    elif isinstance(row, ChoiceRow):
        known = row.choices(step, piece)
        for value, title in known if len(known) > 1 else ():
            yield title, {row.written or row.key: value}


def _places(row: PlaceRow, asked: str, piece: Piece) -> Iterator[tuple[str, dict[str, Any]]]:
    """The places that a text may mean: `mid armhole`, `5 side seam`, `45% centre`."""
    at, edge = length_and_words(asked)
    if at:
        for id, _role in piece.roles:
            if edge and _is_called(words(id), edge):
                yield f"{at} along the {words(id)}", {row.written or row.key: {"edge": id, "at": at}}
        return
    for key, title in place_choices(piece, piece.darts, None):
        value = place_value(key)
        if value is not None and _is_called(title, asked):
            yield title, {row.written or row.key: value}


def chosen(form: object, step: Step, before: Pattern, asked: str, taken: set[str]) -> tuple[dict[str, Any], str]:
    """The parameters of a step that words mean which begin words of a title, and the title. Of several places of a step the
    first that is not in `taken` yet is meant; it is added there.

    Raises StepError where nothing or more than one is called so.
    """
    if not isinstance(form, PlainForm):
        raise StepError("nothing can be chosen here", where=step.on, advice="Leave the words behind the comma out.")
    piece = before.piece(step.on) if before.has(step.on) else None
    rows = [row for row in form.rows.values() if row.is_shown(step, before)]
    known = [(title, values, "") for row in rows for title, values in _choices(row, step, before, piece)]
    place = next((row for row in rows if isinstance(row, PlaceRow) and row.key not in taken), None)
    found = [one for one in known if _is_called(one[0], asked)]
    if place is not None and piece is not None:
        found += [(title, values, place.key) for title, values in _places(place, asked, piece)]
    exact = [one for one in found if one[0].lower() == asked.lower()] or found
    if len(exact) != 1:
        names = [title for title, _values, _key in found or known][:MOST_TOLD]
        what = f"{len(found)} choices are called {asked!r}" if found else f"no choice is called {asked!r}"
        raise StepError(what, where=step.on, advice=f"Write {', '.join(names)}." if names else "Leave it out.")
    ((title, values, key),) = exact
    taken.add(key)
    return values, title
