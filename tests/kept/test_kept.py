"""Whole recipes against the figures kept of them: lengths, directions, sides, notches, words, procedures.

A change that is meant shows as a difference of the texts: `python -m tests.kept`, read it, commit it with the change.
"""

import pytest

from tests.kept.__main__ import FOLDER
from tests.kept.recipes import RECIPES, style_of
from tests.kept.writing import kept_text
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps.registry import all_steps
from zesty_pivot.data.demo import demo_styles


def compared(style: Style) -> None:
    known = (FOLDER / f"{style.name.lower().replace(' ', '-')}.txt").read_text(encoding="utf-8").splitlines()
    now = kept_text(style).splitlines()
    changed = [(was, made) for was, made in zip(known, now, strict=False) if was != made]
    assert changed[:5] == [] and len(known) == len(now)


@pytest.mark.parametrize("name", list(RECIPES))
def test_a_recipe_gives_what_it_gave(name: str) -> None:
    compared(style_of(name))


@pytest.mark.parametrize("style", demo_styles(), ids=lambda style: style.name)
def test_a_demo_gives_what_it_gave(style: Style) -> None:
    compared(style)


def test_every_step_of_the_program_is_among_them_and_done() -> None:
    done = set()
    for name in RECIPES:
        text = (FOLDER / f"{name.replace(' ', '-')}.txt").read_text(encoding="utf-8")
        assert "\n  broken:" not in text, name
        done |= {step["do"] for step in RECIPES[name][3]}
    shipped = {do for do, step in all_steps().items() if step.__module__.startswith("zesty_pivot.")}
    assert done | {"grain.set"} >= shipped
