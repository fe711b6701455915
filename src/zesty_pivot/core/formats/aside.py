"""Files that cannot be read are set aside: kept under another name, so that they are in nobody's way and nothing is lost."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import suppress
from pathlib import Path as FilePath

FOLDER = "set-aside"
KEPT = 100  # files in a folder of what was set aside; a journal has some 20 kB


def set_aside(path: FilePath) -> FilePath | None:
    """Moves a file, pipe or whatever stands there into the folder `set-aside` beside it, under a name that is free; the new
    path, or None when it cannot be moved."""
    folder = path.parent / FOLDER
    try:
        folder.mkdir(exist_ok=True)
        target = next(target for target in _names(folder, path) if not target.exists() and not target.is_symlink())
        path.rename(target)
    except (OSError, StopIteration):
        return None
    return target


def _names(folder: FilePath, path: FilePath) -> Iterator[FilePath]:
    yield folder / path.name
    yield from (folder / f"{path.stem}-{number}{path.suffix}" for number in range(2, 1000))


def prune(folder: FilePath) -> None:
    """Takes the oldest files out of a `set-aside` folder, until KEPT are left. To be called before more is put there, so that
    only goes what was told of at an earlier start."""
    with suppress(OSError):
        dated = sorted((path.lstat().st_mtime_ns, path) for path in (folder / FOLDER).iterdir())
        for _when, path in dated[: max(0, len(dated) - KEPT)]:
            with suppress(OSError):
                path.unlink()
