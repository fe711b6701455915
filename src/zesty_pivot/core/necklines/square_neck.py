"""Square: straight down, straight across."""

from __future__ import annotations

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.frame import Frame


def draw(frame: Frame, asked: Asked) -> Drawn:
    """From the centre across, then up to the shoulder."""
    x, depth = asked["width"], asked["depth"]
    start = frame.start(depth)
    return Drawn((EdgePart(Path.straight(start, (x, start[1]), frame.on_shoulder(x))),), bends=False)


# 4 in wide; not too wide or it slips off: common practice, no source.
SHAPE = NeckShape(
    "square", "Square", "straight down, straight across",
    {"width": lambda f, _n: f.wide(4.0), "depth": lambda f, _n: f.deep(4.5)},
    draw, order=20,
)  # fmt: skip
