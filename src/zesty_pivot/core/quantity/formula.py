"""The small calculator behind every number field.

Reads `13`, `5 1/4 in`, `5 1/4"`, `13 cm`, `13,5`, `bust/12`, `shoulder/2 - 1 in`, `(bust + waist)/8`.
It is a recursive-descent reader of its own over four operations: no Python is ever evaluated, so
a formula from a file cannot run code. Units are checked: lengths add to lengths only.
"""

from __future__ import annotations

import math
import re
import unicodedata
from collections.abc import Mapping
from dataclasses import field
from functools import lru_cache

from zesty_pivot.core.errors import FormulaError, one_of
from zesty_pivot.core.quantity.units import MM_PER, Unit
from zesty_pivot.core.record import record

MAX_TEXT = 200  # characters; longer than any formula a person writes, short enough to refuse junk fast
MAX_DEPTH = 40  # nested brackets
MAX_LENGTH_MM = 100_000.0  # 100 m: no garment has a longer line, so more is a slip of the unit

_VULGAR = "¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞"
_SLASH = "[/⁄]"  # the second is the fraction slash
_UNIT = r"(?:mm|cm|inches|inch|in\b|\"|″|”|'')"
_TOKEN = re.compile(
    rf"""\s*(?:
      (?P<vulgar>(?:\d+\s*)?[{_VULGAR}])\s*(?P<vulgar_unit>{_UNIT})?
    | (?P<mixed>\d+\s+\d+{_SLASH}\d+)\s*(?P<mixed_unit>{_UNIT})?
    | (?P<fraction>\d+{_SLASH}\d+)\s*(?P<fraction_unit>{_UNIT})
    | (?P<number>\d+(?:[.,]\d*)?|[.,]\d+)\s*(?P<number_unit>{_UNIT}|%)?
    | (?P<name>[A-Za-z_][A-Za-z_0-9]*)
    | (?P<sign>[-+*/()×÷−–⁄])
    )""",
    re.VERBOSE,
)
_UNIT_NAMES = {"inches": "in", "inch": "in", '"': "in", "″": "in", "”": "in", "''": "in"}
_SIGNS = {"×": "*", "÷": "/", "⁄": "/", "−": "-", "–": "-"}

# A comma before three digits may mark thousands or decimals: 1,000 is one to some and a thousand to others.
_UNCLEAR_COMMA = re.compile(r"[1-9]\d{0,2},\d{3}")


@record
class Scope:
    """What a formula is worked out against: the unit of a bare number and the measurements in mm."""

    unit: Unit = "cm"
    measures: Mapping[str, float] = field(default_factory=dict)

    def key(self) -> tuple[object, ...]:
        """A hashable stand-in, for caches."""
        return (self.unit, *sorted(self.measures.items()))


@record
class _Value:
    """A number with its dimension: `power` 1 is a length in mm, 0 a plain number."""

    number: float
    power: int
    bare: bool = False  # a plain number that was written as one, so it may take the field's unit


@record
class _Token:
    kind: str
    text: str
    value: _Value | None = None
    is_mixed: bool = False  # a whole number and a fraction with a space between


def length_mm(text: str | float, scope: Scope) -> float:
    """A length field's text, or a plain number in the scope's unit, in mm.

    Raises FormulaError when it is not a length, not finite, or longer than 100 m.
    """
    if isinstance(text, bool) or not isinstance(text, str | int | float):
        raise FormulaError(f"{text!r} is not a length", advice="Write a number such as 13 or a formula such as bust/12.")
    if isinstance(text, str):
        value = _evaluate(text, scope)
        if value.power > 1:
            raise FormulaError(f"{text!r} is an area, not a length", advice="Divide by a length, or leave one out.")
        if value.power < 0:
            advice = "Write a fraction without spaces, such as 3/4 in, or divide by a plain number."
            raise FormulaError(f"{text!r} divides by a length", advice=advice)
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
    """A share's text as a number; read once, as the same ones are asked for again and again."""
    value = _evaluate(text, Scope())
    if value.power != 0:
        raise FormulaError(f"{text!r} is a length, not a share", advice="Write a share such as 50% or 0.5.")
    return value.number


def is_share(at: str | float) -> bool:
    """Whether a place along an edge is said as a share of it: a number from 0 to 1, or text in percent. Anything else is a
    length."""
    return at.strip().endswith("%") if isinstance(at, str) else 0.0 <= at <= 1.0


def distance_mm(at: str | float, total: float, scope: Scope) -> float:
    """How far along an edge of `total` mm a place is: a share of it, or a length. A number over 1 is a length in the scope's
    unit, as everywhere.

    Raises FormulaError when it is neither, and for text such as `1/2`, which may be half the edge or half a centimetre.
    """
    if is_share(at):
        return share_of(at) * total
    if isinstance(at, str):
        value = _evaluate(at, scope)
        if value.bare and 0.0 < value.number < 1.0:
            advice = f"Write {100.0 * value.number:.4g}% or {at.strip()} {scope.unit}."
            raise FormulaError(f"{at!r} may be a share of the edge or a length", advice=advice)
    return length_mm(at, scope)


def with_unit(text: str | float, unit: Unit) -> str | float:
    """A length that is written without any unit, written with one as people would: `3+2` is `3 cm + 2 cm`, `12/2` is `12/2 cm`.
    What has its unit, or hangs on a measurement, stays as it is.

    Raises FormulaError when it cannot be read, or would be longer than a formula may be.
    """
    if not isinstance(text, str):
        words = repr(text).removesuffix(".0")
        return f"{words if 'e' not in words else f'{text:.12f}'} {unit}"
    reader = _reader(text, Scope(unit, _AnyMeasure()))
    if not reader.read().bare:
        return text
    made = reader.with_unit(unit)
    if len(made) > MAX_TEXT:
        made = f"({text.strip()}) * 1 {unit}"
    _evaluate(made, Scope(unit))
    return made


def _bounded(mm: float, text: str) -> float:
    if not math.isfinite(mm):
        raise FormulaError(f"{text!r} is not a finite number", advice="Write a number such as 13.")
    if abs(mm) > MAX_LENGTH_MM:
        raise FormulaError(f"{text!r} is over 100 m", advice="Check the unit: cm, mm or in.")
    return mm


def _evaluate(text: str, scope: Scope) -> _Value:
    value = _reader(text, scope).read()
    if not math.isfinite(value.number):
        raise FormulaError(f"{text!r} is not a finite number", advice="Check the divisions.")
    return value


def _reader(text: str, scope: Scope) -> _Reader:
    if len(text) > MAX_TEXT:
        raise FormulaError(f"a formula of {len(text)} characters", advice=f"Write at most {MAX_TEXT} characters.")
    return _Reader(_tokens(text), text, scope)


@lru_cache(maxsize=1024)
def _tokens(text: str) -> tuple[_Token, ...]:
    found: list[_Token] = []
    at = 0
    end = len(text.rstrip())
    while at < end:
        match = _TOKEN.match(text, at)
        if match is None or match.end() == at:
            raise FormulaError(
                f"{text!r} cannot be read at {text[at:].strip()[:12]!r}",
                advice="Use numbers, measurements and + - * / ( ), such as shoulder/2 - 1 in.",
            )
        found.append(_token(match))
        at = match.end()
    return tuple(found)


def _token(match: re.Match[str]) -> _Token:
    for kind in ("vulgar", "mixed", "fraction", "number"):
        words = match[kind]
        if words is not None:
            is_mixed = kind == "mixed" or (kind == "vulgar" and " " in words)
            return _Token("number", match[0].strip(), _number(words, match[f"{kind}_unit"]), is_mixed)
    if match["name"] is not None:
        return _Token("name", match["name"])
    sign = match["sign"]
    return _Token("sign", _SIGNS.get(sign, sign))


def _spelt_out(words: str) -> str:
    """A number with its one-sign fractions as figures: 1½ is 1 1/2."""
    return "".join(f" {unicodedata.normalize('NFKC', c)}" if c in _VULGAR else c for c in words).replace("⁄", "/")


def _number(words: str, unit: str | None) -> _Value:
    if _UNCLEAR_COMMA.fullmatch(words):
        advice = f"Write {words.replace(',', '.')} or {words.replace(',', '')}."
        raise FormulaError(f"{words!r} may be a decimal number or thousands", advice=advice)
    total = 0.0
    plain = words if words.isascii() else _spelt_out(words)
    for word in plain.replace(",", ".").split():
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

    def __init__(self, tokens: tuple[_Token, ...], text: str, scope: Scope) -> None:
        self._tokens = tokens
        self._at = 0
        self._text = text
        self._scope = scope
        self._leads: set[int] = set()  # the numbers that a unit would stand after: the first of each product
        self._between: set[int] = set()  # the signs between the parts of a sum

    def read(self) -> _Value:
        if not self._tokens:
            raise FormulaError("nothing is entered here", advice="Write a number such as 13.")
        value = self._sum(0, leads=True)
        if self._at < len(self._tokens):
            raise self._fault(f"does not go on with {self._tokens[self._at].text!r}")
        return value

    def with_unit(self, unit: Unit) -> str:
        """A text of bare numbers that has been read, with a unit after the first number of each product; a fraction such as
        3/4 has it behind."""
        tops = {index for index in self._leads if _is_fraction(self._tokens[index : index + 3])}
        behind = {index + 2 if index in tops else index for index in self._leads}
        return "".join(
            f" {token.text} " if index in self._between else f"{token.text} {unit}" if index in behind else token.text
            for index, token in enumerate(self._tokens)
        )

    def _fault(self, what: str) -> FormulaError:
        return FormulaError(f"{self._text!r} {what}", advice="Write it like shoulder/2 - 1 in.")

    def _sign(self, wanted: str) -> str | None:
        if self._at < len(self._tokens):
            token = self._tokens[self._at]
            if token.kind == "sign" and token.text in wanted:
                self._at += 1
                return token.text
        return None

    def _sum(self, depth: int, *, leads: bool) -> _Value:
        if depth > MAX_DEPTH:
            raise self._fault("has too many brackets")
        value = self._product(depth, leads=leads)
        while (sign := self._sign("+-")) is not None:
            self._between.add(self._at - 1)
            other = self._product(depth, leads=leads)
            if value.power != other.power:
                raise FormulaError(
                    f"{self._text!r} adds a length to a plain number", advice="Give every number its unit, such as 2 cm."
                )
            number = value.number + other.number if sign == "+" else value.number - other.number
            value = _Value(number, value.power, value.bare and other.bare)
        return value

    def _product(self, depth: int, *, leads: bool) -> _Value:
        value = self._factor(depth, leads=leads)
        while (sign := self._sign("*/")) is not None:
            if sign == "/":
                self._refuse_mixed()
            other = self._factor(depth, leads=False)
            if sign == "/" and other.number == 0.0:
                raise self._fault("divides by zero")
            number = value.number * other.number if sign == "*" else value.number / other.number
            power = value.power + other.power if sign == "*" else value.power - other.power
            value = _Value(number, power, value.bare and other.bare)
        return value

    def _refuse_mixed(self) -> None:
        """Refuses `waist/4 1/2`: a quarter of the waist and a half to some, the waist by four and a half to others."""
        token = self._tokens[self._at] if self._at < len(self._tokens) else None
        if token is not None and token.is_mixed:
            raise FormulaError(
                f"{self._text!r} may mean two things at {token.text!r}",
                advice=f"Write /({token.text}), or + before the fraction.",
            )

    def _factor(self, depth: int, *, leads: bool) -> _Value:
        if depth > MAX_DEPTH:
            raise self._fault("has too many signs or brackets")
        sign = self._sign("+-(")
        if sign == "(":
            value = self._sum(depth + 1, leads=leads)
            if self._sign(")") is None:
                raise self._fault("is missing a closing bracket")
            return value
        if sign is not None:
            inner = self._factor(depth + 1, leads=leads)
            return _Value(-inner.number if sign == "-" else inner.number, inner.power, inner.bare)
        if self._at >= len(self._tokens):
            raise self._fault("is not finished")
        token = self._tokens[self._at]
        self._at += 1
        if token.value is not None:
            if leads:
                self._leads.add(self._at - 1)
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


def _is_fraction(tokens: tuple[_Token, ...]) -> bool:
    """Whether three tokens are a fraction of two whole numbers."""
    return len(tokens) == 3 and tokens[1].text == "/" and tokens[0].text.isdecimal() and tokens[2].text.isdecimal()


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
