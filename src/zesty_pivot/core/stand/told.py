"""What a fitting says in words, with a step that mends it where there is one.

Limits are common practice, no source. Nothing is said beyond the form: it has no arms and does not move.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.checks.base import Finding, Mend, Severity
from zesty_pivot.core.piece import Body, Piece, Use
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import record
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.core.stand.maps import edge_roles, pulling, standing_off
from zesty_pivot.core.stand.whereabouts import where
from zesty_pivot.core.stand.worn import carried

NECK_MM, ARMHOLE_MM = 12.0, 40.0  # that an edge may stand off
LEVEL_MM = 25.0  # that a lower edge may hang lower on one side than on another
PIN_MM = 20.0  # that the bust point of the pattern may lie off the form's
TOO_TIGHT = 0.05  # stretched by more: a warning
LEAST_MM, MOST_MM = 3.0, 30.0  # of an edge that is worth taking out, and that can be
NEAR_MM = 50.0  # of a girth that is tight: what is tight elsewhere is not let out at the sides
MOST_OUT_MM = 40.0  # an edge that a side is let out; who lacks more wants another size

Points = NDArray[np.float64]


@record(eq=False)
class StandFinding:
    """A finding of the stand, and the place (3,) mm on the form that it is about."""

    finding: Finding
    place: Points


def told(fitting: Fitting, unit: Unit) -> tuple[StandFinding, ...]:
    """What there is to say, what hinders first."""
    said = [
        *_pulls(fitting, unit),
        *_edges(fitting, unit),
        *_hangs(fitting, unit),
        *_pins(fitting, unit),
        *_gaps(fitting, unit),
    ]
    return tuple(sorted(said, key=lambda one: one.finding.severity.rank))


def _mm(value: float, unit: Unit) -> str:
    """A length to the millimetre, or to an eighth of an inch: a form knows no finer."""
    return format_length(round(value / 3.175) * 3.175 if unit == "in" else float(round(value)), unit)


def _pulls(fitting: Fitting, unit: Unit) -> Iterator[StandFinding]:
    for patch in pulling(fitting):
        levels = fitting.form.levels
        level = min(levels, key=lambda name: abs(levels[name] - patch.place[2]))
        lacks = patch.value * fitting.form.surface.girth(levels[level])
        yield StandFinding(
            Finding(
                "stand_pulls", Severity.WARNING if patch.value > TOO_TIGHT else Severity.REMARK, "", patch.words,
                f"tight at {patch.words}: the cloth is stretched by {100.0 * patch.value:.0f} %", patch.value, 0.02, "",
                f"Let out there: a girth that lacks so much wants some {_mm(lacks, unit)} in all, a quarter of it a seam edge.",
                _let_out(fitting, level, lacks / 4.0, unit) if abs(levels[level] - patch.place[2]) < NEAR_MM else None,
            ),
            patch.place,
        )  # fmt: skip


def _let_out(fitting: Fitting, level: str, mm: float, unit: Unit) -> Mend | None:
    """The step that lets the sides out at a level by so much an edge, where front and back have one side seam each."""
    sides = [
        [piece for piece in fitting.worn.plan.pieces if piece.body is body and "side_seam" in dict(piece.roles).values()]
        for body in (Body.FRONT, Body.BACK)
    ]
    if (
        level == "over_bust"
        or fitting.worn.is_whole
        or any(len(found) != 1 for found in sides)
        or not LEAST_MM <= mm <= MOST_OUT_MM
    ):
        return None
    front, back = (found[0] for found in sides)
    where = "top" if level not in ("waist", "hip") else "waist" if level == "waist" and front.is_hip_length else "bottom"
    amounts = {"top": "0", "bottom": "0", **({"waist": "0"} if front.is_hip_length else {}), where: _written(mm, unit)}
    step = {"do": "piece.let_out", "on": front.name, "other": back.name, **amounts}
    return Mend(f"Let the sides out by {_mm(mm, unit)}", step=step)


def _written(mm: float, unit: Unit) -> str:
    """A length as it is typed."""
    return f"{round(mm / 3.175) / 8.0:g} in" if unit == "in" else f"{round(mm) / 10.0:g} cm"


def _gaps(fitting: Fitting, unit: Unit) -> Iterator[StandFinding]:
    for patch in standing_off(fitting):
        yield StandFinding(
            Finding(
                "stand_gap", Severity.REMARK, "", patch.words, f"stands off {_mm(patch.value, unit)} at {patch.words}",
                patch.value, 15.0, "mm", "It is room: more than is wanted goes into a dart or a seam.",
            ),
            patch.place,
        )  # fmt: skip


def _edges(fitting: Fitting, unit: Unit) -> Iterator[StandFinding]:
    for body in (Body.FRONT, Body.BACK):
        for role, limit, name in (("neckline", NECK_MM, "neckline"), ("armhole", ARMHOLE_MM, "armhole")):
            found = _edge(fitting, body, role)
            if found is None or found[1] <= limit:
                continue
            place, gap, longer, piece = found
            at = where(fitting.form, place, role, is_whole=fitting.worn.is_whole)
            text = f"the {words(body.value)} {name} stands off {_mm(gap, unit)} at {at}"
            mend = None
            if longer >= LEAST_MM:
                text += f"; its edge is {_mm(longer, unit)} longer than what it lies over, in one half"
                mend = _taken_out(piece, role, min(longer, MOST_MM), unit)
            yield StandFinding(
                Finding(
                    f"stand_{role}", Severity.REMARK, piece.name, at, text, gap, limit, "mm",
                    "Take it out of the edge and pivot it into a dart, or leave it as ease.", mend,
                ),
                place,
            )  # fmt: skip


def _taken_out(piece: Piece, role: str, mm: float, unit: Unit) -> Mend | None:
    """The step that takes some of a front edge into its bust dart, where it has one."""
    if not any(dart.pivot == "bust_point" and dart.use is Use.DART for dart in piece.darts) or piece.is_unfolded:
        return None
    edge = next(edge for edge, its in piece.roles if its == role)
    step = {"do": "neck.gape", "on": piece.name, "amount": _written(mm, unit), "at": {"edge": edge, "at": "50%"}}
    return Mend(f"Take {_mm(mm, unit)} out", step=step)


def _edge(fitting: Fitting, body: Body, role: str) -> tuple[Points, float, float, Piece] | None:
    """Of the edges of a role: where it stands off most, how far, how much longer the edge is than its shadow on the form (in
    one half), and a piece that has it."""
    plan, own = fitting.worn.plan, fitting.worn.own
    pieces = {piece.name: piece for piece in plan.pieces if piece.body is body and not piece.hangs}  # a cowl is meant to
    longer, gap, place, owner = 0.0, -1.0, np.zeros(3), None
    for line in plan.lines:
        piece = pieces.get(line.piece)
        if line.kind != "edge" or piece is None or piece.role(line.id) != role:
            continue
        points = own[list(line.points)]
        at = fitting.places[points]
        under = fitting.form.surface.nearest(at)
        longer += float(
            np.linalg.norm(np.diff(at, axis=0), axis=1).sum() - np.linalg.norm(np.diff(under, axis=0), axis=1).sum()
        )
        worst = int(fitting.gap[points].argmax())
        if fitting.gap[points[worst]] > gap:
            gap, place, owner = float(fitting.gap[points[worst]]), at[worst], piece
    return None if owner is None else (place, gap, longer / (2.0 if fitting.worn.is_whole else 1.0), owner)


def _hangs(fitting: Fitting, unit: Unit) -> Iterator[StandFinding]:
    """The lower edge in front against behind."""
    low = [point for point, role in edge_roles(fitting).items() if role in ("waist", "hem")]
    places = fitting.places[low]
    middle = places[np.abs(places[:, 0]) < 1.0] if not fitting.worn.is_whole else places[np.abs(places[:, 0]) < fitting.step]
    ahead = fitting.form.surface.middle(middle[:, 2])
    front, back = middle[middle[:, 1] > ahead], middle[middle[:, 1] <= ahead]
    if not len(front) or not len(back):
        return
    lower, higher = front[front[:, 2].argmin()], back[back[:, 2].argmin()]
    off = float(lower[2] - higher[2])
    if abs(off) <= LEVEL_MM:
        return
    text = f"the lower edge hangs {_mm(abs(off), unit)} {'higher' if off > 0.0 else 'lower'} in front than behind"
    advice = "Where it is meant to hang level, look at the front against the back waist length."
    yield StandFinding(
        Finding("stand_balance", Severity.REMARK, "", "lower edge", text, abs(off), LEVEL_MM, "mm", advice), lower
    )


def _pins(fitting: Fitting, unit: Unit) -> Iterator[StandFinding]:
    """The pattern's bust point against the form's."""
    aim = fitting.form.bust_point
    if aim is None:
        return
    for n, piece in enumerate(fitting.worn.plan.pieces):
        if piece.body is not Body.FRONT or not any(dart.pivot == "bust_point" for dart in piece.darts):
            continue
        pin = carried(fitting.worn, fitting.places, n, piece.pivot("bust_point")[None])[0]
        side = 1.0 if pin[0] >= 0.0 else -1.0
        up, out = float(pin[2] - aim[2]), side * float(pin[0]) - float(aim[0])
        if np.hypot(up, out) <= PIN_MM:
            continue
        ways = [f"{_mm(abs(up), unit)} {'above' if up > 0.0 else 'below'} it"] if abs(up) > PIN_MM / 3.0 else []
        ways += (
            [f"{_mm(abs(out), unit)} {'towards the side' if out > 0.0 else 'towards the middle'}"]
            if abs(out) > PIN_MM / 3.0
            else []
        )
        text = f"the bust point of the {words(piece.name)} misses the form's bust: it lies {' and '.join(ways)}"
        advice = "Look at shoulder to bust point and the bust span, or move the darts' points."
        off = float(np.hypot(up, out))
        yield StandFinding(
            Finding("stand_bust_point", Severity.REMARK, piece.name, "bust point", text, off, PIN_MM, "mm", advice), pin
        )
        return
