"""Every reader there is, found by looking in this folder."""

from __future__ import annotations

from functools import cache

from zesty_pivot.core.discovery import members
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.intake import readers
from zesty_pivot.core.intake.readers.base import Reader

HEAD = 8192  # bytes of a file that are looked at to tell what it is


@cache
def all_readers() -> tuple[Reader, ...]:
    """All readers, in the order in which they are offered."""
    found = [one for one in members(readers, "READER") if isinstance(one, Reader)]
    return tuple(sorted(found, key=lambda reader: (reader.order, reader.id)))


def reader_for(name: str, content: bytes) -> Reader:
    """What reads a file: by its content, and by its name where the content does not tell. Raises FileError for a kind that is
    not known."""
    head = content[:HEAD]
    ending = f".{name.rpartition('.')[2].lower()}" if "." in name else ""
    told = [reader for reader in all_readers() if reader.is_one(head)]
    named = [reader for reader in all_readers() if ending in reader.endings]
    both = [reader for reader in told if reader in named]
    for choice in (both, told, named):
        if choice:
            return choice[0]
    known = ", ".join(ending for reader in all_readers() for ending in reader.endings)
    raise FileError("this kind of file is not known here", advice=f"Choose one of {known}.")
