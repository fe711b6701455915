"""16: a dart that ends on a style line further than 2.5 cm from its pivot shapes nothing there."""

from __future__ import annotations

import math
from collections.abc import Iterable

import numpy as np

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.piece import Pattern, Use
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import format_length

LIMIT_MM = 25.0  # common practice, no source


def _run(look: Look) -> Iterable[Finding]:
    for piece in look.pattern.pieces:
        for dart in piece.darts:
            edge = piece.dart_edge(dart.id)
            if piece.role(edge) != "style_line" or dart.use not in (Use.DART, Use.EASE):
                continue
            if dart.use is Use.DART and not _runs_down(look.pattern, piece.name, edge):
                continue  # sewn from a yoke's seam it shapes where it ends
            off = math.dist(np.mean(piece.mouth(dart.id), axis=0), piece.pivot(dart.pivot))
            if off > LIMIT_MM:
                far = format_length(off, look.scope.unit)
                yield Finding(
                    "line_misses", Severity.WARNING, piece.name, dart.id,
                    f"the style line of the {words(piece.name)} misses the {words(dart.pivot)} by {far}",
                    off, LIMIT_MM, "mm", "Draw the line nearer to the point, or sew a dart elsewhere.",
                )  # fmt: skip


def _runs_down(pattern: Pattern, name: str, edge: str) -> bool:
    """Whether a style line runs down between two panels, to shape them: both have a lower edge."""
    edge = pattern.piece(name).sides.name(edge)
    panels = next((line.panels for line in pattern.lines if line.id == edge and name in line.panels), ("",))
    return all(pattern.has(panel) and {"waist", "hem"} & set(dict(pattern.piece(panel).roles).values()) for panel in panels)


CHECK = Check("line_misses", "Style lines pass near the point", _run)
