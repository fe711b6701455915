"""Jobs of a pattern room as recipes, on six blocks: done, and right by figures that are worked out here. J09 is in
`test_lines_and_darts.py`. Lengths in inches where the trade says them so: common practice, no source.

A width or depth that the block's own neck is beyond already is asked for as the block's own.
"""

from __future__ import annotations

import json
import math
from importlib.resources import files
from typing import Any

import numpy as np
import pytest

from tests.core.steps.test_neck_trade import edge
from tests.drafted import ROOM, room_block, shared_out
from tests.samples import move, style
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.steps import registry

IN = 25.4
Step = dict[str, Any]
Recipe = list[Step]


class Room:
    """A block as a person measures it."""

    def __init__(self, name: str) -> None:
        self.pattern = block_file.pattern(room_block(name))
        front = self.pattern.piece("front")
        self.front, self.top = front, float(front.corner("neck_point")[1])
        self.neck = float(front.corner("neck_point")[0])
        self.natural = float(front.corner("centre_neck")[1]) - self.top
        self.bust = next(dart.id for dart in front.darts if dart.id != "waist")
        self.has_blade = self.pattern.piece("back").has_dart("shoulder")
        self.angle = sum(front.angle(dart.id) for dart in front.darts)

    def neckline(self, shape: str, wide: float, deep: float, **more: Any) -> Step:
        """A neckline so many inches wide and deep, or as the block where it is beyond that."""
        width, depth = max(wide * IN, self.neck), max(deep * IN, self.natural)
        return {"do": "neck.shape", "on": "front", "shape": shape, "width": f"{width} mm", "depth": f"{depth} mm", **more}


def job(name: str, steps: Recipe, **finish: Any) -> Derived:
    found = derive(Style(name="Job", block=room_block(name), steps=tuple(registry.read(s) for s in steps), finish=finish))
    assert not found.derivation.broken, found.derivation.broken
    assert all(abs(account.missing_deg) < 1e-9 for account in found.look.accounts)
    # A block's own unequal legs stay an error; nothing else is one.
    assert {f.check for f in found.findings if f.severity is Severity.ERROR} <= {"dart_legs"}
    assert not [piece.fault for piece in found.pieces if piece.fault]
    return found


def front(found: Derived, name: str = "front") -> Piece:
    return found.pattern.piece(name)


def low(piece: Piece) -> float:
    return float(edge(piece, "neckline")[:, 1].max())


TRIM = [
    {"do": "trim.strapless", "on": "front", "depth": "6 in", "shape": "sweetheart"},
    {"do": "trim.strapless", "on": "back", "depth": "7 in"},
]
HOLE = {"hole_start": "2 in", "hole_width": "3 in", "hole_height": "0", "hole_end": "1 1/2 in"}
NECKS: dict[str, tuple[str, float, float, dict[str, Any]]] = {
    "J02 queen anne": ("queen_anne", 3.0, 7.0, {}),
    "J02 keyhole, V end": ("keyhole", 3.5, 3.0, {**HOLE, "end": "point"}),
    "J02 keyhole, C end": ("keyhole", 3.5, 3.0, {**HOLE, "end": "round"}),
    "J02 keyhole with yoke": ("keyhole_yoke", 3.5, 7.0, {"hole_width": "1 1/2 in", "hole_height": "1 1/2 in"}),
    "J02 sweetheart": ("sweetheart", 4.0, 6.0, {}),
    "J02 scallop": ("scallop", 3.5, 7.0, {"arcs": 3}),
    "J02 asymmetric": ("asymmetric", 3.5, 6.5, {"side": "left", "form": "box"}),
    "J03 round": ("round", 3.0, 4.0, {"corner": "1 in"}),
    "J03 square": ("square", 4.0, 4.0, {}),
    "J03 scoop": ("scoop", 4.0, 6.0, {}),
    "J03 sweetheart": ("sweetheart", 4.0, 7.0, {}),
    "J03 asymmetric": ("asymmetric", 4.0, 7.0, {"side": "left", "form": "straight"}),
    "J03 slit": ("slit", 3.0, 3.0, {"slit": "7 in"}),
    "J03 slit, open": ("slit", 3.0, 3.0, {"slit": "7 in", "open": "1/4 in"}),
}


@pytest.mark.parametrize(("name", "which"), shared_out(NECKS))
def test_necklines_as_wide_and_deep_as_asked(name: str, which: str) -> None:
    """Measured on the piece: the width on the shoulder, the depth below the neck point; a finding where the chest is bare."""
    room, (shape, wide, deep, more) = Room(name), NECKS[which]
    found = job(name, [{**move(room.bust, "side_bust")}, room.neckline(shape, wide, deep, **more)])
    whole = next(piece for piece in found.pattern.come_from("front") if "neckline" in dict(piece.roles).values())
    points = edge(whole, "neckline")
    assert abs(float(points[points[:, 1].argmin(), 0])) == pytest.approx(max(wide * IN, room.neck), abs=0.05)
    asked = max(deep * IN, room.natural)
    lowest = float(points[:, 1].max()) - room.top
    asked = max(7.0 * IN, asked) if "open" in more else asked
    assert lowest == pytest.approx(asked, abs=3.0 if shape in ("scallop", "queen_anne") else 0.3)
    told = any(f.check == "uncovered" for f in found.findings)
    if lowest > float(room.front.levels["chest"]) - room.top + 1.0:
        assert told


@pytest.mark.parametrize("name", ROOM)
def test_canoe_leaves_an_inch_of_shoulder(name: str) -> None:
    """J07: the strap 1 in square to CF from the tip, so the width unfolded is the shoulder less 2 in."""
    canoe = {"shape": "canoe", "width": "1 in", "width_from": "shoulder_tip", "depth": "1 in", "depth_from": "centre_neck"}
    room = Room(name)
    found = job(name, [move(room.bust, "side_bust"), {"do": "neck.shape", "on": "front", **canoe}])
    assert float(edge(front(found), "neckline")[:, 0].max()) == pytest.approx(
        float(front(found).corner("shoulder_tip")[0]) - IN, abs=0.05
    )
    assert low(front(found)) - room.top == pytest.approx(room.natural + IN, abs=0.05)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("to", ["mid_shoulder", "shoulder_tip", "french", "side_bust", "mid_armhole", "shoulder at 2 1/2 in"])
def test_all_darts_in_one_by_the_chord(name: str, to: str) -> None:
    """J05, J11, J17, J18: the mouth is twice the leg times the sine of half the angle; the sewn point is on the bisector."""
    room = Room(name)
    spot = {"edge": "shoulder", "at": "2 1/2 in"} if " at " in to else {"station": to}
    merged = {"do": "dart.merge", "on": "front", "darts": ["waist", room.bust], "to": spot}
    found = job(name, [merged], setback="large_shoulder")
    (dart,) = front(found).darts
    legs = front(found).legs(dart.id)
    chord = math.sqrt(sum(leg * leg for leg in legs) - 2.0 * legs[0] * legs[1] * math.cos(room.angle))
    assert front(found).intake(dart.id) == pytest.approx(chord, abs=1e-6)
    sewn = next(d for piece in found.pieces if piece.name == "front" for d in piece.darts)
    pin = front(found).pivot("bust_point")
    assert math.dist(sewn.point, pin) == pytest.approx(IN * (1.25 if chord > 50.0 else 0.75), abs=1e-6)
    if " at " in to:
        runs = front(found).runs[: front(found).mouth_run(dart.id) + 1]
        along = sum(run.path.length for run in runs if front(found).role(run.edge) == "shoulder")
        assert along == pytest.approx(2.5 * IN, abs=0.01)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("to", ["side_bust", "centre_bust", "waist"])
def test_one_dart_to_another_place(name: str, to: str) -> None:
    """J17 by slash: nothing is lost."""
    room = Room(name)
    if room.bust == "side" and to == "side_bust":
        return
    found = job(name, [move(room.bust, to)], fold="waist_to_side")
    assert sum(front(found).angle(dart.id) for dart in front(found).darts) == pytest.approx(room.angle, abs=1e-9)


@pytest.mark.parametrize("name", ["two darts 93", "side and waist 91", "two darts 76"])  # elsewhere the neck is too narrow
def test_two_equal_darts_equally_far_from_cf(name: str) -> None:
    """J13."""
    parts = [{"to": {"edge": "neckline", "as_far_as": "waist"}}, {"to": {"dart": "waist"}}]
    split = {"do": "dart.split", "on": "front", "dart": Room(name).bust, "equal": True, "parts": parts}
    piece = front(job(name, [split], setback="inch", block_waist=True))
    one, two = piece.darts
    assert piece.intake(one.id) == pytest.approx(piece.intake(two.id), abs=1e-6)
    out = [float(np.mean(piece.mouth(dart.id), axis=0)[0]) for dart in (one, two)]
    assert out[0] == pytest.approx(out[1], abs=4.0)  # the inner legs are equally far; the mouths lean


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize(("out", "down", "back"), [(20.0, 30.0, None), (40.0, 100.0, None), (55.0, 150.0, 90.0)])
def test_necklines_in_order(name: str, out: float, down: float, back: float | None) -> None:
    """J08: side seam 2 cm forward, darts away, a round neck; then the chest dart into it as two pleats, which leave its
    finished length as it was measured. Front and back begin at one place of the shoulder."""
    room = Room(name)
    steps: Recipe = [{"do": "piece.true", "on": "front", "edge": "side_seam"}] if name == "side and waist 140" else []
    steps += [{"do": "piece.side_seam", "on": "back", "other": "front", "by": "2 cm"}, move(room.bust, "side_bust")]
    steps += [move("shoulder", "mid_neck", on="back")] if room.has_blade else []
    asked = {"width": f"{out} mm", "width_from": "neck_point", "depth": f"{down} mm", "depth_from": "centre_neck"}
    round_ = {"do": "neck.shape", "on": "front", "shape": "round", **asked}
    found = job(name, [*steps, {**round_, **({"back": "round", "back_depth": f"{back} mm"} if back else {})}])
    ends = [front(found, on).edge("shoulder").sewn_length for on in ("front", "back")]
    eased = [room.pattern.piece(on).edge("shoulder").sewn_length for on in ("front", "back")]
    assert ends[0] == pytest.approx(ends[1], abs=abs(eased[0] - eased[1]) + 0.5)
    assert low(front(found)) - room.top == pytest.approx(room.natural + down, abs=0.05)
    if down == 100.0:
        pleats = {"do": "dart.use", "on": "front", "dart": room.bust, "as": "pleats", "count": 2, "spacing": "3 cm"}
        pleated = job(name, [*steps, round_, move(room.bust, "mid_neck"), pleats])
        assert front(pleated).edge("neckline").sewn_length == pytest.approx(front(found).edge("neckline").sewn_length, abs=0.01)


def gap(pattern: Pattern, on: str, y: float) -> float:
    """How far apart the panels' lines are at a height, as they lie."""
    one, two = (edge(pattern.piece(f"{on}_{part}"), "style_line") for part in ("centre", "side"))
    xs = [
        float(np.interp(y, points[np.argsort(points[:, 1]), 1], points[np.argsort(points[:, 1]), 0])) for points in (one, two)
    ]
    return xs[1] - xs[0]


@pytest.mark.parametrize("name", ROOM)
def test_a_bustier_of_panels(name: str) -> None:
    """J10: 2 in at the under-bust, or what the darts give where that is more; lines of front and back meet at the shoulder."""
    room = Room(name)
    line = {"do": "line.princess", "on": "front", "chest": "1 in", "under_bust": "2 in", "waist": "2 in"}
    zip_ = {"do": "neck.opening", "on": "back_centre", "kind": "zip", "length": "18 cm"}
    contour = {"do": "line.contour", "on": "back_centre", "by": "1 in"}
    found = job(name, [line, {"do": "line.princess", "on": "back", "top": "1 in"}, contour, zip_])
    assert not [f for f in found.findings if f.check in ("lines_meet", "given_back", "fair_lines")]
    assert gap(found.pattern, "front", room.front.levels["under_bust"]) == pytest.approx(2.0 * IN, abs=0.3)


def waist_at_centre(piece: Piece) -> float:
    points = edge(piece, "waist")
    return float(points[np.abs(points[:, 0]).argmin(), 1])


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("order", ["line first", "neck first"])
def test_one_shoulder_of_panels_from_the_armhole(name: str, order: str) -> None:
    """J12: the shoulder cut in, lines from the mid armhole, the back hem trimmed 1 in at CB, one shoulder; a lining."""
    arm = {"do": "trim.armhole", "on": "front", "shoulder_in": "1 1/2 in", "lower": "0"}
    lines: Recipe = [{"do": "line.princess", "on": on, "from": {"station": "mid_armhole"}} for on in ("front", "back")]
    bare = {"do": "neck.shape", "on": "front", "shape": "one_shoulder", "side": "right"}
    lining = {"do": "piece.facing", "kind": "lining"}
    hem = {"do": "trim.hem", "on": "back_centre" if order == "line first" else "back", "by": "1 in"}
    steps = [arm, *lines, hem, bare] if order == "line first" else [arm, hem, bare, *lines]
    found = job(name, [*steps, lining])
    plain = job(name, [arm, *lines])
    down = [waist_at_centre(each.pattern.piece("back_centre")) for each in (plain, found)]
    assert down[0] - down[1] == pytest.approx(IN, abs=0.05)
    assert {piece.name for piece in found.pattern.pieces} >= {"front_side_right", "front_side_left", "back_side_left"}
    assert any(text.text == "right as worn" for piece in found.pieces if piece.name == "front_centre" for text in piece.texts)


@pytest.mark.parametrize("name", ROOM)
def test_a_strapless_top_and_its_panels(name: str) -> None:
    """J14: 6 in down at CF, 7 at CB; of the waist's intake 1 in off the centre panel."""
    room = Room(name)
    lines: Recipe = [{"do": "line.princess", "on": "front", "chest": "1 in", "waist": "2 1/2 in", "centre_waist": "1 in"}]
    lines += [{"do": "line.princess", "on": "back"}, {"do": "line.contour", "on": "back_centre", "by": "3/4 in"}]
    found = job(name, [*([] if room.bust == "side" else [move(room.bust, "side_bust")]), *TRIM, *lines])
    for on, deep in (("front", 6.0), ("back", 7.0)):
        start = edge(front(found, f"{on}_centre"), "neckline")
        at_centre = float(start[np.abs(start[:, 0]).argmin(), 1])
        assert at_centre - float(room.pattern.piece(on).corner("neck_point")[1]) == pytest.approx(deep * IN, abs=0.05)


@pytest.mark.parametrize("name", [name for name in ROOM if name != "side and waist 140"])  # its unequal legs leave a step
def test_a_camisole_with_a_razor_back(name: str) -> None:
    """J16: the bust dart 2 in under the arm, straps 1/4 in wide, as long as front and back together; facings' sides equal."""
    room = Room(name)
    cami = {"do": "neck.shape", "on": "front", "shape": "camisole", "lower": "1/2 in", "widen": "1/4 in", "flare": "1 1/4 in"}
    away = move(room.bust, "side_bust") | {"to": {"edge": "side_seam", "at": "2 in"}}
    found = job(name, [away, {**cami, "strap": "1/4 in", "back": "razor"}, {"do": "piece.facing", "kind": "camisole"}])
    strap = next(extra.piece for extra in found.pattern.extras if extra.kind == "strap")
    parts = [float(edge(front(found, on), "neckline")[:, 1].min()) for on in ("front", "back")]
    assert strap.edge("side").sewn_length == pytest.approx(sum(parts), abs=2.0 * IN)  # less the shoulder's drop
    sides = [extra.piece.edge("side_seam").sewn_length for extra in found.pattern.extras if extra.kind == "facing"]
    assert sides[0] == pytest.approx(sides[1], abs=0.01)


@pytest.mark.parametrize("name", ROOM)
def test_a_wrap_is_cut_as_a_pair(name: str) -> None:
    """J19: 2 in past the far dart's axis and 2 in up; shoulders match."""
    room = Room(name)
    found = job(name, [{"do": "neck.shape", "on": "front", "shape": "wrap", "past": "2 in", "up": "2 in"}])
    assert next(piece for piece in found.pieces if piece.name == "front").cut == "pair"
    assert front(found).edge("wrap_end").sewn_length == pytest.approx(2.0 * IN, abs=1e-6)
    left = [front(found, on).edge("shoulder").sewn_length for on in ("front", "back")]
    eased = [room.pattern.piece(on).edge("shoulder").sewn_length for on in ("front", "back")]
    assert left[0] == pytest.approx(left[1], abs=abs(eased[0] - eased[1]) + 0.5)


DEMO = sorted(path.name for path in files("zesty_pivot.data.demo").iterdir() if path.name.endswith(".zpiv"))


@pytest.mark.parametrize(
    ("name", "file"), shared_out(file for file in DEMO if file != "nocturne.zpiv")
)  # of a hip-length block
def test_the_demos_recipes_on_other_blocks(name: str, file: str) -> None:
    """The chest dart is called by what the block calls it; what the block's back has no dart for is left out."""
    room, value = Room(name), json.loads((files("zesty_pivot.data.demo") / file).read_text(encoding="utf-8"))
    steps = [step for step in value["steps"] if step["on"] != "back" or step.get("dart") != "shoulder" or room.has_blade]
    for step in steps:
        if step["on"] == "front":
            step |= {"dart": room.bust} if step.get("dart") == "shoulder" else {}
            step |= {"darts": ["waist", room.bust]} if "darts" in step and step["do"] != "drape.fan" else {}
    uneven = {"evensong.zpiv": ["two darts 76", "side and waist 140"], "antiphon.zpiv": ["side and waist 140"]}
    if name in uneven.get(file, ()):  # legs that differ leave a step in the edge that is faced: it is trued first
        edges = {"evensong.zpiv": ("shoulder",), "antiphon.zpiv": ("side_seam",)}[file]
        trued = [{"do": "piece.true", "on": on, "edge": edge_} for edge_ in edges for on in ("front", "back")]
        steps = [*steps[:-1], *trued, steps[-1]]
    job(name, steps, **value["finish"])


def test_one_shoulder_over_a_seam_at_the_back_is_refused_in_the_rooms_words() -> None:
    """It said that the sides differ, which they do not yet."""
    steps = [
        {"do": "line.contour", "on": "back"},
        {"do": "neck.shape", "on": "front", "shape": "one_shoulder", "other": "back"},
    ]
    ((_number, fault),) = derive(style(steps)).derivation.broken
    assert "the back has a seam at its centre" in str(fault)
