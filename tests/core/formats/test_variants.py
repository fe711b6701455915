"""Variants of a style: what they have in common is edited once, what is their own stays theirs."""

from __future__ import annotations

import random

import pytest

from tests.samples import move, real_block
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import style_file, variants
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.formats.unit_change import with_units
from zesty_pivot.core.steps import registry

PARK = {"do": "dart.park", "on": "front", "darts": ["shoulder"], "to": {"station": "centre_bust"}}
ROUND = {"do": "neck.shape", "on": "front", "shape": "round"}
SQUARE = {"do": "neck.shape", "on": "front", "shape": "square"}


def style(*steps: dict[str, object]) -> Style:
    return Style(name="T", block=real_block(), steps=tuple(registry.read(step) for step in steps))


def another(of: Style, at: int) -> Style:
    made, steps = variants.begun(of.variants, of.steps, at)
    return of.model_copy(update={"variants": made, "steps": steps})


def shown(of: Style, name: str) -> Style:
    made, steps = variants.put_on_table(of.variants, of.steps, name)
    return of.model_copy(update={"variants": made, "steps": steps})


def edited(of: Style, at: int, step: dict[str, object]) -> Style:
    return of.with_steps((*of.steps[:at], registry.read(step), *of.steps[at + 1 :]))


def steps_of(of: Style) -> dict[str, list[str]]:
    return {one.name: [s.said() for s in (of.steps if one.steps is None else one.steps)] for one in of.variants}


def test_two_necklines_over_one_parked_dart() -> None:
    two = edited(another(style(PARK, ROUND), 1), 1, SQUARE)
    named = steps_of(two)
    assert len(named) == 2 and [told.startswith("Square") for told in named] == [False, True], named
    # The parked dart is shared: put elsewhere under one, it is there under both.
    again = edited(two, 0, {**PARK, "to": {"station": "side_bust"}})
    assert {told[0] for told in steps_of(again).values()} == {again.steps[0].said()}
    assert [told[1:] for told in steps_of(again).values()] == [told[1:] for told in named.values()]
    # A step put in between the two is in common; one at the place where they part is the shown one's own.
    more = again.with_steps((registry.read(move("shoulder", "waist")), *again.steps))
    assert [len(told) for told in steps_of(more).values()] == [3, 3]
    own = more.with_steps((*more.steps[:2], registry.read(move("shoulder", "waist")), *more.steps[2:]))
    assert [len(told) for told in steps_of(own).values()] == [3, 4]
    # What is their own is changed in one alone, and a name of the user's own stays.
    called = own.model_copy(update={"variants": variants.renamed(own.variants, own.variants[0].name, "For Ina")})
    round_one = edited(shown(called, "For Ina"), 2, {**ROUND, "depth": "9 cm"})
    assert steps_of(round_one)["For Ina"][2] == round_one.steps[2].said()
    assert shown(round_one, round_one.variants[1].name).steps == own.steps


def test_one_of_two_alike_steps_is_taken_from_all_that_have_it_in_common() -> None:
    """Both variants begin with the same step twice: taken out once at one of them it is there once in both, not twice in the
    other."""
    both = another(style(PARK, PARK, ROUND), 3)
    assert [len(steps) for steps in steps_of(both).values()] == [3, 3]
    now = variants.changed(both.variants, both.steps, (both.steps[0], both.steps[2]))
    (other,) = [one for one in now if one.steps is not None]
    assert [step.do for step in other.steps] == ["dart.park", "neck.shape"]
    # The last of two alike that stand at the end.
    both = another(style(PARK, PARK), 2)
    now = variants.changed(both.variants, both.steps, both.steps[:1])
    (other,) = [one for one in now if one.steps is not None]
    assert [step.do for step in other.steps] == ["dart.park"]


def test_afresh_from_the_block_and_taken_away() -> None:
    three = another(another(style(PARK, ROUND), 1), -1)
    assert three.steps == () and len(three.variants) == 3
    assert steps_of(three)[variants.FIRST] == []
    left = three.variants
    for name in [one.name for one in three.variants if one.steps is not None]:
        left = variants.without(left, name)
    assert left == ()


def test_a_file_keeps_them_and_tells_of_bad_ones() -> None:
    two = edited(another(style(PARK, ROUND), 1), 1, SQUARE)
    value = files_value(two)
    assert style_file.from_value(value, "t.zpiv") == two
    assert with_units(two, "in").variants[0].steps is not None
    with pytest.raises(FileError, match="two variants are called"):
        style_file.from_value({**value, "variants": [value["variants"][0], value["variants"][0]]}, "t.zpiv")
    with pytest.raises(FileError, match="just one variant"):
        style_file.from_value({**value, "variants": [{"name": "a", "steps": []}]}, "t.zpiv")


def files_value(of: Style) -> dict[str, object]:
    from zesty_pivot.core.formats import files

    return files.parse_json(style_file.dump(of).decode(), "style", "t.zpiv")


def test_any_edits_keep_what_is_in_common_alike() -> None:
    """Fifty random sessions: after each edit the steps that two variants say they share are the same ones."""
    chance = random.Random(7)
    pool = [registry.read({**ROUND, "depth": f"{cm} cm"}) for cm in range(6, 16)]
    for _session in range(50):
        now = style(PARK, ROUND, {**ROUND, "depth": "9 cm"}, SQUARE)
        for _edit in range(12):
            way, at = chance.random(), chance.randint(0, max(0, len(now.steps) - 1))
            if way < 0.25 and len(now.variants) < 8:
                now = another(now, chance.randint(-1, len(now.steps) - 1))
            elif way < 0.45 and now.variants:
                now = shown(now, chance.choice(now.variants).name)
            elif way < 0.6 and now.steps:
                now = now.with_steps((*now.steps[:at], *now.steps[at + 1 :]))
            elif way < 0.8:
                now = now.with_steps((*now.steps[:at], chance.choice(pool), *now.steps[at:]))
            elif now.steps:
                now = now.with_steps((*now.steps[:at], chance.choice(pool), *now.steps[at + 1 :]))
            now = now.checked()
            steps = {one.name: now.steps if one.steps is None else one.steps for one in now.variants}
            for one in now.variants:
                if one.of:
                    assert steps[one.name][: one.shared] == steps[one.of][: one.shared], (one.name, one.of)
                    assert len(steps[one.name]) >= one.shared <= len(steps[one.of])
