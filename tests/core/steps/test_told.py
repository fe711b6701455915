"""What a step tells of what it did beside what was asked, and where a request has its limit."""

from __future__ import annotations

import pytest
from pydantic import ValidationError

from tests.samples import move, real_pattern, worked
from zesty_pivot.core.errors import StepError
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.steps import registry


def test_a_dart_that_a_vest_has_no_shoulder_for_is_led_elsewhere_and_told() -> None:
    found = worked([move("shoulder", "shoulder_tip"), {"do": "neck.shape", "on": "front", "shape": "vest"}])
    state = found.states[-1]
    front = state.pattern.piece("front")
    assert all(front.role(front.dart_edge(dart.id)) != "shoulder" for dart in front.darts)
    told = [note.text for note in state.notes if "the front's" in note.text and "is not sewn in a vest" in note.text]
    assert len(told) == 1 and "shoulder" in told[0]
    now = {front.role(front.dart_edge(dart.id)) for dart in front.darts}
    assert "side_seam" in now and told[0].endswith("dart now") and ("side" in told[0] or "French" in told[0])


def test_equal_mouths_have_no_amounts_not_even_one_of_them() -> None:
    parts = [{"to": {"station": "french"}}, {"to": {"station": "mid_armhole"}, "share": "40%"}]
    value = {"do": "dart.split", "on": "front", "dart": "waist", "parts": parts, "equal": True}
    with pytest.raises((ValidationError, ValueError), match="no amounts"):
        registry.read(value)
    assert registry.read({**value, "parts": [parts[0], {"to": {"station": "mid_armhole"}}]}).equal


def test_a_cowl_that_takes_no_darts_leaves_a_side_dart_alone() -> None:
    """What lies at the side may go into it; only what it swallows at the neck must."""
    steps = [move("shoulder", "side_bust"), {"do": "drape.cowl", "on": "front", "darts": "none"}]
    found = worked(steps)
    assert found.states[-1].error is None
    front = found.pattern.piece("front")
    before = worked(steps[:1]).pattern.piece("front")
    (dart,) = [dart for dart in before.darts if before.role(before.dart_edge(dart.id)) == "side_seam"]
    assert front.angle(dart.id) == pytest.approx(before.angle(dart.id), abs=1e-9)
    # Asked for, it goes in.
    fed = worked([steps[0], {"do": "drape.cowl", "on": "front"}]).pattern.piece("front")
    assert not fed.has_dart(dart.id) or fed.angle(dart.id) < 0.5 * before.angle(dart.id)


def test_an_all_in_one_facing_ends_within_the_side() -> None:
    block = real_pattern()
    side = block.piece("front").edge("side_seam").sewn_length
    context = Context(block, Scope("cm", {}))

    def step(mm: float):  # type: ignore[no-untyped-def]
        return registry.read({"do": "piece.facing", "on": "front", "kind": "all_in_one", "depth": f"{mm:.2f} mm"})

    for mm in (side - 2.0, side + 3.0):
        with pytest.raises(StepError, match="deeper than the side"):
            step(mm).apply(block, context)
