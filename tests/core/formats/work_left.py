"""Work that an earlier run left in its journal."""

from pathlib import Path

from tests.samples import move, style
from zesty_pivot.core.formats.journal import Journal

WORK = style([move("shoulder", "french")])


def left_behind(folder: Path, document: Path | None = None, work=WORK) -> Journal:  # type: ignore[no-untyped-def]
    """A journal whose program is gone: its lock is free."""
    journal = Journal(folder)
    journal.write(work, document)
    assert journal._lock is not None
    journal._lock.close()
    return journal
