"""Every dart of fronts with one, two and four darts, and of the back, to every station; twelve steps on all sizes."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.steps.fronts import MADE, front
from tests.core.steps.whole import whole
from tests.samples import move, real_pattern, scaled, stretches, worked
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.errors import StepError, ZestyError
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.formats.derived import Look
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece.region import crosses_itself
from zesty_pivot.core.piece.spot import ALL_STATIONS
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry

CASES = [(name, "front", dart.id) for name in MADE for dart in worked(MADE[name]).pattern.piece("front").darts] + [
    ("two darts", "back", dart.id) for dart in real_pattern().piece("back").darts
]


@pytest.mark.parametrize(("name", "on", "dart"), CASES)
@pytest.mark.parametrize("station", ALL_STATIONS)
@pytest.mark.parametrize("do", ["move", "split"])
def test_every_dart_to_every_station(name: str, on: str, dart: str, station: str, do: str) -> None:
    """What a pivot reaches keeps every invariant; what it does not is refused in one sentence."""
    block = front(name)
    if do == "move":
        step = registry.read(move(dart, station, on=on))
    else:
        parts = [{"to": {"station": station}, "share": "70%"}]
        step = registry.read({"do": "dart.split", "on": on, "dart": dart, "parts": parts})
    try:
        after = step.apply(block, Context(block, Scope("cm"))).pattern
    except ZestyError as fault:
        assert "\n" not in str(fault) and fault.advice
        return
    whole(after, block)
    piece, before = after.piece(on), block.piece(on)
    held = sum(before.angle(d.id) for d in before.darts)
    # The closed piece is a cone round its pivot: the sum of angles is its deficit (Gauss-Bonnet), wherever they sit.
    assert sum(piece.angle(d.id) for d in piece.darts) == pytest.approx(held, abs=1e-12)
    for made in piece.darts:
        # The chord formula: mouth^2 = a^2 + b^2 - 2 a b cos(angle).
        a, b = piece.legs(made.id)
        assert piece.intake(made.id) ** 2 == pytest.approx(a * a + b * b - 2 * a * b * math.cos(piece.angle(made.id)), abs=1e-6)


def test_a_shoulder_dart_at_the_centre_is_several_times_narrower() -> None:
    """Common practice, no source: r is short there, so a big shoulder dart becomes a small one."""
    before = real_pattern().piece("front").intake("shoulder")
    after = worked([move("shoulder", "centre_bust")]).pattern.piece("front").intake("shoulder")
    assert 2.0 < before / after < 6.0


@given(stretches, st.sampled_from(CASES), st.sampled_from(ALL_STATIONS), st.integers(10, 100))
@settings(max_examples=60, deadline=None)
def test_random_blocks(stretch: tuple[float, float], case: tuple[str, str, str], station: str, share: int) -> None:
    name, on, dart = case
    found = Evaluator().evaluate(scaled(*stretch), [registry.read(step) for step in MADE[name]], Scope("cm"))
    assert not found.broken
    block = found.pattern
    step = registry.read(move(dart, station, f"{share}%", on=on))
    try:
        after = step.apply(block, Context(block, Scope("cm"))).pattern
    except ZestyError as fault:
        assert "\n" not in str(fault)
        return
    for account in accounts(after, block):
        assert abs(account.missing_deg) < 1e-9
    for edge in block.piece(on).edges:
        assert after.piece(on).edge(edge.id).sewn_length == pytest.approx(edge.sewn_length, abs=1e-7)


TWELVE = [
    {"do": "dart.park", "on": "front", "darts": ["shoulder"], "to": {"station": "side_waist"}},
    {"do": "piece.true", "on": "front", "edge": "shoulder"},
    {"do": "dart.return", "on": "front"},
    move("shoulder", "mid_neck", "60%"),
    {"do": "dart.use", "on": "front", "dart": "mid_neck", "as": "pleats", "count": 2, "spacing": "shoulder/16"},
    {"do": "dart.split", "on": "front", "dart": "shoulder", "parts": [{"to": {"station": "mid_armhole"}, "share": "30%"},
                                                                      {"to": {"station": "side_bust"}}]},
    {"do": "dart.use", "on": "front", "dart": "mid_armhole", "as": "ease", "over": "12 cm", "cloth": "soft"},
    {"do": "dart.fan", "on": "front", "dart": "shoulder", "count": 2, "spacing": "1.5 cm", "parallel": True},
    {"do": "dart.shape", "on": "front", "dart": "waist", "bow": "3 mm"},
    {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"station": "mid_neck"}},
    {"do": "dart.use", "on": "back", "dart": "shoulder", "as": "gathers", "over": "6 cm"},
    {"do": "piece.true", "on": "front", "edge": "waist"},
]  # fmt: skip


@pytest.mark.parametrize("bust", range(800, 1301, 50))
def test_twelve_dart_steps_on_every_size(bust: int) -> None:
    """80 to 130 cm bust: a valid pattern, or a step that says clearly why not; no crossing outline without a finding."""
    block = scaled(bust / 930.0, (bust / 930.0) ** 0.5)
    scope = Scope("cm", {"shoulder": 400.0 * (bust / 930.0) ** 0.5, "bust": float(bust)})
    found = Evaluator().evaluate(block, [registry.read(step) for step in TWELVE], scope)
    for _number, fault in found.broken:
        assert isinstance(fault, StepError) and fault.advice and "\n" not in str(fault)
    assert len(found.broken) <= 2, found.broken
    said = findings(Look(found.pattern, block, Finish(), scope, "Twelve"))
    for piece in found.pattern.pieces:
        crossing = crosses_itself(piece)
        assert crossing == any(f.check == "outline" and f.severity is Severity.ERROR and f.piece == piece.name for f in said)
        finished = finish_piece(piece, Finish(), scope, "Twelve")
        assert len(finished.ring) > 20
    assert all(account.is_whole for account in accounts(found.pattern, block))
