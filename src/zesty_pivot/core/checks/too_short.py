"""10: a dart too short to be sewn."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.finish.darts import sewn_length
from zesty_pivot.core.piece import Use, dart_key, dart_words
from zesty_pivot.core.quantity import format_length

LIMIT_MM = 15.0  # common practice, no source: one of 1 to 1.5 cm is eased or pressed away, one of 4 cm is sewn


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        for dart in piece.darts:
            key = dart_key(piece, dart.id)
            if dart.use is not Use.DART or look.finish.of_dart(key).end == "press_away":
                continue
            long = sewn_length(piece, dart.id, look.sewing)
            if long < LIMIT_MM:
                named = dart_words(piece, dart.id)
                yield Finding(
                    "too_short", Severity.WARNING, piece.name, dart.id,
                    f"the {named} dart is sewn over only {format_length(long, look.scope.unit, fine=True)}",
                    long, LIMIT_MM, "mm", "Do not sew it: ease the mouth in, or press it away.",
                    Mend("Press it away", finish={"darts": {key: {"end": "press_away"}}}),
                )  # fmt: skip


CHECK = Check("too_short", "Darts are long enough to sew", _run)
