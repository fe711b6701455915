"""What a search in the drawer finds: steps, shapes in their galleries, and commands, by their own words and by others."""

from __future__ import annotations

import tomllib
from collections.abc import Iterator
from functools import cache
from importlib.resources import files
from typing import Any

from zesty_pivot.core.record import record
from zesty_pivot.core.steps.registry import headings
from zesty_pivot.desk.galleries.registry import all_galleries

MOST = 14  # answers that are shown


@record
class Found:
    """An answer: a kind of step to add with some of its fields, or a command by its id; how well it answers (0 is best)."""

    title: str
    hint: str
    do: str = ""
    design: str = ""  # of the step's gallery
    action: str = ""
    rank: int = 0


def search(text: str, titles: dict[str, str]) -> list[Found]:
    """The answers to some words, the best first; `titles` are those of commands by their ids."""
    words = text.lower().replace("-", " ").split()
    if not words:
        return []
    found = [one for one in (*_steps(words), *_designs(words), *_commands(words, titles)) if one.rank < NONE]
    return sorted(found, key=lambda one: (one.rank, not one.design, one.title))[:MOST]


NONE = 9


@cache
def _known() -> dict[str, Any]:
    """The other words: `steps` and `shapes` by name, and `elsewhere`, a list of words with the actions that are meant."""
    return tomllib.loads((files("zesty_pivot.data") / "search_words.toml").read_text(encoding="utf-8"))


def _rank(words: list[str], title: str, others: str) -> int:
    """How well a title (0 and 1), or else other words (2 and 3), answer; NONE where a word is missing."""
    own, more = _plain(title), _plain(others)
    if all(word in own for word in words):
        return 0
    if all(any(known.startswith(word) for known in own) for word in words):
        return 1
    every = own + more
    if all(word in every for word in words):
        return 2
    return 3 if all(any(known.startswith(word) for known in every) for word in words) else NONE


def _plain(text: str) -> list[str]:
    return text.lower().replace("-", " ").replace(",", " ").split()


def _steps(words: list[str]) -> Iterator[Found]:
    for do, step in headings().items():
        others = f"{_known()['steps'].get(do, '')} {step.summary}"
        begins = " ".join(_plain(step.title)).startswith(" ".join(words))
        yield Found(step.title, step.summary, do=do, rank=-1 if begins else _rank(words, step.title, others))


def _designs(words: list[str]) -> Iterator[Found]:
    for do, gallery in all_galleries().items():
        step = headings()[do]
        for name, design in gallery.variants.items():
            title = f"{step.title}: {design.title.lower()}"
            rank = _rank(
                words,
                f"{design.title} {step.title}",
                f"{name.replace('_', ' ')} {design.hint} {_known()['shapes'].get(name, '')}",
            )
            if _rank(words, step.title, "") < NONE:
                rank = min(rank + 4, NONE - 1)  # the step itself is asked for, not one of its shapes
            yield Found(title, design.hint, do=do, design=name, rank=rank)


def _commands(words: list[str], titles: dict[str, str]) -> Iterator[Found]:
    for one in _known()["elsewhere"]:
        for id in one["actions"]:
            if id in titles:
                yield Found(titles[id], "", action=id, rank=_rank(words, titles[id], one["words"]))


def step_of(found: Found, value: dict[str, Any]) -> list[dict[str, Any]]:
    """The steps that an answer may begin as, from the one that its kind begins with: with its design taken, the best first."""
    if not found.design:
        return [value]
    design = all_galleries()[found.do].variants[found.design]
    kept = {key: part for key, part in value.items() if key not in all_galleries()[found.do].keys}
    return [{**kept, **design.fields}]
