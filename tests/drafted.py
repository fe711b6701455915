"""A block drafted here, by rulers and arcs alone, and the family of blocks that whole recipes are tried on.

The draft is a quarter draft to the waist with a side bust dart and waist darts: common practice, no source. It shares no code
with the program: its JSON is all that the program sees of it.
"""

from __future__ import annotations

import functools
import json
import math
from collections.abc import Iterable
from typing import Any, TypeVar

from tests.samples import DATA, real_value, stretched_value
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile

T = TypeVar("T")

IN = 25.4
EASE, INTAKE, HOLLOW_FRONT, HOLLOW_BACK = IN / 4.0, IN, 0.75 * IN, 0.5 * IN

# Bodies of 76, 91 and 140 cm bust, mm; those between lie on the lines from one to the next. Invented.
BODIES = {
    760.0: {"waist": 600.0, "shoulder": 370.0, "fwl": 410.0, "bwl": 395.0, "span": 165.0, "sh_bp": 235.0},
    910.0: {"waist": 710.0, "shoulder": 400.0, "fwl": 445.0, "bwl": 420.0, "span": 190.0, "sh_bp": 265.0},
    1400.0: {"waist": 1220.0, "shoulder": 460.0, "fwl": 500.0, "bwl": 450.0, "span": 270.0, "sh_bp": 330.0},
}  # fmt: skip

Point = tuple[float, float]


def body(bust: float) -> dict[str, float]:
    """The measurements of a body by its bust, mm."""
    low = max(known for known in BODIES if known <= bust)
    high = min(known for known in BODIES if known >= bust)
    share = 0.0 if low == high else (bust - low) / (high - low)
    return {"bust": bust, **{name: BODIES[low][name] * (1 - share) + BODIES[high][name] * share for name in BODIES[low]}}


def _arcs(one: Point, r: float, two: Point, s: float, near: Point) -> Point:
    """The crossing of two arcs that lies nearer to a point."""
    (x0, y0), (x1, y1) = one, two
    d = math.dist(one, two)
    along = (r * r - s * s + d * d) / (2.0 * d)
    up = math.sqrt(r * r - along * along)
    ex, ey = (x1 - x0) / d, (y1 - y0) / d
    found = [(x0 + along * ex + sign * up * -ey, y0 + along * ey + sign * up * ex) for sign in (1.0, -1.0)]
    return min(found, key=lambda at: math.dist(at, near))


def _data(*points: Point | str) -> str:
    return " ".join(part if isinstance(part, str) else f"{part[0]:.6f} {part[1]:.6f}" for part in points)


def _upper(points: dict[str, Point], hollow: float, depth: float, *, is_back: bool) -> list[dict[str, str]]:
    """The edges from the neck to the underarm: neck square to centre and shoulder, armhole square to shoulder and side."""
    neck, tip, arm, centre = (points[name] for name in ("neck_point", "shoulder_tip", "underarm", "centre_neck"))
    slope = math.atan2(tip[1] - neck[1], tip[0] - neck[0])
    down = (-math.sin(slope), math.cos(slope))  # square to the shoulder, into the piece
    k = 0.5523
    pull = depth if is_back else depth * k
    neckline = _data(
        "M",
        centre,
        "C",
        (centre[0] + neck[0] * k, centre[1]),
        (neck[0] + down[0] * pull * k, neck[1] + down[1] * pull * k),
        neck,
    )
    middle = (tip[0] - hollow, (tip[1] + arm[1]) / 2.0)
    third = (middle[1] - tip[1]) / 3.0
    armhole = _data(
        "M", tip, "C", (tip[0] + down[0] * third, tip[1] + down[1] * third), (middle[0], middle[1] - third), middle,
        "C", (middle[0], middle[1] + 0.6 * (arm[1] - middle[1])), (arm[0] - 0.6 * (arm[0] - middle[0]), arm[1]), arm,
    )  # fmt: skip
    return [
        {"id": "neckline", "role": "neckline", "path": neckline},
        {"id": "shoulder", "role": "shoulder", "path": _data("M", neck, "L", tip)},
        {"id": "armhole", "role": "armhole", "path": armhole},
    ]


def drafted_value(bust: float) -> dict[str, Any]:
    """The JSON of a block drafted for a body of this bust, mm."""
    m = body(bust)
    neck, half, drop = bust / 12.0, m["shoulder"] / 2.0, IN
    chest = drop + bust / 6.0 + 1.5 * IN
    wide, low = bust / 4.0 + EASE, m["waist"] / 4.0 + EASE + INTAKE
    axis, fwl, bwl = m["span"] / 2.0, m["fwl"], m["bwl"]
    bust_point = (axis, m["sh_bp"])
    top = (wide, max(m["sh_bp"], chest + IN))
    front = {
        "centre_neck": (0.0, neck), "neck_point": (neck, 0.0), "shoulder_tip": (half, drop), "underarm": (wide, chest),
        "side_waist": (low, fwl), "centre_waist": (0.0, fwl),
    }  # fmt: skip
    back = {**front, "centre_neck": (0.0, IN), "side_waist": (low, bwl), "centre_waist": (0.0, bwl)}
    side_length = math.dist(back["underarm"], back["side_waist"])
    mouth = _arcs(
        bust_point, math.dist(bust_point, top), front["side_waist"], side_length - math.dist(front["underarm"], top),
        (wide, top[1] + fwl - bwl),
    )  # fmt: skip
    legs = ((axis + INTAKE / 2.0, fwl), (axis - INTAKE / 2.0, fwl))
    edges = [
        *_upper(front, HOLLOW_FRONT, neck, is_back=False),
        {"id": "side_seam", "role": "side_seam",
         "path": _data("M", front["underarm"], "L", top, "M", mouth, "L", front["side_waist"])},
        {"id": "waist", "role": "waist", "path": _data("M", front["side_waist"], "L", legs[0], "M", legs[1], "L", (0.0, fwl))},
        {"id": "centre", "role": "centre", "path": _data("M", (0.0, fwl), "L", (0.0, neck))},
    ]  # fmt: skip
    back_legs, tip = ((axis + INTAKE / 2.0, bwl), (axis - INTAKE / 2.0, bwl)), (axis, chest + IN)
    back_edges = [
        *_upper(back, HOLLOW_BACK, IN, is_back=True),
        {"id": "side_seam", "role": "side_seam", "path": _data("M", back["underarm"], "L", back["side_waist"])},
        {"id": "waist", "role": "waist",
         "path": _data("M", back["side_waist"], "L", back_legs[0], "M", back_legs[1], "L", (0.0, bwl))},
        {"id": "centre", "role": "centre", "path": _data("M", (0.0, bwl), "L", (0.0, IN))},
    ]  # fmt: skip
    levels = {"chest": chest, "bust": m["sh_bp"]}
    return {
        "format": "zesty-pivot/block", "version": 2, "units": "mm", "name": f"Drafted, {bust / 10.0:.0f} cm bust",
        "measurements": m,
        "pieces": [
            {"name": "front", "body": "front", "fold": "centre", "landmarks": {**front, "bust_point": bust_point},
             "levels": {**levels, "under_bust": m["sh_bp"] + 80.0, "waist": fwl}, "edges": edges,
             "darts": [
                 {"id": "side", "edge": "side_seam", "mouth": [top, mouth], "point": bust_point, "pivot": "bust_point"},
                 {"id": "waist", "edge": "waist", "mouth": list(legs), "point": bust_point, "pivot": "bust_point"},
             ],
             "grain": [(20.0, 120.0), (20.0, fwl - 40.0)]},
            {"name": "back", "body": "back", "fold": "centre", "landmarks": {**back, "waist_tip": tip},
             "levels": {**levels, "waist": bwl}, "edges": back_edges,
             "darts": [{"id": "waist", "edge": "waist", "mouth": list(back_legs), "point": tip, "pivot": "waist_tip"}],
             "grain": [(20.0, 120.0), (20.0, bwl - 40.0)]},
        ],
    }  # fmt: skip


def side_waist_value() -> dict[str, Any]:
    """The JSON of the real block with a side dart and a waist dart."""
    value: dict[str, Any] = json.loads((DATA / "side-waist-dart-91.zblock").read_text(encoding="utf-8"))
    return value


def _scaled(value: dict[str, Any], x: float, y: float) -> dict[str, Any]:
    stretched_value(value, x, y)
    across = ("bust", "waist", "under_bust", "hip", "shoulder", "span")
    known = value.get("measurements", {})
    value["measurements"] = {name: mm * (x if name in across else y) for name, mm in known.items()}
    return value


@functools.lru_cache(maxsize=8)
def room_block(name: str) -> BlockFile:
    """One of the blocks that whole recipes are tried on, by its name in ROOM."""
    return block_file.from_value(ROOM[name](), name)


def shared_out(cases: Iterable[T], each: int = 3) -> list[tuple[str, T]]:
    """Every case on so many of the blocks of ROOM, every block with its share of the cases: a small and a large one in turn."""
    names = list(ROOM)
    return [
        (names[(number + turn * len(names) // each) % len(names)], case)
        for number, case in enumerate(cases)
        for turn in range(each)
    ]


# The two real blocks and one drafted here, and of each a small or a large one: busts of 76 to 140 cm.
ROOM = {
    "two darts 93": real_value,
    "side and waist 91": side_waist_value,
    "drafted 88": lambda: drafted_value(880.0),
    "two darts 76": lambda: _scaled(real_value(), 76.0 / 93.0, 0.93),
    "side and waist 140": lambda: _scaled(side_waist_value(), 140.0 / 91.4, 1.14),
    "drafted 124": lambda: drafted_value(1240.0),
}
