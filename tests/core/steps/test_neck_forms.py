"""Keyholes by three numbers, yoke seams, box corners: on six blocks, measured by Shapely on flattened edges."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
import shapely

from tests.drafted import ROOM, room_block
from tests.samples import worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.piece import Pattern, Piece

IN = 25.4


def shaped(name: str, shape: str, **asked: Any) -> Pattern:
    step = {"do": "neck.shape", "on": "front", "other": "back", "shape": shape, **asked}
    return worked([step], block_file.pattern(room_block(name))).pattern


def edge(piece: Piece, *roles: str) -> np.ndarray:
    found: np.ndarray = np.concatenate([run.path.flatten(0.002) for run in piece.runs if piece.role(run.edge) in roles])
    return found


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("end", ["round", "point"])
def test_a_keyhole_begins_is_widest_and_ends_where_it_is_asked_to(name: str, end: str) -> None:
    """Begins 2 in below, 3 in across, widest 1 in down, ends 1 1/2 in further: three numbers."""
    asked = {"hole_start": "2 in", "hole_width": "1.5 in", "hole_height": "1 in", "hole_end": "1.5 in"}
    deep, top = depth(name)
    line = edge(shaped(name, "keyhole", depth=f"{deep} mm", end=end, **asked).piece("front"), "opening")
    assert line[:, 1].min() - top == pytest.approx(deep + 2.0 * IN, abs=0.02)
    assert line[:, 1].max() - top == pytest.approx(deep + 4.5 * IN, abs=0.02)
    assert line[:, 0].max() == pytest.approx(1.5 * IN, abs=0.05)
    assert line[int(line[:, 0].argmax()), 1] - top == pytest.approx(deep + 3.0 * IN, abs=1.0)


@pytest.mark.parametrize("name", ROOM)
def test_a_keyhole_may_be_widest_where_it_begins(name: str) -> None:
    deep, top = depth(name)
    asked = {"hole_height": "0", "hole_start": "2 in", "hole_end": "1.5 in", "end": "point"}
    line = edge(shaped(name, "keyhole", depth=f"{deep} mm", **asked).piece("front"), "opening")
    assert line[int(line[:, 0].argmax()), 1] - top == pytest.approx(deep + 2.0 * IN, abs=0.02)


def depth(name: str) -> tuple[float, float]:
    """A depth a little below the block's own neck (mm), and the height of its neck point."""
    marks = room_block(name).pieces[0].landmarks
    top = float(marks["neck_point"][1])
    return float(marks["centre_neck"][1]) - top + 8.0, top


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize(("form", "end"), [("curve", "point"), ("curve", "round"), ("heart", "heart"), ("straight", "point")])
def test_a_yoke_seam_crosses_the_widest_place(name: str, form: str, end: str) -> None:
    """1 1/2 in out on the seam, the opening goes on below it; the edges of yoke and front meet there."""
    made = shaped(name, "keyhole_yoke", form=form, end=end, hole_width="1.5 in", hole_end="1.5 in")
    yoke, front = made.piece("front_yoke"), made.piece("front")
    seams = [edge(piece, "style_line") for piece in (yoke, front)]
    for line, piece in zip(seams, (yoke, front), strict=True):
        at = line[int(line[:, 0].argmin())]
        assert at[0] == pytest.approx(1.5 * IN, abs=0.02)
        hole = edge(piece, "opening")
        assert np.hypot(*(hole - at).T).min() < 1e-6
    one, two = (
        sum(shapely.LineString(run.path.flatten(0.002)).length for run in piece.runs if piece.role(run.edge) == "style_line")
        for piece in (yoke, front)
    )
    assert one == pytest.approx(two, abs=0.01)
    low = edge(front, "opening")[:, 1].max()
    at_seam = min(float(line[int(line[:, 0].argmin())][1]) for line in seams)
    assert low > at_seam + 5.0
    assert "centre" in dict(yoke.roles).values() and "centre" in dict(front.roles).values()


@pytest.mark.parametrize("name", ROOM)
def test_a_curved_yoke_seam_is_square_at_the_centre(name: str) -> None:
    yoke = shaped(name, "keyhole_yoke", ends_on_seam=True).piece("front_yoke")
    line = edge(yoke, "style_line")
    line = line if line[0, 0] < line[-1, 0] else line[::-1]
    way = line[1] - line[0]
    assert abs(way[1] / way[0]) < 0.02
    straight = edge(shaped(name, "keyhole_yoke", ends_on_seam=True, form="straight").piece("front_yoke"), "style_line")
    assert shapely.LineString(straight).length < shapely.LineString(line).length


@pytest.mark.parametrize("side", ["left", "right"])
@pytest.mark.parametrize("form", ["box", "straight"])
@pytest.mark.parametrize("name", ROOM)
def test_an_asymmetric_edge_has_a_box_corner_on_the_deep_side(name: str, form: str, side: str) -> None:
    """Straight down from the deep side's shoulder to the depth: the corner lies at width and depth, left or right as worn."""
    block = room_block(name).pieces[0]
    low_at, sign = block.landmarks["bust_point"][1] * 0.62, 1.0 if side == "left" else -1.0
    front = shaped(name, "asymmetric", form=form, depth=f"{low_at} mm", side=side).piece("front")
    line = edge(front, "neckline")
    low = line[line[:, 1] > line[:, 1].max() - 1e-6]
    corner = low[int((sign * low[:, 0]).argmax())]
    deep = line[sign * line[:, 0] >= sign * corner[0] - 1e-6]
    assert np.abs(deep[:, 0] - corner[0]).max() < 1e-6  # straight down from the shoulder
    assert corner[1] - float(block.landmarks["neck_point"][1]) == pytest.approx(low_at, abs=0.01)
    other = line[sign * line[:, 0] < sign * corner[0] - 1e-6]
    if form == "straight":
        far = other[int((-sign * other[:, 0]).argmax())]
        chord = shapely.LineString([corner, far])
        assert max(shapely.distance(chord, shapely.points(other))) < 0.01
    soft = shaped(name, "asymmetric", form=form, depth=f"{low_at} mm", side=side, corner="3 cm").piece("front")
    assert np.hypot(*(edge(soft, "neckline") - corner).T).min() > 2.0  # rounded
