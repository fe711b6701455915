"""Gathers, pleats and tucks on written sheets: folded by own arithmetic they meet the seam as it was, and every finished edge
is what it was. Handbook formulas from memory: a knife pleat takes twice its depth, box and inverted pleats four times, a tuck
twice its stitched depth, full knife pleating three times the finished width, gathers ratio times. Common practice, no other
source."""

from __future__ import annotations

import itertools
from typing import Any

import numpy as np
import pytest
import shapely

from tests.drafted import ROOM, room_block
from tests.folding import creases, edge_points, folded, length, off, polyline
from tests.samples import hip_block, real_block
from tests.sheets import lines
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.steps import registry

Value = dict[str, Any]
SIDE: Value = {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "side_bust"}}


def pleat(on: str = "back", **more: Any) -> Value:
    return {"do": "fullness.pleat", "on": on, **more}


def made(block: BlockFile, *steps: Value, noise_deg: float = 1e-9) -> Derived:
    found = derive(Style(name="T", block=block, units="cm", steps=tuple(registry.read(step) for step in steps)))
    assert not found.derivation.broken, found.derivation.broken
    assert all(abs(account.missing_deg) < noise_deg for account in found.look.accounts)
    assert {f.check for f in found.findings if f.severity is Severity.ERROR} <= {"dart_legs"}
    return found


def sheet(found: Derived, name: str) -> FinishedPiece:
    return next(piece for piece in found.pieces if piece.name == name)


def refused(*steps: Value) -> str:
    derived = derive(Style(name="T", block=real_block(), units="cm", steps=tuple(registry.read(step) for step in steps)))
    assert len(derived.derivation.broken) == 1, derived.derivation.broken
    return str(derived.derivation.broken[0][1])


CASES: dict[str, tuple[str, Value]] = {
    "knife": ("waist", {}),
    "knife to the centre": ("waist", {"lies": "centre", "count": 3, "depth": "5 mm", "spacing": "8 mm"}),
    "twelve": ("waist", {"count": 12, "depth": "1.5 mm", "spacing": "2 mm"}),
    "one tapered": ("waist", {"count": 1, "far": "0%"}),
    "graded": ("waist", {"count": 3, "depth": "4 mm", "last": "9 mm", "spacing": "1 cm"}),
    "box": ("waist", {"kind": "box"}),
    "inverted": ("waist", {"kind": "inverted"}),
    "accordion": ("waist", {"kind": "accordion", "count": 4, "depth": "5 mm", "spacing": "1 cm"}),
    "half box at the fold": ("waist", {"kind": "box", "count": 1, "depth": "1 cm", "start": {"edge": "waist", "at": "100%"}}),
    "half inverted at the fold": ("waist", {"kind": "inverted", "count": 1, "start": {"edge": "waist", "at": "100%"}}),
    "on a slanted seam": ("shoulder", {"edge": "shoulder", "depth": "5 mm", "spacing": "8 mm"}),
    "on a curved seam": ("neckline", {"edge": "neckline", "depth": "4 mm", "spacing": "6 mm", "far": "50%"}),
    "on the armhole": ("armhole", {"edge": "armhole", "depth": "5 mm"}),
    "a fan": ("waist", {"count": 3, "depth": "5 mm", "spacing": "1 cm", "to": "neckline"}),
}


# Every case on two blocks, each block with four or five of them; the plain one on all.
ON_TWO = {(name, case) for k, case in enumerate(CASES) for name in (list(ROOM)[k % 6], list(ROOM)[(k + 2 + k // 6) % 6])}


@pytest.mark.parametrize(("name", "case"), sorted(ON_TWO | {(name, "knife") for name in ROOM}))
def test_folded_pleats_meet_the_seam(name: str, case: str) -> None:
    """The written edge, folded along the written lines: what is seen is the block's own seam, and the underlay lies on it."""
    edge, more = CASES[case]
    block = room_block(name)
    plain, found = made(block), made(block, pleat(**more))
    seam = edge_points(sheet(plain, "back"), edge)
    if "waist" in more.get("start", {}).get("edge", ""):
        block_edge = "waist" if any(e.id == "waist" for e in found.pattern.piece("back").edges) else None
        if block_edge is None:
            pytest.skip("a hip-length block has no waist edge")
    written = sheet(found, "back")
    points = edge_points(written, edge)
    full = found.pattern.piece("back").fullness[0].id
    folds = creases(written, full)
    assert len(folds) >= 2
    seen, under = folded(points, folds)
    align = seam[-1] - seen[-1][-1]  # a pleat on the centre shifts what lies beyond it
    for stretch in (*seen, *under):
        assert off(stretch + align, seam) < 0.05
    assert sum(length(stretch) for stretch in seen) == pytest.approx(length(seam), abs=0.05)


@pytest.mark.parametrize(("more", "times"), [
    ({"count": 3, "depth": "1 cm", "spacing": "1 cm"}, 2.0), ({"kind": "box", "depth": "5 mm"}, 4.0),
    ({"kind": "inverted", "depth": "4 mm"}, 4.0),
])  # fmt: skip
def test_what_pleats_take(more: Value, times: float) -> None:
    """On the straight back waist: cloth is finished width and times the depth for each; knife pleats as deep as their spacing
    take three times the width they cover."""
    plain, found = made(hip_block()), made(hip_block(), pleat(**more, edge="hem"))
    edge = "hem"
    before, after = (length(edge_points(sheet(one, "back"), edge)) for one in (plain, found))
    count, depth = more.get("count", 2), {"1 cm": 10.0, "5 mm": 5.0, "4 mm": 4.0}[more["depth"]]
    assert after - before == pytest.approx(count * times * depth, abs=0.05)
    if more.get("spacing") == more["depth"]:
        assert (count * depth + after - before) / (count * depth) == pytest.approx(3.0, abs=0.01)


@pytest.mark.parametrize("name", ROOM)
@pytest.mark.parametrize("on", ["front", "back"])
def test_yoke_seams_are_partners_after_take_up(name: str, on: str) -> None:
    """Gathers 1.6 to 1 below the yoke, measured on the sheets: the open seam less 0.6 of the stretch is the yoke's seam."""
    gather = {"do": "fullness.gather", "on": on, "edge": "yoke", "ratio": 1.6}
    found = made(room_block(name), {"do": "yoke.cut", "on": on}, gather)
    below, yoke = (sum(length(polyline(path)) for path in lines(sheet(found, piece))["yoke"]) for piece in (on, f"{on}_yoke"))
    assert below - 0.6 * 0.8 * yoke == pytest.approx(yoke, abs=0.05)
    (account,) = [seam for seam in found.look.seams if str(seam.a).endswith(".yoke")]
    assert account.difference_mm == pytest.approx(0.0, abs=0.05)
    marks = {
        piece: {mark.id for mark in found.pattern.piece(piece).notches if "gather" in mark.id} for piece in (on, f"{on}_yoke")
    }
    assert len(marks[on]) == 5 and marks[on] == marks[f"{on}_yoke"]


@pytest.mark.parametrize("share", ["0%", "100%"])
@pytest.mark.parametrize("kind", ["plain", "pin", "blind"])
def test_tucks_folded_meet_the_seam(kind: str, share: str) -> None:
    """Pressed over to the side, each covers the seam beyond its stitching; the fold stands at half of what it takes."""
    block = real_block()
    seam = edge_points(sheet(made(block), "back"), "waist")
    found = made(block, {"do": "fullness.tuck", "on": "back", "kind": kind, "far": share, "depth": "3 mm", "stitched": "6 cm"})
    written = sheet(found, "back")
    points, full = edge_points(written, "waist"), found.pattern.piece("back").fullness[0]
    depth = 3.0
    assert length(points) - length(seam) == pytest.approx(2.0 * depth * 3, abs=0.05)
    drawn = lines(written)
    for number in (1, 2, 3):
        stitching = drawn[f"{full.id}.{number}.stitching"]
        assert [round(path.length(), 2) for path in stitching] == [60.0, 60.0]
        (fold,) = drawn[f"{full.id}.{number}.fold"]
        ends = [np.array([path.point(0).x, path.point(0).y]) for path in (*stitching, fold)]
        assert np.hypot(*(ends[0] - ends[2])) == pytest.approx(depth, abs=0.05)
        assert np.hypot(*(ends[1] - ends[2])) == pytest.approx(depth, abs=0.05)


def test_cloth_that_is_let_in_is_a_strip() -> None:
    """Shapely's area of the cut-out paper: a pleat right across adds its take-up times the length of its slash."""
    plain, found = made(real_block()), made(real_block(), pleat(count=1, depth="1 cm", start={"edge": "waist", "at": "90%"}))
    bare = {"allowance": "none"}
    areas = []
    for one in (plain, found):
        style = one.style.model_copy(update={"finish": one.style.finish.model_copy(update=bare)})
        ring = sheet(derive(style), "back").ring
        areas.append(shapely.Polygon(ring).area)
    written = sheet(found, "back")
    (first, *_rest) = creases(written, found.pattern.piece("back").fullness[0].id)
    assert areas[1] - areas[0] == pytest.approx(20.0 * np.hypot(*(first.ends[1] - first.ends[0])), rel=0.01)


def test_marks_go_along_with_what_is_let_in_later() -> None:
    """Pin tucks near the side, pleats nearer to CB after them: the tucks' lines still end on the written edge."""
    found = made(
        hip_block(),
        {"do": "fullness.tuck", "on": "back", "kind": "pin", "count": 2, "far": "0%", "start": {"edge": "hem", "at": "30%"}},
        pleat(count=1, depth="1 cm", far="0%", start={"edge": "hem", "at": "90%"}),
    )
    drawn = lines(sheet(found, "back"))
    hem = edge_points(sheet(found, "back"), "hem")
    tucks = [path for id, paths in drawn.items() if "tucks" in id and id.endswith("stitching") for path in paths]
    assert len(tucks) == 4
    for path in tucks:
        assert np.hypot(*(hem - polyline(path)[0]).T).min() < 0.3


def test_unfolded_or_not_the_same_pleats() -> None:
    """Pleats laid on the half and then unfolded, or on the unfolded piece: the same paper; folds at the centre once."""
    unfold = {"do": "piece.unfold", "on": "back"}
    for more in ({"kind": "box", "count": 1}, {"kind": "inverted", "count": 1, "start": {"edge": "waist", "at": "100%"}}):
        one, two = (made(real_block(), *steps) for steps in ((pleat(**more), unfold), (unfold, pleat(**more))))
        rings = [shapely.Polygon(sheet(found, "back").ring) for found in (one, two)]
        assert rings[0].area == pytest.approx(rings[1].area, rel=1e-6)
        half = shapely.Polygon(sheet(made(real_block(), pleat(**more)), "back").ring)
        assert rings[0].area == pytest.approx(2.0 * half.area, rel=0.01)
        folds = [line for full in two.pattern.piece("back").fullness for line in full.lines]
        assert len(folds) == (1 if "start" in more else 4)


def test_a_fold_points_where_it_is_told() -> None:
    """The arrow runs from the fold to the place that it is laid on: to the side, away from CB."""
    for lies, sign in (("side", 1.0), ("centre", -1.0)):
        found = made(real_block(), pleat(lies=lies, count=1))
        written, full = sheet(found, "back"), found.pattern.piece("back").fullness[0].id
        stroke = lines(written)[f"{full}.1.arrow"][0]
        assert sign * (stroke.point(1).x - stroke.point(0).x) > 15.0


@pytest.mark.parametrize(("more", "share"), [
    ({"start": {"edge": "waist", "at": "30%"}}, 0.6), ({"stop": {"edge": "waist", "at": "50%"}}, 0.4),
    ({"start": {"edge": "waist", "at": "80%"}, "stop": {"edge": "waist", "at": "30%"}}, 0.5),
])  # fmt: skip
def test_gathers_go_from_place_to_place(more: Value, share: float) -> None:
    """The sheet's waist is longer by as much as the stretch at 2 to 1; a place that is not given is near the end."""
    plain, found = (made(real_block(), *steps) for steps in ((), ({"do": "fullness.gather", "on": "back", **more},)))
    sewn, wide = (sum(length(polyline(path)) for path in lines(sheet(one, "back"))["waist"]) for one in (plain, found))
    assert wide - sewn == pytest.approx(share * sewn, abs=0.05)


def test_an_edge_is_gathered_to_fit_its_partner() -> None:
    """A flared seam is longer than the yoke's; gathered to fit, the finding is gone and the notches tell how."""
    steps: list[Value] = [
        {"do": "yoke.cut", "on": "back"},
        {
            "do": "fullness.slash",
            "on": "back",
            "at": {"edge": "yoke", "at": "50%"},
            "hinge": {"edge": "waist", "at": "90%"},
            "by": "3 cm",
        },
    ]
    apart = [seam.difference_mm for seam in made(real_block(), *steps).look.seams if "yoke" in str(seam.a)]
    fitted = made(real_block(), *steps, {"do": "fullness.gather", "on": "back", "edge": "yoke", "fit": True})
    assert max(abs(mm) for mm in apart) > 20.0
    assert [seam.difference_mm for seam in fitted.look.seams if "yoke" in str(seam.a)] == pytest.approx([0.0], abs=1e-6)


@pytest.mark.parametrize(("step", "what"), [
    (pleat("front", edge="waist", start={"edge": "waist", "at": "60%"}), "would lie over the"),
    (pleat(depth="3 cm", spacing="2 cm", count=2), "overlap at a spacing of 2.0 cm"),
    (pleat(kind="box", depth="2 cm", width="3 cm"), "3.0 cm wide and 2.0 cm deep overlap"),
    (pleat(depth="-1 cm"), "must be deeper than 0"),
    (pleat(count=24, depth="1 cm", spacing="2 cm"), "clear of darts and corners"),
    (pleat(count=2, start={"edge": "waist", "at": "99%"}, towards="centre"), "reach past the end of the waist"),
    (pleat(stitched="200 cm"), "longer than the pleats"),
    ({"do": "fullness.tuck", "on": "back", "stitched": "0 cm"}, "stitched over more than 0"),
    ({"do": "fullness.gather", "on": "back", "by": "500 cm"}, "cannot be gathered there"),
    ({"do": "fullness.gather", "on": "back", "fit": True}, "not sewn to anything"),
    ({"do": "fullness.gather", "on": "back", "start": {"station": "waist"}, "stop": {"station": "mid_shoulder"}},
     "Choose two places of one edge"),
])  # fmt: skip
def test_what_cannot_be_is_told(step: Value, what: str) -> None:
    said = refused(step)
    assert what in said and said.count("\n") == 0 and said.rstrip().endswith(".")


def test_gathers_keep_clear_of_pleats() -> None:
    """Left to the program they take the longest stretch without any; a stretch over them is refused."""
    laid = pleat(edge="waist", count=2, depth="5 mm", spacing="1 cm", start={"edge": "waist", "at": "85%"})
    (full, *_rest) = (made(real_block(), laid, {"do": "fullness.gather", "on": "back"}).pattern.piece("back").fullness)[1:]
    piece = made(real_block(), laid).pattern.piece("back")
    total = piece.edge("waist").sewn_length
    ends = sorted(places.sewn_distance(piece, places.by_origin(piece, at)) for at in full.stretch)
    pleats = [places.sewn_distance(piece, places.by_origin(piece, line.start)) for line in piece.fullness[0].lines]
    assert ends[1] < min(pleats) or ends[0] > max(pleats)
    assert ends[1] - ends[0] > 0.2 * total
    over = {
        "do": "fullness.gather",
        "on": "back",
        "start": {"edge": "waist", "at": "20%"},
        "stop": {"edge": "waist", "at": "90%"},
    }
    assert "over the pleats on the waist" in refused(laid, over)
    assert "cannot lie on the fold" in refused(pleat(edge="waist", count=1, start={"edge": "waist", "at": "100%"}))


def _shift(found: Derived, name: str, kind: str) -> float:
    """How far out from the centre an arrow or a line of the first slash goes, mm."""
    full = found.pattern.piece(name).fullness[0].id
    stroke = lines(sheet(found, name))[f"{full}.1.{kind}"][0]
    return float(stroke.point(1).x - stroke.point(0).x)


def test_panels_without_a_centre_know_centre_and_side() -> None:
    """A back's side panel is drawn like its front: the side is to the right. It pointed the other way for backs."""
    for on in ("front", "back"):
        line_ = {"do": "line.princess", "on": on}
        out = made(real_block(), line_, pleat(f"{on}_side", count=1, depth="5 mm", far="0%", lies="side"))
        inwards = made(real_block(), line_, pleat(f"{on}_side", count=1, depth="5 mm", far="0%", lies="centre"))
        assert _shift(out, f"{on}_side", "arrow") > 3.0 > -3.0 > _shift(inwards, f"{on}_side", "arrow")


def test_the_deepest_pleat_is_the_last_and_stitching_begins_at_the_edge() -> None:
    """Graded towards the side or the centre; stitched from the waist up, not from the neck down."""
    for towards, order in (("side", [1.0, -1.0]), ("centre", [-1.0, 1.0])):
        found = made(real_block(), pleat(depth="3 mm", last="9 mm", towards=towards, stitched="4 cm"))
        full = found.pattern.piece("back").fullness[0]
        depths = [line.by[0] for line in full.lines]  # along the waist from the side to the centre
        assert (depths[0] - depths[1]) * order[0] > 10.0
        stitching = polyline(lines(sheet(found, "back"))[f"{full.id}.1.stitching"][0])
        waist = edge_points(sheet(found, "back"), "waist")
        assert np.hypot(*(waist - stitching[0]).T).min() < 0.01 and stitching[-1][1] < stitching[0][1] - 39.0


def test_a_gathered_edge_is_raised_outwards() -> None:
    """In its middle, by what is asked, away from the piece."""
    flat, high = (
        made(real_block(), {"do": "fullness.gather", "on": "back", "edge": "neckline", "far": "0%", "raised": by})
        for by in ("0 cm", "1 cm")
    )
    one, two = (found.pattern.piece("back") for found in (flat, high))
    areas = [laid_open(piece)[0].area for piece in (one, two)]
    assert areas[1] > areas[0] + 200.0
    near = [laid_open(piece)[1][0].ends[0] for piece in (one, two)]
    assert float((near[1].middle - near[0].middle) @ near[0].outwards) == pytest.approx(10.0, abs=1.0)


def test_half_a_pleat_at_the_fold_is_parted_by_half() -> None:
    """The hand sheet of the half says what its paper is parted by: an inverted pleat 1 cm deep takes 4 cm, the half 2 cm."""
    step = registry.read(pleat(kind="inverted", count=1, depth="1 cm", start={"edge": "waist", "at": "100%"}))
    context = Context(block_file.pattern(real_block()), Scope("cm"))
    (part,) = [line for line in step.by_hand(context.block, context, "slash") if line.do == "part"]
    assert part.figures["by"] == "2.0 cm"


def test_notches_are_double_on_the_back_and_what_is_lost_is_told() -> None:
    gather = {"do": "fullness.gather", "on": "back", "edge": "yoke"}
    found = made(real_block(), {"do": "yoke.cut", "on": "back"}, gather)
    assert {m.strokes for n in ("back", "back_yoke") for m in found.pattern.piece(n).notches if "gather" in m.id} == {2}
    tuck = {"do": "fullness.tuck", "on": "back", "kind": "pin", "count": 1, "start": {"edge": "neckline", "at": "70%"},
            "to": "shoulder", "to_start": "85%", "to_stop": "85%"}  # fmt: skip
    gone = made(real_block(), tuck, {"do": "neck.shape", "on": "front", "shape": "canoe"})
    assert not gone.pattern.piece("back").fullness
    assert "the tucks went with what was cut away" in [note.text for note in gone.derivation.states[-1].notes]


@pytest.mark.parametrize("is_dart_first", [True, False])
def test_rows_of_shirring_end_beside_a_dart_that_is_gathered(is_dart_first: bool) -> None:
    """The edge is led over the dart's mouth: the rows, which were to end within that, end where it begins."""
    dart: Value = {"do": "dart.use", "on": "back", "dart": "waist", "as": "gathers"}
    start, stop = ({"edge": "waist", "at": at} for at in ("10%", "61%"))
    rows: Value = {"do": "fullness.gather", "on": "back", "rows": 5, "start": start, "stop": stop}
    found = made(real_block(), *([dart, rows] if is_dart_first else [rows, dart]))
    written = sheet(found, "back")
    assert not written.fault
    drawn = [path for name, paths in lines(written).items() if ".row." in name for path in paths]
    assert len(drawn) == 5
    assert min(path.length() for path in drawn) > 150.0  # twice the 91 mm up to the mouth, less the bend
    # All beside the dart on the side seam's side, each inside the one before it.
    boxes = [path.bbox() for path in drawn]
    dart_x = found.pattern.piece("back").pivot("waist_tip")[0]
    assert min(box[0] for box in boxes) > dart_x
    assert all(two[1] < one[1] - 5.0 and two[3] < one[3] - 5.0 for one, two in itertools.pairwise(boxes))
