"""A fish-eye dart when its piece is turned over, turned, and bowed."""

from __future__ import annotations

import numpy as np
import pytest

from tests.samples import hip_pattern
from zesty_pivot.core.geometry import Motion
from zesty_pivot.core.piece import FishEye

EYE = FishEye("waist", (100.0, 50.0), (112.0, 150.0), (100.0, 260.0), (90.0, 152.0), 1.5)


def test_turned_over_left_and_right_are_exchanged() -> None:
    """`left` has the smaller x wherever the paper is turned over the centre: it is still the left one, at the other's place."""
    over = EYE.moved(Motion.reflect(np.zeros(2), np.array([0.0, 1.0])))
    assert over.left == (-112.0, 150.0) and over.right == (-90.0, 152.0)
    assert over.top == (-100.0, 50.0) and over.bottom == (-100.0, 260.0)
    assert over.left[0] < over.right[0] and over.intake == pytest.approx(EYE.intake)
    twice = over.moved(Motion.reflect(np.zeros(2), np.array([0.0, 1.0])))
    assert np.allclose([twice.top, twice.right, twice.bottom, twice.left], [EYE.top, EYE.right, EYE.bottom, EYE.left])


def test_turned_without_being_turned_over_they_stay() -> None:
    quarter = EYE.moved(Motion.turn(np.zeros(2), np.pi / 2.0))
    assert quarter.right == pytest.approx((-150.0, 112.0)) and quarter.left == pytest.approx((-152.0, 90.0))
    for eye in hip_pattern().piece("front").fisheyes:
        assert eye.left[0] < eye.right[0]
        assert eye.width(0.0) == pytest.approx(eye.intake, abs=0.5)
