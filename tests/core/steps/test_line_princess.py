"""Princess lines: panels that sew together, at every level the intake that was asked for."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
import shapely
import svgelements

from tests.core.steps.fronts import MADE
from tests.core.steps.fronts import front as front_of
from tests.core.steps.panels import blocks, checked, line
from tests.drafted import room_block
from tests.samples import hip_pattern, move, real_pattern, worked
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.finish.balance import notch_place
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.finish.walk import walk
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.svg import piece_svg
from zesty_pivot.core.ledger import accounts, girths, seam_accounts
from zesty_pivot.core.piece import EdgeRef, Pattern, Piece
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.region import crosses_itself
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry
from zesty_pivot.data.demo import demo_style

LINES: dict[str, dict[str, Any]] = {
    "shoulder": {"from": {"station": "mid_shoulder"}},
    "armhole": {"from": {"station": "mid_armhole"}, "bow_above": "-1.5 cm"},
    "neckline": {"from": {"station": "mid_neck"}},
}  # fmt: skip


def of_line(piece: Piece, edge: str = "princess") -> list[Any]:
    return [run.path for run in piece.runs if run.edge == edge]


def measured(piece: Piece, edge: str = "princess") -> float:
    """The length of a panel's line on its sheet, by svgelements (its own arc length)."""
    text = piece_svg(finish_piece(piece, Finish(), Scope("cm"), "t"))
    svg = svgelements.SVG.parse(__import__("io").BytesIO(text), reify=True, ppi=25.4)
    paths = [
        e
        for e in svg.elements()
        if isinstance(e, svgelements.Path) and str(e.id or "").startswith(edge) and "notch" not in e.id
    ]
    assert paths, "the sheet has no such line"
    return sum(path.length(error=1e-7) for path in paths)


def gap(pattern: Pattern, y: float, panels: tuple[str, str] = ("front_centre", "front_side")) -> float:
    """The distance between two panels as they lie, straight across at a height: Shapely's crossings of their lines."""
    xs = []
    for name in panels:
        points = np.concatenate([path.flatten(1e-5) for path in of_line(pattern.piece(name))])
        hits = shapely.intersection(shapely.LineString(points), shapely.LineString([(-500.0, y), (900.0, y)]))
        xs.append(shapely.get_coordinates(hits)[0][0])
    return xs[1] - xs[0]


@pytest.mark.parametrize("on", ["front", "back"])
@pytest.mark.parametrize("kind", LINES)
@pytest.mark.parametrize("number", range(0, 10, 2))
def test_partner_edges_and_notches_on_random_blocks(kind: str, on: str, number: int) -> None:
    block = blocks()[number]
    found = worked([line(on, **LINES[kind])], block)
    pattern = found.pattern
    names = {piece.name for piece in pattern.pieces if piece.of == on}
    assert names == {f"{on}_centre", f"{on}_side"}
    seam = next(s for s in seam_accounts(pattern, {}) if str(s.a).endswith(".princess"))
    assert seam.ease_mm == 3.0 and abs(seam.difference_mm) < 1e-6
    # An outside measure of the written sheet: svgelements.
    one, two = (measured(pattern.piece(f"{on}_{side}")) for side in ("centre", "side"))
    assert two - one == pytest.approx(3.0, abs=0.05)
    for account in accounts(pattern, block):
        assert account.is_whole, account
    centre = pattern.piece(f"{on}_centre")
    assert centre.fold == "centre" and pattern.piece(f"{on}_side").fold is None
    assert all(mark.strokes == (2 if on == "back" else 1) for mark in centre.notches)
    found_notches = 0
    for mark in centre.notches:
        at = [notch_along(pattern.piece(f"{on}_{side}"), mark.id) for side in ("centre", "side")]
        eased = {"above": 0.0, "bust": 1.5, "below": 3.0}[mark.id.rpartition(".")[2]]
        assert at[1] - at[0] == pytest.approx(eased, abs=0.1)
        found_notches += 1
    assert found_notches >= 2


def notch_along(piece: Piece, id: str) -> float:
    """The distance of a notch from the line's top."""
    mark = next(mark for mark in piece.notches if mark.id == id)
    place = notch_place(piece, mark)
    assert place is not None
    distance = places.sewn_distance(piece, place)
    return distance if piece.name.endswith("centre") else piece.edge("princess").sewn_length - distance


@pytest.mark.parametrize("number", range(10))
def test_intakes_are_what_was_asked_for(number: int) -> None:
    """Measured between the panels' edges as they lie, by Shapely."""
    block = blocks()[number]
    front = block.piece("front")
    plain = worked([line()], block).pattern
    asked = {"chest": 20.0, "under_bust": gap(plain, front.levels["under_bust"]) + 6.0}
    natural = np.hypot(*(of_line(plain.piece("front_side"))[0].start - of_line(plain.piece("front_centre"))[-1].end))
    waist = float(natural) + 8.0
    open_above = math.dist(of_line(plain.piece("front_side"))[-1].end, of_line(plain.piece("front_centre"))[0].start)
    top = max(50.0, open_above - 30.0)
    step = line(**{name: f"{mm} mm" for name, mm in asked.items()}, waist=f"{waist} mm", top=f"{top} mm")
    found = worked([step], block)
    for name, mm in asked.items():
        assert gap(found.pattern, front.levels[name]) == pytest.approx(mm, abs=0.1)
    centre, side = (of_line(found.pattern.piece(f"front_{name}")) for name in ("centre", "side"))
    assert math.dist(centre[0].start, side[-1].end) == pytest.approx(top, abs=0.1)
    assert math.dist(centre[-1].end, side[0].start) == pytest.approx(waist, abs=0.1)
    assert side[0].length + side[1].length - centre[0].length - centre[1].length == pytest.approx(3.0, abs=1e-6)
    before, after = girths(block, block), girths(found.pattern, block)
    assert after.bust == pytest.approx(before.bust)
    lost = sum(mm for name, mm in found.pattern.lines[0].taken if name == "bottom")
    assert lost == pytest.approx(8.0, abs=0.01)
    assert after.waist == pytest.approx((girths(plain, block).waist or 0.0) - 16.0, abs=1.0)


@pytest.mark.parametrize("name", ["drafted 88", "drafted 124"])
@pytest.mark.parametrize("top", [10.0, 25.4, 38.1])
def test_an_intake_at_the_armhole_is_as_wide_as_asked(name: str, top: float) -> None:
    """The armhole runs nearly along the line, so that the ends move far when both lines are made to meet: 1 in came out as
    20.1 mm, or was refused."""
    front = block_file.pattern(room_block(name))
    out = [{"do": "dart.move", "on": "front", "dart": "side", "to": {"station": "waist"}}]
    plain = worked([*out, line(**{"from": {"station": "mid_armhole"}})], front).pattern
    lines = [of_line(plain.piece(f"front_{part}")) for part in ("centre", "side")]
    asked = math.dist(lines[0][0].start, lines[1][-1].end) + top
    found = worked([*out, line(**{"from": {"station": "mid_armhole"}, "top": f"{asked} mm"})], front)
    centre, side = (of_line(found.pattern.piece(f"front_{part}")) for part in ("centre", "side"))
    assert math.dist(centre[0].start, side[-1].end) == pytest.approx(asked, abs=0.05)
    assert (side[-1].end > centre[0].start).all()  # further out, and further down the armhole
    assert sum(path.length for path in side) - sum(path.length for path in centre) == pytest.approx(3.0, abs=1e-6)


def test_the_bust_line_keeps_its_width() -> None:
    """A block whose darts lie on the line already: the panels lie as the block does, and at the bust point nothing is cut
    away. Shapely's cut across both."""
    block = real_pattern()
    made = worked([line(top="6 cm", chest="2 cm")], block).pattern
    y = block.piece("front").pivot("bust_point")[1]
    assert gap(made, float(y)) == pytest.approx(0.0, abs=1e-3)


def test_account_after_conversion() -> None:
    block = real_pattern()
    made = worked([line()], block).pattern
    account = next(a for a in accounts(made, block) if a.pivot == "bust_point")
    assert [entry.use for entry in account.placed] == ["seam"]
    # The cone formula: the corners of both panels at the point and the seam's fullness make a full turn.
    assert account.placed[0].deg == pytest.approx(account.block_deg, abs=1e-9)
    past = worked([line(past="1 cm")], block).pattern
    account = next(a for a in accounts(past, block) if a.pivot == "bust_point")
    assert [entry.use for entry in account.placed] == ["seam"] and account.is_whole
    small = worked([line(past="2 cm", rest="dart")], block).pattern
    dart = small.piece("front_centre").dart("princess")
    # Mouth = 2 r sin(angle / 2), r the distance by which the line passes the point (the chord formula).
    angle = small.piece("front_centre").angle(dart.id)
    assert small.piece("front_centre").intake(dart.id) == pytest.approx(2 * 20.0 * math.sin(angle / 2), abs=1e-6)


def test_corners_are_rounded_without_losing_length() -> None:
    block = real_pattern()
    sharp = worked([line(smooth=0, ease=0)], block).pattern
    fair = worked([line(ease=0)], block).pattern
    side, old = (of_line(p.piece("front_side")) for p in (fair, sharp))
    turn = [abs(math.degrees(math.atan2(*reversed(two.start_direction)) - math.atan2(*reversed(one.end_direction))))
            for one, two in (side, old)]  # fmt: skip
    assert turn[0] < 1e-6 < 20.0 < turn[1]
    pin = fair.piece("front_side").landmarks["bust_point"]
    assert np.allclose(side[0].end, pin, atol=1e-9)
    for pattern in (sharp, fair):
        a, b = (pattern.piece(f"front_{name}").edge("princess").sewn_length for name in ("centre", "side"))
        assert a == pytest.approx(b, abs=1e-6)
    # Fair: hollow above, full over the bust, hollow below; nowhere sharper than the corner it replaces was.
    ways = np.unwrap([math.atan2(*reversed(path.direction_at(s))) for path in side for s in np.arange(0.0, path.length, 2.0)])
    turns = np.diff(ways)[np.abs(np.diff(ways)) > math.radians(0.03)]
    assert 1 <= np.count_nonzero(np.diff(np.sign(turns))) <= 4
    assert math.degrees(np.abs(turns).max()) < 4.0


def test_width_is_given_back_outside() -> None:
    block = real_pattern()
    plain = worked([line()], block).pattern.piece("front_side")
    natural = math.dist(of_line(plain)[-1].end, of_line(worked([line()], block).pattern.piece("front_centre"))[0].start)
    top = f"{natural + 12.0} mm"
    kept = worked([line(top=top)], block)
    lost = worked([line(top=top, give_back="none")], block)
    both = worked([line(top=top, give_back="underarm")], block)
    shoulders = [sum(p.edge("shoulder").sewn_length for p in d.pattern.pieces if p.of == "front") for d in (kept, lost, both)]
    whole = block.piece("front").edge("shoulder").sewn_length
    assert shoulders[0] == pytest.approx(whole, abs=0.05)
    gone = whole - shoulders[1]
    assert gone == pytest.approx(12.0, abs=1.0)  # the mouth is its chord, and the end that is mended moves a little along it
    tips = [d.pattern.piece("front_side").corner("shoulder_tip") for d in (kept, lost, both)]
    unders = [d.pattern.piece("front_side").corner("underarm") for d in (kept, lost, both)]
    assert math.dist(tips[0], tips[1]) == pytest.approx(gone, abs=1e-6)
    assert math.dist(unders[0], unders[1]) == pytest.approx(0.0, abs=1e-9)
    assert unders[2][0] >= unders[1][0]
    assert any("given back" in note.text for note in kept.states[-1].notes)
    bust = [girths(d.pattern, block).bust or 0.0 for d in (kept, both)]
    assert bust == pytest.approx([girths(block, block).bust] * 2, abs=0.05)
    assert kept.pattern.lines[0].given == pytest.approx(math.dist(tips[0], tips[1]), abs=1e-6)
    ids = [f.check for f in checked(lost)]
    assert "given_back" in ids and "given_back" not in [f.check for f in checked(kept)]


def test_front_and_back_lines_meet_at_the_shoulder() -> None:
    block = demo_block()
    made = worked([line(), line("back")], block).pattern
    ends = {(str(seam.a), str(seam.b)) for seam in made.seams}
    assert ("front_centre.shoulder", "back_centre.shoulder") in ends
    assert ("front_side.shoulder", "back_side.shoulder") in ends
    steps = [line(mend="bottom"), line("back", **{"from": {"edge": "shoulder", "at": "30%"}}, mend="bottom")]
    apart = worked(steps, block)
    composite = [seam for seam in apart.pattern.seams if seam.pair is None]
    assert [str(seam.b) for seam in composite] == ["back_centre.shoulder+back_side.shoulder"]
    missing = [f for f in checked(apart) if f.check == "lines_meet"]
    assert len(missing) == 1 and missing[0].value == pytest.approx(0.2 * 124.0, abs=0.1)
    assert not [f for f in checked(worked([line(), line("back")], block)) if f.check == "lines_meet"]


def demo_block() -> Pattern:
    from zesty_pivot.core.formats import block_file

    return block_file.pattern(demo_style().block)  # type: ignore[arg-type]


def test_the_back_takes_in_shoulder_and_waist_darts_of_two_pivots() -> None:
    block = real_pattern()
    made = worked([line("back")], block).pattern
    entries = {a.pivot: a.placed for a in accounts(made, block) if a.piece == "back"}
    assert {pivot: entry[0].use for pivot, entry in entries.items()} == {"blade_point": "seam", "waist_tip": "seam"}
    assert not made.piece("back_centre").darts and not made.piece("back_side").darts
    side = made.piece("back_side")
    joints = [path.end for path in of_line(side)[:-1]]
    assert np.allclose(joints[0], side.landmarks["waist_tip"], atol=1e-6)
    assert np.allclose(joints[1], side.landmarks["blade_point"], atol=1e-6)
    arm = worked([line("back", **LINES["armhole"])], block).pattern
    assert [d.id for d in arm.piece("back_centre").darts] == ["shoulder"]  # the shoulder dart is not on the way


def test_panels_lie_as_the_block_where_the_darts_are_on_the_line() -> None:
    """Side panel's outer edges coincide with the block's when both darts were at the line's ends already."""
    block = real_pattern()
    made = worked([line(ease=0)], block).pattern.piece("front_side")
    old = block.piece("front")
    assert np.allclose(made.corner("underarm"), old.corner("underarm"), atol=1e-6)
    assert np.allclose(made.corner("side_waist"), old.corner("side_waist"), atol=1e-6)


BEFORE = [
    move("shoulder", "side_bust"), move("waist", "mid_armhole"), move("shoulder", "centre_neck"),
    {"do": "piece.true", "on": "front", "edge": "waist"},
]  # fmt: skip


@pytest.mark.parametrize("before", BEFORE)
def test_steps_before_the_line_keep_the_panels_sound(before: dict[str, Any]) -> None:
    """Wherever the darts were, the panels are the same pieces of paper and lie alike."""
    made = worked([before, line(ease=0)]).pattern
    plain = worked([line(ease=0)]).pattern
    for seam in seam_accounts(made, {}):
        if str(seam.a).endswith(".princess"):
            assert abs(seam.difference_mm) < 1e-6
    assert all(account.is_whole for account in accounts(made, real_pattern()))
    if before["do"] == "dart.move":
        for one, two in zip(of_line(made.piece("front_side")), of_line(plain.piece("front_side")), strict=True):
            assert np.allclose(one.cubics, two.cubics, atol=1e-6)  # they lie alike as well
        for name in ("front_centre", "front_side"):
            assert made.piece(name).area == pytest.approx(plain.piece(name).area, rel=2e-4)
            # The armhole is redrawn where the shoulder's 0.03 mm are given back, in other cubics where a dart was in it.
            for edge, within in (("armhole", 1e-5), ("side_seam", 1e-6), ("neckline", 1e-6)):
                if edge in dict(plain.piece(name).roles):
                    assert made.piece(name).edge(edge).sewn_length == pytest.approx(
                        plain.piece(name).edge(edge).sewn_length, abs=within
                    )


def test_panels_keep_their_names_on_every_block() -> None:
    for block in [*blocks(), real_pattern(), demo_block()]:
        made = worked([line(), line("back")], block).pattern
        assert [piece.name for piece in made.pieces] == ["front_centre", "front_side", "back_centre", "back_side"]
        for on in ("front", "back"):
            centre, side = made.piece(f"{on}_centre"), made.piece(f"{on}_side")
            assert "centre" in dict(centre.roles) and "centre" not in dict(side.roles)
            assert "side_seam" in dict(side.roles)


def test_a_hip_length_front_takes_its_fish_eye_into_the_line() -> None:
    block = hip_pattern()
    made = worked([line(), line("back")], block).pattern
    front = block.piece("front")
    assert not made.piece("front_centre").fisheyes and not made.piece("front_side").fisheyes
    assert gap(made, front.levels["waist"]) == pytest.approx(32.0, abs=0.1)
    assert gap(made, front.levels["hip"] - 40.0) == pytest.approx(0.0, abs=0.1)
    before, after = girths(block, block), girths(made, block)
    assert after.waist == pytest.approx(before.waist, abs=0.01)
    assert after.hip == pytest.approx(before.hip, abs=0.01)
    deep = worked([line(waist="4 cm", hip="1 cm")], block).pattern
    assert gap(deep, front.levels["hip"]) == pytest.approx(10.0, abs=0.1)
    assert girths(deep, block).waist == pytest.approx((before.waist or 0.0) - 16.0, abs=0.05)


def test_schools_take_at_least_their_figures() -> None:
    block = real_pattern()
    hollow = worked([line(school="hollow")], block).pattern
    assert gap(hollow, block.piece("front").levels["chest"]) >= 25.4 - 0.01
    # The darts give more at the waist than the school asks for, so nothing is let out there.
    for school in ("fitted", "close"):
        taken = dict(worked([line(school=school)], block).pattern.lines[0].taken)
        assert taken.get("bottom", 0.0) >= 0.0 and taken.get("top", 0.0) >= 0.0
    for school in ("fitted", "close"):
        for on in ("front", "back"):
            assert worked([line(on, school=school)], block).pattern.lines[0].of == on


def test_the_walk_crosses_the_notches() -> None:
    made = worked([line()]).pattern
    found = walk(made, EdgeRef.read("front_centre.princess"), EdgeRef.read("front_side.princess"), ("top", "bottom"), 3.0)
    marks = [notch for notch in found.notches if notch.title.endswith("notch")]
    assert [notch.title for notch in marks] == ["above notch", "bust notch", "below notch"]
    assert all(mark.meets and abs(mark.missed_mm) <= 0.1 for mark in marks)
    assert marks[0].difference_mm == pytest.approx(0.0, abs=0.01)
    back = found.turned()
    assert all(mark.meets for mark in back.notches if mark.title.endswith("notch"))
    firm = walk(made, EdgeRef.read("front_centre.princess"), EdgeRef.read("front_side.princess"), ("top", "bottom"))
    assert [mark.meets for mark in firm.notches if mark.title.endswith("notch")] == [True, False, False]
    eased = found.stretches
    assert sum(s.difference_mm for s in eased) == pytest.approx(3.0, abs=1e-6)
    assert eased[0].difference_mm == pytest.approx(0.0, abs=0.01)


def test_a_line_to_the_side_parts_the_side_seam() -> None:
    made = worked([line(to={"edge": "side_seam", "at": "80%"}, **{"from": {"station": "mid_neck"}})]).pattern
    seam = next(seam for seam in made.seams if "side_seam" in str(seam.a))
    assert str(seam.a) == "front_side.side_seam+front_centre.side_seam"
    assert made.sewn_length(seam.a) == pytest.approx(made.sewn_length(seam.b), abs=4.0)


REFUSED = [
    (line(past="3 cm"), "off the point is no princess line"),
    (line(waist="2 cm", centre_waist="3 cm"), "of an intake of 2.0 cm off the centre panel"),
    (line(darts=["waist"]), "the shoulder dart would reach the seam"),
    (line(darts=["waste"]), "no dart 'waste'"),
    (line("back", darts=["shoulder", "waist"], **LINES["armhole"]), "not on the line"),
    (line(ease="8 mm"), "of ease over the bust"),
    (line(ease="-1 mm"), "of ease over the bust"),
    (line(smooth="-1 cm"), "must be 0 or more"),
    (line(bow_above="12 cm"), "the line leaves the piece"),
    (line(top="60 cm"), "does not fit"),
    (line(**{"from": {"edge": "centre", "at": "50%"}}), "begins on the centre"),
    (line(hip="1 cm"), "has no hip line"),
    (line(chest="1 in", **{"from": {"edge": "armhole", "at": "80%"}, "bow_above": "-1 cm"}), "does not cross the chest line"),
    (line("sleeve"), "no piece 'sleeve'"),
]


@pytest.mark.parametrize(("step", "text"), REFUSED)
def test_what_cannot_be_is_refused_in_one_sentence(step: dict[str, Any], text: str) -> None:
    found = Evaluator().evaluate(real_pattern(), [registry.read(step)], Scope("cm", {}))
    assert found.broken, "it was done"
    fault = found.broken[0][1]
    assert text in str(fault) and fault.advice and "\n" not in str(fault)


def test_a_second_line_on_a_panel() -> None:
    twice = Evaluator().evaluate(real_pattern(), [registry.read(line()), registry.read(line())], Scope("cm", {}))
    assert "the front is in parts by now" in str(twice.broken[0][1])


@pytest.mark.parametrize("past", ["0", "8 mm", "-5 mm"])
@pytest.mark.parametrize("kind", LINES)
@pytest.mark.parametrize("name", MADE)
def test_fronts_of_one_to_four_darts(name: str, kind: str, past: str) -> None:
    block = front_of(name)
    for on in ("front", "back"):
        found = worked([line(on, past=past, rest="dart", **LINES[kind])], block).pattern
        assert not any(crosses_itself(piece) for piece in found.pieces)
        assert all(account.is_whole for account in accounts(found, block))
        seam = next(seam for seam in seam_accounts(found, {}) if str(seam.a).endswith(".princess"))
        assert abs(seam.difference_mm) < 1e-6
