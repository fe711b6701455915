"""Princess lines on several blocks, and what must hold of them."""

from __future__ import annotations

import random
from typing import Any

from tests.samples import scaled
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.formats.derived import look_at
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.recipe import Derivation


def line(on: str = "front", **more: Any) -> dict[str, Any]:
    return {"do": "line.princess", "on": on, **more}


def blocks() -> list[Pattern]:
    chance = random.Random(5)
    return [scaled(chance.uniform(0.8, 1.35), chance.uniform(0.85, 1.2)) for _ in range(10)]


def checked(found: Derivation) -> list[Any]:
    from tests.samples import style

    return list(findings(look_at(style([]), found.block, found.pattern)))
