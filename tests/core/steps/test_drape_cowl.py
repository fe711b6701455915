"""Cowls on ten blocks: square to the centre, as long as asked, hanging as deep, nothing changed below the slash. Where no other
source is named: common practice, no source."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import numpy as np
import pytest
import svgelements
from scipy.integrate import quad
from scipy.optimize import fsolve

from tests.drafted import ROOM, drafted_value, room_block
from tests.samples import hip_block, real_block, scaled_value
from tests.sheets import lines
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece import Hang, Piece, Source
from zesty_pivot.core.procedures import hanging
from zesty_pivot.core.steps import registry

MORE = {
    "tall 93": lambda: block_file.from_value(scaled_value(1.0, 1.12), "tall"),
    "wide 93": lambda: block_file.from_value(scaled_value(1.18, 0.98), "wide"),
    "drafted 100": lambda: block_file.from_value(drafted_value(1000.0), "drafted"),
    "hip": hip_block,
}
BLOCKS = [*ROOM, *MORE]


def block(name: str) -> BlockFile:
    return MORE[name]() if name in MORE else room_block(name)


def cowl(**more: Any) -> dict[str, Any]:
    on = more.get("on", "front")
    return {"do": "drape.cowl", "on": on, "other": "back" if on == "front" else "front", **more}


def made(found_on: BlockFile, *steps: dict[str, Any]) -> Derived:
    return derive(Style(name="T", block=found_on, steps=tuple(registry.read(step) for step in steps)))


def done(found_on: BlockFile, *steps: dict[str, Any]) -> Derived:
    found = made(found_on, *steps)
    assert not found.derivation.broken, found.derivation.broken
    assert not any(piece.fault for piece in found.pieces)
    assert {f.check for f in found.findings if f.severity is Severity.ERROR} <= {"dart_legs"}
    assert all(abs(account.missing_deg) < 1e-9 for account in found.look.accounts)
    return found


def fold_line(found: Derived, name: str) -> tuple[np.ndarray, np.ndarray]:
    """The ends of the edge's fold on the written sheet, at the centre and at the shoulder."""
    piece = next(piece for piece in found.pieces if piece.name == name)
    (line,) = lines(piece)["neckline.fold"]
    ends = [np.array([p.x, p.y]) for p in (line.point(0.0), line.point(1.0))]
    return min(ends, key=lambda p: p[0]), max(ends, key=lambda p: p[0])


LEVELS = ["high", "mid", "low", "bust"]
EACH_ONCE = [(name, LEVELS[(k + j) % 4], on) for k, name in enumerate(BLOCKS) for j, on in enumerate(["front", "back"])]
ALL_LEVELS = [("two darts 93", level, on) for level in LEVELS for on in ["front", "back"]]


@pytest.mark.parametrize(("name", "level", "on"), sorted({*EACH_ONCE, *ALL_LEVELS}))
def test_the_edge_is_square_and_hangs_as_deep_as_asked(name: str, level: str, on: str) -> None:
    """Measured on the sheet: the sag relation sqrt(L^2 - w^2) gives the depth of the level back; the opening by own arithmetic
    along the block's shoulder."""
    base = block(name)
    found = done(base, cowl(on=on, level=level, widen=0))
    at_centre, at_shoulder = fold_line(found, on)
    piece = next(piece for piece in found.pieces if piece.name == on)
    centre: list[svgelements.Path] = lines(piece)["centre"]
    ys = [p for path in centre for p in (path.point(0.0), path.point(1.0))]
    way = np.array([ys[0].x, max(p.y for p in ys)]) - np.array([at_centre[0], min(p.y for p in ys)])
    edge = at_shoulder - at_centre
    turn = math.degrees(math.acos(abs(float(edge @ way)) / np.hypot(*edge) / np.hypot(*way)))
    assert turn == pytest.approx(90.0, abs=0.01)
    drafted = block_file.pattern(base).piece(on)
    neck, pit = drafted.corner("neck_point"), drafted.corner("centre_neck")
    bust = drafted.levels.get("bust", drafted.levels["chest"])
    deep = pit[1] + (bust - pit[1]) * {"high": 0.0, "mid": 0.5, "low": 0.75, "bust": 1.0}[level] - neck[1]
    assert math.sqrt(np.hypot(*edge) ** 2 - neck[0] ** 2) == pytest.approx(deep, abs=0.1)


@pytest.mark.parametrize("name", BLOCKS)
def test_half_the_edge_as_asked_and_nothing_below_the_slash(name: str) -> None:
    """With the darts kept out of it the part below the slash to the armhole is the block's own, to the last bit of its line."""
    base = block(name)
    steps = [{"do": "dart.move", "on": "front", "dart": d.id, "to": {"station": "waist"}} for d in upper(base)]
    before = done(base, *steps).pattern.piece("front")
    found = done(base, *steps, cowl(edge="17 cm", darts="none", folds=1, widen="1 cm"))
    after = found.pattern.piece("front")
    at_centre, at_shoulder = fold_line(found, "front")
    assert math.dist(at_centre, at_shoulder) == pytest.approx(170.0, abs=0.01)
    for edge in ("side_seam", "waist" if "waist" in dict(after.roles) else "hem"):
        one, two = (np.vstack([run.path.outline for run in piece.edge(edge).runs]) for piece in (before, after))
        assert np.allclose(one, two, atol=1e-6)
    for role in ("armhole", "shoulder"):
        kept = 10.0 if role == "shoulder" else 0.0
        assert after.edge(role).sewn_length == pytest.approx(before.edge(role).sewn_length - kept, abs=1e-6)


def upper(base: BlockFile) -> list[Any]:
    piece = block_file.pattern(base).piece("front")
    return [d for d in piece.darts if piece.role(piece.dart_edge(d.id)) in ("shoulder", "side_seam") and len(piece.darts) > 1]


def test_what_the_darts_give_stands_in_the_account() -> None:
    found = done(real_block(), cowl(level="mid"))
    (account,) = [account for account in found.look.accounts if account.pivot == "bust_point"]
    drapes = {entry.dart: entry.deg for entry in account.placed if entry.use == "drape"}
    assert set(drapes) == {"shoulder", "waist"} and drapes["shoulder"] == pytest.approx(17.176, abs=1e-3)
    kept = sum(entry.deg for entry in account.placed if entry.use == "dart")
    assert kept + sum(drapes.values()) == pytest.approx(account.block_deg, abs=1e-9)
    assert not found.pattern.piece("front").has_dart("shoulder")


def test_the_facing_folds_back_onto_the_shoulder() -> None:
    """Folded along the edge its seam lies on the shoulder's, and at the centre it is as deep as asked."""
    found = done(real_block(), cowl(level="mid", facing="9 cm", facing_end="3 cm", folds=1))
    front = next(piece for piece in found.pieces if piece.name == "front")
    drawn = lines(front)
    fold = [np.array([p.x, p.y]) for p in (drawn["neckline.fold"][0].point(0.0), drawn["neckline.fold"][0].point(1.0))]
    seam = drawn["shoulder_facing"][0]
    for share in (0.0, 0.5, 1.0):
        point = seam.point(share)
        folded = np.array([point.x, 2.0 * fold[0][1] - point.y])  # the fold is level on the sheet
        assert (
            min(math.dist(folded, (p.x, p.y)) for p in (drawn["shoulder"][0].point(t) for t in np.linspace(0, 1, 4001))) < 0.05
        )
    tops = [min(path.point(0.0).y, path.point(1.0).y) for path in drawn["centre"]]
    assert fold[0][1] - min(tops) == pytest.approx(90.0, abs=0.01)


def test_shoulder_pleats_are_taken_up_to_the_backs_shoulder() -> None:
    found = done(real_block(), cowl(level="mid", folds=3, pleat="8 mm"))
    plain = done(real_block(), cowl(level="mid", folds=1))
    assert found.pattern.piece("front").edge("shoulder").sewn_length == pytest.approx(
        plain.pattern.piece("front").edge("shoulder").sewn_length
    )
    a, b = [np.hypot(*np.subtract(*fold_line(one, "front"))) for one in (plain, found)]
    assert a == pytest.approx(b, abs=0.01)  # the pleats lengthen the centre, not the edge
    heights = []
    for one in (plain, found):
        drawn = lines(next(x for x in one.pieces if x.name == "front"))["centre"]
        ys = [end.y for path in drawn for end in (path.point(0.0), path.point(1.0))]
        heights.append(max(ys) - min(ys))
    assert heights[1] - heights[0] == pytest.approx(2 * 2 * 8.0, abs=0.02)
    assert len(found.pattern.piece("front").hangs) == 3


def test_the_back_begins_as_far_out_and_shoulders_match() -> None:
    steps = [{"do": "piece.true_seam", "on": "front", "seam": "shoulder", "edge": "neckline"}]
    plain, found = done(real_block(), *steps), done(real_block(), *steps, cowl(level="mid", widen="2.5 cm"))
    for name in ("front", "back"):
        lengths = [one.pattern.piece(name).edge("shoulder").sewn_length for one in (plain, found)]
        assert lengths[0] - lengths[1] == pytest.approx(25.0, abs=1e-6)
    back = found.pattern.piece("back").edge("neckline").runs[0].path
    assert abs(back.start_direction[1]) < 1e-9 and back.end[1] < back.start[1]  # square to CB, up to the shoulder


def grain_angle(piece: Piece) -> float:
    assert piece.grain is not None
    (x0, y0), (x1, y1) = piece.grain
    return math.degrees(math.atan2(abs(y1 - y0), abs(x1 - x0)))


def test_it_lies_on_the_bias_or_is_warned() -> None:
    bias, straight = (done(real_block(), cowl(grain=grain)) for grain in ("bias", "straight"))
    assert grain_angle(bias.pattern.piece("front")) == pytest.approx(45.0)
    assert grain_angle(straight.pattern.piece("front")) == pytest.approx(90.0)
    assert not [f for f in bias.findings if f.check in ("cowl", "grain")]
    (finding,) = [f for f in straight.findings if f.check == "cowl"]
    assert "45° off the bias" in finding.message
    assert [e.kind for e in bias.pattern.extras] == ["stay"] and not straight.pattern.extras


def test_an_edge_drawn_anew_after_a_cowl_is_told() -> None:
    found = done(real_block(), cowl())
    front = found.pattern.piece("front")
    anew = Source("front.neckline.round", 0.0, 1.0)
    runs = tuple(replace(run, source=anew) if run.edge == "neckline" else run for run in front.runs)
    look = replace(found.look, pattern=found.pattern.with_piece(replace(front, runs=runs)))
    (finding,) = [finding for finding in findings(look) if finding.check == "cowl"]
    assert "was drawn anew: it has no folds" in finding.message
    ((_number, error),) = made(real_block(), cowl(), {"do": "neck.shape", "on": "front"}).derivation.broken
    assert "off the shoulder" in error.what  # a neckline that lies inside the cowl's is not taken for one


def test_a_cowl_on_a_whole_piece_before_or_after_it_is_unfolded() -> None:
    unfold = {"do": "piece.unfold", "on": "front"}
    half = done(real_block(), cowl(pleat=0))
    for whole in (done(real_block(), cowl(pleat=0), unfold), done(real_block(), unfold, cowl())):
        boxes = [next(p for p in one.pieces if p.name == "front").box() for one in (half, whole)]
        assert boxes[1][1] == pytest.approx(boxes[0][1], abs=0.05)  # as high
        assert boxes[1][2] - boxes[1][0] == pytest.approx(2.0 * (boxes[0][2] - 0.0), abs=0.05)  # twice as wide
        drawn = lines(next(p for p in whole.pieces if p.name == "front"))
        assert len(drawn["neckline.left.fold"]) == len(drawn["neckline.right.fold"]) == 1
    ((_number, error),) = made(real_block(), cowl(), unfold).derivation.broken
    assert "go over its centre" in error.what and "Unfold it before" in error.advice


@pytest.mark.parametrize(("open_mm", "long_mm"), [(75.0, 110.0), (100.0, 180.0), (60.0, 62.0), (90.0, 400.0)])
def test_a_fold_hangs_as_a_catenary(open_mm: float, long_mm: float) -> None:
    """Solved independently: a curve y' = sinh(x/a) whose length by quadrature is the thread's (SciPy quad and fsolve)."""
    hang = Hang(open_mm, long_mm)
    a = float(fsolve(lambda a: quad(lambda x: math.sqrt(1.0 + math.sinh(x / a[0]) ** 2), 0.0, open_mm)[0] - long_mm,
                     [open_mm / math.sqrt(6.0 * max(long_mm / open_mm - 1.0, 0.01))])[0])  # fmt: skip
    deep = quad(lambda x: math.sinh(x / a), 0.0, open_mm)[0]
    assert hanging.sag(hang) == pytest.approx(deep, rel=1e-6)
    points = hanging.hung(hang, 4001)
    assert np.hypot(*np.diff(points, axis=0).T).sum() == pytest.approx(2.0 * long_mm, rel=1e-5)
    assert points[0, 1] == pytest.approx(0.0, abs=1e-9) and points[2000, 1] == pytest.approx(deep, rel=1e-6)
    assert hanging.sag(hang) < hang.sag  # a chain hangs less deep than two straight halves


REFUSED = [
    (cowl(edge="9 cm"), "does not hang", "or more"),
    (cowl(depth="60 cm"), "would fold the front over itself", "at most"),
    (cowl(depth="0"), "a cowl that hangs", "deeper"),
    (cowl(widen="30 cm"), "wider on the shoulder", "Enter 0 to"),
    (cowl(folds=6, pleat="3 cm"), "5 shoulder pleats of 3.0 cm", "fewer folds"),
    (cowl(facing="60 cm"), "a facing 60.0 cm deep at the centre", "Enter"),
    (cowl(spread="90 cm"), "opened by 90.0 cm", "up to"),
]


@pytest.mark.parametrize(("step", "what", "advice"), REFUSED)
def test_what_cannot_be_is_refused_in_one_sentence(step: dict[str, Any], what: str, advice: str) -> None:
    ((_number, error),) = made(real_block(), step).derivation.broken
    assert what in error.what and advice in error.advice, error


def test_by_spreading_a_slash_the_edge_follows() -> None:
    found = done(room_block("drafted 88"), cowl(spread="4 cm", darts="none", folds=1, widen=0))
    (hang,) = found.pattern.piece("front").hangs
    assert hang.long_mm > hang.open_mm


@pytest.mark.parametrize("name", ["two darts 93", "side and waist 140", "hip"])
@pytest.mark.parametrize("later", ["fullness.pleat", "fullness.gather", "fullness.tuck", "drape.fan"])
def test_folds_after_a_cowl_leave_its_facing(name: str, later: str) -> None:
    """Opened by folds from the waist, or beside a drape, the edge is still one straight line to fold the facing along."""
    found = done(block(name), cowl(), {"do": later, "on": "front"})
    assert not [finding for finding in found.findings if finding.check == "cowl"]
    piece = next(piece for piece in found.pieces if piece.name == "front")
    drawn = lines(piece)
    (fold,) = drawn["neckline.fold"]
    taken = sum(path.length(error=1e-9) for path in drawn["facing_edge"])
    assert taken > fold.length(error=1e-9) > found.pattern.piece("front").hangs[0].long_mm - 0.01


def test_flare_through_the_edge_is_told() -> None:
    found = done(real_block(), cowl(), {"do": "fullness.flare", "on": "front"})
    (finding,) = [finding for finding in found.findings if finding.check == "cowl"]
    assert "no longer straight" in finding.message
