"""Recipes of any steps in any order on stretched blocks: every step is done or says why not, and nothing is lost."""

import random
from collections.abc import Callable

import pytest

from tests.samples import hip_value, scaled_value
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.necklines.registry import all_shapes
from zesty_pivot.core.piece.spot import ALL_STATIONS
from zesty_pivot.core.recipe.hand import hand_sheet
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.piece_facing import TITLES

EDGES = ("neckline", "shoulder", "armhole", "side_seam", "waist", "centre")
DARTS = ("shoulder", "waist", "shoulder", "waist", "mid_neck", "mid_armhole", "shoulder-1", "waist-2", "waist.right")
USES = ("dart", "gathers", "tucks", "pleats", "ease", "flare")


def spot(chance: random.Random) -> dict:  # type: ignore[type-arg]
    if chance.random() < 0.6:
        return {"station": chance.choice(ALL_STATIONS)}
    at = f"{chance.randint(0, 100)}%" if chance.random() < 0.6 else f"{chance.randint(0, 30)} cm"
    return {"edge": chance.choice(EDGES), "at": at}


def any_step(chance: random.Random) -> dict:  # type: ignore[type-arg]
    """A step of any kind, sensible or not."""
    on, dart = chance.choice(["front", "front", "back", "back", "front_side", "back_centre"]), chance.choice(DARTS)
    other = "back" if on == "front" else "front"

    def length(low: float, high: float) -> str:
        return f"{chance.uniform(low, high):.1f} cm"

    end = {"hinge": spot(chance)} if chance.random() < 0.6 else {"dart": dart}
    edge = chance.choice(["waist", "shoulder", "armhole", "side_seam", "neckline"])
    made: dict[str, Callable[[], dict]] = {  # type: ignore[type-arg]
        "dart.move": lambda: {"dart": dart, "to": spot(chance), "share": f"{chance.randint(5, 100)}%"},
        "dart.split": lambda: {"dart": dart, "parts": [{"to": spot(chance), "share": "30%"}, {"to": spot(chance)}]},
        "dart.fan": lambda: {"dart": dart, "count": chance.randint(2, 9), "spacing": length(0.1, 5),
                             "parallel": chance.random() < 0.5},
        "dart.use": lambda: {"dart": dart, "as": chance.choice(USES), "count": chance.randint(1, 5), "spacing": length(0.3, 5),
                             "stitched": length(1, 20), "cloth": "soft", "over": length(0.1, 20), "raised": length(0, 3)},
        "dart.shape": lambda: {"dart": dart, "bow": length(-2, 3), "at": f"{chance.randint(5, 95)}%"},
        "dart.fisheye": lambda: {"intake": length(-1, 8), "top": length(-2, 12), "bottom": length(-2, 12), "bow": "1 mm"},
        "dart.park": lambda: {"darts": [dart], "to": spot(chance)},
        "dart.return": dict,
        "dart.merge": lambda: {"darts": ["shoulder", "waist"], "to": spot(chance)},
        "dart.equalise": lambda: {"darts": ["shoulder", "waist"]},
        "fullness.slash": lambda: {"at": spot(chance), "by": length(-4, 8), **end},
        "fullness.flare": lambda: {"edge": edge, "hinge": chance.choice(EDGES), "count": chance.randint(1, 5),
                                   "by": length(0.1, 6)},
        "piece.true": lambda: {"edge": edge, "over": length(0.2, 12), "straight": chance.random() < 0.2},
        "piece.true_seam": lambda: {"other": other, "seam": chance.choice(["shoulder", "side_seam"]), "edge": "armhole"},
        "piece.square": lambda: {"edge": edge, "over": length(0.2, 9)},
        "piece.side_seam": lambda: {"other": other, "by": length(0.1, 9)},
        "piece.side_panel": lambda: {"other": other, "front": length(0.5, 8), "back": length(0.5, 8)},
        "line.princess": lambda: {"from": spot(chance), "past": length(-1, 1), "rest": chance.choice(["ease", "dart"]),
                                  "bow_above": length(-3, 1), "school": chance.choice(["darts", "hollow", "close"])},
        "line.cut": lambda: {"from": spot(chance), "to": spot(chance), "bow": length(-3, 3), "peak": "40%",
                             "shape": chance.choice(["line", "heart", "keyhole"]), "width": length(0, 8)},
        "line.band": lambda: {"edge": chance.choice(["neckline", "armhole", "waist"]), "width": length(0.5, 8)},
        "line.contour": lambda: {"by": length(0, 3), "to": chance.choice(["chest", "armhole"])},
        "trim.hem": lambda: {"by": length(-2, 3)},
        "trim.strapless": lambda: {"depth": length(8, 30), "shape": chance.choice(["straight", "sweetheart"])},
        "neck.shape": lambda: {
            "other": other, "shape": chance.choice(list(all_shapes())),
            **({"width": length(6, 20)} if chance.random() < 0.3 else {}),
            **({"depth": length(6, 40)} if chance.random() < 0.3 else {}), "side": chance.choice(["left", "right"]),
        },
        "neck.gape": lambda: {"amount": length(0, 3), "at": spot(chance)},
        "neck.opening": lambda: {"kind": chance.choice(["zip", "slit"]), "length": length(2, 40)},
        "trim.armhole": lambda: {"other": other, "shoulder_in": length(0, 5), "lower": length(-3, 5), "widen": length(-2, 2),
                                 "back": chance.choice(["plain", "razor"])},
        "piece.facing": lambda: {"other": other, "depth": length(2, 9), "kind": chance.choice(list(TITLES))},
        "piece.join": lambda: {"other": chance.choice([other, f"{on}_panel", f"{on}_side"])},
        "piece.unfold": dict,
    }  # fmt: skip
    do = chance.choice(list(made))
    return {"do": do, "on": on, **made[do]()}


def panels_first(chance: random.Random) -> list[dict]:  # type: ignore[type-arg]
    """Steps that leave panels behind, for the rest to work on."""
    on = chance.choice(["front", "back"])
    start = {"edge": chance.choice(["shoulder", "armhole"]), "at": f"{chance.randint(30, 65)}%"}
    heart = {"edge": "centre", "at": "80%"}, {"edge": "centre", "at": "60%"}
    ways = [
        [{"do": "line.princess", "on": on, "from": start, "bow_above": "-1 cm"}],
        [{"do": "line.cut", "on": on, "from": heart[0], "to": heart[1], "shape": "heart", "width": "2 cm"},
         {"do": "piece.join", "on": on, "other": f"{on}_panel"}],
        [{"do": "dart.park", "on": on, "darts": ["shoulder"]}, {"do": "dart.return", "on": on}],
    ]  # fmt: skip
    return chance.choice(ways)


def random_style(seed: int) -> Style:
    chance = random.Random(seed)
    value = scaled_value(chance.uniform(0.75, 1.4), chance.uniform(0.8, 1.3)) if chance.random() < 0.8 else hip_value()
    values = panels_first(chance) if chance.random() < 0.4 else []
    values += [any_step(chance) for _ in range(chance.randint(3, 9))]
    steps = tuple(registry.read(value) for value in values)
    return Style(name="Any", block=block_file.from_value(value, "any"), steps=steps, units=chance.choice(["cm", "in"]))


@pytest.mark.parametrize("seed", range(100))
def test_any_recipe_is_worked_out_whole(seed: int) -> None:
    """Findings, finish, sheet and hand sheets as well; faults are one sentence."""
    found: Derived = derive(random_style(seed))
    for _number, fault in found.derivation.broken:
        assert "\n" not in str(fault) and fault.what
    for account in accounts(found.pattern, found.derivation.block):
        assert account.is_whole, (seed, account)
    assert len(found.pieces) == len(found.pattern.pieces) + len(found.pattern.extras) and found.sheet.width > 0.0
    assert all(finding.advice for finding in found.findings)
    for way in ("pivot", "slash"):
        assert len(hand_sheet(found.derivation, found.style.scope(), way)) >= 1  # type: ignore[arg-type]


def test_the_steps_are_all_tried() -> None:
    tried = {step.do for seed in range(100) for step in random_style(seed).steps}
    assert tried == set(registry.all_steps())
    done = {
        state.step.do
        for seed in range(100)
        for state in derive(random_style(seed)).derivation.states
        if state.step is not None and state.error is None
    }
    assert len(done) >= len(tried) - 2, tried - done
