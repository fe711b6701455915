"""The small calculator behind every number field.

Reads `13`, `5 1/4 in`, `5 1/4"`, `13 cm`, `13,5`, `bust/12`, `shoulder/2 - 1 in`, `(bust + waist)/8`.
It is a recursive-descent reader of its own over four operations: no Python is ever evaluated, so
a formula from a file cannot run code. Units are checked: lengths add to lengths only.
"""

from __future__ import annotations

import math
import re
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import lru_cache

from zesty_pivot.core.errors import FormulaError, one_of
from zesty_pivot.core.quantity.units import MM_PER, Unit

MAX_TEXT = 200  # characters; longer than any formula a person writes, short enough to refuse junk fast
MAX_DEPTH = 40  # nested brackets
MAX_LENGTH_MM = 100_000.0  # 100 m: no garment has a longer line, so more is a slip of the unit

_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3"}
_UNIT = r"(?:mm|cm|inches|inch|in\b|\"|″|'')"
_TOKEN = re.compile(
    rf"""\s*(?:
      (?P<mixed>\d+\s+\d+/\d+)\s*(?P<mixed_unit>{_UNIT})?
    | (?P<fraction>\d+/\d+)\s*(?P<fraction_unit>{_UNIT})
    | (?P<number>\d+(?:[.,]\d+)?|[.,]\d+)\s*(?P<number_unit>{_UNIT}|%)?
    | (?P<name>[A-Za-z_][A-Za-z_0-9]*)
    | (?P<sign>[-+*/()×÷−])
    )""",
    re.VERBOSE,
)
_UNIT_NAMES = {"inches": "in", "inch": "in", '"': "in", "″": "in", "''": "in"}
_SIGNS = {"×": "*", "÷": "/", "−": "-"}


@dataclass(frozen=True)
class Scope:
    """What a formula is worked out against: the unit of a bare number and the measurements in mm."""

    unit: Unit = "cm"
    measures: Mapping[str, float] = field(default_factory=dict)

    def key(self) -> tuple[object, ...]:
        """A hashable stand-in, for caches."""
        return (self.unit, *sorted(self.measures.items()))


@dataclass(frozen=True)
class _Value:
    """A number with its dimension: `power` 1 is a length in mm, 0 a plain number."""

    number: float
    power: int
    bare: bool = False  # a plain number that was written as one, so it may take the field's unit


@dataclass(frozen=True)
class _Token:
    kind: str
    text: str
    value: _Value | None = None


def length_mm(text: str | float, scope: Scope) -> float:
    """A length field's text, or a plain number in the scope's unit, in mm.

    Raises FormulaError when it is not a length, not finite, or longer than 100 m.
    """
    if isinstance(text, bool) or not isinstance(text, str | int | float):
        raise FormulaError(f"{text!r} is not a length", advice="Write a number such as 13 or a formula such as bust/12.")
    if isinstance(text, str):
        value = _evaluate(text, scope)
        if value.power not in (0, 1):
            raise FormulaError(f"{text!r} is an area, not a length", advice="Divide by a length, or leave one out.")
        if value.power == 0 and not value.bare:
            raise FormulaError(f"{text!r} is a ratio, not a length", advice="Multiply it by a length, such as 1 cm.")
        mm = value.number if value.power == 1 else value.number * MM_PER[scope.unit]
    else:
        mm = float(text) * MM_PER[scope.unit]
    return _bounded(mm, str(text))


def share_of(text: str | float) -> float:
    """A share as a fraction of one: `"55%"`, `"1/2"` and `0.55` are shares.

    Raises FormulaError when it is not a plain number between 0 and 1 (0 % and 100 %).
    """
    if isinstance(text, bool) or not isinstance(text, str | int | float):
        raise FormulaError(f"{text!r} is not a share", advice="Write a share such as 50% or 0.5.")
    share = _share_words(text) if isinstance(text, str) else float(text)
    if not math.isfinite(share) or share < 0.0 or share > 1.0:
        raise FormulaError(f"a share of {text} is not between 0% and 100%", advice="Write a share such as 50%.")
    return share


@lru_cache(maxsize=1024)
def _share_words(text: str) -> float:
    """A share's text as a number; read once, as every frame of a drag asks for the same ones."""
    value = _evaluate(text, Scope())
    if value.power != 0:
        raise FormulaError(f"{text!r} is a length, not a share", advice="Write a share such as 50% or 0.5.")
    return value.number


def _bounded(mm: float, text: str) -> float:
    if not math.isfinite(mm):
        raise FormulaError(f"{text!r} is not a finite number", advice="Write a number such as 13.")
    if abs(mm) > MAX_LENGTH_MM:
        raise FormulaError(f"{text!r} is over 100 m", advice="Check the unit: cm, mm or in.")
    return mm


def _evaluate(text: str, scope: Scope) -> _Value:
    if len(text) > MAX_TEXT:
        raise FormulaError(f"a formula of {len(text)} characters", advice=f"Write at most {MAX_TEXT} characters.")
    value = _Reader(_tokens(text), text, scope).read()
    if not math.isfinite(value.number):
        raise FormulaError(f"{text!r} is not a finite number", advice="Check the divisions.")
    return value


def _tokens(text: str) -> list[_Token]:
    plain = re.sub("[" + "".join(_VULGAR) + "]", lambda m: " " + _VULGAR[m[0]], text)
    found: list[_Token] = []
    at = 0
    end = len(plain.rstrip())
    while at < end:
        match = _TOKEN.match(plain, at)
        if match is None or match.end() == at:
            raise FormulaError(
                f"{text!r} cannot be read at {plain[at:].strip()[:12]!r}",
                advice="Use numbers, measurements and + - * / ( ), such as shoulder/2 - 1 in.",
            )
        found.append(_token(match))
        at = match.end()
    return found


def _token(match: re.Match[str]) -> _Token:
    for kind in ("mixed", "fraction", "number"):
        words = match[kind]
        if words is not None:
            return _Token("number", match[0].strip(), _number(words, match[f"{kind}_unit"]))
    if match["name"] is not None:
        return _Token("name", match["name"])
    sign = match["sign"]
    return _Token("sign", _SIGNS.get(sign, sign))


def _number(words: str, unit: str | None) -> _Value:
    total = 0.0
    for word in words.replace(",", ".").split():
        top, slash, bottom = word.partition("/")
        if slash and float(bottom) == 0.0:
            raise FormulaError(f"{words!r} divides by zero", advice="Check the fraction.")
        total += float(top) / float(bottom) if slash else float(top)
    if unit is None:
        return _Value(total, 0, bare=True)
    if unit == "%":
        return _Value(total / 100.0, 0)
    return _Value(total * MM_PER[_UNIT_NAMES.get(unit, unit)], 1)


class _Reader:
    """Reads the tokens by the grammar: sum = product {+- product}; product = factor {*/ factor}."""

    def __init__(self, tokens: list[_Token], text: str, scope: Scope) -> None:
        self._tokens = tokens
        self._at = 0
        self._text = text
        self._scope = scope

    def read(self) -> _Value:
        if not self._tokens:
            raise FormulaError("nothing is written here", advice="Write a number such as 13.")
        value = self._sum(0)
        if self._at < len(self._tokens):
            raise self._fault(f"does not go on with {self._tokens[self._at].text!r}")
        return value

    def _fault(self, what: str) -> FormulaError:
        return FormulaError(f"{self._text!r} {what}", advice="Write it like shoulder/2 - 1 in.")

    def _sign(self, wanted: str) -> str | None:
        if self._at < len(self._tokens):
            token = self._tokens[self._at]
            if token.kind == "sign" and token.text in wanted:
                self._at += 1
                return token.text
        return None

    def _sum(self, depth: int) -> _Value:
        if depth > MAX_DEPTH:
            raise self._fault("has too many brackets")
        value = self._product(depth)
        while (sign := self._sign("+-")) is not None:
            other = self._product(depth)
            if value.power != other.power:
                raise FormulaError(
                    f"{self._text!r} adds a length to a plain number", advice="Give every number its unit, such as 2 cm."
                )
            number = value.number + other.number if sign == "+" else value.number - other.number
            value = _Value(number, value.power, value.bare and other.bare)
        return value

    def _product(self, depth: int) -> _Value:
        value = self._factor(depth)
        while (sign := self._sign("*/")) is not None:
            other = self._factor(depth)
            if sign == "/" and other.number == 0.0:
                raise self._fault("divides by zero")
            number = value.number * other.number if sign == "*" else value.number / other.number
            power = value.power + other.power if sign == "*" else value.power - other.power
            value = _Value(number, power, value.bare and other.bare)
        return value

    def _factor(self, depth: int) -> _Value:
        if depth > MAX_DEPTH:
            raise self._fault("has too many signs or brackets")
        sign = self._sign("+-(")
        if sign == "(":
            value = self._sum(depth + 1)
            if self._sign(")") is None:
                raise self._fault("misses a closing bracket")
            return value
        if sign is not None:
            inner = self._factor(depth + 1)
            return _Value(-inner.number if sign == "-" else inner.number, inner.power, inner.bare)
        if self._at >= len(self._tokens):
            raise self._fault("stops too early")
        token = self._tokens[self._at]
        self._at += 1
        if token.value is not None:
            return token.value
        if token.kind == "name":
            return self._measure(token.text)
        raise self._fault(f"has {token.text!r} where a number should stand")

    def _measure(self, name: str) -> _Value:
        found = self._scope.measures.get(name)
        if found is None:
            what, advice = one_of("measurement", name, self._scope.measures)
            raise FormulaError(what, where=repr(self._text), advice=advice)
        return _Value(float(found), 1)


class _AnyMeasure(dict[str, float]):
    """Stands for measurements that are not known yet: every name has some length."""

    def get(self, key: str, default: float | None = None) -> float:  # type: ignore[override]
        return 987.6543


def readable(text: str | float) -> str | float:
    """The text itself when it can be read as a formula, whatever the measurements turn out to be.

    Raises FormulaError for anything else, so that a file with such a field is refused at the door.
    """
    if isinstance(text, str):
        _evaluate(text, Scope("cm", _AnyMeasure()))
    elif not math.isfinite(text):
        raise FormulaError(f"{text} is not a finite number", advice="Write a number such as 13.")
    return text
