"""The jobs of what hangs on straps, or stands without."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import shapely

from tests.folding import polyline
from tests.jobs import bodies
from tests.jobs.figures import IN, Sheets, crossing, halves, is_, long
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


# J10: a bustier for lengths 1 in apart: the draft takes 2 in at both waists and gives it back at the side; the front's line
# takes in the side dart too.


def j10(hand: Hand) -> None:
    bodies.measure(hand, bodies.body_of(hand, apart=2.54))
    hand.press("Block")
    for key, text in (("contour", "1 in"), ("intake_front", "2 in"), ("intake_back", "2 in")):
        hand.write(hand.window.views.block.fields[key].edit, text)
    hand.press("New style over this block")
    hand.settle()
    hand.seen["block"] = hand.window.model.derived.derivation.block
    hand.add("Princess line")
    for key, text in (("top", "1 1/2 in"), ("chest", "1 in"), ("under_bust", "2 in"), ("waist", "2 in")):
        hand.fill(key, text)
    hand.choose("give_back", "shoulder and underarm")
    hand.add_with("Princess line", "", "back")
    hand.fill("top", "1 in")
    hand.see("before")
    hand.add("True all flagged seams")
    hand.press("Finish")
    hand.write(hand.window.views.finish.own_fields["back_centre.centre"].edit, "2 in")


def j10_check(sheets: Sheets, pattern: Pattern, seen: dict[str, Any]) -> str:
    body, was, before = seen["body"], seen["block"], seen["before"][1]
    levels = was.piece("front").levels
    centre, side = before.piece("front_centre"), before.piece("front_side")
    for level in np.linspace(levels["under_bust"], levels["waist"] - 0.1, 9):
        lines_at = [crossing(piece, "princess", (0.0, level), (1.0, 0.0))[0] for piece in (centre, side)]
        is_(f"taken in {level:.0f} mm down", lines_at[1] - lines_at[0], 2.0 * IN, 0.1)
    pivot = was.piece("front").landmarks["bust_point"]
    upper, lower = (math.atan2(*(at - pivot)[::-1]) for at in was.piece("front").mouth("side"))
    x, y = math.cos(lower - upper), math.sin(lower - upper)  # the side dart is shut: its upper part has swung down
    chest = pivot + np.array([[x, -y], [y, x]]) @ (was.piece("front").corner("underarm") - pivot)
    wide = float((side.corner("underarm") - crossing(side, "princess", chest, (x, y))) @ (x, y))
    wide += crossing(centre, "princess", (0.0, levels["chest"]), (1.0, 0.0))[0]
    wide += float(before.piece("back_side").corner("underarm")[0])  # the back's line takes in nothing at the chest
    is_("bust, body and ease", 2.0 * wide, 10.0 * body["bust"] + IN, 2.0)
    for written, within in ((seen["before"][0], 0.1), (sheets, 2.0)):  # trued, its corners are rounded over
        waist = sum(long(written, name, "waist") for name in ("front_centre", "front_side", "back_centre", "back_side"))
        is_("waist, body and ease", 2.0 * waist, 10.0 * body["waist"] + IN, within)
    tops = [[long(seen["before"][0], f"{on}_{part}", "shoulder") for part in ("centre", "side")] for on in ("front", "back")]
    for on, parts in zip(("front", "back"), tops, strict=True):
        is_(f"the {on}'s shoulder, given back", sum(parts), halves(was, "shoulder")[on], 0.1)
    is_("front and back lines at the shoulder", tops[0][0], tops[1][0], 1.0)
    for on in ("front", "back"):
        one, two = (long(sheets, f"{on}_{part}", "princess") for part in ("side", "centre"))
        is_(f"the {on}'s side panel is eased over the point", one - two, 3.0, 0.05)
    is_("side seams", long(sheets, "front_side", "side_seam"), long(sheets, "back_side", "side_seam"), 0.3)
    drawn = lines(sheets["back_centre"])
    seam = np.concatenate([polyline(path) for path in drawn["centre"]])
    edge = shapely.LinearRing(polyline(drawn["cut"][0]))
    is_("the zip's allowance along CB", edge.distance(shapely.Point(seam[len(seam) // 2])), 2.0 * IN, 0.1)
    apart = abs(tops[0][0] - tops[1][0])
    return f"bust and waist are the body and its ease; 2 in from under-bust to waist; lines meet within {apart:.1f} mm"


# J12: one shoulder over princess panels from mid armhole, the shoulders cut in; the back's waist trimmed at CB; a lining.


def j12(hand: Hand) -> None:
    bodies.measure(hand, bodies.body_of(hand, equal=True))
    hand.press("Block")
    hand.pick_named("Drafting method", "Easy draft, equal lengths")
    hand.write(hand.window.views.block.fields["contour"].edit, "0")  # CB on the fold: it is unfolded
    hand.press("New style over this block")
    _begin(hand)
    hand.add_with("Armhole", "1 1/2 0")
    hand.add_with("Princess line", "", "mid arm")
    hand.fill("top", "1")
    hand.on_other()
    hand.see("panels")
    hand.add_with("Trim the lower edge", "1")
    hand.see("trimmed")
    hand.add("True all flagged seams")
    hand.add_with("one shoulder neckline", design="one_shoulder")
    hand.add_with("Facing or lining", "", "lining")


def j12_check(sheets: Sheets, pattern: Pattern, seen: dict[str, Any]) -> str:
    cut, trimmed = seen["panels"], seen["trimmed"]
    for on in ("front", "back"):
        runs = [[run.path for run in cut[1].piece(f"{on}_{part}").edge("princess").runs] for part in ("centre", "side")]
        is_(f"{on}: taken in at the armhole", math.dist(runs[0][0].start, runs[1][-1].end), IN, 0.05)
        assert runs[1][-1].end[0] > runs[0][0].start[0], f"{on}: the panels lie over each other at the armhole"
        one, two = (long(cut[0], f"{on}_{part}", "princess") for part in ("side", "centre"))
        is_(f"{on}: the side panel's line, eased", one - two, 3.0, 0.05)
    raised = [long(made[0], "back_centre", "centre") for made in (cut, trimmed)]
    is_("trimmed at CB", raised[0] - raised[1], IN, 0.01)
    is_("and not at the side", long(trimmed[0], "back_side", "side_seam"), long(cut[0], "back_side", "side_seam"), 0.01)
    for on in ("front", "back"):
        for side in ("left", "right"):
            corner = sum(
                _inside(pattern.piece(name), edge, f"waist{tail}")
                for name, edge, tail in (
                    (f"{on}_centre", f"princess.{side}", f".{side}"), (f"{on}_side_{side}", f"princess.{side}", f".{side}"),
                )
            )  # fmt: skip
            is_(f"{on} {side}: the waist across the line, degrees", corner, 180.0, 3.0)
    own = [piece.name for piece in pattern.pieces]
    assert len(own) == 6 and all(sheets[name].cut == "up" for name in own), [(name, sheets[name].cut) for name in own]
    said = {name: " ".join(text.text for text in sheets[name].texts) for name in own}
    assert all("right side up" in words for words in said.values()), said
    for name in own:
        notches = [edge for edge in lines(sheets[name]) if edge.startswith("princess") and "notch" in edge]
        assert len(notches) >= 3, (name, notches)
        is_(f"the lining of {name}", _hem(sheets, f"{name}_lining"), _hem(sheets, name), 0.1)
    return "1 in at the armhole, both lines equal there; CB 1 in higher, the waist smooth; six pieces right side up, lined"


def _hem(sheets: Sheets, name: str) -> float:
    return sum(long(sheets, name, edge) for edge in lines(sheets[name]) if edge.partition(".")[0] == "waist")


def _inside(piece: Any, one: str, two: str) -> float:
    """The angle (degrees) inside a piece where two of its edges meet."""
    ends = [[(run.path.start, run.path.start_direction), (run.path.end, -run.path.end_direction)] for run in piece.runs]
    mine = {
        name: [end for run, both in zip(piece.runs, ends, strict=True) if run.edge == name for end in both]
        for name in (one, two)
    }
    (_at, a), (_there, b) = min(
        ((first, second) for first in mine[one] for second in mine[two]), key=lambda pair: math.dist(pair[0][0], pair[1][0])
    )
    return math.degrees(math.acos(max(-1.0, min(1.0, float(a @ b)))))


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
