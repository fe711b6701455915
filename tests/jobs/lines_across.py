"""The jobs that cut across what stands open."""

from __future__ import annotations

import math
from typing import Any

from tests.jobs.figures import Sheets, is_, long
from tests.jobs.hand import Hand
from zesty_pivot.core.piece import Pattern

# J09: the other dart to the waist, left open as flare; a line from under the arm to CF across it; the lower part slashed at
# three places, 4 cm each. Back: its dart to the waist, 1/4 in left as ease; the same line.


def j09(hand: Hand) -> None:
    block = hand.seen["block"] = hand.window.model.derived.derivation.block
    dart = next(bead.dart for bead in hand.window.table.ring().beads if bead.dart != "waist")
    hand.bead(dart, "waist")
    hand.add_with("Use a dart as", "", "open")
    hand.pivot("back", block.piece("back").dart("shoulder").pivot)
    hand.bead("shoulder", "waist")
    hand.write(hand.form().stays.edit, "1/4 in")
    hand.add_with("Style line", "0", "5 side", "45% cen", "front")
    hand.on_other()
    hand.add_with("Flare an edge", "3 4", "front panel")


def j09_check(sheets: Sheets, pattern: Pattern, seen: dict[str, Any]) -> str:
    block = seen["block"]
    for side in ("front", "back"):
        upper, lower = (
            sum(run.path.length for run in pattern.piece(name).edge("line").runs) for name in (side, f"{side}_panel")
        )
        is_(f"the {side}'s line, above and below", upper, lower)
        is_(f"and on the sheets of the {side}", long(sheets, side, "line"), long(sheets, f"{side}_panel", "line"))
    for one, two in (("front", "back"), ("front_panel", "back_panel")):
        is_(f"the side seams of {one} and {two}", long(sheets, one, "side_seam"), long(sheets, two, "side_seam"), 0.1)
    is_("the upper side seam", long(sheets, "front", "side_seam"), 50.0)
    for name in ("front", "front_panel"):
        centre = [float(x) for run in pattern.piece(name).edge("centre").runs for x in run.path.cubics[:, :, 0].ravel()]
        is_(f"CF of the {name}, straight and still", max(map(abs, centre)), 0.0, 1e-6)
    is_("left open at the back shoulder", math.dist(*pattern.piece("back").mouth("shoulder")), 25.4 / 4.0, 0.001)
    wide, line = long(sheets, "front_panel", "waist"), long(sheets, "front_panel", "line")
    was = sum(run.path.length for run in block.piece("front").edge("waist").runs)
    assert wide > was + 110.0, f"three slashes of 4 cm make the lower edge {wide - was:.0f} mm wider"
    return (
        f"lines {line / 10.0:.1f} cm both ways; lower edge {(wide - was) / 10.0:.1f} cm wider; 1/4 in left at the back shoulder"
    )
