"""Uneven necklines: the half unfolded with its darts away, cut along an edge from side to side, darts brought back."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.crossing import with_line
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.neckline import neck_hole, neck_source
from zesty_pivot.core.moves.style_lines import refuse_unclear
from zesty_pivot.core.necklines.base import MARK, NeckShape
from zesty_pivot.core.necklines.wrap import edge_from
from zesty_pivot.core.piece import Notch, Origin, Pattern, Piece, Place, Run, Seam, SeamSide, Side, Source, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.bodice_half import nearest_place
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import well_begun
from zesty_pivot.core.piece.sides import Sided, Sides
from zesty_pivot.core.procedures.base import Context, Note
from zesty_pivot.core.procedures.clearing import brought_back, first_way, station_of
from zesty_pivot.core.procedures.into_panels import with_panels
from zesty_pivot.core.procedures.neckline_edges import NeckEdge
from zesty_pivot.core.procedures.unfolding import unfolded

_NEW = "*neck"

ENDS = ("shoulder", "armhole", "side_seam", "waist", "hem")

ASIDE = ("side_bust", "french")  # where the far front's darts go before they are cut away with it


def whole_cut(
    pattern: Pattern, edge: NeckEdge, shape: NeckShape, side: Side, context: Context, *, eased: bool
) -> tuple[Pattern, list[Note]]:
    """The pattern with a piece unfolded and cut along an edge that is not the same on both sides. `side` is the side as worn
    that it changes. Raises StepError, PlaceError or GeometryError when it cannot be."""
    half = edge.bodice.piece
    pattern = unfolded(pattern, edge.name)
    if shape.name == "wrap":
        return _wrapped(pattern, edge, context, eased=eased)
    piece = pattern.piece(edge.name)
    middle = float(edge.bodice.nape[0])
    # Drawn for the left front deep, and for the right shoulder bare.
    turned = (side is Side.RIGHT) != (shape.name == "one_shoulder")
    path = _mirrored(edge.drawn.path, middle) if turned else edge.drawn.path
    refuse_unclear(piece, path, neck_hole(piece))
    start, stop = (_on(piece, point) for point in (path.start, path.end))
    kept, gone = across(piece, start, stop, path, _NEW, "neckline", (piece.name, "cut away"))
    lost = tuple((dart.pivot, -piece.angle(dart.id)) for dart in gone.darts)
    kept = replace(kept, added=(*piece.added, *lost))
    kept = _sided(kept, path, middle, neck_source(half, shape.name, pointed=False))
    pattern = with_panels(pattern, edge.name, (replace(kept, grain=kept.grain or piece.grain),), ())
    ids = (piece.sides.id(dart, of) for of in Side for dart in edge.away)
    away = tuple(id for id in ids if not gone.has_dart(id))
    pattern, notes = brought_back(pattern, piece, edge.name, away, (path,), context, eased=eased)
    told = "deep" if shape.name == "asymmetric" else "bare"
    said = Note(f"the {words(edge.name)} is {told} on the {side.value} as worn; it is cut once, right side up", edge.name)
    return pattern, [said, *notes]


def _mirrored(path: Path, middle: float) -> Path:
    """A line turned over about the centre, and walked from its other end."""
    cubics = path.cubics.copy()
    cubics[..., 0] = 2.0 * middle - cubics[..., 0]
    return Path(cubics).reversed()


def _on(piece: Piece, point: np.ndarray) -> Place:
    """The place of the ring where a drawn edge ends. Raises StepError when it misses it."""
    found = nearest_place(piece, point, lambda run: piece.role(run.edge) in ENDS)
    if found is None:
        raise StepError("the edge misses the outline", where=piece.name, advice="Choose another width.")
    return found


def _sided(piece: Piece, path: Path, middle: float, source: Source) -> Piece:
    """The new edge parted at the centre into its right and its left, each with its provenance from the centre outwards."""
    hits = with_line(path.cubics, np.array([middle, 0.0]), np.array([0.0, 1.0]))
    if not hits:
        raise StepError("the edge does not cross the centre", where=piece.name, advice="Choose another shape.")
    right, left = path.split_at(path.distance_of(hits[0][0], hits[0][1]))
    ids = {side: side.id("neckline") for side in Side}
    runs: list[Run] = []
    for run in piece.runs:
        if run.edge == _NEW:
            runs += [
                Run(ids[Side.RIGHT], right, replace(source, u0=1.0, u1=0.0, is_mirrored=True)),
                Run(ids[Side.LEFT], left, source),
            ]
        else:
            runs.append(run)
    # The ring begins at the centre, with the left side.
    first = next(index for index, run in enumerate(runs) if run.edge == ids[Side.LEFT])
    ring = tuple(runs[first:] + runs[:first])
    known = {**dict(piece.roles), **dict.fromkeys(ids.values(), "neckline")}
    sides = piece.sides.joined({id: Sided("neckline", side) for side, id in ids.items()})
    roles = tuple((edge, known[edge]) for edge in dict.fromkeys(run.edge for run in ring))
    return replace(piece, runs=ring, roles=roles, sides=sides)


# A wrap.


def _wrapped(pattern: Pattern, edge: NeckEdge, context: Context, *, eased: bool) -> tuple[Pattern, list[Note]]:
    """One front that laps over the far side, to be cut as a pair. The far side's darts are cut away with it."""
    name = edge.name
    pattern = _far_darts_aside(pattern, name, context)
    piece = pattern.piece(name)
    mark = piece.sides.id(MARK, Side.RIGHT)
    if edge.floor is None:
        raise StepError("the wrap has no end on the far side", where=name, advice="Shape the neckline on the front.")
    floor = places.by_origin(piece, replace(edge.floor, is_mirrored=True))
    end = Path.straight(places.point(piece, floor), piece.pivot(mark))
    wrap = edge_from(end.end, edge.drawn.path.end)
    path = Path.chain([end, wrap])
    kept_eyes = tuple(eye for eye in piece.fisheyes if piece.sides.of(eye.id) is not Side.RIGHT)
    piece = replace(piece, fisheyes=kept_eyes)
    refuse_unclear(piece, path, neck_hole(piece))
    start, stop = _on(piece, path.start), _on(piece, path.end)
    kept, _gone = across(piece, start, stop, path, _NEW, "neckline", (piece.name, "cut away"))
    source = neck_source(edge.bodice.piece, "wrap", pointed=True)
    made = _one_front(kept, edge, (end, wrap), source)
    pattern = replace(pattern.with_piece(made), seams=tuple(_half_seams(pattern, name)))
    pattern, notes = brought_back(pattern, edge.bodice.piece, name, edge.away, (path,), context, eased=eased)
    lap = abs(2.0 * (float(edge.drawn.path.start[0]) - float(edge.bodice.nape[0])))
    text = "each front laps over the other; cut 1 pair; a tie or snap holds its end at the notch; the far dart is shut"
    return pattern, [Note(text, name, lap), *notes]


def _far_darts_aside(pattern: Pattern, name: str, context: Context) -> Pattern:
    """The far side's darts moved to its side seam, where they are cut away. Raises StepError for one without a way there."""
    whole = pattern.piece(name)
    for dart in [d.id for d in whole.darts if whole.sides.of(d.id) is Side.RIGHT]:
        piece = pattern.piece(name)
        if piece.role(piece.dart_edge(dart)) == "side_seam":
            continue
        spots = [station_of(station, "right") for station in ASIDE]
        made = first_way(pattern, name, dart, spots, context)
        if made is None:
            what = f"the {dart_words(piece, dart)} dart is in the way of the wrap"
            raise StepError(what, where=name, advice="Move it to the side first.")
        pattern = made.pattern  # nothing is left of these darts in the end
    return pattern


def _one_front(kept: Piece, edge: NeckEdge, lines: tuple[Path, Path], source: Source) -> Piece:
    """The front by itself: its names without a side, the strip of the far waist called the overlap."""
    (end, wrap), sides = lines, kept.sides

    def named(run: Run) -> list[Run]:
        if run.edge == _NEW:
            return [
                Run("wrap_end", end, Source(f"{source.edge}.end", 0.0, 1.0)),
                Run("neckline", wrap, source),
            ]
        if sides.of(run.edge) is Side.RIGHT:
            return [replace(run, edge="overlap")]
        return [replace(run, edge=sides.name(run.edge), mouth=run.mouth and sides.name(run.mouth))]

    known = {sides.name(id): role for id, role in kept.roles}
    known |= {"wrap_end": "opening", "overlap": "overlap", "neckline": "neckline"}
    runs = well_begun(tuple(new for run in kept.runs for new in named(run)), known)
    plain = edge.bodice.piece
    return replace(
        kept,
        fold=None,
        of=plain.of or plain.name,
        runs=runs,
        roles=tuple((name, known[name]) for name in dict.fromkeys(run.edge for run in runs)),
        darts=tuple(dart for dart in plain.darts if any(run.mouth == dart.id for run in runs)),
        landmarks={
            sides.name(mark): at
            for mark, at in kept.landmarks.items()
            if sides.of(mark) is not Side.RIGHT and sides.name(mark) != MARK
        },
        fisheyes=tuple(replace(eye, id=sides.name(eye.id)) for eye in kept.fisheyes),
        grain=plain.grain,
        added=plain.added,
        notches=(*plain.notches, Notch("tie", "tie", Origin(f"{source.edge}.end", 1.0))),
        sides=Sides(),
    )


def _half_seams(pattern: Pattern, name: str) -> list[Seam]:
    """The seams of the left side, named as those of a half."""
    sides = pattern.piece(name).sides

    def plain(end: SeamSide) -> SeamSide:
        return SeamSide(tuple(replace(at, edge=sides.name(at.edge)) if at.piece == name else at for at in end.parts))

    return [
        replace(seam, a=plain(seam.a), b=plain(seam.b))
        for seam in pattern.seams
        if not any(part.piece == name and sides.of(part.edge) is Side.RIGHT for part in seam.parts)
    ]
