"""Processes that work beside the program's own, and end with it."""

from __future__ import annotations

import os
import signal
import threading
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from multiprocessing import get_context, parent_process


def pool(
    count: int, begin: Callable[..., object] = bool, args: tuple[object, ...] = (), *, loaded: str = ""
) -> ProcessPoolExecutor:
    """So many processes; each does `begin` with `args` before its first work. They begin with the first work that is given, in
    half a second the first time and in a twentieth after that: the module `loaded` is at hand then, and all share its memory.

    They do not hear Ctrl+C: whoever began them does, and they finish what is in work. When that one is gone, also killed, they
    end by themselves.
    """
    context = get_context("forkserver")  # a copy of a process with windows and threads would not be a sound one
    context.set_forkserver_preload([loaded] if loaded else [])
    return ProcessPoolExecutor(count, context, _begin, (begin, args))


def _begin(begin: Callable[..., object], args: tuple[object, ...]) -> None:
    signal.signal(signal.SIGINT, signal.SIG_IGN)
    threading.Thread(target=_end_with_it, name="the end of the program", daemon=True).start()
    begin(*args)


def _end_with_it() -> None:
    parent = parent_process()
    if parent is not None:
        parent.join()
        os._exit(0)
