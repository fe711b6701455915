"""The underlay calculator against sums made by hand. Common practice, no source: full knife pleating takes three times."""

import pytest

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.procedures.underlay import profile, underlay


@pytest.mark.parametrize(("kind", "finished", "depth", "count", "cloth"), [
    ("knife", 720.0, 20.0, 16, 720.0 + 16 * 40.0),  # (1400 - 20 - 720) / 40 = 16.5
    ("box", 720.0, 20.0, 8, 720.0 + 8 * 80.0), ("inverted", 300.0, 25.0, 6, 300.0 + 6 * 100.0),
    ("tuck", 300.0, 3.0, 100, 300.0 + 100 * 6.0),
])  # fmt: skip
def test_the_largest_count_that_fits_140_cm(kind, finished: float, depth: float, count: int, cloth: float) -> None:  # type: ignore[no-untyped-def]
    made = underlay(kind, finished, depth, 1400.0, 20.0, None, "cm")
    assert made.count == count and made.cloth == pytest.approx(cloth) and made.left == pytest.approx(1380.0 - cloth)
    assert made.left >= 0.0 and made.spacing * count == pytest.approx(finished)
    points = profile(made)
    assert points[0][0] == 0.0 and points[-1][0] == pytest.approx(finished)


def test_full_knife_pleating_takes_three_times() -> None:
    made = underlay("knife", 360.0, 20.0, 1400.0, 20.0, 18, "cm")
    assert made.times == pytest.approx(3.0) and made.spacing == pytest.approx(made.depth)


@pytest.mark.parametrize(("asked", "said"), [
    (("knife", 0.0, 20.0, 1400.0, 0.0, None), "more than 0"), (("box", 30.0, 20.0, 1400.0, 0.0, None), "2.0 cm deep is wider"),
    (("knife", 1400.0, 20.0, 1400.0, 0.0, None), "not one such pleat fits"),
    (("knife", 100.0, 20.0, 1400.0, 0.0, 9), "5 at most"),
])  # fmt: skip
def test_what_cannot_be_is_told(asked, said: str) -> None:  # type: ignore[no-untyped-def]
    with pytest.raises(ZestyError) as told:
        underlay(*asked, "cm")
    assert said in str(told.value)
