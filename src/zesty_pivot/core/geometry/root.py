"""Where a function of one number is zero. (SciPy has finer ways, at two thirds of a second more at every start.)"""

from __future__ import annotations

from collections.abc import Callable


def root(work: Callable[[float], float], low: float, high: float) -> float:
    """The argument between `low` and `high` at which `work` changes its sign, halved to the last bit of a number that is not
    near zero. Raises ValueError where both ends have the same sign."""
    first, last = work(low), work(high)
    if first == 0.0 or last == 0.0:
        return low if first == 0.0 else high
    if (first > 0.0) == (last > 0.0):
        raise ValueError(f"no change of sign between {low} and {high}")
    while True:
        middle = 0.5 * (low + high)
        if middle in (low, high):
            return middle
        value = work(middle)
        if value == 0.0:
            return middle
        low, high = (middle, high) if (value > 0.0) == (first > 0.0) else (low, middle)
