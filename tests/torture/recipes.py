"""Random recipes on many blocks: each is worked out whole, and every invariant holds."""

from __future__ import annotations

import logging
import random
from dataclasses import dataclass

from pydantic import ValidationError

from tests.torture.blocks import COUNT, block
from tests.torture.invariants import broken
from tests.torture.steps import any_step, panels_first
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.faults import LOGGER
from zesty_pivot.core.formats import block_file, files
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step

DEEP_EACH = 4  # every so many the files are written and the style is opened again


@dataclass(frozen=True)
class Failure:
    """What went wrong, and the recipe that shows it: a block's number and the steps as in a file."""

    what: str
    block: int
    steps: tuple[dict, ...]  # type: ignore[type-arg]


class Caught(logging.Handler):
    """Faults of the program that a boundary caught."""

    def __init__(self) -> None:
        super().__init__()
        self.said: list[str] = []

    def emit(self, record: logging.LogRecord) -> None:
        fault = vars(record)["fault"]
        self.said.append(f"{record.getMessage()}: {type(fault).__name__}: {fault} (reference {record.__dict__['reference']})")


def random_style(seed: int, *, most: int = 9) -> tuple[int, Style]:
    """A block's number and a style over it, the same for the same seed. Steps are chosen with an eye on what is there."""
    chance = random.Random(seed)
    number = chance.randrange(COUNT)
    base = block(number)
    units = chance.choice(["cm", "in", "mm"])
    scope, evaluator, pattern = Scope(units, base.measurements), Evaluator(), block_file.pattern(base)
    steps: list[Step] = [registry.read(value) for value in panels_first(chance)] if chance.random() < 0.25 else []
    knows = chance.random() < 0.8
    for _ in range(chance.randint(2, most)):
        now = evaluator.evaluate(pattern, steps, scope).states[-1].pattern if knows else None
        for _try in range(chance.choice([1, 4]) if knows else 1):  # some recipes go far, some stumble at every step
            step = read(any_step(chance, now))
            if step is None or now is None or _works(step, now, pattern, scope):
                break
        if step is None:
            continue
        steps.append(step)
        if chance.random() < 0.05:
            steps[-1] = steps[-1].model_copy(update={"off": True})
    finish = any_finish(chance, pattern) if chance.random() < 0.5 else Finish()
    return number, Style(name="Any", block=base, steps=tuple(steps), units=units, finish=finish)


def any_finish(chance: random.Random, pattern: Pattern) -> Finish:
    """Schools and own choices as a user may have made them, narrow and wide."""
    edges = [f"{piece.name}.{edge}" for piece in pattern.pieces for edge, _role in piece.roles]
    darts = [f"{piece.name}.{dart.id}" for piece in pattern.pieces for dart in piece.darts]
    wide = ["0", "1 mm", "1/4 in", "3 cm", "5 cm", "bust/20"]
    return Finish.model_validate({
        "allowance": chance.choice(["industry_metric", "inches_room", "home_room", "none"]),
        "end": chance.choice(["auto", "cap", "cut_away"]),
        "weight": chance.choice(["light", "medium", "heavy"]),
        "setback": chance.choice(["graded", "near", "even", "inch", "large_shoulder"]),
        "fold": chance.choice(["trade", "waist_to_side"]),
        "cut_away": chance.choice(["5 mm", "1 cm", "2 cm"]),
        "allowances": {edge: chance.choice(wide) for edge in chance.sample(edges, min(3, len(edges)))},
        "darts": {
            dart: {"end": chance.choice(["auto", "cap", "cut_away", "press_away"])} for dart in darts if chance.random() < 0.3
        },
    })  # fmt: skip


def _works(step: Step, pattern: Pattern, block: Pattern, scope: Scope) -> bool:
    try:
        attempt(step, pattern, Context(block, scope))
    except ZestyError:
        return False
    return True


def read(value: dict) -> Step | None:  # type: ignore[type-arg]
    """A step, or None where a file with it would be refused; that must be one line."""
    try:
        return registry.read(value)
    except ValidationError as fault:
        said = files.faults(fault)
        assert "\n" not in said and len(said) < 1000, said
        return None


def failures(style: Style, *, deep: bool) -> list[str]:
    """What does not hold for a style, faults of the program among it."""
    caught = Caught()
    LOGGER.addHandler(caught)
    try:
        found = derive(style)
        said = broken(found, deep=deep)
    except Exception as fault:  # noqa: BLE001 - whatever is raised is what is looked for
        said = [f"raised {type(fault).__name__}: {fault}"]
    finally:
        LOGGER.removeHandler(caught)
    return [*caught.said, *said]


def tried(seed: int) -> Failure | None:
    """One recipe, shrunk when something about it does not hold."""
    caught = Caught()
    LOGGER.addHandler(caught)
    try:
        number, style = random_style(seed)
    except Exception as fault:  # noqa: BLE001 - whatever is raised is what is looked for
        return Failure(f"seed {seed} raised {type(fault).__name__}: {fault}", -1, ())
    finally:
        LOGGER.removeHandler(caught)
    deep = seed % DEEP_EACH == 0
    said = failures(style, deep=deep)
    if not said:
        return None
    style = shrunk(style, kind(said[0]), deep=deep)
    said = failures(style, deep=deep)
    return Failure(said[0] if said else "gone when shrunk", number, tuple(registry.dump(step) for step in style.steps))


def kind(said: str) -> str:
    """What two failures have in common: the sentence without its numbers and names."""
    words = [word for word in said.split("(")[0].split() if not any(c.isdigit() for c in word)]
    return " ".join(words[-5:])


def shrunk(style: Style, what: str, *, deep: bool) -> Style:
    """The style with as few steps as still show the same failure."""
    steps = list(style.steps)
    at = 0
    while at < len(steps):
        fewer = style.with_steps(tuple(steps[:at] + steps[at + 1 :]))
        if any(kind(said) == what for said in failures(fewer, deep=deep)):
            del steps[at]
        else:
            at += 1
    return style.with_steps(tuple(steps))
