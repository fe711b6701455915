"""Sizes that several tests lay over each other."""

from __future__ import annotations

import functools

from zesty_pivot.core.sizes.chart import SizeChart
from zesty_pivot.core.sizes.sized import Sized, Sizer, Wearer
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.sizes import shipped_chart


def wearers(chart: SizeChart, group: str) -> list[Wearer]:
    """The sizes of a group."""
    return [
        Wearer(size.title, tuple(sorted(chart.lengths(size).items())), size.is_child, size.group)
        for size in chart.of_group(group)
    ]


@functools.cache
def in_all_sizes(name: str, group: str = "regular") -> tuple[Sized, ...]:
    """A demo style by the beginning of its name in the sizes of a group."""
    style = next(style for style in demo_styles() if style.name.startswith(name))
    sizer, under = Sizer(), Under()
    return tuple(sizer.sized(style, under, wearer) for wearer in wearers(shipped_chart(), group))
