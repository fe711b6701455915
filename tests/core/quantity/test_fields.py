"""Darts called otherwise in a step: against every field looked at, whatever its type says."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

import pytest

from zesty_pivot.core.quantity.fields import Model, NamesDart, with_darts
from zesty_pivot.core.steps import registry
from zesty_pivot.data.demo import demo_styles

STEPS = [step for style in demo_styles() for step in style.steps]
MORE = [
    {"do": "dart.park", "on": "front", "darts": ["shoulder", "waist"], "to": {"dart": "shoulder"}},
    {"do": "dart.split", "on": "front", "dart": "shoulder", "parts": [{"to": {"dart": "waist"}, "share": "30%"}]},
    {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"edge": "side_seam", "at": "40%"}},
    {"do": "dart.use", "on": "back", "dart": "waist", "as": "gathers", "over": "6 cm"},
    {"do": "measure.tape", "on": "front", "from": {"dart": "shoulder", "part": "sewn"}, "to": {"landmark": "bust_point"}},
]


def renamed(value: Any, name: Callable[[str], str], is_dart: bool = False) -> Any:
    """The same by looking at every field of every model in it."""
    if isinstance(value, Model):
        fields = type(value).model_fields.items()
        named = {field: any(isinstance(mark, NamesDart) for mark in info.metadata) for field, info in fields}
        return value.model_copy(update={field: renamed(getattr(value, field), name, named[field]) for field in named})
    if isinstance(value, tuple):
        return tuple(renamed(part, name, is_dart) for part in value)
    return name(value) if is_dart and isinstance(value, str) and value else value


@pytest.mark.parametrize("step", [*STEPS, *map(registry.read, MORE)], ids=lambda step: step.do)
def test_every_dart_is_called_otherwise_and_nothing_else(step: Model) -> None:
    assert with_darts(step, lambda id: f"new {id}") == renamed(step, lambda id: f"new {id}")
    assert with_darts(step, lambda id: id) is step


def test_darts_are_named_in_fields_lists_and_places() -> None:
    parked, split = map(registry.read, MORE[:2])
    told = with_darts(parked, str.upper)
    assert told.darts == ("SHOULDER", "WAIST") and told.to.dart == "SHOULDER"  # type: ignore[attr-defined]
    assert with_darts(split, str.upper).parts[0].to.dart == "WAIST"  # type: ignore[attr-defined]
