"""The paper procedure of a neckline."""

from __future__ import annotations

import math

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece, Side
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.hand import Line, centre_words, line
from zesty_pivot.core.procedures.neckline_edges import NeckEdge, NeckEdges
from zesty_pivot.core.procedures.neckline_uneven import on_each_side
from zesty_pivot.core.procedures.neckline_wrap import wrapped
from zesty_pivot.core.quantity import format_length

_SAID = ("width", "depth")  # told in the marks


def neck_by_hand(shape: NeckShape, edges: NeckEdges, side: Side, context: Context) -> tuple[Line, ...]:
    """Darts away, marks, the curve, its length, the cut, darts back. `side` is the one as worn that an uneven shape changes."""
    found: list[Line] = []
    for edge in edges.edges:
        found += _away(edge)
        if shape.goes_over(leads=edge is edges.edges[0]):
            found += _over_the_centre(shape, edge, edges.pattern, side, context)
        else:
            found += _of(shape, edge, context)
    if len(edges.edges) > 1 and shape.kind != "whole":
        text = (
            "Lay the {one} and the {two} together at the shoulder: the neckline runs on without a corner, and measures {whole} "
            "on both together, {all} all round. Write it down."
        )
        whole = sum(edge.drawn.path.length for edge in edges.edges)
        unit = context.scope.unit
        names = {"one": words(edges.edges[0].name), "two": words(edges.edges[1].name)}
        figures = {"whole": format_length(whole, unit), "all": format_length(2.0 * whole, unit)}
        found.append(line("match_neck", text, **names, **figures))
    for edge in edges.edges:
        if edge.away:
            text = "On the {on}, bring the {darts} back; where the place is cut away, to where the dart's line meets the edge."
            found.append(line("darts_back", text, on=words(edge.name), darts=_darts(edge)))
    return tuple(found)


def _away(edge: NeckEdge) -> list[Line]:
    if not edge.away:
        return []
    text = "On the {on}, close the {darts} and let the fullness open below, so that shoulder and neck lie whole."
    return [line("darts_away", text, on=words(edge.name), darts=_darts(edge))]


def _over_the_centre(shape: NeckShape, edge: NeckEdge, pattern: Pattern, side: Side, context: Context) -> list[Line]:
    """The whole piece traced, a mark on each side and one on the centre, the edge over all three."""
    unit, on, centre = context.scope.unit, words(edge.name), centre_words(edge.of)
    text = "Trace the {on}, turn it over along the {centre} and trace the other half. Write left and right as worn on it."
    found = [line("unfold", text, on=on, centre=centre)]
    if shape.name == "wrap":
        text = (
            "Mark the far waist {past} past the axis of the far waist dart, with that dart open, and go {up} straight up. Draw "
            "a slightly full curve from that point to the near shoulder, {width} from the {centre}: it is {long} long."
        )
        figures = {name: format_length(edge.asked[name], unit) for name in ("past", "up", "width")}
        cut, _notes = wrapped(pattern, edge, context, eased=True)  # the far darts are shut in it
        long = format_length(sum(cut.edge_length(EdgeRef(piece.name, id)) for piece, id in _necks(cut, edge)), unit)
        return [*found, line("draw_wrap", text, centre=centre, long=long, **figures), _cut_off(on, "it is cut as a pair")]
    middle, marks = float(edge.bodice.nape[0]), []
    halves = on_each_side(edge, shape, side)
    for which, half in halves.items():
        role, end = half.drawn.ends_on, half.drawn.path.end
        if role == "side_seam":
            at = f"{format_length(edge.asked['lower'], unit)} below the underarm"
        else:
            at = f"{format_length(abs(float(end[0]) - middle), unit)} from the {centre}"
        marks.append(f"on the {which.value} {words(role)} {at}")
    crossing = halves[Side.LEFT].drawn.path.start
    marks.append(f"on the {centre} {format_length(float(crossing[1]) - edge.bodice.top, unit)} below the neck point")
    low = max((point for half in halves.values() for point in half.drawn.path.outline), key=lambda point: float(point[1]))
    more = ""
    if min(math.dist(low, half.drawn.path.end) for half in halves.values()) > 1.0:
        depth, off = (format_length(mm, unit) for mm in (float(low[1]) - edge.bodice.top, abs(float(low[0]) - middle)))
        more = f", lowest {depth} below the neck point and {off} from the {centre}"
    names = {"on": on, "more": more, "marks": "; ".join(marks), "long": format_length(edge.drawn.path.length, unit)}
    text = "Mark the {on}: {marks}. Draw the neckline over the marks{more}: it is {long} long."
    return [*found, line("draw_over", text, **names), _cut_off(on, "it is cut with its right side up")]


def _necks(pattern: Pattern, edge: NeckEdge) -> list[tuple[Piece, str]]:
    parts = pattern.come_from(edge.bodice.piece.of or edge.name)
    return [(piece, id) for piece in parts for id, role in piece.roles if role == "neckline"]


def _cut_off(on: str, how: str) -> Line:
    return line("cut_off", "Cut what lies above the edge of the {on} away; {how}.", on=on, how=how)


def _of(shape: NeckShape, edge: NeckEdge, context: Context) -> list[Line]:
    unit, found = context.scope.unit, []
    on, centre = words(edge.name), centre_words(edge.of)
    start, stop = edge.drawn.path.start, edge.drawn.path.end
    where = {"shoulder": "shoulder", "armhole": "armhole", "side_seam": "side seam"}[edge.drawn.ends_on]
    text = "On the {on}, mark {depth} below the neck point on the {centre}, and {width} from the {centre} on the {where}."
    depth = format_length(float(start[1]) - edge.bodice.top, unit)
    width = format_length(float(stop[0]), unit)
    found.append(line("mark_neck", text, on=on, centre=centre, where=where, depth=depth, width=width))
    more = [
        f"{shape.words_for(name).lower()} {format_length(mm, unit)}"
        for name, mm in edge.asked.numbers.items()
        if name not in _SAID and mm > 0.0
    ]
    text = "Draw the {shape}neckline from mark to mark{more}: the edge is {long} long. Cut what lies above away."
    told = f" ({', '.join(more)})" if more else ""
    long = format_length(edge.drawn.path.length, unit)
    found.append(line("draw_neck", text, shape=_called(shape, edge), more=told, long=long))
    return found


def _called(shape: NeckShape, edge: NeckEdge) -> str:
    """`round `, `Queen Anne `; nothing for the edge that follows the leading one."""
    if edge.asked.numbers.keys() < shape.starts.keys():
        return ""
    is_name = len(shape.title) == 1 or (shape.title.istitle() and " " in shape.title)
    return f"{shape.title if is_name else shape.title.lower()} "


def _darts(edge: NeckEdge) -> str:
    return " and ".join(words(dart) for dart in edge.away) + " dart" + ("s" if len(edge.away) > 1 else "")
