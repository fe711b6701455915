"""A style line across darts that are sewn: they are shut while it is drawn, and what is left of them opens in its seam."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.panels import STYLE_LINE
from zesty_pivot.core.moves.style_lines import crossed
from zesty_pivot.core.piece import Pattern, Piece, Use, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import ALL_STATIONS
from zesty_pivot.core.procedures.base import Context, Note
from zesty_pivot.core.procedures.clearing import AWAY, brought_back, first_way, on_cut_edges, station_of
from zesty_pivot.core.procedures.legs import made_equal
from zesty_pivot.core.procedures.parking import park
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import replace

LineOn = Callable[[Piece], Path]  # the line as it is drawn on a piece


def shut_under(
    pattern: Pattern, name: str, line: LineOn, context: Context
) -> tuple[Pattern, dict[str, str], tuple[Note, ...]]:  # fmt: skip
    """The pattern with every sewn dart that a line crosses put away where it does not, these darts with what they were called,
    and what there is to say. Raises StepError for one that has no such place, else as `line` does."""
    away: dict[str, str] = {}
    notes: tuple[Note, ...] = ()
    stations = [*AWAY, *(station for station in ALL_STATIONS if station not in AWAY)]
    while True:
        piece = pattern.piece(name)
        met = _sewn_under(piece, line)
        if not met:
            return pattern, away, notes
        dart = met[0]
        piece, told = made_equal(piece, [dart], context.scope.unit)
        pattern, notes = pattern.with_piece(piece), (*notes, *told)

        def is_clear(made: Piece, left: frozenset[str] = frozenset(met[1:])) -> bool:
            return set(_sewn_under(made, line)) <= left

        spots = [*(station_of(station) for station in stations), *on_cut_edges(piece)]
        made = first_way(pattern, name, dart, spots, context, is_clear, park)
        if made is None:
            what = f"the line crosses the {dart_words(piece, dart)} dart, which cannot be shut while it is drawn"
            raise StepError(what, where=name, advice="Move that dart away, or end the line elsewhere.")
        pattern = made.pattern
        away[dart] = dart_words(piece, dart)


def _sewn_under(piece: Piece, line: LineOn) -> list[str]:
    drawn = line(piece)
    return [dart for dart in crossed(piece, drawn) if piece.dart(dart).use is Use.DART]


def opened_in(
    pattern: Pattern, before: Piece, names: tuple[str, str], away: Mapping[str, str], line: Path, context: Context
) -> tuple[Pattern, list[Note]]:  # fmt: skip
    """The pattern with the darts that were shut open again in the seam: in the part that holds their pivot, the other has them
    shut. `before` is the piece just before it was cut into `names`."""
    notes: list[Note] = []
    for name in names:
        held = {entry.id for dart in pattern.piece(name).darts for entry in dart.parked}
        mine = tuple(dart for dart in away if dart in held)
        if not mine:
            continue
        other = words(names[1] if name == names[0] else names[0])
        pattern, said = brought_back(pattern, before, name, mine, (line,), context, eased=True)
        piece = pattern.piece(name)
        for note, dart in zip(said, [id for id in mine if piece.role(piece.dart_edge(id)) == STYLE_LINE], strict=True):
            is_sewn = piece.dart(dart).use is Use.DART
            long = format_length(note.amount_mm or 0.0, context.scope.unit)
            how = f"is sewn over {long}" if is_sewn else f"would be only {long} long: it is eased in or pressed away"
            text = f"the {away[dart]} dart opens in the new seam of the {words(name)} and {how}; in the {other} it is shut"
            notes.append(replace(note, text=text))
    return pattern, notes
