"""A neckline as wide as the block's own is an ordinary request: paper is taped on where it runs above the old one."""

from __future__ import annotations

import math
from typing import Any

import pytest
import shapely

from tests.drafted import ROOM, room_block, shared_out
from tests.sheets import lines
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece.region import crosses_itself
from zesty_pivot.core.steps import registry

# Every shape that begins on the shoulder and takes a width.
SHAPES = (
    "round", "square", "rectangle", "scoop", "v", "sweetheart", "queen_anne", "canoe", "keyhole", "keyhole_yoke", "scallop",
    "slit", "asymmetric", "wrap", "vest", "free",
)  # fmt: skip


def worked(name: str, **step: Any) -> Derived:
    value = {"do": "neck.shape", "on": "front", "width_from": "centre", **step}
    found = derive(Style(name="T", block=room_block(name), steps=(registry.read(value),)))
    assert not found.derivation.broken, found.derivation.broken
    return found


@pytest.mark.parametrize(("name", "shape"), shared_out(SHAPES))
def test_the_blocks_own_width(name: str, shape: str) -> None:
    """Ten shapes refused it: they left the piece by a hair beside the neck point."""
    own = room_block(name).pieces[0].landmarks["neck_point"][0]
    found = worked(name, shape=shape, width=f"{own!r} mm")
    block = found.derivation.block
    for piece in found.pattern.pieces:
        assert not crosses_itself(piece)
        drafted = block.drafted(piece)
        shoulders = [edge for edge, role in piece.roles if role == "shoulder"]
        for edge in shoulders:  # all of the shoulder is left, or what a yoke left of it
            assert piece.edge(edge).sewn_length == pytest.approx(drafted.edge("shoulder").sewn_length, abs=0.05)
    assert not [piece.fault for piece in found.pieces if piece.fault]
    front = next(piece for piece in found.pieces if "neckline" in lines(piece) or "neckline.left" in lines(piece))
    read = lines(front)
    if "neckline" in read and "centre" in read and shape not in ("keyhole_yoke", "queen_anne"):  # these widen below
        fold = read["centre"][0].point(0.0).x
        neck = [part.point(t) for part in read["neckline"] for t in (0.0, 1.0)]
        assert max(point.x for point in neck) - fold == pytest.approx(own, abs=0.05)


@pytest.mark.parametrize("name", ROOM)
def test_nothing_changed_at_all(name: str) -> None:
    """The block's own width and depth: the same neckline within what two quarter curves differ by."""
    marks = room_block(name).pieces[0].landmarks
    wide, deep = marks["neck_point"][0], marks["centre_neck"][1] - marks["neck_point"][1]
    found = worked(name, shape="round", width=f"{wide!r} mm", depth=f"{deep!r} mm", back="keep")
    front, block = found.pattern.piece("front"), found.derivation.block.piece("front")
    one, two = (shapely.MultiLineString([run.path.outline for run in p.edge("neckline").runs]) for p in (front, block))
    assert one.hausdorff_distance(two) < 0.12 * wide
    assert front.edge("neckline").sewn_length == pytest.approx(block.edge("neckline").sewn_length, rel=0.07)
    assert found.pattern.piece("back") == found.derivation.block.piece("back")


@pytest.mark.parametrize("name", ROOM)
def test_the_paper_that_is_taped_on_lies_in_the_neck_hole(name: str) -> None:
    """A V from the neck point runs above the old curve: what is added lies between both, nothing beyond the neck point."""
    marks = room_block(name).pieces[0].landmarks
    (wide, top), deep = marks["neck_point"], marks["centre_neck"][1] + 30.0
    found = worked(name, shape="v", width=f"{wide!r} mm", depth=f"{deep!r} mm")
    front, block = found.pattern.piece("front"), found.derivation.block.piece("front")
    areas = [shapely.Polygon([p for run in piece.runs for p in run.path.outline]).buffer(0.0) for piece in (front, block)]
    added = areas[0].difference(areas[1]).intersection(shapely.box(-10.0, top - 20.0, 1.5 * wide, deep))
    assert added.area > 50.0 and added.bounds[1] > top - 0.05 and added.bounds[2] < wide + 0.05
    assert math.isclose(front.edge("shoulder").sewn_length, block.edge("shoulder").sewn_length, abs_tol=0.05)
