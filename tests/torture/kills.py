"""Programs killed at random moments, also while they save: nothing older than a second is missing, no file is damaged."""

from __future__ import annotations

import os
import random
import shutil
import signal
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from tests.torture.session import digest, number_of
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.leftovers import leftovers

ROOT = Path(__file__).parents[2]
KEPT_WITHIN = 1.0  # seconds: work older than that is never lost
PATIENCE = 60.0  # seconds for a session to begin, on a machine that does much else

Begin = Callable[[Path, str], int]
Row = tuple[float, str, int, str]  # when, what, number, digest


@contextmanager
def sessions() -> Iterator[Begin]:
    """Begins sessions in folders, and gives their pids."""
    with subprocess.Popen(
        [sys.executable, "-m", "tests.torture.session"], cwd=ROOT, stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
    ) as zygote:
        assert zygote.stdout is not None and zygote.stdin is not None
        assert zygote.stdout.readline() == "ready\n"

        def begin(folder: Path, mode: str) -> int:
            assert zygote.stdout is not None and zygote.stdin is not None
            zygote.stdin.write(f"{mode} {folder}\n")
            zygote.stdin.flush()
            return int(zygote.stdout.readline())

        yield begin
        zygote.stdin.close()
        zygote.wait(10)


def _logged(folder: Path) -> list[Row]:
    """What a session was about to do; a half-written last line is no line."""
    text = (folder / "log").read_text() if (folder / "log").exists() else ""
    rows = [line.split() for line in text.split("\n")[:-1]]
    return [(float(when), what, int(number), told) for when, what, number, told in rows]


def _killed(begin: Begin, folder: Path, chance: random.Random) -> float:
    """Begins a session, lets it work for a moment, kills it; when that was."""
    before = len(_logged(folder))
    mode = chance.choice(["saving", "editing"])  # without saves only the journal has the work
    pid = begin(folder, mode)
    deadline = time.monotonic() + PATIENCE
    while len(_logged(folder)) <= before:
        if time.monotonic() > deadline:
            raise TimeoutError("the session does not begin")
        time.sleep(0.01)
    # Most kills soon after the start, some after more than a second of work, those of a session that saves aimed at a save.
    time.sleep(chance.choice([chance.uniform(0.0, 0.4), chance.uniform(0.9, 1.6)]))
    if mode == "saving":
        saves = sum(row[1] == "save" for row in _logged(folder))
        while sum(row[1] == "save" for row in _logged(folder)) == saves and time.monotonic() < deadline:
            time.sleep(0.0005)
    os.kill(pid, signal.SIGKILL)
    killed = time.monotonic()
    while Path(f"/proc/{pid}").exists():
        time.sleep(0.002)
    return killed


def _found(folder: Path) -> tuple[int, str]:
    """Number and digest of the work that a restart finds: what is unsaved, else the saved file."""
    left = leftovers(folder / "state" / "zesty-pivot" / "unsaved")
    assert len(left.offered) <= 1 and not left.told, left.told
    work = folder / "work.zpiv"
    style = left.offered[0].style if left.offered else style_file.read(work) if work.exists() else None
    return (number_of(style), digest(style)) if style else (0, "")


def _lost(folder: Path, killed: float) -> str | None:
    rows = _logged(folder)
    number, told = _found(folder)
    old = max((row[2] for row in rows if row[1] == "edit" and row[0] < killed - KEPT_WITHIN), default=0)
    if number < old:
        return f"edit {old} was made over a second before and is missing; what came back is {number}"
    if number and told not in {row[3] for row in rows if row[2] == number}:
        return f"what came back as edit {number} is not what was made"
    for path in (folder / "work.zpiv", folder / "work.zpiv~"):
        if path.exists():
            style_file.read(path)  # raises when it is damaged
    return None


def tried(seed: int, folder: Path, begin: Begin, kills: int = 10) -> str | None:
    """What is wrong after so many kills in a row on the same work; each restart goes on from what was found."""
    chance, work = random.Random(seed), folder / f"kills-{seed}"
    work.mkdir()
    try:
        for at in range(1, kills + 1):
            said = _lost(work, _killed(begin, work, chance))
            if said:
                return f"kills {seed}, number {at}: {said}"
        return None if _found(work)[0] > kills else f"kills {seed}: hardly anything was worked on"
    except Exception as fault:  # noqa: BLE001 - whatever is raised is what is looked for
        return f"kills {seed}: raised {type(fault).__name__}: {fault}"
    finally:
        shutil.rmtree(work, ignore_errors=True)
