"""The block library: what is kept, found, changed, taken out and moved to another machine."""

from __future__ import annotations

from pathlib import Path

import pytest

from tests.random_blocks import random_block
from tests.samples import hip_block, real_block
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.library import KeptBlock, Library, digest, found, uses


@pytest.fixture
def rail(tmp_path: Path) -> Library:
    return Library(tmp_path / "library")


def test_what_is_kept_is_there_again(rail: Library) -> None:
    kept = rail.keep(real_block(), "2026-11-29", "drafted")
    blocks, told = Library(rail.folder).blocks()
    assert not told and blocks == [kept]
    assert blocks[0].block == real_block() and blocks[0].origin == "drafted"


def test_the_same_shape_is_kept_once_whatever_it_is_called(rail: Library) -> None:
    first = rail.keep(real_block(), "2026-11-29")
    again = rail.keep(real_block().model_copy(update={"name": "Another name"}), "2026-11-30")
    assert again == first and len(rail.blocks()[0]) == 1


def test_versions_the_newest_last(rail: Library) -> None:
    kept = rail.keep(real_block(), "2026-11-29")
    other = random_block(2)
    kept = rail.add_version(kept, other, "2026-11-30", "longer waist")
    blocks = rail.blocks()[0]
    assert [one.note for one in blocks[0].versions] == ["", "longer waist"] and blocks[0].block == other
    assert kept.digests == {digest(real_block()), digest(other)}


def test_it_knows_the_styles_that_use_it(rail: Library) -> None:
    kept = rail.add_version(rail.keep(real_block(), ""), random_block(2), "")
    styles = [("Aria", real_block()), ("Carol", hip_block()), ("Lauds", random_block(2))]
    assert uses(kept, styles) == ["Aria", "Lauds"]


def test_a_new_name_leaves_one_file(rail: Library) -> None:
    kept = rail.keep(real_block(), "")
    changed = rail.change(kept, name="Ävelin: the / long one", notes="altered for the tour")
    assert len(list(rail.folder.iterdir())) == 1
    assert rail.blocks()[0] == [changed]
    with pytest.raises(FileError):
        rail.change(changed, name="")
    assert rail.blocks()[0] == [changed]


def test_what_is_taken_out_is_set_aside(rail: Library) -> None:
    kept = rail.keep(real_block(), "")
    moved = rail.take_out(kept)
    assert moved is not None and moved.exists() and rail.blocks() == ([], [])


def test_a_broken_file_costs_itself(rail: Library) -> None:
    rail.keep(real_block(), "")
    (rail.folder / "broken-0123456789ab.zkept").write_bytes(b"{")
    blocks, told = rail.blocks()
    assert len(blocks) == 1 and len(told) == 1 and "broken-0123456789ab.zkept" in told[0]


def test_the_whole_library_moves_in_one_file(rail: Library, tmp_path: Path) -> None:
    for block in (real_block(), hip_block(), random_block(2)):
        rail.keep(block, "")
    path = tmp_path / "all.zrail"
    path.write_bytes(rail.whole())
    other = Library(tmp_path / "elsewhere")
    other.keep(hip_block(), "")
    assert other.take_in(path) == (2, 1)
    assert {digest(kept.block) for kept in other.blocks()[0]} == {digest(kept.block) for kept in rail.blocks()[0]}


def test_a_library_with_a_broken_block_brings_nothing(rail: Library, tmp_path: Path) -> None:
    rail.keep(real_block(), "")
    path = tmp_path / "all.zrail"
    path.write_bytes(rail.whole().replace(b'"role": "armhole"', b'"role": "hem"', 1))
    other = Library(tmp_path / "elsewhere")
    with pytest.raises(FileError):
        other.take_in(path)
    assert other.blocks() == ([], [])


def test_search_by_words_and_girths(rail: Library) -> None:
    """A block of a body of 92.8 cm bust; girths of a body in cm or inches."""
    kept = rail.change(rail.keep(real_block(), "", "from the rail"), notes="needs a longer back")
    bust = kept.block.measurements["bust"] / 10.0
    blocks: list[KeptBlock] = [kept]
    for asked in ("", "two-dart", "longer back", "rail", f"bust {bust:.0f}", f"{bust + 1.5:.1f}", f"bust {bust:.0f} longer"):
        assert found(blocks, asked) == [kept], asked
    for asked in ("nobody", "bust 140", f"waist {bust:.0f}", "hip 20"):
        assert found(blocks, asked) == [], asked
    assert found(blocks, f"bust {bust / 2.54:.1f}", 25.4) == [kept]
    assert block_file.pattern(kept.block).pieces
