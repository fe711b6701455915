"""Findings accepted with a reason: told with it, and back when they get worse."""

from __future__ import annotations

import json
from dataclasses import replace

import pytest

from tests.samples import real_block
from zesty_pivot.core.checks.base import Finding
from zesty_pivot.core.formats import accepted, report, style_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry


def deep(depth: str, *kept: accepted.Accepted) -> Derived:
    step = registry.read({"do": "neck.shape", "on": "front", "shape": "round", "depth": depth, "width": "9 cm"})
    return derive(Style(name="T", block=real_block(), steps=(step,), accepted=kept))


def opening(derived: Derived) -> Finding:
    (found,) = [finding for finding in derived.findings if finding.check == "neck_opening"]
    return found


def test_it_is_told_with_its_reason_until_it_gets_worse() -> None:
    kept = accepted.accept(opening(deep("9 cm")), "a zip at CB")
    assert not opening(deep("9 cm")).accepted
    same, better, worse = (opening(deep(depth, kept)) for depth in ("9 cm", "9.5 cm", "8.5 cm"))
    assert same.accepted == better.accepted == "a zip at CB" and not worse.accepted
    assert worse.value < same.value < better.value < same.limit  # so it is: less deep is tighter for the head


def test_accepted_ones_come_last_and_stand_in_report_and_file() -> None:
    plain = deep("9 cm")
    first = plain.findings[0]
    derived = deep("9 cm", accepted.accept(first, "seen"))
    alike = [found for found in derived.findings if found.severity is first.severity]
    assert alike[-1].accepted == "seen" and not any(found.accepted for found in alike[:-1])
    rows = json.loads(report.dump(report.report(derived)))["findings"]
    assert [row["accepted"] for row in rows].count("seen") == 1
    opened = style_file.from_value(json.loads(style_file.dump(derived.style)), "t.zpiv")
    assert opened == derived.style


def test_an_accepted_error_does_not_fail_the_check_and_a_broken_step_cannot_be_accepted() -> None:
    step = registry.read({"do": "dart.move", "on": "front", "dart": "french", "to": {"station": "waist"}})
    style = Style(name="T", block=real_block(), steps=(step,))
    (broken,) = [found for found in derive(style).findings if found.check == "broken_step"]
    kept = accepted.accept(broken, "never mind")
    again = derive(style.model_copy(update={"accepted": (kept,)}))
    assert not accepted.may_be(broken) and again.has_errors and not any(found.accepted for found in again.findings)


@pytest.mark.parametrize(
    ("value", "is_back"), [(10.0, False), (9.9, False), (10.1, True), (4.0, False), (3.9, True), (-2.0, True)]
)
def test_worse_is_further_from_the_limit_or_on_its_other_side(value: float, is_back: bool) -> None:
    found = opening(deep("9 cm"))
    kept = accepted.accept(replace(found, value=10.0, limit=4.0), "so")
    assert accepted.is_worse(replace(found, value=value, limit=4.0), kept) is is_back
