"""2: dart legs unequal."""

from __future__ import annotations

import math
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.conventions.sewing import sewn_point
from zesty_pivot.core.moves.open_up import home_edge
from zesty_pivot.core.piece import dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

LIMIT_MM = 0.5  # half a pencil line. Common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        for dart in piece.darts:
            point = sewn_point(piece, dart.id, look.sewing)
            first, second = piece.mouth(dart.id)
            gap = abs(math.dist(first, point) - math.dist(second, point))
            if gap > LIMIT_MM:
                edge, named = home_edge(piece, dart.id), dart_words(piece, dart.id)
                step = {"do": "piece.true", "on": piece.name, "edge": edge}
                yield Finding(
                    "dart_legs", Severity.ERROR, piece.name, dart.id,
                    f"the legs of the {named} dart differ by {format_length(gap, look.scope.unit, fine=True)}",
                    gap, LIMIT_MM, "mm", f"True the {words(edge)}.", Mend(f"True the {words(edge)}", step=step),
                )  # fmt: skip


CHECK = Check("dart_legs", "Dart legs are equal", _run)
