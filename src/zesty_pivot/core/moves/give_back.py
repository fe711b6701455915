"""Width that an intake took out of a panel's upper end, given back outside: shoulder and underarm extended, armhole redrawn."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector, between
from zesty_pivot.core.moves.shaping import Knot, displaced, ended_at
from zesty_pivot.core.piece import Piece, Run
from zesty_pivot.core.piece.heights import crossings, edges_at
from zesty_pivot.core.record import replace

_SHORTEST = 3.0  # mm of a shoulder that is shortened. Our own choice
_SECANTS = 20
_LEAST = 1e-9  # mm, below which nothing goes out, and a seam is as long as it was


def given_back(
    panel: Piece, top: float, taken: Callable[[float], float], *, underarm: Vector | None, keeps: float | None
) -> tuple[Piece, float]:
    """A side panel with `top` mm given back outside its upper end, and how much longer (mm) its armhole is.

    The shoulder is extended straight on by `top`. The armhole goes out at its middle by what was `taken` (mm) at that height
    (y), where that is of the same kind as at the top, and keeps its direction at the underarm. The underarm goes out by
    `underarm` (2,) mm; when that is not given it stays, or on a panel without a shoulder goes out by what was taken there.
    The side seam is led back to where it was `keeps` mm down it, so that nothing below is wider; swung from there it stays as
    long as its partner. Source: common practice, no source.

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
        if path.length + top < _SHORTEST:
            raise GeometryError(
                f"the side panel's shoulder is too short to lose {-top / 10.0:.1f} cm of what the darts give", where=panel.name,
                advice="Take in more at the top, or leave it to the darts.",
            )  # fmt: skip
        straight_on = Path.straight(path.end, path.end + path.end_direction * top) if top > 0.0 else None
        longer = path.split_at(path.length + top)[0] if straight_on is None else Path.chain([path, straight_on])
        tip = longer.end - path.end
        runs[before] = replace(runs[before], path=longer)
    stretches = [runs[index].path for index in armhole]
    starts = np.cumsum([0.0, *(path.length for path in stretches)]).tolist()
    half, under = (float(point[1]) for point in (_point_at(stretches, starts[-1] / 2.0), stretches[-1].end))
    has_shoulder = roles[before] == "shoulder"
    aside = underarm if underarm is not None else np.array([0.0 if has_shoulder else _alike(taken(under), top), 0.0])
    out = _outwards(runs[after].path, aside, keeps)
    knots: list[Knot] = [(0.0, tip), (starts[-1], out)]
    if has_shoulder:
        knots[1:1] = [(starts[-1] / 2.0, np.array([_alike(taken(half), top), 0.0]))]
    for index, path in zip(armhole, displaced(stretches, knots, slopes={starts[-1]: np.zeros(2)}), strict=True):
        runs[index] = replace(runs[index], path=path)
    longer_mm = sum(runs[index].path.length for index in armhole) - starts[-1]
    if np.abs(out).max() > 0.0:
        runs[after] = replace(runs[after], path=_led_out(runs[after].path, out, keeps))
    return replace(panel, runs=tuple(runs)), longer_mm


def _alike(mm: float, top: float) -> float:
    return mm if mm * top > 0.0 else 0.0


def _point_at(stretches: Sequence[Path], along: float) -> Vector:
    for path in stretches:
        if along <= path.length:
            return path.point_at(along)
        along -= path.length
    return stretches[-1].end


def _is_kept(side: Path, keeps: float | None) -> bool:
    return keeps is not None and 10.0 < keeps < side.length - 1.0


def _outwards(side: Path, aside: Vector, keeps: float | None) -> Vector:
    """How a side seam's upper end goes aside, (2,) mm: down as well, so that the seam stays as long as its partner."""
    wide = float(np.hypot(*aside))
    if wide < _LEAST:
        return np.zeros(2)
    down = np.array([-aside[1], aside[0]]) / wide * (1.0 if aside[0] > 0.0 else -1.0)

    def longer(by: float) -> float:
        return _led_out(side, aside + by * down, keeps).length - side.length

    one, two, off, beyond = 0.0, wide, longer(0.0), longer(wide)
    if off * beyond >= 0.0:
        return aside
    for _secant in range(_SECANTS):  # the seam grows shorter nearly evenly
        if abs(beyond) <= _LEAST or beyond == off:
            break
        one, two, off = two, two - beyond * (two - one) / (beyond - off), beyond
        beyond = longer(two)
    return aside + two * down


def _led_out(side: Path, out: Vector, keeps: float | None) -> Path:
    """A side seam whose upper end goes out; from so far (mm) down it, or from the joint below, it stays."""
    if keeps is None or not _is_kept(side, keeps):
        return ended_at(side, start=side.start + out)
    upper, lower = side.split_at(keeps)
    return Path.chain([ended_at(upper, start=upper.start + out), lower])


def along_the_chest(piece: Piece, panel: Piece) -> Vector:
    """Which way the chest line of a piece goes outwards on its side panel, (2,): where a dart in the side was shut, all above
    it has swung about its point, the armhole with it."""
    ends = [[run.path for run in one.runs if one.role(run.edge) == "armhole"] for one in (piece, panel)]
    if not all(ends):
        return np.array([1.0, 0.0])
    swung = between(*(paths[-1].end_direction for paths in ends))
    return np.array([math.cos(swung), math.sin(swung)])


def down_the_side(piece: Piece, y: float) -> float | None:
    """How far (mm) the height `y` of a piece lies down its sewn side seam; where a dart opens there, at the dart."""
    stretches = [run.path for run in _side_runs(piece)]
    met = crossings(stretches, y)
    if met:
        return met[0][0]
    above = sum(path.length for path in stretches if path.end[1] < y)
    return above or None


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
