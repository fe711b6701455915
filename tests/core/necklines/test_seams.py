"""Curves of yoke seams and of edges that end square: where they leave and arrive, and on which side they bow."""

from __future__ import annotations

import numpy as np
import pytest

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.curves import bent
from zesty_pivot.core.necklines.keyhole_yoke import seam

START, OUT, STOP = np.array([0.0, 180.0]), np.array([1.0, 0.0]), np.array([150.0, 140.0])


@pytest.mark.parametrize("form", ["heart", "curve", "straight"])
def test_a_yoke_seam_runs_outwards_all_the_way(form: str) -> None:
    path = seam(START, OUT, STOP, form)
    line = path.flatten(1e-3)
    assert path.start == pytest.approx(START) and path.end == pytest.approx(STOP)
    assert (np.diff(line[:, 0]) > -1e-9).all()
    if form == "curve":  # it leaves the centre square
        assert path.start_direction == pytest.approx(OUT, abs=1e-9)
    if form == "heart":  # it rises from the centre to the middle of its way, level there on both sides
        first, last = path.cubics
        assert first[3][0] == pytest.approx(STOP[0] / 2.0) and first[3][1] < START[1] - 20.0
        assert (first[3] - first[2])[1] == pytest.approx(0.0) and (last[1] - last[0])[1] == pytest.approx(0.0)
        assert (last[1] - last[0])[0] > 0.0


def test_an_edge_that_is_bent_ends_along_the_way_asked_for() -> None:
    """Its end turns into the line that is asked for; all before stays, and the bend lies between both."""
    path = Path(np.array([[(0.0, 0.0), (60.0, 5.0), (120.0, 40.0), (150.0, 90.0)]]))
    into = np.array([-1.0, -0.2]) / np.hypot(1.0, 0.2)
    made = bent(path, into, 40.0)
    assert made.end == pytest.approx(path.end) and made.end_direction == pytest.approx(-into, abs=1e-6)
    kept = path.length - 40.0
    for share in (0.1, 0.5, 0.9):
        assert made.point_at(share * kept) == pytest.approx(path.point_at(share * kept), abs=1e-6)
    # No longer than the way round by the corner of both lines, and nowhere beside them.
    assert 39.0 < made.length - kept < 80.0
    box_low, box_high = made.outline.min(axis=0), made.outline.max(axis=0)
    assert (box_low >= -1e-6).all() and (box_high <= (160.0, 95.0)).all()
