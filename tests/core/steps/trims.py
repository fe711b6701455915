"""Styles with trims, worked out whole, and their edges as they are written."""

from __future__ import annotations

from typing import Any

from tests.sheets import lines
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.steps import registry


def trim(do: str, **more: Any) -> dict[str, Any]:
    return {"do": do, "on": "front", **more}


def made(block: BlockFile, *steps: dict[str, Any], **more: Any) -> Derived:
    return derive(Style(name="T", block=block, steps=tuple(registry.read(step) for step in steps), **more))


def done(block: BlockFile, *steps: dict[str, Any], **more: Any) -> Derived:
    found = made(block, *steps, **more)
    assert not found.derivation.broken, found.derivation.broken
    assert not any(piece.fault for piece in found.pieces)
    assert {f.check for f in found.findings if f.severity is Severity.ERROR} <= {"dart_legs"}
    return found


def on_sheet(found: Derived, name: str, edge: str = "seam") -> float:
    """How long an edge of a piece is on its written sheet, mm."""
    piece = next(piece for piece in found.pieces if piece.name == name)
    return sum(path.length(error=1e-9) for path in lines(piece)[edge])


def round_(pattern: Pattern, role: str) -> float:
    """An edge of the whole garment, added up from the edges of its pieces: halves twice."""
    mine = [(piece, edge) for piece in pattern.pieces for edge, its in piece.roles if its == role]
    return sum(piece.times * piece.edge(edge).sewn_length for piece, edge in mine)
