"""12: a piece's outline crosses itself, or a dart's leg leaves the piece or crosses another dart."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.region import crosses, crosses_itself, fisheye_fault


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.with_extras:
        legs = _leg_faults(piece)
        yield from legs
        if not legs and crosses_itself(piece):
            yield Finding(
                "outline", Severity.ERROR, piece.name, "outline", f"the outline of the {words(piece.name)} crosses itself",
                1.0, 0.0, "crossings", "Move the dart elsewhere, or move less of it.",
            )  # fmt: skip


@kept_with  # pieces that an edit leaves alone need no second look
def _leg_faults(piece: Piece) -> tuple[Finding, ...]:
    return tuple(_legs(piece))


def _legs(piece: Piece) -> Iterable[Finding]:
    for eye in piece.fisheyes:
        fault = fisheye_fault(piece, eye)
        if fault is not None:
            yield Finding(
                "outline", Severity.ERROR, piece.name, eye.id, f"the fish-eye dart {words(eye.id)}: {fault}",
                1.0, 0.0, "crossings", "Make it narrower, or move it.",
            )  # fmt: skip
    for dart in piece.darts:
        pin = piece.pivot(dart.pivot)
        for end in piece.mouth(dart.id):
            crossed = crosses(piece, end, pin)
            if crossed is not None:
                yield Finding(
                    "outline", Severity.ERROR, piece.name, dart.id,
                    f"a leg of the {dart_words(piece, dart.id)} dart crosses {crossed}",
                    1.0, 0.0, "crossings", "Open the dart elsewhere.",
                )  # fmt: skip
                break


CHECK = Check("outline", "Outlines do not cross", _run)
