"""Width that an intake took out of a panel's upper end, given back outside: shoulder and underarm extended, armhole redrawn."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.shaping import Knot, displaced, ended_at
from zesty_pivot.core.piece import Piece, Run
from zesty_pivot.core.piece.heights import crossings, edges_at


def given_back(panel: Piece, top: float, chest: tuple[float, float] | None, *, underarm: bool) -> tuple[Piece, float]:
    """A side panel with `top` mm given back outside its upper end, and how much longer (mm) its armhole is.

    The shoulder is extended straight on by `top`; the armhole is redrawn through the new tip, by `chest` (height y, mm)
    further out at that height, to the underarm, which goes out by `top` as well where `underarm` is asked for (the side
    seam then runs out to it) and stays otherwise. A panel without a shoulder gets it all at the underarm. Source: common
    practice, no source.

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
    out = np.array([top, 0.0]) if underarm or roles[before] != "shoulder" else np.zeros(2)
    stretches = [runs[index].path for index in armhole]
    starts = np.cumsum([0.0, *(path.length for path in stretches)]).tolist()
    knots: list[Knot] = [(0.0, tip), (starts[-1], out)]
    if chest is not None and roles[before] == "shoulder":
        inside = [along for along, _x in crossings(stretches, chest[0]) if 10.0 < along < starts[-1] - 10.0]
        knots[1:1] = [(along, np.array([chest[1], 0.0])) for along in inside[:1]]
    for index, path in zip(armhole, displaced(stretches, knots), strict=True):
        runs[index] = replace(runs[index], path=path)
    longer_mm = sum(runs[index].path.length for index in armhole) - starts[-1]
    if np.abs(out).max() > 0.0:
        runs[after] = replace(runs[after], path=ended_at(runs[after].path, start=runs[armhole[-1]].path.end))
    return replace(panel, runs=tuple(runs)), longer_mm


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
