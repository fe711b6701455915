"""Darts are called by where they open now, and recipes may name them so."""

from __future__ import annotations

from typing import Any

import pytest

from tests.drafted import ROOM, room_block
from tests.samples import hip_pattern, move, worked
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece import called, dart_words
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe.hand import hand_sheet
from zesty_pivot.core.steps import registry

PLACES = {
    "centre_neck": "centre neck", "mid_neck": "neck", "neck_point": "neck point", "mid_shoulder": "shoulder",
    "shoulder_tip": "shoulder tip", "mid_armhole": "mid armhole", "side_bust": "side", "french": "French",
    "side_waist": "side waist", "centre_waist": "centre waist", "waist": "waist", "centre_bust": "centre front",
}  # fmt: skip


def upper(block: str) -> str:
    return "shoulder" if block.startswith("two") else "side"


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("station", PLACES)
def test_a_dart_is_called_by_where_it_opens(block: str, station: str) -> None:
    pattern = block_file.pattern(room_block(block))
    name = "waist" if station != "waist" else upper(block)
    merged = {"do": "dart.merge", "on": "front", "darts": [name, upper(block) if name == "waist" else "waist"]}
    piece = worked([merged, move(name, station)], pattern).pattern.piece("front")
    assert [dart_words(piece, dart.id) for dart in piece.darts] == [PLACES[station]]


def test_two_at_one_place_have_a_number() -> None:
    piece = worked([move("waist", "side_bust", "40%")]).pattern.piece("front")
    assert dart_words(piece, "side_bust") == "side"
    steps: list[dict[str, Any]] = [{"do": "dart.fan", "on": "front", "dart": "waist", "count": 3, "spacing": "2 cm"}]
    piece = worked(steps).pattern.piece("front")
    assert [called(piece, dart.id) for dart in piece.darts if dart.id != "shoulder"] == ["waist", "waist-2", "waist-3"]
    assert dart_words(piece, piece.darts[-1].id) == "third waist"


def test_a_whole_front_names_its_sides() -> None:
    whole = worked([move("waist", "mid_armhole"), {"do": "piece.unfold", "on": "front"}]).pattern.piece("front")
    assert {dart_words(whole, dart.id) for dart in whole.darts} == {
        "left shoulder", "left mid armhole", "right shoulder", "right mid armhole",
    }  # fmt: skip
    back = worked([move("waist", "french", on="back"), {"do": "piece.unfold", "on": "back"}]).pattern.piece("back")
    assert "left French" in {dart_words(back, dart.id) for dart in back.darts}


def test_low_on_a_hip_length_side_is_french_above_the_waist() -> None:
    pattern = hip_pattern()
    dart = pattern.piece("front").darts[0].id
    for station, words in (("side_bust", "side"), ("french", "French")):
        piece = worked([move(dart, station)], pattern).pattern.piece("front")
        assert dart_words(piece, dart) == words


@pytest.mark.parametrize("name", ["french", "waist"])
def test_a_recipe_names_a_dart_by_station_or_id(name: str) -> None:
    by = worked([move("waist", "french"), move(name, "mid_armhole")])
    assert by.pattern == worked([move("waist", "french"), move("waist", "mid_armhole")]).pattern
    assert by.said(2) == "French dart to mid armhole"


def test_an_id_comes_before_a_station() -> None:
    """The dart whose id is `waist` opens at the side, another one at the waist: old recipes mean the id."""
    steps = [move("waist", "side_bust"), move("shoulder", "waist"), move("waist", "mid_neck")]
    piece = worked(steps).pattern.piece("front")
    assert {dart.id: called(piece, dart.id) for dart in piece.darts} == {"waist": "neck", "shoulder": "waist"}


def test_every_step_that_names_darts_takes_a_station() -> None:
    first = move("waist", "french")
    for step in (
        {"do": "dart.merge", "on": "front", "darts": ["french", "mid_shoulder"]},
        {"do": "dart.equalise", "on": "front", "darts": ["french", "mid_shoulder"]},
        {"do": "dart.split", "on": "front", "dart": "french", "parts": [{"to": {"station": "mid_neck"}, "share": "50%"}]},
        {"do": "dart.use", "on": "front", "dart": "french", "as": "gathers"},
        {"do": "dart.shape", "on": "front", "dart": "french", "bow": "2 mm"},
        {"do": "dart.fan", "on": "front", "dart": "french", "count": 2, "spacing": "2 cm"},
        {"do": "dart.park", "on": "front", "darts": ["french"], "to": {"station": "centre_neck"}},
        {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"dart": "french"}},
        {"do": "neck.gape", "on": "front", "into": "french", "amount": "1 cm"},
    ):
        ids = {key: _with_id(value) for key, value in step.items()}
        assert worked([first, step]).pattern == worked([first, ids]).pattern, step


def _with_id(value: Any) -> Any:
    if isinstance(value, list):
        return [_with_id(part) for part in value]
    if isinstance(value, dict):
        return {key: _with_id(part) for key, part in value.items()}
    return {"french": "waist", "mid_shoulder": "shoulder"}.get(value, value) if isinstance(value, str) else value


@pytest.mark.parametrize("block", ROOM)
def test_findings_hand_sheets_and_finish_call_it_so(block: str) -> None:
    steps = tuple(registry.read(s) for s in (
        {"do": "dart.merge", "on": "front", "darts": ["waist", upper(block)]}, move("waist", "french")
    ))  # fmt: skip
    finish = Finish.model_validate({"darts": {"front.french": {"setback": "4 mm"}}})
    found = derive(Style(block=room_block(block), steps=steps, finish=finish))
    told = [f.message for f in found.findings if f.check == "dart_point"]
    assert told == ["the French dart is sewn to 0.40 cm from the bust point"]
    sheet = " ".join(line.text for part in hand_sheet(found.derivation, Scope("cm"), "pivot") for line in part.lines)
    assert "The mouth of the French dart now measures" in sheet
    cut_away = Style(
        block=room_block(block), steps=steps, finish=Finish.model_validate({"darts": {"front.french": {"end": "cap"}}})
    )
    (sewn,) = (dart for dart in derive(cut_away).pieces[0].darts)
    assert sewn.cap is not None or "no cap" in sewn.note
