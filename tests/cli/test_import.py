"""`zesty-pivot import`: the contract of options, exit codes and messages."""

from __future__ import annotations

import json
from pathlib import Path

import cv2
import numpy as np
import pytest

from tests import paper_files
from tests.cli.calling import call
from tests.core.intake.comparing import apart
from tests.paper_blocks import Lay, pieces_of
from tests.samples import real_block
from zesty_pivot.core.formats import block_file
from zesty_pivot.data.demo import SHEET, TRACE, demo_ruler, demo_style, demo_trace


@pytest.fixture
def sheet(tmp_path: Path) -> Path:
    path = tmp_path / "rail.svg"
    path.write_bytes(paper_files.svg([paper_files.lines_of(piece) for piece in pieces_of(real_block(), Lay())]))
    return path


def test_a_file_becomes_a_block(sheet: Path, tmp_path: Path) -> None:
    out = tmp_path / "b.zblock"
    done = call("import", sheet, "--out", out)
    assert done.out == f"{out}\n"
    assert done.code == 1 and "the fold is not sure" in done.err  # nothing tells of the back: a zip, or the fold
    block = block_file.read(out)
    assert block.name == "rail"
    assert apart(real_block(), block).seam < 0.001


def test_a_tag_file_makes_it_sure(sheet: Path, tmp_path: Path) -> None:
    tags = {"format": "zesty-pivot/tags", "version": 1, "pieces": [{"piece": 2, "body": "back", "on_fold": False}]}
    path = tmp_path / "t.ztags"
    path.write_text(json.dumps(tags), encoding="utf-8")
    out = tmp_path / "b.zblock"
    done = call("import", sheet, "--out", out, "--tag", path, "--name", "From the rail")
    assert done.code == 0 and not done.err
    block = block_file.read(out)
    assert block.name == "From the rail"
    assert [piece.fold for piece in block.pieces] == ["centre", None]


def test_a_tag_file_may_say_it_all(sheet: Path, tmp_path: Path) -> None:
    """Front and back called the other way round; a corner put elsewhere."""
    piece = pieces_of(real_block(), Lay())[0]
    x, y = piece.corners["underarm"]
    tags = {
        "format": "zesty-pivot/tags",
        "version": 1,
        "pieces": [{"piece": 1, "body": "back", "corners": {"underarm": [x, y]}}, {"piece": 2, "leave_out": True}],
    }
    path = tmp_path / "t.ztags"
    path.write_text(json.dumps(tags), encoding="utf-8")
    out = tmp_path / "b.zblock"
    call("import", sheet, "--out", out, "--tag", path)
    assert [piece.name for piece in block_file.read(out).pieces] == ["back"]


@pytest.mark.parametrize(
    ("args", "code", "says"),
    [
        (["--unit", "yard"], 2, "is not one of"),
        (["--size", "50"], 0, ""),
        (["--tag", "none.ztags"], 1, "none.ztags"),
    ],
)
def test_wrong_words(sheet: Path, tmp_path: Path, args: list[str], code: int, says: str) -> None:
    done = call("import", sheet, "--out", tmp_path / "b.zblock", *args)
    assert (done.code or 0) in (code, 1 if code == 0 else code)
    assert says in done.err and "Traceback" not in done.err


def test_a_file_without_a_unit(tmp_path: Path) -> None:
    path = tmp_path / "rail.svg"
    path.write_bytes(paper_files.svg([paper_files.lines_of(piece) for piece in pieces_of(real_block(), Lay())], ""))
    asked = call("import", path, "--out", tmp_path / "b.zblock")
    assert asked.code == 1 and "does not say its unit" in asked.err and not (tmp_path / "b.zblock").exists()
    assert call("import", path, "--out", tmp_path / "b.zblock", "--unit", "mm").out
    assert apart(real_block(), block_file.read(tmp_path / "b.zblock")).seam < 0.001


@pytest.mark.parametrize("content", [b"", b"\0\1\2", b"<svg", b"IN;", b"0\nSECTION\n", b"{}"])
def test_junk_is_refused_in_one_line(tmp_path: Path, content: bytes) -> None:
    path = tmp_path / "junk.svg"
    path.write_bytes(content)
    done = call("import", path, "--out", tmp_path / "b.zblock")
    assert done.code == 1
    assert done.err.count("\n") == 1 and done.err.startswith("zesty-pivot: junk.svg: ")


def test_the_schema_of_tags_is_printed() -> None:
    found = json.loads(call("schema", "tags").out)
    assert set(found["properties"]) == {"format", "version", "pieces"}


def test_a_trace_and_a_rulers_sheet_become_blocks(tmp_path: Path) -> None:
    """The demo's own, measured by hand in the test of each; here that the command reads them and says what is unsure."""
    for name, content, bar in ((TRACE, demo_trace(), 0.5), (SHEET, demo_ruler(), 1.2)):
        path, out = tmp_path / name, tmp_path / f"{name}.zblock"
        path.write_bytes(content)
        done = call("import", path, "--out", out)
        assert done.out == f"{out}\n" and done.code == 1 and "the fold is not sure" in done.err
        assert apart(demo_style().block, block_file.read(out)).seam < bar


def test_a_photograph_without_marks_says_what_to_do(tmp_path: Path) -> None:
    path = tmp_path / "bare.png"
    path.write_bytes(cv2.imencode(".png", np.full((600, 800, 3), 128, np.uint8))[1].tobytes())
    done = call("import", path, "--out", tmp_path / "b.zblock")
    assert done.code == 1 and "bare.png" in done.err and "no mark of a printed frame" in done.err and done.err.count("\n") == 1
    assert not (tmp_path / "b.zblock").exists()


@pytest.mark.parametrize(
    ("front", "says"),
    [
        ({"underarm": {"centre_neck": "3 +"}}, "'3 +' is not finished"),
        (
            {"centre_waist": {"centre_neck": "36"}},
            "not held yet: neck point, shoulder tip, underarm and side waist. Measure each",
        ),
        ({"underarm": {"centre_neck": "12"}}, "the front's centre has no length. Measure from the centre neck"),
        ({}, "the front's centre has no length"),
    ],
)
def test_a_sheet_that_makes_no_block_says_why_in_a_line(front: dict, says: str, tmp_path: Path) -> None:  # type: ignore[type-arg]
    path = tmp_path / "half.zruler"
    value = {"format": "zesty-pivot/ruler", "version": 1, "front": {"distances": front}}
    path.write_text(json.dumps(value), encoding="utf-8")
    done = call("import", path, "--out", tmp_path / "b.zblock")
    assert done.code == 1 and says in done.err and done.err.count("\n") == 1 and done.err.count("half.zruler") == 1
    assert not (tmp_path / "b.zblock").exists()


def test_the_schemas_of_what_comes_in_are_printed() -> None:
    for kind in ("tags", "ruler", "digitiser"):
        assert json.loads(call("schema", kind).out)["title"]
