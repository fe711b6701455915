"""A half of the bodice as necklines are drawn on it."""

from dataclasses import replace

import numpy as np
import pytest

from tests.samples import real_pattern
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Run, Source
from zesty_pivot.core.piece.bodice_half import TradeProportions, nearest_place


@pytest.mark.parametrize("share", [0.0, 0.2, 0.5, 0.81, 1.0])
@pytest.mark.parametrize("cuts", [(), (60.0,), (40.0, 110.0)])
def test_a_point_of_an_edge_in_segments_is_found_at_its_length(share: float, cuts: tuple[float, ...]) -> None:
    """Segments are counted on: the joint after the second lies as far as both are long."""
    front = real_pattern().piece("front")
    index = next(k for k, run in enumerate(front.runs) if run.edge == "armhole")
    path, parts, done = front.runs[index].path, [], 0.0
    rest = path
    for cut in cuts:
        first, rest = rest.split_at(cut - done)
        parts.append(first)
        done = cut
    joined = Path(np.concatenate([part.cubics for part in (*parts, rest)]))
    runs = (*front.runs[:index], Run("armhole", joined, Source("front.armhole", 0.0, 1.0)), *front.runs[index + 1 :])

    piece = replace(front, runs=runs)
    for at in (share * path.length, *cuts):
        place = nearest_place(piece, path.point_at(at), lambda run: run.edge == "armhole")
        assert place is not None
        found = place.at if place.run == index else 0.0  # the very start is the joint at the end of the shoulder
        assert found == pytest.approx(at, abs=1e-4)


def test_the_trade_s_block_is_its_own_proportion() -> None:
    """Widths and depths of the block that the figures are for come out as they went in; common practice, no source."""
    inch = 25.4
    own = TradeProportions(neck=3.0 * inch, tip=7.5 * inch, natural=3.0 * inch, bust=10.5 * inch)
    assert own.wide(4.0) == pytest.approx(4.0 * inch) and own.deep(6.5) == pytest.approx(6.5 * inch)
    assert own.scaled(1.5) == pytest.approx(1.5 * inch)
    larger = TradeProportions(neck=3.3 * inch, tip=8.1 * inch, natural=3.2 * inch, bust=12.0 * inch)
    assert larger.wide(3.0) == pytest.approx(3.3 * inch) and larger.wide(7.5) == pytest.approx(8.1 * inch)
    assert larger.deep(3.0) == pytest.approx(3.2 * inch) and larger.deep(10.5) == pytest.approx(12.0 * inch)
