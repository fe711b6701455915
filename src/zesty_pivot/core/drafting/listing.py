"""Drafting methods with their parameters, for `zesty-pivot methods --json`."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any

from zesty_pivot.core.drafting.method import Method


def listing(methods: Iterable[Method]) -> list[dict[str, Any]]:
    """Each method: id, title, summary, unit, the measurements it needs and uses, its parameters in order."""
    return [
        {
            "id": method.id,
            "title": method.title,
            "summary": method.summary,
            "units": method.units,
            "needs": list(method.needs),
            "uses": list(method.uses),
            "parameters": [parameter.model_dump(mode="json") for parameter in method.parameters],
        }
        for method in methods
    ]
