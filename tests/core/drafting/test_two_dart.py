"""Method 6 by hand, in mm, and against a block that was drawn elsewhere. Formulas: common practice, no source."""

from __future__ import annotations

import math

import pytest

from tests.core.drafting.worked import dist, sewn, worked
from tests.samples import real_block
from zesty_pivot.core.drafting.draft import DraftError

BODY = {"bust": 920.0, "waist": 720.0, "shoulder": 400.0, "sh_bp": 265.0, "fwl": 440.0, "bwl": 415.0, "span": 190.0}


def near(point, x: float, y: float) -> bool:
    return point == pytest.approx((x, y), abs=1e-4)


def made(settings: dict | None = None, **change: float):  # type: ignore[no-untyped-def]
    return worked("two_dart", settings, 1.0, **{**BODY, **change})


def test_the_back_by_hand() -> None:
    """bust/12 = 76.6667; chest line 35 + 153.3333 + 28 = 216.3333; s = hypot(123.3333, 35) = 128.2034."""
    drawn = made()
    s = math.hypot(200 - 920 / 12, 35)
    slope = math.atan2(30, 200 + 13 - 920 / 12)
    long = s + 3 + 13
    assert s == pytest.approx(128.2034, abs=1e-4)
    assert near(drawn.landmark("back", "shoulder_tip"), 920 / 12 + long * math.cos(slope), long * math.sin(slope))
    a, b = drawn.mouth("back", "shoulder")
    assert dist(a, b) == pytest.approx(13.0) and dist(drawn.landmark("back", "neck_point"), a) == pytest.approx((long - 13) / 2)
    middle = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
    blade = drawn.landmark("back", "blade_point")
    assert near(blade, middle[0] - 80 * math.sin(slope), middle[1] + 80 * math.cos(slope))  # square, into the piece
    assert near(drawn.landmark("back", "underarm"), 230 + 4, 216.33333)
    assert near(drawn.landmark("back", "side_waist"), 180 + 4 + 32, 415)
    assert near(drawn.landmark("back", "waist_tip"), 95 - 5, 216.33333 + 15)
    assert drawn.mouth("back", "waist") == (pytest.approx((106.0, 415.0)), pytest.approx((74.0, 415.0)))


def test_the_front_by_hand() -> None:
    """One dart of bust/10 = 92 at the waist: total 2 atan(46/175) = 29.4549°; 55 % of it at the shoulder."""
    drawn = made()
    front = drawn.pattern("front")
    total = 2 * math.atan(46 / 175)
    assert math.degrees(total) == pytest.approx(29.4549, abs=1e-3)
    assert front.angle("shoulder") == pytest.approx(0.55 * total, abs=1e-7)
    assert front.angle("waist") == pytest.approx(0.45 * total, abs=1e-7)
    nx = 920 / 12
    a, b = drawn.mouth("front", "shoulder")
    assert near(a, nx + 0.46 * (200 - nx), 0.46 * 35)
    assert dist(a, b) == pytest.approx(2 * dist(a, (95, 265)) * math.sin(0.55 * total / 2), abs=1e-4)  # 2 r sin(a/2)
    assert b[0] > a[0] and b[1] > a[1]  # everything outside it turned clockwise
    assert drawn.mouth("front", "waist")[1] == pytest.approx((95 - 46, 440))


def test_waist_and_side_seam_are_exact_at_once() -> None:
    drawn = made()
    front, back = drawn.pattern("front"), drawn.pattern("back")
    assert sewn(front, "waist") == pytest.approx(720 / 4 + 4, abs=1e-5)
    assert sewn(back, "waist") == pytest.approx(720 / 4 + 4, abs=1e-5)
    assert sewn(front, "side_seam") == pytest.approx(math.hypot(18, 415 - 216.33333), abs=1e-4)
    assert sewn(back, "shoulder") - sewn(front, "shoulder") == pytest.approx(3.0, abs=1e-5)  # eased on to the front


def test_from_the_lengths_it_is_the_two_darts_of_the_quarter_draft_led_into_one() -> None:
    """2 asin(25 / (2 x |95 - 238|)) + 2 atan(12.5/175) = 10.0259° + 8.1721° = 18.198°."""
    drawn = made({"dart_rule": "length"})
    front = drawn.pattern("front")
    total = 2 * math.asin(25 / (2 * (238 - 95))) + 2 * math.atan(12.5 / 175)
    assert front.angle("shoulder") + front.angle("waist") == pytest.approx(total, abs=1e-7)
    assert math.degrees(total) == pytest.approx(18.198, abs=0.01)


def test_it_comes_close_to_a_block_drawn_elsewhere() -> None:
    """The real two-dart block of 93 cm bust, whose file has measurements and points: with the intake of its two darts together,
    2 x 170 x tan((17.17597° + 14.05307°)/2) = 95.0226 mm, its points are met."""
    block = real_block()
    drawn = worked("two_dart", {"intake": "95.022608 mm"}, 1.0, **block.measurements)
    theirs = {piece.name: piece.landmarks for piece in block.pieces}
    for mark in ("centre_neck", "neck_point", "shoulder_tip", "underarm", "bust_point", "centre_waist"):
        assert math.dist(drawn.landmark("front", mark), theirs["front"][mark]) < 0.01, mark
    for mark in ("shoulder_tip", "underarm", "blade_point", "waist_tip", "centre_waist"):
        assert math.dist(drawn.landmark("back", mark), theirs["back"][mark]) < 0.01, mark


@pytest.mark.parametrize(
    ("change", "says"), [({"intake": "300 mm"}, "outside its range"), ({"share": "140%"}, "not between 0% and 100%")]
)
def test_settings_outside_their_range_are_refused(change: dict, says: str) -> None:
    with pytest.raises(ValueError, match=says):
        made(change)


def test_a_dart_wider_than_the_bust_points_are_apart_is_refused() -> None:
    with pytest.raises(DraftError, match="wider than the bust points are apart"):
        made({"intake": "bust/7"}, span=120.0)
