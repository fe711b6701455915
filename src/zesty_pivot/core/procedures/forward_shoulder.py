"""The shoulder seam moved forward: a strip of the front, parallel to the shoulder, goes to the back."""

from __future__ import annotations

import itertools
import math

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path, unit
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.moves import join
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.mirror import flip
from zesty_pivot.core.piece import Notch, Origin, Pattern, Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.side_seam import one_side
from zesty_pivot.core.procedures.taping import fitted
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import replace

NEW = "*shoulder"  # the new seam's id while the old one is there too
SLEEVE = "sleeve"  # the notch that a sleeve is set to: where the shoulder seam was


def moved_forward(pattern: Pattern, front: str, back: str, edges: tuple[str, str], by_mm: float, unit_: Unit) -> Pattern:
    """The pattern with the shoulder seam of a front moved forward by `by_mm`. What one gains the other loses; the sleeve's
    notch stays where the shoulder was.

    Raises StepError or GeometryError where the strip would leave nothing, or meets a dart.
    """
    one, two = one_side(pattern.piece(front), edges[0]), one_side(pattern.piece(back), edges[1])
    seam = one.edge(edges[0]).runs[0].path
    along = unit(seam.end - seam.start)
    inwards = np.array([-along[1], along[0]])
    start = _meets(one, "neckline", seam.start, seam.start + inwards * by_mm, along)
    stop = _meets(one, "armhole", seam.end, seam.start + inwards * by_mm, along)
    if start is None or stop is None:
        most = format_length(min(_long(one, role) for role in ("neckline", "armhole")) / 2.0, unit_)
        what = f"a shoulder seam {format_length(by_mm, unit_)} forward leaves the {words(front)}"
        raise StepError(what, where=front, advice=f"Move it by less, {most} at most.")
    line = Path.straight(places.point(one, start), places.point(one, stop))
    kept, strip = across(one, start, stop, line, NEW, "shoulder", (front, "strip"))
    there = strip.edge(edges[0]).runs[0].path
    strip = flip(strip, there.start, there.end - there.start)
    two = fitted(two, edges[1], strip.edge(edges[0]).runs[0].path) if _unlike(two, strip, edges) else two
    strip = fitted(strip, edges[0], two.edge(edges[1]).runs[0].path)
    made = join.pieces(two, strip, (edges[1], edges[0]), back)
    mark = Notch(f"{SLEEVE}.{back}", SLEEVE, _sleeve_at(two), 2)
    made = replace(made, notches=(*(note for note in made.notches if note.id != mark.id), mark))
    named = f"{one.of or one.name}.shoulder_forward"
    return pattern.with_piece(_called(kept, edges[0], named)).with_piece(_called(made, edges[1], named))


def straightened(piece: Piece, edge: str) -> tuple[Piece, float]:
    """The piece with an edge in which a dart was shut as one straight line, where the dart's legs left a step in it, and how
    far (mm) the line lies off at most. An edge without a step, or with a dart in it, is left as it is."""
    runs = piece.edge(edge).runs
    gaps = [math.dist(one.path.end, two.path.start) for one, two in itertools.pairwise(runs)]
    if not gaps or max(gaps) <= 1e-4 or any(run.mouth for run in runs[:-1]):
        return piece, 0.0
    line = Path.straight(runs[0].path.start, runs[-1].path.end)
    whole = replace(runs[0], path=line, source=replace(runs[0].source, u1=runs[-1].source.u1), mouth=runs[-1].mouth)
    at = piece.runs.index(runs[0])
    made = replace(piece, runs=(*piece.runs[:at], whole, *piece.runs[at + len(runs) :]))
    along = unit(line.end - line.start)
    points = np.concatenate([run.path.outline for run in runs]) - line.start
    return made, float(np.abs(points @ np.array([-along[1], along[0]])).max())


def _unlike(two: Piece, strip: Piece, edges: tuple[str, str]) -> bool:
    return abs(two.edge(edges[1]).sewn_length - strip.edge(edges[0]).sewn_length) > 1e-6


def _long(piece: Piece, role: str) -> float:
    return sum(piece.edge(edge).sewn_length for edge, its in piece.roles if its == role)


def _meets(piece: Piece, role: str, near: Vector, on: Vector, along: Vector) -> Place | None:
    """Where a line meets an edge of a role, the place nearest to a point; None where it does not."""
    found: list[Place] = []
    for index, run in enumerate(piece.runs):
        if piece.role(run.edge) == role:
            found += [
                places.settled(piece, index, run.path.distance_of(segment, t))
                for segment, t, _at in with_line(run.path.cubics, on, along)
            ]
    return min(found, key=lambda place: math.dist(places.point(piece, place), near), default=None)


def _sleeve_at(two: Piece) -> Origin:
    """The place of the armhole where the old shoulder seam met it: where the second piece's armhole begins."""
    first = next(run for run in two.runs if two.role(run.edge) == "armhole")
    return Origin(first.source.edge, first.source.u0, first.source.is_mirrored)


def _called(piece: Piece, edge: str, source: str) -> Piece:
    """The piece with its new seam called as the old one was."""
    runs = tuple(
        replace(run, edge=edge, source=replace(run.source, edge=source)) if run.edge == NEW else run for run in piece.runs
    )
    return replace(piece, runs=runs, roles=tuple((edge if id == NEW else id, role) for id, role in piece.roles))
