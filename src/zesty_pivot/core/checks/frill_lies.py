"""A frill round a curve: its free edge must go round the outside of it, or it stands up."""

from __future__ import annotations

import itertools
import math
from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.geometry.angles import between
from zesty_pivot.core.piece import Extra, Pattern
from zesty_pivot.core.piece.names import words

LEAST_MORE = 0.05  # of the ratio: less is pressed flat. Common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for extra in look.pattern.extras:
        ratio, worn = getattr(extra.asked, "ratio", None), getattr(extra.asked, "worn", None)
        if extra.kind != "frill" or ratio is None or worn is None or extra.lost or extra.edge_mm <= 0.0:
            continue
        needed = needed_ratio(look.pattern, extra)
        if needed > ratio + LEAST_MORE:
            yield Finding(
                "frill_lies", Severity.WARNING, extra.of[0], extra.piece.name,
                f"the {words(extra.piece.name)} stands up: its edge curves so that it lies flat only from {needed:.1f} to 1 on",
                ratio, needed, "to 1", "Gather it more, make it less deep, or take a circular flare.",
            )  # fmt: skip


def needed_ratio(pattern: Pattern, extra: Extra) -> float:
    """The ratio from which a frill lies flat on the garment beside a curved neckline: a line beside a curve at a distance d is
    d times its turn longer, so (L + d turn) / L. Source: the length of a parallel curve (Steiner), from memory."""
    deep = min(run.path.length for run in extra.piece.runs if run.edge == "end")
    if extra.asked.finished == "doubled":
        deep /= 2.0
    turn = 0.0
    for piece in pattern.pieces:
        for run in piece.runs:
            if piece.role(run.edge) != "neckline" or piece.name not in extra.of or extra.asked.edge not in ("neckline", "top"):
                continue
            cubics = run.path.cubics
            # To the left: the garment lies outside the curve.
            legs = [(c[k + 1] - c[k], c[k + 2] - c[k + 1]) for c in cubics for k in (0, 1)]
            inside = sum(max(0.0, -between(one, two)) for one, two in legs)
            corners = sum(max(0.0, -between(a[3] - a[2], b[1] - b[0])) for a, b in itertools.pairwise(cubics))
            turn += piece.times * (inside + (corners if corners < math.pi / 6.0 else 0.0))
    return 1.0 + deep * turn / extra.edge_mm


CHECK = Check("frill_lies", "Frills lie flat round curves", _run)
