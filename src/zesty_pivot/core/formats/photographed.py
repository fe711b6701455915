"""A photograph, or several of one table, that a block comes in."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats.brought_in import BroughtIn
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.photo import outlines, picture, sized
from zesty_pivot.core.intake.photo.picture import Flat, Pixels
from zesty_pivot.core.intake.photo.sized import Known
from zesty_pivot.core.intake.traced import TracedPaper
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.record import record

MOST_PICTURES = 8


@record(eq=False)
class PhotoSource(BroughtIn):
    """Photographs as they were read: names, pixels, and the table in them from above."""

    names: tuple[str, ...]
    pictures: tuple[Pixels, ...]
    flat: Flat
    paper: TracedPaper

    @property
    def name(self) -> str:
        """The first's name, and how many there are."""
        more = len(self.names) - 1
        return self.names[0] + (f" and {more} more" if more else "")

    @property
    def under(self) -> Flat:
        """The table from above, to lie under the block."""
        return self.flat

    @cached_property
    def _lines(self) -> tuple[Path, ...]:
        return tuple(path for piece in self.paper.pieces for path in (piece.outline, *piece.inner))

    def lines(self, _unit: str | None = None) -> tuple[Path, ...]:
        """Every line that was found, mm."""
        return self._lines

    def traced(self, _unit: str | None = None, _size: str = "") -> TracedPaper:
        """The pieces that were found."""
        return self.paper

    def with_another(self, name: str, content: bytes) -> PhotoSource:
        """The same with another photograph of the same table. Raises FileError."""
        if len(self.pictures) >= MOST_PICTURES:
            raise FileError(
                f"there are {MOST_PICTURES} pictures already", where=name, advice="Begin again with the best of them."
            )
        return of((*self.names, name), (*self.pictures, picture.read(content)))


def is_picture(content: bytes) -> bool:
    """Whether a file is a picture that can be worked on, by how it begins."""
    return content.startswith((b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff"))


@record(eq=False)
class BarePhoto(BroughtIn):
    """A photograph without any mark: how large things are has to be said first."""

    name: str
    pixels: Pixels

    def sized(self, known: Known) -> PhotoSource:
        """The pieces, by something in it whose size is known. Raises FileError."""
        flat = sized.flat_by(self.pixels, known)
        return PhotoSource((self.name,), (self.pixels,), flat, outlines.traced(flat))

    def traced(self, _unit: str | None = None, _size: str = "") -> TracedPaper:
        """Nothing yet. Raises FileError."""
        raise FileError(
            "no mark of a printed frame is seen in it", where=self.name,
            advice="Lay the block within the printed frame of marks, or open the picture in the window and point at a sheet.",
        )  # fmt: skip


def from_bytes(name: str, content: bytes) -> PhotoSource | BarePhoto:
    """The pieces in one photograph; without marks, the picture alone. Raises FileError in one line."""
    pixels = picture.read(content)
    return of((name,), (pixels,)) if picture.marks_in(pixels) else BarePhoto(name, pixels)


def of(names: Sequence[str], pictures: Sequence[Pixels]) -> PhotoSource:
    """The pieces on a table that some photographs show. Raises FileError."""
    flat = picture.flat(pictures)
    return PhotoSource(tuple(names), tuple(pictures), flat, outlines.traced(flat))
