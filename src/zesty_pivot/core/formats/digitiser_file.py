"""The digitiser file (.zdigit): how a digitising table talks, as data."""

from __future__ import annotations

from pathlib import Path as FilePath

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import files
from zesty_pivot.core.intake.digitiser.device import KIND, Device


def read(path: FilePath) -> Device:
    """A device from its file; raises FileError in one line."""
    return files.validated(Device, files.read_json(path, KIND), files.shown(path))


def from_text(text: str, where: str) -> Device:
    """A device from the text of its file; raises FileError."""
    return files.validated(Device, files.parse_json(text, KIND, where), where)


def is_known(content: bytes, devices: tuple[Device, ...]) -> bool:
    """Whether a third of a stream's first lines at least, three of them, are what one of the devices says."""
    lines, counts = _counts(content, devices)
    return bool(counts) and max(counts) * 3 >= lines and max(counts) >= 3


def likeliest(content: bytes, devices: tuple[Device, ...]) -> Device:
    """The device that most lines of a stream look like. Raises FileError where none of them does."""
    if not is_known(content, devices):
        raise FileError("it is no stream of a digitiser that is known here", advice="Choose the digitiser's .zdigit file.")
    _lines, counts = _counts(content, devices)
    return devices[counts.index(max(counts))]


def _counts(content: bytes, devices: tuple[Device, ...]) -> tuple[int, list[int]]:
    """How many lines are looked at, and how many of them each device says."""
    lines = [line.strip(" \t\0") for line in content[:65536].decode("ascii", "replace").replace("\r", "\n").split("\n")]
    lines = [line for line in lines if line][:500]
    return len(lines), [sum(device.pattern.fullmatch(line[:400]) is not None for line in lines) for device in devices]
