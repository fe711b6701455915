"""All steps by their `do`."""

from __future__ import annotations

from collections.abc import Mapping
from functools import lru_cache
from types import MappingProxyType
from typing import Any

from pydantic import ValidationError

from zesty_pivot.core import steps
from zesty_pivot.core.discovery import members
from zesty_pivot.core.errors import one_of
from zesty_pivot.core.steps.base import Step


@lru_cache(maxsize=1)
def all_steps() -> Mapping[str, type[Step]]:
    """Every step class by its `do`, in alphabetical order."""
    found: dict[str, type[Step]] = {}
    for member in members(steps, "STEP"):
        assert isinstance(member, type) and issubclass(member, Step)
        found[member.model_fields["do"].default] = member
    return MappingProxyType(dict(sorted(found.items())))


def read(value: Any) -> Step:
    """A step from its JSON object. Raises ValueError (or pydantic's ValidationError) saying what is wrong."""
    if isinstance(value, Step):
        return value
    if not isinstance(value, dict):
        raise ValueError("a step is an object with 'do' and its parameters")
    kind = value.get("do")
    known = all_steps()
    if not isinstance(kind, str) or kind not in known:
        what, advice = one_of("step", str(kind), known)
        raise ValueError(f"{what}. {advice}")
    return known[kind].model_validate(value)


def dump(step: Step) -> dict[str, Any]:
    """A step as its JSON object, defaults left out, `do` and `on` always there."""
    written: dict[str, Any] = step.model_dump(mode="json", by_alias=True, exclude_defaults=True)
    return {"do": step.do, "on": step.on, **{key: value for key, value in written.items() if key not in ("do", "on")}}


def listing() -> list[dict[str, Any]]:
    """Every step with its parameters, for `zesty-pivot steps --json`."""
    return [
        {"do": do, "title": step.title, "summary": step.summary, "parameters": step.model_json_schema(by_alias=True)}
        for do, step in all_steps().items()
    ]


__all__ = ["ValidationError", "all_steps", "dump", "listing", "read"]
