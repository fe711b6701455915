"""How an operation is written out for people: in words, with the arithmetic of these measurements."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping

from zesty_pivot.core.drafting.evaluate import Surroundings, branch, worth
from zesty_pivot.core.drafting.expression import Call, Literal, Name, Node, Pair, Sign, WordNode, parsed
from zesty_pivot.core.drafting.operations import OPERATIONS
from zesty_pivot.core.drafting.values import Inked, Number, Point, Value
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.quantity import MM_PER, Unit, format_length, inch_fraction
from zesty_pivot.core.record import record, replace

_BINDS = {"+": 1, "-": 1, "*": 2, "/": 2}


@record
class Teller:
    """Tells expressions in a unit; `called` gives a point or stroke, by its full name, the name that stands on the paper.
    `centre` is what the straight centre is called in a piece: CF or CB."""

    around: Surroundings
    unit: Unit
    called: Callable[[str], str]
    centre: str
    fine: bool = False  # one more decimal, where rounded numbers would not add up

    def deed(self, node: Node) -> str:
        """What is done, in words: `5.1 in from CB, 8 7/16 below the top line`."""
        node = branch(node, self.around)
        if isinstance(node, Call):
            written = _DEEDS.get(node.name)
            if written is not None:
                return written(self, node.arguments)
            template = OPERATIONS[node.name].said
            parts = [self.part(argument) for argument in node.arguments]
            if template and "{all}" not in template and OPERATIONS[node.name].gives.startswith("point"):
                return template.format(*parts)
        return self.part(node)

    def part(self, node: Node) -> str:
        """An argument: a point by its name, a length with its arithmetic."""
        node = branch(node, self.around)
        if isinstance(node, Name) and self.is_drawn(node):
            return self.called(self.around.key(node.name) or node.name)
        value = worth(node, self.around)
        if isinstance(value, Point | Inked):
            return self.deed(node)
        return self.sum(node, value)

    def is_drawn(self, node: Name) -> bool:
        """Whether a name is a point or stroke on the paper."""
        key = self.around.key(node.name)
        return key is not None and isinstance(self.around.names[key], Point | Inked)

    def sum(self, node: Node, value: Value | None = None) -> str:
        """The arithmetic with its result: `98/6 + 3.8 = 20.1 cm`; the result alone where there is nothing to work out."""
        value = worth(node, self.around) if value is None else value
        if not isinstance(value, Number):
            return str(value)
        worked = self.worked(node)
        if worked == self.bare(value):
            return self.amount(value)
        if not self.fine and not self._adds_up(worked, value):
            return replace(self, fine=True).sum(node, value)
        return f"{worked} = {self.amount(value)}"

    def _adds_up(self, worked: str, value: Number) -> bool:
        """Whether somebody who works a sum out with the rounded numbers in it comes to its rounded result. Inches
        and what is no plain sum are taken as they are."""
        if self.unit == "in" or value.power != 1:
            return True
        try:
            found = worth(parsed(worked.replace("×", "*").replace("÷", "/")), Surroundings({}))
        except ZestyError:
            return True
        return not isinstance(found, Number) or self.bare(Number(found.amount * MM_PER[self.unit], 1)) == self.bare(value)

    def amount(self, value: Number) -> str:
        """A number as it is told: a length with its unit, a plain number as it is."""
        return format_length(value.amount, self.unit, fine=self.fine) if value.power == 1 else f"{value.amount:.4g}"

    def bare(self, value: Number) -> str:
        """The same without a unit, as it stands in arithmetic."""
        if value.power != 1:
            return f"{value.amount:.4g}"
        if self.unit == "in":
            return inch_fraction(value.amount)
        text = f"{value.amount / MM_PER[self.unit]:.{(self.unit == 'cm') + self.fine}f}"
        return text.rstrip("0").rstrip(".") if "." in text else text

    def worked(self, node: Node, binds: int = 0) -> str:
        """An expression with the numbers in it in place of the names: `98/6 + 3.8`."""
        node = branch(node, self.around)
        if isinstance(node, Pair) and node.sign in _BINDS:
            mine = _BINDS[node.sign]
            left = self.worked(node.left, mine)
            right = self.worked(node.right, mine + (node.sign in "-/"))
            if node.sign in "+-" and right == "0":
                return self.worked(node.left, binds)
            if node.sign == "+" and left == "0":
                return self.worked(node.right, binds)
            text = f"{left}{self._signed(node.sign, left, right)}{right}"
            return f"({text})" if mine < binds else text
        if isinstance(node, Sign) and node.sign == "-":
            return f"-{self.worked(node.inner, 3)}"
        if isinstance(node, Call) and node.name in ("max", "min"):
            parts = ", ".join(self.worked(argument) for argument in node.arguments)
            return f"{'the larger' if node.name == 'max' else 'the smaller'} of ({parts})"
        if isinstance(node, Literal) and node.power == 0:
            return node.text
        if isinstance(node, WordNode):
            return node.word
        value = worth(node, self.around)
        return self.bare(value) if isinstance(value, Number) else str(value)

    def _signed(self, sign: str, left: str, right: str) -> str:
        if sign == "/":
            return " ÷ " if " " in left or "/" in left or "/" in right else "/"
        return {"*": " × ", "+": " + ", "-": " - "}[sign]


def _told_at(teller: Teller, parts: tuple[Node, ...]) -> str:
    x, y = (worth(part, teller.around) for part in parts)
    across = (
        f"on {teller.centre}"
        if isinstance(x, Number) and x.amount == 0.0
        else f"{teller.sum(parts[0], x)} from {teller.centre}"
    )
    if isinstance(y, Number) and y.amount == 0.0:
        return f"{across}, on the top line"
    return f"{across}, {teller.sum(parts[1], y)} below the top line"


def _told_turn(teller: Teller, parts: tuple[Node, ...]) -> str:
    angle = worth(parts[2], teller.around)
    degrees = math.degrees(angle.amount) if isinstance(angle, Number) else 0.0
    way = "clockwise" if degrees >= 0.0 else "anticlockwise"
    return f"{teller.part(parts[0])} turned about {teller.part(parts[1])} by {abs(degrees):.1f}° {way}"


def _told_line(teller: Teller, parts: tuple[Node, ...]) -> str:
    if all(isinstance(part, Call) and part.name == "at" for part in parts):
        return _told_guide(teller, [part.arguments for part in parts if isinstance(part, Call)])
    first, *rest = (teller.part(part) for part in parts)
    return f"straight from {first} to {', then '.join(rest)}"


def _told_guide(teller: Teller, places: list[tuple[Node, ...]]) -> str:
    """A line between two places that have no name: level or straight down."""
    (x0, y0), (x1, y1) = (tuple(worth(part, teller.around) for part in place) for place in (places[0], places[-1]))
    amounts = [value.amount if isinstance(value, Number) else 0.0 for value in (x0, y0, x1, y1)]
    if amounts[1] == amounts[3]:
        high = "along the top" if amounts[1] == 0.0 else f"level, {teller.sum(places[0][1])} below the top line"
        return f"{high}, {teller.sum(places[-1][0])} wide"
    side = "" if amounts[0] == 0.0 else f"{teller.sum(places[0][0])} from {teller.centre}, "
    return f"{side}straight down to {teller.sum(places[-1 if amounts[3] > amounts[1] else 0][1])} below the top line"


def _told_curve(first: int, last: int) -> Callable[[Teller, tuple[Node, ...]], str]:
    return lambda teller, parts: f"a curve from {teller.part(parts[first])} to {teller.part(parts[last])}"


_DEEDS: Mapping[str, Callable[[Teller, tuple[Node, ...]], str]] = {
    "at": _told_at,
    "turn": _told_turn,
    "line": _told_line,
    "blend": _told_curve(0, 2),
    "curve": _told_curve(0, 3),
    "joined": lambda teller, parts: f"{' and '.join(teller.part(part) for part in parts)} as one line",
}
