"""Bust point, CF and CB on every sheet, writing of a cutter's size, and the block's waist line: read by svgelements."""

from __future__ import annotations

import io
import math
from typing import Any

import pytest
import svgelements

from tests.drafted import ROOM, room_block
from tests.samples import move
from tests.sheets import lines
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.formats import svg
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry


def worked(name: str, *steps: dict[str, Any], **finish: Any) -> Derived:
    style = Style(name="T", block=room_block(name), steps=tuple(registry.read(step) for step in steps))
    found = derive(style.with_finish(finish) if finish else style)
    assert not found.derivation.broken, found.derivation.broken
    return found


def sheet(found: Derived, name: str) -> FinishedPiece:
    return next(piece for piece in found.pieces if piece.name == name)


def words(finished: FinishedPiece) -> dict[str, tuple[float, float, float]]:
    """The writing on a piece's sheet: where its middle is, and its height, mm."""
    read = svgelements.SVG.parse(io.BytesIO(svg.piece_svg(finished)), reify=True, ppi=25.4)
    return {
        str(t.text): (float(t.x), float(t.y), float(t.values["font-size"]))
        for t in read.elements(lambda e: isinstance(e, svgelements.Text))
    }


@pytest.mark.parametrize("name", ROOM)
def test_the_bust_point_is_a_cross_with_its_name(name: str) -> None:
    front = sheet(worked(name, move("waist", "french")), "front")
    one, two = lines(front)["bust_point"]
    ends = [(path.point(0.0), path.point(1.0)) for path in (one, two)]
    middles = [((a.x + b.x) / 2.0, (a.y + b.y) / 2.0) for a, b in ends]
    assert math.dist(*middles) < 1e-6
    fold = lines(front)["centre"][0]
    x, y = room_block(name).pieces[0].landmarks["bust_point"]
    low = max(fold.point(0.0).y, fold.point(1.0).y)
    block_low = room_block(name).pieces[0].landmarks["centre_waist"][1]
    assert middles[0][0] - fold.point(0.0).x == pytest.approx(x, abs=1e-3)
    assert low - middles[0][1] == pytest.approx(block_low - y, abs=1e-3)
    at = words(front)["bust point"]
    assert math.dist(at[:2], middles[0]) < 15.0 and at[2] >= 4.0


@pytest.mark.parametrize("name", ROOM)
def test_cf_and_cb_say_what_they_are(name: str) -> None:
    plain = worked(name)
    assert "CF fold" in words(sheet(plain, "front")) and "CB fold" in words(sheet(plain, "back"))
    seam = worked(name, {"do": "line.contour", "on": "back"}, move("waist", "centre_bust"))
    assert "CB seam" in words(sheet(seam, "back")) and "CF seam" in words(sheet(seam, "front"))
    fold = lines(sheet(plain, "front"))["centre"][0]
    x, _y, _size = words(sheet(plain, "front"))["CF fold"]
    assert 0.0 < x - fold.point(0.0).x < 15.0  # inside, beside it


def test_an_unfolded_front_has_its_centre_as_a_line() -> None:
    whole = sheet(worked("two darts 93", {"do": "piece.unfold", "on": "front"}), "front")
    (centre,) = lines(whole)["centre.line"]
    assert centre.point(0.0).x == pytest.approx(centre.point(1.0).x, abs=1e-9) and centre.length() > 300.0
    assert "CF" in words(whole) and {"bust_point.left", "bust_point.right"} <= set(lines(whole))


NARROW: dict[str, list[dict[str, Any]]] = {
    "panels and band": [
        {"do": "line.princess", "on": "front"}, {"do": "line.band", "on": "back", "edge": "armhole", "width": "3 cm"},
    ],
    "facing": [{"do": "piece.true", "on": "front", "edge": "shoulder"},
               {"do": "piece.facing", "on": "front", "other": "", "depth": "5 cm"}],
}  # fmt: skip


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("kind", NARROW)
def test_the_name_is_eight_millimetres_high_and_the_rest_four(name: str, kind: str) -> None:
    """On narrow pieces too: turned along them, in several lines, each where there is room."""
    away = move("shoulder" if name.startswith("two") else "side", "waist")
    for finished in worked(name, *([away] if kind == "facing" else []), *NARROW[kind]).pieces:
        read = words(finished)
        large = " ".join(text for text, (_x, _y, size) in read.items() if size >= 8.0)
        assert sorted(large.split()) == sorted(finished.name.split("_"))
        assert min(size for _x, _y, size in read.values()) >= 4.0, finished.name


@pytest.mark.parametrize("name", ROOM)
def test_the_blocks_waist_can_be_kept(name: str) -> None:
    """Where CF is, it lies on the block's waist; it is no longer than that, and nothing when it is not asked for."""
    true = {"do": "piece.true", "on": "front", "edge": "waist"}
    found = worked(name, move("waist", "french"), true, block_waist=True)
    kept = lines(sheet(found, "front"))["waist.block"]
    fold = lines(sheet(found, "front"))["centre"][0]
    low = max((fold.point(0.0), fold.point(1.0)), key=lambda p: p.y)
    ends = [path.point(t) for path in kept for t in (0.0, 1.0)]
    assert min(math.dist((p.x, p.y), (low.x, low.y)) for p in ends) < 0.01
    assert "waist.block" not in lines(sheet(worked(name, move("waist", "french"), true), "front"))
