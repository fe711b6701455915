"""Where two lines cross, against points found by hand."""

from __future__ import annotations

import numpy as np
import pytest

from zesty_pivot.core.geometry.angles import lines_cross


def test_two_lines_cross_at_the_point_found_by_hand() -> None:
    """y = 2x + 1 and y = -x + 7 cross at (2, 5), whichever is named first and whichever way each runs."""
    one, two = np.array([0.0, 1.0]), np.array([7.0, 0.0])
    for way in (np.array([1.0, 2.0]), np.array([-1.0, -2.0])):
        for other in (np.array([-1.0, 1.0]), np.array([1.0, -1.0])):
            assert lines_cross(one, way, two, other, least=0.1) == pytest.approx([2.0, 5.0])
            assert lines_cross(two, other, one, way, least=0.1) == pytest.approx([2.0, 5.0])


def test_lines_that_run_nearly_alike_do_not_cross() -> None:
    nearly = np.array([1.0, 0.01])
    assert lines_cross(np.zeros(2), np.array([1.0, 0.0]), np.ones(2), nearly, least=0.02) is None
    assert lines_cross(np.zeros(2), np.array([1.0, 0.0]), np.ones(2), nearly, least=0.005) == pytest.approx([-99.0, 0.0])
