"""An edge flared by hand: darts in the way shut, every place marked, the slashes cut and spread one after the other."""

from __future__ import annotations

import math

from zesty_pivot.core.moves.cut import part_twice
from zesty_pivot.core.moves.swing import moving_part
from zesty_pivot.core.piece import Pattern, Piece, Place
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.flaring import Flaring, slashed
from zesty_pivot.core.procedures.hand import Line, chord_figures, line
from zesty_pivot.core.quantity import format_length


def flared_by_hand(asked: Flaring, pattern: Pattern, context: Context) -> tuple[Line, ...]:
    """What is done with paper. Raises as `flared` does."""
    unit = context.scope.unit
    ready = slashed(asked, pattern, context)
    piece = ready.pattern.piece(asked.on)
    names = {"on": words(asked.on), "edge": words(asked.edge)}
    found: list[Line] = []
    for note in ready.notes:
        found.append(line("mark_use", f"{note.text[:1].upper()}{note.text[1:]}.", dart=names["edge"]))
    for number, slash in enumerate(ready.slashes, start=1):
        hinge = piece.runs[slash.hinge.run].edge
        starts = [words(piece.ends.get(piece.role(edge), ("start", ""))[0]) for edge in (asked.edge, hinge)]
        text = (
            "On the {on}, mark A{number} on the {edge} {at} from the {start}, and H{number} on the {hinge} {there} "
            "from the {begin}, open mouths skipped."
        )
        at, there = (format_length(places.sewn_distance(piece, spot), unit) for spot in (slash.place, slash.hinge))
        marks = {"number": str(number), "at": at, "there": there, "start": starts[0], "begin": starts[1]}
        found.append(line("mark_slash", text, **names, hinge=words(hinge), **marks))
    for number, slash in enumerate(ready.slashes, start=1):
        text = (
            "Cut from A{number} to H{number}, but not through it. Turn the part without the centre {sense} until the "
            "cut stands open by {chord} at A{number}. Tape paper behind and draw the {edge} straight across."
        )
        reach = math.dist(places.point(piece, slash.place), places.point(piece, slash.hinge))
        figures = {**chord_figures(slash.angle(asked.by_mm), reach, unit), "sense": sense_of(piece, slash.place, slash.hinge)}
        found.append(line("spread_marked", text, number=str(number), edge=names["edge"], **figures))
    return tuple(found)


def sense_of(piece: Piece, place: Place, hinge: Place) -> str:
    """Which way the part that moves turns about the hinge when a slash is opened."""
    parted, one, two = part_twice(piece, place, hinge)
    return "clockwise" if moving_part(parted, two, one)[1] > 0.0 else "anticlockwise"
