"""Which is front and back, which corner is which, which darts: by the outline alone, on blocks of random people.

Bars of the acceptance: right on 95 of 100, and what is wrong is never called sure.
"""

from __future__ import annotations

import math
import random
from dataclasses import dataclass, field

import numpy as np
import pytest
import shapely

from tests.paper_blocks import Lay, PaperPiece, dotted, flattened, from_anywhere, pieces_of
from tests.random_blocks import random_block
from tests.samples import real_block
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.tagged_block import block_of
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.guesses import Sure
from zesty_pivot.core.intake.inside import distance_of, opened
from zesty_pivot.core.intake.loops import join
from zesty_pivot.core.intake.placing import Tagged
from zesty_pivot.core.intake.tagging import tagged
from zesty_pivot.core.intake.traced import TracedPaper, TracedPiece

NOISE = 0.2  # mm
STRETCH = 0.12


@dataclass
class Tally:
    """What was found on some blocks: which were right, and what was wrong though it was called sure."""

    blocks: int = 0
    right: int = 0
    wrong_but_sure: list[str] = field(default_factory=list)
    wrong: list[str] = field(default_factory=list)


def look(seed: int, way: str, tally: Tally, *, is_alone: bool = False) -> None:
    """One random block, tagged with no hint, compared with what it is."""
    chance = random.Random(seed)
    pieces = pieces_of(random_block(seed), Lay.chance(chance, stretch=STRETCH), to_pivot=chance.random() < 0.3)
    chance.shuffle(pieces)
    pieces = pieces[:1] if is_alone else pieces
    tally.blocks += 1
    try:
        tagging = tagged(TracedPaper(tuple(on_file(piece, way, chance) for piece in pieces)))
        block_of(tagging)
    except ZestyError as fault:
        tally.wrong.append(f"{seed}: {fault}")
        return
    faults = []
    for number, piece in enumerate(pieces):
        found = tagging.pieces.get(number)
        if found is None:
            faults.append(("", f"{piece.name} is not tagged: {tagging.others[number].why}"))
            continue
        faults += compared(found, piece, 2.0 if way == "noise" else 0.05)
        sures = {guess.what: guess.sure for guess in found.guesses}
        tally.wrong_but_sure += [
            f"{seed} {piece.name}: {what}" for key, what in faults if sures.get(key) in (Sure.SURE, Sure.SAID)
        ]
    tally.right += not faults
    tally.wrong += [f"{seed}: {what}" for _key, what in faults]


def on_file(piece: PaperPiece, way: str, chance: random.Random) -> TracedPiece:
    """The outline as curves, as short lines, or as points with noise, from anywhere and either way round."""
    outline, eyes = from_anywhere(piece.outline, chance), piece.eyes
    if way == "short lines":
        outline = flattened(outline)
    elif way == "noise":
        outline = dotted(outline, chance, NOISE)
        eyes = tuple(dotted(eye, chance, NOISE) for eye in eyes)
    return TracedPiece(join([outline]).loops[0], inner=eyes)


def compared(found: Tagged, piece: PaperPiece, within: float) -> list[tuple[str, str]]:
    """What is wrong, with the guess that says how sure it was."""
    faults = []
    if found.body.value != piece.name:
        faults.append(("body", f"the {piece.name} is taken for the {found.body.value}"))
    if found.is_hip != piece.is_hip:
        faults.append(("length", "waist for hip length or the other way"))
    below = {"centre_waist": "centre_hem", "side_waist": "side_hem"} if piece.is_hip else {}
    for name, at in found.seen.corners.items():
        off = math.dist(at, found.motion(piece.corners[below.get(name, name)]))
        if off > within:
            faults.append(("corners", f"{name} is off by {off:.2f} mm"))
    darts = {dart.id: dart for dart in found.darts}
    if set(darts) != set(piece.darts):
        faults.append(("darts", f"darts {sorted(darts)}, not {sorted(piece.darts)}"))
    for id, (_a, _b, point) in piece.darts.items():
        if id in darts and (off := math.dist(darts[id].cut.point, found.motion(point))) > 1.5 * within:
            faults.append((f"dart {id}", f"the {id} dart's point is off by {off:.2f} mm"))
    if piece.bust_point is not None and "bust_point" in found.inside:
        off = math.dist(found.inside["bust_point"], found.motion(np.array(piece.bust_point)))
        sure = next(guess.sure for guess in found.guesses if guess.what == "bust_point")
        if off > 5.0 and sure is Sure.SURE:
            faults.append(("bust_point", f"the bust point is off by {off:.1f} mm"))
    return faults


@pytest.mark.parametrize(
    ("way", "first", "count"),
    [("curves", 0, 36), ("short lines", 5000, 12), pytest.param("noise", 7000, 24, marks=pytest.mark.whole)],
)
def test_random_blocks(way: str, first: int, count: int) -> None:
    """`make torture` looks at hundreds."""
    tally = Tally()
    for seed in range(first, first + count):
        look(seed, way, tally)
    assert tally.right >= 0.95 * tally.blocks, tally.wrong
    assert not tally.wrong_but_sure


def test_one_piece_alone() -> None:
    """Without its partner front or back is told by its darts; by the neckline alone it is not called sure."""
    tally = Tally()
    for seed in range(9000, 9040):
        look(seed, "curves", tally, is_alone=True)
    assert tally.right >= 0.95 * tally.blocks, tally.wrong
    assert not tally.wrong_but_sure


def test_what_is_no_bodice_is_not_called_sure() -> None:
    """Sleeves, skirts, collars and plain shapes: refused, or unsure."""
    from zesty_pivot.core.geometry import Path

    shapes = {
        "rectangle": [(0, 0), (400, 0), (400, 600), (0, 600)],
        "skirt": [(0, 0), (180, 10), (240, 200), (260, 700), (0, 700)],
        "collar": [(0, 0), (200, 20), (220, 90), (0, 80)],
        "pocket": [(0, 0), (150, 0), (150, 120), (75, 170), (0, 120), (0, 60)],
        "stair": [(0, 0), (100, 0), (100, 100), (200, 100), (200, 300), (0, 300)],
    }
    for name, corners in shapes.items():
        outline = Path.straight(*corners, corners[0])
        try:
            found = tagged(TracedPaper((TracedPiece(outline),)))
        except ZestyError as fault:
            assert "bodice" in fault.what, name
            continue
        assert any(guess.sure is Sure.UNSURE for _number, guess in found.guesses), name


def test_spots_without_number_take_no_time() -> None:
    """A photograph of a speckled cloth: an outline of thousands of points with hundreds of spots took minutes of looking for
    darts between them."""
    t = np.linspace(0.0, 2.0 * math.pi, 4000)
    ring = np.stack([200.0 + 180.0 * np.cos(t), 260.0 + 240.0 * np.sin(t)], axis=1)
    spots = tuple((float(x), float(y)) for x, y in np.random.default_rng(1).uniform((100, 100), (300, 400), (300, 2)))
    notches = tuple((float(x), float(y)) for x, y in ring[::170])
    piece = TracedPiece(Path.polyline(ring), holes=spots, notches=notches, strays=0.1)
    assert opened(piece).piece is piece


def test_the_distance_along_an_outline_is_shapelys() -> None:
    """Straight lines and curves mixed, points near and far: Shapely's projection on the fine polyline."""
    chance = random.Random(2)
    for laid in pieces_of(real_block(), Lay()):
        outline = laid.outline
        line = shapely.LineString(outline.flatten(0.0005))
        for _round in range(40):
            at = np.array([chance.uniform(-50, 400), chance.uniform(-50, 500)])
            found = outline.point_at(distance_of(outline, at))
            assert math.dist(found, at) == pytest.approx(line.distance(shapely.Point(at)), abs=0.02)
