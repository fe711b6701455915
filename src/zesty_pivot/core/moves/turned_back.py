"""Turned back: a facing cut in one with an edge, drawn beyond it as it lies on the paper before it is folded back."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.geometry.angles import Vector, unit
from zesty_pivot.core.moves.facing import INNER
from zesty_pivot.core.piece.edge import Run, Source
from zesty_pivot.core.piece.hanging import TurnedBack
from zesty_pivot.core.piece.mark import Mark
from zesty_pivot.core.piece.piece import Piece, well_begun
from zesty_pivot.core.record import replace

COWL = ".cowl"  # how the provenance of an edge ends that hangs

STRAIGHT = 0.01  # mm that a straight edge may be off: it is folded there
WEIGHT = 6.0  # mm, the radius of the mark for a weight, and how far inside the tip its middle lies. Common practice, no source


def falls_from(piece: Piece, index: int) -> bool:
    """Whether a run of the ring ends where a cowl under the arm falls from: where front and back were laid together."""
    one, two = (piece.runs[k].source.edge.partition(".")[0] for k in (index, piece.after(index)))
    return one != two and any(run.source.edge.endswith(COWL) and piece.role(run.edge) == "armhole" for run in piece.runs)


def turned_out(piece: Piece) -> tuple[Piece, tuple[tuple[str, Path], ...]]:
    """The piece with its facings turned out, a weight marked at the tip, and the fold lines with the edges that they are.
    An edge that was drawn anew since has none, and one that is no longer straight."""
    folds: list[tuple[str, Path]] = []
    for facing in piece.turned_back:
        groups = [[piece.runs[k] for k in group] for group in straight_groups(piece, facing.edge)]
        for number, runs in enumerate(groups):
            folds += [(edge, _chained(runs, edge)) for edge in dict.fromkeys(run.edge for run in runs)]
            first = next(k for k, run in enumerate(piece.runs) if run.path is runs[0].path)
            if first + len(runs) > len(piece.runs):  # the ring begins in the middle of it
                piece, first = replace(piece, runs=(*piece.runs[first:], *piece.runs[:first])), 0
            gone = list(range(first, first + len(runs)))
            mark = "weight" if number == 0 else f"weight-{number + 1}"
            is_half = piece.role(piece.runs[first - 1].edge) == "centre"
            piece = (_on_half if is_half else _on_both)(piece, facing, gone, mark)
    return replace(piece, turned_back=()), tuple(folds)


def straight_groups(piece: Piece, edge: str) -> list[list[int]]:
    """The runs of a cowl's edge as a half calls it, those of one straight line together, in their order along it."""
    runs = [k for k, run in enumerate(piece.runs) if piece.sides.name(run.edge) == edge]
    found: list[list[int]] = []
    for k in runs:
        if found and piece.after(found[-1][-1]) == k:
            found[-1].append(k)
        else:
            found.append([k])
    if len(found) > 1 and piece.after(found[-1][-1]) == found[0][0]:  # the ring begins in the middle of it
        found = [[*found[-1], *found[0]], *found[1:-1]]
    return [group for group in found if _is_straight([piece.runs[k] for k in group])]


def _is_straight(runs: list[Run]) -> bool:
    """Whether runs are one straight line, and a cowl's."""
    points = np.concatenate([run.path.cubics.reshape(-1, 2) for run in runs])
    along = unit(points[-1] - points[0])
    off = np.abs((points - points[0]) @ np.array([-along[1], along[0]])).max()
    return bool(off <= STRAIGHT) and any(run.source.edge.endswith(COWL) for run in runs)


def _chained(runs: list[Run], edge: str) -> Path:
    mine = [run.path for run in runs if run.edge == edge]
    return Path.straight(mine[0].start, mine[-1].end)


def _seam(path: Path, long: float, mirror: Motion, *, at_start: bool) -> Path:
    """The facing's seam: the mirror image of the shoulder beside the edge, from the loose edge down to it."""
    long = min(long, path.length - 1e-3)
    part = path.between(0.0, long).reversed() if at_start else path.between(path.length - long, path.length)
    return part.moved(mirror)


def _loose(top: Vector, end: Vector, out: Vector) -> Path:
    """The loose edge from the centre, which it leaves square, outwards."""
    reach = float((end - top) @ out) * 0.5
    return Path(np.array([[top, top + out * reach, end + (top - end) * 0.25, end]]))


def _on_half(piece: Piece, facing: TurnedBack, gone: list[int], mark: str) -> Piece:
    before, after = piece.runs[gone[0] - 1], piece.runs[piece.after(gone[-1])]
    fold = Path.straight(piece.runs[gone[0]].path.start, piece.runs[gone[-1]].path.end)
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
    return _exchanged(
        piece, gone, new, {INNER: INNER, called: piece.role(after.edge)}, top, unit(fold.start - top), mark, is_half=True
    )


def _on_both(piece: Piece, facing: TurnedBack, gone: list[int], mark: str) -> Piece:
    """Where the edge runs from shoulder to shoulder: deepest where both halves of a whole piece meet, else in the middle."""
    first, last = piece.runs[gone[0]], piece.runs[gone[-1]]
    before, after = piece.runs[gone[0] - 1], piece.runs[piece.after(gone[-1])]
    out = unit(last.path.end - first.path.start)
    ends = [piece.runs[k].path.end for k in gone[:-1] if piece.runs[k].edge != piece.runs[k + 1].edge]
    middle = ends[0] if ends else 0.5 * (first.path.start + last.path.end)
    mirror = Motion.reflect(middle, out)
    top = middle + np.array([out[1], -out[0]]) * facing.centre_mm
    here = _seam(before.path, facing.seam_mm, mirror, at_start=False).reversed()
    there = _seam(after.path, facing.seam_mm, mirror, at_start=True)
    loose = Path.chain([_loose(top, here.end, -out).reversed(), _loose(top, there.start, out)])
    source, (one, two) = f"{piece.name}.{facing.edge}.facing", (f"{before.edge}_facing", f"{after.edge}_facing")
    inner = INNER if INNER not in dict(piece.roles) else f"{INNER}-2"
    new = [
        Run(one, here, Source(f"{source}.{one}", 0.0, 1.0)),
        Run(inner, loose, Source(f"{source}.{inner}", 0.0, 1.0)),
        Run(two, there, Source(f"{source}.{two}", 0.0, 1.0)),
    ]
    roles = {one: piece.role(before.edge), inner: INNER, two: piece.role(after.edge)}
    return _exchanged(piece, gone, new, roles, top, unit(middle - top), mark)


def _exchanged(
    piece: Piece, gone: list[int], new: list[Run], roles: dict[str, str], top: Vector, inwards: Vector, mark: str, *,
    is_half: bool = False,
) -> Piece:  # fmt: skip
    """The ring with runs in the place of others, begun where an edge does, and the mark for a weight inside the tip."""
    edges = {piece.runs[k].edge for k in gone}
    runs = (*piece.runs[: gone[0]], *new, *piece.runs[gone[-1] + 1 :])
    known = [(edge, role) for edge, role in piece.roles if edge not in edges] + list(roles.items())
    at = top + inwards * 2.0 * WEIGHT
    # On a half its middle lies on the fold: the word stands beside it, where there is paper.
    word = at + np.array([inwards[1], -inwards[0]]) * 22.0 if is_half else at + inwards * (WEIGHT + 8.0)
    weight = Mark(mark, "hole", at=(float(at[0]), float(at[1])), radius=WEIGHT)
    said = Mark(f"{mark}.text", "text", at=(float(word[0]), float(word[1])), text="weight")
    return replace(piece, runs=well_begun(runs, dict(known)), roles=tuple(known), marks=(*piece.marks, weight, said))
