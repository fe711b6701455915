"""The second layer of a yoke: a copy that is a turn of cloth smaller where both layers are turned, so that it rolls inside."""

from __future__ import annotations

import math

from zesty_pivot.core.errors import GeometryError, StepError
from zesty_pivot.core.geometry import Path, between
from zesty_pivot.core.geometry.crossing import of_curves
from zesty_pivot.core.moves.offset import begun_at, beside
from zesty_pivot.core.piece import EdgeRef, Extra, Follow, Pattern, Piece, Run, SeamSide, Source
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import replace

TURNED = ("neckline", "armhole")  # edges where the layers are sewn and turned, or bound together with the sleeve
BELOW = ("waist", "hem", "side_seam")  # what a yoke has none of

SMOOTH = 0.02  # radians; a smaller turn is no corner, lines beside both meet as they are
REACH = 8.0  # turns of cloth that a line is drawn on past its end, to meet the next. Our own choice


def yokes(pattern: Pattern, names: list[str]) -> list[Piece]:
    """The yokes among some pieces, or of what comes from them: parts with a shoulder or neckline and nothing below the yoke's
    seam; of front and back joined, the one piece. Raises StepError where there is none."""
    found = [piece for piece in pattern.pieces if _is_yoke(piece)]
    mine = [piece for piece in found if piece.name in names or (piece.of or piece.name) in names]
    if not mine:
        what = f"there is no yoke of the {' and '.join(words(name) for name in names)}"
        raise StepError(what, where=names[0], advice="Cut a yoke off first.")
    return mine


def _is_yoke(piece: Piece) -> bool:
    roles = set(dict(piece.roles).values())
    return "style_line" in roles and bool(roles & {"shoulder", "neckline"}) and not roles & set(BELOW)


def yoke_facing(pattern: Pattern, piece: Piece, shade: float, cut: str) -> Extra:
    """The second layer of a yoke, `shade` mm smaller along neckline and armhole. Raises GeometryError where an edge is too
    short for that."""
    made = replace(_smaller(piece, shade), name=f"{piece.name}_facing", of="")
    follows = []
    for edge, role in made.roles:
        if role in (*TURNED, "style_line"):
            side = SeamSide((EdgeRef(piece.name, edge),))
            follows.append(Follow(edge, side, pattern.sewn_length(side) - made.edge(edge).sewn_length))
    return Extra(made, "yoke facing", (piece.name,), tuple(follows), cut)


def _smaller(piece: Piece, by: float) -> Piece:
    """The piece without a strip `by` mm wide along its turned edges; the seams beside them are so much shorter."""
    if by <= 0.0:
        return piece
    runs, reach = piece.runs, REACH * by
    lines = [_drawn_on(beside(run.path, by), reach) if _is_turned(piece, run) else run.path for run in runs]
    cuts = [[reach, line.length - reach] if _is_turned(piece, run) else [0.0, line.length]
            for run, line in zip(runs, lines, strict=True)]  # fmt: skip
    for one, run in enumerate(runs):
        two = piece.after(one)
        goes_on = abs(between(run.path.end_direction, runs[two].path.start_direction)) < SMOOTH
        if run.mouth is None and not goes_on and (_is_turned(piece, run) or _is_turned(piece, runs[two])):
            cuts[one][1], cuts[two][0] = _meeting(lines[one], lines[two], run)
    made = []
    for run, line, (start, stop) in zip(runs, lines, cuts, strict=True):
        if start >= stop:
            what = f"the {words(run.edge)} is too short to take a turn of cloth off"
            raise GeometryError(what, where=piece.name, advice="Take less off.")
        source = run.source if _is_turned(piece, run) else _parted(run.source, start / line.length, stop / line.length)
        made.append(replace(run, path=line.between(start, stop), source=source))
    for one, two in zip(range(len(made)), (*range(1, len(made)), 0), strict=True):  # to the last bit
        if made[one].mouth is None:
            made[two] = replace(made[two], path=begun_at(made[two].path, made[one].path.end))
    return replace(piece, runs=tuple(made))


def _is_turned(piece: Piece, run: Run) -> bool:
    return piece.role(run.edge) in TURNED


def _drawn_on(path: Path, reach: float) -> Path:
    """A line with straight ends drawn on, to be cut where it meets what is beside it."""
    first, last = path.start_direction * reach, path.end_direction * reach
    return Path.chain([Path.straight(path.start - first, path.start), path, Path.straight(path.end, path.end + last)])


def _meeting(one: Path, two: Path, run: Run) -> tuple[float, float]:
    """How far (mm) along both lines they meet near the corner behind a run. Raises GeometryError where they do not."""
    hits = [(one.distance_of(i, t), two.distance_of(j, u)) for i, t, j, u in of_curves(one.cubics, two.cubics)]
    if not hits:
        what = f"no turn of cloth can be taken off at the end of the {words(run.edge)}"
        raise GeometryError(what, advice="Take less off, or true the edges there first.")
    return min(hits, key=lambda hit: math.dist(one.point_at(hit[0]), run.path.end))


def _parted(source: Source, start: float, stop: float) -> Source:
    return replace(source, u0=source.at(start), u1=source.at(stop))
