"""Body measurements: their names, how each is taken, what is plausible, and what may stand for one that is missing."""

from zesty_pivot.core.measure.names import BY_NAME, CHART, MEASUREMENTS, Measurement

__all__ = ["BY_NAME", "CHART", "MEASUREMENTS", "Measurement"]
