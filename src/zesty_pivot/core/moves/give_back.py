"""Width that an intake took out of a panel's upper end, given back outside: shoulder and underarm extended, armhole redrawn."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves.shaping import Knot, displaced, ended_at
from zesty_pivot.core.piece import Piece, Run
from zesty_pivot.core.piece.heights import crossings, edges_at


def given_back(
    panel: Piece, top: float, taken: Callable[[float], float], *, underarm: bool, keeps: float | None
) -> tuple[Piece, float]:
    """A side panel with `top` mm given back outside its upper end, and how much longer (mm) its armhole is.

    The shoulder is extended straight on by `top`. The armhole goes out at its middle by what was `taken` (mm) at that height
    (y), and keeps its
    direction at the underarm. The underarm stays, unless `underarm` is asked for or the panel has no
    shoulder: then it goes out by what was taken at its height, and the side seam is led back to where it was at the height
    `keeps`, so that nothing below is wider. Source: common practice, no source.

    Raises GeometryError when a dart opens in what is redrawn.
    """
    roles = [panel.role(run.edge) for run in panel.runs]
    armhole = [index for index, role in enumerate(roles) if role == "armhole"]
    if not armhole:
        raise GeometryError("the panel has no armhole to redraw", where=panel.name, advice="Give nothing back.")
    runs = list(panel.runs)
    if any(runs[index].mouth for index in armhole):
        raise GeometryError("a dart opens in the armhole", where=panel.name, advice="Move it before the line is cut.")
    before, after = (armhole[0] - 1) % len(runs), panel.after(armhole[-1])
    tip = np.zeros(2)
    if roles[before] == "shoulder":
        path = runs[before].path
        straight_on = Path.straight(path.end, path.end + path.end_direction * top) if top > 0.0 else None
        longer = path.split_at(path.length + top)[0] if straight_on is None else Path.chain([path, straight_on])
        tip = longer.end - path.end
        runs[before] = replace(runs[before], path=longer)
    stretches = [runs[index].path for index in armhole]
    starts = np.cumsum([0.0, *(path.length for path in stretches)]).tolist()
    half, under = (float(point[1]) for point in (_point_at(stretches, starts[-1] / 2.0), stretches[-1].end))
    has_shoulder = roles[before] == "shoulder"
    out = np.array([taken(under), 0.0]) if underarm or not has_shoulder else np.zeros(2)
    knots: list[Knot] = [(0.0, tip), (starts[-1], out)]
    if has_shoulder:
        knots[1:1] = [(starts[-1] / 2.0, np.array([taken(half), 0.0]))]
    for index, path in zip(armhole, displaced(stretches, knots, slopes={starts[-1]: np.zeros(2)}), strict=True):
        runs[index] = replace(runs[index], path=path)
    longer_mm = sum(runs[index].path.length for index in armhole) - starts[-1]
    if np.abs(out).max() > 0.0:
        runs[after] = replace(runs[after], path=_led_out(runs[after].path, out, keeps))
    return replace(panel, runs=tuple(runs)), longer_mm


def _point_at(stretches: Sequence[Path], along: float) -> Vector:
    for path in stretches:
        if along <= path.length:
            return path.point_at(along)
        along -= path.length
    return stretches[-1].end


def _led_out(side: Path, out: Vector, keeps: float | None) -> Path:
    """A side seam whose upper end goes out; from the height `keeps` down, or the joint below, it stays."""
    met = [along for along, _x in crossings([side], keeps) if along > 10.0] if keeps is not None else []
    if not met or met[0] > side.length - 1.0:
        return ended_at(side, start=side.start + out)
    upper, lower = side.split_at(met[0])
    return Path.chain([ended_at(upper, start=upper.start + out), lower])


def widened(before: Piece, after: Piece, levels: Mapping[str, float]) -> dict[str, float]:
    """How much further out (mm) a side panel's side seam is at each level, where it moved."""
    found: dict[str, float] = {}
    if all(one is two for one, two in zip(_side_runs(before), _side_runs(after), strict=False)):
        return found
    for name, y in levels.items():
        one, two = (edges_at(panel, "side_seam", y) for panel in (before, after))
        if one and two and abs(two[0][1] - one[0][1]) > 1e-6:
            found[name] = two[0][1] - one[0][1]
    return found


def _side_runs(panel: Piece) -> list[Run]:
    return [run for run in panel.runs if panel.role(run.edge) == "side_seam"]
