"""HP-GL: extents by hp2xx (Debian 3.4, an independent reader), lines by a plain reading of the words."""

from __future__ import annotations

import re
import shutil
import subprocess
from pathlib import Path

import numpy as np
import pytest
import shapely

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.finish.marks import Text
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.lettering.outlines import outlines
from zesty_pivot.core.plotter.frames import CROSS, SHARED, Roll, _words, frames
from zesty_pivot.core.plotter.hpgl import plot
from zesty_pivot.data.demo import _read

STYLES = ("descant", "antiphon", "evensong", "aria")


def lines_of(content: bytes) -> list[tuple[int, np.ndarray]]:
    """By plain reading: every line (n, 2) mm that is drawn with the pen down, with its pen. 40 units are a millimetre."""
    found: list[tuple[int, list[tuple[float, float]]]] = []
    pen, here = 0, (0.0, 0.0)
    for word, text in re.findall(r"([A-Z]{2})([-\d,]*);", content.decode()):
        numbers = [int(part) / 40.0 for part in text.split(",") if part] if word in ("PU", "PD") else []
        places = list(zip(numbers[::2], numbers[1::2], strict=True))
        if word == "SP":
            pen = int(text or 0)
        elif word == "PU" and places:
            here = places[-1]
        elif word == "PD":
            if found and found[-1][0] == pen and found[-1][1][-1] == here and len(found[-1][1]) > 1:
                found[-1][1].extend(places)
            else:
                found.append((pen, [here, *places]))
            here = places[-1]
    return [(number, np.array(line)) for number, line in found]


def sheet_of(name: str):  # type: ignore[no-untyped-def]
    derived = derive(_read(f"{name}.zpiv"))
    return derived, (derived.sheet.width, derived.sheet.height)


@pytest.mark.parametrize("name", STYLES)
def test_extents_by_hp2xx(name: str, tmp_path: Path) -> None:
    """hp2xx turns the plot into an SVG of 72 dots an inch: its extents are those of the pieces' lines within 0.02 mm."""
    assert shutil.which("hp2xx"), "hp2xx is one of the system packages that `make test` sets up"
    derived, size = sheet_of(name)
    (tmp_path / "p.plt").write_bytes(outputs(derived, ("plot",), Printing())["pattern.plt"])
    subprocess.run(
        ["hp2xx", "-q", "-t", "-m", "svg", "-f", tmp_path / "p.svg", tmp_path / "p.plt"], check=True, capture_output=True
    )
    drawn = np.array(re.findall(r"[ML] ([-\d.]+), ([-\d.]+)", (tmp_path / "p.svg").read_text()), dtype=float)
    wanted = np.concatenate(
        [
            np.add(path.flatten(0.001), (laid.dx, laid.dy))
            for laid in derived.sheet.laid
            for s in laid.piece.strokes
            for path in s.paths
        ]
    )
    assert np.ptp(drawn, axis=0) * 25.4 / 72.0 == pytest.approx(np.ptp(wanted, axis=0), abs=0.02)
    ends = np.concatenate([line for _pen, line in lines_of((tmp_path / "p.plt").read_bytes())])
    low, high = wanted.min(axis=0), wanted.max(axis=0)
    assert ends.min(axis=0) == pytest.approx((low[0], size[1] - high[1]), abs=0.02)


@pytest.mark.parametrize("name", STYLES)
def test_every_line_is_plotted(name: str) -> None:
    derived, size = sheet_of(name)
    content = plot(frames(derived.sheet.laid, size, Roll(2000.0)))
    tree = shapely.STRtree([shapely.LineString(line) for _pen, line in lines_of(content)])
    for laid in derived.sheet.laid:
        for stroke in laid.piece.strokes:
            for path in stroke.paths:
                points = np.array([path.point_at(share * path.length) for share in np.linspace(0.0, 1.0, 25)])
                places = shapely.points(points[:, 0] + laid.dx, size[1] - points[:, 1] - laid.dy)
                _which, far = tree.query_nearest(places, return_distance=True, all_matches=False)
                assert far.max() < 0.03, (laid.piece.name, stroke.id)
    assert {pen for pen, _line in lines_of(content)} == {1, 2, 3}
    assert {pen for pen, _line in lines_of(plot(frames(derived.sheet.laid, size, Roll(2000.0, pens=1))))} == {1}


def test_panels_are_laid_together_by_their_marks() -> None:
    """A roll narrower than the sheet, and one that ends: crosses at the same places, lines that go on."""
    derived, size = sheet_of("antiphon")
    made = frames(derived.sheet.laid, size, Roll(300.0, 700.0))
    assert len(made) == 4 and [frame.name for frame in made] == ["A", "B", "C", "D"]
    for frame in made:
        for _pen, line in frame.lines:
            assert (
                line.min() > -CROSS - 1e-9
                and line[:, 0].max() < frame.size[0] + CROSS
                and line[:, 1].max() < frame.size[1] + CROSS
            )
        assert frame.size[0] <= 700.0 and frame.size[1] <= 300.0
    step = made[2].size[0] - SHARED  # A and C lie one after the other along the roll
    crosses = [
        {(round(float(line.mean(axis=0)[0]), 3), round(float(line.mean(axis=0)[1]), 3)) for _pen, line in frame.lines
         if len(line) == 2 and np.allclose(np.sort(np.abs(line[1] - line[0])), (0.0, 2.0 * CROSS))}
        for frame in made
    ]  # fmt: skip
    shared = {(round(x + step, 3), y) for x, y in crosses[2]} & crosses[0]
    assert len(shared) >= 2
    # Together the panels hold every line once, and the shared strips twice.
    whole = sum(
        float(np.hypot(*np.diff(line, axis=0).T).sum()) for _p, line in frames(derived.sheet.laid, size, Roll(2000.0))[0].lines
    )
    parts = sum(float(np.hypot(*np.diff(line, axis=0).T).sum()) for frame in made for _p, line in frame.lines)
    assert whole < parts < 1.2 * whole


def test_words_in_any_script_are_lines_of_their_height() -> None:
    for text in ("Front", "Łódź", "Ελληνικά", "עברית", "前身頃"):
        lines, wide = outlines(text)
        points = np.concatenate(lines)
        assert 0.3 < wide < 1.1 * len(text) and -1.1 < points[:, 1].min() < -0.5 and points[:, 1].max() < 0.4
    lines = _words(Text((100.0, 50.0), "L", 10.0))
    points = np.concatenate(lines)
    assert abs(points[:, 0].mean() - 100.0) < 3.0 and points[:, 1].max() == pytest.approx(50.0, abs=0.1)
    turned = np.concatenate(_words(Text((100.0, 50.0), "L", 10.0, np.pi / 2.0)))
    # A quarter clockwise, as seen with y down: what was up points right.
    assert turned[:, 0].max() > 105.0 and turned[:, 1].mean() == pytest.approx(50.0, abs=3.0)


@pytest.mark.parametrize(("roll", "length"), [(10.0, 0.0), (9000.0, 0.0), (600.0, 20.0)])
def test_rolls_that_are_none_are_refused(roll: float, length: float) -> None:
    derived, _size = sheet_of("descant")
    with pytest.raises(ZestyError) as fault:
        outputs(derived, ("plot",), Printing(roll=roll, roll_length=length))
    assert fault.value.advice and "mm" in str(fault.value)
