"""A style for any number of bodies: a folder or an archive each, a report of all as JSON lines, gone on with where it stopped.

Bodies are worked out in processes of their own, a few at a time, and told in their order; so what is held does not grow with
their number, and the same bodies give the same files, byte for byte, also after a stop in the middle.
"""

from __future__ import annotations

import hashlib
import io
import itertools
import json
import os
import zipfile
from collections import deque
from collections.abc import Callable, Iterable, Iterator, Mapping
from concurrent.futures import Future
from concurrent.futures.process import BrokenProcessPool
from pathlib import Path as FilePath

from zesty_pivot.core import faults
from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.formats import files, style_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.file_names import plain_names
from zesty_pivot.core.formats.folder import write_together
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.processes import pool
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.bodies import BodyRow
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.core.sizes.verdict import verdict_of

LEDGER = "bodies.jsonl"
AHEAD = 3  # bodies in work or waiting to be told for each process
ZIP_DATE = (1980, 1, 1, 0, 0, 0)  # the same in every archive


@record(eq=False)
class Order:
    """What is made of each body: a style, how it comes to other bodies, the formats and how they are put on paper, where to,
    and whether each is an archive."""

    style: Style
    under: Under
    formats: tuple[str, ...]
    printing: Printing
    folder: FilePath
    is_zip: bool = False

    def fingerprint(self, row: BodyRow) -> str:
        """What tells this order for this body from any other."""
        told = json.dumps([row.number, row.name, row.is_child, sorted(row.lengths.items()), row.fault])
        whole = (self._told + told + str(self.is_zip)).encode()
        return hashlib.sha256(whole).hexdigest()[:16]

    @cached_property
    def _told(self) -> str:
        under = self.under
        blocks = {name: block.model_dump_json() for name, block in (under.blocks or {}).items()}
        method = under.method.model_dump_json() if under.method is not None else ""
        own = [under.way, under.darts, method, blocks, self.formats, repr(self.printing)]
        return style_file.dump(self.style).decode() + json.dumps(own)


@record
class Made:
    """A line of the report: which body, where its files are, whether its pattern is sound; broken steps and errors by name, and
    `fault` where it was not written at all."""

    number: int
    name: str
    where: str
    is_valid: bool
    broken: tuple[str, ...] = ()
    errors: tuple[str, ...] = ()
    warnings: int = 0
    fault: str = ""
    order: str = ""

    @property
    def is_written(self) -> bool:
        """Whether its files are there."""
        return not self.fault

    def line(self) -> str:
        """As it stands in the report."""
        told = {"number": self.number, "name": self.name, "where": self.where, "valid": self.is_valid}
        told |= {"broken": list(self.broken), "errors": list(self.errors), "warnings": self.warnings}
        told |= {"fault": self.fault, "order": self.order}
        return json.dumps(told, ensure_ascii=False) + "\n"


def made_of(line: str) -> Made:
    """A line of a report read back. Raises ValueError or KeyError for one that is none."""
    told = json.loads(line)
    return Made(
        told["number"], told["name"], told["where"], told["valid"], tuple(told["broken"]), tuple(told["errors"]),
        told["warnings"], told["fault"], told["order"],
    )  # fmt: skip


def write_bodies(
    order: Order, rows: Iterable[BodyRow], *, jobs: int = 0, stop: Callable[[], bool] = lambda: False,
) -> Iterator[Made]:  # fmt: skip
    """Writes the files of every body and a line of each to the report, in their order; each is given back when it is done.
    What an earlier run of the same order wrote is not written again. After `stop` says so nothing new is begun.

    `jobs` is how many processes work, as many as there are cores when 0. Raises FileError where the folder cannot be written,
    and ZestyError where a process is killed.
    """
    try:
        order.folder.mkdir(parents=True, exist_ok=True)
        known, end = _known(order.folder / LEDGER)
        with (order.folder / LEDGER).open("r+b" if end else "wb") as ledger:
            ledger.truncate(end)
            ledger.seek(end)
            for made, is_new in _in_order(order, rows, known, jobs or os.cpu_count() or 1, stop):
                if is_new:
                    ledger.write(made.line().encode())
                    ledger.flush()
                yield made
    except BrokenProcessPool:
        what, advice = "a process that worked was ended from outside", "The same again goes on from there."
        raise ZestyError(what, where=files.shown(order.folder, whole=True), advice=advice) from None
    except OSError as fault:
        where = files.shown(order.folder, whole=True)
        raise FileError(f"the folder cannot be written: {fault.strerror}", where=where, advice="Choose another one.") from None


def _known(path: FilePath) -> tuple[deque[Made], int]:
    """The bodies that an earlier run told of, in their order, and where its last whole line ends."""
    found, end = deque[Made](), 0
    if path.exists():
        with path.open("rb") as stream:
            for line in stream:
                try:
                    found.append(made_of(line.decode()))
                except (ValueError, KeyError, TypeError):
                    break
                end += len(line)
    return found, end


def _in_order(
    order: Order, rows: Iterable[BodyRow], known: deque[Made], jobs: int, stop: Callable[[], bool]
) -> Iterator[tuple[Made, bool]]:
    source = iter(rows)
    for row in source:  # what was done
        if not known or known[0].order != order.fingerprint(row):
            source = itertools.chain([row], source)
            break
        yield known.popleft(), False
    if known:
        raise FileError(
            "another order was written here", where=files.shown(order.folder / LEDGER, whole=True),
            advice="Choose an empty folder, or take this file away to begin anew.",
        )  # fmt: skip
    if jobs == 1:
        for row in source:
            if stop():
                return
            yield _one(order, row), True
        return
    with pool(jobs, _begin, (order,), loaded=__name__) as workers:
        waiting = deque[Future[Made]]()
        while True:
            while len(waiting) < AHEAD * jobs and not stop():
                coming = next(source, None)
                if coming is None:
                    break
                waiting.append(workers.submit(_in_process, coming))
            if not waiting:
                return
            yield waiting.popleft().result(), True


_ORDER: list[Order] = []  # in a process that works: what it works on


def _begin(order: Order) -> None:
    _ORDER[:] = [order]


def _in_process(row: BodyRow) -> Made:
    return _one(_ORDER[0], row)


def _one(order: Order, row: BodyRow) -> Made:
    """One body worked out and written; whatever is wrong with it is said and hinders no other. Raises FileError where it cannot
    be written: that is wrong with the disk, and it is tried again when the order is gone on with."""
    called = f"{row.number:04d}-{next(iter(plain_names([row.name or 'somebody']).values()))}"
    where = f"{called}.zip" if order.is_zip else called
    told = order.fingerprint(row)
    try:
        if row.fault:
            return Made(row.number, row.name, "", False, fault=row.fault, order=told)
        styled = order.under.styled(order.style, row.name or f"body {row.number}", row.lengths, is_child=row.is_child)
        derived = derive(styled)
        contents = outputs(derived, order.formats, order.printing)
    except ZestyError as fault:
        return Made(row.number, row.name, "", False, fault=str(fault), order=told)
    except Exception as fault:  # noqa: BLE001 - the boundary of a body: the others are written
        said = faults.sentence("working it out", faults.caught(fault, f"body {row.number}"))
        return Made(row.number, row.name, "", False, fault=said, order=told)
    if order.is_zip:
        files.write_atomic(order.folder / where, zipped(contents))
    else:
        write_together(order.folder / where, contents)
    came = verdict_of(derived)
    return Made(row.number, row.name, where, came.is_sound, came.broken, came.errors, came.warnings, order=told)


def zipped(contents: Mapping[str, bytes]) -> bytes:
    """Files as an archive: the same files, the same bytes."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        for name in sorted(contents):
            archive.writestr(zipfile.ZipInfo(name, ZIP_DATE), contents[name], zipfile.ZIP_DEFLATED)
    return out.getvalue()
