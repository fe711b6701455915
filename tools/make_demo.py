"""Draws the demo's block from its measurements and writes it with the demo style to src/zesty_pivot/data/demo.

Invented measurements. Front and back are drafted so that side seams are equal, shoulders walk, and neckline, armhole
and waist cross their seams smoothly; the front waist is left straight on both sides of its dart, as a drafted block is,
so that there is something to true. Run: `python -m tools.make_demo`.
"""

from __future__ import annotations

import math
from pathlib import Path
from typing import Any

import numpy as np

from tools.concert import STYLES
from zesty_pivot.core.formats import block_file, style_file

Piece = dict[str, Any]

OUT = Path(__file__).parent.parent / "src" / "zesty_pivot" / "data" / "demo"

# Isaura Thornwick, soprano (invented), mm.
MEASURES = {
    "bust": 960.0, "under_bust": 830.0, "waist": 780.0, "hip": 1020.0, "shoulder": 390.0, "sh_bp": 275.0,
    "fwl": 442.0, "bwl": 412.0, "span": 192.0, "head": 570.0, "neck": 380.0,
}  # fmt: skip


def at(angle: float) -> np.ndarray:
    """The direction of an angle in degrees, clockwise from +x."""
    return np.array([math.cos(math.radians(angle)), math.sin(math.radians(angle))])


def turned(point: np.ndarray, pin: np.ndarray, degrees: float) -> np.ndarray:
    c, s = math.cos(math.radians(degrees)), math.sin(math.radians(degrees))
    turn = np.array([[c, -s], [s, c]])
    return np.asarray(pin + turn @ (point - pin))


def rounded(point: np.ndarray) -> list[float]:
    return [round(float(point[0]), 6) + 0.0, round(float(point[1]), 6) + 0.0]


def line(*points: np.ndarray) -> str:
    return " ".join(("M" if k == 0 else "L") + f" {p[0]:.6f} {p[1]:.6f}" for k, p in enumerate(points))


def curve(*points: np.ndarray) -> str:
    return f"M {points[0][0]:.6f} {points[0][1]:.6f} C " + " ".join(f"{p[0]:.6f} {p[1]:.6f}" for p in points[1:])


def quarter(start: np.ndarray, leave: np.ndarray, end: np.ndarray, arrive: np.ndarray, first: float, last: float) -> str:
    """A curve that leaves and arrives in given directions, handles as shares of the chord."""
    chord = math.dist(start, end)
    return curve(start, start + leave * chord * first, end - arrive * chord * last, end)


def shoulder(
    neck: np.ndarray, slope: float, length: float, share: float, pin: np.ndarray, angle: float
) -> tuple[np.ndarray, np.ndarray, np.ndarray, float]:
    """A shoulder straight once its dart is shut: both halves and the tip, and the slope at the tip."""
    a = neck + at(slope) * length * share
    b = turned(a, pin, angle)
    tip = b + at(slope + angle) * length * (1.0 - share)
    return a, b, tip, slope + angle


def front() -> Piece:
    bp = np.array([MEASURES["span"] / 2, MEASURES["sh_bp"]])
    width = MEASURES["bust"] / 12
    cf, neck = np.array([0.0, width + 4.0]), np.array([width, 0.0])
    a, b, tip, slope = shoulder(neck, 18.0, 124.0, 0.48, bp, 15.0)
    under = np.array([254.0, 262.0])
    side_way = at(96.0)
    side = under + side_way * 186.0
    waist_cf = np.array([0.0, MEASURES["fwl"]])
    e = np.array([bp[0] - 24.0, MEASURES["fwl"]])
    d = turned(e, bp, -13.0)
    return {
        "name": "front", "fold": "centre",
        "landmarks": {"centre_neck": cf, "neck_point": neck, "shoulder_tip": tip, "underarm": under, "side_waist": side,
                      "centre_waist": waist_cf, "bust_point": bp},
        "levels": {"chest": 205.0, "bust": bp[1], "under_bust": bp[1] + 78.0, "waist": MEASURES["fwl"]},
        "edges": [
            ("neckline", quarter(cf, at(0.0), neck, at(18.0 - 90.0), 0.39, 0.39)),
            ("shoulder", line(neck, a) + " " + line(b, tip)),
            ("armhole", quarter(tip, at(slope + 90.0), under, at(6.0), 0.62, 0.34)),
            ("side_seam", line(under, side)),
            ("waist", quarter(side, at(186.0), d, at(180.0 + 3.0), 0.33, 0.33) + " " + line(e, waist_cf)),
            ("centre", line(waist_cf, cf)),
        ],
        "darts": [("shoulder", "shoulder", (a, b), bp, "bust_point"), ("waist", "waist", (d, e), bp, "bust_point")],
        "grain": [[30.0, 150.0], [30.0, 390.0]],
    }  # fmt: skip


def back(side_length: float) -> Piece:
    blade, tip_of_waist = np.array([118.0, 118.0]), np.array([92.0, 236.0])
    width = MEASURES["bust"] / 12
    cb, neck = np.array([0.0, 22.0]), np.array([width, 0.0])
    a, b, tip, slope = shoulder(neck, 15.0, 124.0, 0.45, blade, 7.0)
    under = np.array([243.0, 222.0])
    side = under + at(94.0) * side_length
    waist_cb = np.array([0.0, MEASURES["bwl"]])
    e = np.array([tip_of_waist[0] - 15.0, MEASURES["bwl"]])
    d = turned(e, tip_of_waist, -10.0)
    return {
        "name": "back", "fold": "centre",
        "landmarks": {"centre_neck": cb, "neck_point": neck, "shoulder_tip": tip, "underarm": under, "side_waist": side,
                      "centre_waist": waist_cb, "blade_point": blade, "waist_tip": tip_of_waist},
        "levels": {"chest": 205.0, "bust": 275.0, "waist": MEASURES["bwl"]},
        "edges": [
            ("neckline", quarter(cb, at(0.0), neck, at(15.0 - 90.0), 0.5, 0.16)),
            ("shoulder", line(neck, a) + " " + line(b, tip)),
            ("armhole", quarter(tip, at(slope + 90.0), under, at(4.0), 0.5, 0.24)),
            ("side_seam", line(under, side)),
            ("waist", quarter(side, at(184.0), d, at(180.0 - 10.0), 0.33, 0.33) + " " + line(e, waist_cb)),
            ("centre", line(waist_cb, cb)),
        ],
        "darts": [("shoulder", "shoulder", (a, b), blade, "blade_point"),
                  ("waist", "waist", (d, e), tip_of_waist, "waist_tip")],
        "grain": [[30.0, 110.0], [30.0, 370.0]],
    }  # fmt: skip


HIP_BELOW, HEM_BELOW = 200.0, 220.0  # mm under the waist


def side_seam(under: np.ndarray, waist: np.ndarray, hem: np.ndarray) -> str:
    """In to the waist and out over the hip, upright at both."""
    upper, lower = math.dist(under, waist), math.dist(waist, hem)
    leave = (waist - under) / upper
    return curve(
        under, under + leave * upper * 0.4, waist - at(90.0) * upper * 0.3, waist,
        waist + at(90.0) * lower * 0.3, hem - at(90.0) * lower * 0.45, hem,
    )  # fmt: skip


def seam_length(path: str) -> float:
    """The length of path data of cubics, by fine steps."""
    numbers = np.array([float(text) for text in path.replace("M", "").replace("C", "").split()]).reshape(-1, 2)
    t = np.linspace(0.0, 1.0, 20001)[:, None]
    total = 0.0
    for k in range(0, len(numbers) - 1, 3):
        a, b, c, d = numbers[k : k + 4]
        points = a * (1 - t) ** 3 + 3 * b * t * (1 - t) ** 2 + 3 * c * t * t * (1 - t) + d * t**3
        total += float(np.hypot(*np.diff(points, axis=0).T).sum())
    return total


def long_front() -> Piece:
    """The front to the hip: a fish-eye instead of the waist dart, a side seam that follows waist and hip."""
    piece = front()
    marks, waist = dict(piece["landmarks"]), MEASURES["fwl"]
    hem = waist + HEM_BELOW
    side_waist, side_hem, centre = np.array([233.0, waist]), np.array([262.0, hem]), np.array([0.0, hem])
    edges = [*piece["edges"][:3], ("side_seam", side_seam(marks["underarm"], side_waist, side_hem)),
             ("hem", line(side_hem, centre)), ("centre", line(centre, marks["centre_neck"]))]  # fmt: skip
    del marks["side_waist"], marks["centre_waist"]
    marks |= {"side_hem": side_hem, "centre_hem": centre}
    x, bust = MEASURES["span"] / 2, MEASURES["sh_bp"]
    eye = ("waist", (x, bust + 25.0), ((x - 16.0, waist), (x + 16.0, waist)), (x, waist + HIP_BELOW - 50.0))
    return {
        **piece, "landmarks": marks, "edges": edges, "darts": piece["darts"][:1], "fisheyes": [eye],
        "levels": {**piece["levels"], "hip": waist + HIP_BELOW},
    }  # fmt: skip


def long_back(side_length: float) -> Piece:
    """The back to the hip; its underarm is where its side seam is as long as the front's."""
    waist, low, high = MEASURES["bwl"], 200.0, 260.0
    side_waist, side_hem = np.array([226.0, waist]), np.array([255.0, waist + HEM_BELOW])
    for _ in range(60):
        middle = (low + high) / 2.0
        longer = seam_length(side_seam(np.array([243.0, middle]), side_waist, side_hem)) > side_length
        low, high = (middle, high) if longer else (low, middle)
    piece = back(186.0)
    marks, under = dict(piece["landmarks"]), np.array([243.0, middle])
    centre = np.array([0.0, waist + HEM_BELOW])
    tip, slope = marks["shoulder_tip"], 15.0 + 7.0
    edges = [*piece["edges"][:2], ("armhole", quarter(tip, at(slope + 90.0), under, at(4.0), 0.5, 0.24)),
             ("side_seam", side_seam(under, side_waist, side_hem)),
             ("hem", line(side_hem, centre)), ("centre", line(centre, marks["centre_neck"]))]  # fmt: skip
    del marks["side_waist"], marks["centre_waist"]
    marks |= {"underarm": under, "side_hem": side_hem, "centre_hem": centre}
    x = float(marks["waist_tip"][0])
    eye = ("waist", (x, float(marks["waist_tip"][1])), ((x - 14.0, waist), (x + 14.0, waist)), (x, waist + HIP_BELOW - 50.0))
    return {
        **piece, "landmarks": marks, "edges": edges, "darts": piece["darts"][:1], "fisheyes": [eye],
        "levels": {**piece["levels"], "hip": waist + HIP_BELOW},
    }  # fmt: skip


def written(piece: Piece) -> Piece:
    eyes = {
        "fisheyes": [
            {"id": id, "top": rounded(top), "waist": [rounded(w) for w in waist], "bottom": rounded(bottom)}
            for id, top, waist, bottom in piece["fisheyes"]
        ]
    } if "fisheyes" in piece else {}  # fmt: skip
    return {
        "name": piece["name"],
        "body": piece["name"],
        **piece,
        **eyes,
        "landmarks": {name: rounded(point) for name, point in piece["landmarks"].items()},
        "edges": [{"id": role, "role": role, "path": path} for role, path in piece["edges"]],
        "darts": [
            {"id": id, "edge": edge, "mouth": [rounded(m) for m in mouth], "point": rounded(point), "pivot": pivot}
            for id, edge, mouth, point, pivot in piece["darts"]
        ],
    }


def main() -> None:
    one = front()
    two = back(math.dist(one["landmarks"]["underarm"], one["landmarks"]["side_waist"]))
    long = long_front()
    blocks = {
        "quillmere": ("Quillmere two-dart bodice, Isaura Thornwick", one, two),
        "quillmere-hip": (
            "Quillmere hip-length bodice, Isaura Thornwick",
            long,
            long_back(seam_length(dict(long["edges"])["side_seam"])),
        ),
    }
    OUT.mkdir(parents=True, exist_ok=True)
    made = {}
    for file, (title, *pieces) in blocks.items():
        made[file] = {
            "format": "zesty-pivot/block", "version": 3, "units": "mm", "name": title,
            "measurements": MEASURES, "pieces": [written(piece) for piece in pieces],
        }  # fmt: skip
        (OUT / f"{file}.zblock").write_bytes(block_file.dump(block_file.from_value(made[file], file)))
    for name, style in STYLES.items():
        block = made[style.get("block", "quillmere")]
        head = {"format": "zesty-pivot/style", "version": 6, "name": style["name"], "units": style["units"], "block": block}
        rest = {"measures": {}, "steps": style["steps"], "finish": {"size": "Isaura"}, "notes": style["notes"],
                "sizes": style.get("sizes", [])}  # fmt: skip
        (OUT / f"{name}.zpiv").write_bytes(style_file.dump(style_file.from_value({**head, **rest}, name)))


if __name__ == "__main__":
    main()
