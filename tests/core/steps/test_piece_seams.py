"""Truing across seams, square at the centre, straight shoulders, and a side seam that moves."""

import math
import re

import numpy as np
import pytest
import shapely

from tests.core.recipe.following import furthest, played
from tests.drafted import ROOM, room_block
from tests.samples import hip_pattern, move, real_pattern, real_value, scaled, style, worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.geometry import between
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.moves.seam_blend import corner_at, meeting
from zesty_pivot.core.piece import EdgeRef, Pattern
from zesty_pivot.core.quantity import Scope, format_length
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def true_seam(seam: str, edge: str, **more: object) -> dict:  # type: ignore[type-arg]
    return {"do": "piece.true_seam", "on": "front", "seam": seam, "edge": edge, **more}


MEETINGS = [("shoulder", "neckline"), ("shoulder", "armhole"), ("side_seam", "armhole"), ("side_seam", "waist")]


def opening(pattern: Pattern, name: str, seam: str, edge: str) -> float:
    """The inner angle (degrees) between a seam and an edge at their corner, from points 0.01 mm along each."""
    piece = pattern.piece(name)
    ends = [(run.path.start, run.path.point_at(0.01)) for run in piece.edge(seam).runs]
    ends += [(run.path.end, run.path.point_at(run.path.length - 0.01)) for run in piece.edge(seam).runs]
    others = [(run.path.start, run.path.point_at(0.01)) for run in piece.edge(edge).runs]
    others += [(run.path.end, run.path.point_at(run.path.length - 0.01)) for run in piece.edge(edge).runs]
    for corner, along in ends:
        for other, inwards in others:
            if math.dist(corner, other) < 1e-6:
                return abs(math.degrees(between(along - corner, inwards - corner)))
    raise AssertionError("they do not meet")


@pytest.mark.parametrize(("seam", "edge"), MEETINGS)
@pytest.mark.parametrize("size", [(1.0, 1.0), (0.85, 0.9), (1.35, 1.15)])
def test_the_edge_runs_smooth_across_the_seam(seam: str, edge: str, size: tuple[float, float]) -> None:
    block = scaled(*size)
    found = worked([true_seam(seam, edge)], block)
    joined = sum(opening(found.pattern, name, seam, edge) for name in ("front", "back"))
    assert joined == pytest.approx(180.0, abs=0.05)
    # The partners differ by as much as before, no more: both seams changed by the same length.
    for before, after in ((block, found.pattern),):
        gaps = [
            p.edge_length(EdgeRef.read(f"back.{seam}")) - p.edge_length(EdgeRef.read(f"front.{seam}")) for p in (before, after)
        ]
        assert gaps[1] == pytest.approx(gaps[0], abs=1e-6)
    for name in ("front", "back"):
        runs = found.pattern.piece(name).runs
        for one, two in zip(runs, (*runs[1:], runs[0]), strict=True):
            if one.mouth is None:
                assert math.dist(one.path.end, two.path.start) < 2e-4  # the ring is closed
    assert "moved by up to" in found.states[-1].notes[0].text


def test_truing_across_twice_does_nothing_more() -> None:
    found = worked([true_seam("shoulder", "neckline"), true_seam("shoulder", "neckline")])
    assert "already" in found.states[-1].notes[0].text and found.states[2].pattern is found.states[1].pattern


def test_the_findings_offer_what_mends_them() -> None:
    before = derive(style([]))
    offered = [f.mend.step for f in before.findings if f.mend is not None and f.mend.step is not None]
    assert {step["do"] for step in offered} >= {"piece.true", "piece.true_seam"}
    after = derive(style([step for step in offered if step["do"] == "piece.true_seam"]))
    assert not [f for f in after.findings if "where front and back meet" in f.message]


@pytest.mark.parametrize(("on", "edge"), [("front", "waist"), ("front", "neckline"), ("back", "waist"), ("back", "neckline")])
def test_square_to_the_centre(on: str, edge: str) -> None:
    found = worked([{"do": "piece.square", "on": on, "edge": edge}])
    assert opening(found.pattern, on, "centre", edge) == pytest.approx(90.0, abs=0.05)


def crooked() -> BlockFile:
    """The block with a front waist that leaves the centre several degrees off square."""
    value = real_value()
    waist = next(edge for edge in value["pieces"][0]["edges"] if edge["id"] == "waist")
    waist["path"] = waist["path"].replace("15.197711 438", "15.197711 435.5")
    return block_file.from_value(value, "crooked")


def test_a_waist_that_is_not_square_is_found_and_mended() -> None:
    before = derive(style([], crooked()))
    (finding,) = [f for f in before.findings if f.message.startswith("the waist leaves the centre")]
    assert finding.mend is not None and finding.value == pytest.approx(math.degrees(math.atan2(2.5, 15.197711)), abs=0.01)
    after = derive(style([finding.mend.step], crooked()))
    assert not [f for f in after.findings if f.message.startswith("the waist leaves the centre")]


def test_a_dart_at_the_centre_is_in_the_way_of_the_square() -> None:
    steps = [move("waist", "centre_waist", "40%"), {"do": "piece.square", "on": "front", "edge": "waist"}]
    broken = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope("cm")).broken
    assert "opens at the centre" in str(broken[-1][1])


def test_a_shoulder_is_straight_again_after_its_dart_has_gone() -> None:
    """The correction of a few millimetres that the trade expects (3 to 5, common practice, no source)."""
    straight = {"do": "piece.true", "on": "back", "edge": "shoulder", "straight": True}
    found = worked([move("shoulder", "mid_neck", on="back"), straight])
    (run,) = found.pattern.piece("back").edge("shoulder").runs
    assert run.path.length == pytest.approx(math.dist(run.path.start, run.path.end), abs=1e-9)
    assert 0.5 < found.states[-1].notes[0].amount_mm < 8.0
    papers = played(found, Scope("cm"), "pivot")
    assert furthest(papers["back"], found.pattern.piece("back")) < 0.5
    broken = Evaluator().evaluate(real_pattern(), [registry.read(straight)], Scope("cm"))
    assert "opens in the shoulder" in str(broken.broken[0][1])


def side(**more: object) -> dict:  # type: ignore[type-arg]
    return {"do": "piece.side_seam", **more}


def paper_area(pattern: Pattern) -> float:
    return sum(piece.area for piece in pattern.pieces)


@pytest.mark.parametrize("steps", [[], [move("shoulder", "side_bust")], [move("waist", "french", "60%")]])
@pytest.mark.parametrize(
    "shift", [{"by": "2 cm"}, {"by": "2 cm", "on": "front", "other": "back"}, {"armhole": "1/3"}, {"by": "1 in"}]
)
def test_one_piece_gets_what_the_other_loses(steps: list[dict], shift: dict) -> None:  # type: ignore[type-arg]
    before = worked(steps).pattern
    found = worked([*steps, side(**shift)])
    on = shift.get("on", "back")
    other = "front" if on == "back" else "back"
    for edge in ("armhole", "waist"):
        one, two = (
            p.edge_length(EdgeRef.read(f"front.{edge}")) + p.edge_length(EdgeRef.read(f"back.{edge}"))
            for p in (before, found.pattern)
        )
        assert two == pytest.approx(one, abs=1e-5)
    lost = before.edge_length(EdgeRef.read(f"{on}.armhole")) - found.pattern.edge_length(EdgeRef.read(f"{on}.armhole"))
    wanted = (
        {"2 cm": 20.0, "1 in": 25.4}[shift["by"]] if "by" in shift else before.edge_length(EdgeRef.read("back.armhole")) / 3.0
    )
    assert lost == pytest.approx(wanted, abs=1e-6)
    assert found.pattern.edge_length(EdgeRef.read(f"{on}.side_seam")) == pytest.approx(
        found.pattern.edge_length(EdgeRef.read(f"{other}.side_seam")), abs=1e-6
    )
    assert paper_area(found.pattern) == pytest.approx(paper_area(before), rel=1e-6)
    assert all(account.is_whole for account in accounts(found.pattern, found.block))
    for piece in found.pattern.pieces:
        assert shapely.Polygon(np.concatenate([run.path.outline for run in piece.runs])).buffer(0).area > 1000.0
    for dart in before.piece("front").darts:  # a side dart follows to the same share of the new seam
        if before.piece("front").dart_edge(dart.id) == "side_seam":
            assert found.pattern.piece("front").dart_edge(dart.id) == "side_seam"
            assert found.pattern.piece("front").angle(dart.id) == pytest.approx(before.piece("front").angle(dart.id), abs=1e-9)


@pytest.mark.parametrize(
    ("step", "says"),
    [
        (side(by="20 cm"), "does not fit.*less than"),
        (side(by="0 cm"), "does not fit"),
        (side(on="bakc"), "Did you mean 'back'"),
        (true_seam("shoulder", "waist"), "does not meet the shoulder.*Choose"),
        (true_seam("shoulder", "neckline", over="0"), "blend must be longer than 0"),
        ({"do": "piece.square", "on": "front", "edge": "armhole"}, "does not meet the fold"),
    ],
)
def test_what_cannot_be_is_refused(step: dict, says: str) -> None:  # type: ignore[type-arg]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step)], Scope("cm"))
    (fault,) = [error for _number, error in found.broken]
    assert re.search(says, str(fault)) and "\n" not in str(fault), str(fault)


def test_a_dart_at_the_corner_is_in_the_way_of_truing() -> None:
    steps = [move("shoulder", "shoulder_tip"), true_seam("shoulder", "armhole")]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope("cm"))
    assert "opens where the seam ends" in str(found.broken[-1][1])


def test_one_amount_in_a_file() -> None:
    for wrong in ({"by": "2 cm", "armhole": "1/3"}, {"on": "front", "other": "front"}):
        with pytest.raises(ValueError, match=r"not both|one piece"):
            registry.read(side(**wrong))


def panel(**more: object) -> dict:  # type: ignore[type-arg]
    return {"do": "piece.side_panel", **more}


@pytest.mark.parametrize("size", [(1.0, 1.0), (0.85, 0.95), (1.3, 1.1)])
@pytest.mark.parametrize("steps", [[], [move("shoulder", "side_bust")]])
def test_a_side_panel_takes_the_place_of_the_side_seam(size: tuple[float, float], steps: list[dict]) -> None:  # type: ignore[type-arg]
    block = scaled(*size)
    before = worked(steps, block).pattern
    found = worked([*steps, panel(front="3 cm", back="4 cm", back_waist="3.5 cm")], block)
    made = found.pattern.piece("side_panel")
    assert [edge.id for edge in made.edges] == ["armhole", "back_line", "waist", "front_line"]
    # The stretched blocks' side seams differ by a little: the end of the taped strip takes it up, and the step says so.
    gap = abs(before.edge_length(EdgeRef.read("front.side_seam")) - before.edge_length(EdgeRef.read("back.side_seam")))
    assert made.edge("armhole").sewn_length == pytest.approx(70.0, abs=gap + 1e-6)
    assert made.edge("waist").sewn_length == pytest.approx(65.0, abs=gap + 1e-6)
    assert any("differed" in note.text for note in found.states[-1].notes) == (gap > 0.01)
    for edge in ("armhole", "waist"):
        total = sum(piece.edge(edge).sewn_length for piece in found.pattern.pieces)
        assert total == pytest.approx(sum(piece.edge(edge).sewn_length for piece in before.pieces), abs=gap + 1e-5)
    assert paper_area(found.pattern) == pytest.approx(paper_area(before), rel=1e-6 + gap / 1000.0)
    ends = {(str(seam.a), str(seam.b)) for seam in found.pattern.seams}
    assert ends >= {("front.side_seam", "side_panel.front_line"), ("back.side_seam", "side_panel.back_line")}
    for a, b in ends:
        if "side" in a:
            assert found.pattern.edge_length(EdgeRef.read(a)) == pytest.approx(
                found.pattern.edge_length(EdgeRef.read(b)), abs=1e-6
            )
    assert all(account.is_whole for account in accounts(found.pattern, block))
    assert made.grain is not None
    ring = shapely.Polygon(np.concatenate([run.path.outline for run in made.runs])).buffer(0)
    assert all(ring.contains(shapely.Point(*end)) for end in made.grain)
    if steps:
        assert found.pattern.piece("front").dart_edge("shoulder") == "side_seam"


def test_a_side_panel_is_finished_checked_and_walked() -> None:
    found = derive(style([panel()]))
    names = {piece.name: piece for piece in found.pieces}
    assert set(names) == {"front", "back", "side_panel"} and names["side_panel"].cut_words == "cut 1 pair"
    assert found.girths.waist == pytest.approx(derive(style([])).girths.waist, abs=1e-4)
    assert not [f for f in found.findings if "meet at the side" in f.message]
    assert not [f for f in found.findings if f.check == "seam_partners" and "side" in f.message]
    for step in (true_seam("side_seam", "waist"), side(by="1 cm"), panel()):
        broken = Evaluator().evaluate(real_pattern(), [registry.read(s) for s in (panel(), step)], Scope("cm")).broken
        assert re.search("not sewn to each other|already", str(broken[0][1]))
    narrow = Evaluator().evaluate(real_pattern(), [registry.read(panel(front="20 cm"))], Scope("cm")).broken
    assert "does not fit" in str(narrow[0][1])


@pytest.mark.parametrize("step", [side(by="2 cm"), panel()])
def test_a_dart_at_the_end_of_the_side_seam_is_not_cut_off(step: dict) -> None:  # type: ignore[type-arg]
    """Once the strip took the corner with its dart along, and its fullness was lost."""
    steps = [move("shoulder", "side_waist"), step]
    found = Evaluator().evaluate(real_pattern(), [registry.read(s) for s in steps], Scope("cm"))
    assert "opens at the end of the side seam" in str(found.broken[-1][1])
    assert all(account.is_whole for account in accounts(found.pattern, found.block))


@pytest.mark.parametrize("step", [side(by="2 cm"), panel()])
def test_a_hip_length_block_is_told_why(step: dict) -> None:  # type: ignore[type-arg]
    found = Evaluator().evaluate(hip_pattern(), [registry.read(step)], Scope("cm"))
    assert "a hip-length piece has no waist seam" in str(found.broken[0][1])


@pytest.mark.parametrize(("station", "edge"), [("mid_armhole", "armhole"), ("waist", "waist")])
def test_a_shift_goes_as_far_as_the_next_mouth_and_says_so(station: str, edge: str) -> None:
    """The figure in the refusal is the clear length from the side seam, by the runs themselves."""
    before = worked([move("shoulder", station)]).pattern.piece("front")
    runs = [run for run in before.runs if run.edge == edge]
    clear = runs[-1].path.length if edge == "armhole" else runs[0].path.length
    values = {"by": "1 cm", "at_waist": "30 cm"} if edge == "waist" else {"by": "40 cm", "at_waist": "1 cm"}
    step = {"do": "piece.side_seam", "on": "front", "other": "back", **values}
    ((_number, fault),) = derive(style([move("shoulder", station), step])).derivation.broken
    assert f"less than {format_length(clear, 'cm')}" in str(fault) and edge in str(fault)


@pytest.mark.parametrize(
    ("seam", "edge"), [("side_seam", "armhole"), ("side_seam", "waist"), ("shoulder", "armhole"), ("shoulder", "neckline")]
)
@pytest.mark.parametrize("name", ROOM)
def test_truing_moves_no_more_than_its_corner_needs(name: str, seam: str, edge: str) -> None:
    """An arc between two tangents over 4 cm to either side lies 40 tan(corner / 2) / 2 off its corner (textbook geometry). A
    corner of 1.9 degrees moved the underarm by 8 mm, and both side seams with it."""
    block = block_file.pattern(room_block(name))
    found = worked([{"do": "piece.true_seam", "on": "front", "other": "back", "seam": seam, "edge": edge}], block)
    moved = []
    for on in ("front", "back"):
        old, new = (
            [run.path for run in made.piece(on).runs if made.piece(on).role(run.edge) == edge]
            for made in (block, found.pattern)
        )
        one, two = (shapely.MultiLineString([path.flatten(0.002) for path in paths]) for paths in (old, new))
        moved.append(max(one.hausdorff_distance(two), two.hausdorff_distance(one)))
    meetings = [meeting(block.piece(on), seam, edge) for on in ("front", "back")]
    corner = abs(corner_at(*meetings))  # type: ignore[arg-type]
    assert max(moved) <= 40.0 * math.tan(corner / 2.0) / 2.0 + 0.05
    partners = [
        found.pattern.piece(on).edge(seam).sewn_length - block.piece(on).edge(seam).sewn_length for on in ("front", "back")
    ]
    assert partners[0] == pytest.approx(partners[1], abs=1e-6)
    told = [note for note in found.states[-1].notes if note.amount_mm]
    assert not told or told[0].amount_mm == pytest.approx(max(moved), abs=0.05)
    after = [meeting(found.pattern.piece(on), seam, edge) for on in ("front", "back")]
    assert math.degrees(abs(corner_at(*after))) < 0.05  # type: ignore[arg-type]
