"""What is worked out from values that never change, kept: with the value for as long as it lives, or the last few results."""

from __future__ import annotations

import functools
import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import TYPE_CHECKING, Any, Generic, TypeVar, cast

Made = TypeVar("Made")
Asked = TypeVar("Asked", bound=Callable[..., Any])

if TYPE_CHECKING:
    from functools import cached_property as cached_property  # the same to a type checker
else:

    class cached_property:  # noqa: N801 - called as the standard library's
        """The standard library's without its lock, which takes longer than most of what is asked for: two threads that ask
        at once work it out twice, and get the same."""

        def __init__(self, work: Callable[[Any], Any]) -> None:
            self._work, self._name, self.__doc__ = work, work.__name__, work.__doc__

        def __set_name__(self, _owner: type, name: str) -> None:
            self._name = name

        def __get__(self, one: Any, _owner: type | None = None) -> Any:
            if one is None:
                return self
            made = vars(one)[self._name] = self._work(one)
            return made


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


_PLACE = "_kept_with"  # where a value has what is kept with it; beside its fields, so that it takes no part in comparing


def kept_with(work: Asked) -> Asked:
    """Makes a function of a frozen value, and of hashable things beside it, be worked out once for each and kept with the
    value. What is given back is shared: nobody may change it.

    It is kept in the value itself, not in a table beside it: a result may well hold the value, and would keep it for ever.
    """

    @functools.wraps(work)
    def asked(value: object, *args: Hashable) -> Any:
        known: dict[tuple[Hashable, ...], Any] = vars(value).setdefault(_PLACE, {})
        key = (work, *args)
        if key not in known:
            known[key] = work(value, *args)
        return known[key]

    return cast("Asked", asked)
