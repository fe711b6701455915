"""The jobs of necklines: many variants over one block, each measured on what is written."""

from __future__ import annotations

import math
from fractions import Fraction
from typing import Any

import numpy as np
import svgelements

from tests.folding import length, polyline
from tests.jobs import bodies
from tests.jobs.figures import IN, Sheets, halves, is_, long, shoulders
from tests.jobs.hand import Hand
from tests.sheets import lines
from zesty_pivot.core.piece import Pattern
from zesty_pivot.desk.variant_sheet import VariantSheet, figures_of


def _on_j21(hand: Hand) -> None:
    """The block of J21 in a room that works in inches; the job begins when it lies on the table."""
    bodies.j21(hand)
    hand.settle()
    hand.window.run("units.in")
    hand.counted.clear()
    hand.seen["block"] = hand.window.model.derived.derivation.block


def _own(seen: dict[str, Any]) -> tuple[float, float]:
    """Half the width and the depth of the block's own neckline, inches: nothing is drawn above it, nor nearer to the neck."""
    block = seen["block"].piece("front")
    neck, pit = block.corner("neck_point"), block.corner("centre_neck")
    return float(neck[0]) / IN, float(pit[1] - neck[1]) / IN


def inches(text: str) -> float:
    """`3 1/2` as one number."""
    return float(sum(Fraction(part) for part in text.split()))


def _neckline(hand: Hand, name: str, shape: str, numbers: tuple[str, ...], chosen: tuple[str, ...]) -> None:
    """Another neckline by its name and numbers, as a variant of the one before; where the block's own neck is wider or deeper
    than asked, that: so much more than it, nothing."""
    wide, deep = _own(hand.seen)
    if not shape.startswith(ON_ARMHOLE):
        lower = numbers[1][0] not in "-+" and inches(numbers[1]) < deep
        wider = numbers[0][0] != "+" and chosen[:1] != IN_FROM_TIP and inches(numbers[0]) < wide
        numbers = ("+0" if wider else numbers[0], "+0" if lower else numbers[1], *numbers[2:])
    line = f"{shape.replace('_', ' ')} neckline"
    hand.add_with(line, " ".join(numbers), *chosen, design=shape, other=bool(hand.window.model.style.steps))
    hand.see(name)
    broken = hand.window.model.derived.derivation.broken
    assert not broken, (name, broken)
    hand.seen[f"{name} told"] = tuple(hand.window.model.derived.findings)


IN_FROM_TIP = ("in f",)  # in from the shoulder tip
ON_ARMHOLE = ("strapless", "off")


def _side_by_side(hand: Hand) -> None:
    """The sheet of variants, looked at and shut."""
    hand.shortcut("Ctrl+Shift+A")
    (sheet,) = hand.window.findChildren(VariantSheet)
    sheet.finish()
    hand.seen["cards"] = list(sheet.cards)
    hand.seen["figures"] = {name: figures_of(derived) for name, derived in sheet.derived.items()}
    hand.shut(sheet)


class _Edge:
    """The neckline of a front as it is written: inches from the centre and down from the block's neck point."""

    def __init__(self, seen: dict[str, Any], name: str, role: str = "neckline") -> None:
        sheets, self.pattern = seen[name]
        mine = [piece for piece in self.pattern.pieces if (piece.of or piece.name) == "front"]
        runs = [run for piece in mine for run in piece.runs if piece.role(run.edge) == role]
        self.corner = np.array([0.0, seen["block"].piece("front").corner("neck_point")[1]])
        assert runs, (name, role)
        self.points = np.vstack([polyline(svgelements.Path(_drawn(run.path.cubics))) for run in runs]) - self.corner
        written = sum(
            length(polyline(path))
            for piece in mine
            for edge, of in piece.roles
            if of == role
            for path in lines(sheets[piece.name])[edge]
        )
        is_(f"{name}: the written edge", written, sum(run.path.length for run in runs), 0.1)

    def ends(self) -> tuple[np.ndarray, np.ndarray]:
        """Where it is nearest to the centre, and where it is highest, inches."""
        across, down = np.abs(self.points[:, 0]), self.points[:, 1]
        return self.points[across.argmin()] / IN, self.points[down.argmin()] / IN

    def passes(self, x: float, y: float) -> float:
        """How near it comes to a place, mm."""
        return float(np.hypot(*(self.points - np.array([x, y]) * IN).T).min())

    def turns(self, least: float = 20.0) -> list[np.ndarray]:
        """Its corners, inches."""
        way = np.diff(self.points, axis=0)
        way = way[np.hypot(*way.T) > 1e-6]
        at = np.cumsum(np.vstack([self.points[:1], way]), axis=0)[1:-1]
        bend = np.abs(np.degrees(np.diff(np.unwrap(np.arctan2(way[:, 1], way[:, 0])))))
        return [point / IN for point, turn in zip(at, bend, strict=True) if turn > least]


def _drawn(cubics: np.ndarray) -> str:
    start = f"M {cubics[0][0][0]} {cubics[0][0][1]}"
    return start + "".join(f" C {b[0]} {b[1]} {c[0]} {c[1]} {d[0]} {d[1]}" for _a, b, c, d in cubics)


def _wide_and_deep(seen: dict[str, Any], name: str, wide: float, deep: float) -> _Edge:
    own, natural = _own(seen)
    edge, wide, deep = _Edge(seen, name), max(wide, own), max(deep, natural)
    centre, outer = edge.ends()
    is_(f"{name}: half width, inches", outer[0], wide, 0.005)
    is_(f"{name}: depth, inches", centre[1], deep, 0.005)
    return edge


def _below_chest(seen: dict[str, Any], name: str, deep: float) -> bool:
    """Whether an opening so deep (inches) goes below the chest line, and that it is told when it does."""
    block = seen["block"].piece("front")
    is_below = deep * IN + float(block.corner("neck_point")[1]) > block.levels["chest"] + 0.5
    assert any(finding.check == "uncovered" for finding in seen[f"{name} told"]) == is_below, (name, is_below)
    return is_below


# J02: nine necklines.

J02: tuple[tuple[str, str, tuple[str, ...], tuple[str, ...]], ...] = (
    ("queen", "queen_anne", ("3", "7", "4"), ()),
    ("hole v", "keyhole", ("3 1/2", "3", "-", "2", "1 1/2", "1 1/2", "1 1/2"), ("in a",)),
    ("yoke", "keyhole_yoke", ("3 1/2", "-", "-", "7"), ()),
    ("heart", "sweetheart", ("4", "6", "4"), ()),
    ("scallop", "scallop", ("3 1/2", "7"), ()),
    ("box", "rectangle", ("2", "5 1/2"), IN_FROM_TIP),
    ("uneven", "asymmetric", ("3 1/2", "6 1/2"), ("box curve",)),
    ("mid", "strapless", ("7", "50%"), ()),
    ("chest", "strapless", ("7", "100%"), ()),
)


def j02(hand: Hand) -> None:
    _on_j21(hand)
    for name, shape, numbers, chosen in J02:
        _neckline(hand, name, shape, numbers, chosen)
        if name == "hole v":
            hand.choose("end", "round")
            hand.see("hole c")
    _side_by_side(hand)


def j02_check(_sheets: Sheets, _pattern: Pattern, seen: dict[str, Any]) -> str:
    assert len(seen["cards"]) == 9 and all(seen["figures"].values()), seen["cards"]
    block = seen["block"].piece("front")
    tip = (block.corner("shoulder_tip")[0]) / IN
    queen = _wide_and_deep(seen, "queen", 3.0, 7.0)
    (corner,) = queen.turns()
    is_("the Queen Anne's corner, inches down", corner[1], 4.0, 0.005)
    is_("and half of what is left of the shoulder out", corner[0], queen.ends()[1][0] + (tip - queen.ends()[1][0]) / 2.0, 0.005)
    for name in ("hole v", "hole c"):
        _wide_and_deep(seen, name, 3.5, 3.0)
        hole = _hole(seen, name)
        end = hole[hole[:, 1].argsort()[-3:]]  # a V runs straight into its point, a C is level there
        slope = abs(float(end[-1, 1] - end[0, 1])) / max(float(np.ptp(end[:, 0])), 1e-9)
        assert (slope > 0.3) == (name == "hole v"), (name, slope)
        is_(f"{name}: begins below the neckline", hole[:, 1].min(), max(3.0, _own(seen)[1]) + 2.0, 0.01)
        is_(f"{name}: across where it is widest", 2.0 * hole[:, 0].max(), 3.0, 0.01)
        is_(f"{name}: ends below its widest place", hole[:, 1].max() - hole[hole[:, 0].argmax(), 1], 1.5, 0.06)
    heart = _wide_and_deep(seen, "heart", 4.0, 6.0)
    assert min(math.dist(each, (4.0, 4.0)) for each in heart.turns()) < 0.01
    scallop = _wide_and_deep(seen, "scallop", 3.5, 7.0)
    assert len(scallop.turns()) == 2, scallop.turns()
    box = _wide_and_deep(seen, "box", tip - 2.0, 5.5)
    assert math.dist(box.turns()[0], (tip - 2.0, 5.5)) < 0.01
    uneven = _Edge(seen, "uneven")
    (corner,) = [each for each in uneven.turns() if each[1] > 1.0]  # worn left is drawn right: right side up
    is_("the box corner, inches from the centre and down", math.dist(corner, (max(3.5, _own(seen)[0]), 6.5)), 0.0, 0.01)
    arm = sum(run.path.length for run in block.edge("armhole").runs)
    for name, share in (("mid", 0.5), ("chest", 0.0)):
        _sheets, pattern = seen[name]
        left = sum(run.path.length for run in pattern.piece("front").runs if pattern.piece("front").role(run.edge) == "armhole")
        is_(f"{name}: what is left of the armhole", left, share * arm, 0.1)
        is_(f"{name}: depth", _Edge(seen, name).ends()[0][1], 7.0, 0.005)
    deepest = {"queen": 7.0, "heart": 6.0, "scallop": 7.0, "box": 5.5, "uneven": 6.5}
    told = [name for name, deep in deepest.items() if _below_chest(seen, name, deep)]
    return f"nine variants side by side; corners where asked; told as below the chest line: {', '.join(told) or 'none'}"


def _hole(seen: dict[str, Any], name: str) -> np.ndarray:
    """The keyhole's edge, inches from the centre and down from the neck point."""
    return _Edge(seen, name, "opening").points / IN


# J03: seven necklines.

J03: tuple[tuple[str, str, tuple[str, ...], tuple[str, ...]], ...] = (
    ("round", "round", ("3", "4", "1"), ()),
    ("square", "square", ("4", "4"), ()),
    ("scoop", "scoop", ("4", "6"), ()),
    ("heart", "sweetheart", ("4", "7", "4"), ()),
    ("uneven", "asymmetric", ("4", "7"), ("straight",)),
    ("off", "off_shoulder", ("+3", "5"), ("in a",)),
    ("slit", "slit", ("3", "3", "-", "7"), ()),
)


def j03(hand: Hand) -> None:
    _on_j21(hand)
    for name, shape, numbers, chosen in J03:
        _neckline(hand, name, shape, numbers, chosen)
    hand.fill("open", "1/4")
    hand.see("open")
    _side_by_side(hand)


def j03_check(_sheets: Sheets, _pattern: Pattern, seen: dict[str, Any]) -> str:
    assert len(seen["cards"]) == 7, seen["cards"]
    block = seen["block"].piece("front")
    natural = _own(seen)[1]
    across = _wide_and_deep(seen, "round", 3.0, 4.0)
    corner = np.array([across.ends()[1][0], across.ends()[0][1]])
    way = sum(across.ends()) / 2.0 - corner  # to the middle of both ends
    spot = corner + way / np.hypot(*way)
    is_("the round neck 1 in inside its square's corner, mm off", across.passes(*spot), 0.0, 0.15)
    square = _wide_and_deep(seen, "square", 4.0, 4.0)
    assert math.dist(square.turns()[0], (4.0, 4.0)) < 0.01
    _wide_and_deep(seen, "scoop", 4.0, 6.0)
    _wide_and_deep(seen, "heart", 4.0, 7.0)
    uneven = _Edge(seen, "uneven")
    (corner,) = [each for each in uneven.turns() if each[1] > 1.0]
    is_("the corner, inches", math.dist(corner, (4.0, 7.0)), 0.0, 0.01)
    off = _Edge(seen, "off")
    is_("off the shoulder, inches down", off.ends()[0][1], natural + 3.0, 0.005)
    arm = sum(run.path.length for run in block.edge("armhole").runs)
    front = seen["off"][1].piece("front")
    left = sum(run.path.length for run in front.runs if front.role(run.edge) == "armhole")
    is_("5 in down the armhole", arm - left, 5.0 * IN, 0.1)
    _wide_and_deep(seen, "slit", 3.0, 3.0)
    wide = _Edge(seen, "open")
    top = min((each for each in wide.turns() if each[1] < 6.0), key=lambda each: abs(each[0] - 0.25))
    is_("open at the top, inches", top[0], 0.25, 0.005)
    is_("slit to, inches", wide.ends()[0][1], 7.0, 0.005)
    return f"as drawn; off the shoulder {natural + 3.0:.2f} in down at CF; the slit shut, then open 1/4 in"


# J08: a vest over a parked chest dart; afresh with the side seam forward, the darts away, round necks one deeper than the
# other, and the chest dart into the last as two pleats.


def j08(hand: Hand) -> None:
    hand.seen["block"] = hand.window.model.derived.derivation.block
    dart = next(bead.dart for bead in hand.window.table.ring().beads if bead.dart != "waist")
    hand.bead(dart, "centre_bust")
    hand.add_with("vest neckline", "6 +15", "left", design="vest")
    hand.see("vest")
    hand.think()
    hand.click(hand.window.strip.cards[0])  # the block: afresh
    hand.shortcut("Ctrl+Shift+V")
    hand.add_with("Move the side seam", "2", "front")  # what the front loses brings the seam forward
    hand.bead(dart, "side_bust")
    hand.pivot("back", hand.seen["block"].piece("back").dart("shoulder").pivot)
    hand.bead("shoulder", "mid_neck")
    hand.add_with("round neckline", "+2 +3", design="round")
    hand.see("first")
    for name, numbers in (("second", "+4 +10"), ("third", "+5.5 +15 - 9")):
        hand.add_with("round neckline", numbers, design="round", other=True)
        hand.see(name)
    hand.pivot("front", "bust_point")
    hand.bead(dart, "mid_neck")
    hand.add_with("Use a dart as", "", "soft")
    hand.see("pleated")


def j08_check(sheets: Sheets, pattern: Pattern, seen: dict[str, Any]) -> str:
    block = seen["block"]
    ease = halves(block, "shoulder")["back"] - halves(block, "shoulder")["front"]
    neck = block.piece("back").corner("neck_point")
    for name, deep in (("vest", 150.0), ("first", 30.0), ("second", 100.0), ("third", 150.0)):
        there = seen[name][1]
        shoulder = halves(there, "shoulder")
        is_(f"{name}: the back's shoulder and its ease", shoulder["back"] - shoulder["front"], ease)
        centres = [halves(pattern, "centre")["front"] for pattern in (block, there)]
        is_(f"{name}: cut off at CF", centres[0] - centres[1], deep)
    vest = seen["vest"][1]
    is_("left of the shoulder of the vest", halves(vest, "shoulder")["front"], 60.0)
    is_("its armhole", halves(vest, "armhole")["front"], halves(block, "armhole")["front"])
    third, moved = seen["third"][1], seen["first"][1].piece("back")
    is_("the back", float(third.piece("back").corner("centre_neck")[1] - neck[1]), 90.0, 0.2)
    gained = math.dist(moved.corner("underarm"), block.piece("back").corner("underarm"))
    is_("the side seam forward", gained, 20.0, 1.0)
    for name in ("front", "back"):
        before, after = halves(third, "neckline")[name], halves(pattern, "neckline")[name]
        is_(f"the {name}'s finished neckline", after, before, 0.01)
    (told,) = [one.mm for one in pattern.measured if one.role == "neckline"]
    is_("and as it is told", told, 2.0 * sum(halves(pattern, "neckline").values()), 0.01)
    pleats = [dart for dart in pattern.piece("front").darts if dart.use.value == "pleat"]
    assert len(pleats) == 2, pleats
    for sewn in sheets["back"].darts:
        back = pattern.piece("back")
        assert min(back.legs(sewn.dart)) > 15.0, f"a stub of {min(back.legs(sewn.dart)):.0f} mm is sewn"
    return f"shoulders match each time; half neckline {told / 20.0:.1f} cm, the same with two pleats"


# J07: a canoe neck, 1 in in from the shoulder tip and 1 in below the block's neckline.


def j07(hand: Hand) -> None:
    hand.add_with("canoe neckline", "1in +1in", "left", design="canoe")
    hand.seen["block"] = hand.window.model.derived.derivation.block


def j07_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    straps = [long(sheets, name, "shoulder") for name in ("front", "back")]
    whole = shoulders(seen["block"])
    is_("the strap", straps[0], 25.4)
    is_("the back's, with the ease of its shoulder", straps[1], 25.4 + whole[1] - whole[0])
    front, block = pattern.piece("front"), seen["block"].piece("front")
    tops = [min(float(run.path.end[1]) for run in piece.runs if piece.role(run.edge) == "centre") for piece in (front, block)]
    is_("lower at CF", tops[0] - tops[1], 25.4)
    return f"1 in left of a shoulder of {whole[0] / 10.0:.1f} cm, front and back; 1 in lower at CF"


# J19: a wrap, from the neck point to 2 in past the far dart's axis and 2 in up.


def j19(hand: Hand) -> None:
    hand.add_with("wrap neckline", "- 2in 2in", design="wrap")
    hand.seen["block"] = hand.window.model.derived.derivation.block


def j19_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    is_("up from the waist", long(sheets, "front", "wrap_end"), 50.8)
    whole = shoulders(seen["block"])
    now = [long(sheets, on, "shoulder") for on in ("front", "back")]
    is_("the shoulders, with the ease of the back's", now[1] - now[0], whole[1] - whole[0])
    assert sheets["front"].cut == "pair"
    # Past CF it goes to the far dart, which is shut, and 2 in from its axis on, half a mouth of which is in the dart.
    block = seen["block"].piece("front")
    near = next(run.path.length for run in reversed(block.edge("waist").runs))
    lap = near + 50.8 - block.intake("waist") / 2.0
    is_("the lap past CF", sum(run.path.length for run in pattern.piece("front").edge("overlap").runs), lap, 1.0)
    return f"cut 2, {lap / 10.0:.1f} cm past CF with the far dart shut, 2 in up; shoulders match"
