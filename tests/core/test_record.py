"""Records against the standard library's frozen dataclasses: the same classes made by both behave alike."""

from __future__ import annotations

import copy
import pickle
from dataclasses import FrozenInstanceError, asdict, dataclass, field, fields, replace
from functools import cached_property
from typing import Any

import pytest

from zesty_pivot.core.record import EARLY, record
from zesty_pivot.core.record import replace as quick_replace


def plain() -> Any:
    """A class that is neither yet."""

    class Ours:
        """Doc."""

        a: int
        b: str = "x"
        c: dict[str, int] = field(default_factory=dict, compare=False)
        d: tuple[int, ...] = field(default=(), repr=False)

        @cached_property
        def twice(self) -> int:
            return 2 * self.a

    return Ours


def pair(*, eq: bool = True, order: bool = False) -> tuple[Any, Any]:
    """One class made by each."""
    return record(eq=eq, order=order)(plain()), dataclass(frozen=True, eq=eq, order=order)(plain())


@pytest.mark.parametrize("values", [{"a": 1}, {"a": 1, "b": "y", "c": {"k": 2}}, {"a": 2, "d": (1, 2)}])
def test_they_are_made_printed_and_compared_alike(values: dict[str, Any]) -> None:
    ours, theirs = pair()
    one, other = ours(**values), theirs(**values)
    assert repr(one) == repr(other) and asdict(one) == asdict(other) and one.twice == other.twice
    assert [each.name for each in fields(one)] == [each.name for each in fields(other)]
    assert hash(one) == hash(other)
    for changed in ({"a": 7}, {"c": {"z": 1}}, {"d": (9,)}):
        assert (replace(one, **changed) == one) == (replace(other, **changed) == other), changed
    assert one != other and copy.deepcopy(one) == one and one.c == values.get("c", {})
    assert ours(values["a"]) == replace(one, b="x", d=())
    assert ours.__match_args__ == theirs.__match_args__


def test_nothing_is_set_or_deleted() -> None:
    for kind in pair():
        one = kind(1)
        for name in ("a", "unknown"):
            with pytest.raises(FrozenInstanceError):
                setattr(one, name, 2)
            with pytest.raises(FrozenInstanceError):
                delattr(one, name)
        for wrong in ({}, {"a": 1, "e": 2}):
            with pytest.raises(TypeError):
                kind(**wrong)


def test_order_and_identity() -> None:
    for kind in pair(order=True):
        one, two = kind(1, "a"), kind(1, "b")
        assert one < two <= two and two > one >= one and sorted([two, one]) == [one, two]
    for kind in pair(eq=False):
        assert kind(1) != kind(1) and len({kind(1), kind(1)}) == 2


@record
class Base:
    """With a default of its own."""

    a: int = 1


@record
class Derived(Base):
    """A record of a record, which does something after it is made."""

    b: list[int] = field(default_factory=list)

    def __post_init__(self) -> None:
        self.b.append(self.a)


def test_inherited_pickled_and_begun() -> None:
    one = Derived(a=4)
    assert one.b == [4] and Derived().b == [1] and Base(2) != Derived(2)
    assert pickle.loads(pickle.dumps(one)) == one
    with pytest.raises(FrozenInstanceError):
        one.a = 2  # type: ignore[misc]


def test_what_is_kept_beside_the_fields_is_not_sent() -> None:
    one = Derived(a=4)
    vars(one)["kept"] = lambda: "cannot be pickled"
    for other in (pickle.loads(pickle.dumps(one)), copy.deepcopy(one)):
        assert other == one and "kept" not in vars(other)


@pytest.mark.parametrize("copied", [replace, quick_replace])
def test_copies_with_changes(copied: Any) -> None:
    """Ours against the standard library's, on both kinds of class."""
    for kind in pair():
        one = kind(3, "y", {"k": 1})
        assert one.twice == 6
        other = copied(one, a=5)
        assert (other.a, other.b, other.c, other.d) == (5, "y", one.c, ()) and other.c is one.c
        assert "twice" not in vars(other) and other.twice == 10  # what was worked out is not carried over
        assert copied(one) == one and copied(one) is not one and one.a == 3
        for wrong in ({"e": 1}, {"twice": 1}):
            with pytest.raises(TypeError):
                copied(one, **wrong)
    one = Derived(a=4)
    assert copied(one, a=5).b == [4, 5]  # done after it is made, as whenever one is made


def test_many_are_made_as_the_first() -> None:
    """The initialiser that comes with the many takes the same arguments and refuses the same ones."""
    ours, theirs = pair()
    for number in range(2 * EARLY):
        assert vars(ours(number, d=(number,))) == vars(theirs(number, d=(number,)))
    for args, named in (((), {}), ((1, "a", {}, (), 5), {}), ((1,), {"a": 2}), ((1,), {"e": 2})):
        for kind in (ours, theirs, *pair()):
            with pytest.raises(TypeError):
                kind(*args, **named)
