"""Killed at random moments, also while saving: nothing older than a second is missing, no file is damaged."""

import os
import random
import signal
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path

import pytest

from tests.desk.session import digest, number_of
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.leftovers import Leftover, leftovers

ROOT = Path(__file__).parents[2]
KILLS_EACH = 10


@pytest.fixture(scope="module")
def begin() -> Iterator:  # type: ignore[type-arg]
    """Begins a session in a folder and gives its pid."""
    with subprocess.Popen(
        [sys.executable, "-m", "tests.desk.session"], cwd=ROOT, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
    ) as zygote:
        assert zygote.stdout is not None and zygote.stdin is not None
        assert zygote.stdout.readline() == "ready\n"

        def begun(folder: Path, mode: str) -> int:
            zygote.stdin.write(f"{mode} {folder}\n")
            zygote.stdin.flush()
            return int(zygote.stdout.readline())

        yield begun
        zygote.stdin.close()
        zygote.wait(10)


def logged(folder: Path) -> list[tuple[float, str, int, str]]:
    """When, what, number, digest; a half-written last line is no line."""
    text = (folder / "log").read_text() if (folder / "log").exists() else ""
    rows = [line.split() for line in text.split("\n")[:-1]]
    return [(float(when), what, int(number), told) for when, what, number, told in rows]


def found_work(folder: Path) -> tuple[int, str, Leftover | None]:
    """What a restart finds: unsaved work, else the saved file."""
    left = leftovers(folder / "state" / "zesty-pivot" / "unsaved").offered
    assert len(left) <= 1
    if left:
        return number_of(left[0].style), digest(left[0].style), left[0]
    work = folder / "work.zpiv"
    style = style_file.read(work) if work.exists() else None
    return (number_of(style), digest(style), None) if style else (0, "", None)


@pytest.mark.parametrize("series", range(5))
def test_killed_at_random_moments(begin, tmp_path: Path, series: int) -> None:
    """Ten kills in a row on the same work, five times; each restart goes on from what was found."""
    chance = random.Random(series)
    for _ in range(KILLS_EACH):
        before = len(logged(tmp_path))
        mode = chance.choice(["saving", "editing"])  # without saves only the journal has the work
        pid = begin(tmp_path, mode)
        deadline = time.monotonic() + 30.0
        while len(logged(tmp_path)) <= before:
            assert time.monotonic() < deadline, "the session does not begin"
            time.sleep(0.01)
        # Most kills soon after the start, some after more than a second of work, those of a session that saves aimed at a save.
        time.sleep(chance.choice([chance.uniform(0.0, 0.4), chance.uniform(0.9, 1.6)]))
        if mode == "saving":
            saves = sum(row[1] == "save" for row in logged(tmp_path))
            while sum(row[1] == "save" for row in logged(tmp_path)) == saves and time.monotonic() < deadline:
                time.sleep(0.0005)
        os.kill(pid, signal.SIGKILL)
        killed = time.monotonic()
        while Path(f"/proc/{pid}").exists():
            time.sleep(0.002)
        rows = logged(tmp_path)
        number, told, _left = found_work(tmp_path)
        old = [row for row in rows if row[1] == "edit" and row[0] < killed - 1.0]
        assert number >= max((row[2] for row in old), default=0), "work older than a second is missing"
        if number:
            assert told in {row[3] for row in rows if row[2] == number}, "what came back is not what was made"
        for path in (tmp_path / "work.zpiv", tmp_path / "work.zpiv~"):
            if path.exists():
                style_file.read(path)  # raises when it is damaged
        assert not list(tmp_path.glob("**/*.broken"))
    assert found_work(tmp_path)[0] > 10
