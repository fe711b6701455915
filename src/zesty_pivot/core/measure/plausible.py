"""What is odd about a set of measurements, in plain words: the value, the limit, and what to measure again.

Source of the relations: common practice, no source. Nothing here refuses anything; a drafting method has refusals of its own.
"""

from __future__ import annotations

import re
from collections.abc import Iterator, Mapping

from zesty_pivot.core.measure.names import BY_NAME, MEASUREMENTS
from zesty_pivot.core.quantity import Scope, Unit, format_length, length_mm
from zesty_pivot.core.record import record


@record
class Oddity:
    """Something odd: `names` are the measurements that it is about, to be taken again; `value` and `limit` in mm."""

    names: tuple[str, ...]
    says: str
    value: float
    limit: float
    is_likely_slip: bool = True  # false for what is rare but right on some figures


@record
class _Relation:
    """A relation between measurements: two formulas, of which the first may not be over the second (`<`) or under it (`>`), and
    what is said where it is; `{value}` and `{limit}` stand for the two lengths. What is rare but right on some is no slip."""

    value: str
    sign: str
    limit: str
    says: str
    is_slip: bool = True

    @property
    def needs(self) -> tuple[str, ...]:
        """The measurements that it is about."""
        asked = re.findall("[a-z_]+", f"{self.value} {self.limit}")
        return tuple(dict.fromkeys(name for name in asked if name in MEASUREMENTS))


_RELATIONS: tuple[_Relation, ...] = (
    _Relation("under_bust", "<", "bust", "the under-bust is {value}, more than the full bust of {limit}"),
    _Relation("under_bust", ">", "bust * 0.72", "the under-bust is {value}; with this bust it is hardly ever under {limit}"),
    _Relation("waist", "<", "bust * 1.15", "the waist is {value}; with this bust it is rarely over {limit}", False),
    _Relation("waist", ">", "under_bust * 0.72", "the waist is {value}; with this under-bust it is rarely under {limit}"),
    _Relation("hip", ">", "waist * 0.95", "the hip is {value}; with this waist it is rarely under {limit}", False),
    _Relation("sh_bp", "<", "sh_under_bust - 3 cm",
              "the bust point lies {value} down; the under-bust lies 3 cm below it at least, so it must be above {limit}"),
    _Relation("sh_under_bust", "<", "fwl - 2 cm", "the under-bust lies {value} down; the waist leaves it {limit}"),
    _Relation("sh_bp", "<", "fwl - 2 in", "the bust point lies {value} down; this front length leaves it {limit}"),
    _Relation("fwl - bwl", ">", "0 * bwl", "front less back waist length is {value}; it is never under {limit}"),
    _Relation("fwl - bwl", "<", "5 in + 0 * bwl", "front less back waist length is {value}; nobody has over {limit}"),
    _Relation("fwl - bwl", "<", "1/2 in + bust/12",
              "front less back waist length is {value}; 1 to 2 in are usual, over {limit} rare with this bust", False),
    _Relation("bwl", ">", "bust/6 + 3 1/2 in",
              "the back waist length is {value}; the armhole of this bust reaches so far down that it must be over {limit}"),
    _Relation("sh_bp", ">", "bust/6 + 2 1/2 in", "the bust point lies {value} down, above the chest line at {limit}", False),
    _Relation("shoulder/2 - 3/4 in", "<", "bust/4 - 3/8 in",
              "half the shoulder less the hollow is {value}; this bust leaves room for an armhole only under {limit}"),
    _Relation("span", ">", "bust * 0.15", "the bust span is {value}; with this bust it is rarely under {limit}", False),
    _Relation("span", "<", "bust * 0.26", "the bust span is {value}; with this bust it is rarely over {limit}", False),
    _Relation("span/2 + 1/2 in", "<", "waist/4 + 1 1/4 in",
              "half the span and half a dart are {value}, and must stay inside the waist mark at {limit}"),
    _Relation("armhole/2", "<", "bust/6 + 2 1/2 in", "half the armhole round is {value}; rarely over {limit} here", False),
    _Relation("armhole/2", ">", "bust/6 + 1/2 in", "half the armhole round is {value}; rarely under {limit} here", False),
    _Relation("across_chest", "<", "shoulder + 1 cm", "across chest is {value}; with these shoulders hardly over {limit}"),
    _Relation("across_back", "<", "shoulder + 2 cm", "across back is {value}; with these shoulders hardly over {limit}"),
    _Relation("across_chest", ">", "shoulder - 11 cm", "across chest is {value}; rarely under {limit} here", False),
    _Relation("neck", "<", "head - 5 cm", "the neck is {value}; with this head it is hardly over {limit}"),
)  # fmt: skip

_OF_CHILDREN: tuple[_Relation, ...] = (
    _Relation("waist", "<", "bust * 1.06", "the waist is {value}; a block without a dart wants it under {limit}", False),
    _Relation("waist", ">", "bust * 0.94", "the waist is {value}; a block without a dart wants it over {limit}", False),
    _Relation("fwl", ">", "shoulder/2 + 1 1/2 in",
              "the half length is {value}; the armhole of this shoulder reaches so far down that it must be over {limit}"),
    _Relation("shoulder/2 - 1/2 in", "<", "bust/4 - 1/4 in",
              "half the shoulder less the hollow is {value}; this chest leaves room for an armhole only under {limit}"),
)  # fmt: skip

CAUTION = (
    "Children: cords and ties at the neck are a strangling hazard and forbidden in many places; look at the local rules. "
    "A finished neck opening must pass the head."
)


def oddities(known: Mapping[str, float], unit: Unit, *, is_child: bool = False) -> list[Oddity]:
    """What is odd about measurements (mm, by name), in the order of the chart; lengths told in a unit."""
    found = [odd for name in MEASUREMENTS if name in known for odd in _unlikely(name, known[name], unit, is_child=is_child)]
    doubtful = {name for odd in found for name in odd.names}
    scope = Scope("cm", known)
    for relation in _OF_CHILDREN if is_child else _RELATIONS:
        if any(name not in known or name in doubtful for name in relation.needs):
            continue  # one that is in the wrong unit would make everything odd
        value, limit = length_mm(relation.value, scope), length_mm(relation.limit, scope)
        if value > limit if relation.sign == "<" else value < limit:
            says = relation.says.format(value=format_length(value, unit), limit=format_length(limit, unit))
            found.append(Oddity(relation.needs, says, value, limit, relation.is_slip))
    return found


def _unlikely(name: str, mm: float, unit: Unit, *, is_child: bool) -> Iterator[Oddity]:
    measurement = BY_NAME[name]
    low, high = (measurement.child or measurement.likely) if is_child else measurement.likely
    if low <= mm <= high:
        return
    value, limit = format_length(mm, unit), low if mm < low else high
    side = "under" if mm < low else "over"
    says = f"the {measurement.short} is {value}, {side} {format_length(limit, unit)}"
    if low <= mm * 2.54 <= high:
        says += f"; {mm / 10.0:.4g} cm or {mm / 10.0:.4g} in?"
    elif low <= mm / 2.54 <= high:
        says += f"; {mm / 25.4:.4g} in or {mm / 25.4:.4g} cm?"
    elif low <= mm * 10.0 <= high or low <= mm / 10.0 <= high:
        says += "; mm or cm?"
    yield Oddity((name,), says, mm, limit)


def again(odd: Oddity) -> str:
    """What to do about an oddity: `Measure again: waist, under-bust.`"""
    listed = ", ".join(BY_NAME[name].short for name in odd.names)
    return (
        f"Measure again: {listed}."
        if odd.is_likely_slip
        else f"Rare, but some figures are so. If in doubt measure again: {listed}."
    )
