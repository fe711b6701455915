"""Armhole cowls on ten blocks: front and back in one piece, straight from shoulder to shoulder, as deep as asked, nothing else
changed. Where no other source is named: common practice, no source."""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pytest
import shapely

from tests.core.steps.test_drape_cowl import BLOCKS, block, done, made
from tests.samples import real_block, real_pattern
from tests.sheets import lines
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.moves.turned_back import turned_out
from zesty_pivot.core.piece import Pattern, Piece

NAME = "front_and_back"


def cowl(**more: Any) -> dict[str, Any]:
    return {"do": "drape.cowl_armhole", "on": "front", "other": "back", **more}


def edge_on_sheet(found: Derived) -> list[np.ndarray]:
    """The corners of the edge on the written sheet, folded or plain: one shoulder, the middle where it is marked, the other."""
    drawn = lines(next(piece for piece in found.pieces if piece.name == NAME))
    paths = drawn.get("armhole.fold") or drawn["armhole"]
    points = [np.array([part.end.x, part.end.y]) for path in paths for part in path]
    return [point for k, point in enumerate(points) if not k or math.dist(point, points[k - 1]) > 0.01]


def length(piece: Piece, role: str) -> float:
    return sum(run.path.length for run in piece.runs if piece.role(run.edge) == role)


def lowest_of_side(piece: Piece) -> np.ndarray:
    """Where front and back were laid together: the lower end of the front's side."""
    role = "waist" if "waist" in dict(piece.roles).values() else "hem"
    return next(run.path.start for run in piece.runs if piece.role(run.edge) == role and run.source.edge == f"front.{role}")


@pytest.mark.parametrize("grain", ["straight", "bias"])
@pytest.mark.parametrize("name", BLOCKS)
def test_it_is_straight_square_and_as_long_as_asked(name: str, grain: str) -> None:
    """On the sheet: one straight line from shoulder to shoulder, twice as long as it hangs deep (both its ends are at one
    shoulder, so the opening is nothing and the sag relation gives the half edge), square to the line down to the side."""
    usual = done(block(name), cowl(grain=grain)).derivation.states[1].notes[0].amount_mm
    asked = math.floor(usual + 12.0)
    found = done(block(name), cowl(grain=grain, depth=f"{asked} mm"))
    tip, *_middle, other = edge_on_sheet(found)
    assert math.dist(tip, other) == pytest.approx(2.0 * asked, abs=0.01)
    piece = found.pattern.piece(NAME)
    edge = [run.path for run in piece.runs if piece.role(run.edge) == "armhole"]
    chord = shapely.LineString([edge[0].start, edge[1].end])
    assert chord.distance(shapely.Point(edge[0].end)) < 1e-6
    down, along = lowest_of_side(piece) - edge[0].end, edge[0].end - edge[0].start
    turn = math.degrees(math.acos(float(down @ along) / math.hypot(*down) / math.hypot(*along)))
    assert turn == pytest.approx(90.0, abs=0.01)
    assert piece.grain is not None
    grain_way = np.subtract(piece.grain[1], piece.grain[0])
    lean = math.degrees(math.acos(abs(float(grain_way @ along)) / math.hypot(*grain_way) / math.hypot(*along)))
    if grain == "bias":
        assert lean == pytest.approx(45.0, abs=1e-6)


@pytest.mark.parametrize("name", BLOCKS)
def test_all_other_edges_are_the_blocks(name: str) -> None:
    """Hinged at the lower end of the side: waist or hem, necklines, centres and shoulders are as long as they were."""
    before = block_file.pattern(block(name))
    piece = done(block(name), cowl(darts="none", inwards="1 cm")).pattern.piece(NAME)
    for role in ("waist", "hem", "neckline", "centre"):
        assert length(piece, role) == pytest.approx(sum(length(one, role) for one in before.pieces), abs=1e-6)
    assert length(piece, "shoulder") == pytest.approx(sum(length(one, "shoulder") for one in before.pieces) - 20.0, abs=1e-6)
    assert "side_seam" not in dict(piece.roles)
    ring = np.concatenate([run.path.outline for run in turned_out(piece)[0].runs]).round(6)
    assert shapely.Polygon(ring).is_valid


def test_what_the_darts_give_stands_in_the_account() -> None:
    found = done(real_block(), cowl(darts="all"))
    drapes = {entry.dart: entry.deg for account in found.look.accounts for entry in account.placed if entry.use == "drape"}
    assert len(drapes) >= 2 and not found.pattern.piece(NAME).darts
    assert sum(account.block_deg for account in found.look.accounts) == pytest.approx(
        sum(entry.deg for account in found.look.accounts for entry in account.placed), abs=1e-9
    )


@pytest.mark.parametrize("inwards", ["0", "2 cm"])
def test_a_dart_at_the_shoulder_tip_goes_into_it(inwards: str) -> None:
    """It opens where the cowl begins, so it is let in whether it was asked for or not; `done` has the account whole."""
    moved = {"do": "dart.move", "on": "back", "dart": "waist", "to": {"station": "shoulder_tip"}, "share": "39%"}
    found = done(real_block(), moved, cowl(inwards=inwards, darts="none"))
    gave = [entry.deg for account in found.look.accounts for entry in account.placed if entry.use == "drape"]
    (whole,) = [dart for dart in real_pattern().piece("back").darts if dart.id == "waist"]
    assert gave == pytest.approx([0.39 * math.degrees(real_pattern().piece("back").angle(whole.id))], abs=1e-9)


def test_the_shoulder_is_still_a_seam_of_the_one_piece() -> None:
    found = done(real_block(), cowl())
    (seam,) = found.pattern.seams
    assert {part.edge for part in seam.parts} == {"shoulder", "shoulder_back"}
    said = [finding.message for finding in found.findings if finding.check == "seam_partners"]
    assert said == ["the front and back shoulder back is 0.30 cm longer than the front and back shoulder"]


def test_the_facing_goes_over_both_shoulders() -> None:
    """Turned out, its ends are the shoulders' mirror images; the piece unfolded has one under each arm."""
    piece = done(real_block(), cowl(facing="9 cm")).pattern.piece(NAME)
    out, folds = turned_out(piece)
    ((_edge, fold),) = folds
    start, end = fold.start, fold.end
    axis = (end - start) / math.dist(start, end)
    for run in out.runs:
        if not run.edge.endswith("_facing"):
            continue
        shoulder = next(one for one in piece.runs if min(math.dist(one.path.end, start), math.dist(one.path.start, end)) < 1e-9
                        and one.edge == run.edge.removesuffix("_facing"))  # fmt: skip
        far = [np.array(run.path.start), np.array(run.path.end)]
        point = max(far, key=lambda p: min(math.dist(p, start), math.dist(p, end)))
        gap = point - start
        mirrored = start + 2.0 * float(gap @ axis) * axis - gap
        assert shapely.LineString(shoulder.path.outline).distance(shapely.Point(mirrored)) < 1e-6
    whole = done(real_block(), cowl(facing="9 cm"), {"do": "piece.unfold", "on": NAME}).pattern.piece(NAME)
    turned, both = turned_out(whole)
    assert len(both) == 2 and sum(mark.kind == "hole" for mark in turned.marks) == 2


def test_a_neckline_after_it_is_drawn_on_front_and_back() -> None:
    """As if it had been drawn before: the pieces are taken apart for it and laid together again."""
    square = {"do": "neck.shape", "on": "front", "other": "back", "shape": "square"}
    after, before = (done(real_block(), *steps).pattern.piece(NAME) for steps in ((cowl(), square), (square, cowl())))
    for one, two in zip(after.runs, before.runs, strict=True):
        assert one.edge == two.edge and np.allclose(one.path.outline, two.path.outline, atol=1e-6)


def test_trims_go_on_over_both() -> None:
    """The waistband is as long as the waist was, and a binding of the neckline crosses no corner that is not there."""
    found = done(
        real_block(), cowl(darts="none"), {"do": "trim.binding", "on": "front"}, {"do": "trim.waistband", "on": "front"}
    )
    lengths = {extra.piece.name: extra.edge_mm for extra in found.pattern.extras}
    assert lengths["waistband"] == pytest.approx(2.0 * sum(length(p, "waist") for p in real_pattern().pieces), abs=1e-6)
    assert lengths["neckline_binding"] == pytest.approx(
        2.0 * sum(length(p, "neckline") for p in real_pattern().pieces), abs=1e-6
    )
    binding = next(extra for extra in found.pattern.extras if extra.piece.name == "neckline_binding")
    assert "corner" not in binding.told


REFUSED: list[tuple[list[dict[str, Any]], str]] = [
    ([cowl(depth="5 cm")], "it has to hang below the arm"),
    ([cowl(depth="90 cm")], "would fold the piece over itself"),
    ([cowl(inwards="30 cm")], "in on the shoulder"),
    ([cowl(facing="40 cm")], "a facing 40.0 cm deep"),
    ([cowl(other="")], "Name its partner"),
    ([{"do": "piece.unfold", "on": "front"}, cowl()], "not a half"),
    ([cowl(), cowl()], "in parts by now"),
    ([cowl(), {"do": "piece.facing", "on": NAME, "other": ""}], "front and back in one"),
    ([cowl(), {"do": "drape.cowl", "on": NAME, "other": ""}], "not a half"),
    ([cowl(), {"do": "neck.shape", "on": NAME, "other": "", "shape": "v"}], "no piece of the block"),
]  # fmt: skip


@pytest.mark.parametrize(("steps", "said"), REFUSED)
def test_what_cannot_be_is_told(steps: list[dict[str, Any]], said: str) -> None:
    ((_at, error),) = made(real_block(), *steps).derivation.broken
    assert said in str(error) and str(error).endswith(".")


def test_the_advice_works() -> None:
    """Both bounds that a refusal names can be entered."""
    ((_at, error),) = made(real_block(), cowl(depth="5 cm")).derivation.broken
    low, high = (f"{word} cm" for word in str(error).split("Enter ")[1].removesuffix(".").replace(" cm", "").split(" to "))
    for depth in (low, high):
        assert isinstance(done(real_block(), cowl(depth=depth)).pattern, Pattern)


def test_a_peplum_under_it_has_its_side_and_a_seam_at_the_back() -> None:
    """The waist runs on under the arm; its two halves are told apart, and only CF lies on the fold."""
    found = done(
        real_block(), cowl(darts="none"), {"do": "trim.peplum", "on": "front"}, {"do": "trim.waistband", "on": "front"}
    )
    extras = {extra.piece.name: extra for extra in found.pattern.extras}
    waists = {piece.name: length(piece, "waist") for piece in real_pattern().pieces}
    for body, cut in (("front", "fold"), ("back", "pair")):
        extra = extras[f"waist_peplum_{body}"]
        assert extra.piece.edge("seam").sewn_length == pytest.approx(waists[body], abs=1e-6) and extra.cut == cut
    assert [mark.name for mark in extras["waistband"].piece.notches].count("side") == 2
