"""Asymmetric: deep on one side of the front, drawn on the unfolded front."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.necklines.curves import rounded
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """From the shoulder of the other side to that of the deep side, which is drawn at x > 0. As a curve: level at the lowest
    point, `bow` mm beside the centre, and square to both shoulders. With a box corner: straight down from the deep side's
    shoulder to the depth, and from that corner (rounded over `corner` mm) in a curve, or straight, to the other side."""
    x = asked["width"]
    middle = float(bodice.nape[0])
    stop, into = bodice.shoulder.at(x), bodice.shoulder.into(x)
    over = np.array([-1.0, 1.0])
    start = np.array([2.0 * middle, 0.0]) + stop * over
    level = np.array([1.0, 0.0])
    if asked.form in ("box", "straight"):
        corner = np.array([stop[0], bodice.top + asked["depth"]])
        across = Path.straight(start, corner)
        if asked.form == "box":
            across = rounded(start, into * over, corner, -level, hug=0.62)
        return Drawn((EdgePart(_cornered(across, Path.straight(corner, stop), asked["corner"])),), bends=False)
    low = np.array([middle + asked["bow"], bodice.top + asked["depth"]])
    first = rounded(start, into * over, low, -level, hug=0.62)
    last = rounded(low, level, stop, into, hug=0.62)
    return Drawn((EdgePart(Path.chain([first, last])),), bends=False)


def _cornered(one: Path, two: Path, over: float) -> Path:
    """Two lines that meet in a corner, rounded over so many mm of each; at most half of the shorter."""
    over = min(over, one.length / 2.0, two.length / 2.0)
    if over < 0.5:
        return Path.chain([one, two])
    before, after = one.split_at(one.length - over)[0], two.split_at(over)[1]
    corner = one.end
    first, last = before.end, after.start
    arc = Path(np.array([[first, first + (corner - first) * 0.6, last + (corner - last) * 0.6, last]]))
    return Path.chain([before, arc, after])


# 3 1/2 to 4 in wide, 6 1/2 to 7 deep on one side: common practice, no source.
SHAPE = NeckShape(
    "asymmetric", "Asymmetric", "deep on one side, as worn",
    {
        "width": lambda f, _n: f.trade.wide(3.75),
        "depth": lambda f, _n: f.trade.deep(6.75),
        "bow": lambda _f, n: 0.25 * n["width"],
        "corner": lambda _f, _n: 0.0,
    },
    draw, kind="whole", more={"bow": "Lowest point beside the centre", "corner": "Corner rounded over"}, order=120,
    forms=("curve", "box", "straight"),
)  # fmt: skip
