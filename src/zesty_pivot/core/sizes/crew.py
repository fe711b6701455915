"""A style on several bodies in processes beside the interface, each with bodies of its own whose states it keeps."""

from __future__ import annotations

import os
import pickle
import threading
from collections.abc import Iterator, Sequence
from concurrent.futures import FIRST_COMPLETED, Future, ProcessPoolExecutor, wait
from concurrent.futures.process import BrokenProcessPool

from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.processes import pool
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.sizes.sized import Sized, Sizer, Wearer
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.core.sizes.verdict import Verdict

MOST = 4  # processes; each holds the states of its bodies, some 100 MB
KINDER = 10  # how much they stand back behind the interface, as `nice` counts
LOOK_S = 0.01  # how often it is looked whether to stop


@record(eq=False)
class SizeFound:
    """One that was worked out; with its verdict when its findings were looked for as well."""

    sized: Sized
    verdict: Verdict | None = None


class Crew:
    """Works out a style on bodies, as a Sizer does, all cores at once. Where processes cannot be had, or are killed, it goes on
    without them."""

    def __init__(self, count: int = 0) -> None:
        """`count` processes, as many as there are cores when 0, though not more than MOST."""
        self._count = count or min(os.cpu_count() or 1, MOST)
        self._pools: list[ProcessPoolExecutor] = []
        self._places: dict[Wearer, int] = {}
        self._own = Sizer()

    def work(
        self, style: Style, under: Under, wearers: Sequence[Wearer], stop: threading.Event, *, is_checked: bool
    ) -> Iterator[SizeFound]:
        """The style on all of them, as they come; then their findings, if asked for."""
        try:
            yield from self._beside((style, under), wearers, stop, is_checked=is_checked)
        except (BrokenProcessPool, OSError, ImportError, NotImplementedError):  # a machine may have no semaphores
            self.close()  # begun anew the next time
            yield from self._alone((style, under), wearers, stop, is_checked=is_checked)

    def close(self) -> None:
        """Ends the processes."""
        for one in self._pools:
            one.shutdown(cancel_futures=True)
        self._pools = []

    def _beside(
        self, asked: tuple[Style, Under], wearers: Sequence[Wearer], stop: threading.Event, *, is_checked: bool
    ) -> Iterator[SizeFound]:
        self._pools = self._pools or [pool(1, _begin) for _number in range(self._count)]
        self._share(wearers)
        told = pickle.dumps((*asked, frozenset(wearers)))
        waiting: dict[Future[Sized | Verdict], Wearer] = {
            self._pools[self._places[one]].submit(_size, told, one): one for one in wearers
        }
        if is_checked:
            waiting |= {self._pools[self._places[one]].submit(_check, told, one): one for one in wearers}
        found: dict[Wearer, Sized] = {}
        try:
            while waiting:
                done = wait(waiting, LOOK_S, FIRST_COMPLETED).done
                if stop.is_set():
                    return
                for future in sorted(done, key=list(waiting).index):  # those of a body in their order
                    wearer, came = waiting.pop(future), future.result()
                    verdict = came if isinstance(came, Verdict) else None
                    if not isinstance(came, Verdict):
                        found[wearer] = replace(came, wearer=wearer)
                    yield SizeFound(found[wearer], verdict)
        except BrokenProcessPool:
            waiting.clear()  # the pool itself tells those that it had
            raise
        finally:
            for future in waiting:
                future.cancel()

    def _share(self, wearers: Sequence[Wearer]) -> None:
        """Who is worked out where: each stays where the states are, the others go to whom has fewest."""
        self._places = {one: place for one, place in self._places.items() if one in wearers}
        for one in wearers:
            if one not in self._places:
                taken = list(self._places.values())
                self._places[one] = min(range(self._count), key=taken.count)

    def _alone(
        self, asked: tuple[Style, Under], wearers: Sequence[Wearer], stop: threading.Event, *, is_checked: bool
    ) -> Iterator[SizeFound]:
        self._own.keep_only(wearers)
        found = []
        for wearer in wearers:
            if stop.is_set():
                return
            found.append(self._own.sized(*asked, wearer))
            yield SizeFound(found[-1])
        for one in found if is_checked else ():
            if stop.is_set():
                return
            yield SizeFound(one, one.verdict)


class _Desk:
    """In a process: what is asked now, and what came of it by now. What is as it was is the same object, so that blocks and
    states that were worked out from it are found again."""

    def __init__(self) -> None:
        self._told = b""
        self._sizer = Sizer()
        self._asked: tuple[Style, Under] | None = None
        self._sized: dict[Wearer, Sized] = {}

    def sized(self, told: bytes, wearer: Wearer) -> Sized:
        """What came of one."""
        if wearer not in self._sized or told != self._told:
            style, under = self._read(told)
            self._sized[wearer] = self._sizer.sized(style, under, wearer)
        return self._sized[wearer]

    def _read(self, told: bytes) -> tuple[Style, Under]:
        if self._asked is not None and told == self._told:
            return self._asked
        style, under, wearers = pickle.loads(told)
        if self._asked is not None:
            old, way = self._asked
            style = style.model_copy(update={"block": old.block}) if style.block == old.block else style
            under = way if under == way else under
        self._told, self._asked, self._sized = told, (style, under), {}
        self._sizer.keep_only(wearers)
        return self._asked


_DESK = _Desk()


def _begin() -> None:
    os.nice(KINDER)


def _size(told: bytes, wearer: Wearer) -> Sized | Verdict:
    return _DESK.sized(told, wearer)


def _check(told: bytes, wearer: Wearer) -> Sized | Verdict:
    return _DESK.sized(told, wearer).verdict
