"""Files of earlier versions open, and give what they gave."""

import json
from pathlib import Path
from typing import Any

import pytest

from tests.samples import REAL_BLOCK, hip_value, move, real_value, style
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file, style_file, svg
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.piece import Body, Side

CONTOUR = [
    {"do": "line.contour", "on": "back"},
    {"do": "line.princess", "on": "back", "mend": "bottom"},
]


def as_version_1(value: dict[str, Any]) -> dict[str, Any]:
    """A file's JSON as it was written before: no body on its pieces."""
    block = value.get("block", value)
    block["version"] = value["version"] = 1
    for piece in block["pieces"]:
        piece.pop("body", None)
    return value


def test_a_block_of_version_1_knows_its_front_and_back() -> None:
    assert json.loads(REAL_BLOCK.read_text())["version"] == 1  # as it was handed in
    front, back = block_file.pattern(block_file.read(REAL_BLOCK)).pieces
    assert (front.body, back.body) == (Body.FRONT, Body.BACK)
    value = as_version_1(real_value())
    value["pieces"][0]["name"], value["pieces"][1]["name"] = "lining", "back_bodice"
    assert [piece.body for piece in block_file.from_value(value, "old").pieces] == [Body.NONE, Body.BACK]


def test_a_block_of_version_2_or_later_says_it_or_is_refused() -> None:
    value = block_file.read(REAL_BLOCK).model_dump(mode="json", exclude_none=True)
    assert value["version"] == 3 and [piece["body"] for piece in value["pieces"]] == ["front", "back"]
    value["pieces"][1].pop("body")
    with pytest.raises(FileError, match=r"pieces\[1\].body"):
        block_file.from_value(value, "new")


def test_a_style_of_version_1_gives_the_same_sheet(tmp_path: Path) -> None:
    now = style(CONTOUR)
    old = as_version_1(json.loads(style_file.dump(now)))
    (tmp_path / "old.zpiv").write_text(json.dumps(old))
    opened = style_file.read(tmp_path / "old.zpiv")
    assert opened == now and json.loads(style_file.dump(opened))["version"] == 6
    assert svg.sheet_svg(derive(opened).sheet, "x") == svg.sheet_svg(derive(now).sheet, "x")


def test_a_style_of_version_5_is_made_in_no_sizes_yet() -> None:
    now = style(CONTOUR)
    old = {**json.loads(style_file.dump(now)), "version": 5}
    assert "sizes" not in old or not old.pop("sizes")
    assert style_file.from_value(old, "old") == now
    made = now.model_copy(update={"sizes": ("regular · 38", "tall · 44")})
    assert style_file.from_value(json.loads(style_file.dump(made)), "new").sizes == ("regular · 38", "tall · 44")


def test_a_style_of_version_4_has_no_pages_yet() -> None:
    now = style(CONTOUR)
    old = {**json.loads(style_file.dump(now)), "version": 4}
    opened = style_file.from_value(old, "old")
    assert opened == now and opened.pages == ()


def test_the_finish_of_version_2_named_darts_by_their_ids() -> None:
    """The dart called `waist` in the file opens at the French place: what was decided for it is still decided for it."""
    now = style([move("waist", "french"), move("shoulder", "waist")])
    old = {**json.loads(style_file.dump(now)), "version": 2}
    old["finish"] = {
        "darts": {"front.waist": {"end": "cut_away"}, "front.shoulder": {"setback": "3 cm"}, "front.gone": {"end": "cap"}}
    }
    opened = style_file.from_value(old, "old")
    assert set(opened.finish.darts) == {"front.french", "front.waist", "front.gone"}
    sewn = {dart.dart: dart for dart in derive(opened).pieces[0].darts}
    assert sewn["waist"].cap is None and sewn["shoulder"].setback_mm == 30.0
    assert style_file.from_value(json.loads(style_file.dump(opened)), "again") == opened


def test_a_fish_eye_keeps_the_side_that_stood_in_its_name() -> None:
    steps = [
        {"do": "piece.unfold", "on": "front"},
        {"do": "dart.fisheye", "on": "front", "dart": "extra.right", "axis": "5 cm"},
    ]
    value = {"format": "zesty-pivot/style", "version": 1, "block": as_version_1(hip_value()), "steps": steps}
    opened = style_file.from_value(value, "old")
    assert [getattr(step, "side", None) for step in opened.steps] == [None, "right"]
    piece = derive(opened).pattern.piece("front")
    made = next(eye for eye in piece.fisheyes if eye.id == "extra.right")
    assert piece.sides.of(made.id) is Side.RIGHT and made.top[0] < 0.0


@pytest.mark.parametrize("odd", [{"pieces": 3}, {"pieces": [3, {"name": 4}]}])
def test_what_is_no_block_is_told_by_the_reader(odd: dict[str, Any]) -> None:
    with pytest.raises(FileError, match="pieces"):
        block_file.from_value({**as_version_1(real_value()), **odd}, "odd")
