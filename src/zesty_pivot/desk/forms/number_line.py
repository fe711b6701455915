"""A note behind a name, as from a fitting: `queen anne 3 7 4` is its width, depth and corner; `round +2 +3` is so much more
than the block's own neckline; `keyhole 4 5, in a point` chooses from its lists."""

from __future__ import annotations

import re
from typing import Any, NamedTuple

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Unit, is_share
from zesty_pivot.core.quantity.formula import with_unit
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.forms.plain import PlainForm
from zesty_pivot.desk.forms.rows import ChoiceRow, LengthRow, NumberRow, PieceRow

LEFT_OUT = "-"  # a number that stays as it begins

_NUMBER = re.compile(r"-|\+?[\d.,]*\d[\d.,/]*(?:%|in|cm|mm|\")?")
_FRACTION = re.compile(r"\d+/\d+(?:in|cm|mm|\")?")
_WHOLE = re.compile(r"\+?\d+")
_UNITS = ("in", "cm", "mm")
_COMMA = re.compile(r",(?!\d)")  # one that is no decimal comma


class Line(NamedTuple):
    """What is written into the search: the words looked for, the numbers behind them, and behind commas what is chosen."""

    words: str
    numbers: tuple[str, ...] = ()
    choices: tuple[str, ...] = ()

    @property
    def is_bare(self) -> bool:
        """Whether there are words only."""
        return not self.numbers and not self.choices


def parted(text: str) -> Line:
    """The words of a search, and what stands behind them: whole numbers, decimals, fractions (`3 1/2`), shares (`55%`), each
    with its unit if it has one."""
    head, *tails = _COMMA.split(text)
    choices = tuple(tail.strip() for tail in tails if tail.strip())
    words = head.split()
    first = next((at for at, word in enumerate(words) if at and _NUMBER.fullmatch(word)), len(words))
    numbers: list[str] = []
    for word in words[first:]:
        if numbers and (word in _UNITS or (_FRACTION.fullmatch(word) and _WHOLE.fullmatch(numbers[-1]))):
            numbers[-1] += f" {word}"
        elif _NUMBER.fullmatch(word):
            numbers.append(word)
        else:
            return Line(text)
    return Line(" ".join(words[:first]), tuple(numbers), choices)


def _is_called(title: str, asked: str) -> bool:
    """Whether the words asked for begin words of a title, in their order."""
    names = iter(title.lower().replace(",", " ").split())
    return all(any(name.startswith(word) for name in names) for word in asked.lower().split())


def chosen(form: object, step: Step, before: Pattern, asked: str) -> tuple[dict[str, Any], str]:
    """The parameters of a step that are another choice of its lists, by words that begin words of its title, and the title.
    Raises StepError where none or several are called so."""
    if not isinstance(form, PlainForm):
        raise StepError("nothing can be chosen here", where=step.on, advice="Leave the words behind the comma out.")
    found: list[tuple[str, dict[str, Any]]] = []
    known: list[str] = []
    piece = before.piece(step.on) if before.has(step.on) else None
    for row in form.rows.values():
        if isinstance(row, PieceRow):
            titles = [(one.name, {row.key: one.name, **row.follow(one)}) for one in before.pieces]
        elif isinstance(row, ChoiceRow) and row.is_shown(step, before):
            titles = [(title, {row.written or row.key: value}) for value, title in row.choices(step, piece)]
        else:
            continue
        known += [title for title, _values in titles]
        found += [(title, values) for title, values in titles if _is_called(title, asked)]
    exact = [one for one in found if one[0].lower() == asked.lower()]
    if len(exact or found) != 1:
        names = [title for title, _values in found] or known
        what = f"{len(found)} choices are called {asked!r}" if found else f"no choice is called {asked!r}"
        raise StepError(what, where=step.on, advice=f"Write {', '.join(names[:6])}." if names else "Leave it out.")
    ((title, values),) = exact or found
    return values, title


def _rows(form: object, step: Step, before: Pattern) -> list[LengthRow]:
    """The number fields of a step as its form shows them, in their order."""
    if not isinstance(form, PlainForm):
        return []
    return [row for row in form.rows.values() if isinstance(row, LengthRow) and row.is_shown(step, before)]


def _titles(form: object, rows: list[LengthRow], step: Step, before: Pattern) -> list[str]:
    if isinstance(form, PlainForm):
        form.show_step(0, step, before)  # some are called by what they are of
        return [form.titles[row.key].text().lower() for row in rows]
    return []


def written(form: object, step: Step, before: Pattern, numbers: tuple[str, ...], unit: Unit) -> tuple[dict[str, Any], str]:
    """The parameters of a step that some numbers are, and words for them, lengths with their unit. Raises StepError where there
    are more numbers than fields, and what the fields raise."""
    rows = _rows(form, step, before)
    titles = _titles(form, rows, step, before)
    if len(numbers) > len(rows):
        takes = f"takes {len(rows)} number{'s' * (len(rows) > 1)}: {', '.join(titles)}" if rows else "takes no numbers here"
        raise StepError(f"it {takes}", where=step.on, advice=f"You wrote {len(numbers)}.")
    values: dict[str, Any] = {}
    told = []
    for row, title, text in zip(rows, titles, numbers, strict=False):
        if text != LEFT_OUT:
            values |= row.values(text)
            plain = isinstance(row, NumberRow) or is_share(text)
            more = row.more is not None and text.startswith("+")
            bare = text.removeprefix("+") if more else text
            told.append(f"{title} {bare if plain else with_unit(bare, unit)}{' more than the block has' if more else ''}")
    if len(numbers) < len(rows):
        told.append(f"next: {titles[len(numbers)]}")
    return values, ", ".join(told)
