"""Which functions of the core each test calls, and how long it takes: recorded once, so that a mutation is run against the
tests that reach it."""

from __future__ import annotations

import json
import os
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from types import CodeType, FrameType

import pytest

CORE = str(Path(__file__).parents[2] / "src" / "zesty_pivot" / "core") + os.sep


class Recorder:
    """A pytest plugin; writes what it saw into a folder when the session ends."""

    def __init__(self, folder: Path) -> None:
        self._folder = folder
        self._seen: set[CodeType] = set()
        self._tests: dict[str, tuple[float, list[str]]] = {}

    def _event(self, frame: FrameType, event: str, _arg: object) -> None:
        if event == "call":
            self._seen.add(frame.f_code)

    @pytest.hookimpl(wrapper=True)
    def pytest_runtest_protocol(self, item: pytest.Item) -> Iterator[None]:
        self._seen = set()
        begun = time.perf_counter()
        sys.setprofile(self._event)
        try:
            return (yield)
        finally:
            sys.setprofile(None)
            inside = [code for code in self._seen if code.co_filename.startswith(CORE)]
            called = sorted({f"{code.co_filename[len(CORE) :]}:{_outermost(code.co_qualname)}" for code in inside})
            self._tests[item.nodeid] = (time.perf_counter() - begun, called)

    def pytest_sessionfinish(self) -> None:
        self._folder.mkdir(parents=True, exist_ok=True)
        (self._folder / f"{os.getpid()}.json").write_text(json.dumps(self._tests))


def _outermost(name: str) -> str:
    return name.partition(".<locals>")[0]


def pytest_configure(config: pytest.Config) -> None:
    """Records when the folder to write into is given."""
    folder = os.environ.get("ZESTY_TOUCHED")
    if folder:
        config.pluginmanager.register(Recorder(Path(folder)))
