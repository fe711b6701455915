"""The jobs that lead darts round, by pivot and by slash."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import shapely

from tests.folding import length, polyline
from tests.jobs.figures import Sheets, is_
from tests.jobs.hand import Hand
from tests.sheets import lines, sewn_at
from zesty_pivot.core.piece import Pattern

# J05: the waist dart to mid shoulder, sewn 1 1/4 in back, inches.


def j05(hand: Hand) -> None:
    hand.bead(_only_dart(hand), "mid_shoulder")
    hand.press("Finish")
    hand.pick_named("Set-back convention", "3/4 in, 1 1/4 in for a large dart")
    hand.pick_named("Mouth", "folded, with a cap")
    hand.pick_named("Allowance convention", "inches: 1/2 in, 1/4 in neck")


def _only_dart(hand: Hand) -> str:
    ring = hand.window.table.ring()
    return max(ring.beads, key=lambda bead: bead.dart == "waist").dart


def j05_check(sheets: Sheets, pattern: Any) -> str:
    front = pattern.piece("front")
    (dart,) = [dart for dart in front.darts if front.dart_edge(dart.id) == "shoulder"]
    half = sum(run.path.length for run in front.edge("shoulder").runs)
    before = _to_mouth(front)
    is_("the dart on the shoulder", before, half / 2.0)
    drawn = lines(sheets["front"])
    sewn, cut = sewn_at(sheets["front"], dart.id), polyline(drawn["cut"][0])
    crosses = [path for id, paths in drawn.items() if "bust_point" in id for path in paths]
    pin = np.mean([[path.point(0.5).x, path.point(0.5).y] for path in crosses], axis=0)
    is_("from the bust point to the sewn point", float(np.hypot(*(sewn - pin))), 31.75)
    for edge, wide in (("side_seam", 12.7), ("neckline", 6.35)):
        middle = polyline(drawn[edge][0])
        away = np.hypot(*(cut - middle[len(middle) // 2]).T).min()
        is_(f"allowance of the {edge}", float(away), wide, 0.3)
    cap, legs = drawn.get(f"{dart.id}.cap"), [length(polyline(path)) for path in drawn[f"{dart.id}.legs"]]
    is_("the legs", legs[0], legs[1])
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


# J11: the dart to the shoulder 2 1/2 in from the neck point, seams smoothed, laid over the block.


def j11(hand: Hand) -> None:
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


def j11_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    front, block = pattern.piece("front"), seen["block"]
    is_("from the neck point", _to_mouth(seen["moved"][1].piece("front")), 63.5)
    told = {title: change for title, _now, change in seen["differences"]}
    now, was = (sum(run.path.length for run in piece.edge("waist").runs) for piece in (front, block))
    found = next((change for title, change in told.items() if "waist" in title), "=")
    mm = float(found.replace("−", "-").replace("cm", "").replace("=", "0")) * 10.0
    is_("the change of the waist by the panel", mm, now - was, 0.06)
    words = " ".join(text.text for text in sheets["front"].texts)
    assert "cut 1" in words and "front" in words and {"grain"} <= set(lines(sheets["front"])), words
    assert any("notch" in id for id in lines(sheets["front"]))
    return f"mouth begins 63.5 mm from the neck point; trued; {len(told)} seams differ from the block; labelled"


# J13: one dart shared out to CF neck and waist, with equal mouths; sewn points 1 in back; the block's waist line kept.


def j13(hand: Hand) -> None:
    hand.add("Move a dart")
    hand.pick(hand.form().to.choice, "Neckline, as far from the centre as the waist dart")
    hand.add("Equalise darts")
    hand.press("Finish")
    hand.pick_named("Set-back convention", "1 in, any dart")
    hand.pick_named("Mouth", "folded, with a cap")
    hand.mark("Keep the block's waist line")


def j13_check(sheets: Sheets, pattern: Any) -> str:
    front = pattern.piece("front")
    drawn = lines(sheets["front"])
    mouths, axes = [], []
    for dart in front.darts:
        legs = [polyline(path) for path in drawn[f"{dart.id}.legs"]]
        one, two = (leg[0] for leg in legs)
        mouths.append(math.dist(one, two))
        pin = np.array([(p.point(0.5).x, p.point(0.5).y) for id, paths in drawn.items() if "bust_point" in id for p in paths])
        is_("from the bust point to the sewn point", math.dist(sewn_at(sheets["front"], dart.id), pin.mean(axis=0)), 25.4)
        axes.append(sum(float(at[0]) for at in front.mouth(dart.id)) / 2.0)
        sewn = next(one for one in sheets["front"].darts if one.dart == dart.id)
        assert f"{dart.id}.cap" in drawn or sewn.note, sorted(drawn)
    is_("the mouths", mouths[0], mouths[1])
    is_("the axes from CF", axes[0], axes[1], 1.0)
    assert len(mouths) == 2 and "waist.block" in drawn, sorted(drawn)
    return (
        f"two mouths of {mouths[0]:.1f} mm, axes {axes[0]:.0f} and {axes[1]:.0f} mm from CF, sewn 1 in back; block's waist kept"
    )


# J18: both darts to the shoulder tip, French, side, armhole, mid shoulder; finished both ways.


def j18(hand: Hand) -> None:
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


def j18_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    for station in ("shoulder_tip", "french", "side_bust", "mid_armhole", "mid_shoulder"):
        pieces, here = seen[station]
        front = here.piece("front")
        (dart,) = front.darts
        one, two = front.mouth(dart.id)
        pin = front.pivot(dart.pivot)
        legs = math.dist(one, pin), math.dist(two, pin)
        angle = math.acos(float((one - pin) @ (two - pin)) / (legs[0] * legs[1]))
        chord = math.hypot(legs[0] - legs[1], 2.0 * math.sqrt(legs[0] * legs[1]) * math.sin(angle / 2.0))
        is_(f"the mouth at the {station} by the chord", math.dist(one, two), chord)
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
            is_("cut away beside the leg", float(cut.distance(shapely.Point(middle.x, middle.y))), 10.0)
    return f"one dart of {math.degrees(angle):.1f}°, mouth {math.dist(one, two):.1f} mm by the chord; {capped}; cut away 1 cm"


# J17: one dart by slash to the side, CF, slanting to CF, into the waist, both to the French place; 4 cm sewn back (CF 2), the
# inlay down, at the waist to the side; thick cloth and French cut away, 1 cm.


def j17(hand: Hand) -> None:
    hand.seen["block"] = hand.window.model.derived.derivation.block
    dart = next(bead.dart for bead in hand.window.table.ring().beads if bead.dart != "waist")
    hand.bead(dart, "side_bust")
    hand.write_named("Set back by", "4")
    hand.see("side")
    hand.bead(dart, "centre_bust")
    hand.write_named("Set back by", "2")
    hand.see("centre")
    hand.pick(hand.form().to.choice, "so far along an edge…")
    hand.pick(hand.form().to.edge, "centre")
    hand.write(hand.form().to.at.edit, "70%")
    hand.see("slant")
    hand.bead(dart, "waist")
    hand.write_named("Set back by", "4")
    hand.pick_named("Folded", "towards the side")
    hand.see("waist")
    hand.bead(_only(hand), "french")
    hand.pick_named("Mouth of this dart", "cut away inside")
    hand.see("french")


def _only(hand: Hand) -> str:
    (bead,) = hand.window.table.ring().beads
    return str(bead.dart)


def j17_check(_sheets: Sheets, _pattern: Pattern, seen: dict[str, Any]) -> str:
    told = []
    block = seen["block"].piece("front")
    apart = [abs(block.legs(dart.id)[0] - block.legs(dart.id)[1]) for dart in block.darts]  # as a real block was drawn
    for name, back in (("side", 40.0), ("centre", 20.0), ("slant", 20.0), ("waist", 40.0), ("french", 40.0)):
        sheets, pattern = seen[name]
        front = pattern.piece("front")
        edge = {"side": "side_seam", "centre": "centre", "slant": "centre", "waist": "waist", "french": "side_seam"}[name]
        (dart,) = [dart for dart in front.darts if front.dart_edge(dart.id) == edge]
        pin, legs = front.pivot(dart.pivot), front.legs(dart.id)
        is_(f"{name}: the legs", legs[0], legs[1], 0.01 + sum(apart))
        shown = lines(sheets["front"])
        crosses = [path.point(0.5) for id, paths in shown.items() if "bust_point" in id for path in paths]
        at = sum(p.x for p in crosses) / len(crosses), sum(p.y for p in crosses) / len(crosses)
        is_(f"{name}: sewn back", math.dist(sewn_at(sheets["front"], dart.id), at), back)
        (sewn,) = [one for one in sheets["front"].darts if one.dart == dart.id]
        one, two = front.mouth(dart.id)
        if name in ("side", "centre", "slant"):  # the inlay lies on the lower side
            assert sewn.fold == ("before" if one[1] > two[1] else "after"), (name, sewn.fold)
        if name == "waist":  # on the side's
            assert sewn.fold == ("before" if one[0] > two[0] else "after"), sewn.fold
        if name == "slant":
            lower = (one[1] + two[1]) / 2.0 - pin[1]
            assert abs(lower) > 20.0, f"the dart lies level, {lower:.1f} mm"
        if name == "french":
            cut = shapely.LineString(polyline(shown["cut"][0]))
            for leg in shown[f"{dart.id}.legs"]:
                middle = leg.point(0.5)
                is_("cut away beside the leg", float(cut.distance(shapely.Point(middle.x, middle.y))), 10.0)
        told.append(f"{name} {math.dist(one, two) / 10.0:.1f}")
    return f"mouths, cm: {', '.join(told)}; sewn 4 cm back, at CF 2; French cut away 1 cm"
