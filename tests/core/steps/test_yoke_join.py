"""Yokes joined at the shoulder on six blocks, and the shoulder seam moved forward. Common practice, no other source."""

from __future__ import annotations

import itertools
from typing import Any

import numpy as np
import pytest
import shapely

from tests.core.steps.test_let_in import made, refused, sheet
from tests.drafted import ROOM, room_block, shared_out
from tests.folding import length, polyline
from tests.samples import real_block
from tests.sheets import lines
from zesty_pivot.core.piece import place as places

YOKES: list[dict[str, Any]] = [{"do": "yoke.cut", "on": on} for on in ("front", "back")]
EQUAL = [name for name in ROOM if name.startswith("drafted")]


def join(**more: Any) -> dict[str, Any]:
    return {"do": "yoke.join", **more}


@pytest.mark.parametrize("grain", ["back", "front"])
@pytest.mark.parametrize("name", ROOM)
def test_a_joined_yoke_is_the_sum_of_its_parts(name: str, grain: str) -> None:
    """One piece; where the shoulders are equal its area is that of both, otherwise of both with the shoulder made equal."""
    apart, one = made(room_block(name), *YOKES), made(room_block(name), *YOKES, join(grain=grain))
    parts = sum(apart.pattern.piece(f"{on}_yoke").area for on in ("front", "back"))
    yoke = one.pattern.piece("yoke")
    assert yoke.area == pytest.approx(parts, rel=1e-6 if name in EQUAL else 0.03)
    assert not any(role == "shoulder" for _edge, role in yoke.roles)
    assert {piece.name for piece in one.pattern.pieces} == {"front", "back", "yoke"}
    seams = {str(seam.b): seam for seam in one.look.seams} | {str(seam.a): seam for seam in one.look.seams}
    assert len([seam for key, seam in seams.items() if key.startswith("yoke.")]) == 2
    assert all(abs(seam.difference_mm) < 0.05 for key, seam in seams.items() if key.startswith("yoke."))
    neck = [sum(sum(length(polyline(p)) for p in lines(sheet(found, n))["neckline"]) for n in names)
            for found, names in ((apart, ("front_yoke", "back_yoke")), (one, ("yoke",)))]  # fmt: skip
    assert neck[1] == pytest.approx(neck[0], abs=0.05 if name in EQUAL else 8.0)


@pytest.mark.parametrize("name", EQUAL)
@pytest.mark.parametrize("by", ["1 cm", "3 cm"])
def test_what_one_gains_the_other_loses(name: str, by: str) -> None:
    """The seam lies parallel, so far forward; the sleeve's notch stays where the shoulder was."""
    apart = made(room_block(name), *YOKES)
    moved = made(room_block(name), *YOKES, join(forward=by, seam="kept"))
    change = {on: moved.pattern.piece(f"{on}_yoke").area - apart.pattern.piece(f"{on}_yoke").area for on in ("front", "back")}
    assert change["back"] == pytest.approx(-change["front"], rel=1e-6) and change["back"] > 0.0
    old, new = (found.pattern.piece("front_yoke").edge("shoulder").runs[0].path.outline for found in (apart, moved))
    along = (old[-1] - old[0]) / np.hypot(*(old[-1] - old[0]))
    away = (new - old[0]) @ np.array([-along[1], along[0]])
    assert away == pytest.approx(np.full(len(new), {"1 cm": 10.0, "3 cm": 30.0}[by]), abs=0.01)  # down, towards the front
    (account,) = [seam for seam in moved.look.seams if str(seam.a).endswith("shoulder")]
    assert account.difference_mm == pytest.approx(0.0, abs=0.05)
    back = moved.pattern.piece("back_yoke")
    (mark,) = [mark for mark in back.notches if mark.name == "sleeve"]
    tip = apart.pattern.piece("back_yoke").corner("shoulder_tip")
    assert places.point(back, places.by_origin(back, mark.at)) == pytest.approx(tip, abs=0.01)


def test_a_yoke_follows_a_neckline_before_or_after() -> None:
    neck = {"do": "neck.shape", "on": "front", "shape": "round", "width": "9 cm", "depth": "9 cm"}
    first, last = made(real_block(), neck, *YOKES, join()), made(real_block(), *YOKES, neck, join())
    areas = [found.pattern.piece("yoke").area for found in (first, last)]
    assert areas[0] == pytest.approx(areas[1], rel=0.002)


@pytest.mark.parametrize("joined", [False, True])
def test_notches_of_gathers_meet_on_a_yoke_turned_over_or_not(joined: bool) -> None:
    """Counted from the centre on both written pieces: the joined yoke's front lies turned over."""
    gather = {"do": "fullness.gather", "on": "front", "edge": "yoke", "far": "0%",
              "start": {"edge": "yoke", "at": "5%"}, "stop": {"edge": "yoke", "at": "60%"}}  # fmt: skip
    found = made(real_block(), *YOKES, *([join()] if joined else []), gather)
    assert not [finding.message for finding in found.findings if finding.check == "notches_meet"]
    name = "yoke" if joined else "front_yoke"
    yoke = found.pattern.piece(name)
    shares = []
    for mark in (mark for mark in yoke.notches if "gather" in mark.id):
        at = places.point(yoke, places.by_origin(yoke, mark.at))
        runs = [run.path for run in yoke.runs if run.edge == yoke.runs[places.by_origin(yoke, mark.at).run].edge]
        centre = [
            run.path for run in yoke.runs if yoke.role(run.edge) == "centre" and run.edge != (yoke.fold if joined else "")
        ]
        ends = [runs[0].start, runs[-1].end]
        inner = min(ends, key=lambda end: min(np.hypot(*(path.outline - end).T).min() for path in centre))
        shares.append(float(np.hypot(*(at - inner))) / sum(path.length for path in runs))
    assert sorted(shares) == pytest.approx(np.linspace(0.05, 0.6, 5), abs=0.01)


def test_what_cannot_be_is_told() -> None:
    pair = {"do": "yoke.join", "on": "front", "other": "back"}
    assert "not sewn to each other along the shoulder" in refused(YOKES[0], {**pair, "other": "front_yoke"})
    assert "forward by more than 0" in refused({**pair, "seam": "kept"})
    assert "a dart opens in the shoulder" in refused(pair)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("joined", [False, True])
def test_the_second_layer_is_a_turn_of_cloth_smaller(name: str, joined: bool) -> None:
    """It lies inside the yoke, 2 mm from its neckline and armhole everywhere and as long in the other seams but for their ends;
    by shapely on the outlines. That it is cut so and not otherwise: common practice, no source."""
    steps = [{"do": "yoke.cut", "on": on} for on in ("front", "back")] + [{"do": "yoke.join"}] * joined
    found = made(room_block(name), *steps, {"do": "piece.facing", "kind": "yoke", "shade": "2 mm"}).pattern
    assert len(found.extras) == (1 if joined else 2)
    for extra in found.extras:
        yoke = found.piece(extra.of[0])
        outer, inner = (shapely.Polygon(np.concatenate([run.path.outline for run in p.runs])) for p in (yoke, extra.piece))
        assert inner.buffer(-0.02).within(outer)
        for role in ("neckline", "armhole"):
            there, here = (
                shapely.MultiLineString([run.path.outline for run in p.runs if p.role(run.edge) == role])
                for p in (yoke, extra.piece)
            )
            points = [here.geoms[0].interpolate(share, normalized=True) for share in (0.1, 0.3, 0.7, 0.9)]
            assert [there.distance(point) for point in points] == pytest.approx([2.0] * 4, abs=0.05)
        for follow in extra.follows:
            if follow.edge.startswith("yoke"):
                assert 0.0 < follow.shorter_mm < 4.0


NECKS: list[dict[str, Any]] = [
    {
        "do": "neck.shape",
        "shape": "round",
        "width": "1 cm",
        "width_from": "neck_point",
        "depth": "2 cm",
        "depth_from": "centre_neck",
    },
    {"do": "neck.shape", "shape": "v", "depth": "4 cm", "depth_from": "centre_neck"},
]


@pytest.mark.parametrize(("name", "case"), shared_out(itertools.product(("joined", "kept"), range(len(NECKS)))))
def test_an_edge_over_the_shoulders_before_or_after_they_are_joined(name: str, case: tuple[str, int]) -> None:
    """The same finished yoke, and the notches of the gathers below it stay on it."""
    seam, edge = case[0], NECKS[case[1]]
    gathers = {"do": "fullness.gather", "on": "front", "edge": "yoke"}
    cuts = [
        {"do": "yoke.cut", "on": "front", "at": "8 cm", "centre": "6 cm"},
        {"do": "yoke.cut", "on": "back", "centre": "4 cm"},
    ]
    one, two = (
        made(room_block(name), *steps).pattern
        for steps in (
            [*cuts, edge, join(forward="1 cm", seam=seam), gathers], [*cuts, join(forward="1 cm", seam=seam), gathers, edge]
        )
    )  # fmt: skip
    for piece in one.pieces:
        other = two.piece(piece.name)
        assert other.area == pytest.approx(piece.area, rel=1e-4)
        for id, role in piece.roles:
            assert other.edge(id).sewn_length == pytest.approx(piece.edge(id).sewn_length, abs=0.05), (piece.name, role)
        assert {mark.id for mark in other.notches} == {mark.id for mark in piece.notches}
    assert {str(seam.a) for seam in one.seams} | {str(seam.b) for seam in one.seams} == (
        {str(seam.a) for seam in two.seams} | {str(seam.b) for seam in two.seams}
    )
