"""Who a style is made for: the sizes of the chart that its file names, and people beside them."""

from __future__ import annotations

from zesty_pivot.core.kept import Kept
from zesty_pivot.core.sizes.nested_sheet import MOST
from zesty_pivot.core.sizes.sized import Wearer
from zesty_pivot.desk.model import DeskModel
from zesty_pivot.desk.people import People
from zesty_pivot.desk.sizes.charts import Charts


class Who:
    """The same values give the same bodies, so that what was worked out for them is known again."""

    def __init__(self, model: DeskModel, people: People, charts: Charts) -> None:
        self._model, self._people, self._charts = model, people, charts
        self.people: frozenset[str] = frozenset()  # titles of those that are beside the sizes
        self.guests: tuple[Wearer, ...] = ()  # out of a table that was written, to be looked at
        self._met: Kept[tuple[Wearer, ...]] = Kept(2)
        self._seen: Kept[tuple[Wearer, ...]] = Kept(4)

    @property
    def is_child(self) -> bool:
        """Whether the style is a child's, which is made in children's sizes."""
        return not self._model.style.block.has_bust_point

    @property
    def fitting(self) -> tuple[Wearer, ...]:
        """The sizes of the chart that such a style can be made in."""
        return tuple(one for one in self._charts.wearers if one.is_child is self.is_child)

    @property
    def made_in(self) -> tuple[Wearer, ...]:
        """The sizes that the style is made in: as its file says, else those of the base's group."""
        asked, fitting = self._model.style.sizes, self.fitting
        if asked:
            return tuple(one for one in fitting if one.title in asked)
        base = next((one for one in fitting if one.title == self._charts.chart.base), fitting[0] if fitting else None)
        return tuple(one for one in fitting if base is not None and one.group == base.group)

    @property
    def everybody(self) -> tuple[Wearer, ...]:
        """The people that may be beside them."""
        return self._met.get((self._people.history.value,), (), self._meet)

    def _meet(self) -> tuple[Wearer, ...]:
        found = [self._people.body(n) for n in range(len(self._people.all))]
        return tuple(
            Wearer(one.title, tuple(sorted(one.lengths.items())), one.is_child,
                   fault="" if one.lengths else "nobody measured it yet") for one in found
        )  # fmt: skip

    @property
    def asked(self) -> tuple[Wearer, ...]:
        """Who it is written for: sizes, then people, then guests."""
        values = (self._charts.chart, self._people.history.value, self._model.style.sizes, self.guests)
        return self._seen.get(values, (self.is_child, self.people), self._ask)

    def _ask(self) -> tuple[Wearer, ...]:
        return (*self.made_in, *(one for one in self.everybody if one.title in self.people), *self.guests)

    @property
    def shown(self) -> tuple[Wearer, ...]:
        """Who is worked out and shown: no more of them than can be told apart, and all guests."""
        asked = self.asked
        return asked if len(asked) <= MOST else (*asked[: MOST - len(self.guests)], *self.guests)

    def one(self, title: str) -> Wearer | None:
        """One of those that are shown, by the title."""
        return next((one for one in self.shown if one.title == title), None)

    @property
    def base(self) -> int:
        """The number of the one that stays where it lies: the base of the chart, else the middle one."""
        titles = [one.title for one in self.shown]
        return titles.index(self._charts.chart.base) if self._charts.chart.base in titles else len(self.made_in) // 2
