"""A style as a command is given it: its file, perhaps with another block or other measurements; faults of it go to the log."""

from __future__ import annotations

import logging
from collections.abc import Callable
from pathlib import Path

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError, one_of


def opened(style: Path, block: Path | None, measures: Path | None, person: str = ""):  # type: ignore[no-untyped-def]
    from zesty_pivot.core.formats import block_file, style_file

    found = style_file.read(style)
    log_faults(lambda: style_file.anonymous_steps(found))
    if block is not None:
        found = found.model_copy(update={"block": block_file.read(block)})
    if measures is not None:
        from zesty_pivot.core.formats import files, measures_csv, measures_file
        from zesty_pivot.core.formats.redraft import with_measures
        from zesty_pivot.data.methods import method_of

        people, _told = measures_csv.read_people(measures)
        lengths = measures_file.lengths_of(people, person, files.shown(measures))
        found = with_measures(found, lengths, method_of(found.block.method, own_methods()))
    return found


def with_variant(style, name: str | None):  # type: ignore[no-untyped-def]
    if name is None:
        return style
    if name not in [one.name for one in style.variants]:
        what, advice = one_of("variant", name, (one.name for one in style.variants))
        raise ZestyError(what, where=style.name, advice=advice if style.variants else "The style has no variants.")
    return style.with_variant(name)


def own_methods() -> Path:
    from zesty_pivot.desk.settings import methods_folder

    return methods_folder()


def fault_log() -> Path:
    from zesty_pivot.desk.settings import fault_log  # only where something went wrong

    return fault_log()


class _Log(logging.Handler):
    """Writes faults to the log, whose place is looked for only then."""

    def __init__(self, steps: Callable[[], str]) -> None:
        super().__init__()
        self._steps = steps

    def emit(self, record: logging.LogRecord) -> None:
        faults.FaultLog(fault_log(), self._steps).emit(record)


def log_faults(steps: Callable[[], str] = lambda: "") -> None:
    """Faults of this command go to the log, with the steps of the style it is about."""
    faults.LOGGER.addHandler(_Log(steps))
