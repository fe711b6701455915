"""The size chart that ships: invented, in proportions of size tables as remembered (common practice, no source)."""

from __future__ import annotations

from functools import lru_cache
from importlib.resources import files

from zesty_pivot.core.formats.files import parse_json
from zesty_pivot.core.sizes.chart import KIND, SizeChart, from_value

NAME = "quillmere.zsizes"


@lru_cache(maxsize=1)
def shipped_chart() -> SizeChart:
    """The Quillmere sizes: ten of women in two heights, four of children."""
    text = (files("zesty_pivot.data.sizes") / NAME).read_text(encoding="utf-8")
    return from_value(parse_json(text, KIND, NAME), NAME)
