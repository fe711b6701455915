"""The command line called as a shell does."""

import os
import subprocess
import sys
from pathlib import Path


def zesty(*args: str | Path) -> subprocess.CompletedProcess[str]:
    """Runs the command without a window system."""
    return subprocess.run(
        [sys.executable, "-m", "zesty_pivot", *map(str, args)], capture_output=True, text=True, timeout=120,
        env={**os.environ, "QT_QPA_PLATFORM": "offscreen"}, check=False,
    )  # fmt: skip
