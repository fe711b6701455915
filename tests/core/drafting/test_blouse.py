"""Method 5 by hand, in inches: bust 38, waist 30, shoulder 15, span 7 1/2, bust point 10 1/2 and under-bust 13 1/2 down.

The front is common practice, no source; widths, chest level and the back are our own.
"""

from __future__ import annotations

import math

import pytest

from tests.core.drafting.worked import dist, sewn, worked
from zesty_pivot.core.drafting.draft import DraftError
from zesty_pivot.core.formats.block_check import shut_corner

CHEST = 38 / 6 + 1.5  # 7.8333


def near(point, x: float, y: float) -> bool:
    return point == pytest.approx((x, y), abs=1e-4)


def test_the_numbered_points_by_hand() -> None:
    made = worked("blouse_four_darts")
    at = {
        number: made.point("front", f"P{number}")
        for number in (1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 23, 25, 26, 27)
    }
    wide = 38 / 4 + 0.5  # 10
    assert near(at[1], 0, 13.5 + 4) and near(at[2], wide, 0) and near(at[3], wide, 17.5)
    assert near(at[4], 0, CHEST) and near(at[9], wide, CHEST)
    assert near(at[5], 7.5, 0) and near(at[23], 7.5, CHEST) and near(at[6], 7.5, 0.5)
    assert near(at[7], 38 / 12, 0) and near(at[8], 0, 38 / 12)
    assert near(at[10], 30 / 4 + 0.5, 17.5) and near(at[11], 0, 13.5)
    # 12: 3 in from 10 towards 9; |10-9| = hypot(2, 9.6667) = 9.87140, so (8 + 3 x 2/9.8714, 17.5 - 3 x 9.6667/9.8714).
    far = math.hypot(2, 17.5 - CHEST)
    p12 = (8 + 3 * 2 / far, 17.5 - 3 * (17.5 - CHEST) / far)
    assert near(at[12], *p12) and p12 == pytest.approx((8.60782, 14.56222), abs=1e-4)
    ux, uy = p12[0] / math.hypot(p12[0], p12[1] - 13.5), (p12[1] - 13.5) / math.hypot(p12[0], p12[1] - 13.5)
    assert near(at[13], 0, 10.5) and near(at[14], 3.75, 10.5)
    assert near(at[15], 3.75 * ux, 13.5 + 3.75 * uy)
    long = math.hypot(p12[0], p12[1] - 13.5) + 2  # the waist dart's 2 in given back
    assert near(at[27], long * ux, 13.5 + long * uy)
    assert near(at[25], 7.0, CHEST / 2) and near(at[26], 0, 12.5)
    # 16: 1 1/2 in up the side from 27 towards 9; its mouth half an inch to each side; 17 an inch above 23.
    side = (10 - long * ux, CHEST - (13.5 + long * uy))
    along = (side[0] / math.hypot(*side), side[1] / math.hypot(*side))
    for name, up in (("P16", 1.5), ("P36_mark", 2.0), ("P35", 1.0)):
        assert near(made.point("front", name), long * ux + up * along[0], 13.5 + long * uy + up * along[1])
    assert near(made.point("front", "P17"), 7.5, CHEST - 1) and near(made.point("front", "P24"), 7.5, CHEST / 2)
    # The neck's box of 38/12 = 3.1667 by as much, and the middles of its sides.
    box = 38 / 12
    assert near(made.point("front", "P20"), box, box)
    assert near(made.point("front", "P22"), box / 2, box) and near(made.point("front", "P21"), box, box / 2)


def test_sewn_points_mouths_and_extensions() -> None:
    made = worked("blouse_four_darts")
    bp = (3.75, 10.5)
    for number in (29, 30, 31, 32):
        assert dist(made.point("front", f"P{number}"), bp) == pytest.approx(1.0, abs=1e-6)
    assert near(made.point("front", "P37"), 0, 10.0) and near(made.point("front", "P38"), 0, 11.0)
    assert near(made.point("front", "P34"), 7.5, CHEST - 1 + 0.5) and near(made.point("front", "P33_mark"), 7.5, CHEST - 1.5)
    assert near(made.point("front", "P39"), 8.0, CHEST - 1)
    middle, out = made.point("front", "P16"), made.point("front", "P28")
    assert dist(middle, out) == pytest.approx(0.75, abs=1e-6) and out[0] > middle[0]
    seam = [made.point("front", f"P{n}") for n in (9, 27)]
    along = (seam[1][0] - seam[0][0], seam[1][1] - seam[0][1])
    assert along[0] * (out[0] - middle[0]) + along[1] * (out[1] - middle[1]) == pytest.approx(0.0, abs=1e-6)
    assert dist(made.point("front", "P18"), made.point("front", "P19_mark")) == pytest.approx(2.0, abs=1e-6)


def test_legs_are_equal_about_the_bust_point_and_the_upper_one_follows() -> None:
    made = worked("blouse_four_darts")
    front = made.pattern("front")
    for dart in ("armhole", "side", "waist", "centre"):
        assert front.legs(dart)[0] == pytest.approx(front.legs(dart)[1], abs=1e-5), dart
    # 33 = level(14; 34, 33): on the ray from (3.75, 10.5) to (7.5, 6.3333), as far as (7.5, 7.3333): 4.9082.
    mark, far = (7.5 - 3.75, CHEST - 1.5 - 10.5), math.hypot(3.75, CHEST - 0.5 - 10.5)
    scale = far / math.hypot(*mark)
    assert near(made.point("front", "P33"), 3.75 + mark[0] * scale, 10.5 + mark[1] * scale) and far == pytest.approx(
        4.9082, abs=1e-4
    )
    # 33 comes visibly inwards, about half an inch; 19 is levelled as well.
    moved = {done.name: done.truing.amount / 25.4 for done in made.drawn.truings if done.truing is not None}
    assert 0.3 < moved["front.P33"] < 0.8 and 0.1 < moved["front.P19"] < 0.4
    rough = worked("blouse_four_darts", {"true_legs": "no"}).pattern("front")
    assert abs(rough.legs("armhole")[0] - rough.legs("armhole")[1]) > 5.0


def test_armhole_and_neck_are_smooth() -> None:
    made = worked("blouse_four_darts")
    front = made.pattern("front")
    assert math.degrees(shut_corner(front, "armhole")) == pytest.approx(0.0, abs=0.01)
    for role in ("neckline", "armhole"):
        for run in front.edge(role).runs:
            for one, two in zip(run.path.cubics[:-1], run.path.cubics[1:], strict=True):
                before, after = one[3] - one[2], two[1] - two[0]
                turn = math.degrees(math.atan2(before[0] * after[1] - before[1] * after[0], before @ after))
                assert abs(turn) < 0.01, role


def test_centre_front_is_a_seam_and_never_on_the_fold() -> None:
    made = worked("blouse_four_darts")
    assert next(piece for piece in made.block.pieces if piece.name == "front").fold is None


def test_the_back_is_as_long_at_the_side_as_the_front_with_its_dart_shut() -> None:
    made = worked("blouse_four_darts")
    front, back = made.pattern("front"), made.pattern("back")
    assert sewn(front, "side_seam") == pytest.approx(sewn(back, "side_seam"), abs=1e-4)
    assert sewn(front, "shoulder") == pytest.approx(sewn(back, "shoulder"), abs=1e-4)
    x, y = made.landmark("back", "side_waist")
    assert x == pytest.approx(30 / 4 + 0.5 + 1)
    assert math.hypot(x - 10, y - CHEST) * 25.4 == pytest.approx(sewn(front, "side_seam"), abs=1e-4)
    assert near(made.landmark("back", "waist_tip"), 3.75, CHEST + 1)


@pytest.mark.parametrize(
    ("settings", "name", "x", "y"),
    [
        ({"length": "15 in"}, "P11", 0, 15), ({"side_add": "1 in"}, "P9", 10.5, CHEST), ({"chest_level": "8 in"}, "P9", 10, 8),
        ({"drop": "1 in"}, "P6", 7.5, 1), ({"neck_width": "3 1/2 in"}, "P7", 3.5, 0), ({"neck_depth": "6 in"}, "P8", 0, 6),
        ({"hollow": "1 in"}, "P25", 6.5, CHEST / 2), ({"hem_up": "0 in"}, "P26", 0, 13.5), ({"half_cf": "1 in"}, "P37", 0, 9.5),
        ({"waist_add": "1 1/4 in"}, "P10", 8.75, 17.5),
    ],
)  # fmt: skip
def test_each_convention_moves_what_it_says(settings: dict, name: str, x: float, y: float) -> None:
    assert near(worked("blouse_four_darts", settings).point("front", name), x, y)


def test_without_an_under_bust_a_length_is_asked_for() -> None:
    with pytest.raises(DraftError, match="neither the shoulder to under-bust nor another length"):
        worked("blouse_four_darts", None, sh_under_bust=None)  # type: ignore[arg-type]
