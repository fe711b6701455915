"""A piece cut along a line of one's own: what lies open is let in on both sides, sewn darts are shut, both parts are sewn."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.grain import grain_of_part
from zesty_pivot.core.moves.let_in import crossed_open, filled, taken_up_again
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.style_lines import refuse_unclear
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece, Place, StyleLine
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.piece.soundness import LEAST_AREA
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.into_panels import free_line, lined, with_panels
from zesty_pivot.core.procedures.line_across import opened_in, shut_under
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

# A line longer than this (mm) gets two notches, a shorter one a single. Common practice, no source.
TWO_NOTCHES = 150.0


@record
class Cutting:
    """What is cut and how: the piece `on`, the new piece's name `made`, where the line ends on a piece and how it runs there,
    and which of two parts along it keeps the piece's name (the first of the pair)."""

    on: str
    made: str
    ends: Callable[[Piece], tuple[Place, Place]]
    line: Callable[[Piece, Place, Place], Path]
    named: Callable[[Piece, Piece, Path], tuple[Piece, Piece]]
    edge: str = "line"

    def drawn(self, piece: Piece) -> Path:
        """The line on a piece. Raises as `ends` and `line` do."""
        return self.line(piece, *self.ends(piece))


def cut_along(pattern: Pattern, asked: Cutting, context: Context) -> Outcome:
    """The pattern with both parts. Raises StepError, PlaceError or GeometryError when it cannot be cut."""
    pattern, away, told = shut_under(pattern, asked.on, asked.drawn, context)
    piece = clean = pattern.piece(asked.on)
    start, stop = asked.ends(piece)
    drawn = asked.line(piece, start, stop)
    opened = [(piece.dart(id), (*piece.mouth(id), piece.pivot(piece.dart(id).pivot))) for id in crossed_open(piece, drawn)]
    for dart, _legs in opened:
        before, piece = piece, filled(piece, dart.id)
        start, stop = (places.by_origin(piece, places.origin_of(before, place)) for place in (start, stop))
    refuse_unclear(piece, drawn)
    edge = free_line(piece, asked.edge)
    one, two = across(piece, start, stop, drawn, edge, STYLE_LINE, (piece.name, asked.made))
    after, main, cut, note = sewn_parts(pattern, asked, piece, (one, two), (drawn, edge), context)
    for dart, legs in opened:
        main, cut = (taken_up_again(part, dart, drawn, legs) for part in (main, cut))
    after = after.with_piece(main).with_piece(cut)
    after, notes = opened_in(after, clean, (main.name, cut.name), away, drawn, context)
    return Outcome(after, (note, *told, *notes))


def sewn_parts(
    pattern: Pattern, asked: Cutting, piece: Piece, parts: tuple[Piece, Piece], line: tuple[Path, str], context: Context,
    angles: tuple[tuple[str, float], ...] = (), shares: tuple[float, ...] = (),
) -> tuple[Pattern, Piece, Piece, Note]:  # fmt: skip
    """The pattern with both parts of a piece cut along a line (its path and its edge), sewn to each other along it, notched,
    with their names and grain; the parts; and what there is to say. `angles` are what has gone into the seam, by pivot;
    `shares` of the line are where its notches lie, as usual when none.

    Raises StepError when the new name is taken, or nothing is cut off.
    """
    (drawn, edge), (one, two) = line, parts
    if pattern.has(asked.made):
        what = f"a piece is called {words(asked.made)} already"
        raise StepError(what, where=asked.on, advice="Give the new piece another name.")
    if min(one.area, two.area) < LEAST_AREA:
        what = "the line runs along the edge: nothing is cut off"
        raise StepError(what, where=asked.on, advice="Choose a place on another edge, or bow the line.")
    source = f"{piece.of or piece.name}.{edge}"
    shares = shares or ((0.3, 0.7) if drawn.length > TWO_NOTCHES else (0.5,))
    main, cut = (lined(part, edge, source, shares) for part in asked.named(one, two, drawn))
    main, cut = replace(main, name=piece.name), replace(cut, name=asked.made, of=piece.of or piece.name)
    lower = next((id for id, role in cut.roles if role in ("waist", "hem")), "")
    main, cut = (replace(part, grain=grain_of_part(part, piece, lower)) for part in (main, cut))
    style = StyleLine(edge, piece.of or piece.name, (main.name, cut.name), angles)
    after = with_panels(pattern, asked.on, (main, cut), (sewn(EdgeRef(main.name, edge), EdgeRef(cut.name, edge)),))
    long = format_length(drawn.length, context.scope.unit)
    note = Note(f"the {words(cut.name)} is cut off along a line of {long}", asked.on, drawn.length)
    return replace(after, lines=(*after.lines, style)), main, cut, note
