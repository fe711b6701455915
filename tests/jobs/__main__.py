"""The jobs in the real window as one command: `python -m tests.jobs`. Counts what is pressed, checks what comes out, saves a
picture of each to out/jobs, and writes docs/jobs.md."""

from __future__ import annotations

import argparse
import os
import sys
import tempfile
from pathlib import Path

ROOT = Path(__file__).parents[2]
BLOCKS = ("two darts 93", "side and waist 91", "two darts 76")  # the one that a job names, and two others


def main() -> int:
    """Runs the jobs. Exit 1 when one fails."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--only", help="one job by its number")
    parser.add_argument("--table", type=Path, default=ROOT / "docs" / "jobs.md")
    asked = parser.parse_args()
    os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")
    with tempfile.TemporaryDirectory() as home:
        os.environ.update(dict.fromkeys(("XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME"), home))
        from tests.jobs.run import table, worked

        found = worked(BLOCKS, ROOT / "out" / "jobs", asked.only)
    text = table(found)
    if asked.only is None:
        asked.table.write_text(text, encoding="utf-8")
    sys.stdout.write(text)
    return 1 if any(one.failed for one in found) else 0


if __name__ == "__main__":
    sys.exit(main())
