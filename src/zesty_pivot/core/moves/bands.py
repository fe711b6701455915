"""A band of even width cut off along an edge, the darts in the edge folded shut while it is drawn and cut."""

from __future__ import annotations

import itertools

import numpy as np

from zesty_pivot.core.conventions.sewing import Sewing, at_sewn_points, closing_angle, closing_point
from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Motion, Path, unit
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.moves.cut import part_of, part_twice
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.style_lines import parallel, refuse_unclear
from zesty_pivot.core.piece import Piece, Place, Run, Source, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.region import arc
from zesty_pivot.core.record import record, replace


@record
class Banded:
    """What is left of the piece, the band, and the line between them as it lies with the darts shut."""

    kept: Piece
    band: Piece
    line: Path


def band_off(
    piece: Piece, edge: str, width: float, ends: tuple[Place, Place], line: str, name: str, sewing: Sewing
) -> Banded:  # fmt: skip
    """The piece without a band of `width` mm along an edge, and the band. `ends` are the places on the seams before and behind
    the edge, `line` is the id of the new edge, `name` the band's.

    Darts that open in the edge are shut along the legs they are sewn by: the band has none, and what is left keeps them, open
    at the line. What the shorter mouth changes of their angles at the pivot stands in the account. Source: paper folded shut
    and cut through, common practice, no source.

    Raises GeometryError when the band does not lie clear in the piece.
    """
    indices = [index for index, run in enumerate(piece.runs) if run.edge == edge]
    shuts = _shutting(piece, indices, sewing)
    start, stop = (places.point(piece, place) for place in ends)
    drawn = parallel(
        [piece.runs[k].path.moved(shut) for k, shut in zip(indices, shuts, strict=True)], width, start, shuts[-1](stop)
    )
    stretches = _parted(piece, indices, shuts, drawn, sewing)
    mouths = [piece.runs[k].mouth for k in indices[:-1] if piece.runs[k].mouth is not None]
    shown = at_sewn_points(piece, [dart for dart in mouths if dart is not None], sewing)
    for stretch in stretches:
        refuse_unclear(shown, stretch)
    parted, one, two = part_twice(piece, *ends)
    freed, rest = arc(parted, parted.after(one), two), arc(parted, parted.after(two), one)
    if any(parted.runs[k].mouth for k in (*freed[: freed.index(_first(parted, edge))], freed[-1])):
        raise GeometryError("a dart opens beside the band", where=piece.name, advice="Move it away, or make the band narrower.")
    total, at = drawn.length, 0.0
    lines: list[Run] = []
    for number, stretch in enumerate(stretches):
        source = Source(line, at / total, (at + stretch.length) / total)
        lines.append(Run(line, stretch, source, mouths[number] if number < len(mouths) else None))
        at += stretch.length
    points = [point for stretch in stretches for point in stretch.outline]
    kept = part_of(parted, rest, (*[parted.runs[k] for k in rest], *lines), piece.name, points, STYLE_LINE)
    band = part_of(parted, freed, _laid(parted, freed, edge, shuts, line, drawn), name, points[::-1], STYLE_LINE)
    for dart in mouths:
        pivot, more = kept.dart(dart or "").pivot, kept.angle(dart or "") - piece.angle(dart or "")
        kept = replace(kept, added=(*kept.added, (pivot, more)))
    return Banded(kept, replace(band, landmarks={}, added=(), taken=(), let_in=()), drawn)


def _first(piece: Piece, edge: str) -> int:
    return next(index for index, run in enumerate(piece.runs) if run.edge == edge)


def _shutting(piece: Piece, indices: list[int], sewing: Sewing) -> list[Motion]:
    """For each run of an edge the motion that brings it to the first as it lies with the darts between them sewn shut."""
    found = [Motion.shift(np.zeros(2))]
    for index in indices[:-1]:
        dart = piece.runs[index].mouth
        turn = (
            Motion.shift(np.zeros(2))
            if dart is None
            else Motion.turn(closing_point(piece, dart, sewing), -closing_angle(piece, dart, sewing))
        )
        found.append(turn.then(found[-1]))
    return found


def _parted(piece: Piece, indices: list[int], shuts: list[Motion], drawn: Path, sewing: Sewing) -> list[Path]:
    """The line's stretches between the shut legs that it crosses, each as it lies when the darts are open again."""
    cuts, motions = [0.0], [shuts[0]]
    for number, index in enumerate(indices[:-1]):
        dart = piece.runs[index].mouth
        if dart is None:
            continue
        pin = shuts[number](closing_point(piece, dart, sewing))
        leg = shuts[number](piece.mouth(dart)[0]) - pin
        reach = float(np.hypot(*leg))
        hits = [hit for hit in with_line(drawn.cubics, pin, unit(leg)) if JOIN_TOL < hit[2] < reach]
        met = sorted(drawn.distance_of(segment, t) for segment, t, _out in hits)  # at a joint it is met twice
        if not met or met[-1] - met[0] > JOIN_TOL * 10.0:
            what = f"the band reaches past the point of the {dart_words(piece, dart)} dart"
            raise GeometryError(what, where=piece.name, advice="Make it narrower, or move the dart away.")
        cuts.append(met[0])
        motions.append(shuts[number + 1])
    cuts.append(drawn.length)
    if any(after - before <= 1.0 for before, after in itertools.pairwise(cuts)):
        raise GeometryError(
            "two darts meet at the band", where=piece.name, advice="Make it narrower, or move one of them away."
        )
    return [
        drawn.between(one, two).moved(motion.undone)
        for (one, two), motion in zip(itertools.pairwise(cuts), motions, strict=True)
    ]


def _laid(piece: Piece, freed: tuple[int, ...], edge: str, shuts: list[Motion], line: str, drawn: Path) -> tuple[Run, ...]:
    """The runs of the band, its darts shut, closed by the line walked backwards."""
    found: list[Run] = []
    number = 0
    for index in freed:
        run = piece.runs[index]
        motion = shuts[min(number, len(shuts) - 1)]
        if run.edge == edge:
            number += 1
        found.append(replace(run, path=run.path.moved(motion), mouth=None))
    return (*found, Run(line, drawn.reversed(), Source(line, 1.0, 0.0)))
