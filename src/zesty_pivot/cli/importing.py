"""`zesty-pivot import`: a block from a file that something else wrote."""

from __future__ import annotations

import sys
from pathlib import Path
from typing import TYPE_CHECKING

import click

from zesty_pivot.cli.saying import echo

if TYPE_CHECKING:
    from zesty_pivot.core.intake.tagging import Tagging

UNITS = ("mm", "cm", "in", "px")


@click.command(name="import")
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--out", type=click.Path(path_type=Path), required=True, help="The block file to write.")
@click.option("--unit", type=click.Choice(UNITS), help="What one unit of the file is, where it does not say.")
@click.option("--tag", type=click.Path(path_type=Path), help="What you say of its pieces: a .ztags file.")
@click.option("--size", default="", help="Which size, where the file holds several.")
@click.option("--name", default="", help="What the block is called; the file's name when not given.")
def import_block(file: Path, out: Path, unit: str | None, tag: Path | None, size: str, name: str) -> None:
    """Make a block of FILE: a drawing (SVG, DXF, HP-GL), a photograph, a digitiser's trace, a ruler's sheet.

    Says on stderr what is unsure or does not match; the block is written all the same, and the exit code is 1.
    """
    from zesty_pivot.core.formats import block_file, files, imported, tag_file
    from zesty_pivot.core.formats.tagged_block import block_of
    from zesty_pivot.core.formats.walked_block import walk_block
    from zesty_pivot.core.intake.hints import Hints
    from zesty_pivot.data.digitisers import shipped

    if not out.name:
        raise click.BadParameter("is empty; give the file to write.", param_hint="--out")
    hints = tag_file.read(tag).hints() if tag is not None else Hints()
    tagging = imported.tagged_file(imported.read(file, shipped()), hints, unit, size)
    block = block_of(tagging, name or file.stem)
    said = [f"{note}" for note in tagging.notes] + _unsure(tagging)
    wrong = [line for line in walk_block(block, "cm") if not line.is_right and not line.is_trued_later]
    walked = [f"{line.title}: {line.says}. {line.advice}".strip() for line in wrong]
    files.write_atomic(out, block_file.dump(block))
    echo(str(out))
    for line in (*said, *walked):
        echo(f"zesty-pivot: {line}", err=True)
    sys.exit(1 if _unsure(tagging) or walked else 0)


def _unsure(tagging: Tagging) -> list[str]:
    from zesty_pivot.core.intake.guesses import Sure

    return [
        f"{tagging.pieces[number].name}: {guess.words} is not sure: {guess.why}. Say it in a .ztags file with --tag."
        for number, guess in tagging.guesses
        if guess.sure is Sure.UNSURE
    ]
