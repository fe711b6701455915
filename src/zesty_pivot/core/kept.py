"""What is worked out from values that never change, kept: with the value for as long as it lives, or the last few results."""

from __future__ import annotations

import functools
import threading
import weakref
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Any, Generic, TypeVar, cast

Made = TypeVar("Made")
Asked = TypeVar("Asked", bound=Callable[..., Any])

MOST = 32  # about as many steps as two long recipes have


class Kept(Generic[Made]):
    """The last results of one kind of work, by the values (compared by identity) they were worked out from and a key."""

    def __init__(self, most: int = MOST) -> None:
        self._most = most
        self._found: OrderedDict[tuple[Hashable, ...], tuple[tuple[object, ...], Made]] = OrderedDict()
        self._lock = threading.Lock()  # exports work out styles beside the interface

    def get(self, values: tuple[object, ...], key: tuple[Hashable, ...], work: Callable[[], Made]) -> Made:
        """The result for these values and this key, worked out when it is not at hand. `work` must look at nothing else."""
        whole = (*(id(value) for value in values), *key)
        with self._lock:
            found = self._found.get(whole)
            if found is not None:
                self._found.move_to_end(whole)
                return found[1]
        made = work()
        with self._lock:
            self._found[whole] = (values, made)  # the values are kept along, so that no other can get their place in memory
            while len(self._found) > self._most:
                self._found.popitem(last=False)
        return made


def kept_with(work: Asked) -> Asked:
    """Makes a function of a frozen value, and of hashable things beside it, be worked out once for each and kept for as long as
    the value lives. Values are told apart by identity. What is given back is shared: nobody may change it."""
    found: dict[int, tuple[weakref.ref[Any], dict[tuple[Hashable, ...], Any]]] = {}

    @functools.wraps(work)
    def asked(value: object, *args: Hashable) -> Any:
        number = id(value)
        entry = found.get(number)
        if entry is None:
            entry = found[number] = (weakref.ref(value, lambda _gone: found.pop(number, None)), {})
        known = entry[1]
        if args not in known:
            known[args] = work(value, *args)
        return known[args]

    return cast("Asked", asked)
