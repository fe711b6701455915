"""Drafted blocks in files and under styles: bytes, old files, the block check with its mends, another body under a recipe."""

from __future__ import annotations

import json
import math

import pytest

from tests.bodies import CHILD, IN, METHODS, PERSON, person
from tests.core.drafting.worked import worked
from zesty_pivot.core.drafting.draft import DraftError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_check import Looked, check_block
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.redraft import changes, redrafted, with_body, with_measures
from zesty_pivot.core.formats.style_file import Style, from_block
from zesty_pivot.core.steps import registry
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.methods import shipped


def lines(method: str, settings: dict | None = None, **change: float) -> dict[str, Looked]:
    made = worked(method, settings, **change)
    return {line.title: line for line in check_block(made.drawn, made.block, "cm")}


def test_the_check_of_a_fitted_block() -> None:
    found = lines("quarter_waist", None, across_chest=(7.5 - 0.75) * 2 * IN, across_back=6.7 * 2 * IN, armhole=16 * IN)
    assert found["Full bust"].says == "99.1 cm = body 96.5 cm + ease 2.5 cm" and found["Full bust"].is_right
    assert found["Balance"].says == "front less back waist length 3.8 cm" and found["Balance"].is_right
    assert found["Bust point"].is_right and found["Shoulders"].is_right and found["Side seams"].is_right
    assert found["Across chest"].is_right  # the drafted width is the measured one
    # The back is drafted 7 in wide at the armhole's middle, above the contour; measured 6.7: a hollow of 1/2 + 3/10 in.
    assert not found["Across back"].is_right
    mend = found["Across back"].mend
    assert mend is not None and mend.id == "hollow_back" and mend.value == f"{0.8 * 2.54:.3f} cm"


def test_the_corner_at_the_shut_side_dart_with_the_intake_that_would_remove_it() -> None:
    """METHODS: i0 = (quarter bust + ease - (fwl - bl) tan a) - (waist/4 + ease). With a length difference of 2 in and a waist
    dart of 1 in the corner is over 20 degrees on a figure with little difference of bust and waist."""
    found = lines("quarter_waist", None, bwl=15.5 * IN, waist=34 * IN)["Side seam at the shut dart"]
    degrees = float(found.says.partition("°")[0])
    assert degrees > 10.0 and not found.is_right
    assert found.mend is not None and (found.mend.id, found.mend.value) == ("side_path", "ruled")
    # i0 with a quarter bust of 9 3/4 and the waist 7 in below the bust line: (9.75 - 7 tan a) - (8.5 + 0.25).
    angle = worked("quarter_waist", None, bwl=15.5 * IN, waist=34 * IN).pattern("front").angle("side")
    smooth = max(0.0, (9.75 - 7 * math.tan(angle)) - 8.75) * 2.54
    assert f"a waist dart of {smooth:.1f} cm would have none" in found.says
    slim = worked("quarter_waist").pattern("front").angle("side")
    told = lines("quarter_waist")["Side seam at the shut dart"].says
    assert f"a waist dart of {((9.75 - 7 * math.tan(slim)) - 7.75) * 2.54:.1f} cm would have none" in told
    ruled = lines("quarter_waist", {"side_path": "ruled"}, bwl=15.5 * IN, waist=34 * IN)
    assert ruled["Side seam at the shut dart"].is_right
    assert "than the conventions ask for" in ruled["Full bust"].says  # what it costs is shown
    assert ruled["Full bust"].mend is not None and ruled["Full bust"].mend.value == "drawn"


@pytest.mark.parametrize(
    ("settings", "title", "mend"),
    [
        ({"drop_front": "1 1/2 in", "true_shoulder": "no"}, "Shoulders", ("true_shoulder", "yes")),
        ({"true_by": "none"}, "Side seams", ("true_by", "dart")),
        ({"axis_add": "1/2 in"}, "Bust point", ("axis_add", "0 cm")),
        ({"waist_from": "straight"}, "Waist", ("waist_from", "contour")),
    ],
)
def test_what_is_wrong_has_its_mend_and_the_mend_works(settings: dict, title: str, mend: tuple) -> None:
    found = lines("quarter_waist", settings)[title]
    assert not found.is_right and found.mend is not None and (found.mend.id, found.mend.value) == mend
    assert lines("quarter_waist", {**settings, found.mend.id: found.mend.value})[title].is_right


@pytest.mark.parametrize("method", METHODS)
def test_a_drafted_block_makes_a_style_that_is_sound(method: str) -> None:
    made = worked(method)
    style = from_block(made.block)
    derived = derive(style)
    assert not derived.has_errors, derived.findings
    assert derived.girths.bust is not None
    assert json.loads(block_file.dump(made.block))["method"] == method


@pytest.mark.parametrize("method", ["quarter_waist", "easy", "quarter_hip"])
def test_all_demo_recipes_run_over_a_drafted_block(method: str) -> None:
    """Each step is done, or refused for the darts that this block has not; nothing fails as a fault of the program."""
    block = worked(method).block
    for style in demo_styles():
        made = derive(style.model_copy(update={"block": block, "measures": {}}))
        for finding in made.findings:
            assert "fault of the program" not in finding.message, (style.name, finding.message)
        for _number, fault in made.derivation.broken:
            assert fault.what and fault.advice, (style.name, str(fault))


@pytest.mark.parametrize(
    "steps",
    [
        [{"do": "neck.shape", "on": "front", "shape": "round"}], [{"do": "neck.shape", "on": "front", "shape": "square"}],
        [{"do": "neck.shape", "on": "front", "shape": "v"}],
        [{"do": "yoke.cut", "on": "front"}, {"do": "yoke.cut", "on": "back"}],
        [{"do": "yoke.cut", "on": "front"}, {"do": "fullness.gather", "on": "front", "edge": "yoke", "ratio": 1.6}],
        [{"do": "fullness.flare", "on": "front"}], [{"do": "trim.peplum", "on": "front"}],
        [{"do": "neck.opening", "on": "back", "kind": "zip", "length": "15 cm"}],
        [{"do": "piece.facing", "on": "front", "kind": "neck", "depth": "4 cm"}], [{"do": "piece.unfold", "on": "front"}],
    ],
)  # fmt: skip
def test_a_childs_block_goes_through_necklines_gathers_and_yokes(steps: list) -> None:
    for settings in ({}, {"ease": "3/8 in"}, {"zip_extension": "0"}):
        style = Style(name="Pavane", block=worked("child", settings).block, steps=tuple(registry.read(step) for step in steps))
        made = derive(style)
        assert not made.derivation.broken, made.derivation.broken
        assert not made.has_errors, made.findings
        assert "bust_point" not in made.pattern.pieces[0].landmarks


def test_blocks_of_older_versions_keep_opening() -> None:
    value = json.loads(block_file.dump(worked("quarter_hip").block))
    for version in (1, 2):
        old = {key: held for key, held in value.items() if key not in ("method", "settings")} | {"version": version}
        for piece in old["pieces"]:
            piece.pop("allowances", None)
        assert block_file.from_value(old, "old").method is None


def test_another_body_under_a_style_lists_what_changed_and_what_broke() -> None:
    block = worked("quarter_waist").block
    steps = [
        {"do": "dart.move", "on": "front", "dart": "side", "to": {"station": "mid_shoulder"}},
        {"do": "piece.true", "on": "front", "edge": "waist"},
    ]
    style = Style(name="Pavane", block=block, steps=tuple(registry.read(step) for step in steps))
    before = derive(style)
    assert not before.derivation.broken
    wider = with_measures(style, {**PERSON, "bust": 40 * IN}, shipped("quarter_waist"))
    assert wider.block.settings == block.settings and wider.block.name == block.name and wider.steps == style.steps
    told = {change.title: change.says for change in changes(before, derive(wider))}
    assert told["Full bust"] == "96.5 cm → 101.6 cm" and told["Finished bust"] == "99.1 cm → 104.1 cm"
    # Lengths that are equal leave no side dart: the step breaks, by name.
    level = with_measures(style, {**PERSON, "bwl": 17.5 * IN}, shipped("quarter_waist"))
    broken = [change for change in changes(before, derive(level)) if change.is_broken]
    assert broken and broken[0].title == "Step 1 broke" and "side" in broken[0].says
    assert changes(before, before) == []


def test_a_block_that_was_not_drafted_keeps_its_shape() -> None:
    style = demo_styles()[0]
    kept = with_measures(style, {"bust": 1000.0}, None)
    assert kept.block is style.block and kept.scope().measures["bust"] == pytest.approx(1000.0)
    with pytest.raises(DraftError, match="was not drafted here"):
        redrafted(style.block, PERSON, None)
    swapped = with_body(style.model_copy(update={"measures": {"bust": "90 cm", "head": "57 cm"}}), worked("two_dart").block)
    assert swapped.measures == {"head": "57 cm"} and swapped.scope().measures["bust"] == pytest.approx(PERSON["bust"])


def test_a_person_without_the_needed_measurement_is_refused_and_nothing_changes() -> None:
    style = from_block(worked("quarter_waist").block)
    with pytest.raises(DraftError, match="missing"):
        with_measures(style, CHILD, shipped("quarter_waist"))
    assert style.block.measurements["bust"] == pytest.approx(person("quarter_waist")["bust"])
