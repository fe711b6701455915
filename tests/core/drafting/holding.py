"""What must hold of any draft: girths, partners, legs, apex, joins."""

from __future__ import annotations

import math

import pytest

from tests.core.drafting.worked import sewn
from zesty_pivot.core.drafting.draft import Draft
from zesty_pivot.core.drafting.values import Number, Point
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_check import shut_corner
from zesty_pivot.core.formats.drafted_block import block_of
from zesty_pivot.core.geometry import between
from zesty_pivot.core.ledger import girths
from zesty_pivot.core.piece import Pattern, Piece

EXACT = 0.01  # mm
SMOOTH = 0.5  # degrees


def amount(drawn: Draft, name: str) -> float:
    found = drawn.names.get(name)
    return found.amount if isinstance(found, Number) else 0.0


def ease(drawn: Draft, name: str) -> float:
    """What the conventions ask for round the body, mm."""
    if drawn.method.id == "child":
        return 4.0 * amount(drawn, "ease")
    if drawn.method.id == "two_dart" and name == "bust":
        return 2.0 * (amount(drawn, "ease_bust_front") + amount(drawn, "ease_bust_back"))
    if drawn.method.id == "blouse_four_darts":
        return 4.0 * amount(drawn, "side_add")
    return 4.0 * amount(drawn, f"ease_{name}")


def widths(drawn: Draft, pattern: Pattern) -> dict[str, float]:
    """Girths by the pattern; of what was swung or has darts from every side by the marks on the chest line."""
    found = girths(pattern, pattern)
    measured = {"bust": found.bust, "waist": found.waist, "hip": found.hip}
    marks = {"two_dart": ("underarm_flat", "underarm"), "blouse_four_darts": ("P9", "underarm")}.get(drawn.method.id)
    if marks is not None:
        front, back = drawn.value("front", marks[0]), drawn.value("back", marks[1])
        assert isinstance(front, Point) and isinstance(back, Point)
        measured["bust"] = 2.0 * (front.x + back.x)
    if drawn.method.id == "blouse_four_darts":
        measured["waist"] = None  # its lower edge is no waist
    return {name: mm for name, mm in measured.items() if mm is not None and name in drawn.measures}


def join(front: Piece, back: Piece, role: str, other: str, *, at_end: bool) -> float:
    """The corner (degrees) of a role's edge where front and back are joined along another."""
    angle = 0.0
    for piece in (front, back):
        edge, seam = piece.edge(role).runs, piece.edge(other).runs
        if at_end:
            angle += between(-edge[-1].path.end_direction, seam[0].path.start_direction)
        else:
            angle += between(-seam[-1].path.end_direction, edge[0].path.start_direction)
    return abs(math.degrees(abs(angle) - math.pi))


def hold(drawn: Draft) -> None:
    """What must be so of any draft."""
    block = block_of(drawn)  # refuses an outline that crosses itself
    pattern = block_file.pattern(block)
    front, back = pattern.piece("front"), pattern.piece("back")
    for name, girth in widths(drawn, pattern).items():
        assert girth - drawn.measures[name] == pytest.approx(ease(drawn, name), abs=EXACT), name
    wanted = amount(drawn, "shoulder_ease")
    assert sewn(back, "shoulder") - sewn(front, "shoulder") == pytest.approx(wanted, abs=EXACT)
    assert sewn(front, "side_seam") == pytest.approx(sewn(back, "side_seam"), abs=EXACT)
    for piece in (front, back):
        for dart in piece.darts:
            one, two = piece.legs(dart.id)
            assert one == pytest.approx(two, abs=EXACT), dart.id
    if "span" in drawn.measures and drawn.method.id != "child":
        assert front.landmarks["bust_point"] == pytest.approx((drawn.measures["span"] / 2, drawn.measures["sh_bp"]), abs=1e-5)
    assert join(front, back, "armhole", "side_seam", at_end=True) < SMOOTH
    assert join(front, back, "neckline", "shoulder", at_end=True) < SMOOTH or drawn.method.id == "two_dart"
    if drawn.method.id == "blouse_four_darts":
        assert abs(math.degrees(shut_corner(front, "armhole"))) < SMOOTH
