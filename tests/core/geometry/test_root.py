"""Against SciPy's own."""

from __future__ import annotations

import math

import pytest
from scipy.optimize import brentq

from zesty_pivot.core.geometry.root import root


@pytest.mark.parametrize(("work", "low", "high"), [
    (math.cos, 0.0, 3.0), (lambda x: x**3 - 2.0, 0.0, 2.0), (lambda x: 1.0 - x * x, 0.0, 9.0), (lambda x: x - 1e-9, -1.0, 1.0),
])  # fmt: skip
def test_as_scipy_has_it(work, low: float, high: float) -> None:  # type: ignore[no-untyped-def]
    assert root(work, low, high) == pytest.approx(brentq(work, low, high, xtol=1e-15), rel=1e-12, abs=1e-14)


def test_at_an_end_and_nowhere() -> None:
    assert root(lambda x: x, 0.0, 1.0) == 0.0
    assert root(lambda x: x - 1.0, 0.0, 1.0) == 1.0
    with pytest.raises(ValueError, match="no change of sign"):
        root(lambda x: 1.0 + x * x, 0.0, 1.0)
