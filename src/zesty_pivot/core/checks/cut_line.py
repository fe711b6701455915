"""20: the seam lies inside the cut line by its allowance, everywhere; a piece that has no cut line says so."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np
import shapely
from numpy.typing import NDArray

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.finish.allowance import WITHIN, Stretch
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.geometry.bezier import derivatives, points
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece.names import words

NOISE = 1e-9  # mm

PLACES = np.linspace(0.01, 0.99, 33)  # on each cubic of a seam: at most some 2 cm apart on the longest straight line


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.finished:
        name = words(piece.name)
        if piece.fault:
            yield Finding(
                "cut_line", Severity.ERROR, piece.name, "", f"the {name} has no cut line: {piece.fault}",
                1.0, 0.0, "faults", "Until then it is drawn by its seam lines alone.",
            )  # fmt: skip
            continue
        deep, short = _inside(piece), _short(piece)
        if deep > short + WITHIN:  # worse than a seam that lost its allowance
            yield Finding(
                "cut_line", Severity.ERROR, piece.name, "", f"the cut line of the {name} goes {deep:.1f} mm into the garment",
                deep, WITHIN, "mm", "Do not cut this piece. Cut the dart there away inside, or press it away.",
            )  # fmt: skip
        elif short > WITHIN:
            yield Finding(
                "cut_line", Severity.ERROR, piece.name, "",
                f"the seam of the {name} is {short:.1f} mm too close to its cut line",
                short, WITHIN, "mm", "Do not cut this piece. Give its edges other allowances.",
            )  # fmt: skip


@kept_with
def _inside(piece: FinishedPiece) -> float:
    """How far (mm) the cut line goes into the garment at the worst place."""
    if piece.garment is None:
        return 0.0
    cut = shapely.Polygon(piece.ring)
    # Points apart by the noise of float64 alone cross each other, and a buffer of nothing was seen to drop the cloth for that.
    ring = piece.garment[np.hypot(*np.diff(piece.garment, axis=0, append=piece.garment[:1]).T) > NOISE]
    gone = shapely.Polygon(ring).buffer(0.0).difference(cut.buffer(WITHIN))
    return max((float(cut.exterior.distance(shapely.Point(p))) for p in shapely.get_coordinates(gone)), default=0.0)


@kept_with  # pieces that an edit leaves alone need no second look
def _short(piece: FinishedPiece) -> float:
    """How much of the allowance is missing at the worst place, mm: the part of the way out from the seam, square to it, that
    lies outside the cut line."""
    cut = shapely.Polygon(piece.ring)
    roomy = cut.buffer(WITHIN)
    shapely.prepare(roomy)
    ways = shapely.linestrings(np.concatenate([_ways(stretch) for stretch in piece.stretches]))
    ways = ways[~shapely.covers(roomy, ways)]
    return float(shapely.length(shapely.difference(ways, cut)).max(initial=0.0))


def _ways(stretch: Stretch) -> NDArray[np.float64]:
    """The ways out from places along a stretch, to its allowance: (n, 2, 2) mm."""
    starts = points(stretch.path.cubics, PLACES).reshape(-1, 2)
    along = derivatives(stretch.path.cubics, PLACES).reshape(-1, 2)
    sizes = np.hypot(along[:, 0], along[:, 1])
    starts, along = starts[sizes > 0.0], along[sizes > 0.0] / sizes[sizes > 0.0, None]
    outwards = np.stack([along[:, 1], -along[:, 0]], axis=1)  # the ring runs clockwise on the paper, y down
    return np.stack([starts, starts + outwards * max(stretch.allowance, 1e-6)], axis=1)


CHECK = Check("cut_line", "The seam lies inside the cut line", _run, at_rest=True)
