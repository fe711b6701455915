"""Tracing paper's figures: they agree with report.json, and nothing differs from itself."""

import json

import pytest

from tests.samples import move, real_pattern, scaled, style, worked
from zesty_pivot.core.formats import report
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.ledger.differences import differences

STEPS = [
    move("shoulder", "french"),
    move("waist", "mid_armhole", share="40%"),
    {"do": "piece.true", "on": "front", "edge": "waist"},
]


def test_nothing_differs_from_itself() -> None:
    block = real_pattern()
    found = differences(block, block, block, block)
    assert found.are_none and len(found.edges) == 12 and len(found.darts) == 4


def test_the_figures_are_those_of_report_json() -> None:
    """Seam by seam and dart by dart, the differences are those of the two reports."""
    one, two = derive(style(STEPS)), derive(style([]))
    now, before = (json.loads(report.dump(report.report(derived))) for derived in (one, two))
    found = differences(one.pattern, one.derivation.block, two.pattern, two.derivation.block)
    sewn = [{(p["name"], e["id"]): e["sewn_mm"] for p in r["pieces"] for e in p["edges"]} for r in (now, before)]
    assert {(row.piece, row.edge) for row in found.edges} == set(sewn[0])
    for row in found.edges:
        assert row.now_mm == sewn[0][row.piece, row.edge] and row.other_mm == sewn[1][row.piece, row.edge]
    darts = [{(p["name"], d["id"]): d for p in r["pieces"] for d in p["darts"]} for r in (now, before)]
    assert {(row.piece, row.dart) for row in found.darts} == set(darts[0]) | set(darts[1])
    for row in found.darts:
        for side, known in ((row.now, darts[0]), (row.other, darts[1])):
            told = known.get((row.piece, row.dart))
            assert (side is None) == (told is None)
            if side is not None and told is not None:
                assert (side.station, side.angle_deg, side.intake_mm) == (told["station"], told["angle_deg"], told["intake_mm"])
    changed = {(row.piece, row.edge) for row in found.edges if row.is_change}
    assert changed == {("front", "waist")}  # only the trued seam has another length


def test_a_moved_dart_alone_is_a_difference() -> None:
    """The seams keep their lengths, the other darts are where they were."""
    block = real_pattern()
    found = differences(worked([move("shoulder", "french")]).pattern, block, block, block)
    assert not found.are_none and not any(row.is_change for row in found.edges)
    assert [row.dart for row in found.darts if row.is_change] == ["shoulder"]


def test_moved_split_and_missing() -> None:
    found = worked([move("waist", "mid_armhole", share="40%")])
    rows = {
        row.dart: row for row in differences(found.pattern, found.block, found.block, found.block).darts if row.piece == "front"
    }
    assert rows["waist"].angle_deg == pytest.approx(-0.4 * rows["waist"].other.angle_deg)
    assert rows["mid_armhole"].other is None and rows["mid_armhole"].now.station == "mid_armhole"
    assert rows["mid_armhole"].is_change and not rows["shoulder"].is_change
    moved = worked([move("waist", "french")])
    row = next(
        r
        for r in differences(moved.pattern, moved.block, moved.block, moved.block).darts
        if r.piece == "front" and r.dart == "waist"
    )
    assert row.is_change and row.angle_deg == pytest.approx(0.0, abs=1e-9) and row.now.station == "french"


def test_another_block_differs_in_every_seam() -> None:
    one, two = real_pattern(), scaled(1.1, 1.0)
    found = differences(two, two, one, one)
    waist = next(row for row in found.edges if (row.piece, row.edge) == ("front", "waist"))
    assert waist.difference_mm > 5.0 and not found.are_none
    front = one.piece("front")
    half = differences(one, one, type(one)((front,)), one)
    assert all(row.other_mm is None for row in half.edges if row.piece == "back")
