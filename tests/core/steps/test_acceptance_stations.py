"""Both front darts of the real block to every station through the command line: report, SVG and PDF measured."""

import json
import math
import re
from pathlib import Path
from typing import NamedTuple

import numpy as np
import pypdf
import pytest
import svgelements

from tests.samples import FRONT_STATIONS, move, real_pattern, written
from zesty_pivot.cli.main import run
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.quantity import Scope

EDGES = ("neckline", "shoulder", "armhole", "side_seam", "waist", "centre")
MM = 72 / 25.4


def derived(steps: list[dict], folder: Path) -> dict:
    """report.json of `zesty-pivot derive`."""
    path = written(steps, folder, finish={"end": "cap"})
    with pytest.raises(SystemExit) as end:
        run(["derive", str(path), "--out", str(folder / "out")])
    assert end.value.code == 0
    return json.loads((folder / "out" / "report.json").read_text())


def leg_on_block(station: str) -> float:
    """r: from the bust point to the station, on the block."""
    front = real_pattern().piece("front")
    place = resolve(Spot(station=station), front, front, Scope(), "bust_point")
    return math.dist(places.point(front, place), front.pivot("bust_point"))


@pytest.mark.parametrize("order", [("shoulder", "waist"), ("waist", "shoulder")])
@pytest.mark.parametrize("station", FRONT_STATIONS)
def test_both_darts_to_a_station(
    station: str, order: tuple[str, str], tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    block = real_pattern().piece("front")
    total = math.degrees(block.angle("shoulder") + block.angle("waist"))
    # The second merges with the first; at the waist station the waist dart is there already and takes the other in.
    steps = [move(order[0], station)]
    if not (station == "waist" and order[0] == "shoulder"):
        steps.append(move(order[1], station))
    left = "waist" if station == "waist" else order[0]
    report = derived(steps, tmp_path)
    front = next(piece for piece in report["pieces"] if piece["name"] == "front")

    # Seams, account and mouth in the report.
    for edge in front["edges"]:
        assert edge["sewn_mm"] == pytest.approx(block.edge(edge["id"]).sewn_length, abs=0.01)
    account = next(row for row in report["accounts"] if row["pivot"] == "front.bust_point")
    assert abs(account["missing_deg"]) <= 1e-9
    assert sum(row["deg"] for row in account["placed"]) == pytest.approx(total, abs=1e-9)
    (dart,) = front["darts"]
    assert dart["station"] == station
    chord = 2 * leg_on_block(station) * math.sin(math.radians(total) / 2)  # chord formula, plane geometry
    assert dart["intake_mm"] == pytest.approx(chord, abs=0.01)

    # The same from the SVG, by svgelements.
    shapes = {
        shape.id: shape
        for shape in svgelements.SVG.parse(str(tmp_path / "out" / "front.svg"), ppi=25.4).elements()
        if isinstance(shape, svgelements.Path)
    }
    for edge in EDGES:
        length = sum(part.length(error=1e-7) for part in shapes[edge].as_subpaths() for part in [svgelements.Path(part)])
        assert length == pytest.approx(block.edge(edge).sewn_length, abs=0.05)
    first, second = [svgelements.Path(part) for part in shapes[f"{left}.legs"].as_subpaths()]
    a, b = first[0].end, second[0].end  # where each leg's pen was set down: the mouth's ends
    assert math.dist((a.x, a.y), (b.x, b.y)) == pytest.approx(chord, abs=0.05)

    # The same from the full-size PDF, by pypdf: each seam and each leg is one path of the content stream.
    strokes = pdf_strokes(tmp_path / "out" / "full.pdf")
    for edge in EDGES:
        for length in [sum_of(subpath) for subpath in svg_subpaths(shapes[edge])]:
            nearest = min((stroke.length for stroke in strokes), key=lambda found, length=length: abs(found - length))
            assert nearest == pytest.approx(length, rel=0.001)
    straight = [s for s in strokes if abs(s.length - sum_of(first)) < 0.1 and abs(math.dist(s.start, s.end) - s.length) < 1e-3]
    mouths = [math.dist(a.start, b.start) for a in straight for b in straight if a is not b and math.dist(a.end, b.end) < 0.01]
    assert any(mouth == pytest.approx(chord, rel=0.001) for mouth in mouths)
    capsys.readouterr()


def svg_subpaths(shape: svgelements.Path) -> list[svgelements.Path]:
    return [svgelements.Path(part) for part in shape.as_subpaths()]


def sum_of(path: svgelements.Path) -> float:
    return float(path.length(error=1e-7))


class Stroke(NamedTuple):
    """A stroked path of a PDF: its length and its ends, mm."""

    length: float
    start: tuple[float, float]
    end: tuple[float, float]


def pdf_strokes(path: Path) -> list[Stroke]:
    """All stroked paths on the first page."""
    page = pypdf.PdfReader(path).pages[0]
    content = page.get_contents().get_data().decode("latin-1")
    found: list[Stroke] = []
    start = here = np.zeros(2)
    total = 0.0
    for numbers, command, painted in re.findall(r"([-\d. ]+?) (m|l|c)\b|\b(S|n)\b", content):
        if painted:
            if total:
                found.append(Stroke(total / MM, tuple(start / MM), tuple(here / MM)))
            total = 0.0
            continue
        values = np.array([float(v) for v in numbers.split()])
        if command == "m":
            start = here = values[-2:]
        elif command == "l":
            total += float(np.hypot(*(values[-2:] - here)))
            here = values[-2:]
        else:
            curve = svgelements.CubicBezier(tuple(here), *[tuple(values[k : k + 2]) for k in (0, 2, 4)])
            total += float(curve.length(error=1e-6))
            here = values[4:6]
    return found
