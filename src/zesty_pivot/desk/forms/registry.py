"""All forms, found in this folder."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import lru_cache

from zesty_pivot.core.discovery import members
from zesty_pivot.desk import forms
from zesty_pivot.desk.forms.base import StepForm
from zesty_pivot.desk.model import DeskModel


@dataclass(frozen=True)
class FormEntry:
    """How a step is edited, and what it begins with when it is added."""

    do: str
    make: Callable[[DeskModel], StepForm]
    first: Callable[[DeskModel], dict[str, object] | None]


@lru_cache(maxsize=1)
def all_forms() -> dict[str, FormEntry]:
    """The forms by the step's `do`."""
    entries = [FormEntry(*found) for found in members(forms, "FORM") if isinstance(found, tuple)]
    return {entry.do: entry for entry in entries}
