"""Lines beside lines, measured by shapely."""

import numpy as np
import pytest
import shapely

from tests.samples import real_pattern
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.offset import beside


@pytest.mark.parametrize("name", ["front", "back"])
@pytest.mark.parametrize("by", [1.5, 5.0])
def test_a_line_beside_a_line_is_everywhere_at_one_distance(name: str, by: float) -> None:
    """From the lines of a drafted block to the one beside them, and inside the piece; but for the ends, which go no further."""
    piece = real_pattern().piece(name)
    for run in piece.runs:
        made, rim = beside(run.path, by), shapely.LineString(run.path.flatten(1e-4))
        points = [made.point_at(made.length * share) for share in np.linspace(0.05, 0.95, 19)]
        assert [rim.distance(shapely.Point(point)) for point in points] == pytest.approx([by] * 19, abs=2e-3)
        middle = run.path.point_at(run.path.length / 2.0)
        way = run.path.direction_at(run.path.length / 2.0)
        assert (points[9] - middle) @ np.array([-way[1], way[0]]) == pytest.approx(by, abs=0.05)


def test_a_handle_in_its_end_is_no_fault() -> None:
    flat = Path(np.array([[[0.0, 0.0], [0.0, 0.0], [60.0, 0.0], [60.0, 0.0]]]))
    assert beside(flat, 2.0).start.tolist() == [0.0, 2.0] and beside(flat, 2.0).end.tolist() == [60.0, 2.0]
