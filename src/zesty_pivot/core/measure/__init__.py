"""Body measurements: their names, how each is taken, what is plausible, and what may stand for one that is missing."""

from zesty_pivot.core.measure.names import CHART, MEASUREMENTS, Measurement

__all__ = ["CHART", "MEASUREMENTS", "Measurement"]
