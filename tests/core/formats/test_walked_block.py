"""A front's seam too long or too short is told the right way round, and mended to where its corner lay."""

from __future__ import annotations

import json

import numpy as np
import pytest

from tests import samples
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.walked_block import walk_block
from zesty_pivot.core.geometry import svgpath

CASES = [
    ("side_seam", "Side seams", 6.0, "front"),
    ("side_seam", "Side seams", -6.0, "back"),
    ("shoulder", "Shoulders", 6.0, "front"),
    ("shoulder", "Shoulders", -16.0, "back"),  # beyond what a back shoulder is eased by
]


@pytest.mark.parametrize(("role", "title", "by", "longer"), CASES)
def test_a_corner_off_along_its_seam_is_put_back(role: str, title: str, by: float, longer: str) -> None:
    """The corner that ends the front's seam is moved in the text of the file, so that nothing of the mend helps to spoil it."""
    value = samples.real_value()
    front = next(piece for piece in value["pieces"] if piece["name"] == "front")
    text = next(edge["path"] for edge in front["edges"] if edge["role"] == role)
    *_others, (_start, _c1, _c2, end) = svgpath.read(text)[-1].cubics
    way = svgpath.read(text)[-1].end_direction
    corner = next(name for name, at in front["landmarks"].items() if np.hypot(*(np.array(at) - end)) < 0.01)
    spoilt = json.dumps(front)
    for was, to in zip(end, end + by * way, strict=True):
        spoilt = spoilt.replace(f"{was:.6f}", f"{to:.6f}")
    value["pieces"] = [json.loads(spoilt) if piece is front else piece for piece in value["pieces"]]
    bad = next(piece for piece in value["pieces"] if piece["name"] == "front")
    bad["landmarks"][corner] = [round(float(at), 6) for at in end + by * way]
    block = block_file.from_value(value, "spoilt")

    line = next(line for line in walk_block(block, "cm") if line.title == title)
    assert not line.is_right and f"the {longer} is longer by" in line.says and line.mend is not None
    mended = line.mend.block
    assert next(line for line in walk_block(mended, "cm") if line.title == title).is_right
    there = next(piece for piece in mended.pieces if piece.name == "front").landmarks[corner]
    off = (np.array(there) - end) @ way
    one, two = (
        sum(edge.sewn_length for edge in samples.real_pattern().piece(name).edges if edge.role == role)
        for name in ("front", "back")
    )
    # A back shoulder keeps 1/4 in to be eased in: common practice, no source.
    eased = 6.35 if (role, longer) == ("shoulder", "back") else 0.0
    assert float(off) == pytest.approx(two - one - eased, abs=0.01)
    assert ("0.64 cm of the back eased in" in line.mend.title) == bool(eased)
