"""Intake between levels, on six blocks: the laid-out panels' lines crossed every 5 mm by Shapely, not by what drew them."""

from __future__ import annotations

import itertools
import math

import numpy as np
import pytest
import shapely

from tests.core.steps.panels import checked
from tests.drafted import ROOM, room_block
from tests.samples import worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.piece import Piece

LEVELS = {"bust_point": "bust", "chest": "chest", "under_bust": "under_bust", "waist": "waist"}
EVERY = 5.0  # mm
WITHIN = 0.12  # mm: what can be seen on paper


def line(panel: Piece) -> shapely.LineString:
    """A panel's princess line as a polyline."""
    paths = [run.path for run in panel.runs if panel.role(run.edge) == "style_line"]
    return shapely.LineString(np.concatenate([path.flatten(0.002) for path in paths]))


def apart(panels: tuple[Piece, Piece], y: float) -> float:
    """How far two panels' lines are apart straight across at a height, mm."""
    level = shapely.LineString([(-2000.0, y), (2000.0, y)])
    one, two = (np.min(shapely.get_coordinates(shapely.intersection(line(panel), level))[:, 0]) for panel in panels)
    return float(two - one)


def panels(block: str, **asked: str) -> tuple[Piece, Piece]:
    found = worked([{"do": "line.princess", "on": "front", **asked}], block_file.pattern(room_block(block)))
    return found.pattern.piece("front_centre"), found.pattern.piece("front_side")


def heights(block: str, above: str, below: str, made: tuple[Piece, Piece]) -> list[float]:
    """Every 5 mm between two levels; the waist is the end of the lines."""
    levels = room_block(block).pieces[0].levels
    low = min(line(panel).bounds[3] for panel in made)
    return list(np.arange(levels[above] + 0.01, min(low - 0.5, levels[below]), EVERY))


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("intake", ["0", "1 in", "2 in", "7 cm"])
def test_between_two_equal_intakes_the_seam_takes_exactly_that(block: str, intake: str) -> None:
    """2 in at under-bust and waist was 57 mm between them."""
    made = panels(block, under_bust=intake, waist=intake)
    asked = {"0": 0.0, "1 in": 25.4, "2 in": 50.8, "7 cm": 70.0}[intake]
    found = [apart(made, y) for y in heights(block, "under_bust", "waist", made)]
    assert len(found) > 12 and found[:-1] == [pytest.approx(asked, abs=WITHIN)] * (len(found) - 1)
    # At the waist an intake is measured along it, from end to end, which lies a little aslant.
    assert found[-1] == pytest.approx(asked, abs=0.4)
    ends = [line(panel).coords[-1] if panel is made[0] else line(panel).coords[0] for panel in made]
    assert asked == 0.0 or math.dist(*ends) == pytest.approx(asked, abs=WITHIN)


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize(("upper", "lower"), [("1 in", "2 in"), ("2 in", "1 in"), ("0", "4 cm"), ("4 cm", "0")])
def test_between_different_intakes_it_changes_one_way(block: str, upper: str, lower: str) -> None:
    made = panels(block, under_bust=upper, waist=lower)
    found = [apart(made, y) for y in heights(block, "under_bust", "waist", made)]
    way = 1.0 if upper in ("0", "1 in") else -1.0
    assert all(way * (after - before) > -0.05 for before, after in itertools.pairwise(found))


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("under_bust", ["1 in", "2 in"])
def test_from_the_point_down_it_only_grows(block: str, under_bust: str) -> None:
    """From nothing at the bust to the first asked intake."""
    made = panels(block, under_bust=under_bust, waist="2 in", smooth="0")
    found = [apart(made, y) for y in heights(block, "bust", "under_bust", made)]
    assert all(after - before > -0.05 for before, after in itertools.pairwise(found))
    assert max(found) < {"1 in": 25.4, "2 in": 50.8}[under_bust] + WITHIN


@pytest.mark.parametrize("block", ROOM)
def test_above_the_bust_as_well(block: str) -> None:
    """At the shoulder it is measured along it, aslant: from there to the chest line it changes one way."""
    made = panels(block, top="1 in", chest="1 in")
    levels = room_block(block).pieces[0].levels
    top = max(line(panel).bounds[1] for panel in made)
    found = [apart(made, y) for y in np.arange(top + 1.0, levels["chest"], EVERY)]
    steps = [after - before for before, after in itertools.pairwise(found[6:])]  # 3 cm below the end that is mended
    assert len(found) > 12 and found[-1] == pytest.approx(25.4, abs=0.5)
    assert all(step > -0.05 for step in steps) or all(step < 0.05 for step in steps)
    assert found[:6] == [pytest.approx(found[6], abs=0.6)] * 6


# Where lengths are mended.


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("on", ["front", "back"])
def test_the_waist_stays_where_it_was_and_the_upper_end_is_mended(block: str, on: str) -> None:
    """Walked up from the waist, which keeps its length: mended below it dipped by up to 19 mm."""
    pattern = block_file.pattern(room_block(block))
    found = worked([{"do": "line.princess", "on": on}], pattern)
    centre, side = (found.pattern.piece(f"{on}_{name}") for name in ("centre", "side"))
    lengths = [sum(run.path.length for run in panel.runs if panel.role(run.edge) == "style_line") for panel in (centre, side)]
    assert lengths[1] - lengths[0] == pytest.approx(3.0, abs=1e-6)
    uneven = max(abs(one - two) for one, two in (pattern.piece(on).legs(dart.id) for dart in pattern.piece(on).darts))
    waists = [panel.edge("waist").sewn_length for panel in (centre, side)]
    assert sum(waists) == pytest.approx(pattern.piece(on).edge("waist").sewn_length, abs=0.5 if uneven < 1.0 else 1.0)
    assert any("meet at their upper end" in note.text for note in found.states[-1].notes)
    lower = worked([{"do": "line.princess", "on": on, "mend": "bottom"}], pattern)
    assert any("meet at their lower end" in note.text for note in lower.states[-1].notes)


@pytest.mark.parametrize("block", ["two darts 76", "side and waist 140"])
def test_unequal_legs_leave_no_step_in_the_seams(block: str) -> None:
    """A step of 4.6 mm stood in the shoulder: the ring is closed, and the difference is told."""
    pattern = block_file.pattern(room_block(block))
    front = pattern.piece("front")
    worst = max(abs(one - two) for one, two in (front.legs(dart.id) for dart in front.darts))
    assert worst > 1.0
    found = worked([{"do": "line.princess", "on": "front"}], pattern)
    assert any("legs of the" in note.text for note in found.states[-1].notes)
    for name in ("front_centre", "front_side"):
        panel = found.pattern.piece(name)
        for index, run in enumerate(panel.runs):
            following = panel.runs[panel.after(index)]
            assert run.mouth or math.dist(run.path.end, following.path.start) < 1e-6
    assert not [one for one in checked(found) if one.check == "corners" and "step" in one.message and "front" in one.piece]
