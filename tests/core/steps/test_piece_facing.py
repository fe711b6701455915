"""Facings that follow the edges they were traced along, and facings of the lower edge of whatever piece it is on; measured on
written sheets. Where no other source is named: common practice, no source."""

from __future__ import annotations

from typing import Any

import pytest

from tests.core.steps.test_trims import done, made
from tests.drafted import ROOM, room_block
from tests.samples import hip_block, real_block
from tests.sheets import lines
from zesty_pivot.core.formats.derived import Derived

UNFOLD = {"do": "piece.unfold", "on": "front"}
PRINCESS = {"do": "line.princess", "on": "front"}
SQUARE = {"do": "neck.shape", "on": "front", "shape": "square"}
LOWER_ARM = {"do": "trim.armhole", "on": "front"}
FLARE = {"do": "fullness.flare", "on": "front"}
CONTOUR = {"do": "line.contour", "on": "back"}


def facing(kind: str, **more: Any) -> dict[str, Any]:
    return {"do": "piece.facing", "on": "front", "kind": kind, **more}


def on_sheet(found: Derived, name: str, *edges: str) -> float:
    piece = next(piece for piece in found.pieces if piece.name == name)
    drawn = lines(piece)
    return sum(path.length(error=1e-9) for edge in edges for path in drawn[edge])


def sewn(found: Derived, piece: str, *edges: str) -> float:
    return sum(found.pattern.piece(piece).edge(edge).sewn_length for edge in edges)


@pytest.mark.parametrize("name", [name for name in ROOM if name not in ("two darts 76", "side and waist 140")])
def test_a_facing_follows_the_neckline_and_the_armhole(name: str) -> None:
    """Shorter by the turn of cloth than each edge as it is after the later steps, which say by how much it changed. (Two of the
    blocks have a step in a seam where a dart is shut, to be trued first.)"""
    found = done(room_block(name), facing("all_in_one", shade="2 mm"), LOWER_ARM, SQUARE)
    for piece in ("front", "back"):
        for edge in ("neckline", "armhole"):
            assert on_sheet(found, f"{piece}_facing", edge) == pytest.approx(sewn(found, piece, edge) - 2.0, abs=0.01)
    told = [note.text for note in found.derivation.states[3].notes if "traced anew" in note.text]
    assert len(told) == 2 and all("neckline" in text for text in told)
    assert not [finding for finding in found.findings if finding.check == "facing_meets"]


@pytest.mark.parametrize("later", [FLARE, CONTOUR, UNFOLD, PRINCESS, LOWER_ARM])
def test_it_is_as_if_it_had_been_traced_afterwards(later: dict[str, Any]) -> None:
    after = done(real_block(), facing("hem"), later).pattern.extras
    before = done(real_block(), later, facing("hem")).pattern.extras
    if later is PRINCESS:  # what has been traced in one piece is still as long as both panels, so it stays
        assert [extra.piece.name for extra in after] == ["front_hem_facing", "back_hem_facing"]
        return
    for one, two in zip(after, before, strict=True):
        mine, theirs = ([edge.sewn_length for edge in extra.piece.edges] for extra in (one, two))
        assert mine == pytest.approx(theirs, abs=1e-6)


def test_a_facing_stays_when_its_edge_does() -> None:
    """Cut into panels, the neckline is on the one at the centre: the facing that goes over the line is still right."""
    found = done(real_block(), facing("neck"), PRINCESS, {"do": "dart.move", "on": "back", "dart": "waist", "to": {
        "station": "mid_armhole"}})  # fmt: skip
    front = next(extra for extra in found.pattern.extras if extra.piece.name == "front_facing")
    assert front.of == ("front_centre",)
    assert front.piece == done(real_block(), facing("neck")).pattern.extras[0].piece
    assert not [finding for finding in found.findings if finding.check == "facing_meets"]


def test_a_lining_stays_as_it_was() -> None:
    found = done(real_block(), facing("lining"), SQUARE)
    lining = next(extra.piece for extra in found.pattern.extras if extra.piece.name == "front_lining")
    assert lining.edge("neckline").sewn_length == pytest.approx(
        done(real_block()).pattern.piece("front").edge("neckline").sewn_length, abs=1e-9
    )


@pytest.mark.parametrize("block", [real_block, hip_block])
def test_a_hem_facing_of_panels(block: Any) -> None:
    """One for each panel; together they are as long as the lower edge less the turn of cloth, and meet at the lines."""
    found = done(block(), PRINCESS, {**PRINCESS, "on": "back"}, facing("hem", depth="5 cm", shade="2 mm"))
    role = "hem" if block is hip_block else "waist"
    for body in ("front", "back"):
        names = [piece.name for piece in found.pattern.come_from(body)]
        assert len(names) == 2
        drawn = sum(on_sheet(found, f"{name}_hem_facing", role) for name in names)
        assert drawn == pytest.approx(sum(sewn(found, name, role) for name in names) - 2.0, abs=0.01)
        ends = [on_sheet(found, f"{name}_hem_facing", "princess") for name in names]
        assert ends == pytest.approx([50.0, 50.0], abs=0.05)


@pytest.mark.parametrize("kind", ["hem", "all_in_one"])
def test_a_facing_of_a_whole_front(kind: str) -> None:
    """Each side follows its own edges; the asymmetric one comes out asymmetric."""
    uneven = {"do": "neck.shape", "on": "front", "shape": "asymmetric"}
    found = done(real_block(), UNFOLD, uneven, facing(kind, shade="1 mm"))
    name = "front_hem_facing" if kind == "hem" else "front_facing"
    for edge in ("waist",) if kind == "hem" else ("neckline", "armhole"):
        for side in ("left", "right"):
            goal = sewn(found, "front", f"{edge}.{side}") - 1.0
            assert on_sheet(found, name, f"{edge}.{side}") == pytest.approx(goal, abs=0.01)
    extra = next(extra for extra in found.pattern.extras if extra.piece.name == name)
    assert extra.cut == "one" and extra.piece.is_unfolded
    if kind == "all_in_one":
        assert abs(on_sheet(found, name, "neckline.left") - on_sheet(found, name, "neckline.right")) > 10.0


def test_too_deep_is_told() -> None:
    ((_at, error),) = made(real_block(), facing("hem", depth="25 cm")).derivation.broken
    assert "deeper than the piece" in str(error)
