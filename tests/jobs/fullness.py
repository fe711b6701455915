"""The jobs of yokes, gathers, pleats, cowls and drapes."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from tests.folding import length, polyline
from tests.jobs.figures import Sheets, is_, long, shoulders
from tests.jobs.hand import Hand
from tests.sheets import lines

# J22: yoke blouse.


def j22(hand: Hand) -> None:
    hand.add("Yoke")
    hand.add("Yoke")
    hand.add("Join yokes")
    hand.fill("forward", "2 cm")
    hand.add("Gathers")
    hand.choose("on", "front")
    hand.choose("edge", "yoke")
    hand.fill("ratio", "1.6")
    hand.add("Pleats")
    hand.choose("on", "back")
    hand.choose("kind", "box pleats")
    hand.fill("count", "1")
    hand.fill("depth", "2")
    hand.choose("edge", "yoke")
    hand.choose("start", "so far along an edge…")
    hand.write(hand.form().fields["start"].at.edit, "0%")


def j22_check(sheets: Sheets, pattern: Any) -> str:
    assert set(sheets) == {"front", "back", "yoke"}, set(sheets)
    seams = {"front": 0.0, "back": 0.0}
    for edge, paths in lines(sheets["yoke"]).items():
        for seam in pattern.seams:
            for mine, mate in ((seam.a, seam.b), (seam.b, seam.a)):
                if str(mine) == f"yoke.{edge}" and mate.only is not None and mate.only.piece in seams:
                    seams[mate.only.piece] = sum(length(polyline(path)) for path in paths)
    front, back = long(sheets, "front", "yoke"), long(sheets, "back", "yoke")
    is_("the front less 0.6 of its gathered stretch", front - 0.6 * 0.8 * seams["front"], seams["front"])
    is_("the back less half the box pleat's 4 cm twice", back - 40.0, seams["back"])
    return f"yoke seams {seams['front']:.1f} and {seams['back']:.1f} mm; below them {front:.1f} and {back:.1f} mm on the paper"


# J23: pleated front.


def j23(hand: Hand) -> None:
    hand.add("Tucks")
    hand.choose("on", "front")
    hand.fill("count", "5")
    hand.fill("depth", "0.3")
    hand.fill("spacing", "0.7")
    hand.choose("start", "so far along an edge…")
    start = hand.form().fields["start"]
    hand.pick(start.start, "from the centre waist")
    hand.write(start.at.edit, "1 cm")
    hand.add("Pleats")
    hand.choose("on", "front")
    hand.fill("far", "0%")
    hand.fill("depth", "1")
    hand.fill("spacing", "2")
    hand.fill("count", "4")
    hand.fill("stitched", "6")


def j23_check(sheets: Sheets, pattern: Any) -> str:
    drawn = lines(sheets["front"])
    mine = [path for id, paths in drawn.items() if "pleats" in id and id.endswith("stitching") for path in paths]
    stitched = [length(polyline(path)) for path in mine]
    assert len(stitched) == 8
    for each in stitched:
        is_("stitching", each, 60.0)
    waist = long(sheets, "front", "waist")
    finished = sum(run.path.length for run in pattern.piece("front").edge("waist").runs)
    # Five tucks take 6 mm each, four pleats 20 mm each, at right angles to their slashes.
    taken = 5 * 6.0 + 4 * 20.0
    assert taken <= waist - finished <= taken * 1.08, waist - finished
    words = " ".join(text.text for text in sheets["front"].texts)
    assert "4 knife pleats, take up" in words and "5 tucks, take up" in words
    return f"waist {finished:.1f} mm sewn, {waist:.1f} mm on the paper"


# J24: a mid cowl with two folds.


def j24(hand: Hand) -> None:
    hand.add("Cowl")
    hand.picture("drape.cowl", "mid")
    hand.seen["block"] = hand.window.model.derived.derivation.block


def j24_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    drawn, block = lines(sheets["front"]), seen["block"].piece("front")
    fold = polyline(drawn["neckline.fold"][0])[[0, -1]]
    fold = fold[np.argsort(fold[:, 0])]
    long, tilt = math.dist(*fold), math.degrees(math.atan2(fold[1, 1] - fold[0, 1], fold[1, 0] - fold[0, 0]))
    is_("square to CF, degrees off", tilt, 0.0, 0.01)
    shoulder = block.edge("shoulder").runs[0].path
    point, pit = shoulder.point_at(20.0), float(block.corner("centre_neck")[1])
    wanted = (pit + block.levels["bust"]) / 2.0 - float(point[1])
    is_("the sag", math.sqrt(long**2 - float(point[0]) ** 2), wanted, 0.1)
    (x0, y0), (x1, y1) = pattern.piece("front").grain
    is_("the bias, degrees", math.degrees(math.atan2(abs(y1 - y0), abs(x1 - x0))), 45.0)
    now = [sum(run.path.length for run in pattern.piece(on).edge("shoulder").runs) for on in ("front", "back")]
    was = shoulders(seen["block"])
    is_("the shoulders, with the ease of the back's", now[1] - now[0], was[1] - was[0])
    assert "shoulder_facing" in drawn and len(pattern.piece("front").hangs) == 2
    return f"edge {long / 10.0:.1f} cm, square; hangs {wanted / 10.0:.1f} cm as asked; back neck matched; two folds"


# J25: both darts and three slashes to one side, pleated in.


def j25(hand: Hand) -> None:
    hand.add("Unfold")
    hand.add("Drape")
    (right,) = [box for id, box in hand.form().fields["darts"].boxes.items() if id.endswith(".right")]
    for _twice in range(2):  # out and in again: both are asked for by name
        hand.tick_box(right)


def j25_check(sheets: Sheets, pattern: Any) -> str:
    piece = pattern.piece("front")
    numbers = sorted((int(text.text), text.at[1]) for text in sheets["front"].texts if text.bold and text.text.isdigit())
    assert [number for number, _y in numbers] == [1, 2, 3, 4, 5], numbers
    assert [y for _n, y in numbers] == sorted(y for _n, y in numbers), numbers
    darts = [dart for dart in piece.darts if piece.dart_edge(dart.id) == "side_seam.left"]
    (full,) = piece.fullness
    assert len(darts) == 2 and {dart.use.value for dart in darts} == {"pleat"} and len(full.lines) == 3
    sides = [sum(run.path.length for run in piece.edge(f"side_seam.{side}").runs) for side in ("left", "right")]
    is_("the draped side once folded, against the other", sides[0], sides[1])
    lining = sum(length(polyline(path)) for path in lines(sheets["front_lining"])["side_seam.left"])
    is_("the lining's side", lining, sides[0])
    return f"five folds in order, {sides[0] / 10.0:.1f} cm once folded, as long as the other side; lining undraped"
