"""Method 1 by hand, in inches: bust 38, waist 30, shoulder 15, bust point 10 1/2 down, lengths 17 1/2 and 16, span 7 1/2.

Formulas: common practice, no source; the truings are our own completion. The arithmetic stands beside each.
"""

from __future__ import annotations

import math

import pytest

from tests.bodies import person
from tests.core.drafting.worked import dist, sewn, worked
from zesty_pivot.core.drafting.draft import DraftError, draft
from zesty_pivot.core.formats.block_check import shut_corner
from zesty_pivot.core.piece.heights import cloth_at
from zesty_pivot.data.methods import shipped

CHEST = 1 + 38 / 6 + 1.5  # drop + bust/6 + 1 1/2 = 8.8333


def near(point, x: float, y: float) -> bool:
    return point == pytest.approx((x, y), abs=1e-5)


def test_the_back_by_hand() -> None:
    made = worked("quarter_waist")
    assert near(made.landmark("back", "centre_neck"), 0, 1)
    assert near(made.landmark("back", "neck_point"), 38 / 12, 0)  # 3.1667
    assert near(made.landmark("back", "shoulder_tip"), 15 / 2, 1)
    assert near(made.point("back", "mid"), 7.5 - 0.5, (1 + CHEST) / 2)  # half the sloped depth, in by the hollow
    assert near(made.landmark("back", "underarm"), 38 / 4 + 0.25, CHEST)  # 9.75; the contour begins here, so takes nothing
    assert near(made.landmark("back", "centre_waist"), 0.75, 16)
    assert near(made.landmark("back", "side_waist"), 0.75 + 30 / 4 + 0.25 + 1, 16)  # 9.5
    assert near(made.landmark("back", "waist_tip"), 0.75 + 7.5 / 2, CHEST + 1)  # 4.5, an inch below the chest line
    assert made.mouth("back", "waist") == (pytest.approx((5.0, 16.0)), pytest.approx((4.0, 16.0)))


def test_the_front_by_hand() -> None:
    made = worked("quarter_waist")
    assert near(made.landmark("front", "centre_neck"), 0, 38 / 12)
    assert near(made.landmark("front", "shoulder_tip"), 7.5, 1)
    assert near(made.point("front", "mid"), 7.5 - 0.75, (1 + CHEST) / 2)
    assert near(made.landmark("front", "underarm"), 9.75, CHEST)
    assert near(made.landmark("front", "bust_point"), 3.75, 10.5)
    assert near(made.landmark("front", "side_waist"), 30 / 4 + 0.25 + 1, 17.5)  # 8.75
    assert made.mouth("front", "waist") == (pytest.approx((4.25, 17.5)), pytest.approx((3.25, 17.5)))
    # T2. Back side seam: hypot(9.75 - 9.5, 16 - 8.8333) = 7.17103; above the dart 10.5 - 8.8333 = 1.66667; so below it 5.50436.
    # |BP side waist| = hypot(5, 7) = 8.60233; foot (74 + 36 - 30.29799)/(2 x 8.60233) = 4.63257; off sqrt(36 - 21.46) = 3.813.
    below = math.hypot(0.25, 16 - CHEST) - (10.5 - CHEST)
    foot = (74 + 36 - below**2) / (2 * math.sqrt(74))
    off = math.sqrt(36 - foot**2)
    ux, uy = 5 / math.sqrt(74), 7 / math.sqrt(74)
    (tx, ty), low = made.mouth("front", "side")
    assert near((tx, ty), 9.75, 10.5)
    assert near(low, 3.75 + ux * foot + uy * off, 10.5 + uy * foot - ux * off)  # 9.5454, 12.0534
    assert foot == pytest.approx(4.63257, abs=1e-4)
    assert near(low, 9.54542, 12.05341) or low == pytest.approx((9.54542, 12.05341), abs=1e-4)


def test_sewn_points_lie_an_inch_short_on_the_bisectors() -> None:
    made = worked("quarter_waist")
    front = next(piece for piece in made.block.pieces if piece.name == "front")
    for dart in front.darts:
        ends = made.mouth("front", dart.id)
        point = (dart.point[0] / 25.4, dart.point[1] / 25.4)
        assert dist(point, (3.75, 10.5)) == pytest.approx(1.0, abs=1e-5)
        assert dist(point, ends[0]) == pytest.approx(dist(point, ends[1]), abs=1e-5)


@pytest.mark.parametrize(
    ("settings", "piece", "mark", "x", "y"),
    [
        ({"neck_width": "3 in"}, "front", "neck_point", 3, 0),
        ({"neck_width": "3 in"}, "back", "neck_point", 3, 0),  # back and front always
        ({"front_neck_depth": "4 in"}, "front", "centre_neck", 0, 4),
        ({"back_neck_depth": "1 1/2 in"}, "back", "centre_neck", 0, 1.5),
        ({"half_shoulder_add": "1/2 in"}, "back", "shoulder_tip", 8, 1),
        ({"drop_back": "1/2 in"}, "back", "underarm", 9.75, CHEST - 0.5),  # the chest line hangs from the back's tip
        ({"drop_front": "1 1/2 in"}, "front", "underarm", 9.75, CHEST),  # and not from the front's
        ({"armhole_from": "top"}, "front", "underarm", 9.75, CHEST - 1),
        ({"armhole_depth": "8 in"}, "front", "underarm", 9.75, 9),
        ({"armhole_rule": "bust_line"}, "front", "underarm", 9.75, 10.5),
        ({"ease_bust": "1/2 in"}, "front", "underarm", 10, CHEST),
        ({"ease_waist": "0 in"}, "back", "side_waist", 9.25, 16),
        ({"intake_back": "2 in"}, "back", "side_waist", 10.5, 16),
        ({"front_side_add": "1/2 in"}, "front", "side_waist", 9.25, 17.5),
        ({"axis_add": "1/2 in"}, "front", "bust_point", 4.25, 10.5),
        ({"contour": "1 in"}, "back", "centre_waist", 1, 16),
        ({"waist_from": "straight"}, "back", "side_waist", 8.75, 16),
        ({"axis_from": "straight"}, "back", "waist_tip", 3.75, CHEST + 1),
        ({"axis_from": "half_waist"}, "back", "waist_tip", (0.75 + 9.5) / 2, CHEST + 1),
        ({"back_dart_from": "bust", "back_dart_off": "-1 in"}, "back", "waist_tip", 4.5, 9.5),
        # The contour from the armhole's middle at (1 + 8.8333)/2 = 4.91667: at the chest line 0.75 x 3.91667/11.08333.
        ({"contour_top": "mid"}, "back", "underarm", 9.75 + 0.75 * (CHEST - 1) / 2 / (16 - (CHEST + 1) / 2), CHEST),
        ({"contour_top": "mid", "bust_from": "straight"}, "back", "underarm", 9.75, CHEST),
        ({"contour_top": "neck"}, "back", "underarm", 9.75 + 0.75 * (CHEST - 1) / 15, CHEST),
    ],
)
def test_each_convention_moves_what_it_says(settings: dict, piece: str, mark: str, x: float, y: float) -> None:
    assert near(worked("quarter_waist", settings).landmark(piece, mark), x, y)


def test_half_the_armhole_round_is_a_rule() -> None:
    made = worked("quarter_waist", {"armhole_rule": "half_armhole"}, armhole=16 * 25.4)
    assert near(made.landmark("back", "underarm"), 9.75, 1 + 8)
    with pytest.raises(DraftError, match="armhole is not measured"):
        worked("quarter_waist", {"armhole_rule": "half_armhole"})


def test_the_middle_of_the_armhole_three_inches_above_the_chest_line() -> None:
    made = worked("quarter_waist", {"armhole_mid_up": "3 in"})
    assert near(made.point("back", "mid"), 7.0, CHEST - 3)
    assert near(made.point("front", "mid"), 6.75, CHEST - 3)


def test_unequal_drops_make_the_shoulders_unequal_until_they_are_trued() -> None:
    """T1: with 1 1/2 in front and 1 behind the front is longer: hypot(4.3333, 1.5) - hypot(4.3333, 1) = 0.1384 in, 3.5 mm."""
    rough = worked("quarter_waist", {"drop_front": "1 1/2 in", "true_shoulder": "no"})
    trued = worked("quarter_waist", {"drop_front": "1 1/2 in"})
    front, back = (sewn(rough.pattern(name), "shoulder") for name in ("front", "back"))
    reach = 7.5 - 38 / 12
    assert front - back == pytest.approx((math.hypot(reach, 1.5) - math.hypot(reach, 1)) * 25.4, abs=1e-4)
    assert sewn(trued.pattern("front"), "shoulder") == pytest.approx(back, abs=1e-5)
    done = next(done for done in trued.drawn.truings if done.name == "front.tip")
    assert done.truing is not None and done.truing.amount == pytest.approx(front - back, abs=1e-4)
    refused = next(done for done in rough.drawn.truings if done.name == "front.tip")
    assert refused.truing is not None and refused.truing.is_refused


def test_trued_by_the_waist_the_intake_is_the_difference_of_the_lengths() -> None:
    """T2': intake 1 1/2 in exactly, waist and side seam exact, the waist no longer level."""
    made = worked("quarter_waist", {"true_by": "waist"})
    top, low = made.mouth("front", "side")
    assert dist(top, low) == pytest.approx(1.5, abs=1e-5)
    assert dist(top, (3.75, 10.5)) == pytest.approx(dist(low, (3.75, 10.5)), abs=1e-5)
    waist = made.landmark("front", "side_waist")
    assert dist(waist, (4.25, 17.5)) == pytest.approx(8.75 - 4.25, abs=1e-5)
    assert dist(top, (9.75, CHEST)) + dist(low, waist) == pytest.approx(math.hypot(0.25, 16 - CHEST), abs=1e-5)
    assert abs(waist[1] - 17.5) > 0.01


def test_ruled_shut_the_side_seam_has_no_corner_and_says_what_it_costs() -> None:
    """T2'': one straight line once the dart is shut; the width at the bust line is another."""
    made = worked("quarter_waist", {"side_path": "ruled"})
    front = made.pattern("front")
    assert math.degrees(shut_corner(front, "side")) == pytest.approx(0.0, abs=1e-4)
    assert sewn(front, "side_seam") == pytest.approx(sewn(made.pattern("back"), "side_seam"), abs=1e-4)
    top, low = made.mouth("front", "side")
    assert dist(top, (3.75, 10.5)) == pytest.approx(dist(low, (3.75, 10.5)), abs=1e-5)
    moved = next(done for done in made.drawn.truings if done.name == "front.top")
    assert moved.truing is not None and moved.truing.amount / 25.4 == pytest.approx(abs(top[0] - 9.75), abs=1e-5)
    assert moved.truing.amount > 1.0


def test_left_untrued_the_side_seams_differ_and_the_dart_is_the_rule() -> None:
    made = worked("quarter_waist", {"true_by": "none"})
    assert abs(sewn(made.pattern("front"), "side_seam") - sewn(made.pattern("back"), "side_seam")) > 0.3
    top, low = made.mouth("front", "side")
    assert dist(top, (3.75, 10.5)) == pytest.approx(dist(low, (3.75, 10.5)), abs=1e-5)  # T5 all the same


@pytest.mark.parametrize("school", ["raised", "no"])
def test_without_a_side_dart_the_seams_match_and_the_waist_keeps_its_length(school: str) -> None:
    """Raised back: its side waist at the front's height, the waist a curve of waist/4 + ease + intake; else T3."""
    made = worked("quarter_waist", {"side_dart": school})
    front, back = made.pattern("front"), made.pattern("back")
    assert [dart.id for dart in front.darts] == ["waist"]
    assert sewn(front, "side_seam") == pytest.approx(sewn(back, "side_seam"), abs=1e-4)
    for piece in (front, back):
        assert sewn(piece, "waist") == pytest.approx((30 / 4 + 0.25) * 25.4, abs=1e-3)
    if school == "raised":
        assert made.landmark("back", "side_waist")[1] == pytest.approx(17.5)
        assert made.landmark("back", "centre_waist")[1] == pytest.approx(16)


def test_unequal_shares_keep_waist_and_legs() -> None:
    """1 in towards the centre, 1 1/2 towards the side: the outer leg is levelled, and its waist given back."""
    made = worked("quarter_waist", {"intake_front": "2 1/2 in", "share_front": "40%"})
    front = made.pattern("front")
    assert front.legs("waist")[0] == pytest.approx(front.legs("waist")[1], abs=1e-4)
    assert made.mouth("front", "waist")[1] == pytest.approx((2.75, 17.5))
    assert sewn(front, "waist") == pytest.approx((30 / 4 + 0.25) * 25.4, abs=1e-4)
    assert sewn(front, "side_seam") == pytest.approx(sewn(made.pattern("back"), "side_seam"), abs=1e-4)


def test_the_waist_as_one_curve_keeps_its_length() -> None:
    """T6: no corner at the shut dart, its length given back at the side."""
    flat, made = worked("quarter_waist"), worked("quarter_waist", {"true_waist": "yes"})
    for name in ("front", "back"):
        piece = made.pattern(name)
        assert -math.degrees(shut_corner(flat.pattern(name), "waist")) == pytest.approx(
            math.degrees(flat.pattern(name).angle("waist")), abs=1e-4
        )  # a flat dart leaves a corner of its full angle
        assert abs(math.degrees(shut_corner(piece, "waist"))) < 0.1
        assert sewn(piece, "waist") == pytest.approx((30 / 4 + 0.25) * 25.4, abs=0.01)
    # "About 0.2 mm a side" is given back.
    assert 0.02 < abs(made.landmark("front", "side_waist")[0] - flat.landmark("front", "side_waist")[0]) * 25.4 < 1.0


def test_the_contoured_centre_back_is_a_seam_of_two_lines() -> None:
    made = worked("quarter_waist")
    back = next(piece for piece in made.block.pieces if piece.name == "back")
    front = next(piece for piece in made.block.pieces if piece.name == "front")
    assert back.fold is None and front.fold == "centre"
    assert back.edges[-1].path.count("L") == 2
    straight = worked("quarter_waist", {"contour": "0 in"})
    assert next(piece for piece in straight.block.pieces if piece.name == "back").fold == "centre"
    assert cloth_at(made.pattern("back"), 16 * 25.4 - 1e-6) == pytest.approx((30 / 4 + 0.25) * 25.4, abs=0.05)


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"fwl": 15.0 * 25.4}, "shorter than the back's"),
        ({"fwl": 22.0 * 25.4}, "over 5 in apart"),
        ({"bwl": 9.0 * 25.4, "fwl": 13.0 * 25.4}, "no side seam below the armhole"),
        ({"sh_bp": 16.5 * 25.4}, "bust point lies at the waist"),
        ({"shoulder": 22.0 * 25.4}, "no room for the armhole"),
        ({"shoulder": 7.0 * 25.4}, "narrower than the neck"),
        ({"span": 18.0 * 25.4}, "outside the waist"),
        ({"span": 1.5 * 25.4}, "too close together"),
    ],
)
def test_an_implausible_body_is_refused_by_name(change: dict, says: str) -> None:
    with pytest.raises(DraftError, match=says) as refused:
        worked("quarter_waist", None, **change)
    assert "cm" in str(refused.value) and refused.value.advice.startswith("Measure again")


def test_a_missing_measurement_is_named() -> None:
    body = person("quarter_waist")
    del body["span"]
    with pytest.raises(DraftError, match="bust span is missing"):
        draft(shipped("quarter_waist"), body, {})
