"""3: a corner in a joined seam over 3 degrees; centre front and back not square within 2 degrees."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.checks.limits import SMOOTH_DEG, STEP_MM
from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.moves import mirror
from zesty_pivot.core.moves.redraw import corner, jog
from zesty_pivot.core.moves.turned_back import falls_from
from zesty_pivot.core.piece import OPEN_USES, Body, Pattern, Piece, Side, dart_words
from zesty_pivot.core.piece.names import SEAM_ROLES, words

SQUARE_DEG = 2.0  # common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        yield from _inside(piece, look.sewing)
        yield from _at_centre(piece, look.sewing)
    yield from _at_seams(look.pattern, look.sewing)


def _inside(piece: Piece, sewing: Sewing) -> Iterable[Finding]:
    """Joints and mouths inside one edge."""
    for index, run in enumerate(piece.runs):
        if piece.runs[piece.after(index)].edge != run.edge or piece.role(run.edge) == "centre":
            continue
        if run.mouth is not None and piece.dart(run.mouth).use in OPEN_USES:
            continue  # the edge is drawn on across it, along its tangents
        if falls_from(piece, index):
            continue  # cloth was let in above it, hinged there: the corner is sewn to a straight edge
        turn, step = abs(math.degrees(corner(piece, index, sewing))), jog(piece, index, sewing)
        where = f"across the {dart_words(piece, run.mouth)} dart" if run.mouth else "where it was cut and closed"
        mend = Mend(f"True the {words(run.edge)}", step={"do": "piece.true", "on": piece.name, "edge": run.edge})
        place = f"{run.edge}:{index}"
        if turn > SMOOTH_DEG:
            yield Finding(
                "corners", Severity.WARNING, piece.name, place,
                f"the {words(run.edge)} has a corner of {turn:.1f}° {where}",
                turn, SMOOTH_DEG, "deg", f"True the {words(run.edge)}.", mend,
            )  # fmt: skip
        elif step > STEP_MM:
            yield Finding(
                "corners", Severity.WARNING, piece.name, place,
                f"the {words(run.edge)} has a step of {step:.1f} mm {where}",
                step, STEP_MM, "mm", f"True the {words(run.edge)}.", mend,
            )  # fmt: skip


def _at_centre(piece: Piece, sewing: Sewing) -> Iterable[Finding]:
    """Neckline and waist must leave the centre square, else the unfolded seam has a point or a hollow."""
    if piece.fold is None:
        return
    for index, run in enumerate(piece.runs):
        after = piece.runs[piece.after(index)]
        if (run.edge == piece.fold) == (after.edge == piece.fold):
            continue
        edge = after.edge if run.edge == piece.fold else run.edge
        if run.source.is_pointed or after.source.is_pointed:
            continue  # the line is meant to meet the centre in a point
        off = abs(abs(math.degrees(corner(piece, index, sewing))) - 90.0)
        if off > SQUARE_DEG:
            yield Finding(
                "corners", Severity.WARNING, piece.name, f"{edge}:centre",
                f"the {words(edge)} leaves the centre {off:.1f}° off square",
                off, SQUARE_DEG, "deg", "Redraw it square to the centre.",
                Mend("Square it to the centre", step={"do": "piece.square", "on": piece.name, "edge": edge}),
            )  # fmt: skip


def _at_seams(pattern: Pattern, sewing: Sewing) -> Iterable[Finding]:
    """Neckline, armhole and waist where front and back are joined at the shoulder and the side."""
    for a, b, role in _joined(pattern):
        sides = [*Side] if a.is_unfolded or b.is_unfolded else [None]
        for side, at_start in itertools.product(sides, (True, False)):
            # Panels of one line walk it in opposite ways; front and back are drawn alike.
            there = not at_start if role == "style_line" else at_start
            one, two = _opening(a, role, at_start, side, sewing), _opening(b, role, there, side, sewing)
            if one is None or two is None or one[0] != two[0] or one[0] == "style_line":
                continue
            if one[0] == "neckline" and (a.hangs or b.hangs):
                continue  # a cowl hangs from the shoulder: it does not go over it in one line
            turn = abs(math.degrees(one[1] + two[1] - math.pi))
            if turn > SMOOTH_DEG:
                names = f"{words(a.name)} and {words(b.name)}"
                seam = words(role if side is None else side.id(role))
                step = {"do": "piece.true_seam", "on": a.name, "other": b.name, "seam": role, "edge": one[0]}
                is_sided = mirror.side_of(a) is not None or mirror.side_of(b) is not None  # cut for one side of the body each
                before = ", before the whole is opened" if is_sided else ""
                yield Finding(
                    "corners", Severity.WARNING, a.name, f"{one[0]}:{role}",
                    f"the {words(one[0])} has a corner of {turn:.1f}° where {names} meet at the {seam}",
                    turn, SMOOTH_DEG, "deg", f"Redraw the {words(one[0])} of {names} across the seam{before}.",
                    None if is_sided else Mend(f"True it across the {words(role)}", step=step),
                )  # fmt: skip


def _joined(pattern: Pattern) -> Iterable[tuple[Piece, Piece, str]]:
    """Pieces sewn to each other directly: front to back at shoulder and side, panel to panel along its line."""
    for one, two in (seam.pair for seam in pattern.seams if seam.pair is not None):
        a, b = pattern.piece(one.piece), pattern.piece(two.piece)
        role = a.role(one.edge)
        is_panel = one.edge == two.edge and role == "style_line"
        is_side = role in SEAM_ROLES and {a.body, b.body} == {Body.FRONT, Body.BACK}
        is_right = Side.RIGHT in (a.sides.of(one.edge), b.sides.of(two.edge))
        if role == b.role(two.edge) and (is_panel or is_side) and not is_right:
            yield a, b, role


def _opening(piece: Piece, role: str, at_start: bool, side: Side | None, sewing: Sewing) -> tuple[str, float] | None:
    """The role of the edge that meets a seam at one end, and the inner angle (radians) there, a mouth sewn shut. `side` is that
    of an unfolded piece, whose right half is walked the other way round."""
    if piece.is_unfolded:
        at_start = at_start != (side is Side.RIGHT)
    indices = [
        index
        for index, run in enumerate(piece.runs)
        if piece.role(run.edge) == role and piece.sides.of(run.edge) in (None, side)
    ]
    if not indices:
        return None
    index = (indices[0] - 1) % len(piece.runs) if at_start else indices[-1]
    other = piece.runs[index].edge if at_start else piece.runs[piece.after(index)].edge
    return piece.role(other), math.pi - corner(piece, index, sewing)


CHECK = Check("corners", "Joined seams run smooth", _run)
