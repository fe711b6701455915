"""The rules by which a block is graded: a table of points, levels and darts, each with a formula and its reason."""

from __future__ import annotations

import tomllib
from collections.abc import Mapping
from functools import lru_cache
from importlib.resources import files
from typing import Literal

from pydantic import Field

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.measure.estimates import estimates
from zesty_pivot.core.piece import Body
from zesty_pivot.core.quantity import Scope, length_mm
from zesty_pivot.core.quantity.fields import Model

DartRule = Literal["grow", "keep"]
BODICE, CHILD = "bodice.toml", "child.toml"


class GradingRule(Model):
    """`on` is the body that it is for; without one, both."""

    on: Literal["front", "back", ""] = ""
    why: str


class PointRule(GradingRule):
    """How far a point goes away from the centre (x) and down (y)."""

    name: str
    x: str = "0 mm"
    y: str = "0 mm"


class LevelRule(GradingRule):
    """How far a level goes down."""

    name: str
    y: str


class DartWidth(GradingRule):
    """How much wider the darts of a pivot are together, measured at the waist, by a rule of a name."""

    pivot: str
    rule: DartRule
    intake: str


class RuleTable(Model):
    """All of them; of several that fit, the first counts."""

    point: tuple[PointRule, ...]
    level: tuple[LevelRule, ...]
    dart: tuple[DartWidth, ...] = Field(default=())


@lru_cache(maxsize=4)
def rule_table(name: str = BODICE) -> RuleTable:
    """A table that ships."""
    return RuleTable.model_validate(tomllib.loads((files("zesty_pivot.data") / "grading" / name).read_text(encoding="utf-8")))


class SizeDifferences:
    """What formulas are worth for one body less what they are worth for another, mm. Measurements that one of them lacks are
    estimated for both, so that a guess takes nothing and gives nothing by itself."""

    def __init__(self, base: Mapping[str, float], size: Mapping[str, float], *, is_child: bool = False) -> None:
        self._base, self._size = (_whole(one, other, is_child) for one, other in ((base, size), (size, base)))
        self._known: dict[str, float] = {}

    def of(self, formula: str) -> float:
        """Raises ZestyError for a measurement that neither has."""
        if formula not in self._known:
            try:
                one, two = (length_mm(formula, Scope("mm", held)) for held in (self._base, self._size))
            except ZestyError as fault:
                raise ZestyError(fault.what, where="grading", advice="Measure it for both sizes.") from None
            self._known[formula] = two - one
        return self._known[formula]

    @property
    def are_nothing(self) -> bool:
        """Whether both bodies are the same."""
        return self._base == self._size


def _whole(own: Mapping[str, float], other: Mapping[str, float], is_child: bool) -> dict[str, float]:
    """A body's measurements that the other has too, with estimates for the rest."""
    both = {name: mm for name, mm in own.items() if name in other}
    return {**{name: one.mm for name, one in estimates(both, is_child=is_child).items()}, **both}


def point_rule(table: RuleTable, point: str, body: Body) -> PointRule | None:
    """The rule for a point of a piece."""
    return next((rule for rule in table.point if rule.name == point and rule.on in ("", body.value)), None)
