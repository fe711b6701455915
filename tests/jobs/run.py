"""Jobs done in the window, one after the other, and the table of them."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass
from inspect import signature
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QCoreApplication, QEvent

from tests.drafted import room_block
from tests.jobs.hand import Hand
from tests.jobs.scripts import JOBS, NOT_YET, SIDE_TO_WAIST, TO_WAIST, Job
from tests.samples import style
from zesty_pivot.desk.start import application
from zesty_pivot.desk.window import Window

_app: Any = None  # Qt's application lives as long as somebody holds it


@dataclass(frozen=True)
class Done:
    """A job on one block: what was pressed, how long that takes, and what came out; `failed` says what did not."""

    id: str
    block: str
    counted: Counter[str]
    minutes: float
    checked: str
    failed: str = ""


def done(id: str, block: str, picture: Path | None = None) -> Done:
    """One job on one block."""
    job = JOBS[id]
    window = _opened(job, block)
    hand = Hand(window, block)
    try:
        job.script(hand)
        hand.settle()
        QCoreApplication.processEvents()
        broken = window.model.derived.derivation.broken
        assert not broken, broken
        sheets = {piece.name: piece for piece in window.model.derived.pieces}
        known = [sheets, window.model.pattern, hand.seen]
        said = job.check(*known[: len(signature(job.check).parameters)])
        if picture is not None:
            picture.parent.mkdir(parents=True, exist_ok=True)
            window.grab().save(str(picture))
        return Done(id, block, hand.counted, hand.minutes, said)
    except Exception as fault:  # noqa: BLE001 - a job that fails is told in the table
        return Done(id, block, hand.counted, hand.minutes, "", f"{type(fault).__name__}: {fault}")
    finally:
        window.model.file.replace(style([]), None)
        window.close()
        window.deleteLater()
        QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)


def _opened(job: Job, block: str) -> Any:
    """The window on a style of a block; a one-dart block is one whose darts were led to the waist."""
    global _app
    _app = application()
    known = room_block(block)
    darts = {dart.id for dart in known.pieces[0].darts}
    first = [] if not job.one_dart else [TO_WAIST if "shoulder" in darts else SIDE_TO_WAIST]
    window = Window(style(first, known, units="cm"))
    window.resize(1280, 800)
    window.show()
    QCoreApplication.processEvents()
    window.model.pace.check()
    return window


def worked(blocks: Sequence[str], pictures: Path, only: str | None = None) -> list[Done]:
    """All jobs on all blocks; the picture is of the first."""
    return [
        done(id, block, pictures / f"{id}.png" if block == blocks[0] else None)
        for id in JOBS if only in (None, id) for block in blocks
    ]  # fmt: skip


def table(found: Sequence[Done]) -> str:
    """The jobs as a table, those that cannot be done yet with the reason."""
    rows = [
        "# The jobs", "", "Written by `make jobs`: each job by mouse and keys in the real window, on three blocks; minutes by",
        "the keystroke-level model (Card, Moran, Newell 1980).", "",
        "| job | | keys | pointings | clicks | changes | thinking | minutes | by hand | checked |",
        "|---|---|---:|---:|---:|---:|---:|---:|---:|---|",
    ]  # fmt: skip
    for id in sorted({*JOBS, *NOT_YET}):
        if id in NOT_YET:
            title, by_hand, why = NOT_YET[id]
            rows.append(f"| {id} | {title} | | | | | | not yet | {by_hand} | {why} |")
            continue
        mine = [one for one in found if one.id == id]
        failed = [f"{one.block}: {one.failed}" for one in mine if one.failed]
        for one in mine[:1]:
            counts = " | ".join(str(one.counted[what] // (2 if what == "B" else 1)) for what in "KPBHM")
            said = "; ".join(failed) if failed else f"{one.checked}; and on {', '.join(other.block for other in mine[1:])}"
            rows.append(f"| {id} | {JOBS[id].title} | {counts} | {one.minutes:.2f} | {JOBS[id].by_hand:g} | {said} |")
    firsts = [next(one for one in found if one.id == id) for id in dict.fromkeys(one.id for one in found)]
    total, by_hand = sum(one.minutes for one in firsts), sum(JOBS[one.id].by_hand for one in firsts)
    rows += ["", f"{len(firsts)} jobs: {total:.1f} minutes, by hand {by_hand:g}.", ""]
    return "\n".join(rows)
