"""What torture and trials found, each shrunk to a recipe with its numbers: it is done right, refused, or told of.

The recipes are on the real block of 93 cm bust unless another is named; what is measured is measured on what was written.
"""

import io
from dataclasses import dataclass, field
from typing import Any

import numpy as np
import pytest
import shapely
import svgelements

from tests.samples import move, real_block, style
from tests.torture.blocks import block
from tests.torture.recipes import failures
from zesty_pivot.core.formats import svg
from zesty_pivot.core.formats.derived import Derived, derive

SIDE_WAIST = 3  # the number of the block with a dart in its side seam


def neck(shape: str, **more: Any) -> dict[str, Any]:
    return {"do": "neck.shape", "on": "front", "shape": shape, **more}


def cut(on: str, start: Any, end: Any, **more: Any) -> dict[str, Any]:
    return {"do": "line.cut", "on": on, "from": start, "to": end, **more}


def at(edge: str, share: str) -> dict[str, str]:
    return {"edge": edge, "at": share}


LONELY = "the shoulder of the back is not sewn to anything"
WAIST, NECK_POINT, MID_NECK = {"station": "waist"}, {"station": "neck_point"}, {"station": "mid_neck"}
PARK_BACK = {"do": "dart.park", "on": "back", "darts": ["shoulder"]}
EQUALISE = {"do": "dart.equalise", "on": "front", "darts": ["waist", "shoulder"]}
SMALL_CORNER = cut("front", at("side_seam", "2 mm"), at("armhole", "96%"))


@dataclass(frozen=True)
class Found:
    """Steps; how the refusal of the last step begins, or which findings (check and place in its words) tell of it."""

    steps: list[dict[str, Any]]
    refused: str = ""
    told: dict[str, str] = field(default_factory=dict)
    block: int = 0


FOUND = {
    # Steps that raised, for a reason of their own.
    "keyhole yoke, then raised": Found([neck("keyhole_yoke"), neck("raised")]),
    "a neckline after a band": Found(
        [{"do": "line.band", "on": "front", "edge": "neckline", "width": "3 cm"}, neck("rectangle")],
        "the neckline of the front is on the front neckline band by itself",
    ),
    "a neckline after a funnel": Found([neck("funnel"), neck("raised")]),
    "a neckline after a line from the neckline": Found(
        [move("shoulder", "waist"), cut("front", MID_NECK, at("armhole", "50%")), neck("raised")],
        "the line through the neckline of the front separates it from the shoulder",
    ),
    "a line along a straight edge": Found(
        [cut("back", {"station": "french"}, at("side_seam", "77.1%"))], "the line runs along the edge: nothing is cut off"
    ),
    "a whole taped to a half": Found(
        [
            {"do": "piece.unfold", "on": "back"}, {"do": "dart.park", "on": "front", "darts": ["waist"]},
            {"do": "piece.join", "on": "front", "other": "back"},
        ],
        "the back is unfolded and the other is a half",
    ),
    "a parked dart taped and eased": Found(
        [
            {"do": "piece.side_panel", "on": "front", "other": "back", "front": "3 cm", "back": "3 cm"},
            {"do": "dart.park", "on": "front", "darts": ["waist"]},
            {"do": "piece.join", "on": "front", "other": "side_panel"},
            {"do": "dart.use", "on": "front", "dart": "waist", "as": "ease"},
        ],
        "this would leave the waist dart of the front without a mouth",
    ),
    # The geometry that destroyed an account.
    "the shoulder dart parked, the armhole widened": Found(
        [PARK_BACK, {"do": "trim.armhole", "on": "back", "other": "front", "widen": "2 cm"}]
    ),
    "a keyhole unfolded": Found([neck("keyhole"), {"do": "piece.unfold", "on": "front"}], "an opening is cut into the fold"),
    "a dart low on the side, the armhole widened": Found(
        [{**move("waist", "french"), "to": at("side_seam", "97%")}, {"do": "trim.armhole", "on": "front", "widen": "2 cm"}]
    ),
    "a dart low on the side of a block that has one": Found(
        [{"do": "trim.armhole", "on": "front", "other": "back", "widen": "2 cm"}], block=SIDE_WAIST
    ),
    "a back without its shoulder dart, taped": Found(
        [
            {"do": "trim.strapless", "on": "back", "depth": "shoulder/2 - 1 in"},
            {"do": "dart.merge", "on": "front", "darts": ["shoulder", "waist"], "to": NECK_POINT},
            {"do": "piece.join", "on": "front", "other": "back"},
        ],
    ),
    "what lies open across a cut on one side": Found(
        [
            {"do": "dart.use", "on": "front", "dart": "shoulder", "as": "flare"}, {"do": "piece.unfold", "on": "front"},
            {"do": "line.band", "on": "front", "width": "2.4 cm"},
            cut("front", at("band.right", "2%"), {"station": "centre_neck"}, bow="-0.3 cm"),
        ],
        block=18,
    ),
    "a yoke that takes in more on the left": Found(
        [{"do": "yoke.cut", "on": "back", "at": "1.4 cm", "right": "6.9 cm", "shape": "pointed", "depth": "4.3 cm"}], block=14
    ),
    # The last digits of a report hung on what had been worked out before.
    "the centre panel of a hip-length back unfolded": Found(
        [
            {"do": "line.princess", "on": "back", "from": at("armhole", "46%"), "bow_above": "-1 cm"},
            {"do": "piece.unfold", "on": "back_centre"},
        ],
        block=2,
    ),
    # Inside at a quarter, the middle and three quarters of its way, and across the mouth of the waist dart in between.
    "a slash across an open mouth": Found(
        [{"do": "fullness.slash", "on": "back", "at": {"station": "side_waist"}, "hinge": at("waist", "90%"), "by": "1 cm"}],
        "the slash leaves the piece",
        block=7,
    ),
    # Two points a hair apart made the area of the back invalid, and mending it lost the whole piece: the grain stayed outside.
    "a strapless back beside a side panel": Found(
        [
            {"do": "piece.side_panel", "on": "back", "other": "front", "front": "bust/12", "back": "0.6 cm"},
            {"do": "trim.strapless", "on": "back", "depth": "19 cm"},
        ],
        block=6,
    ),
    "an armhole of a front that was taped to its side panel": Found(
        [
            {"do": "piece.side_panel", "on": "back", "other": "front", "front": "7.1 cm", "back": "2.7 cm"},
            {"do": "piece.join", "on": "side_panel", "other": "front"},
            {"do": "trim.armhole", "on": "side_panel", "shoulder_in": "1.7 cm", "lower": "5 cm", "back": "razor"},
        ],
        "the armhole of the side panel does not run from the shoulder to the side",
    ),
    # The dart went with the shoulder that the cowl cuts off.
    "a dart at the shoulder tip and an armhole cowl": Found(
        [
            {**move("waist", "shoulder_tip", on="back"), "share": "39%"},
            {"do": "drape.cowl_armhole", "on": "front", "inwards": "0", "darts": "none", "facing": "0"},
        ],
        block=20,
    ),
    # Both sides of the midriff are alike but for what was cut away above one of them.
    "one bare shoulder and a contoured midriff": Found(
        [
            {"do": "neck.shape", "on": "back", "other": "front", "shape": "one_shoulder", "side": "right"},
            {"do": "yoke.cut", "on": "back", "kind": "midriff", "at": "7.1 cm", "depth": "0.9 cm", "back_dart": "stay"},
            {"do": "line.contour", "on": "back_midriff", "by": "1.2 cm"},
        ],
        block=12,
    ),
    # Patterns that were wrong without a word.
    "strapless on the front alone": Found([neck("strapless", other="")], told={"partners": LONELY}),
    "off shoulder on the front alone": Found([neck("off_shoulder", other="")], told={"partners": LONELY}),
    "cloth folded out from the centre": Found(
        [{"do": "fullness.slash", "on": "back", "at": at("centre", "60%"), "hinge": at("armhole", "50%"), "by": "-1.5 cm"}],
        told={"centre_line": "the centre of the back has a step"},
    ),
    "a corner of no size cut off": Found([SMALL_CORNER], "the line runs along the edge: nothing is cut off"),
    "a split that gives back what there was": Found(
        [{"do": "dart.split", "on": "front", "dart": "waist", "parts": [{"to": WAIST}]}], told={"idle_step": "step 1"}
    ),
    "equal mouths twice": Found([EQUALISE, EQUALISE], told={"idle_step": "step 2"}),
}  # fmt: skip


def derived(found: Found) -> Derived:
    return derive(style(found.steps, block(found.block) if found.block else real_block()))


@pytest.mark.parametrize("name", FOUND)
def test_what_was_found(name: str) -> None:
    found = FOUND[name]
    made = derived(found)
    broken = [fault.what for _number, fault in made.derivation.broken]
    if found.refused:
        assert broken and broken[0].startswith(found.refused), broken
        number = made.derivation.broken[0][0]
        assert made.derivation.states[number].pattern is made.derivation.states[number - 1].pattern
    else:
        assert not broken
    for check, words in found.told.items():
        assert any(words in one.message or words == one.piece for one in made.findings if one.check == check), made.findings
    assert all(abs(account.missing_deg) < 1e-6 for account in made.look.accounts)
    assert failures(made.style, deep=True) == []


def drawn(text: bytes) -> tuple[list[shapely.LineString], shapely.Polygon, list[shapely.LineString]]:
    """Seams, cut line and grain of a written piece, mm, read with svgelements."""
    lines: dict[str, list[shapely.LineString]] = {"seam": [], "fold": [], "cut": [], "grain": []}
    for element in svgelements.SVG.parse(io.BytesIO(text), ppi=25.4).elements():
        kind = element.values.get("class") if isinstance(element, svgelements.Path) else None
        for part in element.as_subpaths() if kind in lines else ():
            points = [segment.point(share) for segment in svgelements.Path(part)[1:] for share in np.linspace(0.0, 1.0, 33)]
            lines[kind].append(shapely.LineString([(point.x, point.y) for point in points]))
    return [*lines["seam"], *lines["fold"]], shapely.Polygon(lines["cut"][0].coords), lines["grain"]


OUTSIDE = {
    "a raised neck over a dart in the centre": [move("shoulder", "centre_bust"), neck("raised")],
    "four parallel darts": [
        {"do": "dart.fan", "on": "front", "dart": "waist", "count": 4, "parallel": True, "spacing": "3 cm"}
    ],
    "a dart bowed across the armhole": [
        move("shoulder", "mid_armhole"), {"do": "dart.shape", "on": "front", "dart": "shoulder", "bow": "3 cm"},
    ],
    "a dart bowed in": [
        move("shoulder", "mid_armhole"), {"do": "dart.shape", "on": "front", "dart": "shoulder", "bow": "-3 cm"},
    ],
}  # fmt: skip


@pytest.mark.parametrize("name", OUTSIDE)
def test_the_written_seam_lies_inside_the_written_cut_line(name: str) -> None:
    """No part of a seam is lost by the offset; where there can be no cut line none is drawn, and that is told."""
    made = derive(style(OUTSIDE[name]))
    for piece in made.pieces:
        if piece.fault:
            assert any(one.check == "cut_line" and one.piece == piece.name for one in made.findings)
            continue
        seams, cloth, _grain = drawn(svg.piece_svg(piece))
        assert cloth.is_valid
        assert sum(line.difference(cloth.buffer(0.05)).length for line in seams) < 0.05, piece.name
    assert failures(made.style, deep=True) == []


def test_the_grain_arrow_lies_in_the_piece() -> None:
    made = derive(style([cut("back", WAIST, NECK_POINT)]))
    for piece in made.pieces:
        _seams, cloth, (arrow, *_heads) = drawn(svg.piece_svg(piece))
        assert arrow.difference(cloth).length == 0.0 and arrow.length > 20.0, piece.name
