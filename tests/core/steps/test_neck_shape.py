"""Every neckline on many blocks: outline, widths, corners, squareness, and what is refused."""

from __future__ import annotations

import math
import re

import numpy as np
import pytest
from scipy.integrate import quad

from tests.core.steps.necks import BLOCKS, made, neck, shaped
from tests.samples import move, real_pattern, scaled
from zesty_pivot.core.conventions.sewing import PLAIN
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.moves.redraw import corner
from zesty_pivot.core.necklines.registry import all_shapes
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.region import crosses_itself
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.neck_shape import ShapeNeck

IN = 25.4


HALVES = [name for name, shape in all_shapes().items() if shape.kind != "whole"]
TO_SHOULDER = [name for name in HALVES if all_shapes()[name].ends_on == "shoulder"]
SQUARE = ["round", "square", "rectangle", "scoop", "queen_anne", "canoe", "keyhole", "slit", "raised", "funnel", "free"]


def joint(piece: Piece, one: str, two: str) -> int:
    """The run of a role at whose end another role begins."""
    return next(
        k for k, run in enumerate(piece.runs)
        if piece.role(run.edge) == one and piece.role(piece.runs[piece.after(k)].edge) == two
    )  # fmt: skip


def yoked(pattern: Pattern, name: str) -> Piece:
    return pattern.piece(f"{name}_yoke" if pattern.has(f"{name}_yoke") else name)


@pytest.mark.parametrize("block", BLOCKS)
@pytest.mark.parametrize("shape", list(all_shapes()))
def test_every_shape_is_sound_on_every_block(shape: str, block: str) -> None:
    pattern = made(BLOCKS[block], shape)
    for piece in (*pattern.pieces, *(extra.piece for extra in pattern.extras)):
        assert not crosses_itself(piece), piece.name
        assert piece.area > 1000.0 or piece.name == "strap"
    for account in accounts(pattern, BLOCKS[block]):
        assert account.is_whole


@pytest.mark.parametrize("block", BLOCKS)
@pytest.mark.parametrize("shape", TO_SHOULDER)
def test_front_and_back_meet_at_the_shoulder(shape: str, block: str) -> None:
    """Common practice, no source: front and back start at the same place of the shoulder, and the curve crosses it without a
    corner; it leaves the centre square where it has no point there."""
    before, pattern = BLOCKS[block], made(BLOCKS[block], shape)
    front, back = yoked(pattern, "front"), pattern.piece("back")
    taken = [
        sum(run.path.length for run in old.runs if old.role(run.edge) == "shoulder")
        - sum(run.path.length for run in new.runs if new.role(run.edge) == "shoulder" and not run.source.edge.endswith("stand"))
        for old, new in ((before.piece("front"), front), (before.piece("back"), back))
    ]
    assert taken[0] == pytest.approx(taken[1], abs=0.01)
    turns = [math.pi - corner(piece, joint(piece, "neckline", "shoulder"), PLAIN) for piece in (front, back)]
    assert abs(math.degrees(sum(turns) - math.pi)) < 0.5
    lengths = [sum(run.path.length for run in p.runs if p.role(run.edge) == "shoulder") for p in (front, back)]
    was = [before.piece(name).edge("shoulder").sewn_length for name in ("front", "back")]
    assert lengths[0] - lengths[1] == pytest.approx(was[0] - was[1], abs=0.01)  # partners as they were
    if shape in SQUARE:
        assert math.degrees(corner(front, joint(front, "centre", "neckline"), PLAIN)) == pytest.approx(90.0, abs=0.1)
    assert math.degrees(corner(back, joint(back, "centre", "neckline"), PLAIN)) == pytest.approx(90.0, abs=0.1)


@pytest.mark.parametrize("kind", ["round", "v", "square", "deep", "keep"])
@pytest.mark.parametrize("shape", ["v", "rectangle", "round", "free"])
def test_every_back_goes_on_from_every_front(shape: str, kind: str) -> None:
    pattern = made(real_pattern(), shape, back=kind)
    turns = [math.pi - corner(p, joint(p, "neckline", "shoulder"), PLAIN) for p in pattern.pieces]
    assert abs(math.degrees(sum(turns) - math.pi)) < 0.5
    square = math.degrees(corner(pattern.piece("back"), joint(pattern.piece("back"), "centre", "neckline"), PLAIN))
    assert (abs(square - 90.0) < 0.1) != (kind == "v")


def plain_block(shoulder: float) -> Pattern:
    """A dartless block with a shoulder of so many mm from tip to tip, square and simple."""
    half = shoulder / 2.0

    def piece(name: str, depth: float, hollow: float) -> dict:  # type: ignore[type-arg]
        return {
            "name": name, "fold": "centre", "levels": {"chest": 210.0, "bust": 260.0, "waist": 430.0},
            "grain": [[20, 150], [20, 400]],
            "landmarks": {"centre_neck": [0, depth], "neck_point": [76, 0], "shoulder_tip": [half, 40], "underarm": [240, 230],
                          "side_waist": [230, 430], "centre_waist": [0, 430],
                          ("bust_point" if name == "front" else "blade_point"): [95, 262]},
            "edges": [
                {"id": "neckline", "role": "neckline", "path": f"M 0 {depth} C 40 {depth} 70 30 76 0"},
                {"id": "shoulder", "role": "shoulder", "path": f"M 76 0 L {half} 40"},
                {"id": "armhole", "role": "armhole", "path": f"M {half} 40 C {half - hollow} 120 {half} 230 240 230"},
                {"id": "side_seam", "role": "side_seam", "path": "M 240 230 L 230 430"},
                {"id": "waist", "role": "waist", "path": "M 230 430 L 0 430"},
                {"id": "centre", "role": "centre", "path": f"M 0 430 L 0 {depth}"},
            ],
            "darts": [],
        }  # fmt: skip

    pieces = [piece("front", 76.0, 25.0), piece("back", 25.0, 15.0)]
    value = {"format": "zesty-pivot/block", "version": 1, "units": "mm", "name": "plain",
             "measurements": {"shoulder": shoulder}, "pieces": pieces}  # fmt: skip
    return block_file.pattern(block_file.from_value(value, "plain"))


def test_a_canoe_one_inch_from_the_tip_is_the_shoulder_less_two_inches() -> None:
    """Common practice, no source."""
    pattern = made(plain_block(380.0), "canoe", width="1 in", width_from="shoulder_tip")
    for name in ("front", "back"):
        assert 2.0 * neck(pattern.piece(name))[-1].end[0] == pytest.approx(380.0 - 2.0 * IN, abs=1e-6)


@pytest.mark.parametrize("arcs", range(2, 8))
def test_a_scallop_has_equal_chords(arcs: int) -> None:
    front = made(plain_block(390.0), "scallop", arcs=arcs).piece("front")
    cubics = np.concatenate([path.cubics for path in neck(front)])
    chords = [math.dist(cubic[0], cubic[3]) for cubic in cubics]
    assert len(chords) == arcs and max(chords) - min(chords) < 0.01


def test_corners_lie_where_they_are_asked_for() -> None:
    block = plain_block(390.0)
    for shape, depth in (("square", 130.0), ("rectangle", 140.0)):
        front = made(block, shape, width="12 cm", depth=f"{depth} mm").piece("front")
        points = np.concatenate([path.cubics[:, 3] for path in neck(front)])
        assert min(math.dist(point, (120.0, depth)) for point in points) < 1e-6
    front = made(block, "v", width="4 1/2 in", depth="19 cm").piece("front")
    (path,) = neck(front)
    assert path.start == pytest.approx([0.0, 190.0], abs=1e-9) and path.end[0] == pytest.approx(4.5 * IN, abs=1e-6)
    sweet = made(block, "sweetheart", width="11 cm", drop="9 cm", depth="17 cm").piece("front")
    points = np.concatenate([path.cubics[:, 3] for path in neck(sweet)])
    assert min(math.dist(point, (110.0, 90.0)) for point in points) < 1e-6


@pytest.mark.parametrize("shoulder", [300.0, 390.0, 450.0])
def test_an_off_shoulder_heart_rises_over_the_straight_edge(shoulder: float) -> None:
    front = made(plain_block(shoulder), "off_shoulder", end="heart").piece("front")
    points = np.concatenate([path.cubics[:, 3] for path in neck(front)])
    start, stop = neck(front)[0].start, points[-1]
    top = start + (stop - start) * 0.55 - np.array([0.0, 0.08 * math.dist(start, stop)])
    assert min(math.dist(point, top) for point in points) < 1e-6


def test_a_round_neck_passes_its_corner_at_the_asked_distance() -> None:
    """A quarter curve 1 in out of the corner of its square: common practice, no source; here by dense points."""
    (path,) = neck(made(plain_block(390.0), "round", width="4 in", depth="4 in", corner="1 in").piece("front"))
    box = np.array([path.end[0], path.start[1]])  # the corner of its width and depth, not where square lines would meet
    assert box[0] == pytest.approx(4.0 * IN, abs=1e-6)
    assert np.hypot(*(path.flatten(1e-4) - box).T).min() == pytest.approx(IN, abs=0.1)


def test_measures_from_the_tip_the_neck_point_and_the_levels() -> None:
    block = plain_block(390.0)
    ways = [
        {"width": "11 cm"},
        {"width": "34 mm", "width_from": "neck_point"},
        {"width": "85 mm", "width_from": "shoulder_tip"},
    ]
    ends = [neck(made(block, "round", **way).piece("front"))[-1].end[0] for way in ways]
    assert ends == pytest.approx([110.0] * 3, abs=1e-6)
    deep = [{"depth": "16 cm"}, {"depth": "84 mm", "depth_from": "centre_neck"}, {"depth": "-5 cm", "depth_from": "chest"},
            {"depth": "-10 cm", "depth_from": "bust"}]  # fmt: skip
    depths = [neck(made(block, "v", **way).piece("front"))[0].start[1] for way in deep]
    assert depths == pytest.approx([160.0] * 4, abs=1e-6)
    formula = made(block, "v", width="shoulder/2 - 8 cm")
    assert neck(formula.piece("front"))[-1].end[0] > 0.0


ORDERS = [
    (move("shoulder", "waist"),),
    (move("shoulder", "side_bust"), move("waist", "french")),
    (move("shoulder", "mid_neck"),),
    (move("waist", "centre_bust", "60%"),),
    (move("shoulder", "mid_armhole", on="back"),),
    ({"do": "dart.park", "on": "front", "darts": ["shoulder"], "to": {"station": "side_waist"}},),
    ({"do": "line.princess", "on": "front", "from": {"station": "mid_armhole"}, "bow_above": "-1.5 cm"},
     {"do": "line.princess", "on": "back", "from": {"station": "mid_armhole"}, "bow_above": "-1 cm"}),
    ({"do": "line.princess", "on": "front", "from": {"edge": "shoulder", "from": "shoulder_tip", "at": "2 cm"},
      "mend": "bottom"},),
]  # fmt: skip


def finished(pattern: Pattern, name: str) -> float:
    return sum(p.edge(edge).sewn_length for p in pattern.come_from(name) for edge, role in p.roles if role == "neckline")


@pytest.mark.parametrize("steps", ORDERS)
@pytest.mark.parametrize("shape", ["round", "v", "square", "scoop", "sweetheart", "canoe", "keyhole", "scallop", "free"])
def test_dart_and_princess_steps_before_or_after_give_the_same_neckline(shape: str, steps: tuple) -> None:  # type: ignore[type-arg]
    """Where a dart of a later step has its place cut away, that step is broken; then there is nothing to compare."""
    after = made(real_pattern(), shape, before=steps)
    lead = {"do": "neck.shape", "on": "front", "shape": shape}
    first = Evaluator().evaluate(real_pattern(), [registry.read(s) for s in (lead, *steps)], Scope())
    if any(number > 1 and ("cut away" in str(fault) or "slash crosses" in str(fault)) for number, fault in first.broken):
        pytest.skip("the dart's place is cut away by the neckline")
    assert not first.broken, first.broken
    for name in ("front", "back"):
        assert finished(after, name) == pytest.approx(finished(first.pattern, name), abs=0.01)


def test_arc_lengths_agree_with_quadrature() -> None:
    """The measured neckline against scipy.integrate.quad on the same cubics."""
    derivation = shaped(real_pattern(), "queen_anne")
    total = 0.0
    for piece in derivation.pattern.pieces:
        for path in neck(piece):
            for cubic in path.cubics:
                steps = 3.0 * np.diff(cubic, axis=0)

                def speed(t: float, steps: np.ndarray = steps) -> float:
                    weights = np.array([(1 - t) ** 2, 2 * t * (1 - t), t * t])
                    return float(np.hypot(*(weights @ steps)))

                total += 2.0 * quad(speed, 0.0, 1.0, epsabs=1e-10, limit=200)[0]
    assert derivation.states[1].notes[0].amount_mm == pytest.approx(total, abs=1e-6)
    assert derivation.pattern.measured[0].mm == pytest.approx(total, abs=1e-6)


BAD = [
    ({"shape": "round", "depth": "60 cm"}, "goes past the waist", "Enter up to 41.8 cm"),
    ({"shape": "round", "depth": "5 cm"}, "above the neckline of the block", "7.7 cm or more"),
    ({"shape": "square", "width": "25 cm"}, "wider than the shoulder", "to 19.3 cm"),
    ({"shape": "v", "width": "3 cm"}, "narrower than the neck", "7.7 cm to"),
    ({"shape": "camisole", "strap": "0"}, "there is nothing left of it", "0.3 cm or more"),
    ({"shape": "keyhole", "hole_width": "40 cm"}, "leaves the piece", "for half its width"),
    ({"shape": "keyhole", "hole_height": "34 cm"}, "goes past the waist", "Enter up to"),
    ({"shape": "slit", "slit": "2 cm"}, "ends above the neckline", "Enter more than"),
    ({"shape": "off_shoulder", "under": "90 cm"}, "does not end on the armhole", "0.5 cm to"),
    ({"shape": "round", "back_depth": "80 cm"}, "does not go with this width", "below the neck point"),
    ({"shape": "off_shoulder", "back": "v"}, "does not suit this shape", "round"),
    ({"shape": "keyhole", "end": "heart"}, "cannot end like that", "round, point"),
    ({"shape": "canoe", "turn": "0"}, "longer than 0", "such as 2 cm"),
    ({"shape": "round", "corner": "-1 cm"}, "less than 0", "0 or more"),
]  # fmt: skip


@pytest.mark.parametrize(("asked", "what", "advice"), BAD)
def test_bad_requests_are_refused_with_what_works(asked: dict, what: str, advice: str) -> None:  # type: ignore[type-arg]
    derivation = shaped(real_pattern(), **asked)
    ((_number, fault),) = derivation.broken
    assert what in str(fault) and advice in str(fault) and "\n" not in str(fault)
    assert derivation.pattern == real_pattern()


IN_INCHES = [
    {"shape": "v", "width": "30 in"}, {"shape": "v", "depth": "90 in"}, {"shape": "v", "width": "1 in"},
    {"shape": "off_shoulder", "under": "30 in"}, {"shape": "raised", "inset": "30 in"}, {"shape": "funnel", "inset": "30 in"},
]  # fmt: skip


@pytest.mark.parametrize("asked", IN_INCHES)
def test_a_refusal_speaks_in_the_unit_that_is_worked_in(asked: dict[str, str]) -> None:
    step = registry.read({"do": "neck.shape", "on": "front", **asked})
    ((_number, fault),) = Evaluator().evaluate(real_pattern(), [step], Scope("in")).broken
    assert " in" in fault.advice and " cm" not in str(fault)


def test_unknown_shapes_and_too_many_arcs_are_refused_at_the_door() -> None:
    with pytest.raises(ValueError, match="Did you mean 'round'"):
        registry.read({"do": "neck.shape", "on": "front", "shape": "rond"})
    with pytest.raises(ValueError, match="less than or equal to 7"):
        registry.read({"do": "neck.shape", "on": "front", "shape": "scallop", "arcs": 8})
    with pytest.raises(ValueError, match="two pieces"):
        registry.read({"do": "neck.shape", "on": "back", "shape": "round"})


def test_a_dart_that_ends_in_the_neckline_goes_by_what_is_left_of_it() -> None:
    """1 to 1.5 cm are not sewn, 4 cm are: common practice, no source."""
    low = made(real_pattern(), "square", width="17 cm", back="square", back_depth="85 mm").piece("back")
    assert low.dart("shoulder").use.value == "ease"
    kept = made(real_pattern(), "square", width="17 cm", back="square", back_depth="85 mm", stub="sew").piece("back")
    assert kept.dart("shoulder").use.value == "dart"
    front = made(real_pattern(), "canoe").piece("front")
    assert front.dart_edge("shoulder") == "neckline" and front.dart("shoulder").use.value == "dart"
    assert front.angle("shoulder") == pytest.approx(real_pattern().piece("front").angle("shoulder"), abs=1e-12)


@pytest.mark.parametrize("use", [{"as": "pleats", "count": 2, "spacing": "3 cm"}, {"as": "gathers", "over": "5 cm"}])
def test_fullness_from_the_bust_dart_keeps_the_measured_length(use: dict) -> None:  # type: ignore[type-arg]
    """The edge's length before opening is the finished length: common practice, no source."""
    steps = [
        {"do": "neck.shape", "on": "front", "shape": "round"},
        move("waist", "mid_neck"),
        {"do": "dart.use", "on": "front", "dart": "waist", **use},
    ]
    derivation = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope())
    assert not derivation.broken
    pattern = derivation.pattern
    whole = 2.0 * (finished(pattern, "front") + finished(pattern, "back"))
    assert whole == pytest.approx(pattern.measured[0].mm, abs=0.05)


@pytest.mark.parametrize("block", ["real", "random 0", "random 9"])
def test_a_camisole_runs_on_under_the_arm(block: str) -> None:
    """Armhole lowered 1/2 in, widened 1/4, the lower edge out 1 1/4: common practice, no source."""
    before, pattern = BLOCKS[block], made(BLOCKS[block], "camisole")
    turns = [math.pi - corner(piece, joint(piece, "armhole", "side_seam"), PLAIN) for piece in pattern.pieces]
    assert math.degrees(sum(turns)) == pytest.approx(180.0, abs=1e-6)
    for piece in pattern.pieces:
        old = before.piece(piece.name)
        below = [corner(p, joint(p, "side_seam", "waist"), PLAIN) for p in (old, piece)]
        assert below[0] == pytest.approx(below[1], abs=1e-6)
        under = piece.runs[joint(piece, "armhole", "side_seam")].path.end
        seam = next(run.path for run in old.runs if old.role(run.edge) == "side_seam")
        assert math.dist(under, seam.point_at(0.5 * IN)) == pytest.approx(0.25 * IN, abs=0.01)


def test_the_shapes_are_listed_with_the_step() -> None:
    listed = ShapeNeck.model_fields["shape"].description or ""
    assert set(listed.replace(" or ", ", ").split(", ")) == set(all_shapes())


def test_pieces_sewn_along_two_seams_are_joined_along_the_longer() -> None:
    pattern = plain_block(380.0)
    step = registry.read({"do": "piece.join", "on": "front", "other": "back"})
    found = Evaluator().evaluate(pattern, [step], Scope())
    side = pattern.piece("front").edge("side_seam").sewn_length
    assert not found.broken and side > pattern.piece("front").edge("shoulder").sewn_length
    assert found.states[1].notes[0].amount_mm == pytest.approx(side)
    assert not any("side_seam" in edge for edge, _role in found.pattern.piece("front").roles)


def test_a_keyhole_too_wide_says_how_wide_it_may_be() -> None:
    """Up to what it says the keyhole itself is not in the way of an edge; a little more is refused with the same figure."""

    def said(width: float) -> str:
        step = {"do": "neck.shape", "on": "front", "shape": "keyhole", "hole_width": f"{width:.1f} cm"}
        broken = Evaluator().evaluate(real_pattern(), [registry.read(step)], Scope()).broken
        return str(broken[0][1]) if broken else ""

    told = float(re.findall(r"Enter up to ([0-9.]+) cm for half", said(30.0))[0])
    assert 5.0 < told < 25.0 and "leaves the piece" not in said(told - 0.1)
    assert f"Enter up to {told:.1f} cm" in said(told + 0.2) and said(0.5 * told) == ""


@pytest.mark.parametrize("block", BLOCKS)
@pytest.mark.parametrize("depth", ["6 in", "8 in"])
def test_a_strapless_edge_goes_to_the_underarm(block: str, depth: str) -> None:
    """To the chest line, as deep bustiers are cut (common practice, no source): nothing of the armhole is left, the side seam
    is as it was, and the edge neither rises over its ends nor dips far below them."""
    before, pattern = BLOCKS[block], made(BLOCKS[block], "strapless", depth=depth, under="100%")
    for piece in pattern.pieces:
        assert "armhole" not in dict(piece.roles).values() and not crosses_itself(piece)
        old = before.piece(piece.name)
        edge = np.concatenate([path.outline for path in neck(piece)])
        assert edge[-1] == pytest.approx(old.corner("underarm"), abs=1e-6)
        assert piece.edge("side_seam").sewn_length == pytest.approx(old.edge("side_seam").sewn_length, abs=1e-6)
        if not any(piece.role(piece.dart_edge(dart.id)) == "neckline" for dart in piece.darts):  # else it is drawn with it shut
            assert edge[:, 1].min() >= min(edge[0, 1], edge[-1, 1]) - 1e-6
            assert edge[:, 1].max() <= max(edge[0, 1], edge[-1, 1]) + 10.0


def test_how_far_down_the_armhole_may_be_a_share_or_a_length() -> None:
    before = real_pattern().piece("front")
    arm = before.edge("armhole").sewn_length
    for under, left in (("50%", 0.5 * arm), ("5 in", arm - 5.0 * IN)):
        front = made(real_pattern(), "strapless", depth="7 in", under=under).piece("front")
        assert front.edge("armhole").sewn_length == pytest.approx(left, abs=0.01)


@pytest.mark.parametrize("block", [(1.0, 1.0), (0.85, 0.9), (1.2, 1.1)])
def test_a_round_edge_off_the_shoulder_does_not_overshoot(block: tuple[float, float]) -> None:
    pattern = made(scaled(*block), "off_shoulder", end="round")
    for name in ("front", "back"):
        outline = np.concatenate([path.outline for path in neck(pattern.piece(name))])
        assert (np.diff(outline[:, 0]) >= -1e-9).all()  # outwards all the way
        assert outline[:, 1].max() <= max(outline[0, 1], outline[-1, 1]) + 1.0
