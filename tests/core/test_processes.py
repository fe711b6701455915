"""Processes beside the program's own: they end with it, whatever ends it."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

from zesty_pivot.core.processes import pool

PROGRAM = """
import os, sys, time
from zesty_pivot.core.processes import pool

if __name__ == "__main__":
    workers = pool(2)
    print(*[workers.submit(os.getpid).result() for _ in range(8)], flush=True)
    time.sleep(60)
"""


def state(pid: int) -> str:
    """As the system tells it; empty when there is no such process."""
    try:
        return Path(f"/proc/{pid}/stat").read_text(encoding="utf-8").rpartition(")")[2].split()[0]
    except (FileNotFoundError, ProcessLookupError):
        return ""


def test_killed_programs_leave_nobody_behind(tmp_path: Path) -> None:
    script = tmp_path / "program.py"
    script.write_text(PROGRAM, encoding="utf-8")
    with subprocess.Popen([sys.executable, str(script)], stdout=subprocess.PIPE, text=True) as program:
        assert program.stdout is not None
        pids = {int(pid) for pid in program.stdout.readline().split()}
        assert pids and all(state(pid) for pid in pids)
        program.kill()
    end = time.monotonic() + 20.0
    while any(state(pid) not in ("", "Z") for pid in pids) and time.monotonic() < end:
        time.sleep(0.05)
    assert [state(pid) for pid in pids if state(pid) not in ("", "Z")] == []


def test_they_begin_as_asked_and_do_not_hear_ctrl_c() -> None:
    with pool(1, os.nice, (3,)) as workers:
        assert workers.submit(os.nice, 0).result() == os.nice(0) + 3
        os.kill(workers.submit(os.getpid).result(), signal.SIGINT)
        assert workers.submit(len, "it goes on").result() == 10
