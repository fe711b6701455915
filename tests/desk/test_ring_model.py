"""The ring as figures: beads, stations, what a direction means."""

import math

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.samples import move, real_pattern, scaled, stretches, style, worked
from zesty_pivot.core.piece.spot import ALL_STATIONS
from zesty_pivot.core.quantity import Scope
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.table.ring_control import RingControl
from zesty_pivot.desk.table.ring_model import Ring, ring_of, target_at


def ring(steps: list | None = None, on: str = "front", pivot: str = "bust_point") -> Ring:
    block = real_pattern()
    piece = (worked(steps).pattern if steps else block).piece(on)
    return ring_of(piece, block.piece(on), pivot, Scope())


def test_beads_are_as_wide_as_their_darts() -> None:
    found = ring()
    front = real_pattern().piece("front")
    assert {bead.dart for bead in found.beads} == {"shoulder", "waist"}
    for bead in found.beads:
        assert bead.sweep == pytest.approx(front.angle(bead.dart))
        first, _second = front.mouth(bead.dart)
        assert bead.start == pytest.approx(math.atan2(first[1] - 268.0, first[0] - 94.0))


def test_every_station_can_be_reached_from_the_bust_point() -> None:
    names = {target.spot.station for target in ring().targets if target.spot.station}
    assert names == set(ALL_STATIONS)
    angles = [target.angle for target in ring().targets]
    assert angles == sorted(angles)


def test_a_direction_near_a_station_means_it() -> None:
    found = ring()
    for target in found.targets:
        hit = target_at(found, target.angle + math.radians(0.5), "none")
        assert hit is not None
        assert hit.spot == target.spot or abs(hit.angle - target.angle) < math.radians(9)


def test_a_direction_into_another_dart_means_that_dart() -> None:
    found = ring()
    bead = found.bead("shoulder")
    hit = target_at(found, bead.middle, "waist")
    assert hit.spot.dart == "shoulder"
    own = target_at(found, bead.middle, "shoulder")
    assert own is None or own.spot.dart != "shoulder" or own.spot.station is None


@settings(max_examples=60)
@given(st.floats(-math.pi, math.pi), stretches)
def test_any_direction_is_a_place_or_nothing(angle: float, stretch: tuple[float, float]) -> None:
    piece = scaled(*stretch).piece("front")
    found = ring_of(piece, piece, "bust_point", Scope())
    hit = target_at(found, angle, "waist")
    if hit is not None and hit.spot.edge is not None:
        off = math.atan2(hit.point[1] - found.pin[1], hit.point[0] - found.pin[0]) - angle
        assert abs(math.sin(off)) < 0.02  # the place lies in that direction, to the tenth of a per cent it is said in


@pytest.mark.parametrize("pivot", ["blade_point", "waist_tip"])
def test_a_back_pivot_offers_only_what_it_can_reach(pivot: str) -> None:
    found = ring(on="back", pivot=pivot)
    assert len(found.beads) == 1
    other = "waist" if pivot == "blade_point" else "shoulder"
    assert all(target.spot.dart != other for target in found.targets)
    assert len(found.targets) >= 6


def test_a_ring_without_darts_is_empty() -> None:
    found = ring([move("shoulder", "french"), move("waist", "french")])
    assert [bead.dart for bead in found.beads] == ["shoulder"] or [bead.dart for bead in found.beads] == ["waist"]


@pytest.fixture
def model(qtbot) -> DeskModel:  # type: ignore[no-untyped-def]
    return DeskModel(style([]))


def control_of(model: DeskModel) -> RingControl:
    block = model.derived.derivation.block

    def current() -> Ring:
        return ring_of(model.pattern.piece("front"), block.piece("front"), "bust_point", model.style.scope())

    return RingControl(model, current)


def test_stations_by_steps_go_all_the_way_round(model: DeskModel) -> None:
    control = control_of(model)
    control.pick_up("waist")
    seen = []
    for _ in range(len(control.carry.ring.targets)):
        control.step_target(1)
        seen.append(control.carry.target.title)
    assert len(set(seen)) == len(seen) == 13  # twelve stations and the shoulder dart, which stands at 46 %
    control.step_target(1)
    assert control.carry.target.title == seen[0]
    control.step_target(-1)
    assert control.carry.target.title == seen[-1]
    control.let_go()
    assert model.style.steps == () and model.derived.pattern == real_pattern()


def test_shares_stay_between_a_twentieth_and_all(model: DeskModel) -> None:
    control = control_of(model)
    control.pick_up("shoulder")
    control.step_target(1)
    for _ in range(40):
        control.change_share(-1)
    assert control.carry.share == pytest.approx(0.05)
    for _ in range(40):
        control.change_share(1)
    assert control.carry.share == pytest.approx(1.0)
    control.drop()
    assert len(model.style.steps) == 1 and model.style.steps[0].share == "100%"


def test_gestures_with_an_empty_hand_do_nothing(model: DeskModel) -> None:
    control = control_of(model)
    control.point(1.0)
    control.step_target(1)
    control.set_share(0.5)
    control.change_share(1)
    control.drop()
    control.let_go()
    control.pick_up("no such dart")
    assert control.carry is None and model.style.steps == ()


def test_a_place_that_cannot_be_is_said_and_nothing_happens(model: DeskModel) -> None:
    heard: list[tuple[str, bool]] = []
    model.said.connect(lambda text, fault: heard.append((text, fault)))
    control = control_of(model)
    control.pick_up("waist")
    carry = control.carry
    carry.target, carry.fault = carry.ring.targets[0], "the slash crosses the armhole"
    control.drop()
    assert model.style.steps == ()
    assert heard == [("Not moved: the slash crosses the armhole.", True)]
