"""Level: a dart's two legs made equally long about its pivot."""

from __future__ import annotations

from zesty_pivot.core.moves.shaping import ended_at
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.record import replace

TOLD = 0.01  # mm; legs made equal by less are the noise of six decimals in a file


def levelled(piece: Piece, dart: str) -> tuple[Piece, float]:
    """The piece with both ends of a mouth moved along their legs to the mean of both lengths, and how far each moved (mm).

    The seams beside the mouth follow smoothly, and the angle at the pivot stays. Source: common practice, no source.
    """
    one, two = piece.legs(dart)
    if one == two:
        return piece, 0.0
    pin, index = piece.pivot(piece.dart(dart).pivot), piece.mouth_run(dart)
    after, mean = piece.after(index), (one + two) / 2.0
    runs = list(piece.runs)
    runs[index] = replace(runs[index], path=ended_at(runs[index].path, end=pin + (runs[index].path.end - pin) * (mean / one)))
    runs[after] = replace(
        runs[after], path=ended_at(runs[after].path, start=pin + (runs[after].path.start - pin) * (mean / two))
    )
    return replace(piece, runs=tuple(runs)), abs(one - two) / 2.0
