"""What is worked out from single pieces, kept while they are the same: a change of the front leaves the back at hand."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Callable, Hashable
from typing import Generic, TypeVar

Made = TypeVar("Made")

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
