"""All forms: those found in this folder, and one by its fields for every other step."""

from __future__ import annotations

from functools import lru_cache

from zesty_pivot.core.discovery import members
from zesty_pivot.core.steps.registry import all_steps
from zesty_pivot.desk import forms
from zesty_pivot.desk.forms.base import FormEntry


@lru_cache(maxsize=1)
def all_forms() -> dict[str, FormEntry]:
    """The forms by the step's `do`, in the order in which steps are offered."""
    from zesty_pivot.desk.forms.from_fields import entry_of

    entries = [found for found in members(forms, "FORM") if isinstance(found, FormEntry)]
    own = {entry.do for entry in entries}
    entries += [entry_of(step) for do, step in all_steps().items() if do not in own]
    return {entry.do: entry for entry in sorted(entries, key=lambda entry: entry.order)}
