"""Method 3 by hand, in inches: lengths 17 1/2 and 17 1/4. Formulas: common practice, no source."""

from __future__ import annotations

import math

import pytest

from tests.core.drafting.worked import dist, sewn, worked
from zesty_pivot.core.conventions.sewing import Sewing, sewn_legs
from zesty_pivot.core.drafting.draft import DraftError

CHEST = 1 + 38 / 6 + 1.5


def near(point, x: float, y: float) -> bool:
    return point == pytest.approx((x, y), abs=1e-5)


def test_the_draft_by_hand() -> None:
    made = worked("easy")
    assert near(made.point("front", "mid"), 7.5 - 0.5, (1 + CHEST) / 2)
    assert near(made.point("back", "mid"), 7.5, (1 + CHEST) / 2)  # no hollow behind
    assert near(made.point("front", "bust_side"), 9.75, 10.5)
    # The contour of 1/2 in from the chest line: at the bust line 1/2 x (10.5 - 8.8333)/(17.5 - 8.8333) = 0.09615.
    assert near(made.point("back", "bust_side"), 9.75 + 0.5 * (10.5 - CHEST) / (17.5 - CHEST), 10.5)
    assert near(made.landmark("back", "centre_waist"), 0.5, 17.5)  # the back waist length is not used
    assert near(made.landmark("back", "side_waist"), 0.5 + 7.5 + 0.25 + 1, 17.5)
    assert near(made.landmark("back", "waist_tip"), 0.5 + 3.75, 10.5 - 1)  # an inch above the bust line
    assert near(made.landmark("front", "bust_point"), 3.75, 10.5)
    assert made.mouth("front", "waist") == (pytest.approx((4.25, 17.5)), pytest.approx((3.25, 17.5)))


def test_the_side_seams_are_made_equal_by_the_front_side_waist() -> None:
    """T3: the waist outside the dart stays 8.75 - 4.25 = 4.5."""
    made, rough = worked("easy"), worked("easy", {"true_by": "none"})
    assert near(rough.landmark("front", "side_waist"), 8.75, 17.5)
    waist, bust = made.landmark("front", "side_waist"), made.point("front", "bust_side")
    assert dist(waist, (4.25, 17.5)) == pytest.approx(4.5, abs=1e-5)
    back = math.hypot(0.5 * (10.5 - CHEST) / (17.5 - CHEST), 10.5 - CHEST) + dist(
        made.point("back", "bust_side"), made.landmark("back", "side_waist")
    )
    assert (10.5 - CHEST) + dist(bust, waist) == pytest.approx(back, abs=1e-5)


def test_to_the_under_bust_the_dart_takes_its_whole_intake_at_both_levels() -> None:
    made = worked("easy", {"under_bust_levels": "yes"})
    assert near(made.point("front", "under_side"), 33 / 4 + 0.25 + 1, 13.5)
    front = made.pattern("front")
    legs = sewn_legs(front, "waist", Sewing())
    at = [leg.cubics[0, 3] / 25.4 for leg in legs]  # where each leg stops running beside the other
    assert abs(at[0][0] - at[1][0]) == pytest.approx(1.0, abs=1e-6)
    assert at[0][1] == pytest.approx(13.5, abs=1e-6)
    assert sewn(front, "side_seam") == pytest.approx(sewn(made.pattern("back"), "side_seam"), abs=1e-4)


@pytest.mark.parametrize("settings", [{"contour": "1 in"}, {"armhole_rule": "bust_line"}, {"contour_top": "neck"},
                                      {"intake_front": "2 in"}, {"true_waist": "yes"}, {"bust_from": "straight"}])  # fmt: skip
def test_partners_match_under_every_convention(settings: dict) -> None:
    made = worked("easy", settings)
    for role in ("side_seam", "shoulder"):
        assert sewn(made.pattern("front"), role) == pytest.approx(sewn(made.pattern("back"), role), abs=1e-3), role
    assert sewn(made.pattern("front"), "waist") == pytest.approx(7.75 * 25.4, abs=0.01)


def test_lengths_that_differ_are_refused_with_the_draft_to_take_instead() -> None:
    with pytest.raises(DraftError, match="this draft is for equal lengths") as refused:
        worked("easy", None, bwl=16.0 * 25.4)
    assert "quarter draft to the waist" in refused.value.advice
    made = worked("easy", {"lengths_apart": "yes"}, bwl=16.0 * 25.4)
    assert near(made.landmark("back", "centre_waist"), 0.5, 17.5)
    with pytest.raises(DraftError, match="which is not measured"):
        worked("easy", {"under_bust_levels": "yes"}, sh_under_bust=None)  # type: ignore[arg-type]
