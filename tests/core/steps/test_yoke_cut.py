"""Yokes and midriffs on six blocks: both sides of the seam are partners, darts are shut into it, the back's shoulder
dart becomes a taper at the armhole. Common practice, no source, where no other is named."""

from __future__ import annotations

import itertools
import math
from typing import Any

import numpy as np
import pytest
import shapely

from tests.drafted import ROOM, room_block, shared_out
from tests.samples import hip_value, stretched_value
from tests.sheets import lines
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.conventions.sewing import PLAIN, sewn_point
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.ledger.girths import girths
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.steps import registry

SHAPES = ("straight", "curved", "pointed", "scalloped")
WITH_BLADE = [name for name in ROOM if not name.startswith("drafted")]


def yoke(on: str, **more: Any) -> dict[str, Any]:
    return {"do": "yoke.cut", "on": on, **more}


def made(block: BlockFile, *steps: dict[str, Any]) -> Derived:
    found = derive(Style(name="T", block=block, steps=tuple(registry.read(step) for step in steps)))
    assert not found.derivation.broken, found.derivation.broken
    assert all(abs(account.missing_deg) < 1e-9 for account in found.look.accounts)
    assert {f.check for f in found.findings if f.severity is Severity.ERROR} <= {"dart_legs"}
    return found


def seams(found: Derived, *names: str) -> list[float]:
    """How long a yoke's seam is on each of some written pieces, mm."""
    sheets = {piece.name: lines(piece) for piece in found.pieces}
    return [sum(path.length(error=1e-7) for path in sheets[name]["yoke"]) for name in names]


def ends(piece: Piece) -> tuple[np.ndarray, np.ndarray]:
    """The directions in which a yoke's seam leaves the centre and comes to its outer end, from the centre outwards."""
    runs = [run.path for run in piece.runs if piece.role(run.edge) == "style_line"]
    first, last = runs[0], runs[-1]
    if abs(first.start[0]) > abs(last.end[0]):
        return -last.end_direction, -first.start_direction
    return first.start_direction, last.end_direction


@pytest.mark.parametrize(("name", "case"), shared_out(itertools.product(SHAPES, ("yoke", "midriff"), ("front", "back"))))
def test_both_sides_of_the_seam_are_partners(name: str, case: tuple[str, str, str]) -> None:
    """Measured by svgelements on the written pieces, with what a dart takes up in the one taken off."""
    shape, kind, on = case
    found = made(room_block(name), yoke(on, kind=kind, shape=shape))
    one, two = seams(found, on, f"{on}_{kind}")
    assert one == pytest.approx(two, abs=0.05)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("on", ["front", "back"])
@pytest.mark.parametrize("shape", ["straight", "curved"])
def test_a_seam_leaves_the_centre_square(name: str, on: str, shape: str) -> None:
    """Unfolded it has neither point nor hollow there; a curve is lowest there."""
    found = made(room_block(name), yoke(on, shape=shape)).pattern
    way, last = ends(found.piece(f"{on}_yoke"))
    assert abs(way[1]) < 1e-6 and way[0] > 0.0
    assert last[1] < -0.05 if shape == "curved" else last[1] < 1e-6


@pytest.mark.parametrize("name", WITH_BLADE)
def test_a_backs_shoulder_dart_becomes_a_taper(name: str) -> None:
    """The yoke has no dart and a straight seam square to CB; the back falls from it by twice the leg times the sine of half the
    dart's angle, its seam leaving the level part without a corner."""
    block = block_file.pattern(room_block(name)).piece("back")
    found = made(room_block(name), yoke("back")).pattern
    top, below = found.piece("back_yoke"), found.piece("back")
    assert not top.darts and {dart.id for dart in below.darts} == {"waist"}
    way, last = ends(top)
    assert abs(way[1]) < 1e-6 and abs(last[1]) < 1e-6  # level all the way
    paths = [run.path.flatten(0.01) for run in below.runs if run.edge == "yoke"]
    points = np.concatenate(paths)
    outer = points[np.abs(points[:, 0]).argmax()]
    level = float(points[np.abs(points[:, 0]).argmin(), 1])
    leg = math.dist(outer, (float(block.landmarks["blade_point"][0]), level))
    drop = float(outer[1]) - level
    assert drop == pytest.approx(leg * math.sin(block.angle("shoulder")), rel=0.12)  # the dart is led to the seam
    assert 6.0 < drop < 24.0
    steps = np.diff(points, axis=0)
    turns = np.abs(np.diff(np.unwrap(np.arctan2(steps[:, 1], steps[:, 0]))))
    assert turns.max() < math.radians(2.0)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("on", ["front", "back"])
def test_a_midriff_has_the_waist_dart_shut_in_it(name: str, on: str) -> None:
    block = block_file.pattern(room_block(name)).piece(on)
    found = made(room_block(name), yoke(on, kind="midriff")).pattern
    band, upper = found.piece(f"{on}_midriff"), found.piece(on)
    assert not band.darts and [dart.id for dart in upper.darts if upper.dart_edge(dart.id) == "yoke"]
    assert upper.angle("waist") == pytest.approx(block.angle("waist"), abs=1e-9)
    uneven = abs(block.legs("waist")[0] - block.legs("waist")[1])
    assert band.edge("waist").sewn_length == pytest.approx(block.edge("waist").sewn_length, abs=0.05 + uneven / 2.0)


EVEN = ["two darts 93", "side and waist 91", "drafted 88", "drafted 124"]  # darts with equal legs


@pytest.mark.parametrize("name", EVEN)
def test_a_yoke_after_or_before_a_neckline(name: str) -> None:
    """The same finished neckline and the same seam, either first."""
    neck = {"do": "neck.shape", "on": "front", "shape": "round", "width": "1 cm", "width_from": "neck_point"}
    cuts = [yoke("front", centre="6 cm"), yoke("back", centre="2 cm", back_dart="stay")]
    one, two = made(room_block(name), neck, *cuts).pattern, made(room_block(name), *cuts, neck).pattern
    for part in ("front_yoke", "back_yoke"):
        assert one.piece(part).edge("neckline").sewn_length == pytest.approx(
            two.piece(part).edge("neckline").sewn_length, abs=0.05
        )
        assert one.piece(part).edge("yoke").sewn_length == pytest.approx(two.piece(part).edge("yoke").sewn_length, abs=0.05)


UNEVEN = [
    (name, shape, ("front", "back")[(k + j) % 2])
    for k, name in enumerate(ROOM)
    for j, shape in enumerate(SHAPES)
    if (k + j // 2) % 2
]


@pytest.mark.parametrize(("name", "shape", "on"), UNEVEN)
def test_an_uneven_yoke_is_sewn_on_both_sides_and_turned_over_its_sides_change_places(name: str, on: str, shape: str) -> None:
    """Ends where asked, as svgelements measures the written armholes; a straight seam is one line across the centre."""
    stay = {"back_dart": "stay", "shape": shape}
    one, other = (
        made(room_block(name), yoke(on, at=f"{a} mm", right=f"{b} mm", **stay)) for a, b in ((70.0, 110.0), (110.0, 70.0))
    )
    for found, (a, b) in ((one, (70.0, 110.0)), (other, (110.0, 70.0))):
        sheets = {piece.name: lines(piece) for piece in found.pieces}
        whole, below = sheets[f"{on}_yoke"], sheets[on]
        for side, at in (("left", a), ("right", b)):
            mine, its = (sum(path.length(error=1e-7) for path in sheet[f"yoke.{side}"]) for sheet in (whole, below))
            assert mine == pytest.approx(its, abs=0.05)
            assert sum(path.length(error=1e-7) for path in whole[f"armhole.{side}"]) == pytest.approx(at, abs=0.05)
    piece, turned = (found.pattern.piece(f"{on}_yoke") for found in (one, other))
    assert piece.area == pytest.approx(turned.area, rel=1e-9)
    assert piece.edge("yoke.left").sewn_length == pytest.approx(turned.edge("yoke.right").sewn_length, abs=1e-6)
    if shape == "straight" and name in EVEN:
        points = np.concatenate([run.path.outline for run in piece.runs if run.edge.startswith("yoke.")])
        first, last = points[np.argmin(points[:, 0])], points[np.argmax(points[:, 0])]
        normal = np.array([-(last - first)[1], (last - first)[0]]) / math.dist(first, last)
        assert np.abs((points - first) @ normal).max() < 1.0  # what shutting a dart with legs not quite equal may leave


@pytest.mark.parametrize("name", ROOM)
def test_a_place_said_as_a_share_is_one_on_every_block(name: str) -> None:
    """Of the armhole as svgelements measures both parts of it."""
    found = made(room_block(name), yoke("front", at="40%", centre="4 cm"))
    upper, lower = (
        sum(path.length(error=1e-7) for path in lines(next(one for one in found.pieces if one.name == part))["armhole"])
        for part in ("front_yoke", "front")
    )
    assert upper / (upper + lower) == pytest.approx(0.4, abs=1e-3)


def hip(on: str, **more: Any) -> dict[str, Any]:
    return yoke(on, kind="hip", **more)


@pytest.mark.parametrize("wide", [0.8, 1.0, 1.4])
@pytest.mark.parametrize("on", ["front", "back"])
@pytest.mark.parametrize(
    "more", [{}, {"shape": "curved"}, {"at": "17 cm"}, {"at": "4 cm", "shape": "scalloped", "depth": "1 cm"}]
)
def test_a_hip_yoke_has_the_fish_eye_shut_in_it(on: str, wide: float, more: dict[str, Any]) -> None:
    """The fish-eye is a dart above and one below the waist, as it was sewn; both seams are partners, the girths stay, and what
    is cloth stays cloth: area of the parts is that of the whole without the fish-eye, by shapely and the shoelace."""
    block = block_file.from_value(stretched_value(hip_value(), wide, 1.0), "hip")
    before = made(block)
    found = made(block, hip(on, **more))
    sheets = {piece.name: lines(piece) for piece in found.pieces}
    for edge, names in (("waist", (on, f"{on}_hip_yoke")), ("yoke", (f"{on}_hip_yoke", f"{on}_skirt"))):
        one, two = (found.pattern.piece(name).edge(edge).sewn_length for name in names)
        assert one == pytest.approx(two, abs=1e-6)
    eye = before.pattern.piece(on).fisheyes[0]
    upper, band, skirt = (found.pattern.piece(name) for name in (on, f"{on}_hip_yoke", f"{on}_skirt"))
    assert upper.intake("waist") == pytest.approx(eye.intake, abs=1e-9) and not upper.fisheyes
    assert tuple(sewn_point(upper, "waist", PLAIN)) == pytest.approx(eye.top, abs=1e-6)
    assert not [dart for dart in band.darts if band.dart_edge(dart.id) == "waist"]
    deep = more.get("at") == "17 cm"
    assert [dart.id for dart in (band if deep else skirt).darts] == ["waist"]
    if not deep:
        assert tuple(sewn_point(skirt, "waist", PLAIN)) == pytest.approx(eye.bottom, abs=0.5)
    girth = [girths(style.pattern, style.derivation.block) for style in (before, found)]
    assert (girth[0].waist, girth[0].hip) == pytest.approx((girth[1].waist, girth[1].hip), abs=1e-6)
    whole = before.pattern.piece(on).area - shapely.Polygon(eye.outline).area
    short = eye.intake * upper.dart("waist").extended_mm / 2.0  # from the point of the body to the dart's own, in the model
    assert sum(piece.area for piece in (upper, band, skirt)) == pytest.approx(whole - short, rel=1e-6)
    assert set(sheets) >= {on, f"{on}_hip_yoke", f"{on}_skirt"}


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("use", ["gathers", "pleats", "tucks"])
def test_the_bust_dart_is_led_to_the_seam_and_taken_up_there(name: str, use: str) -> None:
    """The seam stays as long as the yoke's: what the dart's fullness adds is taken up; the account stays whole (`made`)."""
    bust = next(dart.id for dart in block_file.pattern(room_block(name)).piece("front").darts if dart.pivot == "bust_point")
    found = made(room_block(name), yoke("front", led=bust, seam_darts=use))
    piece = found.pattern.piece("front")
    used = [dart for dart in piece.darts if dart.use.value.startswith(use.removesuffix("s"))]
    assert used and all(piece.dart_edge(dart.id) == "yoke" for dart in used)
    assert piece.edge("yoke").sewn_length == pytest.approx(found.pattern.piece("front_yoke").edge("yoke").sewn_length, abs=0.05)
    if use == "gathers":
        partners = {mark.id for mark in piece.notches} & {mark.id for mark in found.pattern.piece("front_yoke").notches}
        assert [mark for mark in partners if mark.startswith("gather")]


REFUSED = [
    ({"at": "90 cm"}, "the seam ends off the edge", "less than"),
    ({"centre": "80 cm"}, "the seam misses the centre", "lower than its outer end"),
    ({"kind": "hip"}, "has no waist line to cut along", "hip length"),
    ({"seam_darts": "gathers"}, "no dart opens in the seam", "led to the seam"),
    ({"right": "90 cm"}, "the seam ends off the edge", "less than"),
]


@pytest.mark.parametrize(("asked", "what", "advice"), REFUSED)
def test_what_cannot_be_is_refused_with_what_would(asked: dict[str, Any], what: str, advice: str) -> None:
    found = derive(Style(name="T", block=room_block("two darts 93"), steps=(registry.read(yoke("back", **asked)),)))
    ((_number, fault),) = found.derivation.broken
    assert what in fault.what and advice in fault.advice


@pytest.mark.parametrize("more", [{}, {"at": "60 mm", "right": "100 mm"}])
@pytest.mark.parametrize("name", ROOM)
def test_lapped_and_piped_seams(name: str, more: dict[str, str]) -> None:
    """Under a lap the written cut line lies 15 mm off the seam, over it 10 mm. The strip of a piping is as long as the whole
    seam; cut out it is two allowances of 10 mm and pi times the cord wide. Its grain is at 45 degrees."""
    lapped = made(room_block(name), yoke("front", seam="lapped", **more))
    for piece, wide in (("front", 15.0), ("front_yoke", 10.0)):
        sheet = lines(next(one for one in lapped.pieces if one.name == piece))
        point = sheet["yoke.left" if more else "yoke"][0].point(0.5, error=1e-7)
        cut = [[(at.x, at.y) for at in (segment.start, segment.end)] for segment in sheet["cut"][0] if segment.start]
        ring = shapely.MultiLineString(cut)
        assert ring.distance(shapely.Point(point.x, point.y)) == pytest.approx(wide, abs=0.05)
    piped = made(room_block(name), yoke("front", seam="piped", cord="4 mm", **more))
    (strip,) = [extra.piece for extra in piped.pattern.extras]
    seam = sum(
        (1 if more else 2) * path.length(error=1e-7)
        for one in piped.pieces if one.name == "front_yoke"
        for id, paths in lines(one).items() if id in ("yoke", "yoke.left", "yoke.right")
        for path in paths
    )  # fmt: skip
    assert strip.edge("side").sewn_length == pytest.approx(seam, abs=0.05)
    cut = next(one for one in piped.pieces if one.name == strip.name).ring
    assert float(np.ptp(cut[:, 0])) == pytest.approx(20.0 + 4.0 * math.pi, abs=1e-6)
    (x0, y0), (x1, y1) = strip.grain
    assert abs(x1 - x0) == pytest.approx(abs(y1 - y0))


@pytest.mark.parametrize("name", WITH_BLADE)
def test_a_shared_out_shoulder_dart_is_no_taper(name: str) -> None:
    """Regression: its part at the shoulder tip was turned about another point than its own; the account lost 0.05°."""
    parts = [{"to": {"station": "shoulder_tip"}, "share": "30%"}, {"to": {"dart": "shoulder"}}]
    split = {"do": "dart.split", "on": "back", "dart": "shoulder", "parts": parts}
    assert made(room_block(name), split, yoke("back", at="8.5 cm")).pattern.has("back_yoke")


@pytest.mark.parametrize("name", [name for name in WITH_BLADE if not name.endswith("140")])  # whose dart is alike on both
def test_an_uneven_back_tapers_on_both_sides(name: str) -> None:
    """Regression: what went into the seam differs from side to side, and one side's was lost from the account (`made` asks)."""
    found = made(room_block(name), yoke("back", at="3 cm", right="8 cm")).pattern
    taken = {line.side: dict(line.angles) for line in found.lines}
    assert len(taken) == 2 and not found.piece("back_yoke").darts
    assert len({round(angle, 6) for angles in taken.values() for angle in angles.values()}) == 2


@pytest.mark.parametrize("on", ["front", "front_yoke"])
def test_a_second_yoke_has_a_name_of_its_own(on: str) -> None:
    found = made(room_block("two darts 93"), yoke("front"), yoke(on, at="3 cm", seam="piped")).pattern
    assert {piece.name for piece in found.pieces} == {"front", "front_yoke", "front_yoke_2", "back"}
    (strip,) = (extra.piece for extra in found.extras)
    assert strip.name == "front_yoke_2_piping"
    assert strip.edge("side").sewn_length == pytest.approx(
        2.0 * found.piece("front_yoke_2").edge("yoke_2").sewn_length, abs=1e-6
    )
