"""Methods as files: what a slip in one is told as, settings, the written instruction, copies of one's own."""

from __future__ import annotations

import json
from typing import Any

import pytest

from tests.bodies import METHODS, PERSON, person
from tests.core.drafting.worked import worked
from zesty_pivot.core.drafting.draft import DraftError, draft
from zesty_pivot.core.drafting.listing import listing
from zesty_pivot.core.drafting.settings import kept
from zesty_pivot.core.errors import FileError, FormulaError
from zesty_pivot.core.formats import block_file, method_file
from zesty_pivot.core.formats.drafted_block import block_of, drafted
from zesty_pivot.core.formats.redraft import redrafted
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.data.methods import all_methods, shipped

# The ids of METHODS, section 9: a contract of the command line and of method files.
IDS = {
    "quarter_waist": "sheet_add neck_width front_neck_depth back_neck_depth half_shoulder_add drop_front drop_back "
    "armhole_rule armhole_depth armhole_from armhole_mid_up hollow_front hollow_back ease_bust ease_waist "
    "intake_front intake_back "
    "front_side_add axis_add contour contour_top bust_from waist_from axis_from back_dart_from back_dart_off waist_setback "
    "side_setback side_dart side_top_min true_by side_path true_shoulder",
    "quarter_hip": "ease_hip contour_below bottom_front bottom_back side_dart side_setback waist_setback side_top_min true_by",
    "easy": "under_bust_levels half_shoulder_add contour back_dart_from back_dart_off waist_setback true_by true_shoulder",
    "child": "drop neck_width front_neck_depth back_neck_depth hollow_front hollow_back ease zip_extension armhole_from",
    "blouse_four_darts": "length length_add side_add waist_add chest_level drop neck_width neck_depth line_up along_10 "
    "side_out side_dart_up armhole_dart_up setback half_waist half_armhole half_cf half_side ext_armhole ext_side "
    "hem_up hollow back_neck_depth back_intake",
    "two_dart": "drop_front drop_back armhole_add neck_width front_neck_depth back_neck_depth ease_bust_front ease_bust_back "
    "ease_waist dart_rule intake share shoulder_at hollow_front hollow_back back_shoulder_dart back_intake shoulder_ease "
    "blade_down back_axis_in back_tip_below_chest",
}


def value(id: str = "quarter_waist") -> dict[str, Any]:
    found: dict[str, Any] = json.loads(method_file.dump(shipped(id)))
    return found


def test_the_ids_are_the_contract() -> None:
    assert [method.id for method in all_methods()] == list(METHODS) == list(IDS)
    for id, parameters in IDS.items():
        known = [parameter.id for parameter in shipped(id).parameters]
        assert set(parameters.split()) <= set(known), set(parameters.split()) - set(known)


@pytest.mark.parametrize("id", METHODS)
def test_a_method_is_written_and_read_back(id: str) -> None:
    assert method_file.from_value(value(id), id) == shipped(id)


@pytest.mark.parametrize("id", METHODS)
def test_every_parameter_at_both_ends_of_its_range_and_at_every_word(id: str) -> None:
    """Each is drawn or refused for a reason that names it or the body; and a length at its end moves something."""
    method, still = shipped(id), block_of(draft(shipped(id), person(id), {}))
    moved = []
    for parameter in method.parameters:
        texts = (
            [choice.word for choice in parameter.choices]
            or [text for text in (parameter.low, parameter.high) if text]
            or ["0.45"]
        )
        for text in texts:
            body = {**person(id), "armhole": 410.0, "across_back": 360.0}
            try:
                made = drafted(method, body, kept(method, {parameter.id: text}, method.units))
            except DraftError as refused:
                assert refused.where.startswith(method.title) and refused.advice
                continue
            if made.pieces != still.pieces:
                moved.append(parameter.id)
    # What changes no seam: the size of the paper, finishing, truings that have nothing to move on this body.
    idle = "sheet_add length_add ext_armhole ext_side armhole_depth side_dart_up true_shoulder true_by true_legs "
    idle += "under_bust_levels lengths_apart side_top_min true_hip bust_from axis_add"
    assert {parameter.id for parameter in method.parameters} - set(moved) <= set(idle.split())


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (
            lambda v: v["operations"][12].update(do="tip = at(half_shoulderr, drop_back)"),
            r"operation 13 \(tip\): no name 'half_shoulderr'",
        ),
        (
            lambda v: v["operations"][12].update(do="tip = att(half_shoulder, drop_back)"),
            r"operation 13 \(tip\): no operation 'att'",
        ),
        (lambda v: v["operations"][12].update(do="at(half_shoulder, drop_back)"), "operation 13: .*names nothing"),
        (
            lambda v: v["operations"][13].update(do="NP = at(half_shoulder, drop_back)"),
            "there is a back.NP already",
        ),
        (lambda v: v["operations"][12].update(when="contour >"), "operation 13 .*not finished"),
        (lambda v: v["pieces"][0]["landmarks"].update(underarm="armpit"), "the front: no name 'armpit'"),
        (lambda v: v["pieces"][0]["edges"][0].update(strokes=["collar"]), "the front: no name 'collar'"),
        (lambda v: v["pieces"][0]["darts"][0].update(pivot="nipple"), "pivot 'nipple' is no landmark"),
        (lambda v: v["parameters"][0].update(default="bust /"), "sheet_add: .*not finished"),
        (lambda v: v["parameters"].append(dict(v["parameters"][0])), "two things are called sheet_add"),
        (lambda v: v["needs"].append("elbow"), "no measurement 'elbow'"),
        (lambda v: v["refusals"][0].update(unless="brust > 3 cm"), "no name 'brust'"),
        (lambda v: v.update(operations=[]), "operations"),
        (lambda v: v["operations"][0].update(code="import os"), "unknown field"),
    ],
)
def test_a_slip_of_the_pen_is_told_with_its_place(change, says: str) -> None:
    held = value()
    change(held)
    with pytest.raises(FileError, match=says) as refused:
        method_file.from_value(held, "mine.zmethod")
    assert "mine.zmethod" in str(refused.value) and "\n" not in str(refused.value)


def test_an_operation_that_cannot_be_done_names_itself_its_formula_and_values() -> None:
    held = value()
    number = next(k for k, each in enumerate(held["operations"], 1) if each["do"].startswith("low ="))
    held["operations"][number - 1]["do"] = "low = arcs(BP, 1 cm; top, 2 cm; near low_mark)"
    method = method_file.from_value(held, "mine")
    with pytest.raises(DraftError) as refused:
        draft(method, PERSON, {})
    said = str(refused.value)
    assert f"operation {number}, front low = arcs(BP, 1 cm; top, 2 cm; near low_mark)" in said
    assert "arcs of 10.0 mm and 20.0 mm, 152.4 mm apart, do not meet" in said
    assert "BP = (9.5, 26.7) cm" in said


def test_settings_are_kept_with_their_unit_and_in_the_order_of_the_parameters() -> None:
    method = shipped("quarter_waist")
    given = {"contour": "2", "side_dart": "Yes", "share_front": 0.4, "neck_width": "bust/12 + 1/2 in", "armhole_depth": "none"}
    assert kept(method, given, "cm") == {
        "neck_width": "bust/12 + 1/2 in", "share_front": "0.4", "contour": "2 cm", "side_dart": "yes",
    }  # fmt: skip
    for wrong, says in (
        ({"contuor": "1"}, "Did you mean 'contour'"),
        ({"contour": "wide"}, "no measurement 'wide'"),
        ({"side_dart": "perhaps"}, "raised, yes"),
    ):
        with pytest.raises(FormulaError, match=says):
            draft(method, PERSON, kept(method, wrong, "cm"))


def test_the_instruction_has_the_arithmetic_of_these_measurements() -> None:
    """A bust of 98 cm: the chest line is 98/6 + 3.8 = 20.1 cm below the dropped shoulder."""
    made = worked("quarter_waist", None, bust=980.0)
    lines = [made.drawn.instruction(done, "cm") for done in made.drawn.shown]
    assert "Depth of the armhole: 98/6 + 3.8 = 20.1 cm" in lines
    # 2.5 + 20.1 would read 22.6, and the line lies at 22.7: a decimal more, so that the sum comes out on paper.
    assert "Chest line below the top line: 2.54 + 20.14 = 22.68 cm" in lines
    assert any(line.startswith("Underarm: 98/4 + 0.6 = 25.1 cm from CB, 22.7 cm below the top line") for line in lines)
    assert any("an arc of 15.6 cm round bust point (" in line and "moved by" in line for line in lines)
    other = worked("quarter_waist").drawn
    assert "Depth of the armhole: 38/6 + 1 1/2 = 7 13/16 in" in [other.instruction(done, "in") for done in other.shown]


@pytest.mark.parametrize("id", METHODS)
def test_every_instruction_can_be_read_and_every_point_is_called(id: str) -> None:
    made = worked(id)
    labels = [made.drawn.label(done) for done in made.drawn.shown if done.kind == "point"]
    assert all(labels) and len(set(labels)) >= len(labels) - 3  # a mark and what it is trued to may share the practice's number
    for done in made.drawn.shown:
        for unit in ("cm", "in", "mm"):
            said = made.drawn.instruction(done, unit)
            assert (
                said[0].isupper() and "Stroke" not in said and "array" not in said and "_" not in said and "()" not in said
            ), said


def test_the_listing_says_everything_of_a_parameter() -> None:
    found = {method["id"]: method for method in listing(all_methods())}
    contour = next(each for each in found["quarter_waist"]["parameters"] if each["id"] == "contour")
    assert contour["default"] == "3/4 in" and contour["high"] == "1 1/2 in" and contour["why"] and contour["schools"]
    assert set(found["easy"]["needs"]) <= set(MEASUREMENTS)


def test_a_copy_of_ones_own_travels_in_the_block(tmp_path) -> None:
    held = value("easy")
    held.update(id="my_easy", title="My easy draft")
    (tmp_path / "my.zmethod").write_bytes(method_file.dump(method_file.from_value(held, "my")))
    (tmp_path / "broken.zmethod").write_text("{")
    mine = next(method for method in all_methods(tmp_path) if method.id == "my_easy")
    assert len(method_file.in_folder(tmp_path)[1]) == 1
    block = drafted(mine, person("easy"), {}, is_own=True)
    again = block_file.from_value(json.loads(block_file.dump(block)), "again")
    wider = {**person("easy"), "bust": 1000.0}
    assert redrafted(again, wider, None).pieces == drafted(mine, wider, {}).pieces
    theirs = block_of(draft(shipped("easy"), person("easy"), {}))
    with pytest.raises(DraftError, match="'easy' of this block is not here"):
        redrafted(theirs, wider, None)
    assert method_file.chosen(str(tmp_path / "my.zmethod"), ()).id == "my_easy"
    with pytest.raises(FileError, match="Did you mean 'easy'"):
        method_file.chosen("esy", all_methods())
