"""Marks on the sheet: where they lie, which way they point, and that they fit."""

import itertools
import math
from dataclasses import replace

import numpy as np
import pytest
import shapely
import shapely.affinity

from tests.samples import move, real_pattern, worked
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.finish.darts import sewn_dart
from zesty_pivot.core.finish.labels import label
from zesty_pivot.core.finish.marks import NOTCH, Text, balance_notches, notch
from zesty_pivot.core.finish.piece import finish_piece, grain_inside
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.lettering import rough_width
from zesty_pivot.core.piece.region import outline
from zesty_pivot.core.quantity import Scope


@pytest.mark.parametrize("degrees", [0.0, 30.0, 90.0, 200.0])
def test_a_balance_notch_lies_square_across_the_allowance_outside(degrees: float) -> None:
    """Walked clockwise the piece lies at the right hand, so the notch goes to the left."""
    turn = math.radians(degrees)
    along = np.array([math.cos(turn), math.sin(turn)])
    left = np.array([along[1], -along[0]])
    seam = Path.straight(np.zeros(2), along * 200.0)
    ring = np.array([left * 10.0 - along * 50, left * 10.0 + along * 250, along * 250 - left * 90, -along * 50 - left * 90])
    (one,) = balance_notches(seam, 100.0, ring, double=False)
    assert one.start == pytest.approx(along * 100.0 + left * 10.0) and one.length == pytest.approx(NOTCH)
    assert one.end == pytest.approx(along * 100.0 + left * (10.0 - NOTCH))
    first, second = balance_notches(seam, 100.0, ring, double=True)
    assert float((second.start - first.start) @ along) > 0.0 and math.dist(first.start, second.start) < 10.0


def test_a_notch_begins_where_its_ray_meets_the_cut_line_first() -> None:
    ring = np.array([[-50.0, -8.0], [50.0, -8.0], [50.0, -60.0], [-50.0, -60.0]])
    made = notch(np.zeros(2), np.array([0.0, 100.0]), ring)
    assert made.start == pytest.approx([0.0, -8.0]) and made.end == pytest.approx([0.0, -8.0 + NOTCH])


def covered(text: Text) -> shapely.Polygon:
    """What a line of writing covers: half a height a letter, from a little below its line to its height above."""
    wide = rough_width(text.text) * text.size
    flat = shapely.box(text.at[0] - wide / 2.0, text.at[1] - text.size, text.at[0] + wide / 2.0, text.at[1] + text.size * 0.3)
    return shapely.affinity.rotate(flat, text.turn, origin=text.at, use_radians=True)


@pytest.mark.parametrize(("wide", "tall"), [(400.0, 40.0), (40.0, 400.0), (120.0, 120.0), (300.0, 14.0), (14.0, 600.0)])
def test_a_label_is_written_where_there_is_room(wide: float, tall: float) -> None:
    """At full height, turned along a narrow piece, and apart from each other where together they do not fit."""
    rows = [("style", 4.0, False), ("left front facing", 8.0, True), ("size 40", 4.0, False), ("cut 1 pair", 4.0, False)]
    room = shapely.box(0.0, 0.0, wide, tall)
    texts = label(rows, room)
    assert sorted((text.text, text.size) for text in texts) == sorted((text, size) for text, size, _bold in rows)
    boxes = [covered(text) for text in texts]
    assert all(room.contains(box) for box in boxes)
    assert not any(a.intersects(b) for a, b in itertools.combinations(boxes, 2))


def test_only_where_there_is_no_room_it_is_made_smaller() -> None:
    """Together, in several lines: then all of it is smaller."""
    broken = label([("a style with a very long name indeed", 8.0, True)], shapely.box(0.0, 0.0, 90.0, 90.0))
    assert len(broken) > 1 and {text.size for text in broken} == {8.0}
    (text,) = label([("a style with a very long name indeed", 8.0, True)], shapely.box(0.0, 0.0, 20.0, 20.0))
    assert text.size < 8.0 and shapely.box(0.0, 0.0, 20.0, 20.0).contains(covered(text))


@pytest.mark.parametrize(("less", "is_folded"), [(0.5, True), (1.5, False)])
def test_an_inside_of_a_millimetre_is_not_cut_away(less: float, is_folded: bool) -> None:
    """Half the mouth, less the allowance over the cosine of half the angle at the sewn point: what is left to cut away."""
    piece = worked([]).pattern.piece("front")
    plain = sewn_dart(piece, "waist", Finish(end="cut_away", cut_away="1 mm"), Scope())
    one, two = plain.mouth
    half = math.dist(one, two) / 2.0
    deep = math.dist(np.mean(plain.mouth, axis=0), plain.point)
    allowance = (half - less) * math.cos(math.atan2(half, deep))
    made = sewn_dart(piece, "waist", Finish(end="cut_away", cut_away=f"{allowance:.4f} mm"), Scope())
    assert (made.cap is not None) == is_folded and ("too narrow" in made.note) == is_folded


def test_the_arrow_of_a_pleat_points_from_the_line_laid_over_to_the_line_it_lies_on() -> None:
    steps = [{"do": "dart.use", "on": "front", "dart": "waist", "as": "pleats", "count": 1}]
    piece = worked(steps).pattern.piece("front")
    for fold, towards in (("before", 0), ("after", 1)):
        done = finish_piece(piece, Finish.model_validate({"darts": {"front.waist": {"fold": fold}}}), Scope(), "Test")
        (dart,) = [dart for dart in done.darts if dart.dart == "waist"]
        (arrow,) = [stroke for stroke in done.strokes if stroke.kind == "arrow"]
        shaft, head = arrow.paths
        near, far = dart.mouth[towards], dart.mouth[1 - towards]
        assert math.dist(shaft.end, near) < math.dist(shaft.start, near)
        assert math.dist(shaft.start, far) < math.dist(shaft.end, far)
        tip = head.cubics[0, 3]  # the head's middle is the tip, its ends lie behind it
        assert tip == pytest.approx(shaft.end)
        for wing in (head.start, head.end):
            assert float((wing - tip) @ (shaft.end - shaft.start)) < 0.0
        (words,) = [text for text in done.texts if text.text == "pleat"]
        inside = shapely.Polygon(np.concatenate([run.path.outline for run in piece.runs]))
        assert inside.contains(shapely.Point(words.at))


def test_words_of_gathers_lie_on_the_paper_above_the_seam() -> None:
    steps = [
        move("shoulder", "mid_neck"),
        {"do": "dart.use", "on": "front", "dart": "shoulder", "as": "gathers", "over": "8 cm"},
    ]
    done = finish_piece(worked(steps).pattern.piece("front"), Finish(), Scope(), "Test")
    (words,) = [text for text in done.texts if text.text.startswith("gather")]
    ring = shapely.Polygon(done.ring)
    assert ring.contains(shapely.Point(words.at)) and real_pattern().piece("front").landmarks["bust_point"][1] > words.at[1]


@pytest.mark.parametrize("name", ["front", "back"])
def test_a_grain_line_beside_the_piece_is_drawn_through_its_widest_place(name: str) -> None:
    piece = real_pattern().piece(name)
    cloth = shapely.Polygon(outline(piece))
    (x0, y0), (x1, y1) = piece.grain
    drawn = shapely.LineString(grain_inside(replace(piece, grain=((x0 + 1000.0, y0), (x1 + 1000.0, y1)))))
    assert cloth.contains(drawn) and drawn.length > 0.6 * math.dist((x0, y0), (x1, y1))
    way = np.diff(drawn.coords, axis=0)[0] / drawn.length
    assert way == pytest.approx(np.array([x1 - x0, y1 - y0]) / math.dist((x0, y0), (x1, y1)))
