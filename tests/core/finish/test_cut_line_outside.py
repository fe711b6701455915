"""The cut line lies outside the garment, whatever the neckline: no seam or leg that is drawn lies outside the cut line."""

from __future__ import annotations

from typing import Any

import pytest
import shapely

from tests.drafted import ROOM, room_block
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.necklines.registry import all_shapes
from zesty_pivot.core.steps import registry

WITHIN = 0.05  # mm, the width to which the cut line is drawn

BESIDE = [  # darts that a neckline has to go round
    [],
    [{"do": "dart.move", "on": "front", "dart": "waist", "to": {"station": "mid_neck"}}],
    [{"do": "dart.move", "on": "back", "dart": "waist", "to": {"station": "mid_armhole"}}],
]


@pytest.mark.parametrize("before", range(len(BESIDE)))
@pytest.mark.parametrize("block", list(ROOM)[::2])
def test_no_shape_brings_the_cut_line_into_the_garment(block: str, before: int) -> None:
    tried = 0
    for shape in all_shapes().values():
        steps: list[dict[str, Any]] = [*BESIDE[before], {"do": "neck.shape", "on": "front", "shape": shape.name}]
        made = derive(Style(name="Test", block=room_block(block), steps=tuple(registry.read(step) for step in steps)))
        assert not made.derivation.broken, (shape.name, made.derivation.broken[0][1])
        for piece in made.pieces:
            assert not piece.fault, (shape.name, piece.fault)
            room = shapely.Polygon(piece.ring).buffer(WITHIN)
            for stroke in piece.strokes:
                if stroke.layer == "seam" and stroke.kind != "cap":
                    tried += 1
                    outside = [path for path in stroke.paths if not room.covers(shapely.LineString(path.flatten(0.02)))]
                    assert not outside, (shape.name, piece.name, stroke.id)
        assert not [one for one in made.findings if one.check == "cut_line"], shape.name
    assert tried > 200
