"""How a yoke's seam is sewn: plain, lapped over what is below, or with a piping in it."""

from __future__ import annotations

import math
from typing import Literal

from zesty_pivot.core.conventions.schools import UNDER_A_LAP
from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Extra, Pattern
from zesty_pivot.core.piece.names import LAPPED_UNDER, words
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.strips import rectangle
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import replace

YokeSeam = Literal["plain", "lapped", "piped"]

MOST_CORD = 20.0  # mm


def sewn_as(pattern: Pattern, how: YokeSeam, over: str, under: str, edge: str, context: Context) -> Outcome:
    """The pattern of a half with the seam `edge` of two pieces marked for how it is sewn; a plain one has no mark."""
    if how != "lapped":
        return Outcome(pattern)
    piece = pattern.piece(under)
    made = pattern.with_piece(replace(piece, sewn_as=(*piece.sewn_as, (edge, LAPPED_UNDER, UNDER_A_LAP))))
    more = format_length(UNDER_A_LAP, context.scope.unit, fine=True)
    text = f"the {words(over)} is turned under and laps over the {words(under)}, whose allowance is {more} wider there"
    return Outcome(made, (Note(text, under, UNDER_A_LAP),))


def with_piping(pattern: Pattern, over: str, under: str, cord: float, context: Context) -> Outcome:
    """The pattern with the strip for a piping in the seam of two pieces, on the bias, for both halves: as long as the seam and
    as wide as the way round the `cord` (mm thick), with allowances outside like those of any piece. Source: pi times the
    thickness.

    Raises StepError for a cord that is no cord.
    """
    unit = context.scope.unit
    if not 0.0 < cord <= MOST_CORD:
        what = f"a cord of {format_length(cord, unit, fine=True)} in a piping"
        raise StepError(what, where=over, advice=f"Enter more than 0, up to {format_length(MOST_CORD, unit)}; 3 mm is usual.")
    piece = pattern.piece(over)
    line = next(line for line in reversed(pattern.lines) if set(line.panels) == {over, under})
    edges = [edge for edge, _role in piece.roles if piece.sides.name(edge) == piece.sides.name(line.id)]
    long = piece.times * sum(piece.edge(edge).sewn_length for edge in edges)
    wide = math.pi * cord
    strip = rectangle(f"{over}_piping", long, wide)
    bias = ((wide * 0.2, long / 2.0 - wide * 0.3), (wide * 0.8, long / 2.0 + wide * 0.3))
    extra = Extra(replace(strip, grain=bias), "piping", (over,), cut="one")
    text = (
        f"a bias strip for the piping, {format_length(long, unit)} by {format_length(wide, unit, fine=True)} and its allowances"
    )
    return Outcome(replace(pattern, extras=(*pattern.extras, extra)), (Note(text, over, long),))
