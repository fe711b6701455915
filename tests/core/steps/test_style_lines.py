"""Free lines, bands, joining, the contoured centre, trimmed hems, strapless edges."""

from __future__ import annotations

import io
import math
from typing import Any

import numpy as np
import pytest
import shapely
import svgelements

from tests.core.steps.panels import blocks, checked
from tests.core.steps.panels import line as princess
from tests.samples import hip_pattern, move, real_pattern, scaled, style, worked
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.formats.derived import look_at
from zesty_pivot.core.formats.svg import piece_svg
from zesty_pivot.core.ledger import accounts, girths, seam_accounts
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.region import outline
from zesty_pivot.core.quantity import Scope, format_length
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry

Step = dict[str, Any]


def cut(**more: Any) -> Step:
    ends = {"from": {"edge": "armhole", "at": "70%"}, "to": {"edge": "side_seam", "at": "60%"}}
    return {"do": "line.cut", "on": "front", "bow": "1 cm", **ends, **more}


def heart(shape: str = "heart", **more: Any) -> Step:
    ends = {"from": {"edge": "centre", "at": "90%"}, "to": {"edge": "centre", "at": "60%"}}
    return {"do": "line.cut", "on": "front", "shape": shape, "width": "5 cm", **ends, **more}


def broken(block: Pattern, *steps: Step) -> str:
    found = Evaluator().evaluate(block, [registry.read(step) for step in steps], Scope("cm", {}))
    assert found.broken, "it was done"
    fault = found.broken[-1][1]
    assert fault.advice and "\n" not in str(fault)
    return str(fault)


def area(piece: Piece) -> float:
    return float(shapely.Polygon(outline(piece)).area)


def sheet_lengths(piece: Piece) -> dict[str, float]:
    """The seams of a written sheet, by svgelements."""
    svg = svgelements.SVG.parse(io.BytesIO(piece_svg(finish_piece(piece, Finish(), Scope("cm"), "t"))), reify=True, ppi=25.4)
    found: dict[str, float] = {}
    for element in svg.elements():
        if isinstance(element, svgelements.Path) and element.id:
            name = str(element.id)
            found[name] = found.get(name, 0.0) + element.length(error=1e-7)
    return found


@pytest.mark.parametrize(
    "step", [cut(), cut(bow="2 cm", peak="30%"), cut(bow="3 cm", peak="60%"), heart(), heart("keyhole", width="3 cm")]
)
def test_a_free_line_makes_two_sewn_partners(step: Step) -> None:
    block = real_pattern()
    made = worked([step], block).pattern
    assert [piece.name for piece in made.pieces] == ["front", "front_panel", "back"]
    (seam,) = [s for s in seam_accounts(made, {}) if str(s.a) == "front.line"]
    assert str(seam.b) == "front_panel.line" and abs(seam.difference_mm) < 1e-9
    # The cloth is all there: Shapely's areas of both parts and of the block.
    assert area(made.piece("front")) + area(made.piece("front_panel")) == pytest.approx(area(block.piece("front")), rel=1e-5)
    assert all(account.is_whole for account in accounts(made, block))
    marks = [{mark.id for mark in made.piece(name).notches} for name in ("front", "front_panel")]
    assert marks[0] == marks[1] and len(marks[0]) >= 1
    assert not [f for f in checked(worked([step], block)) if f.check in ("notches_meet", "labels", "outline")]


def test_a_bowed_line_stands_off_where_it_was_asked_to() -> None:
    made = worked([cut(bow="2 cm", peak="30%")]).pattern.piece("front_panel")
    path = next(run.path for run in made.runs if run.edge == "line")
    chord = shapely.LineString([path.start, path.end])
    far = [chord.distance(shapely.Point(at)) for at in path.flatten(1e-4)]
    assert max(far) == pytest.approx(20.0, abs=0.05)


def test_a_corner_of_no_size_is_not_cut_off() -> None:
    ends = {"from": {"edge": "side_seam", "at": "2 mm"}, "to": {"edge": "armhole", "at": "96%"}}
    for block in (real_pattern(), hip_pattern()):
        assert "nothing is cut off" in broken(block, cut(bow="0", **ends))


def test_a_strapless_edge_off_the_centre_is_told_where_it_may_lie() -> None:
    """Own arithmetic: from the neck point down to both ends of the centre."""
    for block in (real_pattern(), hip_pattern(), scaled(1.2, 1.1)):
        front = block.piece("front")
        neck = float(front.corner("neck_point")[1])
        ys = sorted(
            float(end[1]) - neck for end in (front.edge("centre").runs[0].path.start, front.edge("centre").runs[-1].path.end)
        )
        low, high = (format_length(y, Scope("cm", {}).unit) for y in ys)
        for depth in ("1 cm", "90 cm"):
            assert f"Enter {low} to {high}" in broken(block, {"do": "trim.strapless", "on": "front", "depth": depth})


def test_a_cut_part_comes_back_by_joining() -> None:
    for step in (cut(bow="1 cm"), heart()):
        block = real_pattern()
        made = worked([step, {"do": "piece.join", "on": "front", "other": "front_panel"}], block).pattern
        assert [piece.name for piece in made.pieces] == ["front", "back"] and made.seams == block.seams
        assert made.piece("front").area == pytest.approx(block.piece("front").area, abs=1e-3)
        for edge, _role in block.piece("front").roles:
            assert made.piece("front").edge(edge).sewn_length == pytest.approx(
                block.piece("front").edge(edge).sewn_length, abs=1e-6
            )
        assert made.piece("front").notches == ()


def test_side_panels_are_joined_over_the_side_seam() -> None:
    made = worked([princess(), princess("back"), {"do": "piece.join", "on": "front_side", "other": "back_side"}]).pattern
    assert [piece.name for piece in made.pieces] == ["front_centre", "front_side", "back_centre"]
    piece = made.piece("front_side")
    assert {"shoulder", "shoulder_back", "princess", "princess_back", "armhole", "waist"} == {
        edge for edge, _role in piece.roles
    }
    seams = {(str(seam.a), str(seam.b)): seam for seam in seam_accounts(made, {})}
    assert abs(seams["back_centre.princess", "front_side.princess_back"].difference_mm) < 1e-6
    assert girths(made, real_pattern()).waist == pytest.approx(
        girths(worked([princess(), princess("back")]).pattern, real_pattern()).waist, abs=1e-3
    )


@pytest.mark.parametrize("edge", ["neckline", "armhole"])
def test_a_band_is_everywhere_as_wide(edge: str) -> None:
    made = worked([{"do": "line.band", "on": "front", "edge": edge, "width": "3 cm"}]).pattern
    band = made.piece(f"front_{edge}_band")
    outer = shapely.LineString(np.concatenate([run.path.flatten(1e-4) for run in band.runs if run.edge == edge]))
    inner = np.concatenate([run.path.flatten(0.01) for run in band.runs if run.edge == "band"])
    far = [outer.distance(shapely.Point(at)) for at in inner[len(inner) // 5 : -len(inner) // 5]]
    assert min(far) == pytest.approx(30.0, abs=0.1) and max(far) == pytest.approx(30.0, abs=0.1)
    assert any(abs(s.difference_mm) < 1e-9 for s in seam_accounts(made, {}) if str(s.a).endswith(".band"))


def test_a_band_crosses_the_panels_seam() -> None:
    made = worked([princess(), {"do": "line.band", "on": "front_side", "edge": "waist"},
                   {"do": "line.band", "on": "front_centre", "edge": "waist"}]).pattern  # fmt: skip
    found = {(str(seam.a), str(seam.b)) for seam in made.seams}
    assert ("front_centre.princess", "front_side.princess") in found
    assert ("front_centre_waist_band.princess", "front_side_waist_band.princess") in found
    assert girths(made, real_pattern()).waist == pytest.approx(girths(worked([princess()]).pattern, real_pattern()).waist)


@pytest.mark.parametrize("to", ["chest", "armhole"])
def test_the_centre_back_is_contoured(to: str) -> None:
    """In by 3/4 in at the waist, nothing at the chest line (or mid armhole): common practice, no source."""
    block = real_pattern()
    made = worked([{"do": "line.contour", "to": to}], block)
    piece, old = made.pattern.piece("back"), block.piece("back")
    path = piece.edge("centre").runs[0].path
    assert path.start[0] == pytest.approx(19.05, abs=0.01)
    assert piece.edge("waist").sewn_length == pytest.approx(old.edge("waist").sewn_length - 19.05, abs=0.01)
    points = path.flatten(1e-3)
    turns = np.diff(np.unwrap(np.arctan2(*np.diff(points, axis=0).T[::-1])))
    assert np.abs(turns).max() < math.radians(2.0)
    if to == "chest":
        above = points[points[:, 1] < old.levels["chest"] - 0.01]
        assert np.abs(above[:, 0]).max() < 1e-9
    assert piece.fold is None and not [f for f in checked(made) if f.check == "labels"]
    sheet = finish_piece(piece, Finish(), Scope("cm"), "t")
    assert sheet.cut == "pair"
    # The zip allowance, 1.5 cm by its school, is laid parallel to the contoured line.
    ring = shapely.LinearRing(sheet.ring)
    for share in (0.3, 0.6):
        assert ring.distance(shapely.Point(path.point_at(path.length * share))) == pytest.approx(15.0, abs=0.05)
    long = worked([{"do": "line.contour"}], hip_pattern())
    assert girths(long.pattern, hip_pattern()).waist == pytest.approx(
        (girths(hip_pattern(), hip_pattern()).waist or 0) - 38.1, abs=0.01
    )


def test_the_back_is_trimmed_at_the_centre() -> None:
    block = hip_pattern()
    made = worked([{"do": "trim.hem", "by": "2 cm"}], block).pattern.piece("back")
    old = block.piece("back")
    assert made.edge("centre").sewn_length == pytest.approx(old.edge("centre").sewn_length - 20.0, abs=1e-6)
    assert made.edge("side_seam").sewn_length == pytest.approx(old.edge("side_seam").sewn_length, abs=1e-9)
    hem = made.edge("hem").runs
    assert abs(hem[-1].path.end_direction[1]) < 0.02 and abs(hem[0].path.start_direction[1]) < 0.02
    down = worked([{"do": "trim.hem", "by": "-1 cm"}], block).pattern.piece("back")
    assert down.edge("centre").sewn_length == pytest.approx(old.edge("centre").sewn_length + 10.0, abs=1e-6)


def strapless(on: str = "front", **more: Any) -> Step:
    return {"do": "trim.strapless", "on": on, **more}


@pytest.mark.parametrize("shape", ["straight", "sweetheart"])
@pytest.mark.parametrize("number", range(0, 10, 2))
def test_a_strapless_edge_on_random_blocks(shape: str, number: int) -> None:
    block = blocks()[number]
    found = worked([strapless(shape=shape, depth="17 cm"), strapless("back", depth="17 cm")], block)
    front = found.pattern.piece("front")
    assert {role for _edge, role in front.roles} == {"neckline", "armhole", "side_seam", "waist", "centre"}
    top = front.edge("neckline").runs
    assert top[0].path.start[1] == pytest.approx(block.piece("front").corner("neck_point")[1] + 170.0, abs=1e-6)
    across = abs(math.degrees(math.atan2(*top[0].path.start_direction[::-1])))
    assert across < 1e-6 if shape == "straight" else across > 20.0  # a sweetheart dips in a point
    assert all(account.is_whole for account in accounts(found.pattern, block))
    assert not [s for s in found.pattern.seams if "shoulder" in str(s.a)]
    assert [d.id for d in found.pattern.piece("back").darts] == ["waist"]


def test_a_bustier_is_tightened_over_its_lines_and_warned_about() -> None:
    steps = [strapless(shape="sweetheart"), strapless("back", depth="8 in")]
    lines = [princess(on, **{"from": {"station": "mid_neck"}}) for on in ("front", "back")]
    plain = worked([*steps, *lines])
    tops = sum(p.edge("neckline").sewn_length for p in plain.pattern.pieces if "neckline" in dict(p.roles))
    ends = [run.path for run in plain.pattern.piece("front_centre").runs if run.edge == "princess"]
    side = [run.path for run in plain.pattern.piece("front_side").runs if run.edge == "princess"]
    natural = math.dist(ends[0].start, side[-1].end)
    tight = worked([*steps, {**lines[0], "top": f"{natural + 12.7} mm"}, lines[1]])
    now = sum(p.edge("neckline").sewn_length for p in tight.pattern.pieces if "neckline" in dict(p.roles))
    assert tops - now == pytest.approx(12.7, abs=0.5)  # 1 in in all of both halves, along a curved edge
    assert any("top edge" in note.text for note in tight.states[3].notes)
    wide = look_at(style([]), tight.block, tight.pattern)
    assert [f.severity for f in findings(wide) if f.check == "stays_up"] == ["remark"]
    import dataclasses

    told = dataclasses.replace(wide, scope=Scope("cm", {"over_bust": 700.0}))
    (found,) = [f for f in findings(told) if f.check == "stays_up"]
    assert "cannot stay up" in found.message and found.value > 0.0
    held = dataclasses.replace(wide, scope=Scope("cm", {"over_bust": 1200.0}))
    assert not [f for f in findings(held) if f.check == "stays_up"]


def test_four_panels_through_svg_keep_every_length() -> None:
    """Written by us, read by svgelements: within 0.05 mm."""
    made = worked([princess(chest="1 in"), princess("back")]).pattern
    for piece in made.pieces:
        lengths = sheet_lengths(piece)
        for edge in piece.edges:
            mine = sum(length for name, length in lengths.items() if name in (edge.id, f"{piece.name}.{edge.id}")
                       or (name.startswith((f"{edge.id}-", f"{edge.id}_")) and name[len(edge.id) + 1 :].isdigit()))  # fmt: skip
            assert mine == pytest.approx(edge.sewn_length, abs=0.05), (piece.name, edge.id, sorted(lengths))


def test_lower_levels_of_the_block_stay_whole_after_everything() -> None:
    steps = [move("shoulder", "side_bust"), princess(waist="6 cm"), {"do": "line.contour"}]
    made = worked(steps)
    assert all(account.is_whole for account in accounts(made.pattern, real_pattern()))


REFUSED = [
    ((cut(to={"edge": "armhole", "at": "70%"}),), "begins where it ends"),
    ((cut(bow="-20 cm"),), "the line leaves the piece"),
    ((cut(bow="1 cm", peak="97%"),), "stands off most at its end"),
    ((heart(width="-1 cm"),), "must be wider than 0"),
    ((heart(width="30 cm"),), "the line"),
    ((heart(to={"station": "mid_armhole"}),), "runs from CF to CF"),
    ((heart(**{"from": {"edge": "centre", "at": "50%"}, "to": {"edge": "centre", "at": "80%"}}),), "must end below its start"),
    (
        (cut(), cut(**{"from": {"edge": "side_seam", "at": "80%"}, "to": {"edge": "waist", "at": "10%"}})),
        "is called front panel already",
    ),
    (({"do": "line.band", "on": "front", "edge": "waist", "width": "17 cm"},), "reaches past the point of the waist dart"),
    (({"do": "line.band", "on": "front", "edge": "neckline", "width": "40 cm"},), "too wide to fit"),
    (({"do": "line.band", "on": "front", "edge": "hem"},), "no edge 'hem'"),
    (({"do": "piece.join", "on": "front", "other": "front"},), "cannot be joined to itself"),
    (({"do": "piece.join", "on": "front", "other": "sleeve"},), "no piece 'sleeve'"),
    ((princess(), {"do": "piece.join", "on": "front_centre", "other": "front_side"}), "do not lie flat together"),
    ((princess(), {"do": "piece.join", "on": "front_centre", "other": "back"}), "not sewn to each other along one seam"),
    (({"do": "line.contour", "by": "6 cm"},), "cannot be taken in by 6"),
    ((move("waist", "centre_bust"), {"do": "line.contour", "on": "front"}), "a dart opens on the centre"),
    ((princess("back"), {"do": "line.contour", "on": "back_side"}), "no centre to contour"),
    (({"do": "trim.hem", "by": "0"},), "there is nothing to trim"),
    ((strapless(depth="60 cm"),), "does not meet the centre"),
    ((strapless(to={"edge": "side_seam", "at": "10%"}),), "does not end at the armhole"),
    ((strapless(shape="sweetheart", rise="0"),), "has to rise"),
    ((princess(), strapless("front_centre")), "needs a half with neckline, centre and armhole"),
]


@pytest.mark.parametrize(("steps", "text"), REFUSED)
def test_what_cannot_be_is_refused_in_one_sentence(steps: tuple[Step, ...], text: str) -> None:
    assert text in broken(real_pattern(), *steps)


@pytest.mark.parametrize("size", [(1.0, 1.0), (0.8, 0.9)])
def test_a_strapless_edge_that_misses_says_from_where_to_where_it_may_be(size: tuple[float, float]) -> None:
    front = scaled(*size).piece("front")
    (centre,) = front.edge("centre").runs
    neck = float(front.corner("neck_point")[1])
    low, high = (format_length(float(y) - neck, "cm") for y in (centre.path.end[1], centre.path.start[1]))
    fault = Evaluator().evaluate(
        scaled(*size), [registry.read({"do": "trim.strapless", "on": "front", "depth": "90 cm"})], Scope()
    )
    assert f"Enter {low} to {high}." in str(fault.broken[0][1])
