"""Practise: questions have one answer, the answer is what the step does, and a guess is judged fairly."""

import random
from dataclasses import replace

import pytest

from tests.samples import move, real_pattern, scaled, worked
from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.clearing import station_of
from zesty_pivot.core.procedures.dart_moves import move_dart
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe.practise import KINDS, question


@pytest.mark.parametrize("kind", KINDS)
@pytest.mark.parametrize("seed", range(12))
@pytest.mark.parametrize("unit", ["cm", "in"])
def test_the_answer_is_what_the_step_does(kind: str, seed: int, unit: str) -> None:
    block = scaled(1.0 + 0.02 * seed, 1.0)
    asked = question(kind, block, Context(block, Scope(unit)), random.Random(seed))  # type: ignore[arg-type]
    after = move_dart(asked.move, block, Context(block, Scope(unit))).pattern.piece(asked.move.on)
    assert any(abs(after.intake(dart.id) - asked.mouth_mm) < 1e-9 for dart in after.darts)
    assert asked.text.endswith("?") and asked.kind == kind
    if kind == "where":
        assert asked.answer in asked.choices and 2 <= len(asked.choices) <= 4
        assert asked.move.to.station == asked.answer
        assert asked.is_right(asked.answer) and not any(asked.is_right(c) for c in asked.choices if c != asked.answer)
        # Only one choice gives the mouth that is told.
        for other in asked.choices:
            if other != asked.answer:
                moved = replace(asked.move, to=station_of(other))
                found = move_dart(moved, block, Context(block, Scope())).pattern.piece(asked.move.on)
                assert abs(found.intake(asked.move.dart) - asked.mouth_mm) > 0.1 * asked.mouth_mm
    else:
        assert not asked.choices
        near = max(0.1 * asked.mouth_mm, 5.0)
        assert asked.is_right(asked.mouth_mm + 0.99 * near) and not asked.is_right(asked.mouth_mm + 1.01 * near)


def test_without_darts_there_is_nothing_to_practise() -> None:
    block = real_pattern()
    steps = [
        {"do": "dart.use", "on": on, "dart": dart, "as": "flare"} for on in ("front", "back") for dart in ("waist", "shoulder")
    ]
    flat: Pattern = worked(steps).pattern
    with pytest.raises(StepError, match="no dart to practise with"):
        question("whole", flat, Context(block, Scope()), random.Random(1))
    one = worked([*steps[1:], move("waist", "french")]).pattern
    assert question("whole", one, Context(block, Scope()), random.Random(1)).move.dart == "waist"
