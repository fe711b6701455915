"""The second half of a hand sheet: figures against the finished piece, directions by own arithmetic."""

from __future__ import annotations

import math

import numpy as np
import pytest

from tests.drafted import ROOM, room_block
from tests.samples import move
from tests.strips import mm
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.recipe.hand import Section
from zesty_pivot.core.steps import registry


def sections(block: str, *steps: dict, **finish: object) -> dict[str, Section]:  # type: ignore[type-arg]
    style = Style(
        name="Test",
        block=room_block(block),
        steps=tuple(registry.read(step) for step in steps),
        units="cm",
        finish=Finish.model_validate(finish),
    )
    return {part.title: part for part in derive(style).by_hand("pivot")}


@pytest.mark.parametrize("block", ROOM)
def test_darts_are_drawn_folded_traced_and_pricked(block: str) -> None:
    found = sections(block)["Front: to be cut"]
    kinds = [line.do for line in found.lines]
    assert kinds.count("drill") == 2 and {"allowances", "notches", "centre", "bust_point", "label"} <= set(kinds)
    style = Style(name="Test", block=room_block(block), units="cm")
    front = next(piece for piece in derive(style).pieces if piece.name == "front")
    legs = [mm(line.figures["leg"]) for line in found.lines if "leg" in line.figures]
    own = [np.mean([math.dist(end, dart.point) for end in dart.mouth]) for dart in front.darts]
    assert legs == [pytest.approx(leg, abs=0.51) for leg in own]
    way = {line.figures["dart"]: line.figures["way"] for line in found.lines if line.do == "trace_cap"}
    assert way.get("waist", "to the centre") == "to the centre" and way.get("side", "down") == "down"
    assert way.get("shoulder", "to the centre") == "to the centre"


def test_a_wide_dart_is_cut_away_inside() -> None:
    steps = [move("side", "french"), move("waist", "french")]
    found = sections("side and waist 91", *steps, allowance="industry_metric")["Front: to be cut"]
    (line,) = [line for line in found.lines if line.do == "cut_inside"]
    assert mm(line.figures["inside"]) == pytest.approx(10.0)
    assert not [line for line in found.lines if line.do == "trace_cap"]


@pytest.mark.parametrize("block", ["two darts 93", "drafted 124"])
def test_every_allowance_is_named_once(block: str) -> None:
    for title in ("Front: to be cut", "Back: to be cut"):
        (line,) = [line for line in sections(block)[title].lines if line.do == "allowances"]
        for edge in ("neckline", "armhole", "shoulder", "side seam", "waist"):
            assert line.text.count(edge) == 1


def test_inches_are_fractions() -> None:
    style = Style(name="Test", block=room_block("drafted 88"), units="in", steps=tuple(registry.read(step) for step in (
        {"do": "neck.shape", "on": "front", "other": "back"}, {"do": "line.princess", "on": "front"},
        {"do": "piece.facing", "on": "front", "other": "back"},
    )))  # fmt: skip
    text = " ".join(line.text for part in derive(style).by_hand("slash") for line in part.lines)
    assert " in" in text and " cm" not in text and " mm" not in text
    assert not [
        word for word, after in zip(text.split(), text.split()[1:], strict=False) if after.startswith("in") and "." in word
    ]
