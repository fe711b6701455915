"""What is open below the chest line, on six blocks: every figure worked out from the asked lengths alone."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest

from tests.drafted import ROOM, room_block
from zesty_pivot.core.checks.base import Finding
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry

NECK = {"do": "neck.shape", "on": "front"}
AT_CF = {"do": "dart.move", "on": "front", "dart": "waist", "to": {"edge": "centre", "at": "40%"}}
AT_NECK = {"do": "dart.move", "on": "front", "dart": "waist", "to": {"station": "mid_neck"}}


def said(block: str, *steps: dict[str, Any]) -> list[Finding]:
    """What the check says of steps on a block."""
    made = derive(Style(name="Test", block=room_block(block), steps=tuple(registry.read(step) for step in steps)))
    assert not made.derivation.broken, made.derivation.broken
    return [one for one in made.findings if one.check == "uncovered"]


def chest(block: str) -> float:
    """The chest line below the neck point (mm)."""
    front = room_block(block).pieces[0]
    return float(front.levels["chest"] - front.landmarks["neck_point"][1])


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("below", [-3.0, 12.0])
def test_a_neckline_is_measured_from_the_chest_line(block: str, below: float) -> None:
    """However its paper was swung: a dart at CF or at the neck, made before or after it."""
    deep = {**NECK, "shape": "v", "depth": f"{chest(block) + below:.3f} mm"}
    for steps in ([deep], [AT_CF, deep], [deep, AT_CF], [AT_NECK, deep], [deep, AT_NECK]):
        told = said(block, *steps)
        if below < 0.0:
            assert not told
        else:
            (one,) = told
            assert one.value == pytest.approx(below, abs=0.1) and "1.2 cm below the chest line" in one.message


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("below", [-3.0, 12.0])
def test_a_keyhole_ends_above_the_chest_line_or_is_told(block: str, below: float) -> None:
    """The end of the hole: depth, way to its beginning, to its widest place and to its end."""
    half = (chest(block) + below - 110.0 - 30.0) / 2.0
    hole = {"depth": "110 mm", "hole_start": "30 mm", "hole_height": f"{half:.4f} mm", "hole_width": "2 cm"}
    in_one = {**NECK, "shape": "keyhole", **hole, "hole_end": f"{half:.4f} mm"}
    to_seam = {**NECK, "shape": "keyhole_yoke", **hole, "drop": f"{chest(block) + below:.3f} mm", "ends_on_seam": True}
    across = {**NECK, "shape": "keyhole_yoke", **hole, "hole_end": f"{half:.4f} mm"}
    for step in (in_one, to_seam, across):
        told = said(block, step)
        assert [one.value for one in told] == ([] if below < 0.0 else [pytest.approx(below, abs=0.1)])


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("below", [-3.0, 12.0])
def test_a_slit_counts_to_its_end(block: str, below: float) -> None:
    slit = f"{chest(block) + below:.3f} mm"
    for more in ({}, {"open": "2 cm"}):
        told = said(block, {**NECK, "shape": "slit", "slit": slit, **more})
        assert [one.value for one in told] == ([] if below < 0.0 else [pytest.approx(below, abs=0.1)])
    front = room_block(block).pieces[0]
    length = front.levels["chest"] - front.landmarks["centre_neck"][1] + below
    opening = {"do": "neck.opening", "on": "front", "kind": "slit", "length": f"{length:.3f} mm"}
    assert len(said(block, opening)) == (below > 0.0)
    assert not said(block, {**opening, "kind": "zip"})  # a zip is shut


@pytest.mark.parametrize("block", ROOM)
def test_a_wrap_uncovers_only_above_where_its_halves_cross(block: str) -> None:
    """The halves cross on the centre line: there, not at its end beside the waist, a wrap is deepest."""
    told = said(block, {**NECK, "shape": "wrap"})
    made = derive(Style(name="Test", block=room_block(block), steps=(registry.read({**NECK, "shape": "wrap"}),)))
    (edge,) = [run.path.flatten(0.01) for run in made.pattern.piece("front").runs if run.edge == "neckline"]
    crossing = float(np.interp(0.0, edge[:, 0], edge[:, 1]))
    below = crossing - room_block(block).pieces[0].levels["chest"]
    assert [one.value for one in told] == ([] if below < 0.5 else [pytest.approx(below, abs=0.1)])


@pytest.mark.parametrize("block", ROOM)
def test_nothing_is_told_of_what_is_shut_or_covers_nothing(block: str) -> None:
    """The block itself; an edge that runs out under the arm; a back as deep as it likes; a panel at the centre."""
    assert not said(block)
    assert not said(block, {**NECK, "shape": "one_shoulder"})
    assert not said(block, {**NECK, "shape": "round", "back": "v", "back_depth": "30 cm"})
    panel = {"do": "line.cut", "on": "front", "shape": "keyhole", "from": {"edge": "centre", "at": "80%"},
             "to": {"edge": "centre", "at": "50%"}, "width": "3 cm"}  # fmt: skip
    assert not said(block, panel)
