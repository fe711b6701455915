"""The ends of panels' lines: how far they are apart, drawn longer or shorter, and the edges that they end on led to them."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.shaping import displaced
from zesty_pivot.core.piece import Run
from zesty_pivot.core.record import replace

NARROW = 5.0  # mm under which only what lies across counts. Our own choice


def opening(left: Vector, right: Vector, asked: float) -> float:
    """How far (mm) two ends are apart; negative when they have passed each other. Where next to nothing is `asked` they may
    stand one above the other, and only what lies across counts."""
    across = right - left
    return float(across[0]) if asked < NARROW else math.copysign(math.hypot(*across), across[0])


def extended(path: Path, by: float, *, at_start: bool) -> Path:
    """A line longer by a length (mm) at one end, straight on; shorter where negative."""
    if abs(by) <= JOIN_TOL:
        return path
    if at_start:
        return extended(path.reversed(), by, at_start=False).reversed()
    if by < 0.0:
        return path.split_at(path.length + by)[0]
    return Path.chain([path, Path.straight(path.end, path.end + path.end_direction * by)])


def led_to(runs: list[Run], back: float, corner: Vector, *, outwards: bool) -> list[Run]:
    """The runs of an edge, given from the line on, drawn back by a length there, and their first end put on a point; the change
    dies away along them. `outwards` tells that they run away from the line."""
    turned = runs if outwards else [replace(run, path=run.path.reversed(), source=run.source.turned()) for run in runs]
    while len(turned) > 1 and back >= turned[0].path.length - JOIN_TOL:
        back -= turned[0].path.length
        turned = turned[1:]
    first = turned[0]
    if back > JOIN_TOL:
        share = back / first.path.length
        first = replace(first, path=first.path.split_at(back)[1], source=first.source.parted(share)[1])
    elif back < -JOIN_TOL:
        start = first.path.start
        more = Path.straight(start + first.path.start_direction * back, start)
        first = replace(first, path=Path.chain([more, first.path]))
    turned = [first, *turned[1:]]
    paths = [run.path for run in turned]
    if np.abs(corner - paths[0].start).max() > JOIN_TOL:
        total = sum(path.length for path in paths)
        paths = list(displaced(paths, [(0.0, corner - paths[0].start), (total, np.zeros(2))], held=(False, True)))
    cubics = paths[0].cubics.copy()
    cubics[0, 0] = corner
    paths[0] = Path(cubics)
    led = [replace(run, path=path) for run, path in zip(turned, paths, strict=True)]
    if outwards:
        return led
    return [replace(run, path=run.path.reversed(), source=run.source.turned()) for run in led]
