"""18: fullness that cannot be taken up as it is meant: gathers beyond what cloth gathers, pleats deeper than their spacing."""

from __future__ import annotations

import itertools
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.moves.open_up import home_edge, mouth_distance, open_up
from zesty_pivot.core.piece import Piece, Taking, Use
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

MOST_GATHERED = 3.0  # times the finished length; sheer cloth gathers so far. Common practice, no source
MOST_EASED = 1.10  # the softest cloth. Common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        yield from _gathered(look, piece)
        yield from _pleated(look, piece)
        yield from _let_in(look, piece)


def _gathered(look: Look, piece: Piece) -> Iterable[Finding]:
    for opened in open_up(piece)[1]:
        dart, limit = opened.dart, MOST_GATHERED if opened.dart.use is Use.GATHERS else MOST_EASED
        if dart.use is Use.FLARE or opened.open_mm <= limit * opened.sewn_mm:
            continue
        ratio = opened.open_mm / max(opened.sewn_mm, 1e-6)
        said = "gathered" if dart.use is Use.GATHERS else "eased"
        yield Finding(
            "taken_up", Severity.WARNING, piece.name, dart.id,
            f"the {words(opened.edge)} is {said} {ratio:.2f} to 1 over {format_length(opened.sewn_mm, look.scope.unit)}",
            ratio, limit, "to 1", "Take it up over more of the seam, or move some of it elsewhere.",
        )  # fmt: skip


def _let_in(look: Look, piece: Piece) -> Iterable[Finding]:
    """What was let in along slashes: gathers as any others; a seam that is thick on both sides of itself."""
    for laid in laid_open(piece)[1] if piece.fullness else ():
        for end in laid.ends:
            ratio = end.open_mm / max(end.sewn_mm, 1e-6)
            if laid.fullness.taking is Taking.GATHERS and end.held and ratio > MOST_GATHERED:
                yield Finding(
                    "taken_up", Severity.WARNING, piece.name, laid.fullness.id,
                    f"the {words(end.edge)} is gathered {ratio:.2f} to 1 over {format_length(end.sewn_mm, look.scope.unit)}",
                    ratio, MOST_GATHERED, "to 1", "Gather more of the seam, or less cloth.",
                )  # fmt: skip


def _pleated(look: Look, piece: Piece) -> Iterable[Finding]:
    """Tucks and pleats next to each other on one edge: half the intake lies under towards the neighbour."""
    folded = [dart for dart in piece.darts if dart.use in (Use.TUCK, Use.PLEAT)]
    for edge in dict.fromkeys(home_edge(piece, dart.id) for dart in folded):
        mine = [dart for dart in folded if home_edge(piece, dart.id) == edge]
        places = sorted(((mouth_distance(piece, dart.id), dart) for dart in mine), key=lambda pair: pair[0])
        for (here, one), (there, two) in itertools.pairwise(places):
            deep = max(piece.intake(one.id), piece.intake(two.id)) / 2.0
            if deep > there - here:
                unit = look.scope.unit
                yield Finding(
                    "taken_up", Severity.WARNING, piece.name, two.id,
                    f"the {one.use.value}s on the {words(edge)} are {format_length(deep, unit)} deep and only "
                    f"{format_length(there - here, unit)} apart",
                    deep, there - here, "mm", "Space them wider, or make more of them.",
                )  # fmt: skip


CHECK = Check("taken_up", "Fullness can be taken up as planned", _run)
