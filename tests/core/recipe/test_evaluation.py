"""Recipes: reuse of the unchanged beginning, broken steps, steps switched off."""

from tests.samples import move, real_pattern
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.recipe.evaluation import KEPT_STATES
from zesty_pivot.core.steps import registry

STEPS = [
    registry.read(s) for s in (move("shoulder", "french"), move("waist", "mid_armhole", "50%"), move("waist", "side_bust"))
]


def test_the_unchanged_beginning_is_not_worked_out_again() -> None:
    evaluator = Evaluator()
    first = evaluator.evaluate(real_pattern(), STEPS, Scope())
    assert evaluator.worked == 3
    changed = [*STEPS[:2], registry.read(move("waist", "mid_neck"))]
    second = evaluator.evaluate(real_pattern(), changed, Scope())
    assert evaluator.worked == 4
    assert second.states[2] is first.states[2]
    evaluator.evaluate(real_pattern(), STEPS, Scope())
    assert evaluator.worked == 4  # going back is free


def test_other_units_are_another_beginning() -> None:
    evaluator = Evaluator()
    evaluator.evaluate(real_pattern(), STEPS, Scope("cm"))
    evaluator.evaluate(real_pattern(), STEPS, Scope("in"))
    assert evaluator.worked == 6


def test_a_broken_step_keeps_the_last_good_pattern_and_the_rest_goes_on() -> None:
    steps = [STEPS[0], registry.read(move("side", "french")), STEPS[1]]
    found = Evaluator().evaluate(real_pattern(), steps, Scope())
    ((number, fault),) = found.broken
    assert number == 2 and "no dart 'side'" in str(fault) and "step 2" in str(fault)
    assert found.states[2].pattern is found.states[1].pattern
    assert found.pattern.piece("front").has_dart("mid_armhole")


def test_a_step_that_is_off_is_passed_over() -> None:
    off = STEPS[0].model_copy(update={"off": True})
    assert Evaluator().evaluate(real_pattern(), [off], Scope()).pattern == real_pattern()


def test_the_same_recipe_gives_the_same_pattern() -> None:
    one = Evaluator().evaluate(real_pattern(), STEPS, Scope()).pattern
    assert one == Evaluator().evaluate(real_pattern(), STEPS, Scope()).pattern


def test_kept_states_are_bounded() -> None:
    evaluator = Evaluator()
    for share in range(1, 99):
        for tenth in range(6):
            evaluator.evaluate(real_pattern(), [registry.read(move("waist", "french", f"{share}.{tenth}%"))], Scope())
    assert len(evaluator._states) <= KEPT_STATES
