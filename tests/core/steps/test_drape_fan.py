"""Drapes on six blocks, half and whole: hinges stay, the seam once folded is its partner's, accounts are whole, the order of
folds is kept on every size, the lining is the piece as it was. Common practice, no source."""

from __future__ import annotations

import math
from typing import Any

import pytest
import shapely

from tests.core.steps.test_drape_cowl import BLOCKS, block, done, made
from tests.drafted import ROOM, room_block, shared_out
from tests.folding import creases, edge_points, folded, length
from tests.samples import real_block, scaled_value
from tests.sheets import lines
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import FOLD

UNFOLD = {"do": "piece.unfold", "on": "front"}


def drape(**more: Any) -> dict[str, Any]:
    return {"do": "drape.fan", "on": "front", **more}


CASES: list[list[dict[str, Any]]] = [
    [UNFOLD, drape(edge="side_seam.left")], [drape()], [drape(edge="shoulder")], [drape(on="back")],
    [UNFOLD, drape(edge="side_seam.right", taken="gathers")], [drape(taken="tucks", slashes=["1 cm", "2 cm"], stitched="2 cm")],
]  # fmt: skip


def order_of(found: Derived, on: str) -> list[float]:
    """How far along their seam the numbered folds lie, in the order of their numbers."""
    piece = found.pattern.piece(on)
    marks = sorted((int(m.id.removeprefix(FOLD)), m) for m in piece.notches if m.id.startswith(FOLD))
    return [places.sewn_distance(piece, places.by_origin(piece, mark.at)) for _number, mark in marks]


@pytest.mark.parametrize(("name", "case"), shared_out(range(len(CASES))))
def test_a_drape_begins_on_every_block(name: str, case: int) -> None:
    steps = CASES[case]
    found, before = done(room_block(name), *steps), done(room_block(name), *steps[:-1])
    on, edge = steps[-1]["on"], steps[-1].get("edge", "side_seam")
    was, now = before.pattern.piece(on), found.pattern.piece(on)
    assert now.edge(edge).sewn_length == pytest.approx(
        was.edge(edge).sewn_length, abs=1e-6
    )  # once taken up it is its partner's
    ats = order_of(found, on)
    assert ats == sorted(ats) and len(ats) >= len(steps[-1].get("slashes", "123"))
    lining = next(extra.piece for extra in found.pattern.extras if extra.kind == "lining")
    assert lining.runs == was.runs and lining.darts == was.darts  # undraped
    # The hinges: every other seam is as long on the paper as it was, but for the darts that were shut.
    paper = laid_open(now)[0]
    for other, role in was.roles:
        if other != edge and role not in ("centre",):
            assert paper.edge(other).sewn_length == pytest.approx(was.edge(other).sewn_length, abs=1e-6), other


@pytest.mark.parametrize("name", ROOM)
def test_pleats_folded_on_the_sheet_meet_the_seam(name: str) -> None:
    """The written outline folded with own paper folding, slash by slash: what is left of the seam is its partner's length."""
    steps = [{"do": "dart.move", "on": "front", "dart": dart.id, "to": {"station": "waist"}} for dart in aside(name)]
    asked = drape(darts=[], slashes=["2 cm", "3 cm"], start="10%", stop="80%")
    before, found = done(room_block(name), *steps), done(room_block(name), *steps, asked)
    sheets = [next(piece for piece in one.pieces if piece.name == "front") for one in (before, found)]
    seams = [edge_points(sheet, "side_seam") for sheet in sheets]
    seen, _under = folded(seams[1], creases(sheets[1], "front.drape"))
    assert sum(length(stretch) for stretch in seen) == pytest.approx(length(seams[0]), abs=0.05)
    assert length(seams[1]) > length(seams[0]) + 45.0


def aside(name: str) -> list[Any]:
    """The darts that lie in a front's side."""
    piece = block_file.pattern(room_block(name)).piece("front")
    return [dart for dart in piece.darts if piece.dart_edge(dart.id) == "side_seam"]


SIZES = [name for name in BLOCKS if name != "hip"]  # of nine blocks and a tenth


@pytest.mark.parametrize("name", [*SIZES, "short 88"])
def test_the_order_of_folds_is_kept_on_every_size(name: str) -> None:
    """Both darts and two slashes to one side, numbered from the underarm down as they were asked for."""
    base = block_file.from_value(scaled_value(0.94, 0.9), "short") if name == "short 88" else block(name)
    front = block_file.pattern(base).piece("front")
    (main,) = [dart.id for dart in front.darts if front.dart_edge(dart.id) == "waist"]
    others = [dart.id for dart in front.darts if dart.id != main]
    steps = [{"do": "dart.move", "on": "front", "dart": dart, "to": {"dart": main}} for dart in others]
    order = ["1", f"{main}.left", f"{main}.right", "2"]
    found = done(base, *steps, UNFOLD, drape(edge="side_seam.left", darts=order[1:3], slashes=["2 cm", "25 mm"], order=order))
    told = next(note.text for note in found.derivation.states[-1].notes if "in order" in note.text)
    assert told.endswith(f"1 a slash of 2.0 cm, 2 the left {main} dart, 3 the right {main} dart, 4 a slash of 2.5 cm")
    piece, ats = found.pattern.piece("front"), order_of(found, "front")
    assert ats == sorted(ats)
    for dart, at in zip(order[1:3], ats[1:3], strict=True):
        index = piece.mouth_run(dart)
        mouth = places.sewn_distance(piece, places.Place(index, piece.runs[index].path.length))
        assert piece.dart_edge(dart) == "side_seam.left" and mouth == pytest.approx(at, abs=1e-6)


def test_a_slash_opens_by_its_own_amount_at_the_seam_and_not_at_its_hinge() -> None:
    amounts = [12.0, 34.0, 20.0]
    found = done(real_block(), drape(darts=[], slashes=[f"{mm} mm" for mm in amounts]))
    (full,) = found.pattern.piece("front").fullness
    by = {tuple(line.by) for line in full.lines}
    assert by == {(mm, 0.0) for mm in amounts}
    laid = laid_open(found.pattern.piece("front"))[1][0]
    for line, fold in zip(full.lines, laid.lines, strict=True):
        assert math.dist(fold.folds[0].start, fold.places[0].start) == pytest.approx(line.by[0], abs=1e-6)
        assert math.dist(fold.folds[0].end, fold.places[0].end) == pytest.approx(0.0, abs=1e-6)


def test_folds_point_down_and_lie_where_no_line_crosses_another() -> None:
    found = done(real_block(), UNFOLD, drape(edge="side_seam.left"))
    piece = found.pattern.piece("front")
    drawn = [shapely.LineString([places.point(piece, places.by_origin(piece, end)) for end in (line.start, line.stop)])
             for full in piece.fullness for line in full.lines]  # fmt: skip
    assert not any(a.crosses(b) for k, a in enumerate(drawn) for b in drawn[k + 1 :])
    arrows = [path for id, paths in lines(next(p for p in found.pieces if p.name == "front")).items()
              if id.startswith("front.drape") and id.endswith(".arrow") for path in paths]  # fmt: skip
    shafts = [path for path in arrows if path.length() > 8.0 and len(path) == 2]
    assert shafts and all(path.point(1.0).y > path.point(0.0).y for path in shafts)  # y down: an arrow points to the waist
    numbers = [
        text for text in next(p for p in found.pieces if p.name == "front").texts if text.text in "123456789" and text.bold
    ]
    heights = [text.at[1] for text in sorted(numbers, key=lambda text: int(text.text))]
    assert heights == sorted(heights) and len(heights) == len(order_of(found, "front"))


REFUSED = [
    ([drape(slashes=["40 cm"])], "a slash opened by 40.0 cm", "up to 15.0 cm"),
    ([drape(start="40%", stop="42%")], "a stretch from", "or longer"),
    ([drape(darts=[], slashes=[])], "a drape needs a dart or a slash", "2 to 5 cm"),
    ([drape(order=["1", "1", "2"])], "the order of the folds names", "once"),
    ([drape(edge="side_seam", to="side_seam", darts=[])], "no clear way", "fewer slashes"),
    ([drape(darts=[], slashes=["15 cm"] * 12, taken="gathers")], "no clear way", "fewer slashes"),
]


@pytest.mark.parametrize(("steps", "what", "advice"), REFUSED)
def test_what_cannot_be_is_refused_in_one_sentence(steps: list[dict[str, Any]], what: str, advice: str) -> None:
    ((_number, error),) = made(real_block(), *steps).derivation.broken
    assert what in error.what and advice in error.advice, error
