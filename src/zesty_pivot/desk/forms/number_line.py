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
from zesty_pivot.desk.forms.rows import LengthRow, NumberRow

LEFT_OUT = "-"  # a number that stays as it begins

_NUMBER = re.compile(r"-|\+?[\d.,]*\d[\d.,/]*(?:%|in|cm|mm|\")?")
_FRACTION = re.compile(r"\d+/\d+(?:in|cm|mm|\")?")
_WHOLE = re.compile(r"\+?\d+")
_UNITS = ("in", "cm", "mm")
_COMMA = re.compile(r",(?!\d)")  # one that is no decimal comma


class NoteLine(NamedTuple):
    """What is written into the search: the words looked for, the numbers behind them, and behind commas what is chosen."""

    words: str
    numbers: tuple[str, ...] = ()
    choices: tuple[str, ...] = ()

    @property
    def is_bare(self) -> bool:
        """Whether there are words only."""
        return not self.numbers and not self.choices


def parted(text: str) -> NoteLine:
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
            return NoteLine(text)
    return NoteLine(" ".join(words[:first]), tuple(numbers), choices)


def length_and_words(text: str) -> tuple[str, str]:
    """A length or share and the words behind it: `2 1/2 shoulder`. The length is empty where none leads."""
    line = parted(f"at {text}")
    if line.numbers:  # nothing but numbers
        return text, ""
    parts = text.split()
    for count in range(len(parts) - 1, 0, -1):
        numbers = parted(f"at {' '.join(parts[:count])}").numbers
        if len(numbers) == 1 and numbers[0] != LEFT_OUT:
            return numbers[0], " ".join(parts[count:])
    return "", text


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
