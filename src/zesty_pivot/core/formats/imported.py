"""A file that a block comes in: what it draws, its unit, its pieces."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path as FilePath
from typing import TypeVar

from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.faults import caught, sentence
from zesty_pivot.core.formats import digitised, files, photographed, ruled
from zesty_pivot.core.formats.brought_in import BroughtIn
from zesty_pivot.core.formats.digitised import DigitisedSource
from zesty_pivot.core.formats.photographed import BarePhoto, PhotoSource
from zesty_pivot.core.formats.ruled import RuledSource
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake import units
from zesty_pivot.core.intake.digitiser.device import Device
from zesty_pivot.core.intake.drawing import Drawing
from zesty_pivot.core.intake.hints import Hints
from zesty_pivot.core.intake.photo.sized import Known
from zesty_pivot.core.intake.pieces import traced
from zesty_pivot.core.intake.pulled import pulled_paper
from zesty_pivot.core.intake.readers.registry import reader_for
from zesty_pivot.core.intake.tagging import Tagging, tagged
from zesty_pivot.core.intake.traced import TracedPaper
from zesty_pivot.core.kept import cached_property, kept_with
from zesty_pivot.core.record import record

Found = TypeVar("Found")

MAX_IMPORT = 64 * 1024 * 1024  # bytes; a drawing of a whole style is a few, a photograph of 50 million pixels some 30


@record(eq=False)
class ImportSource(BroughtIn):
    """A file as it was read: its name, which reader read it, its content, and what it draws in its own units."""

    name: str
    reader: str
    content: bytes
    drawing: Drawing

    @cached_property
    def units(self) -> list[units.UnitChoice]:
        """The units that it may be in, the likeliest first; none where it says its own."""
        return units.choices(self.drawing) if self.drawing.mm is None else []

    def lines(self, unit: str | None = None) -> tuple[Path, ...]:
        """Every line of it, mm."""
        return tuple(line.path for line in self.drawing.in_mm(units.scale(self.drawing, unit)).lines)

    def traced(self, unit: str | None = None, size: str = "") -> TracedPaper:
        """Its pieces. Raises FileError where the unit is not known, or no line closes to an outline."""
        return self._traced(unit, size)

    @kept_with
    def _traced(self, unit: str | None, size: str) -> TracedPaper:
        """Kept for each unit and size: what a person says of the pieces changes more often."""
        return _at(self.name, lambda: traced(self.drawing.in_mm(units.scale(self.drawing, unit)), size))


Source = ImportSource | PhotoSource | BarePhoto | DigitisedSource | RuledSource


def read(path: FilePath, devices: Sequence[Device] = ()) -> Source:
    """What a drawing draws, a photograph shows, or one of the digitisers sent. Raises FileError in one line for what cannot
    be read; a fault of a reader becomes one too."""
    name, content = files.shown(path), files.read_bytes(path, MAX_IMPORT)
    if photographed.is_picture(content):
        return _at(name, lambda: photographed.from_bytes(name, content))
    if digitised.is_stream(content, devices):
        return _at(name, lambda: digitised.from_bytes(name, content, devices))
    if ruled.is_ruler(content):
        return _at(name, lambda: ruled.source(ruled.from_bytes(name, content), name))
    return from_bytes(name, content)


def sized(photo: BarePhoto, known: Known) -> PhotoSource:
    """The pieces in a photograph without marks. Raises FileError like `read`."""
    return _at(photo.name, lambda: photo.sized(known))


def with_another(source: PhotoSource, path: FilePath) -> PhotoSource:
    """A photograph more of the same table. Raises FileError like `read`."""
    name, content = files.shown(path), files.read_bytes(path, MAX_IMPORT)
    return _at(name, lambda: source.with_another(name, content))


def from_bytes(name: str, content: bytes) -> ImportSource:
    """What the content of a drawing draws; raises FileError like `read`."""
    reader = _at(name, lambda: reader_for(name, content))
    return ImportSource(name, reader.id, content, _at(name, lambda: reader.read(content)))


def tagged_paper(name: str, paper: TracedPaper, hints: Hints | None = None) -> Tagging:
    """Traced pieces, tagged as far as they tell and a person says. Raises FileError in one line, with the name."""
    return _at(name, lambda: tagged(paper, hints))


def tagged_file(source: Source, hints: Hints | None = None, unit: str | None = None, size: str = "") -> Tagging:
    """The pieces of a file, tagged as far as they tell and a person says. Raises FileError in one line."""
    said = Hints({**source.hints.pieces, **(hints.pieces if hints is not None else {})})
    return tagged_paper(source.name, pulled_paper(source.traced(unit, size), said), said)


def _at(name: str, work: Callable[[], Found]) -> Found:
    """Does some work on a file; what it refuses is told with the file's name."""
    try:
        return work()
    except FileError as fault:
        where = fault.where if fault.where.startswith(name) else f"{name}, {fault.where}".rstrip(", ")
        raise FileError(fault.what, where=where, advice=fault.advice) from None
    except ZestyError as fault:
        raise FileError(fault.what, where=name, advice=fault.advice or "Choose another file.") from None
    except Exception as fault:  # noqa: BLE001 - the boundary of a reader
        reference = caught(fault, "reading a file to import")
        raise FileError(sentence("reading it", reference), where=name, advice="Save it in another form.") from None
