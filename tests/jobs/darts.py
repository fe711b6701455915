"""The jobs that lead darts round by slashing."""

from __future__ import annotations

import math
from typing import Any

import shapely

from tests.folding import polyline
from tests.jobs.hand import Hand
from tests.sheets import lines, sewn_at
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.piece import Pattern

Sheets = dict[str, FinishedPiece]

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
        _is(f"{name}: the legs", legs[0], legs[1], 0.01 + sum(apart))
        shown = lines(sheets["front"])
        crosses = [path.point(0.5) for id, paths in shown.items() if "bust_point" in id for path in paths]
        at = sum(p.x for p in crosses) / len(crosses), sum(p.y for p in crosses) / len(crosses)
        _is(f"{name}: sewn back", math.dist(sewn_at(sheets["front"], dart.id), at), back)
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
                _is("cut away beside the leg", float(cut.distance(shapely.Point(middle.x, middle.y))), 10.0)
        told.append(f"{name} {math.dist(one, two) / 10.0:.1f}")
    return f"mouths, cm: {', '.join(told)}; sewn 4 cm back, at CF 2; French cut away 1 cm"


def _is(what: str, found: float, wanted: float, within: float = 0.05) -> None:
    assert abs(found - wanted) <= within, f"{what}: {found:.2f} instead of {wanted:.2f} mm"
