"""The jobs of what hangs on straps, or stands without."""

from __future__ import annotations

import math
from typing import Any

import numpy as np

from tests.folding import polyline
from tests.jobs import bodies
from tests.jobs.figures import IN, Sheets, is_, long
from tests.jobs.hand import Hand
from tests.sheets import lines
from zesty_pivot.core.piece import Pattern


def _begin(hand: Hand) -> None:
    """What lies on the table when the job begins; the room works in inches."""
    hand.settle()
    hand.window.run("units.in")
    hand.counted.clear()
    hand.seen["block"] = hand.window.model.derived.derivation.block


# J16: a camisole over a hip block whose dart is in the shoulder.


def j16(hand: Hand) -> None:
    bodies.j01(hand)
    hand.settle()
    hand.seen["drafted"] = hand.window.model.derived.derivation.block
    hand.bead(hand.window.table.ring().beads[0].dart, "mid_shoulder")
    _begin(hand)
    hand.add("Move a dart")
    to = hand.form().to
    hand.pick(to.choice, "so far along an edge…")
    hand.pick(to.edge, "side seam")
    hand.write(to.at.edit, "2")
    levels = hand.seen["drafted"].piece("front").levels  # as the draft tells them
    depth, tips = levels["bust"] / IN - 0.5, levels["chest"] / IN - 0.75
    hand.add_with("camisole neckline", f"- {depth:.2f} {tips:.2f}", design="camisole")
    hand.choose("back", "razor")
    hand.add("Facing or lining")
    hand.choose("kind", "camisole facing")
    hand.add("Facing or lining")
    hand.choose("kind", "hem facing")


def j16_check(sheets: Sheets, pattern: Pattern, seen: dict[str, Any]) -> str:
    drafted, parts, told = seen["drafted"], [], []
    for name, x in (("front", float(drafted.piece("front").landmarks["bust_point"][0])), ("back", 2.0 * IN)):
        piece, block = pattern.piece(name), drafted.piece(name)
        ends = [run.path.end for run in piece.runs if piece.role(run.edge) == "neckline"]
        seat = max(ends, key=lambda at: float(at[0]))
        (x0, y0), (x1, y1) = block.corner("neck_point"), block.corner("shoulder_tip")
        level = float(y0 + (y1 - y0) * (max(x, x0) - x0) / (x1 - x0))  # of the shoulder, over the strap
        parts.append(float(seat[1]) - level)
        told.append(f"{name} {parts[-1] / 10.0:.1f}")
        is_(f"the strap's seat on the {name}, from the centre", float(seat[0]), x, IN / 8.0 + 0.1)
    front, block = pattern.piece("front"), drafted.piece("front")
    seat = next(run.path.end for run in front.runs if front.role(run.edge) == "neckline")
    is_("the tips above the chest line, with the seat 1/4 in lower", block.levels["chest"] - float(seat[1]), 0.5 * IN, 0.2)
    is_("CF above the bust line", block.levels["bust"] - float(front.corner("centre_neck")[1]), 0.5 * IN, 0.2)
    is_("the strap, front and back", long(sheets, "strap", "side"), sum(parts), 0.1)
    for one, two in (("front", "back"), ("front_facing", "back_facing"), ("front_hem_facing", "back_hem_facing")):
        is_(f"the side seams of {one} and {two}", _sewn(pattern, one, "side_seam"), _sewn(pattern, two, "side_seam"), 0.1)
    (dart,) = front.darts
    mouth, under = front.mouth(dart.id), front.corner("underarm")
    below = min(math.dist(at, under) for at in mouth)
    is_("the dart below the underarm, which is 1/2 in lower now", below, 2.0 * IN - 0.5 * IN, 4.0)
    return f"strap {sum(parts) / 10.0:.1f} cm ({', '.join(told)}); side seams equal, facings too"


def _sewn(pattern: Pattern, name: str, edge: str) -> float:
    pieces = [*pattern.pieces, *(extra.piece for extra in pattern.extras)]
    return next(sum(run.path.length for run in piece.edge(edge).runs) for piece in pieces if piece.name == name)


# J14: strapless with arm bands and frills.


def j14(hand: Hand) -> None:
    hand.add("Strapless edge")
    hand.choose("on", "front")
    hand.choose("shape", "sweetheart")
    hand.fill("depth", "6 in")
    hand.add("Princess line")
    hand.fill("top", "1 in")
    hand.fill("waist", "2 1/2 in")
    hand.fill("centre_waist", "1 in")
    hand.add("Strapless edge")
    hand.choose("on", "back")
    hand.fill("depth", "7 in")
    hand.add("Contour the centre")
    hand.add("Band or cuff")
    hand.choose("edge", "armhole")
    hand.fill("lap", "1/2 in")
    hand.add("Frill")
    hand.choose("edge", "armhole")
    hand.see("before")
    hand.think()
    hand.click(hand.window.strip.cards[2])  # the front's edge, after the block and the dart that was moved
    hand.choose("to", "so far along an edge…")
    hand.write(hand.form().fields["to"].at.edit, "60%")
    hand.click(hand.window.strip.cards[-1])


def j14_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    told = []
    for written, here in (seen["before"], (sheets, pattern)):
        arms = sum(long(written, p.name, edge) for p in here.pieces for edge, role in p.roles if role == "armhole")
        is_("the band", long(written, "armhole_band", "seam"), arms + 12.7)
        is_("the band's depth, folded", long(written, "armhole_band", "end"), 2.0 * 38.1)
        is_("the frill", long(written, "armhole_frill", "seam"), 1.6 * arms)
        is_("the frill's depth", long(written, "armhole_frill", "end"), 76.2)
        told.append(f"{arms / 10.0:.1f} cm")
    assert told[0] != told[1], told
    assert sheets["armhole_band"].cut == "pair"
    return f"arm edges {told[0]}; with the front ending lower {told[1]}: band and frill followed"


# J15: a peplum bodice from a given block.


def j15(hand: Hand) -> None:
    bodies.j21(hand)  # the draft takes CB in by 1/2 in
    hand.add("Neck opening")
    hand.add("Peplum")
    hand.fill("raised_by", "1 in")
    hand.press("Finish")
    hand.pick_named("Allowance convention", "home: side 1 1/2 in, joins 1 in")
    hand.seen["block"] = hand.window.model.derived.derivation.block


def j15_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    whole = 0.0
    for on in ("front", "back"):
        finished = long(sheets, on, "waist")
        is_(f"the {on}'s peplum", long(sheets, f"waist_peplum_{on}", "seam"), finished)
        whole += finished
        was = sum(run.path.length for run in seen["block"].piece(on).edge("side_seam").runs)
        is_("1 in above the waist", was - long(sheets, on, "side_seam"), 25.4, 0.2)
    seam = polyline(lines(sheets["waist_peplum_front"])["seam"][0])
    a, b, c = seam[0], seam[len(seam) // 2], seam[-1]
    sides = math.dist(a, b), math.dist(b, c), math.dist(c, a)
    area = abs(float((b - a)[0] * (c - a)[1] - (b - a)[1] * (c - a)[0])) / 2.0
    is_("a half circle's radius, W over pi", math.prod(sides) / (4.0 * area), 2.0 * whole / math.pi, 0.1)
    assert sheets["back"].cut == "pair" and sheets["waist_peplum_back"].cut == "pair"
    cut, drawn = polyline(lines(sheets["back"])["cut"][0]), lines(sheets["back"])
    for edge, wide in (("side_seam", 38.1), ("shoulder", 12.7), ("centre", 38.1)):
        middle = polyline(drawn[edge][0])
        is_(f"allowance of the {edge}", float(np.hypot(*(cut - middle[len(middle) // 2]).T).min()), wide, 0.3)
    return f"inner edges = the finished waist, {2.0 * whole / 10.0:.1f} cm, 1 in above the block's; CB a pair with its zip"
