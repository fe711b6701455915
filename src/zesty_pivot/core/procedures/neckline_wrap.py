"""The wrap: one front that laps over the far side, to be cut as a pair."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves import mirror
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.neckline import cut_away, neck_hole, neck_source
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.style_lines import refuse_unclear
from zesty_pivot.core.necklines.base import MARK, EdgePart
from zesty_pivot.core.necklines.wrap import edge_from
from zesty_pivot.core.piece import EdgeRef, Notch, Origin, Pattern, Piece, Run, Seam, SeamSide, Side, Source, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.bodice_half import nearest_place
from zesty_pivot.core.piece.piece import well_begun
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.piece.sides import Sides
from zesty_pivot.core.procedures.base import Context, Note
from zesty_pivot.core.procedures.clearing import brought_back, first_way, station_of
from zesty_pivot.core.procedures.neckline_across import Beyond, cut_beyond
from zesty_pivot.core.procedures.neckline_edges import NeckEdge
from zesty_pivot.core.procedures.unfolding import unfolded
from zesty_pivot.core.record import replace

_NEW = "*neck"

ENDS = ("shoulder", "waist", "hem", STYLE_LINE)

ASIDE = ("side_bust", "french")  # where the far front's darts go before they are cut away with it

# What becomes of the edges of the far side: of its waist, and of the line that a front in panels was cut along.
OVERLAP, FAR = "overlap", "far"


def wrapped(pattern: Pattern, edge: NeckEdge, context: Context, *, eased: bool) -> tuple[Pattern, list[Note]]:
    """One front that laps over the far side. The far side's darts are cut away with it; of a front in panels, the far line is
    cut too, and what goes on beyond it is a panel of its own.

    Raises StepError, PlaceError or GeometryError when it cannot be.
    """
    name, plain = edge.name, edge.bodice.piece
    if edge.floor is None:
        raise StepError("the wrap has no end on the far side", where=name, advice="Shape the neckline on the front.")
    pattern = _far_darts_aside(unfolded(pattern, name), name, context)
    piece = pattern.piece(name)
    source = neck_source(plain, "wrap", pointed=True)
    lines = _lines(piece, edge)
    path = Path.chain([line.path for line in lines])
    kept_eyes = tuple(eye for eye in piece.fisheyes if piece.sides.of(eye.id) is not Side.RIGHT)
    piece = replace(piece, fisheyes=kept_eyes)
    refuse_unclear(piece, path, neck_hole(piece))
    start, stop = _on(piece, path.start), _on(piece, path.end)
    kept, _gone = across(piece, start, stop, path, _NEW, "neckline", (piece.name, "cut away"))
    made = _one_front(kept, plain, lines, source)
    pattern = replace(pattern.with_piece(made), seams=tuple(_half_seams(pattern, name)))
    if edge.beyond is not None and edge.is_far:
        pattern = _with_far_panel(pattern, edge, edge.beyond, made, source)
    elif edge.beyond is not None:
        pattern = cut_beyond(pattern, edge.beyond, "shoulder", source)
    pattern, notes = brought_back(pattern, plain, name, edge.away, (path,), context, eased=eased)
    lap = abs(2.0 * (float(edge.drawn.path.start[0]) - float(edge.bodice.nape[0])))
    text = "each front laps over the other; cut 1 pair; a tie or snap holds its end at the notch; "
    far = edge.beyond is not None and edge.is_far
    text += "what lies beyond the far line is a panel of its own" if far else "the far dart is shut"
    return _unmarked(pattern), [Note(text, name, lap), *notes]


def _lines(piece: Piece, edge: NeckEdge) -> tuple[EdgePart, ...]:
    """The wrap's end and its edge on the unfolded piece, as far as they lie on it."""
    beyond = edge.beyond
    out = 0.0 if beyond is None else sum(part.path.length for part in beyond.outer if part.role == "neckline")
    if beyond is not None and edge.is_far:
        return (EdgePart(edge.drawn.parts[-1].path.split_at(out)[1]),)
    floor = places.by_origin(piece, replace(edge.floor or Origin("", 0.0), is_mirrored=True))
    end = Path.straight(places.point(piece, floor), piece.pivot(piece.sides.id(MARK, Side.RIGHT)))
    curve = edge_from(end.end, edge.drawn.path.end)
    if beyond is not None:
        curve = curve.split_at(curve.length - out)[0]
    return EdgePart(end, "opening"), EdgePart(curve)


def _on(piece: Piece, point: Vector) -> places.Place:
    """The place of the ring where the edge ends. Raises StepError when it misses it."""
    found = nearest_place(piece, point, lambda run: piece.role(run.edge) in ENDS)
    if found is None:
        raise StepError("the edge misses the outline", where=piece.name, advice="Choose another width.")
    return found


def _with_far_panel(pattern: Pattern, edge: NeckEdge, beyond: Beyond, front: Piece, source: Source) -> Pattern:
    """The pattern with what a wrap leaves of the far side panel, sewn to the front's far line."""
    panel, floor = beyond.side, edge.floor or Origin("", 0.0)
    curve = Path.chain([part.path for part in beyond.outer if part.role == "neckline"])
    end = Path.straight(curve.end, places.point(panel, places.by_origin(panel, floor)))
    first = nearest_place(panel, curve.start, lambda run: run.edge == beyond.edge)
    last = _on(panel, end.end)
    if first is None:
        raise StepError("the edge misses the side panel", where=panel.name, advice="Shape it before the style line.")
    kept, _gone = cut_away(panel, first, last, [(curve, "neckline"), (end, "opening")], source)
    names = {id: OVERLAP for id, role in kept.roles if role in ("waist", "hem")}
    names |= {id: "wrap_end" for id, role in kept.roles if role == "opening"}
    from_floor = Source(f"{source.edge}.end", 0.0, 1.0)

    def named(run: Run) -> Run:
        its = names.get(run.edge, run.edge)
        if its != "wrap_end":
            return replace(run, edge=its)
        is_up = float(np.hypot(*(run.path.end - curve.end))) < float(np.hypot(*(run.path.start - curve.end)))
        return replace(run, edge=its, source=from_floor if is_up else from_floor.turned())

    runs = tuple(named(run) for run in kept.runs)
    roles = tuple((names.get(id, id), OVERLAP if names.get(id) == OVERLAP else role) for id, role in kept.roles)
    name = f"{front.of}_overlap"
    kept = replace(
        kept, name=name, runs=runs, roles=roles, added=(), taken=(), let_in=(), landmarks={}, notches=(_tie(source),)
    )
    kept = mirror.flip(kept, edge.bodice.nape, np.array([0.0, 1.0]))
    seam = sewn(EdgeRef(front.name, f"{beyond.edge}_{FAR}"), EdgeRef(name, beyond.edge))
    return replace(pattern, pieces=(*pattern.pieces, kept), seams=(*pattern.seams, seam))


def _tie(source: Source) -> Notch:
    """Where a tie or snap holds the wrap: the upper end of its short edge."""
    return Notch("tie", "tie", Origin(f"{source.edge}.end", 1.0))


def _unmarked(pattern: Pattern) -> Pattern:
    """The pattern without the mark that the edge was drawn by."""
    for piece in pattern.pieces:
        if MARK in piece.landmarks:
            kept = {name: at for name, at in piece.landmarks.items() if name != MARK}
            pattern = pattern.with_piece(replace(piece, landmarks=kept))
    return pattern


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


def _one_front(kept: Piece, plain: Piece, lines: tuple[EdgePart, ...], source: Source) -> Piece:
    """The front by itself: its names without a side, the strip of the far waist called the overlap. `plain` is its half."""
    sides = kept.sides
    far = {run.edge: f"{sides.name(run.edge)}_{FAR}" for run in kept.runs if kept.role(run.edge) == STYLE_LINE}

    def named(run: Run) -> list[Run]:
        if run.edge == _NEW:
            end = Source(f"{source.edge}.end", 0.0, 1.0)
            return [
                Run("neckline", part.path, source) if part.role == "neckline" else Run("wrap_end", part.path, end)
                for part in lines
            ]
        if sides.of(run.edge) is Side.RIGHT:
            return [replace(run, edge=far.get(run.edge, OVERLAP))]
        return [replace(run, edge=sides.name(run.edge), mouth=run.mouth and sides.name(run.mouth))]

    known = {sides.name(id): role for id, role in kept.roles}
    known |= {"wrap_end": "opening", OVERLAP: OVERLAP, "neckline": "neckline", **dict.fromkeys(far.values(), STYLE_LINE)}
    runs = well_begun(tuple(new for run in kept.runs for new in named(run)), known)
    tie = (_tie(source),) if len(lines) > 1 else ()
    return replace(
        kept,
        fold=None,
        of=plain.of or plain.name,
        runs=runs,
        roles=tuple((name, known[name]) for name in dict.fromkeys(run.edge for run in runs)),
        darts=tuple(dart for dart in plain.darts if any(run.mouth == dart.id for run in runs)),
        landmarks={sides.name(mark): at for mark, at in kept.landmarks.items() if sides.of(mark) is not Side.RIGHT},
        fisheyes=tuple(replace(eye, id=sides.name(eye.id)) for eye in kept.fisheyes),
        grain=plain.grain,
        added=plain.added,
        notches=(*plain.notches, *tie),
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
