"""What every file of ours shares: the header, the size limit, faults in one line, atomic writing."""

from __future__ import annotations

import errno
import hashlib
import json
import os
import stat
import tempfile
from collections.abc import Callable, Mapping
from contextlib import suppress
from pathlib import Path as FilePath
from typing import Any, TypeVar

from pydantic import BaseModel, ValidationError

from zesty_pivot.core.errors import FileError, ZestyError

VERSIONS = {"style": 6, "block": 3, "measures": 2}  # of each kind; the others have 1
MAX_BYTES = 16 * 1024 * 1024  # a style with its block is some 10 kB; more is no style
MAX_BACKUP = 64 * MAX_BYTES  # whatever stands at a name that is saved over is kept, within reason
PARTIAL = ".part"  # the end of a file's name while it is being written
_MAX_FAULTS = 4
_FULL = (errno.ENOSPC, errno.EDQUOT)

M = TypeVar("M", bound=BaseModel)
Inner = TypeVar("Inner")


def read_json(path: FilePath, kind: str) -> dict[str, Any]:
    """A file of ours as plain JSON with its header checked.

    Raises FileError when it cannot be read, is too large, is not JSON, holds NaN, or is of another kind or a
    newer version.
    """
    where = shown(path)
    try:
        text = read_bytes(path).decode("utf-8-sig")
    except UnicodeDecodeError:
        raise FileError("the file is not UTF-8 text", where=where, advice="Choose a .zpiv or .zblock file.") from None
    return parse_json(text, kind, where)


def shown(path: FilePath, *, whole: bool = False) -> str:
    """A file's name (or its whole path) as it can be written on a screen: what no character set knows and what would move the
    cursor is escaped."""
    text = str(path) if whole else path.name or str(path)
    return "".join(c if c.isprintable() else c.encode("unicode_escape", "surrogatepass").decode() for c in text)


def shown_text(text: str, most: int) -> str:
    """A text from a file in quotes, as it can be written on a screen, not longer than `most` characters."""
    plain = "".join(c if c.isprintable() else " " for c in text)
    return repr(plain if len(plain) <= most else f"{plain[: most - 1]}…")


def read_bytes(path: FilePath, most: int = MAX_BYTES) -> bytes:
    """The content of a regular file of at most `most` bytes, counted while it is read: what a file tells of its size is no
    promise. Folders, pipes and devices are refused without being read.

    Raises FileError.
    """
    try:
        if not stat.S_ISREG(path.stat().st_mode):
            raise FileError("this is no file but a folder, pipe or device", where=shown(path), advice="Choose a file.")
        # Not blocking: what was a file a moment ago may be a pipe by now.
        with os.fdopen(os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC), "rb") as file:
            if not stat.S_ISREG(os.fstat(file.fileno()).st_mode):
                raise FileError("this is no file but a folder, pipe or device", where=shown(path), advice="Choose a file.")
            content = file.read(most + 1)
    except FileError:
        raise
    except OSError as fault:
        raise FileError(
            f"the file cannot be read: {fault.strerror}", where=shown(path, whole=True), advice="Check the name."
        ) from None
    except ValueError:  # a name with a null character in it
        raise FileError("there can be no file of this name", where=shown(path), advice="Check the name.") from None
    if len(content) > most:
        what = f"the file is over {most // 2**20} MB"
        raise FileError(what, where=shown(path), advice="A block or style is far under that.")
    return content


def parse_json(text: str, kind: str, where: str) -> dict[str, Any]:
    """JSON text of ours with its header checked; raises FileError as `read_json` does."""
    try:
        value = json.loads(text, parse_constant=_no_constant)
    except json.JSONDecodeError as fault:
        raise FileError(
            f"broken JSON at line {fault.lineno}, column {fault.colno}: {fault.msg}", where=where, advice="Restore a backup."
        ) from None
    except RecursionError:
        raise FileError("the file is nested too deeply", where=where, advice="Restore a backup.") from None
    except ZestyError as fault:
        raise FileError(fault.what, where=where, advice=fault.advice) from None
    except ValueError:  # Python reads no whole number of over some thousand digits
        raise FileError("a number of thousands of digits in the file", where=where, advice="Restore a backup.") from None
    return header(value, kind, where)


def _no_constant(name: str) -> float:
    raise FileError(f"the number {name} in the file", advice="Every number must be finite.")


def version_of(kind: str) -> int:
    """The version that files of a kind are written in."""
    return VERSIONS.get(kind, 1)


def header(value: object, kind: str, where: str) -> dict[str, Any]:
    """The value itself when its `format` and `version` are ours; raises FileError otherwise."""
    wanted = f"zesty-pivot/{kind}"
    if not isinstance(value, dict):
        raise FileError(f"a list or number where a {kind} should stand", where=where, advice=f"Choose a {kind} file.")
    if value.get("format") != wanted:
        told = _brief(value.get("format"))
        raise FileError(f"the format is {told}, not {wanted!r}", where=where, advice=f"Choose a {kind} file.")
    version = value.get("version")
    if isinstance(version, bool) or not isinstance(version, int) or not 1 <= version < 10**9:
        raise FileError(f"the version is {_brief(version)}, not a whole number from 1", where=where, advice="Restore a backup.")
    newest = version_of(kind)
    if version > newest:
        raise FileError(f"the file has version {version}, newer than {newest}", where=where, advice="Update Zesty Pivot.")
    return value


def _brief(value: object) -> str:
    """A value of a file as it stands in a message: not longer than a line."""
    try:
        text = repr(value)
    except ValueError:  # a whole number of over some thousand digits
        text = "a number of thousands of digits"
    return text if len(text) <= 60 else f"{text[:57]}..."


def validated(model: type[M], value: Mapping[str, Any], where: str) -> M:
    """A file's content as its model; raises FileError with the first faults in one line."""
    try:
        return model.model_validate(value)
    except ValidationError as fault:
        raise FileError(faults(fault), where=where, advice="Mend these fields.") from None
    except RecursionError:
        raise FileError("the file is nested too deeply", where=where, advice="Restore a backup.") from None
    except (ValueError, OverflowError):
        raise FileError("a number in the file is too large", where=where, advice="Restore a backup.") from None


def read_inside(read: Callable[[], Inner]) -> Inner:
    """A part of a model that is read in code. Raises ValueError with its faults in one line; the model adds the place."""
    try:
        return read()
    except ValidationError as fault:
        raise ValueError(faults(fault, whole="")) from None


def faults(error: ValidationError, whole: str = "file") -> str:
    """The faults of a validation in one line: where and what, the first four, then how many more. `whole` is the name of what
    was validated, for a fault of no single part of it; none when the caller says it."""
    found = error.errors(include_url=False, include_context=False, include_input=False)
    said = dict.fromkeys(": ".join(filter(None, (_place(one["loc"]) or whole, _plain(one["msg"])))) for one in found)
    listed = list(said)[:_MAX_FAULTS]
    more = len(said) - len(listed)
    return "; ".join(listed) + (f"; and {more} more" if more > 0 else "")


def _place(loc: tuple[int | str, ...]) -> str:
    """`steps[2].to.edge` from pydantic's location; names of union members are left out."""
    text = ""
    for part in loc:
        if isinstance(part, int):
            text += f"[{part}]"
        elif part.isidentifier():
            text += f".{part}" if text else part
    return text


def _plain(message: str) -> str:
    for opening in ("Value error, ", "Assertion failed, "):
        message = message.removeprefix(opening)
    return message.rstrip(".").replace("Extra inputs are not permitted", "unknown field")


def write_atomic(path: FilePath, content: bytes) -> None:
    """The file written whole or not at all: temporary file beside it, fsync, rename. A link is kept, and the file it leads to
    written; a file that is there keeps its mode.

    Raises FileError with what to do when the folder is read-only, full or missing, or a folder stands at the name.
    """
    try:
        path = FilePath(os.path.realpath(path))
        path.parent.mkdir(parents=True, exist_ok=True)
        mode = _mode_of(path)
        handle, name = tempfile.mkstemp(prefix=f".{path.name[:60]}.{os.getpid()}.", suffix=PARTIAL, dir=path.parent)
        try:
            with os.fdopen(handle, "wb") as file:
                file.write(content)
                file.flush()
                os.fsync(file.fileno())
            FilePath(name).chmod(mode)
            FilePath(name).replace(path)
        except BaseException:
            FilePath(name).unlink(missing_ok=True)
            raise
    except FileError:
        raise
    except OSError as fault:
        advice = "Free some space, or choose another folder." if fault.errno in _FULL else "Choose another folder."
        raise FileError(f"the file cannot be written: {fault.strerror}", where=shown(path, whole=True), advice=advice) from None
    except ValueError:
        raise FileError("there can be no file of this name", where=shown(path), advice="Choose another name.") from None


def _mode_of(path: FilePath) -> int:
    """The mode that a file is written with: its own, or 0644 for a new one. Raises FileError where something else than a file
    stands, which a rename would not replace or must not."""
    try:
        mode = path.stat().st_mode
    except FileNotFoundError:
        return 0o644
    if stat.S_ISDIR(mode):
        raise FileError("a folder of this name is there", where=shown(path), advice="Choose another name.")
    if not stat.S_ISREG(mode):
        raise FileError("this is no file but a pipe or device", where=shown(path), advice="Choose another name.")
    return stat.S_IMODE(mode)


def sweep(folder: FilePath, pattern: str) -> None:
    """Takes away half-written files of names like `pattern` that killed programs left in a folder. Files of programs that
    run are left alone."""
    for path in folder.glob(f".{pattern}*{PARTIAL}") if folder.is_dir() else ():
        owner = path.name.removesuffix(PARTIAL).rpartition(".")[0].rpartition(".")[2]
        if not owner.isdigit() or not FilePath(f"/proc/{owner}").exists():
            with suppress(OSError):
                path.unlink()


def stamp(path: FilePath) -> str | None:
    """What tells a file's content: its digest, or None when it cannot be read."""
    try:
        return hashlib.sha256(read_bytes(path)).hexdigest()
    except FileError:
        return None


def backup(path: FilePath) -> None:
    """Keeps the present version of a file as `NAME~` beside it, if there is one; raises FileError when it cannot."""
    path = FilePath(os.path.realpath(path))
    if path.is_file():
        content, mode = read_bytes(path, MAX_BACKUP), stat.S_IMODE(path.stat().st_mode)
        kept = path.with_name(path.name + "~")
        write_atomic(kept, content)
        kept.chmod(mode)
