"""A lay for pieces on a cloth, by whichever way fits: searched for on open cloth, filled on folded cloth, with stripes or
checks, and where pieces are locked."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from threading import Event

from zesty_pivot.core.nest.cloth import Cloth
from zesty_pivot.core.nest.cut_pieces import CutPiece
from zesty_pivot.core.nest.fill import Phase, filled
from zesty_pivot.core.nest.lay import LayPlan, OnCloth
from zesty_pivot.core.nest.strip import searched_strip

SECONDS = 5  # enough for ten pieces
MANY, LONGER = 15, 20  # pieces from which on it takes so many seconds


def lays(
    cloth: Cloth, pieces: Sequence[CutPiece], *, phases: dict[str, Phase] | None = None, locked: Sequence[OnCloth] = (),
    seconds: int | None = None, stop: Event | None = None,
) -> Iterator[LayPlan]:  # fmt: skip
    """Shorter and shorter lays; the last is the one. Never longer than by laying one by one. Raises ZestyError for cloth that
    is none and for pieces that do not lie on it."""
    cloth = cloth.checked()
    if not pieces:
        yield LayPlan(cloth, (), ())
        return
    best: LayPlan | None = None
    for plan in filled(cloth, pieces, phases, locked):
        if best is None or plan.length < best.length:
            best = plan
            yield plan
        if stop is not None and stop.is_set():
            return
    assert best is not None
    if cloth.is_folded or any(cloth.repeat) or locked:
        return
    most = seconds if seconds is not None else (LONGER if len(pieces) > MANY else SECONDS)
    for plan in searched_strip(cloth, pieces, most, stop) if most > 0 else ():
        if plan.length < best.length - 1e-6:
            best = plan
            yield plan
