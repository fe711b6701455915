"""9: a dart over 45 degrees, or with an intake over 8 cm."""

from __future__ import annotations

import math
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.finish.darts import is_cut_away
from zesty_pivot.core.piece import Use, dart_key, dart_words
from zesty_pivot.core.quantity import format_length

LIMIT_DEG = 45.0  # common practice, no source
LIMIT_MM = 80.0  # common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        for dart in piece.darts:
            if dart.use is not Use.DART:
                continue
            key = dart_key(piece, dart.id)
            if is_cut_away(piece, dart.id, look.finish) or look.finish.of_dart(key).end == "press_away":
                continue  # nothing bulky is left in it
            angle, intake = math.degrees(piece.angle(dart.id)), piece.intake(dart.id)
            mend = Mend("Cut away the inside", finish={"darts": {key: {"end": "cut_away"}}})
            if angle > LIMIT_DEG:
                yield Finding(
                    "bulk", Severity.WARNING, piece.name, dart.id, f"the {dart_words(piece, dart.id)} dart has {angle:.1f}°",
                    angle, LIMIT_DEG, "deg", "Split it, or cut away the inside.", mend,
                )  # fmt: skip
            elif intake > LIMIT_MM:
                taken = format_length(intake, look.scope.unit)
                yield Finding(
                    "bulk", Severity.WARNING, piece.name, dart.id, f"the {dart_words(piece, dart.id)} dart takes in {taken}",
                    intake, LIMIT_MM, "mm", "Split it, or cut away the inside.", mend,
                )  # fmt: skip


CHECK = Check("bulk", "No dart is too bulky", _run)
