"""The shoulder seam moved forward: its line, what goes over to the back, and how far it may go, by own arithmetic."""

from __future__ import annotations

import math
import re

import numpy as np
import pytest

from tests.samples import move, style
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.piece import Piece

CLEAR = [move("shoulder", "french"), {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"station": "mid_neck"}}]


def forward(by: str) -> tuple[dict[str, Piece], dict[str, Piece], tuple[str, ...]]:
    """Front and back before and after the seam is moved, and why it was not."""
    step = {"do": "yoke.join", "on": "front", "other": "back", "seam": "kept", "forward": by}
    states = derive(style([*CLEAR, step])).derivation
    before, after = ({piece.name: piece for piece in state.pattern.pieces} for state in states.states[-2:])
    return before, after, tuple(str(fault) for _number, fault in states.broken)


def area(piece: Piece) -> float:
    """Of the closed outline, mouths bridged, mm2: by the trapezoids below it."""
    ring = np.concatenate([run.path.flatten(1e-4) for run in piece.runs])
    x, y = ring.T
    return abs(float(np.sum(x * np.roll(y, -1) - np.roll(x, -1) * y))) / 2.0


@pytest.mark.parametrize("mm", [6.0, 12.0, 20.0])
def test_the_seam_lies_so_far_forward_along_all_of_it(mm: float) -> None:
    before, after, faults = forward(f"{mm / 10.0} cm")
    assert not faults
    old, new = (pieces["front"].edge("shoulder").runs[0].path for pieces in (before, after))
    across = np.array([-(old.end - old.start)[1], (old.end - old.start)[0]]) / math.dist(old.start, old.end)
    inside = np.sign(float((before["front"].landmarks["bust_point"] - old.start) @ across))
    for at in (new.start, new.end):
        assert inside * float((at - old.start) @ across) == pytest.approx(mm, abs=1e-6)
    for end, role in ((new.start, "neckline"), (new.end, "armhole")):
        runs = [run.path for run in before["front"].runs if before["front"].role(run.edge) == role]
        outline = np.concatenate([path.flatten(1e-4) for path in runs])
        assert np.hypot(*(outline - end).T).min() < 0.5, role  # on what was the front's neckline, and its armhole


def test_what_the_front_loses_the_back_gains() -> None:
    """The back's shoulder, bent where its dart was shut, is first made the straight one of the front: the same each time."""
    found = []
    for mm in (6.0, 20.0):
        before, after, _faults = forward(f"{mm / 10.0} cm")
        lost, gained = area(before["front"]) - area(after["front"]), area(after["back"]) - area(before["back"])
        assert 0.9 * mm * 120.0 < lost < 1.1 * mm * 126.0  # a strip of the shoulder's length, narrower towards the neck
        found.append(gained - lost)
        front, back = (after[name].edge("shoulder").sewn_length for name in ("front", "back"))
        assert back == pytest.approx(front, abs=0.01)
    assert found[0] == pytest.approx(found[1], abs=1.0)
    start, bend, stop = (before["back"].edge("shoulder").runs[number].path for number in (0, 1, 1))
    one, whole = bend.start - start.start, stop.end - start.start
    assert found[0] == pytest.approx(abs(one[0] * whole[1] - one[1] * whole[0]) / 2.0, rel=0.15)


def test_too_far_says_how_far_it_goes() -> None:
    before, _after, (fault,) = forward("30 cm")
    lengths = [
        sum(run.path.length for run in before["front"].runs if before["front"].role(run.edge) == role)
        for role in ("neckline", "armhole")
    ]
    told = re.search(r"Move it by less, ([\d.]+) cm at most", fault)
    assert told is not None and float(told[1]) == pytest.approx(min(lengths) / 20.0, abs=0.051)
