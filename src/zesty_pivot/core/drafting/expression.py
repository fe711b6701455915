"""The language of drafting methods: an expression as a tree, read from its text.

`bust/6 + 1 1/2 in`, `at(half_shoulder, drop_back)`, `arcs(BP, dist(BP, top); side_waist, 12 cm; near mark)`,
`if(contour_top == 'mid', y_mid, cl)`. Numbers take a unit, names may have a piece before them and a coordinate behind
(`back.tip.y`); arguments are parted by commas or semicolons, and `near` before the last of them is only read aloud. Nothing in
it can loop or call anything but the operations of drafting: a method is data.
"""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import lru_cache

from zesty_pivot.core.errors import FormulaError
from zesty_pivot.core.quantity.units import MM_PER
from zesty_pivot.core.record import record

MAX_TEXT = 400  # characters of one operation
MAX_DEPTH = 30  # brackets and signs inside each other

_UNIT = r"(?:mm|cm|inches|inch|in\b|\")"
_TOKEN = re.compile(
    rf"""\s*(?:
      (?P<mixed>\d+\s+\d+/[1-9]\d*)\s*(?P<mixed_unit>{_UNIT})
    | (?P<fraction>\d+/[1-9]\d*)\s*(?P<fraction_unit>{_UNIT})
    | (?P<number>\d+(?:\.\d+)?)\s*(?P<number_unit>{_UNIT})?
    | '(?P<word>[A-Za-z_0-9/]*)'
    | (?P<name>[A-Za-z_][A-Za-z_0-9]*(?:\.[A-Za-z_][A-Za-z_0-9]*)*)
    | (?P<sign><=|>=|==|!=|[-+*/(),;<>])
    )""",
    re.VERBOSE,
)
COMPARISONS = ("<", "<=", ">", ">=", "==", "!=")


@record
class Literal:
    """A number as it stands: its text, its amount, and 1 where it has a unit (mm then)."""

    text: str
    amount: float
    power: int


@record
class WordNode:
    """A word in quotes."""

    word: str


@record
class Name:
    """A measurement, parameter, value, point or stroke by its name."""

    name: str


@record
class Sign:
    """A minus before something, or `not`."""

    sign: str
    inner: Node


@record
class Pair:
    """Two parts with a sign between: + - * /, a comparison, `and`, `or`."""

    sign: str
    left: Node
    right: Node


@record
class Call:
    """An operation with its arguments."""

    name: str
    arguments: tuple[Node, ...]


Node = Literal | WordNode | Name | Sign | Pair | Call


@lru_cache(maxsize=4096)
def parsed(text: str) -> Node:
    """The tree of an expression. Raises FormulaError that says where it cannot be read."""
    if len(text) > MAX_TEXT:
        raise FormulaError(f"an operation of {len(text)} characters", advice=f"Write at most {MAX_TEXT}.")
    return _Parser(text).whole()


@lru_cache(maxsize=4096)
def statement(text: str) -> tuple[str, Node]:
    """The name and the tree of `name = expression`. Raises FormulaError when there is no name, or it cannot be read."""
    name, equals, rest = text.partition("=")
    if not equals or not re.fullmatch(r"[A-Za-z_][A-Za-z_0-9]*", name.strip()) or rest.startswith("="):
        raise FormulaError(f"{_brief(text)} names nothing", advice="Write it like tip = at(half_shoulder, drop_back).")
    return name.strip(), parsed(rest.strip())


def names_in(node: Node) -> Iterator[str]:
    """The names that an expression asks for, coordinates taken off, in the order of reading."""
    if isinstance(node, Name):
        yield node.name.removesuffix(".x").removesuffix(".y")
    elif isinstance(node, Sign):
        yield from names_in(node.inner)
    elif isinstance(node, Pair):
        yield from names_in(node.left)
        yield from names_in(node.right)
    elif isinstance(node, Call) and node.name != "has":
        for argument in node.arguments:
            yield from names_in(argument)


def calls_in(node: Node) -> Iterator[Call]:
    """The operations that an expression calls."""
    if isinstance(node, Sign):
        yield from calls_in(node.inner)
    elif isinstance(node, Pair):
        yield from calls_in(node.left)
        yield from calls_in(node.right)
    elif isinstance(node, Call):
        yield node
        for argument in node.arguments:
            yield from calls_in(argument)


def _brief(text: str) -> str:
    return repr(text if len(text) <= 60 else f"{text[:57]}...")


class _Parser:
    """Reads by the grammar: or, and, not, comparison, sum, product, factor."""

    def __init__(self, text: str) -> None:
        self._text = text
        self._tokens = list(_tokens(text))
        self._at = 0

    def whole(self) -> Node:
        if not self._tokens:
            raise FormulaError("nothing is written here", advice="Write an expression such as bust/4 + 1/4 in.")
        node = self._either(0)
        if self._at < len(self._tokens):
            raise self._fault(f"does not go on with {self._tokens[self._at][1]!r}")
        return node

    def _fault(self, what: str) -> FormulaError:
        return FormulaError(f"{_brief(self._text)} {what}", advice="Write it like on(NP, tip, 3 cm) or bust/4 + 1/4 in.")

    def _taken(self, *wanted: str) -> str | None:
        if self._at < len(self._tokens) and self._tokens[self._at][0] in ("sign", "name"):
            text = self._tokens[self._at][1]
            if text in wanted:
                self._at += 1
                return text
        return None

    def _either(self, depth: int) -> Node:
        if depth > MAX_DEPTH:
            raise self._fault("has too many brackets")
        node = self._both(depth)
        while self._taken("or"):
            node = Pair("or", node, self._both(depth))
        return node

    def _both(self, depth: int) -> Node:
        node = self._negated(depth)
        while self._taken("and"):
            node = Pair("and", node, self._negated(depth))
        return node

    def _negated(self, depth: int) -> Node:
        if self._taken("not"):
            if depth > MAX_DEPTH:
                raise self._fault("has too many signs")
            return Sign("not", self._negated(depth + 1))
        node = self._sum(depth)
        sign = self._taken(*COMPARISONS)
        return Pair(sign, node, self._sum(depth)) if sign else node

    def _sum(self, depth: int) -> Node:
        node = self._product(depth)
        while (sign := self._taken("+", "-")) is not None:
            node = Pair(sign, node, self._product(depth))
        return node

    def _product(self, depth: int) -> Node:
        node = self._factor(depth)
        while (sign := self._taken("*", "/")) is not None:
            node = Pair(sign, node, self._factor(depth))
        return node

    def _factor(self, depth: int) -> Node:
        if depth > MAX_DEPTH:
            raise self._fault("has too many signs or brackets")
        if self._taken("-"):
            return Sign("-", self._factor(depth + 1))
        if self._taken("("):
            node = self._either(depth + 1)
            self._close()
            return node
        if self._at >= len(self._tokens):
            raise self._fault("is not finished")
        kind, text, amount, power = self._tokens[self._at]
        self._at += 1
        if kind == "number":
            return Literal(text, amount, power)
        if kind == "word":
            return WordNode(text)
        if kind == "name":
            return Call(text, self._arguments(depth)) if self._taken("(") else Name(text)
        raise self._fault(f"has {text!r} where a value should stand")

    def _arguments(self, depth: int) -> tuple[Node, ...]:
        found: list[Node] = []
        if self._taken(")"):
            return ()
        while True:
            if self._at + 1 < len(self._tokens) and self._tokens[self._at][1] == "near":
                after = self._tokens[self._at + 1]
                self._at += after[0] == "name"  # read aloud only: `near mark`
            found.append(self._either(depth + 1))
            if not self._taken(",", ";"):
                self._close()
                return tuple(found)

    def _close(self) -> None:
        if not self._taken(")"):
            raise self._fault("is missing a closing bracket")


def _tokens(text: str) -> Iterator[tuple[str, str, float, int]]:
    at, end = 0, len(text.rstrip())
    while at < end:
        match = _TOKEN.match(text, at)
        if match is None:
            raise FormulaError(
                f"{_brief(text)} cannot be read at {text[at:].strip()[:12]!r}", advice="Check what stands there."
            )
        at = match.end()
        for kind in ("mixed", "fraction", "number"):
            if match[kind] is not None:
                unit = match[f"{kind}_unit"]
                amount = sum(_part(part) for part in match[kind].split())
                mm = MM_PER["in" if unit in ("inches", "inch", '"') else unit] if unit else 1.0
                yield "number", match[0].strip(), amount * mm, 1 if unit else 0
                break
        else:
            kind = next(kind for kind in ("word", "name", "sign") if match[kind] is not None)
            yield kind, match[kind], 0.0, 0


def _part(text: str) -> float:
    top, slash, bottom = text.partition("/")
    return float(top) / float(bottom) if slash else float(top)
