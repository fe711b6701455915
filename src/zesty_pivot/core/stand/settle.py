"""Cloth let go until it rests: Newton's method on its energy, with second derivatives that are made positive, so every step
goes down. The steps are held back at first, and by how far a point may go."""

from __future__ import annotations

import threading
from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.record import record
from zesty_pivot.core.stand.banded import BandedSystem
from zesty_pivot.core.stand.cloth import ElasticCloth

FARTHEST = 30.0  # mm that a point goes in a round at most
STILL = 0.05  # mm: when no point goes farther it is at rest
GAIN = 2e-5  # of the energy: what a round brings that is worth another
CALM = 3  # rounds in a row that bring less before it is called at rest
HELD_FIRST, HELD_LEAST, HELD_MOST = 1e-4, 1e-9, 1e-1  # N a mm³: how much the steps are held back

Points = NDArray[np.float64]


@record(eq=False)
class Round:
    """After a round: where the points are (n, 3) mm, how far the farthest went, mm, and whether it rests."""

    places: Points
    number: int
    moved: float
    rests: bool


def let_go(cloth: ElasticCloth, start: Points, most: int, stop: threading.Event | None = None) -> Iterator[Round]:
    """Rounds until the cloth rests, `most` of them at most; none after the one in which it is stopped."""
    places, energy = start, cloth.energy(start)
    held, calm, equations = HELD_FIRST, 0, None
    for number in range(1, most + 1):
        slope, bend = cloth.slope_and_bend(places)
        if stop is not None and stop.is_set():
            return
        if equations is None:
            equations = BandedSystem(bend)
        way = -equations.solve(bend, held * cloth.masses, slope)
        far = float(np.abs(way).max())
        share = min(1.0, FARTHEST / max(far, 1e-12))
        down = float(slope @ way)
        while True:
            there = cloth.moved(places, share * way)
            found = cloth.energy(there)
            if found <= energy + 1e-4 * share * down or share < 1e-5:
                break
            share *= 0.5
        gain, places, energy = energy - found, there, min(found, energy)
        held = max(0.4 * held, HELD_LEAST) if share == 1.0 else min(3.0 * held, HELD_MOST) if share < 0.25 else held
        calm = calm + 1 if share * far < STILL or gain < GAIN * abs(energy) else 0
        yield Round(places, number, share * far, calm >= CALM)
        if calm >= CALM:
            return
