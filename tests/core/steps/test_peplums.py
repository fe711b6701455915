"""Peplums measured on written sheets by svgelements; where no other source is named: common practice, no source."""

from __future__ import annotations

from typing import Any

import pytest

from tests.core.steps.trims import done, on_sheet, round_, trim
from tests.drafted import room_block
from tests.samples import real_block


def test_an_uneven_peplum_is_longer_on_the_left_as_worn() -> None:
    """A front drawn right side up has the wearer's left at x > 0, a back at x < 0; both side seams match."""
    found = done(real_block(), trim("trim.peplum", hem="uneven", dip="6 cm", depth="15 cm"))
    front, back = (extra.piece for extra in found.pattern.extras)
    sides = {}
    for name, piece in (("front", front), ("back", back)):
        for edge in ("end", "end_back"):
            path = piece.edge(edge).runs[0].path
            is_left = (path.start[0] > 0.0) == (name == "front")
            sides[name, is_left] = path.length
    assert sides["front", True] == pytest.approx(sides["back", True]) == pytest.approx(210.0)
    assert sides["front", False] == pytest.approx(sides["back", False]) == pytest.approx(150.0)
    assert [extra.cut for extra in found.pattern.extras] == ["up", "up"]


PEPLUMS: list[dict[str, Any]] = [
    {}, {"kind": "slashed"}, {"kind": "gathered", "ratio": 2.0}, {"kind": "pleated"}, {"kind": "shaped"}, {"hem": "dipped"},
    {"raised_by": "1 in"},
]  # fmt: skip


@pytest.mark.parametrize("more", PEPLUMS, ids=str)
@pytest.mark.parametrize("name", ["two darts 93", "drafted 124"])
def test_a_peplum_fits_the_finished_waist(name: str, more: dict[str, Any]) -> None:
    found = done(room_block(name), trim("trim.peplum", **more))
    for body in ("front", "back"):
        waist = found.pattern.piece(body).edge("waist").sewn_length
        extra = next(extra for extra in found.pattern.extras if extra.piece.name == f"waist_peplum_{body}")
        once = on_sheet(found, extra.piece.name)
        taken = {"gathered": waist, "pleated": 4 * 2 * 20.0}.get(more.get("kind", ""), 0.0)
        assert once - taken == pytest.approx(waist, abs=0.01)
    front, back = (extra.piece.edge("side").sewn_length for extra in found.pattern.extras)
    assert front == pytest.approx(back, abs=1e-6)
    if more.get("raised_by"):
        plain = done(room_block(name), trim("trim.peplum"))
        for body in ("front", "back"):
            seams = [one.pattern.piece(body).edge("side_seam").sewn_length for one in (plain, found)]
            assert seams[0] - seams[1] == pytest.approx(25.4, abs=1e-6)
        assert all(abs(account.missing_deg) < 1e-9 for account in found.look.accounts)


def test_a_peplum_of_panels_a_side_panel_and_a_whole_front_goes_all_round() -> None:
    panel = {"do": "piece.side_panel", "on": "front", "other": "back", "front": "3 cm", "back": "4 cm"}
    ways = (
        [panel],
        [trim("line.princess")],
        [trim("piece.unfold")],
        [trim("piece.unfold"), trim("dart.park", darts=["waist.left"])],
    )
    for steps in ways:
        found = done(real_block(), *steps, trim("trim.peplum"))
        around = sum(on_sheet(found, e.piece.name) * (1 if e.cut == "up" else 2) for e in found.pattern.extras)
        assert around == pytest.approx(round_(found.pattern, "waist"), abs=0.01), steps


def test_a_peplum_opens_where_the_garment_does() -> None:
    zip_ = {"do": "neck.opening", "on": "back", "kind": "zip", "length": "20 cm"}
    found = done(real_block(), zip_, trim("trim.placket"), trim("trim.peplum"))
    cuts = {extra.piece.name: extra.cut for extra in found.pattern.extras}
    assert cuts["waist_peplum_front"] == "pair" and cuts["waist_peplum_back"] == "pair"
    shut = done(real_block(), trim("trim.peplum"))
    assert {extra.cut for extra in shut.pattern.extras} == {"fold"}
