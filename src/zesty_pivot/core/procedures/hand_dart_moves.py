"""A dart moved by hand: marked, swung about the pin or cut and taped, and its new mouth read off as a check."""

from __future__ import annotations

from collections.abc import Sequence

from zesty_pivot.core.moves.cut import slit
from zesty_pivot.core.moves.join import SHUT
from zesty_pivot.core.moves.open_up import home_edge, mouth_distance
from zesty_pivot.core.moves.swing import moving_part
from zesty_pivot.core.piece import Pattern, Piece, called, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.dart_moves import OPENING, DartMove, angle_moved, goal, move_dart
from zesty_pivot.core.procedures.hand import Line, Way, edges_of, line, place_line, preparing_line, still_words
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.record import replace

_PLACES = ("at_dart", "at_mark", "at_far", "at_length", "at_share")  # how a place is found


def marks_of_move(move: DartMove, pattern: Pattern, context: Context) -> tuple[Line, ...]:
    """The mark for a place that the block decides."""
    piece = pattern.piece(move.on)
    found = preparing_line(move.to, piece, context.block.drafted(piece), context.scope, piece.dart(move.dart).pivot)
    return (found,) if found else ()


def move_by_hand(move: DartMove, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
    """Mark the place, swing (or cut and close), read the new mouth off as a check. Raises as `move_dart` does."""
    piece = pattern.piece(move.on)
    after = move_dart(move, pattern, context).pattern.piece(move.on)
    pivot, pin = piece.dart(move.dart).pivot, words(piece.dart(move.dart).pivot)
    place, target = goal(move.to, piece, pivot, context)
    found = [place_line(move.to, piece, context.scope, pivot)]
    if target == move.dart:
        return (
            *found,
            line("nothing", "The {dart} dart is there already: nothing is moved.", dart=dart_words(piece, move.dart)),
        )
    left = piece.angle(move.dart) - angle_moved(move, piece, place, target, context)
    names = {"pin": pin, "dart": dart_words(piece, move.dart)}
    stop = _stop(names, left, after.intake(_made_id(move, piece, after, target)), context)
    # A slit where nothing opens yet tells which part moves; a mouth that is there already does as well.
    parted = piece if target else slit(piece, place, pivot, OPENING)
    moving, _turn = moving_part(parted, parted.mouth_run(move.dart), parted.mouth_run(target or OPENING))
    still = [index for index in range(len(parted.runs)) if index not in moving]
    parts = {"still": still_words(parted, still, moving), "moving": edges_of(parted, moving)}
    if way == "pivot":
        found += _pivot_lines(names, parts, stop)
    else:
        found += _slash_lines(names, parts, stop, is_cut=target is None)
    return (*found, *_mouth_lines(move, piece, after, target, context))


def in_one_trace(each: Sequence[tuple[Line, ...]], way: Way) -> tuple[Line, ...]:
    """The procedures of moves that all open one mouth as one: the place is marked, the pin set (or the slash cut) and the mouth
    measured once, and every stretch of the outline is traced once."""
    found: list[Line] = []
    for number, lines in enumerate(each):
        is_first, is_last = number == 0, number == len(each) - 1
        for one in lines:
            if (one.do == "mouth" and not is_last) or (not is_first and one.do in (*_PLACES, "pin", "cut", "open")):
                continue
            if not is_first and one.do in ("shut", "leave") and way == "pivot":
                one = replace(one, text="Leave the pin in and swing" + one.text.removeprefix("Swing about the pin"))
            found.append(one)
    return tuple(found)


def beside(piece: Piece, move: DartMove, context: Context) -> Line | None:
    """The place of a move counted along the seam from the mouth of the dart that moves, or None for another kind of place."""
    if move.to.edge is None or move.to.at is None or home_edge(piece, move.dart) != move.to.edge:
        return None
    away = length_mm(move.to.at, context.scope) - mouth_distance(piece, move.dart)
    text = "On the {on}, measure {away} along the {edge} from the mouth of the {dart} dart, {side}, open mouths skipped."
    return line(
        "beside_dart", text, on=words(piece.name), away=format_length(abs(away), context.scope.unit),
        dart=dart_words(piece, move.dart),
        edge=words(move.to.edge), side="clockwise" if away > 0.0 else "anticlockwise",
    )  # fmt: skip


def _made_id(move: DartMove, piece: Piece, after: Piece, target: str | None) -> str:
    """The dart that a move opens: one that is there, or the new one, or the moved one itself at its new place."""
    return target or next((dart.id for dart in after.darts if not piece.has_dart(dart.id)), move.dart)


def _stop(names: dict[str, str], left: float, mouth: float, context: Context) -> Line:
    """How far it is turned: until the legs meet, or the mouth that opens is so wide. Nothing is measured farther out than the
    dart is long."""
    if left <= SHUT:
        return line("shut", "until the legs of the {dart} dart meet", **names)
    figures = {**names, "wide": format_length(mouth, context.scope.unit)}
    return line("leave", "until the mouth that opens at the place measures {wide}", **figures)


def _mouth_lines(move: DartMove, piece: Piece, after: Piece, target: str | None, context: Context) -> tuple[Line, ...]:
    """The new mouth to check the work by, and which other darts are called otherwise from now on."""
    made = _made_id(move, piece, after, target)
    figures = {"new": dart_words(after, made), "mouth": format_length(after.intake(made), context.scope.unit)}
    text = (
        "The mouth of the {new} dart now measures {mouth}. Redraw its legs from the ends of the mouth to the pin"
        ", and write “{new} dart” beside it."
    )
    others = [dart.id for dart in after.darts if dart.id != made and piece.has_dart(dart.id)]
    renamed = [(dart_words(piece, id), dart_words(after, id)) for id in others if called(piece, id) != called(after, id)]
    more = (line("rename", "The {dart} dart is the {new} dart from now on: write that beside it.", dart=old, new=new)
            for old, new in renamed)  # fmt: skip
    return (line("mouth", text, **figures), *more)


def _pivot_lines(names: dict[str, str], parts: dict[str, str], stop: Line) -> list[Line]:
    """Pin, trace, swing, trace."""
    text = "Pin at the {pin}. Trace what stays: the part with {still}, from the place to the {dart} dart."
    found = [line("pin", text, **names, still=parts["still"])]
    text = f"Swing about the pin {stop.text}. The part with {{moving}} moves."
    found.append(Line(stop.do, text.format(**parts), {**stop.figures, "moving": parts["moving"]}))
    found.append(line("trace", "Trace the part that has moved, from the {dart} dart to the place.", **names))
    return found


def _slash_lines(names: dict[str, str], parts: dict[str, str], stop: Line, *, is_cut: bool) -> list[Line]:
    """Cut to the pivot, close, tape."""
    text = "Cut from the place to the {pin}, but not through it." if is_cut else "The mouth is open already: cut nothing."
    found = [line("cut", text, pin=names["pin"])] if is_cut else [line("open", text)]
    text = f"Hold the part with {{still}} still and turn the part with {{moving}} {stop.text}. Tape it."
    found.append(Line(stop.do, text.format(**parts), {**stop.figures, **parts}))
    return found
