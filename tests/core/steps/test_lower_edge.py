"""A back trimmed at CB in one curve to the side, across its shut dart and across panels: six blocks, by own arithmetic."""

from __future__ import annotations

import math

import numpy as np
import pytest

from tests.core.steps.test_neck_trade import length
from tests.drafted import ROOM, room_block
from tests.samples import worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.ledger import girths
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry

IN = 25.4
LINE = {"do": "line.princess", "on": "back"}


def done(name: str, *steps: dict) -> Pattern:  # type: ignore[type-arg]
    return worked(list(steps), block_file.pattern(room_block(name))).pattern


def sewn_corner(piece: Piece, dart: str) -> float:
    """The corner (degrees) of the lower edge across a dart shut at its pivot, by turning one end with NumPy."""
    index = piece.mouth_run(dart)
    one, two = piece.runs[index].path, piece.runs[piece.after(index)].path
    pin = piece.pivot(piece.dart(dart).pivot)
    a, b = one.end - pin, two.start - pin
    shut = math.atan2(a[1], a[0]) - math.atan2(b[1], b[0])
    turned = np.array([[math.cos(shut), -math.sin(shut)], [math.sin(shut), math.cos(shut)]]) @ two.start_direction
    return math.degrees(
        math.atan2(one.end_direction[0] * turned[1] - one.end_direction[1] * turned[0], one.end_direction @ turned)
    )


def seam_corner(side: Piece, centre: Piece) -> float:
    """The corner (degrees) of the lower edge where two panels meet, by the angles at both corners less 180."""
    total = 0.0
    for piece in (side, centre):
        for index, run in enumerate(piece.runs):
            after = piece.runs[piece.after(index)]
            if {piece.role(run.edge), piece.role(after.edge)} == {"waist", "style_line"}:
                one, two = -run.path.end_direction, after.path.start_direction
                total += math.degrees(math.acos(float(np.clip(one @ two, -1.0, 1.0))))
    return total - 180.0


@pytest.mark.parametrize("by", ["1 in", "-1 cm"])
@pytest.mark.parametrize("name", ROOM)
def test_across_a_shut_dart(name: str, by: str) -> None:
    """It was refused: "a dart opens in the waist"."""
    before, after = done(name).piece("back"), done(name, {"do": "trim.hem", "by": by}).piece("back")
    gone = IN if by == "1 in" else -10.0
    assert length(after, "centre") == pytest.approx(length(before, "centre") - gone, abs=1e-3)
    assert length(after, "side_seam") == pytest.approx(length(before, "side_seam"), abs=1e-6)
    old, new = before.legs("waist"), after.legs("waist")
    assert new[0] - new[1] == pytest.approx(old[0] - old[1], abs=0.4)  # raised alike where the dart is shut
    assert after.angle("waist") == pytest.approx(before.angle("waist"), abs=1e-6)
    assert sewn_corner(after, "waist") == pytest.approx(sewn_corner(before, "waist"), abs=1.0)  # no new corner


@pytest.mark.parametrize("on", ["back", "back_centre"])
@pytest.mark.parametrize("name", ROOM)
def test_across_panels(name: str, on: str) -> None:
    """One curve from the side seam over the panels' seam to CB; both lines of the seam are cut off alike."""
    before, after = done(name, LINE), done(name, LINE, {"do": "trim.hem", "on": on, "by": "1 in"})
    side, centre = after.piece("back_side"), after.piece("back_centre")
    assert length(centre, "centre") == pytest.approx(length(before.piece("back_centre"), "centre") - IN, abs=1e-3)
    assert length(side, "side_seam") == pytest.approx(length(before.piece("back_side"), "side_seam"), abs=1e-6)
    lines = [[length(made.piece(f"back_{of}"), "style_line") for of in ("centre", "side")] for made in (before, after)]
    cut = [one - two for one, two in zip(*lines, strict=True)]
    assert cut[0] == pytest.approx(cut[1], abs=1e-3) and 2.0 < cut[0] < IN
    was = seam_corner(before.piece("back_side"), before.piece("back_centre"))
    assert seam_corner(side, centre) == pytest.approx(was, abs=1.0)


# A contoured centre whose width is given back at the side.


@pytest.mark.parametrize("before", [(), (LINE,)])
@pytest.mark.parametrize("name", ROOM)
def test_a_contour_gives_its_width_back_at_the_side(name: str, before: tuple[dict, ...]) -> None:  # type: ignore[type-arg]
    on = "back_centre" if before else "back"
    plain = done(name, *before)
    taken, given = (
        done(name, *before, {"do": "line.contour", "on": on, "by": "3/4 in", "give_back": where}) for where in ("none", "side")
    )
    waists = [sum(length(piece, "waist") for piece in made.come_from("back")) for made in (plain, taken, given)]
    assert waists[1] == pytest.approx(waists[0] - 0.75 * IN, abs=0.1)
    assert waists[2] == pytest.approx(waists[0], abs=0.5)
    block = block_file.pattern(room_block(name))
    round_ = [girths(made, block).waist or 0.0 for made in (plain, taken, given)]
    assert round_[2] == pytest.approx(round_[0], abs=1.5) and round_[1] == pytest.approx(round_[0] - 1.5 * IN, abs=0.2)
    unders = [next(p for p in made.come_from("back") if "side_seam" in dict(p.roles).values()) for made in (taken, given)]
    assert unders[0].corner("underarm") == pytest.approx(unders[1].corner("underarm"), abs=1e-6)


def test_a_dart_at_the_corner_with_the_centre_is_refused() -> None:
    """Its angle was lost: 10 degrees of the blade's were missing."""
    block = block_file.pattern(room_block("two darts 93"))
    park = {"do": "dart.park", "on": "back", "darts": ["shoulder"], "to": {"station": "centre_waist"}}
    steps = [registry.read(step) for step in (park, {"do": "trim.hem", "on": "back", "by": "-0.2 cm"})]
    ((number, fault),) = Evaluator().evaluate(block, steps, Scope("cm")).broken
    assert number == 2 and "opens at the end of the waist" in str(fault)
