"""HP-GL as plotters are sent it: absolute places in whole units, 40 to the millimetre (HP-GL reference), pen by pen."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.plotter.frames import Frame

UNITS = 40  # in a millimetre
PAIRS = 16  # places to an instruction: small buffers hold a few hundred characters and must take it whole

Line = NDArray[np.float64]


def plot(frames: Sequence[Frame]) -> bytes:
    """All frames, the paper moved on after each. Lines of one pen are drawn together, each next the one that lies nearest."""
    parts = ["IN;"]
    for frame in frames:
        across = frame.size[1]
        for pen in sorted({number for number, _line in frame.lines}):
            parts.append(f"SP{pen};")
            for line in _in_turn([line for number, line in frame.lines if number == pen]):
                parts += _drawn(line, across)
        parts.append("PU;SP0;PG;\n")
    return "".join(parts).encode("ascii")


def _drawn(line: Line, across: float) -> Iterable[str]:
    """Up to the first place, down to the others; y is counted up from the lower edge."""
    steps = np.stack([np.rint(line[:, 0] * UNITS), np.rint((across - line[:, 1]) * UNITS)], axis=1).astype(np.int64)
    steps = steps[np.append(True, np.any(np.diff(steps, axis=0) != 0, axis=1))]
    places = [f"{x},{y}" for x, y in steps.tolist()]
    yield f"PU{places[0]};"
    rest = places[1:] or places  # a line shorter than a step is a dot
    for at in range(0, len(rest), PAIRS):
        yield f"PD{','.join(rest[at : at + PAIRS])};"
    yield "PU;\n"


def _in_turn(lines: list[Line]) -> Iterable[Line]:
    """Lines in the order in which the pen finds them, turned round where their other end lies nearer."""
    if not lines:
        return
    ends = np.array([(line[0], line[-1]) for line in lines])
    left = np.ones(len(lines), dtype=bool)
    here = np.zeros(2)
    for _ in lines:
        far = np.hypot(*(ends - here).transpose(2, 0, 1))
        far[~left] = np.inf
        number, end = divmod(int(far.argmin()), 2)
        left[number] = False
        here = ends[number, 1 - end]
        yield lines[number] if end == 0 else lines[number][::-1]
