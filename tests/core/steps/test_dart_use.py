"""A dart's other uses: the account is whole, the finished edge is the block's, folds meet the seam, what cannot be is said."""

import math
import re

import numpy as np
import pytest
import shapely
import svgelements

from tests.core.finish.folding import folded_shut, seam_beside
from tests.core.steps.whole import whole
from tests.samples import move, real_pattern, real_value, scaled, style, worked
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.errors import StepError
from zesty_pivot.core.finish.darts import sewn_dart
from zesty_pivot.core.finish.piece import finish_piece
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.svg import piece_svg
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Piece, Use
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def use(dart: str, as_: str, on: str = "front", **more: object) -> dict:  # type: ignore[type-arg]
    return {"do": "dart.use", "on": on, "dart": dart, "as": as_, **more}


def drawn_length(piece: Piece, edge: str) -> float:
    """The length of an edge on the exported sheet, measured by svgelements."""
    text = piece_svg(finish_piece(piece, Finish(), Scope("cm"), "t")).decode()
    data = re.search(rf'id="{edge}" [^>]*d="([^"]+)"', text)
    assert data is not None
    return float(sum(svgelements.Path(sub.d()).length() for sub in svgelements.Path(data[1]).as_subpaths()))


def block_length(on: str, edge: str) -> float:
    """The sewn length of an edge of the block's file, measured by svgelements."""
    piece = next(p for p in real_value()["pieces"] if p["name"] == on)
    data = next(e for e in piece["edges"] if e["id"] == edge)["path"]
    return float(sum(svgelements.Path(sub.d()).length() for sub in svgelements.Path(data).as_subpaths()))


PLACES = [
    ("front", "shoulder", "mid_neck", "neckline"), ("front", "shoulder", "mid_shoulder", "shoulder"),
    ("front", "waist", "mid_armhole", "armhole"), ("front", "waist", "side_bust", "side_seam"),
    ("back", "shoulder", "mid_neck", "neckline"), ("back", "waist", "waist", "waist"),
]  # fmt: skip


@pytest.mark.parametrize(("on", "dart", "station", "edge"), PLACES)
@pytest.mark.parametrize("as_", ["gathers", "tucks", "pleats", "ease", "flare", "dart"])
def test_the_finished_edge_is_the_blocks(on: str, dart: str, station: str, edge: str, as_: str) -> None:
    """Open length, measured on the exported sheet, less what is taken up: the block's within 0.01 mm; a flare's less what it
    opens."""
    steps = [] if station in ("mid_shoulder", "waist") else [move(dart, station, "20%", on=on)]
    name = station if steps else dart
    if as_ == "ease":
        steps = steps or [move(dart, "side_waist", "85%", on=on)] if dart == "waist" else steps
        steps.append(move(name, "mid_armhole" if station != "mid_armhole" else "side_bust", "80%", on=on))
    found = Evaluator().evaluate(
        real_pattern(), [registry.read(s) for s in [*steps, use(name, as_, on=on, spacing="2.2 cm", cloth="soft")]], Scope("cm")
    )
    if found.broken:
        assert as_ == "ease" or "do not fit" in str(found.broken[0][1]) or "lie over each other" in str(found.broken[0][1])
        return
    piece = found.pattern.piece(on)
    entry = next(a for a in accounts(found.pattern, found.block) if a.piece == on and a.pivot == piece.dart(name).pivot)
    assert entry.is_whole
    wanted = {"tucks": "tuck", "pleats": "pleat"}.get(as_, as_)
    assert wanted in {row.use for row in entry.placed if row.dart == name}
    taken = finish_piece(piece, Finish(), Scope("cm"), "t").opened
    less = sum(o.open_mm if as_ == "flare" else o.taken_mm for o in taken)
    assert drawn_length(piece, edge) - less == pytest.approx(block_length(on, edge), abs=0.01)
    if as_ in ("gathers", "ease"):
        ends = [next(r.path.outline for r in piece.runs if r.edge == edge)]  # the notches lie on the edge
        assert ends and len(taken) == 1 and taken[0].taken_mm > 0.9 * piece.intake(name)


@pytest.mark.parametrize("count", [1, 2, 3])
@pytest.mark.parametrize("as_", ["tucks", "pleats"])
@pytest.mark.parametrize("x", [0.86, 1.0, 1.3])
def test_folded_pleats_meet_the_seam(as_: str, count: int, x: float) -> None:
    """The edge of each, folded shut and laid over, lies on the seam within 0.05 mm: by reflection and turn, as the caps."""
    block = scaled(x, 1.0)
    steps = [move("shoulder", "mid_neck", "35%"), use("mid_neck", as_, count=count, spacing="1.8 cm", stitched="4 cm")]
    piece = worked(steps, block).pattern.piece("front")
    folded = [dart for dart in piece.darts if dart.use in (Use.TUCK, Use.PLEAT)]
    assert len(folded) == count
    for dart in folded:
        sewn = sewn_dart(piece, dart.id, Finish(), Scope("cm"))
        assert sewn.cap is not None and not sewn.note
        seam = seam_beside(piece, sewn)
        assert max(seam.distance(shapely.Point(*point)) for point in folded_shut(sewn)) <= 0.05
    widths = [piece.intake(dart.id) for dart in folded]
    assert max(widths) - min(widths) < 1e-6  # equally deep


def test_gathers_by_ratio_and_by_stretch() -> None:
    """Ratio 2 is usual (common practice, no source): the stretch is then as long as what is taken up, raised or not."""
    steps = [move("shoulder", "mid_neck"), use("shoulder", "gathers", ratio=2, raised="0 mm")]
    found = worked(steps)
    (opened,) = finish_piece(found.pattern.piece("front"), Finish(), Scope("cm"), "t").opened
    piece = found.pattern.piece("front")
    assert opened.sewn_mm == pytest.approx(piece.intake("shoulder"), abs=1e-6)
    assert opened.open_mm / opened.sewn_mm == pytest.approx(2.0, rel=0.02)  # an arc is a little longer than its chord
    assert any("gather" in note.text for note in found.states[-1].notes)
    wider = worked([move("shoulder", "mid_neck", "40%"), use("mid_neck", "gathers", over="7 cm", raised="8 mm")])
    (opened,) = finish_piece(wider.pattern.piece("front"), Finish(), Scope("cm"), "t").opened
    assert opened.sewn_mm == pytest.approx(70.0, abs=1e-6)
    flat = worked([move("shoulder", "mid_neck", "40%"), use("mid_neck", "gathers", over="7 cm", raised="0 mm")])
    (low,) = finish_piece(flat.pattern.piece("front"), Finish(), Scope("cm"), "t").opened
    assert math.dist(opened.middle, low.middle) == pytest.approx(8.0, abs=1e-9)
    assert min(opened.taken_mm, low.taken_mm) > 0.9 * wider.pattern.piece("front").intake("mid_neck")


def test_the_raised_edge_runs_smooth() -> None:
    """No corner at the notches or in the middle: the cubics meet along their tangents."""
    piece = worked([move("shoulder", "mid_neck"), use("shoulder", "gathers", over="8 cm", raised="1 cm")]).pattern.piece(
        "front"
    )
    finished = finish_piece(piece, Finish(), Scope("cm"), "t")
    (stroke,) = [s for s in finished.strokes if s.id == "neckline"]
    for one, two in zip(stroke.paths, stroke.paths[1:], strict=False):
        assert math.dist(one.end, two.start) < 1e-9
        assert float(one.end_direction @ two.start_direction) > math.cos(math.radians(0.6))
    assert {s.id for s in finished.strokes if s.kind == "notch"} >= {"shoulder.notches"}
    assert any(text.text.startswith("gather ") and " to 8.0 cm" in text.text for text in finished.texts)


def test_back_to_a_sewn_dart_restores_the_piece() -> None:
    """Tucks, then pleats, then a dart: as if nothing had been."""
    before = worked([move("shoulder", "mid_neck", "40%")])
    steps = [use("mid_neck", "tucks", count=4, spacing="1.5 cm"), use("mid_neck", "pleats", count=3, spacing="2 cm")]
    after = worked([move("shoulder", "mid_neck", "40%"), *steps, use("mid_neck-3", "dart")])
    one, two = before.pattern.piece("front"), after.pattern.piece("front")
    assert {d.id: d.use for d in two.darts} == {d.id: d.use for d in one.darts}
    assert np.allclose(one.mouth("mid_neck"), two.mouth("mid_neck"), atol=1e-9)
    whole(after.pattern, after.block)


def test_a_flare_makes_the_waist_wider_and_the_report_says_so() -> None:
    found = derive(style([use("waist", "flare")]))
    plain = derive(style([]))
    wide = found.girths.waist - plain.girths.waist
    piece = found.pattern.piece("front")
    assert wide == pytest.approx(2.0 * piece.intake("waist"), rel=0.02)
    assert not [f for f in found.findings if f.piece == "front" and "across the waist dart" in f.message]


@pytest.mark.parametrize(
    ("steps", "says"),
    [
        ([use("shoulder", "ease")], r"\d+% *, and medium cloth takes 6%.*up to"),
        ([use("shoulder", "pleats", count=2, spacing="1 cm")], r"deep overlap at a spacing of 1\.0 cm.*Space them"),
        ([use("shoulder", "tucks", count=6, spacing="3 cm")], "do not fit on the shoulder.*Up to .* apart"),
        ([use("shoulder", "tucks", count=1, stitched="60 cm")], "longer than the way to the pivot.*Stitch up to"),
        ([use("shoulder", "gathers", over="40 cm")], "longer than the shoulder.*Up to"),
        ([use("shoulder", "gathers", ratio=1.05)], "longer than the shoulder.*ratio of"),
        ([move("waist", "mid_shoulder", "20%"), use("shoulder", "gathers", over="9 cm")], "mid shoulder dart|None"),
        ([use("shoulder", "gathers", raised="-3 mm")], "can only be raised"),
        ([use("sholder", "gathers")], "did you mean 'shoulder'"),
    ],
)
def test_what_cannot_be_is_refused_in_one_sentence(steps: list[dict], says: str) -> None:  # type: ignore[type-arg]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope("cm"))
    if says.endswith("None") and not found.broken:
        assert not found.broken
        return
    (fault,) = [error for _number, error in found.broken]
    assert isinstance(fault, StepError) and "\n" not in str(fault)
    assert re.search(says, str(fault), re.I), str(fault)


def test_a_use_in_a_file_is_checked() -> None:
    for wrong in (
        {"as": "frills"},
        {"as": "gathers", "ratio": 0.5},
        {"as": "gathers", "ratio": 2, "over": "5 cm"},
        {"count": 0},
    ):
        with pytest.raises(ValueError, match=r"ratio|as|count|greater|stretch"):
            registry.read({"do": "dart.use", "on": "front", "dart": "waist", **wrong})
