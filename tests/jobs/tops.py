"""The jobs of what hangs on straps, or stands without."""

from __future__ import annotations

import math
from typing import Any

from tests.folding import length, polyline
from tests.jobs import bodies
from tests.jobs.hand import Hand
from tests.sheets import lines
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.piece import Pattern

IN = 25.4
Sheets = dict[str, FinishedPiece]


def _begin(hand: Hand) -> None:
    """What lies on the table when the job begins; the room works in inches."""
    hand.settle()
    hand.window.run("units.in")
    hand.counted.clear()
    hand.seen["block"] = hand.window.model.derived.derivation.block


# J16: a camisole over a hip block whose dart is in the shoulder.


def j16(hand: Hand) -> None:
    bodies.j01(hand)
    hand.settle()
    hand.seen["drafted"] = hand.window.model.derived.derivation.block
    hand.bead(hand.window.table.ring().beads[0].dart, "mid_shoulder")
    _begin(hand)
    hand.add("Move a dart")
    to = hand.form().to
    hand.pick(to.choice, "so far along an edge…")
    hand.pick(to.edge, "side seam")
    hand.write(to.at.edit, "2")
    levels = hand.seen["drafted"].piece("front").levels  # as the draft tells them
    depth, tips = levels["bust"] / IN - 0.5, levels["chest"] / IN - 0.75
    hand.add_with("camisole neckline", f"- {depth:.2f} {tips:.2f}", design="camisole")
    hand.choose("back", "razor")
    hand.add("Facing or lining")
    hand.choose("kind", "camisole facing")
    hand.add("Facing or lining")
    hand.choose("kind", "hem facing")


def j16_check(sheets: Sheets, pattern: Pattern, seen: dict[str, Any]) -> str:
    drafted, parts, told = seen["drafted"], [], []
    for name, x in (("front", float(drafted.piece("front").landmarks["bust_point"][0])), ("back", 2.0 * IN)):
        piece, block = pattern.piece(name), drafted.piece(name)
        ends = [run.path.end for run in piece.runs if piece.role(run.edge) == "neckline"]
        seat = max(ends, key=lambda at: float(at[0]))
        (x0, y0), (x1, y1) = block.corner("neck_point"), block.corner("shoulder_tip")
        level = float(y0 + (y1 - y0) * (max(x, x0) - x0) / (x1 - x0))  # of the shoulder, over the strap
        parts.append(float(seat[1]) - level)
        told.append(f"{name} {parts[-1] / 10.0:.1f}")
        _is(f"the strap's seat on the {name}, from the centre", float(seat[0]), x, IN / 8.0 + 0.1)
    front, block = pattern.piece("front"), drafted.piece("front")
    seat = next(run.path.end for run in front.runs if front.role(run.edge) == "neckline")
    _is("the tips above the chest line, with the seat 1/4 in lower", block.levels["chest"] - float(seat[1]), 0.5 * IN, 0.2)
    _is("CF above the bust line", block.levels["bust"] - float(front.corner("centre_neck")[1]), 0.5 * IN, 0.2)
    _is("the strap, front and back", _long(sheets, "strap", "side"), sum(parts), 0.1)
    for one, two in (("front", "back"), ("front_facing", "back_facing"), ("front_hem_facing", "back_hem_facing")):
        _is(f"the side seams of {one} and {two}", _sewn(pattern, one, "side_seam"), _sewn(pattern, two, "side_seam"), 0.1)
    (dart,) = front.darts
    mouth, under = front.mouth(dart.id), front.corner("underarm")
    below = min(math.dist(at, under) for at in mouth)
    _is("the dart below the underarm, which is 1/2 in lower now", below, 2.0 * IN - 0.5 * IN, 4.0)
    return f"strap {sum(parts) / 10.0:.1f} cm ({', '.join(told)}); side seams equal, facings too"


def _sewn(pattern: Pattern, name: str, edge: str) -> float:
    pieces = [*pattern.pieces, *(extra.piece for extra in pattern.extras)]
    return next(sum(run.path.length for run in piece.edge(edge).runs) for piece in pieces if piece.name == name)


def _long(sheets: Sheets, piece: str, edge: str) -> float:
    return sum(length(polyline(path)) for path in lines(sheets[piece])[edge])


def _is(what: str, found: float, wanted: float, within: float = 0.05) -> None:
    assert abs(found - wanted) <= within, f"{what}: {found:.2f} instead of {wanted:.2f} mm"
