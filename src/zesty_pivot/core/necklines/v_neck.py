"""V: straight to the centre, or slightly bowed in."""

from __future__ import annotations

from zesty_pivot.core.moves.style_lines import bowed
from zesty_pivot.core.necklines.base import Asked, Drawn, EdgePart, NeckShape
from zesty_pivot.core.piece.bodice_half import BodiceHalf


def draw(bodice: BodiceHalf, asked: Asked) -> Drawn:
    """One line from the centre to the shoulder."""
    path = bowed(bodice.start(asked["depth"]), bodice.shoulder.at(asked["width"]), -asked["bow"], 0.5)
    return Drawn((EdgePart(path),), is_pointed=True, bends=False)


# Any width, any depth: common practice, no source.
SHAPE = NeckShape(
    "v", "V", "straight, or slightly bowed in",
    {"width": lambda f, _n: f.trade.wide(3.5), "depth": lambda f, _n: f.trade.deep(6.5), "bow": lambda _f, _n: 0.0},
    draw, back="round", order=50,
)  # fmt: skip
