"""Lines that are drawn by eye between marks have no playback: their printed figures are measured on the written piece, by
svgelements, on six blocks."""

from __future__ import annotations

from typing import Any

import pytest

from tests.drafted import ROOM, room_block, shared_out
from tests.samples import move
from tests.sheets import lines
from tests.strips import mm
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry

PRINTED = 0.9  # mm; a millimetre or a sixteenth of an inch, halved

Step = dict[str, Any]
ACROSS = {"from": {"edge": "side_seam", "at": "75%"}, "to": {"edge": "centre", "from": "centre_waist", "at": "7 cm"}}


def neck(shape: str, **more: Any) -> Step:
    return {"do": "neck.shape", "on": "front", "other": "", "shape": shape, **more}


# The steps, the kind of line, which of its figures, and the pieces and edges whose length it says.
DRAWN: dict[str, tuple[list[Step], str, str, list[tuple[str, str]]]] = {
    "round": ([neck("round")], "draw_neck", "long", [("front", "neckline")]),
    "V": ([neck("v")], "draw_neck", "long", [("front", "neckline")]),
    "canoe": ([neck("canoe")], "draw_neck", "long", [("front", "neckline")]),
    "asymmetric": ([neck("asymmetric")], "draw_over", "long", [("front", "neckline.left"), ("front", "neckline.right")]),
    "wrap": ([neck("wrap")], "draw_wrap", "long", [("front", "neckline")]),
    "princess": ([{"do": "line.princess", "on": "front"}], "princess_cut", "total", [("front_centre", "princess")]),
    "style line": ([{"do": "line.cut", "on": "front", **ACROSS}], "cut_line", "long", [("front_panel", "line")]),
    "band": ([{"do": "line.band", "on": "front", "edge": "waist"}], "band", "long", [("front_waist_band", "band")]),
    "yoke": ([{"do": "yoke.cut", "on": "front"}], "yoke", "long", [("front_yoke", "yoke")]),
    "yoke's armhole": ([{"do": "yoke.cut", "on": "front", "shape": "curved"}], "yoke", "at", [("front_yoke", "armhole")]),
    "strapless": ([{"do": "trim.strapless", "on": "front"}], "strapless", "long", [("front", "neckline")]),
    "armhole": ([{"do": "trim.armhole", "on": "front", "other": ""}], "armhole", "long", [("front", "armhole")]),
}


def made(name: str, steps: list[Step], unit: str) -> Derived:
    bust = next(dart.id for dart in room_block(name).pieces[0].darts if dart.id != "waist")
    aside = [] if bust == "side" or steps[0]["do"] == "line.princess" else [move(bust, "side_bust")]
    found = derive(Style(name="T", block=room_block(name), units=unit, steps=tuple(registry.read(s) for s in [*aside, *steps])))
    assert not found.derivation.broken, found.derivation.broken
    return found


@pytest.mark.parametrize(("name", "what"), shared_out(DRAWN))
def test_a_printed_length_is_that_of_the_written_line(name: str, what: str) -> None:
    steps, do, figure, edges = DRAWN[what]
    for unit in ("cm", "in"):
        found = made(name, steps, unit)
        said = [one for section in found.by_hand("slash") for one in section.lines if one.do == do]
        sheets = {piece.name: lines(piece) for piece in found.pieces}
        long = sum(path.length(error=1e-6) for piece, edge in edges for path in sheets[piece][edge])
        assert mm(said[0].figures[figure]) == pytest.approx(long, abs=PRINTED * len(edges)), said[0].text


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("shape", ["round", "v", "square", "scoop"])
def test_a_necklines_marks_are_where_it_begins_and_ends(name: str, shape: str) -> None:
    """So far below the neck point at CF, so far from CF on the shoulder: the ends of the written line."""
    found = made(name, [neck(shape)], "cm")
    (mark,) = [one for section in found.by_hand("slash") for one in section.lines if one.do == "mark_neck"]
    front = next(piece for piece in found.pieces if piece.name == "front")
    written = {
        key: [end for path in lines(front)[key] for end in (path.point(0), path.point(1))] for key in ("neckline", "waist")
    }
    ends = sorted(written["neckline"], key=lambda at: at.y)
    foot = min(written["waist"], key=lambda at: at.x)  # at CF, where the block has it
    block = found.derivation.block.piece("front")
    above = float(block.corner("centre_waist")[1] - block.corner("neck_point")[1])
    assert ends[0].x - foot.x == pytest.approx(mm(mark.figures["width"]), abs=PRINTED)
    assert above - (foot.y - ends[-1].y) == pytest.approx(mm(mark.figures["depth"]), abs=PRINTED)
