"""Where two pages meet, each join with a letter."""

from __future__ import annotations

from zesty_pivot.core.nest.paged import Page
from zesty_pivot.core.nest.plan import PagePlan
from zesty_pivot.core.record import record


@record
class Join:
    """The first page and the one right of it (`is_beside`) or below it, and the letter that stands on both."""

    letter: str
    first: Page
    second: Page
    is_beside: bool


def joins(plan: PagePlan) -> tuple[Join, ...]:
    """All joins of pages that are printed, in reading order."""
    found: list[Join] = []
    for page in plan.pages:
        for across, down in ((1, 0), (0, 1)):
            other = plan.neighbour(page, across, down)
            if other is not None:
                found.append(Join(letters(len(found)), page, other, across == 1))
    return tuple(found)


def letters(number: int) -> str:
    """A to Z, then AA."""
    first, last = divmod(number, 26)
    return (letters(first - 1) if first else "") + chr(65 + last)
