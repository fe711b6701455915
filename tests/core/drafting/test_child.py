"""Method 4 by hand, in inches: chest 24, half length 10, shoulder 10. Formulas: common practice, no source."""

from __future__ import annotations

import pytest

from tests.core.drafting.worked import sewn, worked
from zesty_pivot.core.drafting.draft import DraftError
from zesty_pivot.core.formats.block_check import check_block
from zesty_pivot.core.formats.style_file import from_block


def near(point, x: float, y: float) -> bool:
    return point == pytest.approx((x, y), abs=1e-5)


def test_the_block_by_hand() -> None:
    made = worked("child")
    for name, neck, hollow in (("front", 2.5, 0.5), ("back", 0.75, 0.0)):
        assert near(made.landmark(name, "centre_neck"), 0, neck)
        assert near(made.landmark(name, "neck_point"), 2.25, 0)
        assert near(made.landmark(name, "shoulder_tip"), 5, 0.5)
        assert near(made.landmark(name, "underarm"), 24 / 4, 0.5 + 10 / 2)  # half the shoulder below the tip
        assert near(made.point(name, "mid"), 5 - hollow, (0.5 + 5.5) / 2)
        assert near(made.landmark(name, "side_waist"), 6, 10)  # no waist measured: straight down
        assert near(made.landmark(name, "centre_waist"), 0, 10)
    assert sewn(made.pattern("front"), "side_seam") == pytest.approx(4.5 * 25.4)
    assert sewn(made.pattern("back"), "side_seam") == pytest.approx(4.5 * 25.4)


def test_it_has_no_dart_and_no_bust_point() -> None:
    made = worked("child")
    for piece in made.block.pieces:
        assert piece.darts == () and piece.fisheyes == () and "bust_point" not in piece.landmarks


def test_a_waist_that_differs_is_marked() -> None:
    made = worked("child", None, waist=22 * 25.4)
    assert near(made.landmark("front", "side_waist"), 22 / 4, 10)
    assert sewn(made.pattern("front"), "waist") == pytest.approx(5.5 * 25.4)


def test_from_the_top_line_the_armhole_is_shallower_by_the_drop() -> None:
    assert near(worked("child", {"armhole_from": "top"}).landmark("front", "underarm"), 6, 5)


def test_the_zip_is_laid_outside_the_seam_and_is_no_part_of_the_block() -> None:
    """The seam stays at CB, so the girth is the child's; a style made of the block has the inch as its allowance there."""
    made = worked("child")
    back = next(piece for piece in made.block.pieces if piece.name == "back")
    assert back.fold is None and back.allowances == {"centre": pytest.approx(25.4)}
    assert from_block(made.block).finish.allowances == {"back.centre": "25.4 mm"}
    plain = worked("child", {"zip_extension": "0"})
    back = next(piece for piece in plain.block.pieces if piece.name == "back")
    assert back.fold == "centre" and back.allowances == {}


def test_it_warns_of_no_ease_of_a_waist_apart_and_of_the_head() -> None:
    made = worked("child", None, waist=19 * 25.4, head=20 * 25.4)
    said = " ".join(
        f"{line.says} {line.advice}" for line in check_block(made.drawn, made.block, "in") if line.title == "Remark"
    )
    assert "no ease" in said and "over 6 % apart" in said
    assert "No cords or ties at a child's neck" in said and "local rules" in said
    roomy = worked("child", {"ease": "3/8 in"})
    assert not [line for line in check_block(roomy.drawn, roomy.block, "in") if line.title == "Remark"]


def test_a_grown_up_is_no_child() -> None:
    with pytest.raises(DraftError, match="is no child's"):
        worked("child", None, bust=37 * 25.4)
