"""Where the trade means more than a formula: vests, camisoles, razor backs, places on the armhole; on six blocks."""

from __future__ import annotations

from typing import Any

import numpy as np
import pytest
import shapely

from tests.core.steps.panels import checked
from tests.core.steps.test_neck_forms import edge
from tests.drafted import ROOM, room_block
from tests.samples import worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.piece import Piece, Use
from zesty_pivot.core.recipe import Derivation

IN = 25.4
NECK = {"do": "neck.shape", "on": "front", "other": "back"}


def done(name: str, *steps: dict[str, Any]) -> Derivation:
    return worked(list(steps), block_file.pattern(room_block(name)))


def length(piece: Piece, role: str) -> float:
    """Flattened and summed by NumPy."""
    runs = [run.path.flatten(0.001) for run in piece.runs if piece.role(run.edge) == role]
    return float(sum(np.hypot(*np.diff(points, axis=0).T).sum() for points in runs))


@pytest.mark.parametrize("name", ROOM)
def test_a_vest_leaves_six_centimetres_along_the_shoulder(name: str) -> None:
    """Measured along the seam: across, the shoulder that was left came out 2 to 3 mm longer."""
    made = done(name, {**NECK, "shape": "vest", "width": "6 cm", "width_from": "shoulder_left"}).pattern
    assert length(made.piece("front"), "shoulder") == pytest.approx(60.0, abs=0.05)
    plain = done(name, {**NECK, "shape": "vest"})
    assert length(plain.pattern.piece("front"), "shoulder") == pytest.approx(55.0, abs=0.05)
    for side in ("front", "back"):
        piece, block = plain.pattern.piece(side), plain.block.piece(side)
        assert length(piece, "armhole") == pytest.approx(length(block, "armhole"), abs=0.01)
        sewn = [dart for dart in piece.darts if piece.role(piece.dart_edge(dart.id)) == "shoulder" and dart.use is Use.DART]
        assert not sewn  # none is left standing in the strap


@pytest.mark.parametrize("lower", ["1/2 in", "2.5 cm"])
@pytest.mark.parametrize("name", ROOM)
def test_a_razor_back_is_as_wide_as_asked_at_the_chest_line(name: str, lower: str) -> None:
    """With shoulder and waist darts in the way: it was 8 to 20 cm wide there, or refused."""
    step = {"do": "trim.armhole", "on": "front", "other": "back", "back": "razor", "lower": lower, "shoulder_in": "5 cm"}
    made = done(name, step)
    back, block = made.pattern.piece("back"), made.block.piece("back")
    line = edge(back, "armhole")
    at = line[np.abs(line[:, 1] - block.levels["chest"]) < 0.2]
    assert at[:, 0].min() == pytest.approx(2.0 * IN, abs=0.3)
    assert line[:, 0].min() > 2.0 * IN - 0.3
    strap = line[line[:, 1] < block.levels["chest"] - 70.0]
    chord = shapely.LineString([strap[0], strap[-1]])
    assert shapely.distance(chord, shapely.points(strap)).max() < 0.05  # a straight strap line


@pytest.mark.parametrize("name", ROOM)
def test_a_camisoles_tip_is_a_seat_for_the_strap(name: str) -> None:
    """1/8 in to each side of the point and 1/4 in lower; it was a point."""
    made = done(name, {**NECK, "shape": "camisole"})
    for side in ("front", "back"):
        piece = made.pattern.piece(side)
        line = edge(piece, "neckline")
        top = line[line[:, 1] < line[:, 1].min() + 1e-6]
        assert np.ptp(top[:, 0]) == pytest.approx(0.25 * IN, abs=0.01)
    front = made.pattern.piece("front")
    point = float(made.block.piece("front").landmarks["bust_point"][0])
    seat = edge(front, "neckline")
    assert np.mean(seat[seat[:, 1] < seat[:, 1].min() + 1e-6][:, 0]) == pytest.approx(point, abs=2.0)


@pytest.mark.parametrize("name", ROOM)
def test_front_and_back_shaped_one_by_one_make_one_strap(name: str) -> None:
    both = done(name, {**NECK, "shape": "camisole"}).pattern
    each = done(name, *({"do": "neck.shape", "on": on, "other": "", "shape": "camisole"} for on in ("front", "back"))).pattern
    lengths = [[max(run.path.length for run in extra.piece.runs) for extra in made.extras] for made in (both, each)]
    assert len(lengths[0]) == len(lengths[1]) == 1
    assert lengths[0][0] == pytest.approx(lengths[1][0], abs=0.5)
    assert set(each.extras[0].of) == {"front", "back"}


@pytest.mark.parametrize("name", ROOM)
def test_a_camisoles_razor_back_is_two_inches_from_cb_at_the_chest_line(name: str) -> None:
    back = done(name, {**NECK, "shape": "camisole", "back": "razor"}).pattern.piece("back")
    narrow = next(run for run in back.runs if back.role(run.edge) == "armhole").path.start
    assert narrow == pytest.approx([2.0 * IN, block_file.pattern(room_block(name)).piece("back").levels["chest"]], abs=0.01)
    edge = next(run for run in back.runs if back.role(run.edge) == "neckline").path
    assert float(edge.outline[:, 0].max()) < 2.0 * IN + 0.01


@pytest.mark.parametrize("name", [name for name in ROOM if name != "side and waist 140"])  # its legs leave a step there, told
def test_a_camisoles_facings_are_partners_at_the_side(name: str) -> None:
    made = done(name, {**NECK, "shape": "camisole"}, {"do": "piece.facing", "on": "front", "other": "back", "kind": "camisole"})
    sides = [length(extra.piece, "side_seam") for extra in made.pattern.extras if extra.kind == "facing"]
    assert len(sides) == 2 and sides[0] == pytest.approx(sides[1], abs=0.01)
    assert not [one for one in checked(made) if one.check == "facing_meets"]


@pytest.mark.parametrize("name", ROOM)
def test_the_queen_annes_slant_is_straight_to_its_corner(name: str) -> None:
    line = edge(done(name, {**NECK, "shape": "queen_anne"}).pattern.piece("front"), "neckline")
    corner = int(line[:, 0].argmax())
    slant = line[corner:] if line[-1, 1] < line[0, 1] else line[: corner + 1]
    chord = shapely.LineString([slant[0], slant[-1]])
    assert chord.length > 30.0 and shapely.distance(chord, shapely.points(slant)).max() < 0.01


@pytest.mark.parametrize("name", ROOM)
def test_a_scallops_back_has_no_hook(name: str) -> None:
    """From the shoulder it goes in and down, never outwards first."""
    back = done(name, {**NECK, "shape": "scallop"}).pattern.piece("back")
    line = edge(back, "neckline")
    line = line if line[0, 1] < line[-1, 1] else line[::-1]  # from the shoulder to CB
    assert (line[:, 0] <= line[0, 0] + 0.5).all()


@pytest.mark.parametrize("at", ["50%", "armhole/2", "edge/2", "armhole*0.25 + armhole/4"])
@pytest.mark.parametrize("name", ROOM)
def test_places_on_the_armhole_are_shares_or_formulas(name: str, at: str) -> None:
    found = done(name, {"do": "dart.move", "on": "front", "dart": "waist", "to": {"edge": "armhole", "at": at}})
    whole, front = length(found.block.piece("front"), "armhole"), found.pattern.piece("front")
    parts = [run.path.length for run in front.runs if front.role(run.edge) == "armhole"]
    mouth = next(number for number, run in enumerate(r for r in front.runs if front.role(r.edge) == "armhole") if run.mouth)
    assert sum(parts[: mouth + 1]) == pytest.approx(whole / 2.0, abs=0.01)
    assert sum(parts[mouth + 1 :]) == pytest.approx(whole / 2.0, abs=0.01)
    under = "armhole/2" if "/" in at else at
    off = done(name, {**NECK, "shape": "off_shoulder", "under": under}).pattern.piece("front")
    assert length(off, "armhole") == pytest.approx(whole / 2.0, abs=0.05)
