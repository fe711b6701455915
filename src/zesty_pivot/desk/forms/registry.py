"""All forms, found in this folder."""

from __future__ import annotations

from functools import lru_cache

from zesty_pivot.core.discovery import members
from zesty_pivot.desk import forms
from zesty_pivot.desk.forms.base import FormEntry


@lru_cache(maxsize=1)
def all_forms() -> dict[str, FormEntry]:
    """The forms by the step's `do`, in the order in which steps are offered."""
    entries = [found for found in members(forms, "FORM") if isinstance(found, FormEntry)]
    return {entry.do: entry for entry in sorted(entries, key=lambda entry: entry.order)}
