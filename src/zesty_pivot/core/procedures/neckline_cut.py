"""A neckline carried out: what lies above its edges is cut away, openings are cut in, straps recorded, darts brought back."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.neckline import cut_away, let_out, neck_source, opened_down, raised
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.necklines.camisole import strap_point
from zesty_pivot.core.piece import Body, Extra, Hold, Opening, Pattern, Piece, Side, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context, Note
from zesty_pivot.core.procedures.both_sides import together
from zesty_pivot.core.procedures.clearing import EASED_OVER, brought_back, first_way, station_of
from zesty_pivot.core.procedures.into_panels import with_panels
from zesty_pivot.core.procedures.neckline_across import cut_beyond, side_of_line
from zesty_pivot.core.procedures.neckline_edges import NeckEdge, NeckEdges
from zesty_pivot.core.procedures.neckline_keyhole import keyhole
from zesty_pivot.core.procedures.neckline_uneven import on_each_side
from zesty_pivot.core.procedures.neckline_wrap import wrapped
from zesty_pivot.core.procedures.strips import rectangle
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import replace


def carried_out(edges: NeckEdges, shape: NeckShape, side: Side, context: Context, *, eased: bool) -> tuple[Pattern, list[Note]]:
    """The pattern with every edge cut and the darts back. Raises StepError, PlaceError or GeometryError when it cannot be."""
    made, notes = edges.pattern, [*edges.notes]
    for edge in edges.edges:
        is_whole = shape.goes_over(leads=edge is edges.edges[0])
        if is_whole and shape.name == "wrap":
            made, mine = wrapped(made, edge, context, eased=eased)
        elif is_whole:
            made, mine = _on_both(made, edge, shape, side, context, eased=eased)
        else:
            made, mine = _one(made, edge, shape, context, eased=eased)
        notes += mine
        if shape.name == "vest":
            made, mine = _strap_cleared(made, edge, context)
            notes += mine
    if shape.name == "camisole":
        strap, note = _strap(edges, made.extras, context)
        made = replace(made, extras=(*(extra for extra in made.extras if extra.kind != "strap"), strap))
        notes.append(note)
    return made, notes


def _on_both(
    pattern: Pattern, edge: NeckEdge, shape: NeckShape, side: Side, context: Context, *, eased: bool
) -> tuple[Pattern, list[Note]]:  # fmt: skip
    """The pattern with a piece unfolded and cut along an edge that is not the same on both sides."""
    halves, notes = {}, []
    for its, half in on_each_side(edge, shape, side).items():
        halves[its], mine = _one(pattern, half, shape, context, eased=eased)
        notes += [note for note in mine if note not in notes]
    source = edge.bodice.piece.of or edge.name
    told = "deep" if shape.name == "asymmetric" else "bare"
    said = Note(f"the {words(edge.name)} is {told} on the {side.value} as worn; it is cut once, right side up", edge.name)
    return together(halves, [source], pattern), [said, *notes]


def _one(pattern: Pattern, edge: NeckEdge, shape: NeckShape, context: Context, *, eased: bool) -> tuple[Pattern, list[Note]]:
    piece, drawn = edge.bodice.piece, edge.drawn
    source = neck_source(piece, shape.name, pointed=drawn.is_pointed)
    unit = context.scope.unit
    notes: list[Note] = []
    seams: list[Path] = []
    if shape.kind == "raise":
        top, seam = (part.path for part in drawn.parts)
        kept = raised(piece, top, seam, edge.asked["inset"], source)
        pattern = pattern.with_piece(kept)
    else:
        parts = drawn.parts if edge.beyond is None else edge.beyond.inner
        start = _at_centre(edge)
        stop = edge.bodice.place(parts[-1].path.end, drawn.ends_on if edge.beyond is None else STYLE_LINE)
        kept, gone = cut_away(piece, start, stop, [(part.path, part.role) for part in parts], source)
        lost = tuple((dart.pivot, -piece.angle(dart.id)) for dart in gone.darts)
        if gone.darts:
            names = ", ".join(dart_words(gone, dart.id) for dart in gone.darts)
            notes.append(Note(f"cut away with what lies above: the {names} dart", edge.name))
        kept = replace(kept, added=(*piece.added, *lost))
        pattern = with_panels(pattern, edge.name, (kept,), ())
        if edge.beyond is not None:
            pattern = cut_beyond(pattern, edge.beyond, drawn.ends_on, source)
    if edge.asked.numbers.get("hole_start") is not None:
        pattern, seams = keyhole(pattern, edge, source, context)
        kept = pattern.piece(edge.name)
    if edge.asked.numbers.get("slit") is not None:
        pattern, slit = _slit(pattern, edge, unit)
        notes += slit
    before, after = _armhole(piece), _armhole(kept)
    if before and after and abs(before - after) > 0.5:
        change = f"{format_length(abs(after - before), unit)} {'longer' if after > before else 'shorter'}"
        notes.append(Note(f"what is left of the armhole is {change}", edge.name, after - before))
    pattern, back = brought_back(pattern, piece, edge.name, edge.away, (drawn.path, *seams), context, eased=eased)
    outer = edge.name
    if edge.beyond is not None:
        outer = edge.beyond.side.name
        paths = [part.path for part in edge.beyond.outer]
        pattern, more = brought_back(pattern, edge.beyond.side, outer, edge.away_beyond, paths, context, eased=eased)
        back += more
    elif edge.away_beyond:
        known = side_of_line(pattern, edge.name)
        if known is not None:
            pattern, more = brought_back(pattern, known[0], known[0].name, edge.away_beyond, (), context, eased=eased)
            back += more
    if "flare" in edge.asked.numbers:
        pattern = pattern.with_piece(let_out(pattern.piece(outer), edge.asked["widen"], edge.asked["flare"]))
    return pattern, [*notes, *back]


def _strap_cleared(pattern: Pattern, edge: NeckEdge, context: Context) -> tuple[Pattern, list[Note]]:
    """The pattern with no dart sewn in what is left of the shoulder: a back's is eased or pressed away, a front's is led to the
    side or below. Common practice, no source."""
    name = edge.name if edge.beyond is None else edge.beyond.side.name
    notes: list[Note] = []
    for dart in pattern.piece(name).darts:
        piece = pattern.piece(name)
        role = piece.role(piece.dart_edge(dart.id))
        if dart.use is not Use.DART or role not in (("shoulder", "neckline") if piece.body is Body.BACK else ("shoulder",)):
            continue
        what = f"the {words(name)}'s {dart_words(piece, dart.id)} dart is not sewn in a vest"
        if piece.body is Body.BACK:
            eased = (replace(d, use=Use.EASE, hold=Hold(EASED_OVER, EASED_OVER)) if d.id == dart.id else d for d in piece.darts)
            pattern = pattern.with_piece(replace(piece, darts=tuple(eased)))
            notes.append(Note(f"{what}: it is eased in or pressed away", name))
            continue
        made = first_way(pattern, name, dart.id, [station_of(station) for station in ("side_bust", "french", "waist")], context)
        if made is not None:
            pattern = made.pattern
            moved = next((d.id for d in pattern.piece(name).darts if not piece.has_dart(d.id)), dart.id)
            now = dart_words(pattern.piece(name), moved) if pattern.piece(name).has_dart(moved) else "other"
            notes.append(Note(f"{what}: it is the {now} dart now", name))
    return pattern, notes


def _at_centre(edge: NeckEdge) -> places.Place:
    """Where an edge begins on the centre. Raises StepError for one that begins below it."""
    try:
        return edge.bodice.place(edge.drawn.path.start, "centre")
    except PlaceError:
        what = f"the neckline ends below the centre of the {words(edge.name)}"
        advice = "Make it shallower, or shape it before the line that cuts the piece."
        raise StepError(what, where=edge.name, advice=advice) from None


def _slit(pattern: Pattern, edge: NeckEdge, unit: Unit) -> tuple[Pattern, list[Note]]:
    """A straight slit marked; one that is open at the top has been cut with the neckline."""
    length = edge.asked["slit"] - edge.asked["depth"]
    if length < 1.0:
        text = format_length(edge.asked["depth"], unit)
        raise StepError("the slit ends above the neckline", where=edge.name, advice=f"Enter more than {text}.")
    if edge.asked["slit"] > edge.bodice.lowest - 20.0:
        text = format_length(edge.bodice.lowest - 20.0, unit)
        raise StepError("the slit goes past the waist", where=edge.name, advice=f"Enter up to {text}.")
    if edge.asked["open"] > 0.0:
        return pattern, []
    made = pattern.with_piece(opened_down(pattern.piece(edge.name), "slit", length))
    note = Note(f"slit {format_length(length, unit)} down from the neckline", edge.name, length)
    return replace(made, openings=(*made.openings, Opening(edge.name, "slit", length))), [note]


def _armhole(piece: Piece) -> float:
    return sum(run.path.length for run in piece.runs if piece.role(run.edge) == "armhole")


# A camisole.


def _strap(edges: NeckEdges, extras: Sequence[Extra], context: Context) -> tuple[Extra, Note]:
    """The strap as a piece: its length goes from the front's strap point over the shoulder to the back's. Where front and back
    are shaped one after the other, the second adds its part to the first's."""
    mine = tuple(edge.of for edge in edges.edges)
    known = next((extra for extra in extras if extra.kind == "strap" and not set(extra.of) & set(mine)), None)
    parts = [] if known is None else [known.piece.edge("side").sewn_length]
    for edge in edges.edges:
        peak = strap_point(edge.bodice, edge.asked)
        level = float(edge.bodice.shoulder.at(min(max(peak[0], edge.bodice.neck_x), edge.bodice.tip_x - 1.0))[1])
        parts.append(float(peak[1]) - level)
    wide = edges.edges[0].asked["strap"]
    made = rectangle("strap", sum(parts), 2.0 * wide)
    unit = context.scope.unit
    told = " and ".join(format_length(mm, unit) for mm in parts)
    whole = format_length(sum(parts), unit)
    text = f"each strap is {whole} long from shoulder level ({told}), {format_length(wide, unit)} wide"
    return Extra(made, "strap", (*(known.of if known is not None else ()), *mine)), Note(text, edges.edges[0].name, sum(parts))
