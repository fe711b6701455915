"""Another body under a style, and where its block comes from: drafted, graded, or one of its own."""

from __future__ import annotations

from collections.abc import Mapping
from pathlib import Path as FilePath
from typing import Literal

from zesty_pivot.core.drafting.method import Method
from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.file_names import plain_names
from zesty_pivot.core.formats.redraft import with_body, with_measures
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.chart import APART
from zesty_pivot.core.sizes.graded import graded
from zesty_pivot.core.sizes.rules import DartRule

Way = Literal["draft", "grade", "own"]


@record
class Under:
    """How a style comes to other bodies: the way, the method that its block was drafted by, how darts are graded, and the
    blocks of those that have one of their own, by title. Without a way a drafted block is drafted again, any other graded."""

    way: Way | None = None
    method: Method | None = None
    darts: DartRule = "grow"
    blocks: Mapping[str, BlockFile] | None = None

    def way_for(self, style: Style) -> Way:
        """The way that is taken."""
        return self.way or ("grade" if style.block.method is None else "draft")

    def styled(self, style: Style, title: str, lengths: Mapping[str, float], *, is_child: bool = False) -> Style:
        """The style over the block of a body (mm). Raises ZestyError where that cannot be made."""
        way = self.way_for(style)
        if way == "own":
            block = own_block(self.blocks or {}, title)
            return with_body(style, block)
        if way == "draft":
            if style.block.method is None:
                raise ZestyError("the style's block was not drafted here", where=title, advice="Grade it instead.")
            made = with_measures(style, lengths, self.method)
            return made.model_copy(update={"block": made.block.model_copy(update={"name": _named(style, title)})})
        block = graded(style.block, style.body(), lengths, darts=self.darts, name=_named(style, title), is_child=is_child)
        return with_body(style, block)


def own_block(blocks: Mapping[str, BlockFile], title: str) -> BlockFile:
    """The block of a size or person: called by the title, as a file may be called by it, or by the size without its group.
    Raises ZestyError where there is none."""
    names = (title, plain_names([title])[title], title.rpartition(APART)[2])
    found = next((blocks[name] for name in names if name in blocks), None)
    if found is None:
        raise ZestyError(
            "there is no block for it", where=title, advice=f"Call its file {names[1]}.zblock, or draft or grade it."
        )
    return found


def blocks_in(folder: FilePath) -> dict[str, BlockFile]:
    """All blocks of a folder, by the names of their files. Raises FileError."""
    if not folder.is_dir():
        raise FileError("this is no folder", where=str(folder), advice="Name the folder with a .zblock file a size.")
    return {path.stem: block_file.read(path) for path in sorted(folder.glob(f"*{block_file.SUFFIX}"))}


def _named(style: Style, title: str) -> str:
    """What the block of a body is called: `Quillmere two-dart bodice, tall · 40`."""
    return f"{style.block.name.partition(',')[0]}, {title}"[:200]
