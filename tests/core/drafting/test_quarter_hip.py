"""Method 2 by hand, in inches: as method 1, hip 40, hip depth 8. Formulas: common practice, no source."""

from __future__ import annotations

import math

import pytest

from tests.core.drafting.worked import dist, sewn, worked
from zesty_pivot.core.drafting.draft import DraftError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import girths

CHEST = 1 + 38 / 6 + 1.5
MID = (1 + CHEST) / 2  # 4.91667: the contour begins at the middle of the back armhole


def near(point, x: float, y: float) -> bool:
    return point == pytest.approx((x, y), abs=1e-5)


def test_the_back_by_hand() -> None:
    made = worked("quarter_hip")
    at_chest = 0.75 * (CHEST - MID) / (16 - MID)  # 0.26504
    assert near(made.landmark("back", "underarm"), at_chest + 38 / 4 + 0.25, CHEST)
    assert near(made.landmark("back", "centre_waist"), 0.75, 16)
    assert near(made.landmark("back", "side_waist"), 0.75 + 7.5 + 0.25 + 1, 16)
    assert near(made.landmark("back", "centre_hem"), 0.75, 16 + 8)  # straight down from the contour; raised by the difference
    assert near(made.landmark("back", "side_hem"), 0.75 + 40 / 4 + 0.25, 24)
    back = next(piece for piece in made.block.pieces if piece.name == "back")
    eye = back.fisheyes[0]
    axis = 0.75 + 7.5 / 2
    assert [tuple(v / 25.4 for v in at) for at in (eye.top, *eye.waist, eye.bottom)] == [
        pytest.approx((axis, CHEST + 1)), pytest.approx((axis - 0.5, 16)), pytest.approx((axis + 0.5, 16)),
        pytest.approx((axis, 24 - 1)),  # an inch above its hip line
    ]  # fmt: skip
    assert back.fold is None and back.levels["hip"] == pytest.approx(24 * 25.4)


def test_the_front_by_hand() -> None:
    made = worked("quarter_hip")
    assert near(made.landmark("front", "centre_hem"), 0, 17.5 + 8)
    assert near(made.landmark("front", "bust_point"), 3.75, 10.5)
    front = next(piece for piece in made.block.pieces if piece.name == "front")
    eye = front.fisheyes[0]
    assert [tuple(v / 25.4 for v in at) for at in (eye.top, *eye.waist, eye.bottom, eye.point)] == [
        pytest.approx((3.75, 10.5)), pytest.approx((3.25, 17.5)), pytest.approx((4.25, 17.5)),
        pytest.approx((3.75, 25.5 - 2)),  # two inches above its hip line
        pytest.approx((3.75, 11.5)),  # sewn to a point an inch below
    ]  # fmt: skip
    # Drops 1 1/2 and 1: the front shoulder is cut to the back's hypot(7.5 - 3.1667, 1) = 4.44722.
    assert dist(made.landmark("front", "neck_point"), made.landmark("front", "shoulder_tip")) == pytest.approx(
        math.hypot(7.5 - 38 / 12, 1), abs=1e-5
    )
    # The chest line hangs from the back's tip whatever the front's drop is.
    assert near(made.landmark("front", "underarm"), 9.75, CHEST)


def test_waist_to_hip_is_equally_long_and_the_hip_as_wide_as_asked() -> None:
    """T4."""
    made = worked("quarter_hip", {"contour_below": "return"})
    for name in ("front", "back"):
        hem, centre = made.landmark(name, "side_hem"), made.landmark(name, "centre_hem")
        assert dist(hem, centre) == pytest.approx(10.25, abs=1e-5)
    below = [dist(made.landmark(name, "side_waist"), made.landmark(name, "side_hem")) for name in ("front", "back")]
    assert below[0] == pytest.approx(below[1], abs=1e-5)
    rough = worked("quarter_hip", {"contour_below": "return", "true_hip": "no"})
    assert near(rough.landmark("front", "side_hem"), 10.25, 25.5)
    assert near(rough.landmark("back", "centre_hem"), 0, 24)


def test_girths_are_the_body_and_its_ease() -> None:
    made = worked("quarter_hip")
    pattern = block_file.pattern(made.block)
    found = girths(pattern, pattern)
    assert found.bust == pytest.approx((38 + 1) * 25.4, abs=0.01)
    assert found.hip == pytest.approx((40 + 1) * 25.4, abs=0.01)
    # The front fish-eye is sewn an inch below the bust point, so at the waist it still takes its whole inch.
    assert found.waist == pytest.approx((30 + 1) * 25.4, abs=0.01)


@pytest.mark.parametrize("settings", [{}, {"side_path": "ruled"}, {"side_dart": "no"}, {"contour_below": "return"}])
def test_side_seams_match_with_the_dart_shut(settings: dict) -> None:
    made = worked("quarter_hip", settings)
    assert sewn(made.pattern("front"), "side_seam") == pytest.approx(sewn(made.pattern("back"), "side_seam"), abs=1e-3)


def test_a_hip_at_the_waist_is_refused() -> None:
    with pytest.raises(DraftError, match="hip lies too close"):
        worked("quarter_hip", None, hip_depth=60.0)
