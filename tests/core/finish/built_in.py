"""Differences built into a seam."""

from dataclasses import replace

import numpy as np

from tests.samples import real_pattern
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.edge import Run, Source


def with_built_in(mm: float, low: float, high: float) -> Pattern:
    """The real block with `mm` more in the back's side seam between two shares of it; ends stay where they are.

    The stretch is drawn as a shallow bow whose length is what is wanted, found by bisection.
    """
    pattern = real_pattern()
    back = pattern.piece("back")
    index = next(k for k, run in enumerate(back.runs) if run.edge == "side_seam")
    run = back.runs[index]
    size = run.path.length
    first, rest = run.path.split_at(low * size)
    middle, last = (rest, None) if high == 1.0 else rest.split_at((high - low) * size)
    way = middle.end - middle.start
    out = np.array([way[1], -way[0]]) / np.hypot(*way)
    small, large = 0.0, 100.0
    for _ in range(200):
        bow = (small + large) / 2
        bowed = Path(
            np.array([[middle.start, middle.start + way / 3 + out * bow, middle.end - way / 3 + out * bow, middle.end]])
        )
        small, large = (bow, large) if bowed.length < middle.length + mm else (small, bow)
    at = run.source.at
    parts = [
        Run("side_seam", first, Source(run.source.edge, at(0.0), at(low))),
        Run("side_seam", bowed, Source(run.source.edge, at(low), at(high))),
    ]
    if last is not None:
        parts.append(Run("side_seam", last, Source(run.source.edge, at(high), at(1.0))))
    changed = replace(back, runs=(*back.runs[:index], *parts, *back.runs[index + 1 :]))
    return pattern.with_piece(changed)
