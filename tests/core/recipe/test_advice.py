"""What a refusal advises is done once, and leads to no other refusal."""

from __future__ import annotations

import re
from typing import Any

import pytest

from tests.drafted import room_block
from tests.samples import move
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Derivation, Evaluator
from zesty_pivot.core.steps import registry

Step = dict[str, Any]
TWO, SMALL, WIDE = "two darts 93", "two darts 76", "side and waist 140"


def do(what: str, on: str = "front", **more: Any) -> Step:
    return {"do": what, "on": on, **{key.rstrip("_"): value for key, value in more.items()}}


def neck(shape: str, on: str = "front", **more: Any) -> Step:
    return do("neck.shape", on, shape=shape, **more)


def at(station: str) -> Step:
    return {"station": station}


def use(as_: str, dart: str = "waist", on: str = "front") -> Step:
    return {"do": "dart.use", "on": on, "dart": dart, "as": as_}


UNFOLD, LINE = do("piece.unfold"), do("line.princess")
NECK_LINE, ARM_LINE = (do("line.princess", from_=at(place)) for place in ("mid_neck", "mid_armhole"))
SIDE_PANEL, SIDE_SEAM = do("piece.side_panel", other="back"), do("piece.side_seam", other="back")
ARMHOLE, STRAPLESS = do("trim.armhole", other=""), do("trim.strapless")
ON_PANEL = do("trim.strapless", "front_centre")
PARK, BACK = do("dart.park", darts=["shoulder"]), do("dart.return")
PART = move("shoulder", "french", "50%")
SEAM = do("piece.true_seam", other="back", seam="side_seam", edge="waist")
STRAIGHT, SMOOTH = do("piece.true", edge="shoulder", straight=True), do("piece.true", edge="shoulder")
SIDE_TRUE = do("piece.true", edge="side_seam")
CONTOUR, HEM, SHAPED = do("line.contour"), do("trim.hem", by="5 mm"), do("dart.shape", dart="waist", bow="3 mm")
ARMHOLE_COWL = do("drape.cowl_armhole")
IN_ONE, NECK_FACING, HEM_FACING, CAMI_FACING = (
    do("piece.facing", kind=kind) for kind in ("all_in_one", "neck", "hem", "camisole")
)
TO_FRENCH = move("shoulder", "french")
TO_SIDE = do("dart.merge", darts=["waist", "shoulder"], to=at("side_bust"))
OVER = do("dart.move", dart="waist.left", to={"edge": "neckline", "at": "30%", "side": "right"})
ROUND_BUST, CORNER, AT_SIDE = (move("waist", place) for place in ("centre_bust", "centre_waist", "side_waist"))
BUST, FRENCH = move("waist", "side_bust"), move("waist", "french")

# The block, the recipe that is refused, the advice in its words, and the recipe with that done.
ADVISED: list[tuple[str, list[Step], str, list[Step]]] = [
    (TWO, [LINE, LINE], "do this before the line that cut it", [LINE]),
    (TWO, [NECK_LINE, neck("funnel")], "Raise the neckline before that line", [neck("funnel"), NECK_LINE]),
    (TWO, [NECK_LINE, neck("asymmetric")], "Shape it before the style line", [neck("asymmetric"), NECK_LINE]),
    (TWO, [LINE, neck("keyhole_yoke")], "Shape the neckline before the style line", [neck("keyhole_yoke"), LINE]),
    (TWO, [LINE, ON_PANEL], "Cut it before princess lines", [STRAPLESS, LINE]),
    (TWO, [LINE, ON_PANEL], "take the strapless neckline", [LINE, neck("strapless")]),
    (TWO, [ARM_LINE, ARMHOLE], "Do this before the style line", [ARMHOLE, ARM_LINE]),
    (TWO, [SIDE_PANEL, SEAM], "Do this before a side panel", [SEAM, SIDE_PANEL]),
    (TWO, [SIDE_PANEL, SIDE_SEAM], "Do this before a side panel", [SIDE_SEAM, SIDE_PANEL]),
    (TWO, [STRAIGHT], "Move or park it first", [PARK, STRAIGHT]),
    (TWO, [STRAIGHT], "or blend instead", [SMOOTH]),
    (TWO, [ROUND_BUST, CONTOUR], "Move it away first", [BUST, CONTOUR]),
    (TWO, [use("gathers"), SHAPED], "sew it as a dart again first", [use("gathers"), use("dart"), SHAPED]),
    (TWO, [ARMHOLE_COWL, NECK_FACING], "Trace the facing before they are joined", [NECK_FACING, ARMHOLE_COWL]),
    (TWO, [use("flare"), HEM], "Trim it before", [HEM, use("flare")]),
    (TWO, [CORNER, HEM], "Move it away first", [FRENCH, HEM]),
    (TWO, [AT_SIDE, SIDE_SEAM], "Move it along the side seam", [BUST, SIDE_SEAM]),
    (WIDE, [SIDE_SEAM], "True the side seam first", [SIDE_TRUE, SIDE_SEAM]),
    (WIDE, [SIDE_PANEL], "True the side seam first", [SIDE_TRUE, SIDE_PANEL]),
    (SMALL, [TO_FRENCH, NECK_FACING], "true the shoulder, first", [TO_FRENCH, SMOOTH, NECK_FACING]),
    (WIDE, [neck("camisole"), CAMI_FACING], "true the side seam, first", [SIDE_TRUE, neck("camisole"), CAMI_FACING]),
    (TWO, [PARK, PART, BACK], "Bring it back before that step", [PARK, BACK, PART]),
    (TWO, [ROUND_BUST, UNFOLD], "Cut a seam there instead", [TO_SIDE, UNFOLD]),
    (TWO, [UNFOLD, OVER, LINE], "Take it back to its own side first", [UNFOLD, LINE]),
]


def tried(block: str, steps: list[Step], unit: str = "cm") -> Derivation:
    known = room_block(block)
    return Evaluator().evaluate(
        block_file.pattern(known), [registry.read(step) for step in steps], Scope(unit, known.measurements)
    )


@pytest.mark.parametrize(("block", "refused", "says", "followed"), ADVISED, ids=[row[2] for row in ADVISED])
def test_the_advice_of_a_refusal_leads_on(block: str, refused: list[Step], says: str, followed: list[Step]) -> None:
    told = tried(block, refused).broken
    assert told and says in told[-1][1].advice, told
    made = tried(block, followed)
    assert not made.broken, made.broken
    assert all(abs(account.missing_deg) < 1e-9 for account in accounts(made.pattern, made.block))


INCHES = [
    [do("line.princess", from_=at("mid_armhole"), top="1 in")],
    [do("dart.split", dart="shoulder", equal=True, parts=[
        {"to": {"edge": "neckline", "as_far_as": "bust_point"}}, {"to": {"dart": "waist"}},
    ])],
    [neck("round", width="2 in")],
]  # fmt: skip


@pytest.mark.parametrize("steps", INCHES)
def test_a_style_in_inches_is_refused_in_inches(steps: list[Step]) -> None:
    for unit, other in (("in", r"\d (cm|mm)\b"), ("cm", r"\d in\b")):
        ((_number, fault),) = tried(TWO, steps, unit).broken
        assert re.search(rf"\d {unit}\b", f"{fault.what} {fault.advice}") and not re.search(
            other, f"{fault.what} {fault.advice}"
        )
