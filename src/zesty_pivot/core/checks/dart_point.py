"""4: the sewn dart point too near to the bust point, or too far from it."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.conventions.sewing import setback_of
from zesty_pivot.core.piece import Piece, Use, dart_key, dart_words
from zesty_pivot.core.quantity import format_length

# Nearer than this a dart makes a peak; further, the fullness sits beside the bust. Common practice, no source: the
# schools set darts back by 1.5 to 4 cm.
NEAREST_MM = 12.0
FURTHEST_MM = 50.0


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        for dart in piece.darts:
            if dart.pivot == "bust_point" and dart.use is Use.DART:
                yield from _one(look, piece, dart.id)


def _one(look: Look, piece: Piece, dart: str) -> Iterable[Finding]:
    key = dart_key(piece, dart)
    own = look.finish.of_dart(key)
    if own.end == "press_away":
        return  # it is not sewn
    school = look.sewing.by_school(own.school or look.sewing.school, piece.intake(dart))
    setback = setback_of(piece, dart, look.sewing)
    unit = look.scope.unit
    change = {"setback": None, "school": own.school or look.sewing.school}
    mend = Mend(
        f"Set it back by {format_length(school, unit)}",
        finish={"darts": {key: change}},
    )
    if setback < NEAREST_MM:
        yield Finding(
            "dart_point", Severity.WARNING, piece.name, dart,
            f"the {dart_words(piece, dart)} dart is sewn to {format_length(setback, unit, fine=True)} from the bust point",
            setback, NEAREST_MM, "mm", "Set it back further, or it makes a peak.", mend,
        )  # fmt: skip
    elif setback > FURTHEST_MM:
        yield Finding(
            "dart_point", Severity.WARNING, piece.name, dart,
            f"the {dart_words(piece, dart)} dart ends {format_length(setback, unit, fine=True)} from the bust point",
            setback, FURTHEST_MM, "mm", "Bring it nearer: the fullness sits beside the bust.", mend,
        )  # fmt: skip


CHECK = Check("dart_point", "Darts are sewn to the right distance from the bust point", _run)
