"""The paper procedure of a neckline."""

from __future__ import annotations

from zesty_pivot.core.necklines.base import NeckShape
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.hand import Line, centre_words, line
from zesty_pivot.core.procedures.neckline_edges import NeckEdge, NeckEdges
from zesty_pivot.core.quantity import format_length

_SAID = ("width", "depth")  # told in the marks


def neck_by_hand(shape: NeckShape, edges: NeckEdges, context: Context) -> tuple[Line, ...]:
    """Darts away, marks, the curve, its length, the cut, darts back."""
    found: list[Line] = []
    for edge in edges.edges:
        found += _of(shape, edge, context)
    if len(edges.edges) > 1:
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


def _of(shape: NeckShape, edge: NeckEdge, context: Context) -> list[Line]:
    unit, found = context.scope.unit, []
    on, centre = words(edge.name), centre_words(edge.of)
    if edge.away:
        text = "On the {on}, close the {darts} and let the fullness open below, so that shoulder and neck lie whole."
        found.append(line("darts_away", text, on=on, darts=_darts(edge)))
    start, stop = edge.drawn.path.start, edge.drawn.path.end
    where = {"shoulder": "shoulder", "armhole": "armhole", "side_seam": "side seam"}[edge.drawn.ends_on]
    text = "On the {on}, mark {depth} below the neck point on the {centre}, and {width} from the {centre} on the {where}."
    depth = format_length(float(start[1]) - edge.bodice.top, unit)
    width = format_length(float(stop[0]), unit)
    found.append(line("mark_neck", text, on=on, centre=centre, where=where, depth=depth, width=width))
    more = [
        f"{shape.words_for(name).lower()} {format_length(mm, unit)}"
        for name, mm in edge.asked.numbers.items()
        if name not in _SAID
    ]
    text = "Draw the {shape} from mark to mark{more}: the edge is {long} long. Cut what lies above away."
    told = f" ({', '.join(more)})" if more else ""
    long = format_length(edge.drawn.path.length, unit)
    found.append(line("draw_neck", text, shape=shape.title.lower(), more=told, long=long))
    return found


def _darts(edge: NeckEdge) -> str:
    return " and ".join(words(dart) for dart in edge.away) + " dart" + ("s" if len(edge.away) > 1 else "")
