"""A step as it would be on the other piece: what was done on the front, on the back, or on its panel of the same kind."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step

BODIES = ("front", "back")


def other_of(name: str, pattern: Pattern) -> str:
    """The piece on the other side of the body that is called alike: `back_side` for `front_side`; empty when there is none."""
    for one, two in (BODIES, BODIES[::-1]):
        if name.partition("_")[0] == one:
            found = two + name.removeprefix(one)
            return found if pattern.has(found) else ""
    return ""


def values_on_other(step: Step, pattern: Pattern) -> list[dict[str, Any]]:
    """The step with the same numbers on the other piece, as JSON to be tried in turn: with the same dart, then with each of
    the darts that are there. None where there is no such piece."""
    there = other_of(step.on, pattern)
    if not there:
        return []
    value = {key: part for key, part in registry.dump(step).items() if key not in ("name", "group", "off")}
    value["on"] = there
    if value.get("other") == there:
        value["other"] = step.on
    if "dart" not in value:
        return [value]
    return [value, *({**value, "dart": dart.id} for dart in pattern.piece(there).darts if dart.id != value["dart"])]
