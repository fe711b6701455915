"""All steps by their `do`."""

import ast
from collections.abc import Mapping
from functools import lru_cache
from pathlib import Path
from types import MappingProxyType
from typing import Any

from pydantic import ValidationError

from zesty_pivot.core import steps
from zesty_pivot.core.discovery import member, members
from zesty_pivot.core.errors import one_of
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.base import Step


@lru_cache(maxsize=1)
def all_steps() -> Mapping[str, type[Step]]:
    """Every step class by its `do`, in alphabetical order."""
    found: dict[str, type[Step]] = {}
    for step in members(steps, "STEP"):
        assert isinstance(step, type) and issubclass(step, Step)
        found[step.model_fields["do"].default] = step
    return MappingProxyType(dict(sorted(found.items())))


@record
class Heading:
    """What a step is called and does, known without loading it."""

    title: str
    summary: str


@lru_cache(maxsize=1)
def headings() -> Mapping[str, Heading]:
    """Every step by its `do`, in alphabetical order, with what it is called, read from the text of its module: sixty modules
    with their models take longer to load than a window may take to open."""
    found: dict[str, Heading] = {}
    for path in (path for folder in steps.__path__ for path in Path(folder).glob("*_*.py")):
        text = path.read_text(encoding="utf-8")
        do = path.stem.replace("_", ".", 1)
        if f'\n    do: Literal["{do}"]' not in text or "\nSTEP = " not in text:
            continue
        title, summary = _said(text, "title"), _said(text, "summary")
        if title and summary:
            found[do] = Heading(title, summary)
        else:  # it is said in another way
            step = all_steps()[do]
            found[do] = Heading(step.title, step.summary)
    return MappingProxyType(dict(sorted(found.items())))


def _said(text: str, name: str) -> str:
    """A text of a step's class, as it stands in a module: in one line, or in brackets; none where it stands in neither way."""
    begin = text.find(f"\n    {name}: ClassVar[str] = ")
    if begin < 0:
        return ""
    at = text.index(" = ", begin) + 3
    end = text.find("\n    )\n", at) + 6 if text[at] == "(" else text.find("\n", at)
    written = text[at:end]
    plain = written[1:-1]
    if written[0] == '"' and '"' not in plain and "\\" not in plain:
        return plain
    return str(ast.literal_eval(written)) if written[0] in "(\"'" else ""


def read(value: Any) -> Step:
    """A step from its JSON object. Raises ValueError (or pydantic's ValidationError) saying what is wrong."""
    if isinstance(value, Step):
        return value
    if not isinstance(value, dict):
        raise ValueError("a step is an object with 'do' and its parameters")
    kind = value.get("do")
    found = _one(kind) if isinstance(kind, str) else None
    if found is None:
        what, advice = one_of("step", str(kind), all_steps())
        raise ValueError(f"{what}. {advice}")
    return found.model_validate(value)


@lru_cache(maxsize=64)
def _one(kind: str) -> type[Step] | None:
    """The class of one step by its `do`. Its module has the same name, so the others need not be loaded for a cold start."""
    found = member(steps, kind.replace(".", "_"), "STEP")
    if isinstance(found, type) and issubclass(found, Step) and found.model_fields["do"].default == kind:
        return found
    return None


def dump(step: Step) -> dict[str, Any]:
    """A step as its JSON object, defaults left out, `do` and `on` always there."""
    written: dict[str, Any] = step.model_dump(mode="json", by_alias=True, exclude_defaults=True)
    return {"do": step.do, "on": step.on, **{key: value for key, value in written.items() if key not in ("do", "on")}}


def listing() -> list[dict[str, Any]]:
    """Every step with its parameters, for `zesty-pivot steps --json`."""
    return [
        {"do": do, "title": step.title, "summary": step.summary, "parameters": step.model_json_schema(by_alias=True)}
        for do, step in all_steps().items()
    ]


__all__ = ["ValidationError", "all_steps", "dump", "headings", "listing", "read"]
