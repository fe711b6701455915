"""The rules about necklines, each seen to speak and to be silent."""

from __future__ import annotations

from dataclasses import replace

import pytest

from tests.core.steps.necks import made
from tests.samples import real_block, real_pattern
from zesty_pivot.core.checks.base import Finding, Look, Severity
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.necklines.gape import shares
from zesty_pivot.core.piece import Measured, Pattern
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def look(pattern: Pattern, finish: Finish | None = None, **measures: float) -> Look:
    scope = Scope("cm", {**real_block().measurements, **measures})
    return Look(pattern, real_pattern(), finish or Finish(), scope, "Test")


def said(check: str, pattern: Pattern, finish: Finish | None = None, **measures: float) -> list[Finding]:
    return [finding for finding in findings(look(pattern, finish, **measures)) if finding.check == check]


def after(*steps: dict) -> Pattern:  # type: ignore[type-arg]
    derivation = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope())
    assert not derivation.broken, derivation.broken
    return derivation.pattern


def test_the_head_must_pass() -> None:
    """Check 6. 56 to 58 cm for women: from memory of size tables, common practice, no source."""
    (finding,) = said("neck_opening", real_pattern())
    assert finding.severity is Severity.WARNING and finding.limit == 570.0 and "a usual head of 57.0 cm" in finding.message
    assert finding.mend is not None and finding.mend.step is not None
    mended = after(finding.mend.step)
    assert not said("neck_opening", mended)
    assert not said("neck_opening", made(real_pattern(), "canoe"))
    (tight,) = said("neck_opening", made(real_pattern(), "canoe"), head=800.0)
    assert "the head of 80.0 cm" in tight.message
    assert not said("neck_opening", real_pattern(), Finish(stretch="60%"))


def test_cords_are_cautioned_against_for_children() -> None:
    (finding,) = said("neck_opening", made(real_pattern(), "canoe"), bust=640.0)
    assert "strangling hazard" in finding.message and "rules of the place" in finding.advice and "measure it" in finding.advice
    assert "measure it" not in said("neck_opening", made(real_pattern(), "canoe"), bust=640.0, head=520.0)[0].advice
    assert not said("neck_opening", made(real_pattern(), "canoe"), bust=900.0)


def test_a_neckline_that_is_wide_and_deep_may_slip() -> None:
    """Check 7; the limits are common practice, no source."""
    assert not said("neck_depth", made(real_pattern(), "v", depth="17 cm")) and not said("neck_depth", real_pattern())
    wide = said("neck_depth", made(real_pattern(), "square", width="16 cm", depth="19 cm"))
    assert ["wide and deep" in finding.message for finding in wide] == [True]


def test_a_narrow_strap_slips() -> None:
    """Under 3 cm slips: common practice, no source."""
    found = said("neck_depth", made(real_pattern(), "rectangle", width="1 in", width_from="shoulder_tip"))
    assert [finding.piece for finding in found if "a strap this narrow slips" in finding.message] == ["front", "back"]
    assert not said("neck_depth", made(real_pattern(), "rectangle", width="6 cm", width_from="shoulder_tip"))


def test_equal_shoulders_of_an_unfolded_front_are_told_once() -> None:
    narrow = {"do": "neck.shape", "on": "front", "shape": "rectangle", "width": "1 in", "width_from": "shoulder_tip"}
    for steps, count in (((narrow, {"do": "piece.unfold", "on": "front"}), 1), ((narrow,), 1)):
        found = [one for one in said("neck_depth", after(*steps)) if one.piece == "front" and "a strap" in one.message]
        assert len(found) == count


def test_front_and_back_begin_at_the_same_place() -> None:
    """Check 8."""
    alone = after({"do": "neck.shape", "on": "front", "shape": "v", "width": "11 cm", "other": ""})
    (finding,) = said("neck_width", alone)
    assert (
        finding.piece == "front" and finding.value == pytest.approx(34.0, abs=1.0) and "more of the shoulder" in finding.message
    )
    for shape in ("v", "canoe", "asymmetric", "camisole", "raised"):
        assert not said("neck_width", made(real_pattern(), shape)), shape


def test_the_measured_length_is_watched() -> None:
    pattern = made(real_pattern(), "round")
    (kept,) = pattern.measured
    changed = replace(pattern, measured=(Measured("neckline", kept.mm - 5.0),))
    (finding,) = said("neck_width", changed)
    assert "5.0 mm longer than it was measured" in finding.message.replace("0.50 cm", "5.0 mm")


def test_the_armhole_against_block_and_arm() -> None:
    """Check 13."""
    lowered = after({"do": "trim.armhole", "on": "front", "lower": "4 cm"})
    (told,) = said("armhole_length", lowered)
    assert told.severity is Severity.REMARK and "longer than the block's" in told.message
    (tight,) = said("armhole_length", real_pattern(), armhole=500.0)
    assert tight.severity is Severity.WARNING and "arm girth of 50.0 cm" in tight.message
    assert not said("armhole_length", real_pattern()) and not said("armhole_length", real_pattern(), armhole=400.0)
    assert not said("armhole_length", made(real_pattern(), "off_shoulder"))


def test_gape_is_suggested_and_never_done() -> None:
    pattern = made(real_pattern(), "v")
    (finding,) = said("neck_gape", pattern)
    assert finding.severity is Severity.REMARK and finding.mend is not None and finding.mend.step is not None
    step = registry.read(finding.mend.step)
    mended = after({"do": "neck.shape", "on": "front", "shape": "v"}, registry.dump(step))
    assert not said("neck_gape", mended) and not said("neck_gape", real_pattern())


def test_a_facing_that_was_left_behind_is_told() -> None:
    """A step that no facing can be traced after: the one that there is stays, and is found."""
    shape, facing = {"do": "neck.shape", "on": "front", "shape": "round"}, {"do": "piece.facing", "on": "front"}
    wide = {"do": "neck.shape", "on": "front", "shape": "canoe"}
    assert not said("facing_meets", after(shape, facing))
    (finding, *_more) = said("facing_meets", after(shape, facing, wide))
    assert "off the edge that it follows" in finding.message
    gone = after(shape, facing, {"do": "drape.cowl_armhole", "on": "front"})
    assert any("no longer there" in finding.message for finding in said("facing_meets", gone))


def test_points_at_the_centre_are_meant() -> None:
    for shape in ("v", "sweetheart", "scallop", "vest"):
        assert not [f for f in said("corners", made(real_pattern(), shape)) if "leaves the centre" in f.message], shape


def test_a_dart_opened_in_the_neckline_makes_it_no_deeper() -> None:
    """Regression: paper swung away beyond a mouth was taken for a wider and deeper neckline."""
    shape = {"do": "neck.shape", "on": "front", "shape": "round"}
    plain = after(shape)
    opened = after(shape, {"do": "dart.merge", "on": "front", "darts": ["waist", "shoulder"], "to": {"station": "mid_neck"}})
    block = real_pattern().piece("front")
    assert shares(opened.piece("front"), block) == pytest.approx(shares(plain.piece("front"), block), abs=1e-9)
    assert not said("neck_depth", opened)
