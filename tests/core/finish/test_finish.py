"""Set-back, caps by true folding, cut-away, allowances, marks."""

import math

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.core.finish.folding import folded_shut, seam_beside
from tests.drafted import ROOM, room_block
from tests.samples import move, real_pattern, scaled, stretches, worked
from tests.sheets import lines
from zesty_pivot.core.conventions.options import DartFinish, Finish
from zesty_pivot.core.conventions.schools import FOLDS, SETBACKS
from zesty_pivot.core.finish.allowance import Stretch, cut_ring
from zesty_pivot.core.finish.darts import SewnDart, sewn_dart
from zesty_pivot.core.finish.piece import FinishedPiece, allowance_of, finish_piece
from zesty_pivot.core.finish.sheet import lay
from zesty_pivot.core.finish.whole import finish_pattern
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Piece, dart_key
from zesty_pivot.core.quantity import Scope

TRUE_WAIST = {"do": "piece.true", "on": "front", "edge": "waist"}


def finished(steps: list[dict], finish: Finish, on: str = "front") -> tuple[Piece, FinishedPiece]:
    piece = worked(steps).pattern.piece(on)
    return piece, finish_piece(piece, finish, Scope(), "Test")


@pytest.mark.parametrize(
    ("steps", "on", "dart"),
    [
        ([move("shoulder", "side_bust")], "front", "shoulder"),  # folded down at the side
        ([TRUE_WAIST], "front", "waist"),  # folded to the centre at the waist
        ([move("shoulder", "mid_armhole")], "front", "shoulder"),  # folded down at the armhole
        ([move("shoulder", "french")], "front", "shoulder"),  # round the corner at the waist
        ([], "back", "shoulder"),
        ([move("shoulder", "mid_neck")], "front", "shoulder"),
    ],
)
@pytest.mark.parametrize("fold", [None, "before", "after"])
def test_the_cap_folded_shut_meets_the_seam(steps: list[dict], on: str, dart: str, fold: str | None) -> None:
    piece = worked(steps).pattern.piece(on)
    own = DartFinish(fold=fold, end="cap")  # type: ignore[arg-type]
    sewn = sewn_dart(piece, dart, Finish(darts={dart_key(piece, dart): own}), Scope())
    assert sewn.cap is not None, sewn.note
    assert sewn.cap.start == pytest.approx(sewn.mouth[0], abs=1e-6)
    assert sewn.cap.end == pytest.approx(sewn.mouth[1], abs=1e-4)
    seam = seam_beside(piece, sewn)
    off = max(seam.distance(shapely.Point(*point)) for point in folded_shut(sewn))
    assert off <= 0.05


def test_the_oracle_of_the_cap_can_fail() -> None:
    piece = worked([move("shoulder", "side_bust")]).pattern.piece("front")
    sewn = sewn_dart(piece, "shoulder", Finish(end="cap"), Scope())
    assert sewn.cap is not None
    flat = SewnDart(**{**{k: getattr(sewn, k) for k in sewn.__dataclass_fields__}, "cap": Path.straight(*sewn.mouth)})
    seam = seam_beside(piece, flat)
    assert max(seam.distance(shapely.Point(*point)) for point in folded_shut(flat)) > 0.5


def test_darts_fold_as_the_trade_says() -> None:
    """Vertical darts towards the centre, others down. Common practice, no source."""
    for station, side in (
        ("mid_shoulder", "before"),
        ("mid_neck", "before"),
        ("side_bust", "after"),
        ("mid_armhole", "after"),
        ("centre_bust", "before"),
    ):
        piece = worked([move("shoulder", station)]).pattern.piece("front")
        sewn = sewn_dart(piece, "shoulder", Finish(), Scope())
        assert sewn.fold == side, station
        near = sewn.mouth[0] if side == "before" else sewn.mouth[1]
        far = sewn.mouth[1] if side == "before" else sewn.mouth[0]
        if station in ("side_bust", "mid_armhole", "centre_bust"):
            assert near[1] > far[1]  # y down: the pressed side lies lower
        else:
            assert near[0] < far[0]  # nearer to the centre
    assert FOLDS["waist_to_side"].sides["waist"] == "before"


@pytest.mark.parametrize(("station", "side"), [("centre_neck", "after"), ("centre_waist", "before")])
def test_a_dart_at_the_end_of_the_centre_is_pressed_away_from_it(station: str, side: str) -> None:
    """On the centre no cut edge lies under the fold that a cap could follow."""
    piece = worked([move("shoulder", station)]).pattern.piece("front")
    sewn = sewn_dart(piece, "shoulder", Finish(end="cap"), Scope())
    assert sewn.fold == side and sewn.cap is not None
    seam = seam_beside(piece, sewn)
    assert max(seam.distance(shapely.Point(*point)) for point in folded_shut(sewn)) <= 0.05


def test_set_back_lies_on_the_bisector_with_equal_legs() -> None:
    piece = real_pattern().piece("front")
    for name, school in SETBACKS.items():
        sewn = sewn_dart(piece, "shoulder", Finish(setback=name), Scope())  # type: ignore[arg-type]
        pin = piece.pivot("bust_point")
        assert math.dist(sewn.point, pin) == pytest.approx(school.distance(piece.intake("shoulder")))
        assert sewn.legs[0].length == pytest.approx(sewn.legs[1].length, abs=1e-6)


def test_common_practice_figures() -> None:
    """2 cm for a small dart, 4 cm for a large one; 1 cm cut-away; 1 cm seams, 0.6 cm neck and armhole, 1.5 cm CB.
    Common practice, no source."""
    piece = real_pattern().piece("front")
    assert sewn_dart(piece, "waist", Finish(), Scope()).setback_mm == 20.0
    assert sewn_dart(piece, "shoulder", Finish(), Scope()).setback_mm == 40.0
    assert sewn_dart(piece, "shoulder", Finish(end="cut_away"), Scope()).cut_away_mm == 10.0
    back = worked([move("waist", "centre_bust", on="back")]).pattern.piece("back")
    assert [allowance_of(back, e, Finish(), Scope()) for e in ("neckline", "shoulder", "armhole", "side_seam", "centre")] == [
        6,
        10,
        6,
        10,
        15,
    ]
    assert allowance_of(real_pattern().piece("back"), "centre", Finish(), Scope()) == 0.0
    assert allowance_of(piece, "waist", Finish(allowances={"front.waist": "2 cm"}), Scope()) == 20.0


def test_a_set_back_longer_than_the_dart_stays_inside() -> None:
    piece = real_pattern().piece("back")
    sewn = sewn_dart(piece, "shoulder", Finish(darts={"back.shoulder": DartFinish(setback="30 cm")}), Scope())
    assert math.dist(sewn.point, piece.pivot("blade_point")) < 80.0


def test_a_narrow_dart_is_folded_even_when_cut_away_is_asked() -> None:
    sewn = sewn_dart(real_pattern().piece("back"), "shoulder", Finish(end="cut_away"), Scope())
    assert sewn.cap is not None and "too narrow" in sewn.note


@settings(max_examples=30, deadline=None)
@given(st.floats(2.0, 40.0), stretches)
def test_one_allowance_all_round_against_shapely(allowance: float, stretch: tuple[float, float]) -> None:
    """A closed outline with the same allowance everywhere is Shapely's mitred buffer (GEOS), where no corner is squared."""
    x, y = stretch
    corners = np.array([[0, 0], [200 * x, 10], [230 * x, 300 * y], [20, 320 * y]], dtype=float)
    sides = [Stretch(Path.straight(a, b), allowance) for a, b in zip(corners, np.roll(corners, -1, axis=0), strict=True)]
    ours = shapely.Polygon(cut_ring(sides))
    theirs = shapely.Polygon(corners).buffer(allowance, join_style="mitre", mitre_limit=10)
    assert shapely.symmetric_difference(ours, theirs).area < 1e-3


def test_a_curved_outline_against_shapely() -> None:
    piece = worked([TRUE_WAIST]).pattern.piece("back")
    sides = [Stretch(run.path, 10.0) for run in piece.runs]
    ours = shapely.Polygon(cut_ring([Stretch(path, 10.0) for path in _closed(piece)]))
    seam = shapely.Polygon(np.concatenate([path.flatten(0.002) for path in _closed(piece)]))
    theirs = seam.buffer(10.0, join_style="mitre", mitre_limit=1.8)
    assert len(sides) == len(piece.runs)
    assert abs(ours.area - theirs.area) / theirs.area < 2e-3
    near = shapely.LinearRing(cut_ring([Stretch(path, 10.0) for path in _closed(piece)]))
    assert min(shapely.Point(*p).distance(seam) for p in np.asarray(near.coords)) > 9.97


def _closed(piece: Piece) -> list[Path]:
    """The runs with straight lines over the mouths."""
    found = []
    for index, run in enumerate(piece.runs):
        found.append(run.path)
        if run.mouth:
            found.append(Path.straight(run.path.end, piece.runs[piece.after(index)].path.start))
    return found


@pytest.mark.parametrize("end", ["auto", "cap", "cut_away"])
@pytest.mark.parametrize("station", ["mid_neck", "mid_shoulder", "mid_armhole", "side_bust", "french", "centre_bust", "waist"])
@pytest.mark.parametrize("school", ["industry_metric", "inches_room", "home_room", "none"])
def test_the_cut_line_is_sound_everywhere(end: str, station: str, school: str) -> None:
    piece, done = finished([move("shoulder", station), TRUE_WAIST], Finish(end=end, allowance=school))  # type: ignore[arg-type]
    ring = shapely.Polygon(done.ring)
    assert ring.is_valid
    assert ring.area >= piece.area - 1.0
    if school != "none":
        for run in piece.runs:
            if run.edge != "centre":
                for distance in np.linspace(5.0, run.path.length - 5.0, 9):
                    assert ring.covers(shapely.Point(*run.path.point_at(distance)))


@settings(max_examples=15, deadline=None)
@given(stretches, st.sampled_from([0.02, 1.0, 12.0]))
def test_tiny_and_huge_blocks_finish(stretch: tuple[float, float], size: float) -> None:
    """On a front of one centimetre the allowances close over its hollows: no cut line then, and it says so."""
    done = finish_pattern(scaled(stretch[0] * size, stretch[1] * size), Finish(), Scope(), "Test")[0]
    assert np.isfinite(done.ring).all() and len(done.ring) > 8
    assert not done.fault if size >= 1.0 else done.texts


def test_marks_carry_over() -> None:
    piece, done = finished([move("shoulder", "french")], Finish(size="12", date="2026-11-23"))
    kinds = [stroke.kind for stroke in done.strokes]
    notches = {stroke.id: len(stroke.paths) for stroke in done.strokes if stroke.kind == "notch"}
    # Single on the front, double on the back, half way along the side seam: common practice, no source.
    assert notches == {"shoulder.notches": 2, "waist.notches": 2, "side_seam.balance": 1}
    assert finished([], Finish(), "back")[1].strokes[-2].id == "side_seam.balance"
    assert len(finished([], Finish(), "back")[1].strokes[-2].paths) == 2
    assert len(piece.darts) == len(done.circles)
    assert kinds.count("fold") == 1 and kinds.count("grain") == 1
    words = " ".join(text.text for text in done.texts)
    assert all(part in words for part in ("Test", "front", "size 12", "cut 1 on the fold", "2026-11-23"))
    for dart, circle in zip(done.darts, done.circles, strict=True):
        assert 10.0 <= math.dist(circle.at, dart.point) <= 13.0  # 1 to 1.3 cm inside the point: common practice
    ring = shapely.LinearRing(done.ring)
    for stroke in done.strokes:
        if stroke.kind == "notch":
            assert all(ring.distance(shapely.Point(*path.start)) < 0.05 for path in stroke.paths)


def test_a_centre_opened_by_a_dart_is_cut_as_a_pair() -> None:
    _piece, done = finished([move("shoulder", "centre_bust")], Finish())
    assert done.cut == "pair" and not [s for s in done.strokes if s.kind == "fold"]


def test_nothing_is_cut_along_the_fold() -> None:
    _piece, done = finished([], Finish())
    (cut,) = [stroke for stroke in done.strokes if stroke.layer == "cut"]
    (line,) = cut.paths
    assert line.start[0] == pytest.approx(0.0, abs=1e-6) and line.end[0] == pytest.approx(0.0, abs=1e-6)
    assert line.cubics[:, 1:3, 0].min() > 1e-6


def test_pieces_do_not_overlap_on_the_sheet() -> None:
    found = [finish_piece(p, Finish(), Scope(), "T") for p in real_pattern().pieces]
    sheet = lay(tuple(found))
    boxes = [shapely.Polygon(laid.piece.ring + np.array([laid.dx, laid.dy])) for laid in sheet.laid]
    assert not boxes[0].intersects(boxes[1])
    assert max(box.bounds[2] for box in boxes) < sheet.width and max(box.bounds[3] for box in boxes) < sheet.height


@pytest.mark.parametrize("size", [(1.0, 1.0), (0.82, 0.9), (1.3, 1.15)])
def test_a_sewn_centre_back_keeps_its_allowance_on_a_panel(size: tuple[float, float]) -> None:
    """After a contour and a princess line it fell from 15 to 10 mm: the panel is not called back."""
    steps = [{"do": "line.contour", "on": "back"}, {"do": "line.princess", "on": "back"}]
    derivation = worked(steps, scaled(*size))
    assert not derivation.broken
    panel = derivation.pattern.piece("back_centre")
    assert panel.fold is None and allowance_of(panel, "centre", Finish(), Scope()) == 15.0
    done = finish_piece(panel, Finish(), Scope(), "Test")
    seam = shapely.LineString(np.concatenate([run.path.flatten(0.01) for run in panel.edge("centre").runs]))
    middle = seam.interpolate(0.5, normalized=True)
    # The ruler: from the seam to the cut line, square to the centre half way up it.
    assert middle.distance(shapely.LinearRing(done.ring)) == pytest.approx(15.0, abs=0.02)


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize(("typed", "mm"), [("1/2 in", 12.7), ("3/4 in", 19.05), ("0 mm", 0.0)])
def test_a_mouth_is_drawn_out_to_a_point_outside_the_seam(block: str, typed: str, mm: float) -> None:
    """The two lines meet so far outside the middle of the mouth, on the sheet: measured by svgelements."""
    pattern = block_file.pattern(room_block(block))
    finish = Finish.model_validate({"end": "cap", "extension": typed})
    found = lines(finish_piece(pattern.piece("front"), finish, Scope(), "T"))
    (cap,) = found["waist.cap"]
    legs = found["waist.legs"]
    ends = [np.array([leg.point(0.0).x, leg.point(0.0).y]) for leg in legs]
    tip = max(([p.x, p.y] for p in (segment.end for segment in cap)), key=lambda p: min(math.dist(p, end) for end in ends))
    middle, point = (ends[0] + ends[1]) / 2.0, np.array([legs[0].point(1.0).x, legs[0].point(1.0).y])
    outwards = float((np.array(tip) - middle) @ (middle - point)) / math.dist(middle, point)
    assert outwards == pytest.approx(mm, abs=0.01)


@pytest.mark.parametrize("block", ROOM)
@pytest.mark.parametrize("fold", ["before", "after"])
def test_a_cap_round_a_corner_takes_each_edges_own_allowance(block: str, fold: str) -> None:
    """A dart near the shoulder tip pressed to it is folded over shoulder and armhole: 1 cm belongs to the one, 3 mm to the
    other. All of it had the shoulder's."""
    upper = "shoulder" if block.startswith("two") else "side"
    to = {"edge": "shoulder", "from": "shoulder_tip", "at": "6 mm"}
    steps = [{"do": "dart.move", "on": "front", "dart": upper, "to": to}]
    piece = worked(steps, block_file.pattern(room_block(block))).pattern.piece("front")
    finish = Finish.model_validate({
        "end": "cap", "allowances": {"front.shoulder": "1 cm", "front.armhole": "3 mm"},
        "darts": {"front.shoulder": {"fold": fold}},
    })  # fmt: skip
    sewn = sewn_dart(piece, upper, finish, Scope())
    assert {edge for edge, _path in sewn.cap_parts} == ({"shoulder"} if fold == "before" else {"shoulder", "armhole"})
    ring = shapely.LinearRing(finish_piece(piece, finish, Scope(), "T").ring)
    for edge, path in sewn.cap_parts:
        if path.length > 8.0:
            away = ring.distance(shapely.Point(path.point_at(path.length / 2.0)))
            assert away == pytest.approx(10.0 if edge == "shoulder" else 3.0, abs=0.2), edge
