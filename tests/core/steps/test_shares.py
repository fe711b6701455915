"""Which panel an intake comes off, and that lines of front and back meet at the shoulder, on six blocks."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from tests.core.steps.panels import checked
from tests.drafted import ROOM, room_block
from tests.samples import worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.procedures.intakes import INTAKES
from zesty_pivot.core.recipe import Derivation

IN = 25.4


def cut(name: str, on: str = "front", **asked: Any) -> Derivation:
    return worked([{"do": "line.princess", "on": on, **asked}], block_file.pattern(room_block(name)))


def ends(pattern: Pattern, on: str = "front") -> dict[str, np.ndarray]:
    """Where the line ends on both panels, above and below."""
    centre, side = (
        [run.path for run in pattern.piece(f"{on}_{of}").runs if run.edge == "princess"] for of in ("centre", "side")
    )
    return {
        "centre top": centre[0].start,
        "centre bottom": centre[-1].end,
        "side top": side[-1].end,
        "side bottom": side[0].start,
    }


def waist(name: str) -> float:
    """What the darts give at the waist, mm."""
    at = ends(cut(name).pattern)
    return math.dist(at["centre bottom"], at["side bottom"])


@pytest.mark.parametrize("name", ROOM)
def test_an_inch_to_the_centre_and_one_and_a_half_to_the_side(name: str) -> None:
    """Measured from the middle of what the darts give, as the trade says it."""
    plain = ends(cut(name).pattern)
    axis = (plain["centre bottom"] + plain["side bottom"]) / 2.0
    whole = max(2.5 * IN, waist(name) + 10.0)
    made = ends(cut(name, waist=f"{whole} mm", centre_waist="1 in").pattern)
    assert math.dist(made["centre bottom"], axis) == pytest.approx(IN, abs=0.3)
    assert math.dist(made["side bottom"], axis) == pytest.approx(whole - IN, abs=0.6)
    assert math.dist(made["centre bottom"], made["side bottom"]) == pytest.approx(whole, abs=0.12)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("asked", [None, "half", "0"])
def test_at_a_level_half_or_all_on_one_panel(name: str, asked: str | None) -> None:
    plain = ends(cut(name).pattern)
    more = 20.0
    whole = waist(name) + more
    given = {} if asked is None else {"centre_waist": f"{whole / 2.0} mm" if asked == "half" else asked}
    made = ends(cut(name, waist=f"{whole} mm", **given).pattern)
    off = [abs(float(made[end][0] - plain[end][0])) for end in ("centre bottom", "side bottom")]
    if asked == "0":  # all of it off the side panel: the centre's is drawn on to the middle of the dart
        assert off == [pytest.approx(waist(name) / 2.0, abs=0.5), pytest.approx(whole / 2.0 + more / 2.0, abs=1.5)]
    else:
        assert off == [pytest.approx(more / 2.0, abs=0.4)] * 2


@pytest.mark.parametrize("name", ROOM)
def test_a_shoulders_intake_goes_outwards(name: str) -> None:
    plain = cut(name, mend="bottom", ease="0").pattern
    at = ends(plain)
    top = math.dist(at["centre top"], at["side top"]) + 1.5 * IN
    told = cut(name, top=f"{top} mm", mend="bottom", ease="0", give_back="none")
    made = ends(told.pattern)
    assert made["centre top"] == pytest.approx(at["centre top"], abs=1e-6)
    assert math.dist(made["side top"], at["side top"]) == pytest.approx(1.5 * IN, abs=3.0)
    assert any("all on the side panel" in note.text for note in told.states[-1].notes)
    inwards = ends(cut(name, top=f"{top} mm", centre_top=f"{top / 2.0} mm", mend="bottom", ease="0").pattern)
    assert abs(float(inwards["centre top"][0] - at["centre top"][0])) > 8.0
    let_out = cut(name, top=f"{top - 2.0 * IN} mm")
    is_swung = "side" in {dart.id for dart in room_block(name).pieces[0].darts}  # the centre's edge is the line as drawn
    way = "all on the side panel" if is_swung else "half on each panel"
    assert any(way in n.text for n in let_out.states[-1].notes if "upper end" in n.text)


@pytest.mark.parametrize("school", INTAKES)
@pytest.mark.parametrize("name", ROOM)
def test_lines_of_front_and_back_meet(name: str, school: str) -> None:
    steps = [{"do": "line.princess", "on": on, "school": school} for on in ("front", "back")]
    made = worked(steps, block_file.pattern(room_block(name)))
    assert not [one for one in checked(made) if one.check == "lines_meet"]
    shares = []  # of the shoulder, where the back's is eased to the front's
    for on in ("front", "back"):
        parts = [made.pattern.piece(f"{on}_{of}").edge("shoulder").sewn_length for of in ("centre", "side")]
        shares.append(parts[0] / sum(parts))
    assert shares[0] * 125.0 == pytest.approx(shares[1] * 125.0, abs=1.0)
