"""Hand sheets: followed from their printed figures alone, they give the pattern; and they read as they should."""

import random
from pathlib import Path

import numpy as np
import pytest

from tests.core.recipe.following import furthest, played
from tests.paper import mm
from tests.samples import move, real_pattern, worked
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.spot import STATION_WORDS, STATIONS
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Derivation, Evaluator
from zesty_pivot.core.recipe.hand import hand_sheet
from zesty_pivot.core.steps import registry

DEMO_BLOCK = Path(__file__).parents[3] / "src/zesty_pivot/data/demo/quillmere.zblock"
UNITS = ("mm", "cm", "in")

NEAR = 1.4  # mm: a few mouths off by half a sixteenth of an inch each, and what lies farther out than they do by more


def blocks() -> tuple[Pattern, Pattern]:
    return real_pattern(), block_file.pattern(block_file.read(DEMO_BLOCK))


def random_recipe(seed: int, block: Pattern, scope: Scope) -> Derivation:
    """Five steps that can be done: whole darts and shares, to stations, shares of edges and lengths, and truing."""
    chance = random.Random(seed)
    steps: list = []
    evaluator = Evaluator()
    lengths = {"mm": ["30", "45"], "cm": ["3", "4.5"], "in": ["1 1/4", "2 3/16"]}[scope.unit]
    derivation = evaluator.evaluate(block, steps, scope)
    for _ in range(200):
        piece = derivation.pattern.piece(chance.choice(["front", "front", "back"]))
        kind = chance.random()
        if kind < 0.15 and len(piece.darts) > 1:
            named = chance.sample([dart.id for dart in piece.darts], 2)
            step = {"do": chance.choice(["dart.merge", "dart.equalise"]), "on": piece.name, "darts": named}
        elif kind < 0.3:
            parts = [{"to": {"station": "mid_armhole"}, "share": "35%"}, {"to": {"station": "mid_neck"}, "share": "20%"}]
            step = {"do": "dart.split", "on": piece.name, "dart": chance.choice(piece.darts).id, "parts": parts}
        elif kind < 0.5:
            edge = chance.choice(["waist", "side_seam", "shoulder"])
            step = {"do": "piece.true", "on": piece.name, "edge": edge, "over": chance.choice(lengths)}
        else:
            to = chance.choice([
                {"station": chance.choice(["mid_neck", "mid_armhole", "side_bust", "french", "waist", "centre_bust"])},
                {"edge": chance.choice(["shoulder", "armhole"]), "at": f"{chance.randint(100, 900) / 10}%"},
                {"edge": "side_seam", "from": "side_waist", "at": chance.choice(lengths)},
            ])  # fmt: skip
            share = chance.choice(["100%", "100%", "50%", f"{chance.randint(20, 80)}%"])
            step = {"do": "dart.move", "on": piece.name, "dart": chance.choice(piece.darts).id, "to": to, "share": share}
        tried = evaluator.evaluate(block, [*steps, registry.read(step)], scope)
        if not tried.broken and tried.pattern is not derivation.pattern:
            steps, derivation = [*steps, registry.read(step)], tried
        if len(steps) == 5:
            return derivation
    raise AssertionError("no recipe found")


@pytest.mark.parametrize("seed", range(10))
@pytest.mark.parametrize("way", ["pivot", "slash"])
def test_a_sheet_played_back_gives_the_pattern(seed: int, way: str) -> None:
    """With the numbers rounded as printed (a millimetre, a sixteenth of an inch): each mouth is off by half of that at most,
    and nothing is measured farther out than the dart is long, as hands do."""
    scope = Scope(UNITS[seed % 3])
    derivation = random_recipe(seed, blocks()[seed % 2], scope)
    papers = played(derivation, scope, way)
    for piece in derivation.pattern.pieces:
        assert furthest(papers[piece.name], piece) < NEAR, [s.step.words() for s in derivation.states[1:]]


def test_the_oracle_sees_a_wrong_number() -> None:
    """The playback must be able to fail: a share a quarter off is seen."""
    derivation = worked([move("waist", "mid_armhole", share="40%")])
    paper = played(derivation, Scope("cm"), "slash")["front"]
    other = worked([move("waist", "mid_armhole", share="50%")]).pattern.piece("front")
    assert furthest(paper, derivation.pattern.piece("front")) < NEAR
    assert furthest(paper, other) > NEAR


@pytest.mark.parametrize("unit", UNITS)
def test_every_figure_stands_in_its_text(unit: str) -> None:
    derivation = worked([move("shoulder", "french", share="40%"), {"do": "piece.true", "on": "front", "edge": "waist"}])
    lines = [line for section in hand_sheet(derivation, Scope(unit), "pivot") for line in section.lines]
    assert len(lines) > 8
    for line in lines:
        text = line.text.lower()
        missing = [name for name, value in line.figures.items() if name not in ("pin", "dart") and value.lower() not in text]
        assert not missing, (line, missing)


def test_lengths_are_printed_to_a_millimetre_or_a_sixteenth() -> None:
    derivation = worked([move("shoulder", "side_bust", share="35%")])
    for unit, grain in (("mm", 1.0), ("cm", 1.0), ("in", 25.4 / 16)):
        for section in hand_sheet(derivation, Scope(unit), "slash"):
            for line in section.lines:
                for name in ("chord", "mouth", "at"):
                    if name in line.figures:
                        count = mm(line.figures[name]) / grain
                        assert count == pytest.approx(round(count), abs=1e-6)


def test_both_ways_and_what_cannot_be_done() -> None:
    steps = [move("waist", "mid_armhole"), {**move("waist", "french"), "off": True}, move("nothing", "french")]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], Scope("cm"))
    pivot, slash = (hand_sheet(found, Scope("cm"), way) for way in ("pivot", "slash"))
    assert [section.number for section in pivot] == [0, 1, 3]
    assert "pin" in {line.do for line in pivot[1].lines} and "cut" not in {line.do for line in pivot[1].lines}
    assert "cut" in {line.do for line in slash[1].lines} and "pin" not in {line.do for line in slash[1].lines}
    assert pivot[2].lines[0].do == "broken" and "nothing" in pivot[2].lines[0].text


def test_block_marks_come_first() -> None:
    """A mark that the block decides is made before the first cut, also when a later step needs it."""
    found = worked([move("waist", "mid_armhole"), move("shoulder", "centre_bust"), move("waist", "waist")])
    first = hand_sheet(found, Scope("cm"), "pivot")[0]
    assert [line.do for line in first.lines if line.do.startswith("mark")] == ["mark_level", "mark_dart"]
    assert np.isfinite(mm("1 15/16 in")) and mm("1 15/16 in") == pytest.approx(49.2125)


OTHERS = {
    "fan": [{"do": "dart.fan", "on": "front", "dart": "waist", "count": 3, "spacing": "2 cm", "parallel": True}],
    "tucks": [move("shoulder", "mid_neck", "40%"),
              {"do": "dart.use", "on": "front", "dart": "mid_neck", "as": "tucks", "count": 2, "spacing": "2 cm"}],
    "gathers": [{"do": "dart.use", "on": "front", "dart": "shoulder", "as": "gathers"}],
    "park": [{"do": "dart.park", "on": "front", "darts": ["shoulder", "waist"], "to": {"station": "side_bust"}}],
    "park and return": [{"do": "dart.park", "on": "front", "darts": ["shoulder"]}, {"do": "dart.return", "on": "front"}],
    "slash": [{"do": "fullness.slash", "on": "front", "at": {"edge": "waist", "at": "8%"},
               "hinge": {"edge": "armhole", "at": "85%"}, "by": "3 cm"}],
    "fold out": [{"do": "fullness.slash", "on": "front", "at": {"edge": "waist", "at": "8%"},
                  "hinge": {"edge": "armhole", "at": "85%"}, "by": "-1 cm"}],
    "wedge out": [{"do": "fullness.slash", "on": "front", "at": {"edge": "neckline", "at": "4 cm"}, "dart": "waist",
                   "by": "-1 cm"}],
    "flare": [{"do": "fullness.flare", "on": "back", "hinge": "armhole", "count": 2, "by": "2 cm", "start": "5%",
               "stop": "25%", "hinge_start": "20%", "hinge_stop": "40%"}],
    "equal axes": [{"do": "dart.split", "on": "front", "dart": "shoulder", "equal": True,
                    "parts": [{"to": {"edge": "neckline", "as_far_as": "waist"}}, {"to": {"dart": "waist"}}]}],
    "shape": [{"do": "dart.shape", "on": "back", "dart": "waist", "bend": "1 cm"}],
}  # fmt: skip


@pytest.mark.parametrize("name", OTHERS)
@pytest.mark.parametrize("unit", UNITS)
@pytest.mark.parametrize("way", ["pivot", "slash"])
def test_other_steps_played_back(name: str, unit: str, way: str) -> None:
    """Every kind of step; tucks and gathers change no outline beyond their moves. Spacings are whole in the unit, as a person
    who works in it would ask: half of 2 cm cannot be told in sixteenths to half a millimetre."""
    scope = Scope(unit, {})
    steps = [{**step, "spacing": "3/4 in"} if unit == "in" and "spacing" in step else step for step in OTHERS[name]]
    found = Evaluator().evaluate(real_pattern(), [registry.read(step) for step in steps], scope)
    assert not found.broken, found.broken
    papers = played(found, scope, way)
    for piece in found.pattern.pieces:
        assert furthest(papers[piece.name], piece) < NEAR, name


@pytest.mark.parametrize("station", [name for name, spot in STATIONS.items() if spot.level is None])
def test_a_place_is_measured_and_called_by_its_name(station: str) -> None:
    """Own arithmetic: the share of the length of the edge, and the station's words in brackets."""
    for dart in ("waist", "shoulder"):
        derivation = worked([move(dart, station)])
        edge, at = STATIONS[station].edge, float((STATIONS[station].at or "0%").rstrip("%"))
        # Of an edge in two parts beside an open dart, both are measured and the mouth is skipped.
        total = sum(run.path.length for run in derivation.block.piece("front").runs if run.edge == edge) / 10.0
        share = total * at / 100.0
        said = [step.text for section in hand_sheet(derivation, Scope("cm"), "pivot") for step in section.lines]
        if at == 0.0:  # an end of the edge: nothing is measured
            named = f"({STATION_WORDS[station]})"
            assert [text for text in said if named in text and "the place is the end of the" in text and "0 " not in text]
            continue
        (place,) = [text for text in said if "of the way along" in text]
        start = f"On the front, go {at:g}% of the way along the {edge.replace('_', ' ')} from the "
        assert place.startswith(start), place
        end = f", open mouths skipped ({STATION_WORDS[station]}): {share:.1f} cm of {total:.1f} cm."
        assert end in place, (place, end)
