"""Blocks measured with a ruler and drawn again: true rulers, rulers read to half a millimetre, a measure that is wrong."""

from __future__ import annotations

import itertools
import json
import math
import random
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from tests.core.intake.comparing import apart
from tests.ruled_blocks import file_of, measured, ruler_file
from tests.samples import real_block
from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import block_file, imported, ruled
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.core.intake.ruler.net import adjusted_net
from zesty_pivot.core.intake.ruler.sheet import NECK, WAIST, RulerPiece, on_edge, point_words, points_of
from zesty_pivot.core.piece import Body
from zesty_pivot.core.record import replace
from zesty_pivot.data.demo import demo_style


def block_made(file: ruled.RulerFile):  # type: ignore[no-untyped-def]
    return block_of(imported.tagged_file(ruled.source(file)))


@pytest.mark.parametrize("curve_points", [0, 1, 3])
@pytest.mark.parametrize("which", ["demo", "real"])
def test_a_true_ruler_gives_the_block_again(which: str, curve_points: int) -> None:
    """Straight edges and darts as they are; curves as long as the tape says, and through their points."""
    block = demo_style().block if which == "demo" else real_block()
    source = ruled.source(ruler_file(block, curve_points=curve_points))
    assert not source.faults and source.notes() == []
    off = apart(block, block_made(source.file))
    # What bows slightly without a tape's word for it, a waist, is drawn straight where no point tells.
    assert off.seam < (0.35 if curve_points == 0 else 0.11) and off.dart < 0.001


def test_a_ruler_read_to_half_a_millimetre() -> None:
    """Every distance off by 0.5 mm (a standard deviation): the worst of fourteen seams and parts is off by twice that."""
    worst = []
    for seed in range(6):
        file = ruler_file(demo_style().block, strays=0.5, chance=random.Random(seed), curve_points=1)
        worst.append(apart(demo_style().block, block_made(file)).seam)
    assert np.median(worst) < 1.2 and max(worst) < 1.6


def test_what_does_not_close_is_told_and_the_wrong_measure_found() -> None:
    """Each distance of the net typed 8 mm too long in turn: it is named wherever others hold its ends, by itself where they
    tell it from the rest."""
    piece = measured(block_file.pattern(real_block()).piece("front"), curve_points=0)
    named = alone = checked = 0
    for key in piece.distances:
        wrong = replace(piece, distances={**piece.distances, key: piece.distances[key] + 8.0})
        net = adjusted_net(wrong)
        if not net.open:
            continue  # nothing else says anything of it
        checked += 1
        named += key in net.suspects
        alone += net.suspects == (key,)
    assert checked > len(piece.distances) / 2
    assert named == checked and alone > 0.5 * checked
    assert adjusted_net(piece).suspects == () and adjusted_net(piece).open == []
    assert adjusted_net(piece).is_checked


def test_what_is_measured_once_is_not_checked() -> None:
    """Both ends of the centre, and nothing more: each point has its two distances, and nothing can fail to close."""
    piece = measured(block_file.pattern(real_block()).piece("front"), curve_points=0)
    once = replace(piece, distances={key: mm for key, mm in piece.distances.items() if key[1] in (NECK, WAIST)})
    assert adjusted_net(once).loose == () and not adjusted_net(once).is_checked


def test_one_distance_too_many_tells_only_that_one_of_three_is_wrong() -> None:
    """Three distances hold a point of two values: whichever is wrong, all three look so."""
    distances = {(WAIST, NECK): 400.0, ("neck_point", NECK): 100.0, ("neck_point", WAIST): math.hypot(80.0, 460.0)}
    on = "neckline:p1"
    more = {(on, NECK): 50.0, (on, WAIST): math.hypot(40.0, 430.0), ("neck_point", on): 80.0}
    assert len(adjusted_net(RulerPiece(Body.FRONT, {"neckline": ("point",)}, {**distances, **more})).suspects) > 2


def test_what_is_taken_out_of_an_edge_leaves_the_others_as_they_are() -> None:
    measures = ruled.RulerMeasures.model_validate(
        {
            "items": {"waist": ["dart", "point", "dart"]},
            "distances": {
                "waist:1a": {"centre_neck": 1}, "waist:p1": {"waist:1b": 2}, "waist:2a": {"waist:p1": 3},
                "waist:2tip": {"waist:2a": 4}, "shoulder:1a": {"centre_neck": 5},
            },
        }
    )  # fmt: skip
    left = ruled.without_item(measures, "waist", 0)
    assert left.items["waist"] == ("point", "dart")
    assert left.distances == {
        "waist:p1": {}, "waist:1a": {"waist:p1": 3}, "waist:1tip": {"waist:1a": 4}, "shoulder:1a": {"centre_neck": 5}
    }  # fmt: skip
    assert ruled.without_item(measures, "waist", 1).distances["waist:2a"] == {}


def test_two_arcs_that_do_not_meet() -> None:
    """By hand: from ends 400 mm apart, 100 and 250 mm are 50 mm too short; the three share it alike."""
    piece = RulerPiece(Body.FRONT, {}, {(WAIST, NECK): 400.0, ("underarm", NECK): 100.0, ("underarm", WAIST): 250.0})
    net = adjusted_net(piece)
    offs = {(one.point, one.source): one.off for one in net.open}
    assert offs["underarm", NECK] == pytest.approx(50.0 / 3.0, abs=0.1)
    assert offs["underarm", WAIST] == pytest.approx(50.0 / 3.0, abs=0.1)
    assert offs[WAIST, NECK] == pytest.approx(-50.0 / 3.0, abs=0.1)
    assert set(net.loose) >= {"neck_point", "shoulder_tip", "side_waist"}


@given(x=st.floats(20.0, 300.0), y=st.floats(-150.0, 500.0), base=st.floats(250.0, 480.0))
def test_a_point_by_two_arcs(x: float, y: float, base: float) -> None:
    """Two distances from the centre's ends put a point where Pythagoras says, on the garment's side of the centre."""
    distances = {(WAIST, NECK): base, ("underarm", NECK): math.hypot(x, y), ("underarm", WAIST): math.hypot(x, y - base)}
    net = adjusted_net(RulerPiece(Body.BACK, {}, distances))
    assert net.points["underarm"] == pytest.approx([x, y], abs=1e-4)
    assert "underarm" not in net.loose


def test_what_too_little_holds_is_asked_for() -> None:
    whole = measured(block_file.pattern(real_block()).piece("back"), curve_points=0)
    for id in [point.id for point in points_of(whole.items) if point.id != WAIST]:
        few = {key: mm for key, mm in whole.distances.items() if id not in key}
        assert id in adjusted_net(replace(whole, distances=few)).loose
        one = {**few, (id, NECK): whole.distances[id, NECK]}
        assert id in adjusted_net(replace(whole, distances=one)).loose, id
    with pytest.raises(FileError, match="centre has no length"):
        adjusted_net(RulerPiece(Body.BACK))


def test_the_points_of_a_sheet() -> None:
    """In order round the piece, each once; the tip of a dart measured from its mouth's ends."""
    points = points_of({"shoulder": ("dart",), "armhole": ("point", "point")})
    assert [point.id for point in points] == [
        "neck_point", "shoulder:1a", "shoulder:1b", "shoulder:1tip", "shoulder_tip", "armhole:p1", "armhole:p2", "underarm",
        "side_waist", "centre_waist",
    ]  # fmt: skip
    tip = next(point for point in points if point.id == "shoulder:1tip")
    assert tip.sources == (NECK, WAIST, "shoulder:1a", "shoulder:1b") and tip.name == "tip of the shoulder dart"
    shoulder = ["neck_point", "shoulder:1a", "shoulder:1tip", "shoulder:1b", "shoulder_tip"]
    assert on_edge("shoulder", {"shoulder": ("dart",)}) == shoulder
    names = [point_words(point.id) for point in points]
    assert len(set(names)) == len(names)


def test_a_curve_shorter_than_its_chord_is_as_near_as_can_be_and_told() -> None:
    piece = measured(block_file.pattern(real_block()).piece("front"), curve_points=0)
    source = ruled.source(file_of(replace(piece, along={"neckline": 50.0}), None))
    assert source.pieces[Body.FRONT].along["neckline"] > 20.0
    assert any("neckline is drawn" in note and "longer than along the tape" in note for note in source.notes())


def test_what_is_typed_stays_as_it_was_typed(tmp_path: Path) -> None:
    """Fractions of an inch and formulas; a file that is opened again is the same; inches are inches."""
    file = ruler_file(real_block(), curve_points=0)
    assert file.front is not None
    rows = {id: dict(row) for id, row in file.front.distances.items()}
    inches = float(rows["centre_waist"]["centre_neck"]) / 25.4
    rows["centre_waist"]["centre_neck"] = f"{inches:.6f} in"
    typed = file.model_copy(update={"front": file.front.model_copy(update={"distances": rows})})
    path = tmp_path / "b.zruler"
    path.write_bytes(ruled.dump(typed))
    assert ruled.read(path) == typed
    assert apart(block_made(typed), block_made(file)).seam < 0.001
    source = imported.read(path)
    assert isinstance(source, ruled.RuledSource) and source.name == "b.zruler" and source.lines()


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"front": {"items": {"sholder": ["dart"]}}}, "sholder"),
        ({"front": {"items": {"shoulder": ["dart"] * 9}}}, "8 is the most"),
        ({"front": {"distances": {"underarm": {"centre_neck": "3 +"}}}}, "3 \\+"),
        ({"front": {"along": {"hem": 3}}}, "hem"),
        ({"version": 2}, "version"),
    ],
)
def test_a_broken_file_is_refused(change: dict, says: str, tmp_path: Path) -> None:  # type: ignore[type-arg]
    path = tmp_path / "b.zruler"
    path.write_text(json.dumps({"format": "zesty-pivot/ruler", "version": 1, **change}), encoding="utf-8")
    with pytest.raises(FileError, match=says):
        ruled.read(path)


def test_half_a_sheet_gives_no_block_and_no_fault() -> None:
    """Any part of the distances: an outline, or what is missing; never anything else."""
    whole = ruler_file(real_block(), curve_points=0)
    assert whole.front is not None
    keys = [(id, source) for id, row in whole.front.distances.items() for source in row]
    chance = random.Random(4)
    for count in itertools.chain(range(0, len(keys), 3), [len(keys)]):
        rows: dict[str, dict[str, float]] = {}
        for id, source in chance.sample(keys, count):
            rows.setdefault(id, {})[source] = whole.front.distances[id][source]  # type: ignore[assignment]
        found = ruled.source(whole.model_copy(update={"front": whole.front.model_copy(update={"distances": rows})}))
        assert (Body.FRONT in found.pieces) != (Body.FRONT in found.faults)
        assert all(len(text) < 900 for text in found.faults.values())
