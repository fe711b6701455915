"""What comes of some steps, and what must be sound then."""

from __future__ import annotations

from tests.samples import real_block, real_pattern
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Derivation, Evaluator
from zesty_pivot.core.steps import registry


def worked(*steps: dict, block: Pattern | None = None) -> Derivation:  # type: ignore[type-arg]
    return Evaluator().evaluate(
        block or real_pattern(), [registry.read(step) for step in steps], Scope("cm", real_block().measurements)
    )


def sound(*steps: dict, block: Pattern | None = None) -> Pattern:  # type: ignore[type-arg]
    derivation = worked(*steps, block=block)
    assert not derivation.broken, derivation.broken
    return derivation.pattern
