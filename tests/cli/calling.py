"""The command line called as a shell does."""

import io
import os
import subprocess
import sys
from contextlib import redirect_stderr, redirect_stdout
from dataclasses import dataclass
from pathlib import Path

from zesty_pivot.cli.main import _command


def zesty(*args: str | Path) -> subprocess.CompletedProcess[str]:
    """Runs the command without a window system."""
    return subprocess.run(
        [sys.executable, "-m", "zesty_pivot", *map(str, args)], capture_output=True, text=True, timeout=120,
        env={**os.environ, "QT_QPA_PLATFORM": "offscreen"}, check=False,
    )  # fmt: skip


@dataclass(frozen=True)
class Called:
    """How a command ended: its code, and what it wrote."""

    code: int
    out: str
    err: str


def call(*args: str | Path) -> Called:
    """Runs the command in this process, which takes no start."""
    out, err = io.StringIO(), io.StringIO()
    with redirect_stdout(out), redirect_stderr(err):
        code = _command([str(arg) for arg in args])
    return Called(code, out.getvalue(), err.getvalue())
