"""Darts shut on the table: nothing is stretched, legs meet, corners are told."""

import math

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.samples import chains, move, real_pattern, worked
from zesty_pivot.core.conventions.sewing import PLAIN, closing_angle
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.fold import TEAR, crossings, folded
from zesty_pivot.core.geometry import between
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


@pytest.mark.parametrize("share", [0.25, 0.5, 1.0])
@pytest.mark.parametrize("on", ["front", "back"])
def test_darts_close_by_the_share_and_the_tear_takes_it(on: str, share: float) -> None:
    piece = real_pattern().piece(on)
    shut = folded(piece, PLAIN, share)
    for dart in piece.darts:
        assert shut.angle(dart.id) == pytest.approx((1 - share) * closing_angle(piece, dart.id, PLAIN), abs=1e-9)
    tears = [dart for dart in shut.darts if dart.id.startswith(TEAR)]
    sewn = sum(closing_angle(piece, d.id, PLAIN) for d in piece.darts)
    assert sum(shut.angle(t.id) for t in tears) == pytest.approx(share * sewn, abs=1e-9)
    assert shut.area == pytest.approx(folded(piece, PLAIN, 0.0).area, abs=1e-6)
    for edge in piece.edges:
        assert shut.edge(edge.id).sewn_length == pytest.approx(edge.sewn_length, abs=1e-9)


def test_shut_legs_lie_on_each_other() -> None:
    shut = folded(real_pattern().piece("front"), PLAIN)
    for dart in ("shoulder", "waist"):
        first, second = shut.mouth(dart)
        assert math.dist(first, second) < 1e-6


def test_only_the_named_darts_close() -> None:
    piece = real_pattern().piece("front")
    shut = folded(piece, PLAIN, 1.0, ["waist"])
    assert shut.angle("waist") == pytest.approx(0.0, abs=1e-9)
    assert shut.angle("shoulder") == pytest.approx(piece.angle("shoulder"), abs=1e-9)


def test_nothing_to_fold() -> None:
    piece = real_pattern().piece("front")
    assert folded(piece, PLAIN, 1.0, []) is piece


def test_the_corner_is_the_one_seen_in_the_folded_paper() -> None:
    """The told corner against the two directions of the seam in the folded piece, measured there."""
    piece = real_pattern().piece("front")
    told = {row.dart: row for row in crossings(piece, PLAIN)}
    shut = folded(piece, PLAIN)
    index = shut.mouth_run("waist")
    seen = math.degrees(between(shut.runs[index].path.end_direction, shut.runs[shut.after(index)].path.start_direction))
    assert told["waist"].corner_deg == pytest.approx(seen, abs=1e-6) and abs(seen) > 20.0
    trued = worked([{"do": "piece.true", "on": "front", "edge": "waist"}]).pattern.piece("front")
    assert abs({row.dart: row for row in crossings(trued, PLAIN)}["waist"].corner_deg) < 0.01


def test_a_dart_at_a_corner_of_the_piece_has_no_seam_across() -> None:
    piece = worked([move("waist", "shoulder_tip")]).pattern.piece("front")
    assert "waist" not in {row.dart for row in crossings(piece, PLAIN)}
    assert np.isfinite(folded(piece, PLAIN).area)


@given(chains, st.floats(0.0, 1.0))
def test_any_pattern_folds_without_stretching(steps, share) -> None:  # type: ignore[no-untyped-def]
    """After up to twelve moves: areas and sewn lengths stay, whatever has been moved."""
    darts, values = ["shoulder", "waist"], []
    for spot, part, pick in steps[:4]:
        values.append({"do": "dart.move", "on": "front", "dart": darts[pick % 2], "to": spot, "share": f"{part}%"})
    pattern = Evaluator().evaluate(real_pattern(), [registry.read(v) for v in values], Scope("cm")).pattern
    piece = pattern.piece("front")
    try:
        shut = folded(piece, PLAIN, share)
    except ZestyError as fault:
        raise AssertionError(str(fault)) from fault
    assert shut.area == pytest.approx(folded(piece, PLAIN, 0.0).area, abs=1e-5)
    for edge in piece.edges:
        assert shut.edge(edge.id).sewn_length == pytest.approx(edge.sewn_length, abs=1e-9)
