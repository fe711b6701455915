"""Corrections by dragging: what moves, what stays."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely

from tests.paper_blocks import Lay, pieces_of
from tests.samples import real_block
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.hints import Hints, PieceHints
from zesty_pivot.core.intake.pulled import pulled, pulled_paper
from zesty_pivot.core.intake.traced import TracedPaper, TracedPiece

SQUARE = TracedPiece(Path.straight((0, 0), (200, 0), (200, 300), (0, 300), (0, 0)), error=0.5)


def test_a_corner_takes_its_straight_edges_along() -> None:
    """By hand: the upper right corner 6 mm out and 4 down; the other three and both edges' straightness stay."""
    found = pulled(SQUARE, [((199.0, 1.0), (205.0, 5.0))])
    ring = found.ring
    assert min(math.dist(at, (206.0, 4.0)) for at in ring) < 1e-9
    for corner in ((0, 0), (200, 300), (0, 300)):
        assert min(math.dist(at, corner) for at in ring) < 1e-9
    x, y = 206.0, 4.0
    assert found.region.area == pytest.approx((x * 300 + 200 * (300 - y)) / 2 + 0.0, rel=1e-9)  # half of the diagonals' cross


def test_an_edge_is_bent_where_it_is_dragged() -> None:
    """The place goes where it was dragged; the corners, and the directions there, stay; no new corner."""
    found = pulled(SQUARE, [((200.0, 150.0), (208.0, 150.0))])
    assert float(found.ring[:, 0].max()) == pytest.approx(208.0, abs=1e-6)
    for corner in ((0, 0), (200, 0), (200, 300), (0, 300)):
        assert min(math.dist(at, corner) for at in found.ring) < 1e-9
    right = next(cubic for cubic in found.outline.cubics if math.dist(cubic[0], (200, 0)) < 1e-9)
    assert right[1, 0] == pytest.approx(200.0)  # leaves straight down
    turns = [
        abs(math.degrees(math.atan2(*np.flip(b[1] - b[0])) - math.atan2(*np.flip(a[3] - a[2]))))
        for a, b in zip(found.outline.cubics, np.roll(found.outline.cubics, -1, axis=0), strict=True)
    ]
    assert sum(5.0 < turn % 360.0 < 355.0 for turn in turns) == 4


def test_dragging_back_is_nothing_dragged() -> None:
    for laid in pieces_of(real_block(), Lay()):
        piece = TracedPiece(laid.outline)
        at = laid.corners["underarm"]
        there, back = (float(at[0]), float(at[1])), (float(at[0]) + 7.0, float(at[1]) - 3.0)
        found = pulled(piece, [(there, back), (back, there)])
        one, two = (shapely.LinearRing(outline.flatten(0.003)[:-1]) for outline in (piece.outline, found.outline))
        # Shares of a curve's length are told anew each time: a few hundredths.
        assert shapely.hausdorff_distance(one, two, densify=0.01) < 0.1


def test_what_is_dragged_from_nowhere_changes_nothing_and_hints_count_by_piece() -> None:
    assert pulled(SQUARE, [((500.0, 500.0), (510.0, 500.0))]).region.equals_exact(SQUARE.region, 1e-9)
    paper = TracedPaper((SQUARE, SQUARE))
    hints = Hints({1: PieceHints(pulls=(((200.0, 0.0), (210.0, 0.0)),))})
    found = pulled_paper(paper, hints)
    assert found.pieces[0] is SQUARE and float(found.pieces[1].ring[:, 0].max()) == pytest.approx(210.0)
    assert pulled_paper(paper, Hints()) is paper
