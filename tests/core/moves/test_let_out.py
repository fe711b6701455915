"""The side seam let out: square to it by what is asked, the corners beside it and every dart's angle as they were."""

import math

import numpy as np
import pytest

from tests.samples import hip_block, move, real_block, style
from tests.torture.blocks import block
from zesty_pivot.core.conventions.sewing import PLAIN
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.moves.neckline import let_out
from zesty_pivot.core.moves.redraw import corner
from zesty_pivot.core.piece import Piece


def piece_of(number: int, on: str, at: str | None) -> Piece:
    """A piece with its darts as the block has them, or one opened at a share of its side seam."""
    base = [real_block(), hip_block(), block(3), block(9), block(12)][number]
    steps = [{**move("waist", "french", on=on), "to": {"edge": "side_seam", "at": at}}] if at else []
    return derive(style(steps, base)).pattern.piece(on)


def ends(piece: Piece) -> tuple[int, int]:
    """The numbers of the runs before the side seam and at its end."""
    side = [index for index, run in enumerate(piece.runs) if piece.role(run.edge) == "side_seam"]
    return side[0] - 1, side[-1]


@pytest.mark.parametrize("amounts", [(10.0, 0.0), (20.0, 30.0), (-8.0, 5.0), (15.0, -10.0)])
@pytest.mark.parametrize("at", [None, "5%", "40%", "90%", "97%"])
@pytest.mark.parametrize("number", range(5))
def test_angles_and_corners_stay(number: int, at: str | None, amounts: tuple[float, float]) -> None:
    before = piece_of(number, "front", at)
    after = let_out(before, *amounts)
    for dart in before.darts:
        assert after.angle(dart.id) == pytest.approx(before.angle(dart.id), abs=1e-9), dart.id
    for one, two in zip(ends(before), ends(after), strict=True):
        assert corner(after, two, PLAIN) == pytest.approx(corner(before, one, PLAIN), abs=1e-6)
    upper, lower = (np.hypot(*np.subtract(a, b)) for a, b in zip(_corners(after), _corners(before), strict=True))
    assert upper == pytest.approx(abs(amounts[0]), abs=1e-6)
    if before.runs[ends(before)[1]].mouth is None and at is None:
        assert lower == pytest.approx(abs(amounts[1]), abs=1e-6)
    assert math.copysign(1.0, after.area - before.area) == math.copysign(1.0, sum(amounts))


def _corners(piece: Piece) -> tuple[np.ndarray, np.ndarray]:
    first, last = ends(piece)
    return piece.runs[first].path.end, piece.runs[last].path.end


def test_nothing_asked_for_is_nothing_done() -> None:
    piece = piece_of(0, "front", None)
    assert let_out(piece, 0.0, 0.0) is piece
