"""All export formats, and a derived style written in them."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import lru_cache
from pathlib import Path as FilePath

from zesty_pivot.core import exports
from zesty_pivot.core.discovery import members
from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.exports.stand import STAND
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.file_names import plain_names
from zesty_pivot.core.formats.folder import write_together
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.record import replace

ALWAYS = "json"  # the report is written beside whatever is asked for: it tells which files belong to the style


@lru_cache(maxsize=1)
def all_exports() -> dict[str, Export]:
    """Every format by its id, in the order in which they are offered."""
    found = [one for one in members(exports, "EXPORT") if isinstance(one, Export)]
    return {one.id: one for one in sorted(found, key=lambda one: (one.order, one.id))}


def wanted_by(derived: Derived) -> tuple[str, ...]:
    """The formats that everything of a style is written in."""
    return tuple(id for id, one in all_exports().items() if one.is_wanted(derived))


def makers(derived: Derived, formats: Sequence[str], printing: Printing) -> dict[str, Make]:
    """What makes each file of a derived style, by the file's name; the report's always among them."""
    found: dict[str, Make] = {}
    if STAND in formats:
        printing = replace(printing, on_stand=True)
    for id, one in all_exports().items():
        if id in formats or id == ALWAYS:
            found.update(one.files(derived, printing))
    return found


def outputs(
    derived: Derived,
    formats: Sequence[str],
    printing: Printing,
    progress: Callable[[int, int], None] = lambda _done, _total: None,
) -> dict[str, bytes]:
    """The files of a derived style by name. Everything is worked out before anything is written.

    `progress` is told how many files of how many are made; what it raises stops the work.
    """
    known = makers(derived, formats, printing)
    found: dict[str, bytes] = {}
    for name, make in known.items():
        progress(len(found), len(known))
        found[name] = make()
    progress(len(known), len(known))
    return found


def write_variants(
    style: Style, folder: FilePath, formats: Sequence[str], printing: Printing | None = None,
    progress: Callable[[int, int], None] = lambda _done, _total: None,
) -> dict[FilePath, Derived]:  # fmt: skip
    """Every variant of a style written to a folder of its own within a folder; what each came to, by its folder. Raises
    FileError as `write_all` does; what was written before stays. `progress` is told how many of how many are written; what it
    raises stops the work."""
    several, found = style.every_variant, dict[FilePath, Derived]()
    for number, (name, stem) in enumerate(plain_names(several).items()):
        progress(number, len(several))
        derived = derive(several[name])
        write_all(derived, folder / stem, formats, printing)
        found[folder / stem] = derived
    return found


def write_all(derived: Derived, folder: FilePath, formats: Sequence[str], printing: Printing | None = None) -> list[FilePath]:
    """Writes the files of a derived style to a folder, report.json always: all or none. Raises FileError when it cannot."""
    return write_together(folder, outputs(derived, formats, printing or Printing()))
