"""Random steps: of every kind, sensible or not, on what is there now or on anything."""

from __future__ import annotations

import random
from collections.abc import Callable
from typing import Any, Literal, get_args, get_origin

from zesty_pivot.core.necklines.registry import all_shapes
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.piece.spot import ALL_STATIONS, Spot
from zesty_pivot.core.procedures.tape_measure import LAYINGS
from zesty_pivot.core.procedures.worn_edge import WORN
from zesty_pivot.core.quantity.fields import InUnits, OfWhole
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.piece_facing import TITLES

Value = dict[str, Any]

EDGES = ("neckline", "shoulder", "armhole", "side_seam", "waist", "centre")
DARTS = ("shoulder", "waist", "shoulder", "waist", "mid_neck", "mid_armhole", "shoulder-1", "waist-2", "waist.right")
USES = ("dart", "gathers", "tucks", "pleats", "ease", "flare")
PIECES = ("front", "front", "back", "back", "front_side", "back_centre")
ODD_LENGTHS = ("0", "0 cm", "-3 cm", "1e3", "99 cm", "0.01 mm", "bust/12", "shoulder/2 - 1 in", "5 1/4 in")


class Chooser:
    """Random places, lengths and names; `pattern` is what the step will meet, None for anything at all."""

    def __init__(self, chance: random.Random, pattern: Pattern | None) -> None:
        self.chance = chance
        knows = pattern is not None and bool(pattern.pieces) and chance.random() < 0.85
        self.piece = chance.choice(pattern.pieces) if knows and pattern is not None else None
        others = [piece.name for piece in pattern.pieces if piece is not self.piece] if knows and pattern is not None else []
        self.on = self.piece.name if self.piece is not None else chance.choice(PIECES)
        self.other = chance.choice(others) if others else "back" if self.on == "front" else "front"

    def dart(self) -> str:
        held = [dart.id for dart in self.piece.darts] if self.piece is not None else []
        return self.chance.choice(held) if held and self.chance.random() < 0.9 else self.chance.choice(DARTS)

    def darts(self) -> list[str]:
        return list(dict.fromkeys(self.dart() for _ in range(self.chance.choice([1, 2, 2, 3]))))

    def edge(self) -> str:
        held = [edge for edge, _role in self.piece.roles] if self.piece is not None else []
        return self.chance.choice(held) if held and self.chance.random() < 0.9 else self.chance.choice(EDGES)

    def spot(self) -> Value:
        way = self.chance.random()
        if way < 0.45:
            return {"station": self.chance.choice(ALL_STATIONS)}
        if way < 0.5:
            return {"dart": self.dart()}
        if way < 0.57:
            return {"edge": self.edge(), "level": self.chance.choice(["chest", "bust", "under_bust", "waist", "hip"])}
        at = f"{self.chance.randint(0, 100)}%" if self.chance.random() < 0.7 else f"{self.chance.randint(0, 30)} cm"
        if self.chance.random() < 0.15:
            at = f"{self.chance.uniform(0.0, 100.0):.1f}%"
        return {"edge": self.edge(), "at": at}

    def end(self) -> Value:
        """An end of a tape."""
        way, on = self.chance.random(), {"on": self.other} if self.chance.random() < 0.25 else {}
        if way < 0.3:
            return {"dart": self.dart(), "part": self.chance.choice(["first", "second", "pivot", "sewn"]), **on}
        if way < 0.6:
            away = {"across": self.length(-5, 20), "down": self.length(-5, 20)} if self.chance.random() < 0.5 else {}
            return {"landmark": self.chance.choice(["bust_point", "neck_point", "underarm", "blade_point"]), **away, **on}
        spot = self.spot()
        return {**(spot if "dart" not in spot else {"station": "mid_shoulder"}), **on}

    def length(self, low: float, high: float) -> str:
        if self.chance.random() < 0.04:
            return self.chance.choice(ODD_LENGTHS)
        return f"{self.chance.uniform(low, high):.1f} cm"

    def let_in(self) -> Value:
        """Where fullness begins and where its slashes lead."""
        chance = self.chance
        found: Value = {"far": chance.choice([None, "0%", "50%", "100%"]), "far_end": chance.choice([None, "free", "taken"])}
        if chance.random() < 0.3:
            found |= {"to": self.edge()}
        return found

    def share(self) -> str:
        return f"{self.chance.randint(5, 100)}%"


def any_step(chance: random.Random, pattern: Pattern | None = None) -> Value:
    """A step of any kind, sensible or not."""
    at = Chooser(chance, pattern)
    dart, other, length = at.dart(), at.other, at.length
    end = {"hinge": at.spot()} if chance.random() < 0.6 else {"dart": dart}
    edge = at.edge()
    made: dict[str, Callable[[], Value]] = {
        "dart.move": lambda: {"dart": dart, "to": at.spot(), "share": at.share()},
        "dart.split": lambda: {"dart": dart, "parts": [{"to": at.spot(), "share": "30%"}, {"to": at.spot()}]},
        "dart.fan": lambda: {"dart": dart, "count": chance.randint(2, 9), "spacing": length(0.1, 5),
                             "parallel": chance.random() < 0.5},
        "dart.use": lambda: {"dart": dart, "as": chance.choice(USES), "count": chance.randint(1, 5), "spacing": length(0.3, 5),
                             "stitched": length(1, 20), "cloth": "soft", "over": length(0.1, 20), "raised": length(0, 3)},
        "dart.shape": lambda: {"dart": dart, "bow": length(-2, 3), "at": f"{chance.randint(5, 95)}%",
                               **({"bend": length(-3, 3)} if chance.random() < 0.3 else {})},
        "dart.fisheye": lambda: {"intake": length(-1, 8), "top": length(-2, 12), "bottom": length(-2, 12), "bow": "1 mm"},
        "dart.park": lambda: {"darts": at.darts(), "to": at.spot()},
        "dart.return": dict,
        "dart.merge": lambda: {"darts": at.darts() if chance.random() < 0.5 else ["shoulder", "waist"], "to": at.spot()},
        "dart.equalise": lambda: {"darts": at.darts() if chance.random() < 0.5 else ["shoulder", "waist"]},
        "fullness.slash": lambda: {"at": at.spot(), "by": length(-4, 8), **end},
        "fullness.flare": lambda: {"edge": edge, "hinge": at.edge(), "count": chance.randint(1, 5), "by": length(0.1, 6)},
        "piece.true": lambda: {"edge": edge, "over": length(0.2, 12), "straight": chance.random() < 0.2},
        "piece.true_seam": lambda: {"other": other, "seam": chance.choice(["shoulder", "side_seam"]),
                                    "edge": chance.choice(["armhole", "neckline", "waist"])},
        "piece.square": lambda: {"edge": edge, "over": length(0.2, 9)},
        "piece.side_seam": lambda: {"other": other, "by": length(0.1, 9)},
        "piece.side_panel": lambda: {"other": other, "front": length(0.5, 8), "back": length(0.5, 8)},
        "line.princess": lambda: {"from": at.spot(), "past": length(-1, 1), "rest": chance.choice(["bend", "dart"]),
                                  "bow_above": length(-3, 1), "school": chance.choice(["darts", "hollow", "close"])},
        "line.cut": lambda: {"from": at.spot(), "to": at.spot(), "peak": "40%", "width": length(0, 8),
                             "bow": length(-3, 3) if chance.random() < 0.5 else "0",
                             "shape": chance.choice(["line", "line", "heart", "keyhole"])},
        "line.band": lambda: {"edge": chance.choice(["neckline", "armhole", "waist"]), "width": length(0.5, 8)},
        "line.contour": lambda: {"by": length(0, 3), "to": chance.choice(["chest", "armhole"])},
        "trim.hem": lambda: {"by": length(-2, 3)},
        "yoke.cut": lambda: {
            "kind": chance.choice(["yoke", "yoke", "midriff", "hip"]),
            "shape": chance.choice(["straight", "curved", "pointed", "scalloped"]),
            "at": chance.choice([None, length(1, 15), f"{chance.randint(5, 95)}%"]),
            "centre": chance.choice([None, length(0, 6)]), "depth": length(0, 6),
            "back_dart": chance.choice(["taper", "stay"]), "right": chance.choice([None, None, length(1, 15)]),
            "led": chance.choice([None, None, dart]), "seam": chance.choice(["plain", "lapped", "piped"]), "cord": length(0, 1),
            "seam_darts": chance.choice(["sewn", "sewn", "gathers", "pleats", "tucks"]),
        },
        "yoke.join": lambda: {
            **({"on": "front_yoke", "other": "back_yoke"} if chance.random() < 0.7 else {"other": other}),
            "forward": chance.choice([None, length(0, 4)]), "seam": chance.choice(["joined", "joined", "kept"]),
            "grain": chance.choice(["back", "front"]),
        },
        "fullness.gather": lambda: {
            "edge": edge, **at.let_in(), "raised": length(0, 2), "rows": chance.randint(0, 4),
            **chance.choice([{"ratio": chance.uniform(1.1, 4)}, {"by": length(0, 40)}, {"fit": True}, {}]),
        },
        "fullness.pleat": lambda: {
            "edge": edge, **at.let_in(), "kind": chance.choice(["knife", "box", "inverted", "accordion"]),
            "count": chance.randint(1, 12), "depth": chance.choice([None, length(0.1, 4)]), "stitched": length(0, 12),
            "spacing": chance.choice([None, length(0.2, 6)]),
        },
        "fullness.tuck": lambda: {"edge": edge, **at.let_in(), "kind": chance.choice(["plain", "pin", "blind"]),
                                  "count": chance.randint(1, 9), "depth": chance.choice([None, length(0.1, 3)]),
                                  "stitched": chance.choice([None, length(1, 20)])},
        "trim.strapless": lambda: {"depth": length(8, 30), "shape": chance.choice(["straight", "sweetheart"])},
        "neck.shape": lambda: {
            "other": chance.choice([other, ""]) if chance.random() < 0.3 else other, "shape": chance.choice(list(all_shapes())),
            **({"width": length(6, 20)} if chance.random() < 0.3 else {}),
            **({"depth": length(6, 40)} if chance.random() < 0.3 else {}), "side": chance.choice(["left", "right"]),
        },
        "neck.gape": lambda: {"amount": length(0, 3), "at": at.spot()},
        "neck.opening": lambda: {"kind": chance.choice(["zip", "slit"]), "length": length(2, 40)},
        "trim.armhole": lambda: {"other": other, "shoulder_in": length(0, 5), "lower": length(-3, 5), "widen": length(-2, 2),
                                 "back": chance.choice(["plain", "plain", "razor"])},
        "piece.let_out": lambda: {"other": chance.choice([other, ""]), "top": length(-2, 3), "bottom": length(-2, 4),
                                  "waist": chance.choice([None, length(-2, 3)])},
        "piece.facing": lambda: {"other": other, "depth": length(2, 9), "kind": chance.choice(list(TITLES))},
        "piece.join": lambda: {"other": chance.choice([other, f"{at.on}_panel", f"{at.on}_side"])},
        "piece.unfold": dict,
        "drape.cowl": lambda: {
            "other": chance.choice([other, ""]), "level": chance.choice(["high", "mid", "low", "bust"]),
            "folds": chance.randint(1, 5), "pleat": chance.choice([None, "0", length(0, 3)]), "widen": length(0, 8),
            "darts": chance.choice(["all", "upper", "none"]), "facing": chance.choice(["0", length(1, 20)]),
            **chance.choice([{}, {"depth": length(1, 40)}, {"edge": length(8, 40)}, {"spread": length(1, 20)}]),
        },
        "drape.cowl_armhole": lambda: {
            "other": other, "depth": chance.choice([None, length(5, 60)]), "inwards": chance.choice(["0", length(0, 9)]),
            "darts": chance.choice(["front", "all", "none"]), "grain": chance.choice(["straight", "bias"]),
            "facing": chance.choice(["0", length(0.5, 25)]),
        },
        "drape.fan": lambda: {
            "edge": edge, "slashes": [length(0.5, 8) for _ in range(chance.randint(0, 5))],
            "taken": chance.choice(["pleats", "gathers", "tucks"]), "to": chance.choice([None, None, at.edge()]),
            **chance.choice([{}, {"darts": []}, {"darts": at.darts()}]), "bias": chance.random() < 0.3,
        },
        "measure.tape": lambda: {
            "from": at.end(), "to": at.end(), "way": chance.choice(list(LAYINGS)), "darts": chance.choice(["shut", "open"]),
            "name": chance.choice(["", "waist", "half neckline", "éé ¿?"]), "on_sheet": chance.random() < 0.3,
            **({"hold": length(1, 60)} if chance.random() < 0.3 else {}),
        },
        "drape.twist": lambda: {"width": chance.choice([None, length(1, 12)])},
        "fullness.circle": lambda: {
            "other": other, "edge": chance.choice([*WORN, edge]), "part": chance.uniform(0.05, 3.0), "depth": length(1, 60),
            "seams": chance.choice(["even", "sides"]), "pieces": chance.randint(0, 5), "level": length(0, 3),
        },
        "trim.peplum": lambda: {
            "other": other, "edge": chance.choice([*WORN, edge]), "depth": length(3, 40), "part": chance.uniform(0.05, 2.0),
            "kind": chance.choice(["circle", "slashed", "gathered", "pleated", "shaped"]), "raised_by": length(0, 6),
            "hem": chance.choice(["even", "dipped", "uneven"]), "dip": length(0, 20), "underlay": length(0.3, 4),
        },
        "trim.placket": lambda: {"wide": length(1, 6), "button": length(0.5, 2), "spacing": length(2, 14), "first": "2 cm"},
        "trim.loops": lambda: {"edge": edge, "button": length(0.4, 2), "spacing": length(1, 4), "thick": length(0.2, 1)},
        "trim.strap": lambda: {"other": other, "wide": length(0.3, 5), "kind": chance.choice(["strap", "rouleau"])},
        **{f"trim.{kind}": lambda kind=kind: {
            "other": other, "edge": chance.choice([*WORN, edge]), **_sizes(f"trim.{kind}", at),
        } for kind in ("band", "binding", "bow", "casing", "frill", "piping", "ruffle", "stand", "tie", "waistband")},
    }  # fmt: skip
    others = [do for do in registry.all_steps() if do not in made]
    do = chance.choice([*made, *others])
    return {"do": do, "on": at.on, **(made[do]() if do in made else _by_fields(do, at, chance))}


def _sizes(do: str, at: Chooser) -> Value:
    """Some lengths of a trim of their own."""
    lengths = [
        name for name, field in registry.all_steps()[do].model_fields.items() if InUnits in {type(m) for m in field.metadata}
    ]
    return {name: at.length(0.2, 12) for name in lengths if name != "fitted" and at.chance.random() < 0.4}


def _by_fields(do: str, at: Chooser, chance: random.Random) -> Value:
    """A step that has no line above: its fields by their types."""
    named: dict[str, Callable[[], object]] = {"dart": at.dart, "edge": at.edge, "other": lambda: at.other}
    found: Value = {}
    for name, field in registry.all_steps()[do].model_fields.items():
        marks = {type(mark) for mark in field.metadata}
        key = field.alias or name
        if name in named:
            found[key] = named[name]()
        elif InUnits in marks:
            found[key] = at.length(-5, 20)
        elif OfWhole in marks:
            found[key] = at.share()
        elif field.annotation is Spot:
            found[key] = at.spot()
        elif get_origin(field.annotation) is Literal and name != "do":
            found[key] = chance.choice(get_args(field.annotation))
    return found


def panels_first(chance: random.Random) -> list[Value]:
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
