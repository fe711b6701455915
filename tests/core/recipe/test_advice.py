"""What a refusal advises is done once, and leads to no other refusal."""

from __future__ import annotations

import re
from pathlib import Path
from typing import Any

import pytest

import zesty_pivot.core
from tests.drafted import room_block
from tests.samples import move
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Derivation, Evaluator
from zesty_pivot.core.steps import registry

Step = dict[str, Any]
TWO, SIDE, HOLLOW = "two darts 93", "side and waist 91", "side and waist 140"


def do(what: str, on: str = "front", **more: Any) -> Step:
    return {"do": what, "on": on, **{key.rstrip("_"): value for key, value in more.items()}}


def neck(shape: str, on: str = "front", **more: Any) -> Step:
    return do("neck.shape", on, shape=shape, **more)


def at(station: str) -> Step:
    return {"station": station}


def use(as_: str, dart: str = "waist", on: str = "front") -> Step:
    return {"do": "dart.use", "on": on, "dart": dart, "as": as_}


UNFOLD, LINE = do("piece.unfold"), do("line.princess")
NECK_LINE = do("line.princess", from_=at("mid_neck"))
SIDE_PANEL = do("piece.side_panel", other="back")
PARK = {"do": "dart.park", "on": "front", "darts": ["shoulder"]}
SEAM = do("piece.true_seam", other="back", seam="side_seam", edge="waist")
STRAIGHT = do("piece.true", edge="shoulder", straight=True)
YOKE = do("line.cut", from_={"edge": "armhole", "at": "30%"}, to={"edge": "centre", "from": "centre_neck", "at": "8 cm"})
FISH = do("dart.fan", dart="waist", count=2)
FLARED = do("fullness.flare", by="2 cm")
HIP = do("trim.hem", "front", by="5 mm")

# The block, the recipe that is refused, the advice in its words, and the recipe with that done.
ADVISED: list[tuple[str, list[Step], str, list[Step]]] = [
    (TWO, [LINE, LINE], "do this before the line that cut it", [LINE]),
    (TWO, [NECK_LINE, neck("funnel")], "Raise the neckline before that line", [neck("funnel"), NECK_LINE]),
    (TWO, [NECK_LINE, neck("asymmetric")], "Shape it before the style line", [neck("asymmetric"), NECK_LINE]),
    (TWO, [LINE, neck("keyhole_yoke")], "Shape the neckline before the style line", [neck("keyhole_yoke"), LINE]),
    (TWO, [LINE, do("trim.strapless", "front_centre")], "Cut it before princess lines", [do("trim.strapless"), LINE]),
    (TWO, [LINE, do("trim.strapless", "front_centre")], "take the strapless neckline", [LINE, neck("strapless")]),
    (
        TWO, [do("line.princess", from_=at("mid_armhole")), do("trim.armhole", other="")], "Do this before the style line",
        [do("trim.armhole", other=""), do("line.princess", from_=at("mid_armhole"))],
    ),
    (TWO, [SIDE_PANEL, SEAM], "Do this before a side panel", [SEAM, SIDE_PANEL]),
    (TWO, [SIDE_PANEL, do("piece.side_seam", other="back")], "Do this before a side panel", [do("piece.side_seam", other="back"), SIDE_PANEL]),
    (TWO, [STRAIGHT], "Move or park it first", [PARK, STRAIGHT]),
    (TWO, [STRAIGHT], "or blend instead", [do("piece.true", edge="shoulder")]),
    (TWO, [move("waist", "centre_bust"), do("line.contour")], "Move it away first", [move("waist", "side_bust"), do("line.contour")]),
    (TWO, [use("gathers"), do("dart.shape", dart="waist", bow="3 mm")], "sew it as a dart again first", [use("gathers"), use("dart"), do("dart.shape", dart="waist", bow="3 mm")]),
    (TWO, [UNFOLD, do("piece.facing", kind="all_in_one")], "trace it before it is unfolded", [do("piece.facing", kind="all_in_one"), UNFOLD]),
    (TWO, [UNFOLD, do("piece.facing", kind="hem")], "Trace it before it is unfolded", [do("piece.facing", kind="hem"), UNFOLD]),
    (TWO, [UNFOLD, do("piece.facing", kind="all_in_one")], "Choose a neck facing", [UNFOLD, do("piece.facing", kind="neck")]),
    (TWO, [use("flare"), do("trim.hem", by="5 mm")], "Trim it before", [do("trim.hem", by="5 mm"), use("flare")]),
    (TWO, [move("waist", "centre_waist"), do("trim.hem", by="5 mm")], "Move it away first", [move("waist", "french"), do("trim.hem", by="5 mm")]),
    (TWO, [move("waist", "side_waist"), do("piece.side_seam", other="back")], "Move it along the side seam", [move("waist", "side_bust"), do("piece.side_seam", other="back")]),
    (HOLLOW, [do("piece.side_seam", other="back")], "True the side seam first", [do("piece.true", edge="side_seam"), do("piece.side_seam", other="back")]),
    (HOLLOW, [do("piece.side_panel", other="back")], "True the side seam first", [do("piece.true", edge="side_seam"), do("piece.side_panel", other="back")]),
    (TWO, [PARK, move("shoulder", "french", "50%"), do("dart.return")], "Bring it back before that step", [PARK, do("dart.return"), move("shoulder", "french", "50%")]),
    (TWO, [move("waist", "centre_bust"), UNFOLD], "Cut a seam there instead", [do("dart.merge", darts=["waist", "shoulder"], to=at("side_bust")), UNFOLD]),
    (TWO, [UNFOLD, {"do": "dart.move", "on": "front", "dart": "waist.left", "to": {"edge": "neckline", "at": "30%", "side": "right"}}, LINE], "Take it back to its own side first", [UNFOLD, LINE]),
]  # fmt: skip


def tried(block: str, steps: list[Step]) -> Derivation:
    known = room_block(block)
    return Evaluator().evaluate(
        block_file.pattern(known), [registry.read(step) for step in steps], Scope("cm", known.measurements)
    )


@pytest.mark.parametrize(("block", "refused", "says", "followed"), ADVISED, ids=[row[2] for row in ADVISED])
def test_the_advice_of_a_refusal_leads_on(block: str, refused: list[Step], says: str, followed: list[Step]) -> None:
    told = tried(block, refused).broken
    assert told and says in told[-1][1].advice, told
    made = tried(block, followed)
    assert not made.broken, made.broken
    assert all(abs(account.missing_deg) < 1e-9 for account in accounts(made.pattern, made.block))
