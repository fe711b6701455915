"""The boundary of everything the desk shows: a part that fails is told, and the rest of the window goes on. No Qt here."""

from __future__ import annotations

import functools
import inspect
from collections.abc import Callable
from typing import ParamSpec, TypeVar

from zesty_pivot.core import faults

P = ParamSpec("P")
R = TypeVar("R")


def contained(doing: str) -> Callable[[Callable[P, object]], Callable[P, None]]:
    """Makes a function end quietly whatever happens in it; the fault is told with what was being done: `the findings`.

    For what only shows something. What changes the document says itself what becomes of it. As with any slot of Qt, what a
    signal sends beyond the function's own parameters is left out.
    """

    def around(shows: Callable[P, object]) -> Callable[P, None]:
        takes = len(inspect.signature(shows).parameters)

        @functools.wraps(shows)
        def run(*args: P.args, **kwargs: P.kwargs) -> None:
            try:
                shows(*args[:takes], **kwargs)  # type: ignore[arg-type]
            except Exception as fault:  # noqa: BLE001 - the boundary of a part of the window
                faults.caught(fault, doing)

        return run

    return around


def tried(find: Callable[[], R], otherwise: R, doing: str) -> R:
    """What a function finds, or something else where it fails; the fault is told."""
    try:
        return find()
    except Exception as fault:  # noqa: BLE001 - the boundary of a part of the window
        faults.caught(fault, doing)
        return otherwise
