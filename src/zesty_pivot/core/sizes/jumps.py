"""The steps between the sizes of a chart, and which of them go off: a slip of the pen in a chart costs every size above it."""

from __future__ import annotations

import itertools
from collections.abc import Sequence

from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.chart import SizeChart

# A step that differs from the one before and the one after by more than a third of them and 3 mm, to the same side, stands out;
# steps that grow towards the large sizes do not. Our own choice, no source.
OFF_SHARE, OFF_MM = 1.0 / 3.0, 3.0


@record
class Jump:
    """From one size to the next of a group: how much a measurement grows, mm; `is_odd` where that stands out."""

    measure: str
    group: str
    before: str
    after: str
    mm: float
    is_odd: bool


def jumps(chart: SizeChart) -> tuple[Jump, ...]:
    """All of them, by measurement, group and size. Raises FormulaError for a size that cannot be worked out."""
    found = []
    for group in chart.groups:
        sizes = chart.of_group(group)
        lengths = [chart.lengths(size) for size in sizes]
        for name in MEASUREMENTS:
            known = [(size.name, mm[name]) for size, mm in zip(sizes, lengths, strict=True) if name in mm]
            steps = [two[1] - one[1] for one, two in itertools.pairwise(known)]
            for n, (one, two) in enumerate(itertools.pairwise(known)):
                found.append(Jump(name, group, one[0], two[0], steps[n], stands_out(steps, n)))
    return tuple(found)


def stands_out(steps: Sequence[float], n: int, least: float = OFF_MM) -> bool:
    """Whether a step (mm) lies off both its neighbours to the same side, by more than `least` and a third of them; at an end,
    off its one neighbour and the next."""
    beside = [steps[k] for k in (n - 1, n + 1) if 0 <= k < len(steps)]
    if len(beside) == 1 and len(steps) > 2:
        beside.append(steps[2 if n == 0 else len(steps) - 3])
    if len(beside) < 2:
        return False
    off = [steps[n] - other for other in beside]
    limit = max(least, OFF_SHARE * max(abs(other) for other in beside))
    return all(one > limit for one in off) or all(one < -limit for one in off)
