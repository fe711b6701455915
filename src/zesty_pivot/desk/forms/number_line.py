"""Numbers written behind a name, as a note from a fitting has them: `queen anne 3 7 4` is its width, depth and corner."""

from __future__ import annotations

import re
from typing import Any

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Unit, is_share
from zesty_pivot.core.quantity.formula import with_unit
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.forms.plain import PlainForm
from zesty_pivot.desk.forms.rows import LengthRow, NumberRow

LEFT_OUT = "-"  # a number that stays as it begins

_NUMBER = re.compile(r"-|[\d.,]*\d[\d.,/]*(?:%|in|cm|mm|\")?")
_FRACTION = re.compile(r"\d+/\d+(?:in|cm|mm|\")?")
_UNITS = ("in", "cm", "mm")


def parted(text: str) -> tuple[str, tuple[str, ...]]:
    """The words of a search, and the numbers behind them: whole numbers, decimals, fractions (`3 1/2`), shares (`55%`), each
    with its unit if it has one."""
    words = text.split()
    first = next((at for at, word in enumerate(words) if at and _NUMBER.fullmatch(word)), len(words))
    numbers: list[str] = []
    for word in words[first:]:
        if numbers and (word in _UNITS or (_FRACTION.fullmatch(word) and numbers[-1].isdigit())):
            numbers[-1] += f" {word}"
        elif _NUMBER.fullmatch(word):
            numbers.append(word)
        else:
            return text, ()
    return " ".join(words[:first]), tuple(numbers)


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
            told.append(f"{title} {text if isinstance(row, NumberRow) or is_share(text) else with_unit(text, unit)}")
    if len(numbers) < len(rows):
        told.append(f"next: {titles[len(numbers)]}")
    return values, ", ".join(told)
