"""A session of random edits: nothing raises, undo all and redo all give the identical documents."""

import gc
import random

import pytest

from tests.samples import style
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.recipe.evaluation import KEPT_STATES
from zesty_pivot.core.steps import registry
from zesty_pivot.desk.forms.registry import all_forms
from zesty_pivot.desk.history import KEPT_ENTRIES
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.ring_control import RingControl
from zesty_pivot.desk.table.ring_model import ring_of

FINISH = [
    {"allowance": "none"},
    {"end": "cap"},
    {"setback": "near"},
    {"cut": {"front": "pair"}},
    {"ease": {"front.shoulder": "3 mm"}},
]


def edited(model: DeskModel, chance: random.Random, edits: int) -> None:
    """Random edits as a user makes them; after each the findings can be read and there is a state for every step."""
    block = model.derived.derivation.block

    def ring():  # type: ignore[no-untyped-def]
        name, pivot = model.pivot
        return ring_of(model.pattern.piece(name), block.piece(name), pivot, model.style.scope())

    control = RingControl(model, ring)
    for _ in range(edits):
        what = chance.choice(
            [
                "drag",
                "drag",
                "drag",
                "true",
                "off",
                "move",
                "remove",
                "copy",
                "chain",
                "finish",
                "look",
                "units",
                "pivot",
                "mend",
            ]
        )
        count = len(model.style.steps)
        if what == "drag" and ring().beads:
            control.pick_up(chance.choice(ring().beads).dart)
            control.point(chance.uniform(-3.1, 3.1))
            if chance.random() < 0.5:
                control.set_share(chance.random())
            control.drop()
        elif what == "true":
            value = {"do": "piece.true", "on": chance.choice(["front", "back"]), "edge": chance.choice(["waist", "shoulder"])}
            model.add_step(registry.read(value), "true")
        elif what == "off" and count:
            at = chance.randrange(count)
            step = model.style.steps[at]
            model.replace_step(at, step.model_copy(update={"off": not step.off}), "off")
        elif what == "move" and count > 1:
            model.move_step(chance.randrange(count), chance.choice([-1, 1]))
        elif what == "remove" and count > 4:
            for _extra in range(max(1, count - 8)):
                model.remove_step(chance.randrange(len(model.style.steps)))
        elif what == "copy" and 0 < count < 10:
            model.duplicate_step(chance.randrange(count))
        elif what == "chain":
            do = chance.choice(["dart.split", "dart.merge", "dart.equalise"])
            value = all_forms()[do].first(model) if all_forms()[do].can(model) else None
            if value is not None:
                model.add_step(registry.read(value), do)
        elif what == "finish":
            model.set_finish(chance.choice(FINISH), "finish")
        elif what == "look":
            model.choose_step(chance.randrange(-1, count) if count else None)
        elif what == "units":
            model.set_units(chance.choice(["cm", "mm", "in"]))
        elif what == "pivot":
            model.choose_pivot(chance.choice([("front", "bust_point"), ("back", "blade_point"), ("back", "waist_tip")]))
        elif what == "mend" and model.findings and model.findings[0].mend:
            model.mend(model.findings[0].mend)
        assert model.derived.findings is not None
        assert len(model.derived.derivation.states) == len(model.style.steps) + 1


@pytest.mark.parametrize("seed", range(4))
def test_forty_random_edits(seed: int, qtbot) -> None:  # type: ignore[no-untyped-def]
    model = DeskModel(style([]))
    first = style_file.dump(model.style)
    edited(model, random.Random(seed), 40)
    last = style_file.dump(model.style)
    while model.undo_title:
        model.undo()
    assert style_file.dump(model.style) == first
    while model.redo_title:
        model.redo()
    assert style_file.dump(model.style) == last


def there_and_back(model: DeskModel) -> list[bytes]:
    """Every document on the way back and forth again."""
    seen = [style_file.dump(model.style)]
    while model.undo_title:
        model.undo()
        seen.append(style_file.dump(model.style))
    count = len(seen)
    while model.redo_title:
        model.redo()
        assert style_file.dump(model.style) == seen[count - 2]
        count -= 1
    return seen


def test_five_hundred_random_edits(qtbot) -> None:  # type: ignore[no-untyped-def]
    """Undo and redo of all return the identical documents, in memory that does not grow: what is kept is bounded, and going
    through it all again keeps no more."""
    model = DeskModel(style([]))
    chance = random.Random(500)
    made = 0
    while model._history.at < 500:
        edited(model, chance, 50)
        made += 50
        assert made < 2000
    seen = there_and_back(model)
    assert len(seen) > 500 and len(set(seen)) > 300
    counts = []
    for _ in range(3):
        while model.undo_title:
            model.undo()
        while model.redo_title:
            model.redo()
        gc.collect()
        counts.append(len(gc.get_objects()))
    assert counts[2] < 1.02 * counts[1], counts
    assert len(model._evaluator._states) <= KEPT_STATES and len(model._history.values) <= KEPT_ENTRIES
