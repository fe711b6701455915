"""The outline through the points of a ruler's net: straight edges, smooth ones through their points or as long as the tape
says, darts up to their tips."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Literal

import numpy as np
from scipy.interpolate import CubicSpline

from zesty_pivot.core.geometry import Path, bezier
from zesty_pivot.core.geometry.angles import unit
from zesty_pivot.core.geometry.root import root
from zesty_pivot.core.intake.loops import clockwise
from zesty_pivot.core.intake.roles import LANDMARKS
from zesty_pivot.core.intake.ruler.net import READS, RulerNet
from zesty_pivot.core.intake.ruler.sheet import RUNS_TO, RulerPiece, is_tip, on_edge
from zesty_pivot.core.intake.traced import Array, Point, TracedPiece
from zesty_pivot.core.record import record

CURVED = ("neckline", "armhole")  # edges that are curves by themselves
FLATTEST, ROUNDEST = 0.15, 3.2  # how strongly a curve leaves its ends, as times its chord: what a tape's length is sought in
NARROW = (0.5, 2.0)  # likewise where points on the curve hold it
PLAIN = 1.0
SAME_TIP = 4.0  # mm


@record(eq=False)
class RuledPiece:
    """A piece as it is drawn, mm; its corners; and by edge how much longer than along the tape it is drawn (mm)."""

    traced: TracedPiece
    corners: Mapping[str, Point]
    along: Mapping[str, float]


def drawn(piece: RulerPiece, net: RulerNet, shift: float = 0.0) -> RuledPiece:
    """The piece, shifted to the right by so many mm. Raises GeometryError where its points make no outline."""
    at = _with_tips_met({id: point + np.array([shift, 0.0]) for id, point in net.points.items()})
    parts: list[Array] = []
    along = {}
    for edge in RUNS_TO:
        runs, legs = _edge(edge, piece, at)
        for number, run in enumerate(runs):
            parts.append(run)
            if number < len(legs):
                parts += [bezier.line(*leg)[None] for leg in legs[number]]
        wanted = piece.along.get(edge)
        if wanted is not None:
            along[edge] = sum(float(bezier.lengths(run).sum()) for run in runs) - wanted
    parts.append(bezier.line(at["centre_waist"], at["centre_neck"])[None])
    outline = clockwise(Path(np.concatenate(parts)))
    worst = max((abs(off) for off in net.off.values()), default=0.0)
    corners = {name: (float(at[name][0]), float(at[name][1])) for name in LANDMARKS}
    return RuledPiece(TracedPiece(outline, name=piece.body.value, error=max(2.0 * READS, worst)), corners, along)


def _with_tips_met(at: Mapping[str, Array]) -> dict[str, Array]:
    """Tips of darts that lie nearly on each other in their middle: they were measured to one point, each with its own error."""
    tips = [id for id in at if is_tip(id)]
    found = dict(at)
    for id in tips:
        near = [at[other] for other in tips if float(np.hypot(*(at[id] - at[other]))) <= SAME_TIP]
        found[id] = np.mean(near, axis=0)
    return found


def _edge(edge: str, piece: RulerPiece, at: Mapping[str, Array]) -> tuple[list[Array], list[tuple[tuple[Array, Array], ...]]]:
    """The stretches of an edge between its darts, as chains of cubics, and the legs of the darts between them."""
    ids = on_edge(edge, piece.items)
    stretches: list[list[Array]] = [[]]
    legs: list[tuple[tuple[Array, Array], ...]] = []
    for id in ids:
        if is_tip(id):
            continue
        if ":" in id and id.endswith("b"):
            tip = at[id[:-1] + "tip"]
            legs.append(((stretches[-1][-1], tip), (tip, at[id])))
            stretches.append([])
        stretches[-1].append(at[id])
    is_plain = edge not in CURVED and all(len(one) == 2 for one in stretches)
    if is_plain:
        return [bezier.line(*one)[None] for one in stretches], legs
    start, end = _ways(edge, piece, at)
    bounds = (FLATTEST, ROUNDEST) if all(len(one) == 2 for one in stretches) else NARROW

    def runs(pull: float) -> list[Array]:
        last = len(stretches) - 1
        return [
            _smooth(points, start if k == 0 else None, end if k == last else None, pull) for k, points in enumerate(stretches)
        ]

    wanted = piece.along.get(edge)
    return runs(_pull(runs, wanted, *bounds) if wanted is not None else PLAIN), legs


def _pull(runs: Callable[[float], list[Array]], wanted: float, flattest: float, roundest: float) -> float:
    """How strongly the curve leaves its ends for it to be as long as the tape says; the nearest there is."""

    def longer(pull: float) -> float:
        return sum(float(bezier.lengths(run).sum()) for run in runs(pull)) - wanted

    low, high = longer(flattest), longer(roundest)
    if (low > 0.0) == (high > 0.0):
        return flattest if abs(low) < abs(high) else roundest
    return root(longer, flattest, roundest)


def _ways(edge: str, piece: RulerPiece, at: Mapping[str, Array]) -> tuple[Array | None, Array | None]:
    """How a curve begins and ends by habit: square to the centre at the neck, square to the shoulder at both of its ends, level
    under the arm. Common practice, no source."""
    shoulder = [id for id in on_edge("shoulder", piece.items) if not is_tip(id)]
    first, last = unit(at[shoulder[1]] - at[shoulder[0]]), unit(at[shoulder[-1]] - at[shoulder[-2]])
    if edge == "neckline":
        return np.array([1.0, 0.0]), np.array([first[1], -first[0]])
    if edge == "armhole":
        return np.array([-last[1], last[0]]), np.array([1.0, 0.0])
    return None, None


def _smooth(points: Sequence[Array], start: Array | None, end: Array | None, pull: float) -> Array:
    """A smooth line through points, (k, 4, 2): the cubic spline by their chords; its ends leave in the given directions by
    `pull` times the speed of the chord, else freely."""
    places = np.stack(points)
    steps = np.hypot(*np.diff(places, axis=0).T)
    if len(places) == 2 and start is None and end is None:
        return bezier.line(places[0], places[1])[None]
    t = np.concatenate([[0.0], np.cumsum(np.maximum(steps, 1e-6))])
    free: tuple[Literal[1, 2], Array] = (2, np.zeros(2))
    first: tuple[Literal[1, 2], Array] = (1, start * pull) if start is not None else free
    last: tuple[Literal[1, 2], Array] = (1, end * pull) if end is not None else free
    spline = CubicSpline(t, places, bc_type=(first, last))
    ways = spline(t, 1)
    third = np.diff(t)[:, None] / 3.0
    return np.stack([places[:-1], places[:-1] + ways[:-1] * third, places[1:] - ways[1:] * third, places[1:]], axis=1)
