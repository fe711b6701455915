"""A style on several bodies in processes beside the interface, each with bodies of its own whose states it keeps."""

from __future__ import annotations

import os
import pickle
import threading
from collections.abc import Iterator, Mapping, Sequence
from concurrent.futures import FIRST_COMPLETED, CancelledError, Future, ProcessPoolExecutor, wait
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
        self._lock = threading.Lock()  # who was given up may still be at its last body when the next one begins

    def work(
        self, style: Style, under: Under, wearers: Sequence[Wearer], stop: threading.Event, *, is_checked: bool
    ) -> Iterator[SizeFound]:
        """The style on all of them, as they come; then their findings, if asked for."""
        pools: list[ProcessPoolExecutor] = []
        try:
            with self._lock:
                pools = self._pools = self._pools or [pool(1, _begin, loaded=__name__) for _number in range(self._count)]
                places = self._shared(wearers)
            told = pickle.dumps((style, under, frozenset(wearers)))
            yield from _beside({one: pools[places[one]] for one in wearers}, told, stop, is_checked=is_checked)
        except (RuntimeError, CancelledError, OSError, ImportError, NotImplementedError):  # killed, closed, or none to be had
            self._let_go(pools)
            yield from self._alone((style, under), wearers, stop, is_checked=is_checked)

    def close(self) -> None:
        """Ends the processes."""
        self._let_go(self._pools)

    def _let_go(self, pools: list[ProcessPoolExecutor]) -> None:
        """Ends some processes; others are begun the next time."""
        with self._lock:
            if self._pools is not pools:
                return  # another thread has done so
            self._pools = []
        for one in pools:
            one.shutdown(cancel_futures=True)

    def _shared(self, wearers: Sequence[Wearer]) -> dict[Wearer, int]:
        """Who is worked out where: each stays where the states are, the others go to whom has fewest."""
        places = {one: self._places[one] for one in wearers if one in self._places}
        for one in wearers:
            if one not in places:
                taken = list(places.values())
                places[one] = min(range(self._count), key=taken.count)
        self._places = places
        return places

    def _alone(
        self, asked: tuple[Style, Under], wearers: Sequence[Wearer], stop: threading.Event, *, is_checked: bool
    ) -> Iterator[SizeFound]:
        found = []
        for wearer in wearers:
            if stop.is_set():
                return
            with self._lock:
                self._own.keep_only(wearers)
                found.append(self._own.sized(*asked, wearer))
            yield SizeFound(found[-1])
        for one in found if is_checked else ():
            if stop.is_set():
                return
            yield SizeFound(one, one.verdict)


def _beside(
    pools: Mapping[Wearer, ProcessPoolExecutor], told: bytes, stop: threading.Event, *, is_checked: bool
) -> Iterator[SizeFound]:
    """Each in its own process, as they come."""
    waiting: dict[Future[Sized | Verdict], Wearer] = {at.submit(_size, told, one): one for one, at in pools.items()}
    if is_checked:
        waiting |= {at.submit(_check, told, one): one for one, at in pools.items()}
    order, found = {future: number for number, future in enumerate(waiting)}, dict[Wearer, Sized]()
    try:
        while waiting:
            wait(waiting, LOOK_S, FIRST_COMPLETED)
            if stop.is_set():
                return
            # `wait` hears nothing of those that were cancelled.
            done = [future for future in waiting if future.done()]
            for future in sorted(done, key=order.__getitem__):  # those of a body in their order
                wearer, came = waiting[future], future.result()
                if isinstance(came, Verdict) and wearer not in found:
                    continue  # both came since it was looked
                del waiting[future]
                if isinstance(came, Verdict):
                    yield SizeFound(found[wearer], came)
                else:
                    found[wearer] = replace(came, wearer=wearer)
                    yield SizeFound(found[wearer])
    except BrokenProcessPool:
        waiting.clear()  # the pool itself tells those that it had
        raise
    finally:
        for future in waiting:
            future.cancel()


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
