"""The second half of the work by hand: what is done with each traced piece until it can be cut."""

from __future__ import annotations

import math
from collections import defaultdict
from collections.abc import Sequence

import numpy as np

from zesty_pivot.core.conventions.options import Finish, is_on_fold
from zesty_pivot.core.finish.darts import SewnDart
from zesty_pivot.core.finish.marks import drill
from zesty_pivot.core.finish.piece import FinishedPiece, allowance_of
from zesty_pivot.core.piece import Body, Piece, Use
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.hand import Line, line
from zesty_pivot.core.quantity import Scope, format_length
from zesty_pivot.core.recipe.hand import Section


def finishing_by_hand(
    finished: Sequence[FinishedPiece], pieces: Sequence[Piece], finish: Finish, scope: Scope, first: int
) -> tuple[Section, ...]:
    """A section for each piece, numbered from `first`: darts to their sewn points, folded, taped and their caps traced; then
    allowances, notches, drill holes, the centre, the grain and what is written on it."""
    found: list[Section] = []
    known = {piece.name: piece for piece in pieces}
    for one in finished:
        piece = known.get(one.name)
        if piece is None or one.fault:
            continue
        darts = (said for dart in one.darts for said in _dart(dart, piece, scope))
        lines = (*darts, *_edges(piece, finish, scope), *_marks(one, piece))
        found.append(Section(first + len(found), f"{words(piece.name).capitalize()}: to be cut", lines))
    return tuple(found)


def _dart(dart: SewnDart, piece: Piece, scope: Scope) -> list[Line]:
    """Sewn point, new legs, fold, cap or what is left inside, drill hole."""
    name = words(dart.called or dart.dart)
    if dart.use is not Use.DART:
        if dart.cap is None:
            return []
        text = "Fold the {dart} as marked, pressed {way}, and tape it. Trace the {edge} across it with the wheel, and unfold."
        return [line("fold_tuck", text, dart=name, way=_pressed(dart, piece), edge=words(dart.edge))]
    unit = scope.unit
    pin = words(piece.dart(dart.dart).pivot) if piece.has_dart(dart.dart) else "pivot"
    leg = format_length(sum(path.length for path in dart.legs) / 2.0, unit)
    figures = {"dart": name, "pin": pin, "leg": leg}
    if dart.setback_mm > 0.05:
        text = (
            "Draw a line from the {pin} to the middle of the mouth of the {dart} dart. Mark its sewn point on it, {back} from "
            "the {pin}, and draw new legs from both ends of the mouth to that: each is {leg} long."
        )
        found = [line("sewn_point", text, back=format_length(dart.setback_mm, unit), **figures)]
    else:
        found = [line("sewn_legs", "The {dart} dart is sewn to its point: each leg is {leg} long.", **figures)]
    if dart.cap is not None:
        text = (
            "Fold the {dart} dart along its new legs, pressed {way}, and tape it. Trace the {edge} across it with the wheel, "
            "and unfold: that is its cap."
        )
        found.append(line("trace_cap", text, dart=name, way=_pressed(dart, piece), edge=words(dart.edge)))
    else:
        text = "Do not fold the {dart} dart: draw {inside} of allowance inside each leg, and cut away what lies between."
        found.append(line("cut_inside", text, dart=name, inside=format_length(dart.cut_away_mm, unit)))
    inside = math.dist(drill(dart).at, dart.point)
    text = "Prick a drill hole for the {dart} dart, {inside} short of its sewn point."
    found.append(line("drill", text, dart=name, inside=format_length(inside, unit)))
    return found


def _pressed(dart: SewnDart, piece: Piece) -> str:
    """`to the centre`, `down`: which way the fold lies, by the part beside the mouth that it is pressed to."""
    side = (dart.mouth[1] - dart.mouth[0]) * (-1.0 if dart.fold == "before" else 1.0)
    if abs(float(side[1])) > abs(float(side[0])):
        return "down" if side[1] > 0.0 else "up"
    middle = float(np.mean([end[0] for end in dart.mouth]))
    centre = min((float(run.path.start[0]) for run in piece.runs if piece.role(run.edge) == "centre"), default=middle)
    return "to the centre" if side[0] * (centre - middle) > 0.0 else "to the side"


def _edges(piece: Piece, finish: Finish, scope: Scope) -> list[Line]:
    """The allowance of each edge, the widest first."""
    groups: dict[str, list[str]] = defaultdict(list)
    order: dict[str, float] = {}
    for edge, _role in piece.roles:
        mm = allowance_of(piece, edge, finish, scope)
        if mm > 0.0:
            text = format_length(mm, scope.unit)
            groups[text].append(words(edge))
            order[text] = mm
    if not groups:
        return []
    each = "; ".join(f"{text} at the {', '.join(groups[text])}" for text in sorted(groups, key=lambda text: -order[text]))
    return [line("allowances", "Draw the allowances outside the seam lines: {each}. Cut along them.", each=each)]


def _marks(one: FinishedPiece, piece: Piece) -> list[Line]:
    """Notches, centre, grain, label."""
    strokes = "two strokes" if piece.body is Body.BACK else "one stroke"
    darts = any(dart.use is Use.DART for dart in one.darts)
    what = "at the ends of the darts' legs" if darts else ""
    if piece.notches:
        what += " and at the balance marks" if what else "at the balance marks"
    found = []
    if what:
        found.append(line("notches", "Notch the edges {what}, with {strokes}.", what=what, strokes=strokes))
    centre = "CB" if piece.body is Body.BACK else "CF"
    if "centre" in dict(piece.roles).values():
        text = "Write {centre} along the centre{fold}, and draw the grain parallel to it."
        found.append(line("centre", text, centre=centre, fold=", which lies on the fold" if is_on_fold(one.cut) else ""))
    elif piece.is_unfolded:
        found.append(line("grain", "Draw the {centre} line down the middle and the grain parallel to it.", centre=centre))
    else:
        found.append(line("grain", "Draw the grain as on the sheet."))
    if "bust_point" in piece.landmarks:
        found.append(line("bust_point", "Mark the bust point with a cross."))
    found.append(line("label", "Write on it: {words}.", words="; ".join(_label(one))))
    return found


def _label(one: FinishedPiece) -> list[str]:
    """What stands on the sheet's label."""
    return [words(one.name), one.cut_words]
