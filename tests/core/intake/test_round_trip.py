"""A block written to a file by other hands comes back as the same block: every block at hand, every kind of file.

Bars of the acceptance: seams within 0.1 mm, darts within 0.05 degrees.
"""

from __future__ import annotations

import random
from collections.abc import Sequence
from pathlib import Path as FilePath

import pytest

from tests import paper_files
from tests.core.intake.comparing import apart
from tests.paper_blocks import Lay, pieces_of
from tests.samples import DATA
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file, imported
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.core.geometry import Path
from zesty_pivot.data import demo

BLOCKS = [*sorted(FilePath(demo.__file__).parent.glob("*.zblock")), *sorted(DATA.glob("*.zblock"))]

SEAM, DART = 0.1, 0.05
EXACT = 0.001  # mm; files keep six decimals, and an inch is 25.4 mm

Lines = Sequence[Sequence[Path]]

WAYS = {
    "svg": (lambda lines: paper_files.svg(lines), None, EXACT),
    "svg inches": (lambda lines: paper_files.svg(lines, "in", 25.4 / 72.0), None, EXACT),
    "svg unitless": (lambda lines: paper_files.svg(lines, ""), "mm", EXACT),
    "svg pixels": (lambda lines: paper_files.svg(lines, "", 25.4 / 96.0), "px", EXACT),
    "dxf": (lambda lines: paper_files.dxf(lines), None, EXACT),
    "dxf blocks": (lambda lines: paper_files.dxf(lines, blocks=True), None, EXACT),
    "dxf inches": (lambda lines: paper_files.dxf(lines, 1, 25.4), None, EXACT),
    "dxf unitless": (lambda lines: paper_files.dxf(lines, 0), "mm", EXACT),
    "dxf R12 polylines": (lambda lines: paper_files.dxf_polylines(lines), None, SEAM),
    "hpgl": (lambda lines: paper_files.hpgl(lines), None, SEAM),
}


@pytest.mark.parametrize("way", WAYS)
@pytest.mark.parametrize("path", BLOCKS, ids=lambda path: path.stem)
def test_comes_back(path: FilePath, way: str) -> None:
    """Turned and mirrored anyhow, every second in shuffled lines that are walked either way."""
    write, unit, bar = WAYS[way]
    block = block_file.read(path)
    chance = random.Random(f"{path.stem} {way}")
    pieces = pieces_of(block, Lay.chance(chance))
    lines = [paper_files.lines_of(piece, chance if chance.random() < 0.5 else None) for piece in pieces]
    tagging = imported.tagged_file(imported.from_bytes(f"paper.{way[:3]}", write(lines)), unit=unit)
    off = apart(block, block_of(tagging))
    assert off.seam <= bar
    assert off.dart <= DART


def test_a_file_without_a_unit_asks_for_it_with_the_sizes() -> None:
    lines = [paper_files.lines_of(piece) for piece in pieces_of(block_file.read(BLOCKS[0]), Lay())]
    with pytest.raises(
        FileError,
        match=r"does not say its unit \(in mm its largest piece is 25 x 44 cm.*in in its largest piece is 626 x 1123 cm",
    ) as told:
        imported.from_bytes("rail.svg", paper_files.svg(lines[:1], "")).traced()
    assert "--unit" in told.value.advice


def test_our_own_sheet_comes_back(tmp_path: FilePath) -> None:
    """With allowances, caps, creases, notches, drill holes, grain and words on it: the seam line is taken, the bust point is
    where it is marked, front and back are what they are called."""
    from tests.samples import real_block
    from zesty_pivot.core.exports.registry import write_all
    from zesty_pivot.core.formats.derived import derive
    from zesty_pivot.core.formats.style_file import from_block

    write_all(derive(from_block(real_block())), tmp_path, ("svg",), Printing(packing="kept"))
    tagging = imported.tagged_file(imported.read(tmp_path / "sheet.svg"))
    off = apart(real_block(), block_of(tagging))
    assert off.seam <= EXACT
    assert off.dart <= 0.01
    assert {piece.is_on_fold for piece in tagging.pieces.values()} == {True}
    assert not [guess for _number, guess in tagging.guesses if guess.sure == "unsure"]
    assert any("left aside" in note or "taken off" in note for note in tagging.notes)
