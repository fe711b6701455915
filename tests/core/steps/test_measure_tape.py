"""Tapes against figures of one's own: sums of seams, Pythagoras on the drawn points, the cosine rule across a shut dart."""

from __future__ import annotations

import json
import math
from typing import Any

import numpy as np
import pytest

from tests.samples import hip_block, move, real_block
from tests.sheets import lines
from zesty_pivot.core.formats import report, style_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.recipe.hand import hand_sheet
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.measure_tape import formula_name

Value = dict[str, Any]
CF, CB = {"station": "centre_neck"}, {"on": "back", "station": "centre_neck"}


def tape(start: Value, stop: Value, way: str = "straight", **more: Any) -> Value:
    return {"do": "measure.tape", "on": "front", "from": start, "to": stop, "way": way, **more}


def made(*steps: Value, block: Any = None) -> Derived:
    return derive(Style(name="T", block=block or real_block(), steps=tuple(registry.read(step) for step in steps)))


def shows(derived: Derived, number: int = -1) -> float:
    assert not derived.derivation.broken, derived.derivation.broken
    return derived.pattern.tapes[number].mm


def sewn(derived: Derived, piece: str, edge: str) -> float:
    return sum(run.path.length for run in derived.pattern.piece(piece).runs if run.edge == edge)


@pytest.mark.parametrize("block", [real_block, hip_block])
def test_half_the_neckline_goes_over_the_shoulder(block: Any) -> None:
    derived = made({"do": "neck.shape", "on": "front", "shape": "round", "depth": "11 cm"}, tape(CF, CB, "seam"), block=block())
    whole = sewn(derived, "front", "neckline") + sewn(derived, "back", "neckline")
    assert shows(derived) == pytest.approx(whole, abs=1e-9)


def test_along_the_waist_with_the_dart_shut_and_open() -> None:
    ends = {"station": "side_waist"}, {"station": "centre_waist"}
    derived = made(tape(*ends, "seam"), tape(*ends, "seam", darts="open"))
    front = derived.pattern.piece("front")
    assert shows(derived, 0) == pytest.approx(sewn(derived, "front", "waist"), abs=1e-9)
    assert shows(derived, 1) - shows(derived, 0) == pytest.approx(math.dist(*front.mouth("waist")), abs=1e-9)


def test_straight_level_and_down_by_pythagoras() -> None:
    ends = {"landmark": "neck_point"}, {"landmark": "bust_point"}
    derived = made(tape(*ends), tape(*ends, "level"), tape(*ends, "down"), tape(*ends, "grain"))
    front = derived.pattern.piece("front")
    x, y = np.array(front.landmarks["bust_point"]) - front.corner("neck_point")
    assert [shows(derived, k) for k in range(4)] == pytest.approx([math.hypot(x, y), abs(x), abs(y), abs(x)], abs=1e-9)


def test_straight_across_a_shut_dart_by_the_cosine_rule() -> None:
    """From CF at the waist to the side: the ends and the sewn point make a triangle whose angle there is less by the dart's."""
    ends = {"station": "centre_waist"}, {"station": "side_waist"}
    derived = made(tape(*ends), tape(*ends, darts="open"))
    front, (dart,) = derived.pattern.piece("front"), [d for d in derived.pieces[0].darts if d.dart == "waist"]
    one, two, pin = front.corner("centre_waist"), front.corner("side_waist"), dart.point
    legs = [np.array(end) - pin for end in front.mouth("waist")]
    a, b = np.array(one) - pin, np.array(two) - pin
    angles = [math.acos(float(u @ v) / (math.hypot(*u) * math.hypot(*v))) for u, v in ((a, b), tuple(legs))]
    p, q, left = math.hypot(*a), math.hypot(*b), angles[0] - angles[1]
    assert shows(derived, 0) == pytest.approx(math.sqrt(p * p + q * q - 2.0 * p * q * math.cos(left)), abs=1e-6)
    assert shows(derived, 1) == pytest.approx(math.dist(one, two), abs=1e-9)


def test_it_measures_at_its_place_and_follows_what_is_before_it() -> None:
    """The mouth of the shoulder dart, before and after half of it is moved: by the chord of half its angle."""
    mouth = {"dart": "shoulder", "part": "first"}, {"dart": "shoulder", "part": "second"}
    before = made(tape(*mouth), move("shoulder", "waist", share="50%"), tape(*mouth))
    front = before.derivation.block.piece("front")
    whole, r = math.dist(*front.mouth("shoulder")), front.legs("shoulder")
    half = math.sqrt(r[0] ** 2 + r[1] ** 2 - 2.0 * r[0] * r[1] * math.cos(front.angle("shoulder") / 2.0))
    assert [shows(before, 0), shows(before, 1)] == pytest.approx([whole, half], abs=1e-6)


def test_a_named_tape_is_used_by_the_formulas_after_it() -> None:
    neck = {"do": "neck.shape", "on": "front", "shape": "square", "depth": "half_neckline / 2", "width": "9 cm"}
    derived = made(tape(CF, CB, "seam", name="Half neckline"), neck)
    block, front = derived.derivation.block.piece("front"), derived.pattern.piece("front")
    down = float(front.corner("centre_neck")[1] - block.corner("neck_point")[1])
    assert down == pytest.approx(derived.pattern.tapes[0].mm / 2.0, abs=0.01)
    # Before the tape nothing has that name, and the sentence says what has.
    (fault,) = made(neck, tape(CF, CB, "seam", name="Half neckline")).derivation.broken
    assert "half_neckline" in str(fault[1])


def test_names_in_formulas() -> None:
    assert [formula_name(name) for name in ("Half neckline", "waist", "neckline", "2 cm in", "¡…!")] == [
        "half_neckline", "tape_waist", "tape_neckline", "tape_2_cm_in", "",
    ]  # fmt: skip
    twice = made(tape(CF, CB, "seam", name="my neck"), tape(CF, CB, "seam", name="my neck"))
    assert [one.key for one in twice.pattern.tapes] == ["my_neck", "my_neck_2"]


def test_a_tape_that_holds_tells_when_it_does_not() -> None:
    wider = {"do": "neck.shape", "on": "front", "shape": "round", "width": "10 cm", "depth": "10 cm"}
    held = made(tape(CF, CB, "seam", name="my neck", hold="20.6 cm"))  # it is 20.56
    assert not [found for found in held.findings if found.check == "tape_holds"]
    lost = made(wider, tape(CF, CB, "seam", name="my neck", hold="20.6 cm"))
    (found,) = [found for found in lost.findings if found.check == "tape_holds"]
    assert "20.6 cm" in found.message and found.value == pytest.approx(shows(lost)) and found.limit == pytest.approx(206.0)


def test_it_is_in_the_report_the_file_and_on_the_sheet() -> None:
    bust = tape({"landmark": "neck_point"}, {"landmark": "bust_point"}, name="to the bust point", on_sheet=True)
    derived = made(bust, tape(CF, CB, "seam", name="my neck", on_sheet=True))
    rows = json.loads(report.dump(report.report(derived)))["tapes"]
    assert [(row["step"], row["formula"]) for row in rows] == [(1, "to_the_bust_point"), (2, "my_neck")]
    assert [row["mm"] for row in rows] == [one.mm for one in derived.pattern.tapes]
    opened = style_file.from_value(json.loads(style_file.dump(derived.style)), "t.zpiv")
    assert opened == derived.style and [one.mm for one in derive(opened).pattern.tapes] == [row["mm"] for row in rows]
    (front, *_rest) = derived.pieces
    (drawn,) = lines(front)["tape.to_the_bust_point.0"]
    assert abs(drawn.point(0.0) - drawn.point(1.0)) == pytest.approx(rows[0]["mm"], abs=0.01)
    assert any("to the bust point 26.9 cm" in text.text for text in front.texts)


def test_tapes_without_a_name_are_told_apart_on_the_sheet() -> None:
    bust = {"landmark": "bust_point"}
    derived = made(
        tape({"landmark": "neck_point"}, bust, on_sheet=True), tape({"station": "shoulder_tip"}, bust, on_sheet=True)
    )
    drawn = {id: path for id, (path, *more) in lines(derived.pieces[0]).items() if id.startswith("tape.") and not more}
    assert len(drawn) == 2
    shown = sorted(abs(path.point(0.0) - path.point(1.0)) for path in drawn.values())
    assert shown == pytest.approx(sorted(one.mm for one in derived.pattern.tapes), abs=0.01) and shown[0] < shown[1] - 1.0


def test_what_was_measured_and_is_so_no_more_is_not_drawn() -> None:
    bust = tape({"station": "mid_shoulder"}, {"landmark": "bust_point"}, name="bust", on_sheet=True)
    derived = made(bust, move("shoulder", "waist"), {"do": "neck.shape", "on": "front", "shape": "square", "width": "13 cm"})
    assert [found.severity for found in derived.findings if found.check == "tape_holds"] == ["remark"]
    assert not [id for id in lines(derived.pieces[0]) if id.startswith("tape")]


@pytest.mark.parametrize(
    ("step", "says"),
    [
        (tape({"landmark": "bust_point"}, CF, "seam"), "begins and ends on an edge"),
        (tape(CF, CB), "stays on one piece"),
        (tape({"landmark": "bustpoint"}, CF), "bust_point"),
        (tape({"station": "centre_waist"}, CB, "seam"), "no edge leads"),
        (tape({"dart": "french", "part": "first"}, CF), "french"),
    ],
)
def test_what_cannot_be_measured_is_said(step: Value, says: str) -> None:
    ((_number, fault),) = made(step).derivation.broken
    assert says in str(fault), str(fault)


def test_it_is_written_for_the_hand() -> None:
    derived = made(tape(CF, CB, "seam", name="my neck"))
    text = " ".join(
        line.text for section in hand_sheet(derived.derivation, derived.style.scope(), "pivot") for line in section.lines
    )
    assert "it shows 20.6 cm" in text and "centre at the neck" in text
