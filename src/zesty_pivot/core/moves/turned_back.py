"""Turned back: a facing cut in one with an edge, drawn beyond it as it lies on the paper before it is folded back."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.moves.facing import INNER
from zesty_pivot.core.piece.edge import Run, Source
from zesty_pivot.core.piece.hanging import TurnedBack
from zesty_pivot.core.piece.mark import Mark
from zesty_pivot.core.piece.piece import Piece, well_begun

COWL = ".cowl"  # how the provenance of an edge ends that hangs

WEIGHT = 6.0  # mm, the radius of the mark for a weight, and how far inside the tip its middle lies. Common practice, no source


def cowl_runs(piece: Piece, edge: str) -> list[int]:
    """The stretches of an edge, as a half calls it, while they are a cowl's."""
    return [k for k, run in enumerate(piece.runs) if piece.sides.name(run.edge) == edge and run.source.edge.endswith(COWL)]


def turned_out(piece: Piece) -> tuple[Piece, tuple[tuple[str, Path], ...]]:
    """The piece with its facings turned out, a weight marked at the tip, and the fold lines with the edges that they are.
    An edge that was drawn anew since has none."""
    folds: list[tuple[str, Path]] = []
    for facing in piece.turned_back:
        runs = cowl_runs(piece, facing.edge)
        if runs:
            folds += [(piece.runs[k].edge, piece.runs[k].path) for k in runs]
            piece = _on_half(piece, facing, runs[0]) if len(runs) == 1 else _on_whole(piece, facing)
    return replace(piece, turned_back=()), tuple(folds)


def _seam(path: Path, long: float, mirror: Motion, *, at_start: bool) -> Path:
    """The facing's seam: the mirror image of the shoulder beside the edge, from the loose edge down to it."""
    long = min(long, path.length - 1e-3)
    part = path.between(0.0, long).reversed() if at_start else path.between(path.length - long, path.length)
    return part.moved(mirror)


def _loose(top: Vector, end: Vector, out: Vector) -> Path:
    """The loose edge from the centre, which it leaves square, outwards."""
    reach = float((end - top) @ out) * 0.5
    return Path(np.array([[top, top + out * reach, end + (top - end) * 0.25, end]]))


def _on_half(piece: Piece, facing: TurnedBack, at: int) -> Piece:
    run, before, after = piece.runs[at], piece.runs[at - 1], piece.runs[piece.after(at)]
    fold = run.path
    mirror = Motion.reflect(fold.start, fold.end - fold.start)
    top = fold.start + unit(mirror(before.path.start) - fold.start) * facing.centre_mm
    seam = _seam(after.path, facing.seam_mm, mirror, at_start=True)
    loose = _loose(top, seam.start, unit(fold.end - fold.start))
    source, called = f"{piece.name}.{facing.edge}.facing", f"{after.edge}_facing"
    new = [
        Run(before.edge, Path.straight(before.path.end, top), Source(f"{source}.centre", 0.0, 1.0)),
        Run(INNER, loose, Source(f"{source}.{INNER}", 0.0, 1.0)),
        Run(called, seam, Source(f"{source}.{called}", 0.0, 1.0)),
    ]
    return _exchanged(piece, [at], new, {INNER: INNER, called: piece.role(after.edge)}, top, unit(fold.start - top))


def _on_whole(piece: Piece, facing: TurnedBack) -> Piece:
    """On an unfolded piece, where both halves of the edge make one line."""
    piece = replace(piece, runs=(piece.runs[-1], *piece.runs[:-1]))  # it begins at the centre, in the middle of that line
    runs = cowl_runs(piece, facing.edge)
    first, last = piece.runs[runs[0]], piece.runs[runs[-1]]
    before, after = piece.runs[runs[0] - 1], piece.runs[piece.after(runs[-1])]
    middle, out = first.path.end, unit(last.path.end - first.path.start)
    mirror = Motion.reflect(middle, out)
    top = middle + np.array([out[1], -out[0]]) * facing.centre_mm
    here = _seam(before.path, facing.seam_mm, mirror, at_start=False).reversed()
    there = _seam(after.path, facing.seam_mm, mirror, at_start=True)
    loose = Path.chain([_loose(top, here.end, -out).reversed(), _loose(top, there.start, out)])
    source, (one, two) = f"{piece.name}.{facing.edge}.facing", (f"{before.edge}_facing", f"{after.edge}_facing")
    new = [
        Run(one, here, Source(f"{source}.{one}", 0.0, 1.0)),
        Run(INNER, loose, Source(f"{source}.{INNER}", 0.0, 1.0)),
        Run(two, there, Source(f"{source}.{two}", 0.0, 1.0)),
    ]
    roles = {one: piece.role(before.edge), INNER: INNER, two: piece.role(after.edge)}
    return _exchanged(piece, runs, new, roles, top, unit(middle - top))


def _exchanged(
    piece: Piece, gone: list[int], new: list[Run], roles: dict[str, str], top: Vector, inwards: Vector
) -> Piece:  # fmt: skip
    """The ring with runs in the place of others, begun where an edge does, and the mark for a weight inside the tip."""
    edges = {piece.runs[k].edge for k in gone}
    runs = (*piece.runs[: gone[0]], *new, *piece.runs[gone[-1] + 1 :])
    known = [(edge, role) for edge, role in piece.roles if edge not in edges] + list(roles.items())
    at = top + inwards * 2.0 * WEIGHT
    weight = Mark("weight", "hole", at=(float(at[0]), float(at[1])), radius=WEIGHT)
    said = Mark("weight.text", "text", at=(float(at[0] + inwards[1] * 22.0), float(at[1])), text="weight")
    return replace(piece, runs=well_begun(runs, dict(known)), roles=tuple(known), marks=(*piece.marks, weight, said))
