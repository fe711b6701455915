"""Trims measured on written sheets by svgelements, their arithmetic done again here; where no other source is named: common
practice, no source."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest

from tests.core.steps.trims import done, made, on_sheet, round_, trim
from tests.drafted import ROOM, room_block
from tests.samples import hip_block, real_block
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.errors import StepError
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.report import report
from zesty_pivot.core.procedures.strips import in_strips
from zesty_pivot.core.procedures.worn_edge import worn_edges
from zesty_pivot.core.steps.registry import all_steps
from zesty_pivot.core.steps.trim import TiedStep
from zesty_pivot.core.steps.trim_binding import square_for, strip_of
from zesty_pivot.core.steps.trim_placket import button_places

FIRST: dict[str, list[dict[str, Any]]] = {"trim.strap": [{"do": "neck.shape", "on": "front", "shape": "camisole"}]}
TRIMS = sorted(do for do, step in all_steps().items() if issubclass(step, TiedStep))


def times(cut: str) -> int:
    """How often a part is cut by its order."""
    return {"one": 1, "pair": 2}.get(cut) or int(cut)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("do", TRIMS)
def test_every_trim_begins_on_every_block(do: str, name: str) -> None:
    found = done(room_block(name), *FIRST.get(do, []), trim(do, **({"on": "back"} if do == "trim.loops" else {})))
    rows = report(found).trims
    assert rows and all(row.told and row.edge_mm > 0.0 and row.cut.startswith("cut ") for row in rows)


@pytest.mark.parametrize("part", [1 / 8, 1 / 4, 1 / 2, 1.0, 1.5, 2.0])
def test_parts_of_a_circle(part: float) -> None:
    """The trade's radii: W/(2 pi) for a full circle, W/pi for a half, 2W/pi for a quarter; a hem of 2 pi p (r + d)."""
    found = done(real_block(), trim("fullness.circle", part=part, depth="18 cm", cloth="300 cm"))
    waist = round_(found.pattern, "waist")
    names = [extra.piece.name for extra in found.pattern.extras]
    counts = [times(extra.cut) for extra in found.pattern.extras]
    assert sum(on_sheet(found, n) * k for n, k in zip(names, counts, strict=True)) == pytest.approx(waist, abs=0.01)
    radius = {1 / 4: 2.0 * waist / math.pi, 1 / 2: waist / math.pi, 1.0: waist / (2.0 * math.pi)}.get(part)
    radius = waist / (2.0 * math.pi * part) if radius is None else radius
    hem = sum(on_sheet(found, n, "hem_edge") * k for n, k in zip(names, counts, strict=True))
    assert hem == pytest.approx(2.0 * math.pi * part * (radius + 180.0), abs=0.02)
    for extra in found.pattern.extras:  # every point of the inner edge lies so far from one point
        inner = extra.piece.edge("seam").runs[0].path
        points = np.array([inner.point_at(inner.length * share) for share in np.linspace(0.0, 1.0, 40)])
        assert np.allclose(np.hypot(*points.T), radius, atol=1e-3)


def test_a_flounce_is_joined_where_the_cloth_is_narrow() -> None:
    wide, narrow = (
        done(real_block(), trim("fullness.circle", part=0.5, depth="20 cm", cloth=cloth)) for cloth in ("200 cm", "42 cm")
    )
    count = [
        sum(1 if e.cut == "one" else 2 if e.cut == "pair" else int(e.cut) for e in f.pattern.extras) for f in (wide, narrow)
    ]
    assert count[0] == 1 < count[1]
    (box, *_rest) = [piece.box() for piece in narrow.pieces if piece.name == "waist_flounce"]
    assert min(box[2] - box[0], box[3] - box[1]) <= 420.0


def test_a_hem_is_levelled_at_the_bias_places_only() -> None:
    plain, level = (
        done(real_block(), trim("fullness.circle", part=0.5, seams="sides", level=by)).pattern.extras[0].piece
        for by in (0, "1 cm")
    )

    def depth(piece: Any, angle: float) -> float:
        hem = piece.edge("hem_edge").runs[0].path
        points = np.array([hem.point_at(at) for at in np.linspace(0.0, hem.length, 2000)])
        return float(np.hypot(*points[np.abs(np.arctan2(points[:, 0], points[:, 1]) - angle).argmin()]))

    assert depth(plain, 0.0) == pytest.approx(depth(level, 0.0), abs=0.01)  # on the grain
    assert depth(plain, math.pi / 8) - depth(level, math.pi / 8) == pytest.approx(5.0, abs=0.1)  # half way to the bias


CHANGED = [trim("neck.shape", shape="v", depth="16 cm"), {"do": "neck.shape", "on": "front", "shape": "square"}]


@pytest.mark.parametrize("after", CHANGED, ids=["v", "square"])
def test_a_neckline_changed_afterwards_changes_its_trims(after: dict[str, Any]) -> None:
    trims = [trim(f"trim.{kind}") for kind in ("band", "frill", "piping", "binding")]
    before, found = done(real_block(), *trims), done(real_block(), *trims, after)
    neck = round_(found.pattern, "neckline")
    assert abs(neck - round_(before.pattern, "neckline")) > 50.0
    assert on_sheet(found, "neckline_band") == pytest.approx(neck, abs=0.01)
    assert on_sheet(found, "neckline_frill") == pytest.approx(1.6 * neck, abs=0.01)
    assert on_sheet(found, "neckline_piping") == pytest.approx(neck, abs=0.01)
    corners = {"v": 2.0 * 8.0 * math.tan(_v_turn(found) / 2.0), "square": 2.0 * 16.0}[after["shape"]]
    assert on_sheet(found, "neckline_binding") == pytest.approx(neck + corners + 20.0, abs=0.01)
    assert any("frill follows its edge" in note.text and "longer" in note.text for note in found.derivation.states[-1].notes)
    assert [extra.piece.name for extra in found.pattern.extras] == [extra.piece.name for extra in before.pattern.extras]


def _v_turn(found: Derived) -> float:
    """The turn at the point of a V, where both halves meet at CF."""
    way = found.pattern.piece("front").edge("neckline").runs[0].path.start_direction
    return 2.0 * math.atan2(-float(way[1]), float(way[0]))


def test_a_trim_whose_edge_has_gone_is_kept_and_told() -> None:
    found = made(real_block(), trim("trim.ruffle"), trim("trim.strapless"))
    (finding,) = [f for f in found.findings if f.check == "trims_follow"]
    assert finding.severity is Severity.ERROR and "armhole ruffle no longer fits" in finding.message
    assert [extra.piece.name for extra in found.pattern.extras] == ["armhole_ruffle"]


def test_what_is_worn_goes_round_panels_yokes_and_whole_pieces() -> None:
    """An armhole over a yoke and a waist over panels: the same length as their parts, notched at every seam."""
    princess = {"do": "line.princess", "on": "front"}
    found = done(
        real_block(), princess, {"do": "yoke.cut", "on": "back", "back_dart": "stay"}, {"do": "piece.unfold", "on": "back"}
    )
    (waist,), (arm,) = (worn_edges(found.pattern, edge, ("front", "back")) for edge in ("waist", "armhole"))
    assert waist.is_round and waist.mm == pytest.approx(round_(found.pattern, "waist"), abs=1e-9)
    assert sorted(waist.joints[1:]) == ["CB", "CF", "princess", "princess", "side", "side"]
    assert arm.count == 2 and 2.0 * arm.mm == pytest.approx(round_(found.pattern, "armhole"), abs=1e-9)
    assert sorted(arm.joints[1:]) == ["shoulder", "side", "yoke"]


def test_a_band_and_its_lap_on_both_arms() -> None:
    found = done(real_block(), trim("trim.band", edge="armhole", depth="1 1/2 in", lap="1 in"))
    (extra,) = found.pattern.extras
    assert extra.cut == "pair" and on_sheet(found, "armhole_band") == pytest.approx(
        round_(found.pattern, "armhole") / 2.0 + 25.4, abs=0.01
    )
    assert on_sheet(found, "armhole_band", "end") == pytest.approx(2.0 * 38.1, abs=0.01)
    marks = {mark.name: mark.at.u for mark in extra.piece.notches}
    armholes = {p.name: p.edge("armhole").sewn_length for p in found.pattern.pieces}
    assert marks["lap"] * on_sheet(found, "armhole_band") == pytest.approx(sum(armholes.values()), abs=0.01)
    at = marks["shoulder"] * on_sheet(found, "armhole_band")
    assert min(abs(at - long) for long in armholes.values()) < 0.01


def test_binding_takes_more_at_inward_corners_and_its_cloth_by_the_area() -> None:
    """At a square corner both stitch lines meet w beyond it on either side: 2 w in all (own geometry). A square s by s less two
    seams of 6 mm on both sides is as large as its strip (handbooks' area rule, from memory)."""
    found = done(real_block(), trim("neck.shape", shape="square"), trim("trim.binding", joining=0))
    neck = round_(found.pattern, "neckline")
    assert on_sheet(found, "neckline_binding") == pytest.approx(neck + 2 * 2.0 * 8.0, abs=0.05)
    assert on_sheet(found, "neckline_binding", "end") == pytest.approx(4 * 8.0, abs=0.01)
    vee = done(real_block(), trim("neck.shape", shape="v"), trim("trim.binding", joining=0))
    front = vee.pattern.piece("front").edge("neckline").runs[0].path
    turn = 2.0 * math.atan2(-front.start_direction[1], front.start_direction[0])
    more = on_sheet(vee, "neckline_binding") - round_(vee.pattern, "neckline")
    assert more == pytest.approx(2.0 * 8.0 * math.tan(turn / 2.0), abs=0.05)
    for long, wide in ((700.0, 32.0), (4200.0, 48.0), (60.0, 12.0)):
        side = square_for(long, wide)
        assert side % 10.0 == 0.0 and strip_of(side, wide) >= long > strip_of(side - 10.0, wide)
        assert strip_of(side, wide) * wide == pytest.approx(side * side - 2 * side * 12.0)


def test_buttons_lie_evenly_one_at_the_bust_line_none_at_the_waist() -> None:
    for long, first, spacing, bust in ((360.0, 15.0, 80.0, 190.0), (420.0, 20.0, 65.0, 203.7), (300.0, 12.0, 90.0, 150.0)):
        places = np.array(button_places(long, first, spacing, bust))
        assert np.ptp(np.diff(places)) < 1e-9 and np.abs(places - bust).min() < 1e-9
        assert places[0] == first and places[-1] <= long - 20.0 < places[-1] + np.diff(places)[0]
        assert abs(np.diff(places)[0] - spacing) < 0.45 * spacing
    found = done(real_block(), trim("trim.placket", wide="3 cm"))
    front, piece = found.pattern.piece("front"), next(p for p in found.pieces if p.name == "front")
    assert front.fold is None and piece.cut == "pair" and found.pattern.extras[0].cut == "pair"
    centre = front.edge("centre").runs[-1].path
    assert piece.box()[0] == pytest.approx(
        float(centre.start[0]) - 15.0 - 10.0, abs=0.01
    )  # half the placket, and its allowance
    holes = [mark.at[0] for mark in found.pattern.extras[0].piece.marks if mark.kind == "hole"]
    bust = front.levels["bust"] - float(centre.end[1])
    assert min(abs(at - bust) for at in holes) < 0.01


def test_a_frill_joined_from_strips_is_notched_where_each_meets_a_seam() -> None:
    found = done(real_block(), trim("trim.frill", edge="waist", ratio=2.0, cloth="90 cm"))
    waist = round_(found.pattern, "waist")
    total = sum(on_sheet(found, e.piece.name) * (1 if e.cut == "one" else 2) for e in found.pattern.extras)
    assert total == pytest.approx(2.0 * waist, abs=0.02) and all(
        on_sheet(found, e.piece.name) <= 870.0 for e in found.pattern.extras
    )
    assert in_strips(100.0, [("a", 25.0), ("b", 75.0)], 50.0) == [(50.0, (("a", 25.0),), 1), (50.0, (("b", 25.0),), 1)]


def test_a_stand_is_as_long_as_the_neckline_and_rises_to_the_front() -> None:
    found = done(real_block(), trim("trim.stand", rise="2 cm", lap="2 cm"))
    piece = found.pattern.extras[0].piece
    assert on_sheet(found, "neckline_stand") == pytest.approx(round_(found.pattern, "neckline") / 2.0 + 20.0, abs=0.01)
    seam = piece.edge("seam").runs[0].path
    assert seam.end[1] == pytest.approx(0.0) and seam.point_at(20.0)[1] == pytest.approx(-20.0, abs=1e-6)  # up is -y
    marks = {mark.name: mark.at.u * seam.length for mark in piece.notches}
    back = found.pattern.piece("back").edge("neckline").sewn_length
    assert marks["shoulder"] == pytest.approx(seam.length - back, abs=0.01) and marks["CF"] == pytest.approx(20.0)
    assert next(p for p in found.pieces if p.name == "neckline_stand").cut_words == "cut 2 on the fold"


def test_a_ruffle_is_deepest_at_the_shoulder_and_tapers_to_nothing() -> None:
    found = done(real_block(), trim("trim.ruffle", front="40%", back="60%", ratio=1.5, depth="7 cm"))
    arm = {piece.name: piece.edge("armhole").sewn_length for piece in found.pattern.pieces}
    flat = 0.4 * arm["front"] + 0.6 * arm["back"]
    assert on_sheet(found, "armhole_ruffle") == pytest.approx(1.5 * flat, abs=0.01)
    loose = found.pattern.extras[0].piece.edge("loose_edge").runs[0].path
    deepest = loose.outline[loose.outline[:, 1].argmax()]
    assert deepest == pytest.approx([1.5 * 0.4 * arm["front"], 70.0], abs=0.01)


def test_straps_reach_from_both_edges_to_the_blocks_shoulder() -> None:
    """The camisole's own strap is worked out from its strap points; this one from the ends of the edges on the sheet."""
    found = done(real_block(), {"do": "neck.shape", "on": "front", "shape": "camisole"}, trim("trim.strap", wide="1/4 in"))
    own, strap = found.pattern.extras
    lengths = own.piece.edge("side").sewn_length, strap.edge_mm
    assert abs(lengths[0] - lengths[1]) < 4.0  # the seat of the strap is 1/8 in to each side, 1/4 in lower


def test_an_elastic_is_cut_by_its_stretch() -> None:
    found = done(real_block(), trim("trim.casing", edge="waist", stretch="25%", fitted="waist"))
    waist = real_block().measurements["waist"]
    assert f"elastic cut to {(waist / 1.25 + 20.0) / 10.0:.1f} cm" in found.pattern.extras[0].told


def test_ties_go_from_the_side_to_the_centre_back() -> None:
    found = done(real_block(), trim("trim.tie", tail="50 cm", ends="straight"))
    assert on_sheet(found, "waist_tie") == pytest.approx(
        500.0 + found.pattern.piece("back").edge("waist").sewn_length, abs=0.01
    )
    sash = done(real_block(), trim("trim.tie", kind="sash", tail="50 cm", ends="straight"))
    assert on_sheet(sash, "waist_tie") == pytest.approx(1000.0 + round_(sash.pattern, "waist"), abs=0.01)


@pytest.mark.parametrize("at", ["neckline", "waist"])
def test_ties_on_a_childs_garment_are_cautioned_against(at: str) -> None:
    child = {"bust": "62 cm"}
    found = made(real_block(), trim("trim.tie", edge=at), measures=child)
    (finding,) = [f for f in found.findings if f.check == "cords"]
    assert finding.severity is (Severity.WARNING if at == "neckline" else Severity.REMARK)
    assert "see the rules of the place" in finding.advice
    assert not [f for f in made(real_block(), trim("trim.tie", edge=at)).findings if f.check == "cords"]


def test_a_frill_round_a_tight_curve_is_warned_with_what_lies_flat() -> None:
    """A parallel line is longer by its distance times the turn: drawn here beside a round neck's points, by small steps."""
    deep, found = 76.2, done(real_block(), trim("trim.frill", ratio=1.6))
    (finding,) = [f for f in found.findings if f.check == "frill_lies"]
    longer = 0.0
    for piece in found.pattern.pieces:
        neck = piece.edge("neckline").runs[0].path
        points = np.array([neck.point_at(at) for at in np.linspace(0.0, neck.length, 4000)])
        way = np.diff(points, axis=0)
        turn = np.unwrap(np.arctan2(way[:, 1], way[:, 0]))
        longer += 2.0 * deep * float(np.clip(-np.diff(turn), 0.0, None).sum())
    neck = round_(found.pattern, "neckline")
    assert finding.limit == pytest.approx((neck + longer) / neck, abs=0.01) and "stands up" in finding.message
    for more in ({"ratio": finding.limit}, {"depth": "2 cm"}):
        assert not [f for f in done(real_block(), trim("trim.frill", **more)).findings if f.check == "frill_lies"]
    assert not [f for f in done(real_block(), trim("trim.frill", edge="armhole")).findings if f.check == "frill_lies"]


REFUSED = [
    (trim("trim.frill", ratio=6), "6 times as long", "Enter 1 to 4"),
    (trim("trim.frill", edge="hem"), "no piece of the front and back has an edge called hem", "Choose one of: armhole"),
    (trim("trim.band", depth="-1 cm"), "a band with a depth of", "Enter"),
    (trim("fullness.circle", part=3, pieces=2), "would lie over itself", "more pieces"),
    (trim("fullness.circle", part=2, depth="90 cm", pieces=3, cloth="90 cm"), "too large for the cloth", "more pieces"),
    (trim("trim.peplum", kind="pleated", pleats=20), "deeper than their spacing", "less deep, or fewer"),
    (trim("trim.peplum", kind="shaped", hip="60 cm"), "would not widen", "hip + 5.1 cm"),
    (trim("trim.peplum", raised_by="19 cm"), "is not so long", "Raise it less"),
    (trim("trim.casing", fitted="200 cm"), "an elastic that sits 200.0 cm", "gather more"),
    (trim("trim.stand", rise="6 cm"), "a rise of 6.0 cm", "Enter up to"),
    (trim("trim.placket", on="front", spacing="40 cm", first="20 cm"), "no room for two buttons", "closer"),
    (trim("trim.loops", on="back", along="6 mm"), "no room for a loop", "smaller buttons"),
    (trim("trim.ruffle", edge="waist"), "crosses the shoulder seam", "Choose the armhole"),
]


@pytest.mark.parametrize(("step", "what", "advice"), REFUSED)
def test_what_cannot_be_is_refused_in_one_sentence(step: dict[str, Any], what: str, advice: str) -> None:
    ((_number, error),) = made(real_block(), step).derivation.broken
    assert isinstance(error, StepError) and what in error.what and advice in error.advice, error


def test_the_same_trim_twice_and_two_of_one_kind() -> None:
    twice = made(real_block(), trim("trim.band"), trim("trim.band"))
    assert "already" in twice.derivation.broken[0][1].what
    two = done(
        real_block(), trim("trim.band"), trim("trim.band", depth="5 cm"), {"do": "neck.shape", "on": "front", "shape": "v"}
    )
    assert [extra.piece.name for extra in two.pattern.extras] == ["neckline_band", "neckline_band_2"]


def test_a_trim_that_grows_into_more_parts_takes_no_name_of_another() -> None:
    """Once the second frill had the name that the first one's second strip got when the neckline was made longer."""
    frills = [trim("trim.frill", cloth="72 cm"), trim("trim.frill", cloth="300 cm", depth="5 cm")]
    before = done(real_block(), *frills)
    found = done(real_block(), *frills, trim("neck.shape", shape="v", depth="18 cm"))
    assert len(before.pattern.extras) == 2 < len(found.pattern.extras)
    assert len({extra.piece.name for extra in found.pattern.extras}) == len(found.pattern.extras)


def test_a_hip_length_block_takes_trims_at_its_hem() -> None:
    found = done(hip_block(), trim("trim.frill", edge="lower"), trim("trim.band", edge="hem"))
    assert on_sheet(found, "hem_band") == pytest.approx(round_(found.pattern, "hem"), abs=0.01)


def test_a_placket_goes_on_when_its_piece_is_cut_into_panels() -> None:
    """The centre is on one of them; the placket is as long as before, and that panel is cut beyond it."""
    alone, cut = (done(real_block(), trim("trim.placket"), *more) for more in ([], [{"do": "line.princess", "on": "front"}]))
    one, two = (next(e for e in found.pattern.extras if e.kind == "placket") for found in (alone, cut))
    assert two.of == ("front_centre",) and not two.lost
    assert two.edge_mm == pytest.approx(one.edge_mm, abs=1e-6)
    assert any(how == "under a placket" for _edge, how, _mm in cut.pattern.piece("front_centre").sewn_as)
