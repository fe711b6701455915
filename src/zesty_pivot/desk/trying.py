"""Steps tried on the pattern that lies on the table, before anybody asks for them: what would come of each, or why not."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from pydantic import ValidationError

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.record import record
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.document import Document

NO_CHANGE = "This is so already."


@record
class Trial:
    """A step that can be done and the pattern after it; or why none can be."""

    step: Step | None = None
    pattern: Pattern | None = None
    fault: str = ""


def first_that_works(document: Document, values: Iterable[dict[str, Any]]) -> Trial:
    """The first of some steps (JSON) that changes the pattern on the table; else what was wrong with the first of them."""
    fault = ""
    context = document.derived.context
    pattern = document.pattern
    for value in values:
        try:
            step = registry.read(value)
            made = attempt(step, pattern, context).pattern
        except ZestyError as found:
            fault = fault or _said(found)
        except ValidationError as found:
            fault = fault or str(found.errors()[0]["msg"])
        else:
            if made is not pattern:
                return Trial(step, made)
            fault = fault or NO_CHANGE
    return Trial(fault=fault or "There is nothing here to do it to.")


def _said(fault: ZestyError) -> str:
    what = fault.what[:1].upper() + fault.what[1:]
    return f"{what}. {fault.advice}".strip() if fault.advice else f"{what}."
