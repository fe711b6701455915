"""The whole of the torture as one command: `python -m tests.torture --seed 20261128 --share 1`.

Every family is tried so many times with numbers made of the seed, on all processors; the table goes to docs/torture.md.
"""

from __future__ import annotations

import argparse
import json
import os
import random
import re
import subprocess
import sys
import tempfile
import time
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path
from subprocess import PIPE

ROOT = Path(__file__).parents[2]
TABLE = ROOT / "docs" / "torture.md"
MOST_SAID = 20  # failures of a family that are written down
KEPT = 3  # seeds, the latest dates first, that the table keeps
TITLE = """# The last torture

Written by `make torture`; what each family is stands in CONTRIBUTING.md."""
PATIENCE = 1800.0  # seconds for one piece of work

# What is tried, how many of them the whole of it is, and how many are one piece of work.
FAMILIES = {
    "mangled files": (20_000, 250),
    "random recipes": (10_000, 50),
    "drafts of plausible bodies": (30_000, 1_000),
    "starts with litter in the folders": (1_000, 50),
    "mangled drawings, pictures and streams": (100_000, 500),
    "blocks tagged without a hint": (300, 20),
    "photographs": (50, 5),
    "styles on any paper, cloth and roll": (1_000, 20),
    "mangled plots": (10_000, 500),
    "garments on forms": (300, 10),
    "styles for any body": (1_000, 50),
    "tables of people": (20_000, 1_000),
    "kills during edits and saves": (200, 20),
    "edits at the window, undone and redone": (2_000, 250),
}
WINDOW_EACH = 20  # of so many starts one opens the window


@dataclass(frozen=True)
class Work:
    """One piece of work: so many of a family, from a number on."""

    family: str
    first: int
    count: int


@dataclass(frozen=True)
class Done:
    """What a piece of work found."""

    work: Work
    said: tuple[str, ...]
    seconds: float


def do(work: Work) -> None:
    """Does a piece of work in this process, with folders of its own for everything the program writes; prints what it found."""
    with tempfile.TemporaryDirectory(prefix="torture-") as name:
        os.environ["QT_QPA_PLATFORM"] = "offscreen"
        for kind in ("CONFIG", "STATE", "DATA", "CACHE"):
            os.environ[f"XDG_{kind}_HOME"] = f"{name}/xdg-{kind.lower()}"
        sys.stdout.write(json.dumps(list(_failures(work, Path(name)))))


def _failures(work: Work, folder: Path) -> Iterator[str]:
    from tests.torture import desks, drafts, imports, kills, litter, mangled, papers, recipes, sizes, stands

    numbers = range(work.first, work.first + work.count)
    if work.family == "mangled files":
        yield from filter(None, (mangled.tried(number, folder) for number in numbers))
    elif work.family == "random recipes":
        for number in numbers:
            failure = recipes.tried(number)
            if failure is not None:
                yield f"recipe {number}, block {failure.block}: {failure.what} in {json.dumps(failure.steps)}"
    elif work.family == "drafts of plausible bodies":
        yield from filter(None, (drafts.tried(number) for number in numbers))
    elif work.family in imports.FAMILIES:
        yield from filter(None, map(imports.FAMILIES[work.family], numbers))
    elif work.family == "garments on forms":
        yield from filter(None, map(stands.tried, numbers))
    elif tried := {**papers.FAMILIES, **sizes.FAMILIES}.get(work.family):
        yield from filter(None, map(tried, numbers))
    elif work.family == "starts with litter in the folders":
        for number in numbers:
            said = litter.tried(number, folder, window=number % WINDOW_EACH == 0)
            if said:
                yield said
    elif work.family == "kills during edits and saves":
        with kills.sessions() as begin:
            said = kills.tried(work.first, folder, begin, work.count)
        if said:
            yield said
    else:
        said = desks.tried(work.first, folder, work.count)
        if said:
            yield said


def works(seed: int, share: float, only: Sequence[str] = ()) -> list[Work]:
    """Everything to be done for a seed, in an order that does not leave one family to the end."""
    made = []
    for family, (whole, piece) in FAMILIES.items():
        count = max(1, round(whole * share)) if not only or any(word in family for word in only) else 0
        for first in range(0, count, piece):
            made.append(Work(family, seed * 1_000_000 + first, min(piece, count - first)))
    random.Random(seed).shuffle(made)
    return sorted(made, key=lambda work: not work.family.startswith("edits"))  # the longest pieces first


def run(seed: int, share: float, minutes: float, only: Sequence[str], jobs: int) -> list[Done]:
    """All of it for one seed; with `minutes` no more is begun after that time."""
    ends = time.monotonic() + 60.0 * minutes
    found: list[Done] = []
    todo = works(seed, share, only)

    def in_time() -> Iterator[Work]:
        yield from (work for work in todo if time.monotonic() < ends)

    coming = in_time()
    running: dict[Work, tuple[float, subprocess.Popen[str]]] = {}
    while True:
        while len(running) < jobs and (work := next(coming, None)) is not None:
            running[work] = (time.monotonic(), _begun(work))
        if not running:
            return found
        time.sleep(0.05)
        for work, (since, process) in list(running.items()):
            if time.monotonic() - since > PATIENCE:
                process.kill()
            if process.poll() is not None:
                del running[work]
                found.append(Done(work, tuple(_told(process, work)), time.monotonic() - since))
                _tell(found[-1], len(found), len(todo))


def _tell(one: Done, done_by_now: int, whole: int) -> None:
    """What was wrong, as it is found; how far it is, on the other stream."""
    for said in one.said:
        sys.stdout.write(f"{said}\n")
    sys.stdout.flush()
    sys.stderr.write(f"{done_by_now} of {whole}: {one.work.family} from {one.work.first}, {one.seconds:.0f} s\n")


def _begun(work: Work) -> subprocess.Popen[str]:
    """A process for a piece of work: what one leaves behind, or how it ends, is nothing to the others."""
    what = json.dumps([work.family, work.first, work.count])
    return subprocess.Popen(
        [sys.executable, "-m", "tests.torture", "--work", what], cwd=ROOT, stdout=PIPE, stderr=PIPE, text=True
    )


def _told(process: subprocess.Popen[str], work: Work) -> list[str]:
    """What a piece of work found, or how its process ended."""
    out, err = process.communicate()
    if process.returncode:
        last = (err.strip().splitlines() or [""])[-1]
        return [f"{work.family} from {work.first}, {work.count} of them: ended with code {process.returncode}: {last}"]
    return list(json.loads(out))


def table(seed: int, found: Sequence[Done]) -> list[str]:
    """What was done for a seed, as rows of a table, and what was wrong below it."""
    lines = [f"## Seed {seed}", "", "| What | Tried | Wrong | Minutes of one processor |", "|---|---:|---:|---:|"]
    wrong = []
    for family in FAMILIES:
        here = [one for one in found if one.work.family == family]
        said = [text for one in here for text in one.said]
        wrong += said[:MOST_SAID]
        minutes = sum(one.seconds for one in here) / 60.0
        lines.append(f"| {family} | {sum(one.work.count for one in here):,} | {len(said)} | {minutes:.1f} |")
    return [*lines, "", *(f"- `{text}`" for text in wrong), *([""] if wrong else [])]


def kept(text: str) -> dict[int, str]:
    """What a table says of each seed."""
    found = re.split(r"^## Seed (\d+)$", text, flags=re.MULTILINE)[1:]
    return {int(seed): f"## Seed {seed}\n\n{rows.strip()}" for seed, rows in zip(found[::2], found[1::2], strict=True)}


def main() -> int:
    """Runs it and writes the table; the exit code is 1 when anything was wrong."""
    parser = argparse.ArgumentParser(prog="make torture", description=__doc__.splitlines()[0])
    today = int(datetime.now(UTC).strftime("%Y%m%d"))
    parser.add_argument("--seed", type=int, nargs="*", default=[today], help="whole numbers; the same do the same")
    parser.add_argument("--share", type=float, default=1.0, help="how much of the whole, 0 to 1")
    parser.add_argument("--minutes", type=float, default=24 * 60.0, help="for each seed, begin nothing after so many")
    parser.add_argument("--only", nargs="*", default=[], help="words of the families to try")
    parser.add_argument("--jobs", type=int, default=os.cpu_count() or 1)
    parser.add_argument("--work", help=argparse.SUPPRESS)
    asked = parser.parse_args()
    if asked.work:
        do(Work(*json.loads(asked.work)))
        return 0
    sections = kept(TABLE.read_text() if TABLE.exists() else "")
    bad = False
    for seed in asked.seed:
        found = run(seed, asked.share, asked.minutes, asked.only, asked.jobs)
        rows = table(seed, found)
        bad = bad or any(one.said for one in found)
        sys.stdout.write("\n".join(rows) + "\n")
        sys.stdout.flush()
        sections[seed] = "\n".join(rows).strip()
    if not asked.only:
        last = sorted(sections.items(), reverse=True)[:KEPT]
        TABLE.write_text("\n\n".join([TITLE, *(text for _seed, text in last)]) + "\n")
    return int(bad)


if __name__ == "__main__":
    sys.exit(main())
