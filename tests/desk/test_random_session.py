"""A session of random edits: nothing raises, undo all and redo all give the identical documents."""

import random

import pytest

from tests.samples import style
from zesty_pivot.core.formats import style_file
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


@pytest.mark.parametrize("seed", range(4))
def test_forty_random_edits(seed: int, qtbot) -> None:  # type: ignore[no-untyped-def]
    chance = random.Random(seed)
    model = DeskModel(style([]))
    first = style_file.dump(model.style)
    block = model.derived.derivation.block

    def ring():  # type: ignore[no-untyped-def]
        name, pivot = model.pivot
        return ring_of(model.pattern.piece(name), block.piece(name), pivot, model.style.scope())

    control = RingControl(model, ring)
    for _ in range(40):
        what = chance.choice(
            ["drag", "drag", "drag", "true", "off", "move", "remove", "finish", "look", "units", "pivot", "mend"]
        )
        count = len(model.style.steps)
        if what == "drag" and ring().beads:
            control.pick_up(chance.choice(ring().beads).dart)
            control.point(chance.uniform(-3.1, 3.1))
            if chance.random() < 0.5:
                control.set_share(chance.random())
            control.drop()
        elif what == "true":
            from zesty_pivot.core.steps import registry

            value = {"do": "piece.true", "on": chance.choice(["front", "back"]), "edge": chance.choice(["waist", "shoulder"])}
            model.add_step(registry.read(value), "true")
        elif what == "off" and count:
            at = chance.randrange(count)
            step = model.style.steps[at]
            model.replace_step(at, step.model_copy(update={"off": not step.off}), "off")
        elif what == "move" and count > 1:
            model.move_step(chance.randrange(count), chance.choice([-1, 1]))
        elif what == "remove" and count > 4:
            model.remove_step(chance.randrange(count))
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
    last = style_file.dump(model.style)
    while model.undo_title:
        model.undo()
    assert style_file.dump(model.style) == first
    while model.redo_title:
        model.redo()
    assert style_file.dump(model.style) == last
