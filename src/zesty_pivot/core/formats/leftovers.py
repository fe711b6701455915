"""Unsaved work that programs left behind, as the next start finds it. Whatever stands in the journal's folder, the start goes
on: what cannot be read is set aside, and what is too much waits beside it."""

from __future__ import annotations

import itertools
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path as FilePath

from zesty_pivot.core import faults
from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import aside, files, style_file
from zesty_pivot.core.formats.journal import KIND, SUFFIX, is_held, lock_path
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.record import record

MOST = 12  # offered at a start; more than that nobody looks through


@record
class Leftover:
    """Unsaved work that a program left behind: the style, the file it belongs to if it had one, and when it was written
    down (UTC). `is_older` tells that the file was saved by something else after that."""

    path: FilePath
    style: Style
    document: FilePath | None
    written: datetime
    is_older: bool = False


@record
class Leftovers:
    """What is offered, the newest first and what is older than its file last; and a sentence about what is not."""

    offered: tuple[Leftover, ...] = ()
    told: str = ""


def leftovers(folder: FilePath) -> Leftovers:
    """What programs that no longer run left unsaved.

    Work that is on disk by now as its document is no leftover and its journal goes. A journal that cannot be read, and those
    beyond the newest MOST, are set aside; of what was set aside the oldest go at a later start.
    """
    aside.prune(folder)
    found: list[Leftover] = []
    broken = spare = 0
    for path in _newest_first(folder):
        if is_held(path):
            continue
        if len(found) >= MOST:
            spare += _put_aside(path)
            continue
        try:
            left = _read(path)
        except ZestyError:
            broken += _put_aside(path)
            continue
        except Exception as fault:  # noqa: BLE001 - the boundary of a reader: a journal can hold anything
            faults.caught(fault, "a journal of unsaved work")
            broken += _put_aside(path)
            continue
        if _is_saved(left):
            forget(left)
        else:
            found.append(left)
    _sweep(folder)
    found.sort(key=lambda left: (not left.is_older, left.written), reverse=True)
    return Leftovers(tuple(found), _told(folder, broken, spare))


def _newest_first(folder: FilePath) -> list[FilePath]:
    """The journals by the time of their file, which cannot be odd as what stands in them can."""
    dated: list[tuple[int, FilePath]] = []
    with suppress(OSError):
        for path in folder.glob(f"*{SUFFIX}"):
            with suppress(OSError):
                dated.append((path.lstat().st_mtime_ns, path))
    return [path for _when, path in sorted(dated, reverse=True)]


def _put_aside(path: FilePath) -> int:
    """1 when a journal was set aside with its lock gone, 0 when it cannot be moved."""
    with suppress(OSError):
        lock_path(path).unlink(missing_ok=True)
    return int(aside.set_aside(path) is not None)


def _told(folder: FilePath, broken: int, spare: int) -> str:
    parts = []
    if broken:
        parts.append(f"{broken} that could not be read" if broken > 1 else "one that could not be read")
    if spare:
        parts.append(f"{spare} older ones" if spare > 1 else "one older one")
    if not parts:
        return ""
    what = " and ".join(parts)
    place = folder / aside.FOLDER
    return f"Of the unsaved work that was found, {what} was put into {place}; the newest {aside.KEPT} are kept there."


def forget(left: Leftover) -> None:
    """Takes a leftover's journal away: its work has been brought back, or is not wanted. One that cannot be taken away is
    offered again."""
    for path in (left.path, lock_path(left.path)):
        with suppress(OSError):
            path.unlink()


def _read(path: FilePath) -> Leftover:
    value = files.read_json(path, KIND)
    document, style, base = value.get("document"), value.get("style"), value.get("base")
    if not isinstance(style, dict):
        raise FileError("the journal holds no style", where=path.name)
    read = style_file.from_value(style, path.name)
    written = _written(value.get("written"), path)
    owner = FilePath(document) if isinstance(document, str) and document and "\0" not in document else None
    return Leftover(path, read, owner, written, owner is not None and _was_saved_since(owner, base, written))


def _written(value: object, path: FilePath) -> datetime:
    """When the work was written down: as it says itself, else the time of the file. A clock that was wrong loses nothing."""
    try:
        when = datetime.fromisoformat(str(value)[:64])
        when = when.replace(tzinfo=UTC) if when.tzinfo is None else when.astimezone(UTC)
    except (ValueError, OverflowError):
        when = datetime.fromtimestamp(path.stat().st_mtime, UTC)
    return min(when, datetime.now(UTC))


def _was_saved_since(document: FilePath, base: object, written: datetime) -> bool:
    """Whether the file is another one than the work was begun on, and was written after it."""
    stamp = files.stamp(document)
    if stamp is None or stamp == base:
        return False
    return datetime.fromtimestamp(document.stat().st_mtime, UTC) > written


def _is_saved(left: Leftover) -> bool:
    if left.document is None:
        return False
    try:
        return style_file.read(left.document) == left.style
    except ZestyError:
        return False


def _sweep(folder: FilePath) -> None:
    """Takes away locks without journals and half-written files that a kill left in the journal's folder."""
    with suppress(OSError):
        for lock in itertools.chain(folder.glob("*.lock")):
            path = lock.with_suffix(SUFFIX)
            if not path.exists() and not is_held(path):
                with suppress(OSError):
                    lock.unlink()
        files.sweep(folder, f"*{SUFFIX}")
