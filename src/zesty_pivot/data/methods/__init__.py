"""The drafting methods that ship with the program, and those that the user has put beside them."""

from __future__ import annotations

import json
from functools import lru_cache
from importlib.resources import files
from pathlib import Path

from zesty_pivot.core.drafting.method import SUFFIX, Method
from zesty_pivot.core.formats import method_file

ORDER = ("quarter_waist", "quarter_hip", "easy", "child", "blouse_four_darts", "two_dart")


@lru_cache(maxsize=len(ORDER))
def shipped(id: str) -> Method:
    """One of the program's own methods. Raises FileNotFoundError for another id."""
    text = (files("zesty_pivot.data.methods") / f"{id}{SUFFIX}").read_text(encoding="utf-8")
    return method_file.from_value(json.loads(text), f"{id}{SUFFIX}")


def method_of(id: str | None, own: Path | None = None) -> Method | None:
    """A method by its id, of the program's or of a folder; None where there is none."""
    return next((method for method in all_methods(own) if method.id == id), None)


def all_methods(own: Path | None = None) -> tuple[Method, ...]:
    """The program's methods in order, then those of a folder; one of the user's own never hides one of the program's."""
    ours = tuple(shipped(id) for id in ORDER)
    theirs = method_file.in_folder(own)[0] if own is not None else []
    return (*ours, *(method for method in theirs if method.id not in ORDER))
