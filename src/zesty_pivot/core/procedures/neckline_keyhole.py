"""A keyhole cut into the centre below a neckline: in one with it, or across or down to a yoke seam."""

from __future__ import annotations

import math

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.grain import grain_of_part
from zesty_pivot.core.moves.neckline import hole, holed
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.necklines.keyhole_yoke import seam as yoke_seam
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece, Source, StyleLine
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.bodice_half import nearest_place
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.into_panels import free_line, lined, with_panels
from zesty_pivot.core.procedures.neckline_edges import NeckEdge
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import replace

SEAM_NOTCHES = (0.5,)

LEAST = 5.0  # mm from the widest place to the end, and of either part across a seam. Our own choice


def keyhole(pattern: Pattern, edge: NeckEdge, source: Source, context: Context) -> tuple[Pattern, list[Path]]:
    """The pattern with the opening on the centre, and the seams drawn for it. Raises StepError or GeometryError."""
    asked, unit = edge.asked, context.scope.unit
    has_yoke = "drop" in asked.numbers
    start = asked["depth"] + asked["hole_start"]
    through = has_yoke and asked.through
    widest = asked["drop"] if through else start + asked["hole_height"]
    end = asked["drop"] if has_yoke and not through else widest + asked["hole_end"]
    most = edge.bodice.lowest - 20.0
    if not has_yoke and widest + asked["hole_end"] > most and asked["hole_height"] > asked["hole_end"]:
        room = format_length(max(most - asked["hole_end"] - start, 0.0), unit)
        what = "the keyhole goes past the waist"
        raise StepError(what, where=edge.name, advice=f"Enter up to {room} from its beginning to its widest place.")
    if end > most:
        room = format_length(max(most - (end - asked["hole_end"]), 0.0), unit)
        what = "the keyhole goes past the waist"
        raise StepError(what, where=edge.name, advice=f"Enter up to {room} from its widest place to its end.")
    if end < widest + LEAST or (has_yoke and widest < start + LEAST):
        what = "the keyhole has no room above the yoke seam"
        raise StepError(what, where=edge.name, advice="Lay the seam lower, or begin the keyhole higher.")
    if through and abs(asked["hole_height"] - (asked["drop"] - start)) > 0.5:
        right = format_length(asked["drop"] - start, unit)
        what = "the keyhole's widest place does not lie on the yoke seam"
        raise StepError(what, where=edge.name, advice=f"Leave it empty, or enter {right} from beginning to widest place.")
    _fits_beside(edge, widest, context)
    upper, lower = edge.bodice.start(start), edge.bodice.start(end)
    path = hole(upper, lower, asked["hole_width"], widest - start, end="point" if has_yoke and not through else asked.end)
    is_pointed = asked.end != "round"
    if not has_yoke:
        piece = pattern.piece(edge.name)
        made = holed(piece, _centre_place(piece, upper), _centre_place(piece, lower), path, source, pointed=is_pointed)
        return pattern.with_piece(replace(made, name=edge.name)), []
    pattern, line = _yoke(pattern, edge, asked["drop"], context)
    name = f"{edge.name}_yoke"
    yoke = pattern.piece(name)
    if not through:
        corner = next(i for i, run in enumerate(yoke.runs) if yoke.role(yoke.runs[yoke.after(i)].edge) == "centre"
                      and yoke.role(run.edge) == STYLE_LINE)  # fmt: skip
        low = places.Place(corner, yoke.runs[corner].path.length)
        made = holed(yoke, _centre_place(yoke, upper), low, path, source, pointed=True)
        return pattern.with_piece(replace(made, name=name)), [line]
    side = _on_seam(line, upper, asked["hole_width"], edge)
    below, above = _led(Path(path.cubics[:1]), side, at_end=True), _led(Path(path.cubics[1:]), side, at_end=False)
    cuts = (
        (name, above, _on_line(yoke, side), _centre_place(yoke, upper)),
        (edge.name, below, _centre_place(pattern.piece(edge.name), lower), _on_line(pattern.piece(edge.name), side)),
    )
    for of, part, first, last in cuts:
        made = holed(pattern.piece(of), last, first, part, source, pointed=is_pointed)
        pattern = pattern.with_piece(replace(made, name=of))
    return pattern, [line]


def _on_seam(line: Path, upper: Vector, wide: float, edge: NeckEdge) -> Vector:
    """The point of the yoke seam so far out from the centre. Raises StepError."""
    hits = with_line(line.cubics, np.array([upper[0] + wide, 0.0]), np.array([0.0, 1.0]))
    if not hits:
        raise StepError("the keyhole is as wide as the yoke", where=edge.name, advice="Make it narrower.")
    return line.point_at(line.distance_of(hits[0][0], hits[0][1]))


def _led(path: Path, point: Vector, *, at_end: bool) -> Path:
    """One cubic with an end, and the handle there, put on another point."""
    cubics = path.cubics.copy()
    end, handle = (3, 2) if at_end else (0, 1)
    cubics[0, handle] += point - cubics[0, end]
    cubics[0, end] = point
    return Path(cubics)


def _on_line(piece: Piece, point: Vector) -> places.Place:
    found = nearest_place(piece, point, lambda run: piece.role(run.edge) == STYLE_LINE)
    if found is None:
        raise StepError("the keyhole misses the yoke seam", where=piece.name, advice="Make it narrower.")
    return found


def _fits_beside(edge: NeckEdge, depth: float, context: Context) -> None:
    """Refuses a keyhole as wide as the piece."""
    piece, level = edge.bodice.piece, edge.bodice.top + depth
    xs = [float(point[0]) for run in piece.runs for point in run.path.outline
          if abs(float(point[1]) - level) < 15.0 and piece.role(run.edge) != "centre"]  # fmt: skip
    room = min(xs, default=edge.bodice.tip_x) - 20.0
    if edge.asked["hole_width"] > room:
        text = format_length(edge.asked["hole_width"], context.scope.unit)
        most = format_length(room, context.scope.unit)
        raise StepError(
            f"a keyhole {text} wide from the centre leaves the piece",
            where=edge.name,
            advice=f"Enter up to {most} for half its width.",
        )


def _centre_place(piece: Piece, point: np.ndarray) -> places.Place:
    for index, run in enumerate(piece.runs):
        if piece.role(run.edge) == "centre":
            at = float(np.linalg.norm(point - run.path.start))
            if at <= run.path.length + 1e-6 and math.dist(run.path.point_at(at), point) < 1e-4:
                return places.settled(piece, index, at)
    raise StepError("the keyhole does not lie on the centre", where=piece.name, advice="Begin it lower, or make it shorter.")


def _yoke(pattern: Pattern, edge: NeckEdge, depth: float, context: Context) -> tuple[Pattern, Path]:
    """The yoke cut off along a seam from the centre to the middle of the armhole."""
    piece = pattern.piece(edge.name)
    start = _centre_place(piece, edge.bodice.start(depth))
    stop = resolve(Spot(station="mid_armhole"), piece, context.block.drafted(piece), context.scope, "")
    line = yoke_seam(places.point(piece, start), edge.bodice.square(depth), places.point(piece, stop), edge.asked.form)
    name, seam = f"{edge.name}_yoke", free_line(piece, "yoke")
    kept, yoke = across(piece, start, stop, line, seam, STYLE_LINE, (piece.name, name))
    source = f"{piece.of or piece.name}.{seam}"
    parts = [lined(part, seam, source, SEAM_NOTCHES) for part in (kept, yoke)]
    parts = [replace(part, of=piece.of or piece.name, grain=grain_of_part(part, piece)) for part in parts]
    made = with_panels(pattern, edge.name, parts, (sewn(EdgeRef(piece.name, seam), EdgeRef(name, seam)),))
    style = StyleLine(seam, piece.of or piece.name, (piece.name, name), ())
    return replace(made, lines=(*made.lines, style)), line
