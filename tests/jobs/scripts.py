"""The jobs of a pattern room as scripts of mouse and keys, each with figures of its own for what must come out."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
import shapely

from tests.folding import length, polyline
from tests.jobs import bodies, darts, lines_across, necks, tops
from tests.jobs.hand import Hand
from tests.samples import move
from tests.sheets import lines, sewn_at
from zesty_pivot.core.finish.piece import FinishedPiece

TO_WAIST = move("shoulder", "waist")  # makes a two-dart block one with one dart
SIDE_TO_WAIST = {"do": "dart.move", "on": "front", "dart": "side", "to": {"station": "waist"}}


@dataclass(frozen=True)
class Job:
    """A job: minutes by hand, the script, what is checked on the written pieces, and what the table before it lies like."""

    title: str
    by_hand: float
    script: Callable[[Hand], None]
    check: Callable[[dict[str, FinishedPiece], Any], str] | Callable[[dict[str, FinishedPiece], Any, dict[str, Any]], str]
    one_dart: bool = False


def _long(sheets: dict[str, FinishedPiece], piece: str, edge: str) -> float:
    return sum(length(polyline(path)) for path in lines(sheets[piece])[edge])


def _shoulders(block: Any) -> list[float]:
    """How long the sewn shoulders of a block's front and back are, mm."""
    return [sum(run.path.length for run in block.piece(on).edge("shoulder").runs) for on in ("front", "back")]


def _is(what: str, found: float, wanted: float, within: float = 0.05) -> None:
    assert abs(found - wanted) <= within, f"{what}: {found:.2f} instead of {wanted:.2f} mm"


# J05: the waist dart to mid shoulder, sewn 1 1/4 in back, inches.


def _j05(hand: Hand) -> None:
    hand.bead(_only_dart(hand), "mid_shoulder")
    hand.press("Finish")
    hand.pick_named("Set-back convention", "3/4 in, 1 1/4 in for a large dart")
    hand.pick_named("Mouth", "folded, with a cap")
    hand.pick_named("Allowance convention", "inches: 1/2 in, 1/4 in neck")


def _only_dart(hand: Hand) -> str:
    ring = hand.window.table.ring()
    return max(ring.beads, key=lambda bead: bead.dart == "waist").dart


def _j05_check(sheets: dict[str, FinishedPiece], pattern: Any) -> str:
    front = pattern.piece("front")
    (dart,) = [dart for dart in front.darts if front.dart_edge(dart.id) == "shoulder"]
    half = sum(run.path.length for run in front.edge("shoulder").runs)
    before = _to_mouth(front)
    _is("the dart on the shoulder", before, half / 2.0)
    drawn = lines(sheets["front"])
    sewn, cut = sewn_at(sheets["front"], dart.id), polyline(drawn["cut"][0])
    crosses = [path for id, paths in drawn.items() if "bust_point" in id for path in paths]
    pin = np.mean([[path.point(0.5).x, path.point(0.5).y] for path in crosses], axis=0)
    _is("from the bust point to the sewn point", float(np.hypot(*(sewn - pin))), 31.75)
    for edge, wide in (("side_seam", 12.7), ("neckline", 6.35)):
        middle = polyline(drawn[edge][0])
        away = np.hypot(*(cut - middle[len(middle) // 2]).T).min()
        _is(f"allowance of the {edge}", float(away), wide, 0.3)
    cap, legs = drawn.get(f"{dart.id}.cap"), [length(polyline(path)) for path in drawn[f"{dart.id}.legs"]]
    _is("the legs", legs[0], legs[1])
    return (
        f"sewn 1 1/4 in from the bust point, legs {legs[0]:.1f} mm both, {'no cap can be folded' if cap is None else 'a cap'}"
    )


def _to_mouth(piece: Any) -> float:
    """How far from the neck point the dart of the shoulder opens, mm."""
    total = 0.0
    for run in piece.edge("shoulder").runs:
        total += run.path.length
        if run.mouth is not None:
            break
    return total


# J07: a canoe neck, 1 in in from the shoulder tip and 1 in below the block's neckline.


def _j07(hand: Hand) -> None:
    hand.add("Neckline")
    hand.picture("neck.shape", "canoe")
    hand.choose("width_from", "left of the shoulder, along it")
    hand.fill("width", "1 in")
    hand.choose("depth_from", "below the block's neckline")
    hand.fill("depth", "1 in")
    hand.seen["block"] = hand.window.model.derived.derivation.block


def _j07_check(sheets: dict[str, FinishedPiece], pattern: Any, seen: dict[str, Any]) -> str:
    straps = [_long(sheets, name, "shoulder") for name in ("front", "back")]
    whole = _shoulders(seen["block"])
    _is("the strap", straps[0], 25.4)
    _is("the back's, with the ease of its shoulder", straps[1], 25.4 + whole[1] - whole[0])
    front, block = pattern.piece("front"), seen["block"].piece("front")
    tops = [min(float(run.path.end[1]) for run in piece.runs if piece.role(run.edge) == "centre") for piece in (front, block)]
    _is("lower at CF", tops[0] - tops[1], 25.4)
    return f"1 in left of a shoulder of {whole[0] / 10.0:.1f} cm, front and back; 1 in lower at CF"


# J11: the dart to the shoulder 2 1/2 in from the neck point, seams smoothed, laid over the block.


def _j11(hand: Hand) -> None:
    hand.add("Move a dart")
    to = hand.form().to
    hand.pick(to.choice, "so far along an edge…")
    hand.pick(to.edge, "shoulder")
    hand.write(to.at.edit, "2 1/2 in")
    hand.see("moved")
    hand.shortcut("Ctrl+Shift+T")
    hand.press("Trace")
    hand.pick_named("Tracing paper", "the block")
    panel = hand.window.side.trace
    hand.seen["differences"] = [row for row in panel.seams.rows if panel.seams.isVisibleTo(hand.window)]
    hand.seen["block"] = hand.window.model.derived.derivation.block.piece("front")


def _j11_check(sheets: dict[str, FinishedPiece], pattern: Any, seen: dict[str, Any]) -> str:
    front, block = pattern.piece("front"), seen["block"]
    _is("from the neck point", _to_mouth(seen["moved"][1].piece("front")), 63.5)
    told = {title: change for title, _now, change in seen["differences"]}
    now, was = (sum(run.path.length for run in piece.edge("waist").runs) for piece in (front, block))
    found = next((change for title, change in told.items() if "waist" in title), "=")
    mm = float(found.replace("−", "-").replace("cm", "").replace("=", "0")) * 10.0
    _is("the change of the waist by the panel", mm, now - was, 0.06)
    words = " ".join(text.text for text in sheets["front"].texts)
    assert "cut 1" in words and "front" in words and {"grain"} <= set(lines(sheets["front"])), words
    assert any("notch" in id for id in lines(sheets["front"]))
    return f"mouth begins 63.5 mm from the neck point; trued; {len(told)} seams differ from the block; labelled"


# J13: one dart shared out to CF neck and waist, with equal mouths; sewn points 1 in back; the block's waist line kept.


def _j13(hand: Hand) -> None:
    hand.add("Move a dart")
    hand.pick(hand.form().to.choice, "Neckline, as far from the centre as the waist dart")
    hand.add("Equalise darts")
    hand.press("Finish")
    hand.pick_named("Set-back convention", "1 in, any dart")
    hand.pick_named("Mouth", "folded, with a cap")
    hand.mark("Keep the block's waist line")


def _j13_check(sheets: dict[str, FinishedPiece], pattern: Any) -> str:
    front = pattern.piece("front")
    drawn = lines(sheets["front"])
    mouths, axes = [], []
    for dart in front.darts:
        legs = [polyline(path) for path in drawn[f"{dart.id}.legs"]]
        one, two = (leg[0] for leg in legs)
        mouths.append(math.dist(one, two))
        pin = np.array([(p.point(0.5).x, p.point(0.5).y) for id, paths in drawn.items() if "bust_point" in id for p in paths])
        _is("from the bust point to the sewn point", math.dist(sewn_at(sheets["front"], dart.id), pin.mean(axis=0)), 25.4)
        axes.append(sum(float(at[0]) for at in front.mouth(dart.id)) / 2.0)
        sewn = next(one for one in sheets["front"].darts if one.dart == dart.id)
        assert f"{dart.id}.cap" in drawn or sewn.note, sorted(drawn)
    _is("the mouths", mouths[0], mouths[1])
    _is("the axes from CF", axes[0], axes[1], 1.0)
    assert len(mouths) == 2 and "waist.block" in drawn, sorted(drawn)
    return (
        f"two mouths of {mouths[0]:.1f} mm, axes {axes[0]:.0f} and {axes[1]:.0f} mm from CF, sewn 1 in back; block's waist kept"
    )


# J14: strapless with arm bands and frills.


def _j14(hand: Hand) -> None:
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


def _j14_check(sheets: dict[str, FinishedPiece], pattern: Any, seen: dict[str, Any]) -> str:
    told = []
    for written, here in (seen["before"], (sheets, pattern)):
        arms = sum(_long(written, p.name, edge) for p in here.pieces for edge, role in p.roles if role == "armhole")
        _is("the band", _long(written, "armhole_band", "seam"), arms + 12.7)
        _is("the band's depth, folded", _long(written, "armhole_band", "end"), 2.0 * 38.1)
        _is("the frill", _long(written, "armhole_frill", "seam"), 1.6 * arms)
        _is("the frill's depth", _long(written, "armhole_frill", "end"), 76.2)
        told.append(f"{arms / 10.0:.1f} cm")
    assert told[0] != told[1], told
    assert sheets["armhole_band"].cut == "pair"
    return f"arm edges {told[0]}; with the front ending lower {told[1]}: band and frill followed"


# J15: a peplum bodice from a given block.


def _j15(hand: Hand) -> None:
    bodies.j21(hand)  # the draft takes CB in by 1/2 in
    hand.add("Neck opening")
    hand.add("Peplum")
    hand.fill("raised_by", "1 in")
    hand.press("Finish")
    hand.pick_named("Allowance convention", "home: side 1 1/2 in, joins 1 in")
    hand.seen["block"] = hand.window.model.derived.derivation.block


def _j15_check(sheets: dict[str, FinishedPiece], pattern: Any, seen: dict[str, Any]) -> str:
    whole = 0.0
    for on in ("front", "back"):
        finished = _long(sheets, on, "waist")
        _is(f"the {on}'s peplum", _long(sheets, f"waist_peplum_{on}", "seam"), finished)
        whole += finished
        was = sum(run.path.length for run in seen["block"].piece(on).edge("side_seam").runs)
        _is("1 in above the waist", was - _long(sheets, on, "side_seam"), 25.4, 0.2)
    seam = polyline(lines(sheets["waist_peplum_front"])["seam"][0])
    a, b, c = seam[0], seam[len(seam) // 2], seam[-1]
    sides = math.dist(a, b), math.dist(b, c), math.dist(c, a)
    area = abs(float((b - a)[0] * (c - a)[1] - (b - a)[1] * (c - a)[0])) / 2.0
    _is("a half circle's radius, W over pi", math.prod(sides) / (4.0 * area), 2.0 * whole / math.pi, 0.1)
    assert sheets["back"].cut == "pair" and sheets["waist_peplum_back"].cut == "pair"
    cut, drawn = polyline(lines(sheets["back"])["cut"][0]), lines(sheets["back"])
    for edge, wide in (("side_seam", 38.1), ("shoulder", 12.7), ("centre", 38.1)):
        middle = polyline(drawn[edge][0])
        _is(f"allowance of the {edge}", float(np.hypot(*(cut - middle[len(middle) // 2]).T).min()), wide, 0.3)
    return f"inner edges = the finished waist, {2.0 * whole / 10.0:.1f} cm, 1 in above the block's; CB a pair with its zip"


# J18: both darts to the shoulder tip, French, side, armhole, mid shoulder; finished both ways.


def _j18(hand: Hand) -> None:
    for station in ("shoulder_tip", "french", "side_bust", "mid_armhole", "mid_shoulder"):
        for dart in [bead.dart for bead in hand.window.table.ring().beads]:
            ring = hand.window.table.ring()
            if any(bead.dart == dart for bead in ring.beads):
                hand.bead(dart, station)
        hand.see(station)
    hand.press("Finish")
    for name, title in (("cap", "folded, with a cap"), ("cut", "cut away inside")):
        hand.pick_named("Mouth", title)
        hand.see(name)


def _j18_check(sheets: dict[str, FinishedPiece], pattern: Any, seen: dict[str, Any]) -> str:
    for station in ("shoulder_tip", "french", "side_bust", "mid_armhole", "mid_shoulder"):
        pieces, here = seen[station]
        front = here.piece("front")
        (dart,) = front.darts
        one, two = front.mouth(dart.id)
        pin = front.pivot(dart.pivot)
        legs = math.dist(one, pin), math.dist(two, pin)
        angle = math.acos(float((one - pin) @ (two - pin)) / (legs[0] * legs[1]))
        chord = math.hypot(legs[0] - legs[1], 2.0 * math.sqrt(legs[0] * legs[1]) * math.sin(angle / 2.0))
        _is(f"the mouth at the {station} by the chord", math.dist(one, two), chord)
        if station == "mid_armhole":  # folded down: the inlay lies on the lower side
            (sewn,) = pieces["front"].darts
            lower = "before" if one[1] > two[1] else "after"
            assert sewn.fold == lower, sewn.fold
    for name in ("cap", "cut"):
        written = seen[name][0]["front"]
        (sewn,) = written.darts
        drawn = lines(written)
        if name == "cap":
            assert f"{sewn.dart}.cap" in drawn or sewn.note, sorted(drawn)
            capped = "a cap" if f"{sewn.dart}.cap" in drawn else "too wide for a cap, which is told"
            continue
        assert sewn.cap is None, f"not cut away, {sewn.cut_away_mm} mm: {sewn.note}"
        cut = shapely.LineString(polyline(drawn["cut"][0]))
        for leg in drawn[f"{sewn.dart}.legs"]:
            middle = leg.point(0.5)
            _is("cut away beside the leg", float(cut.distance(shapely.Point(middle.x, middle.y))), 10.0)
    return f"one dart of {math.degrees(angle):.1f}°, mouth {math.dist(one, two):.1f} mm by the chord; {capped}; cut away 1 cm"


# J19: a wrap, from the neck point to 2 in past the far dart's axis and 2 in up.


def _j19(hand: Hand) -> None:
    hand.add("Neckline")
    hand.picture("neck.shape", "wrap")
    hand.fill("past", "2 in")
    hand.fill("up", "2 in")
    hand.seen["block"] = hand.window.model.derived.derivation.block


def _j19_check(sheets: dict[str, FinishedPiece], pattern: Any, seen: dict[str, Any]) -> str:
    _is("up from the waist", _long(sheets, "front", "wrap_end"), 50.8)
    whole = _shoulders(seen["block"])
    shoulders = [_long(sheets, on, "shoulder") for on in ("front", "back")]
    _is("the shoulders, with the ease of the back's", shoulders[1] - shoulders[0], whole[1] - whole[0])
    assert sheets["front"].cut == "pair"
    # Past CF it goes to the far dart, which is shut, and 2 in from its axis on, half a mouth of which is in the dart.
    block = seen["block"].piece("front")
    near = next(run.path.length for run in reversed(block.edge("waist").runs))
    lap = near + 50.8 - block.intake("waist") / 2.0
    _is("the lap past CF", sum(run.path.length for run in pattern.piece("front").edge("overlap").runs), lap, 1.0)
    return f"cut 2, {lap / 10.0:.1f} cm past CF with the far dart shut, 2 in up; shoulders match"


# J22: yoke blouse.


def _j22(hand: Hand) -> None:
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


def _j22_check(sheets: dict[str, FinishedPiece], pattern: Any) -> str:
    assert set(sheets) == {"front", "back", "yoke"}, set(sheets)
    seams = {"front": 0.0, "back": 0.0}
    for edge, paths in lines(sheets["yoke"]).items():
        for seam in pattern.seams:
            for mine, mate in ((seam.a, seam.b), (seam.b, seam.a)):
                if str(mine) == f"yoke.{edge}" and mate.only is not None and mate.only.piece in seams:
                    seams[mate.only.piece] = sum(length(polyline(path)) for path in paths)
    front, back = _long(sheets, "front", "yoke"), _long(sheets, "back", "yoke")
    _is("the front less 0.6 of its gathered stretch", front - 0.6 * 0.8 * seams["front"], seams["front"])
    _is("the back less half the box pleat's 4 cm twice", back - 40.0, seams["back"])
    return f"yoke seams {seams['front']:.1f} and {seams['back']:.1f} mm; below them {front:.1f} and {back:.1f} mm on the paper"


# J23: pleated front.


def _j23(hand: Hand) -> None:
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


def _j23_check(sheets: dict[str, FinishedPiece], pattern: Any) -> str:
    drawn = lines(sheets["front"])
    mine = [path for id, paths in drawn.items() if "pleats" in id and id.endswith("stitching") for path in paths]
    stitched = [length(polyline(path)) for path in mine]
    assert len(stitched) == 8
    for each in stitched:
        _is("stitching", each, 60.0)
    waist = _long(sheets, "front", "waist")
    finished = sum(run.path.length for run in pattern.piece("front").edge("waist").runs)
    # Five tucks take 6 mm each, four pleats 20 mm each, at right angles to their slashes.
    taken = 5 * 6.0 + 4 * 20.0
    assert taken <= waist - finished <= taken * 1.08, waist - finished
    words = " ".join(text.text for text in sheets["front"].texts)
    assert "4 knife pleats, take up" in words and "5 tucks, take up" in words
    return f"waist {finished:.1f} mm sewn, {waist:.1f} mm on the paper"


# J24: a mid cowl with two folds.


def _j24(hand: Hand) -> None:
    hand.add("Cowl")
    hand.picture("drape.cowl", "mid")
    hand.seen["block"] = hand.window.model.derived.derivation.block


def _j24_check(sheets: dict[str, FinishedPiece], pattern: Any, seen: dict[str, Any]) -> str:
    drawn, block = lines(sheets["front"]), seen["block"].piece("front")
    fold = polyline(drawn["neckline.fold"][0])[[0, -1]]
    fold = fold[np.argsort(fold[:, 0])]
    long, tilt = math.dist(*fold), math.degrees(math.atan2(fold[1, 1] - fold[0, 1], fold[1, 0] - fold[0, 0]))
    _is("square to CF, degrees off", tilt, 0.0, 0.01)
    shoulder = block.edge("shoulder").runs[0].path
    point, pit = shoulder.point_at(20.0), float(block.corner("centre_neck")[1])
    wanted = (pit + block.levels["bust"]) / 2.0 - float(point[1])
    _is("the sag", math.sqrt(long**2 - float(point[0]) ** 2), wanted, 0.1)
    (x0, y0), (x1, y1) = pattern.piece("front").grain
    _is("the bias, degrees", math.degrees(math.atan2(abs(y1 - y0), abs(x1 - x0))), 45.0)
    now = [sum(run.path.length for run in pattern.piece(on).edge("shoulder").runs) for on in ("front", "back")]
    was = _shoulders(seen["block"])
    _is("the shoulders, with the ease of the back's", now[1] - now[0], was[1] - was[0])
    assert "shoulder_facing" in drawn and len(pattern.piece("front").hangs) == 2
    return f"edge {long / 10.0:.1f} cm, square; hangs {wanted / 10.0:.1f} cm as asked; back neck matched; two folds"


# J25: both darts and three slashes to one side, pleated in.


def _j25(hand: Hand) -> None:
    hand.add("Unfold")
    hand.add("Drape")
    (right,) = [box for id, box in hand.form().fields["darts"].boxes.items() if id.endswith(".right")]
    for _twice in range(2):  # out and in again: both are asked for by name
        hand.tick_box(right)


def _j25_check(sheets: dict[str, FinishedPiece], pattern: Any) -> str:
    piece = pattern.piece("front")
    numbers = sorted((int(text.text), text.at[1]) for text in sheets["front"].texts if text.bold and text.text.isdigit())
    assert [number for number, _y in numbers] == [1, 2, 3, 4, 5], numbers
    assert [y for _n, y in numbers] == sorted(y for _n, y in numbers), numbers
    darts = [dart for dart in piece.darts if piece.dart_edge(dart.id) == "side_seam.left"]
    (full,) = piece.fullness
    assert len(darts) == 2 and {dart.use.value for dart in darts} == {"pleat"} and len(full.lines) == 3
    sides = [sum(run.path.length for run in piece.edge(f"side_seam.{side}").runs) for side in ("left", "right")]
    _is("the draped side once folded, against the other", sides[0], sides[1])
    lining = sum(length(polyline(path)) for path in lines(sheets["front_lining"])["side_seam.left"])
    _is("the lining's side", lining, sides[0])
    return f"five folds in order, {sides[0] / 10.0:.1f} cm once folded, as long as the other side; lining undraped"


JOBS = {
    "J01": Job("hip block", 26.0, bodies.j01, bodies.j01_check),
    "J02": Job("nine necklines", 21.0, necks.j02, necks.j02_check),
    "J03": Job("seven necklines", 16.0, necks.j03, necks.j03_check),
    "J04": Job("blouse front", 10.0, bodies.j04, bodies.j04_check),
    "J06": Job("child", 7.0, bodies.j06, bodies.j06_check),
    "J05": Job("dart to shoulder", 13.0, _j05, _j05_check, one_dart=True),
    "J07": Job("canoe", 10.0, _j07, _j07_check),
    "J08": Job("necklines in order", 29.0, necks.j08, necks.j08_check),
    "J09": Job("flare under a line", 17.0, lines_across.j09, lines_across.j09_check),
    "J11": Job("slash and close", 12.0, _j11, _j11_check, one_dart=True),
    "J13": Job("two equal darts", 7.0, _j13, _j13_check),
    "J14": Job("strapless with bands", 13.0, _j14, _j14_check, one_dart=True),
    "J15": Job("peplum bodice", 18.0, _j15, _j15_check),
    "J20": Job("half block", 20.0, bodies.j20, bodies.j20_check),
    "J21": Job("basic block", 14.0, bodies.j21, bodies.j21_check),
    "J16": Job("camisole", 11.0, tops.j16, tops.j16_check),
    "J17": Job("five places by slash", 26.0, darts.j17, darts.j17_check),
    "J18": Job("five places by pivot", 11.0, _j18, _j18_check),
    "J19": Job("wrap", 13.0, _j19, _j19_check),
    "J22": Job("yoke blouse", 25.0, _j22, _j22_check),
    "J23": Job("pleated front", 20.0, _j23, _j23_check, one_dart=True),
    "J24": Job("cowl", 20.0, _j24, _j24_check),
    "J25": Job("draped side", 25.0, _j25, _j25_check, one_dart=True),
}

NOT_YET = {
    "J10": ("bustier", 16, "no script yet"), "J12": ("one shoulder", 17, "no script yet"),
    "J26": ("next client", 480, "no sizes yet"), "J27": ("to the table", 30, "no lay and no packing yet"),
}  # fmt: skip
