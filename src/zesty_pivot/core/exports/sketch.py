"""The flat sketch as SVG."""

from __future__ import annotations

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.printing import Printing


def _files(derived: Derived, _printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats.sketch import sketch_svg

    return {"sketch.svg": lambda: sketch_svg(derived)}


EXPORT = Export(
    "sketch", "flat sketch", ".svg", _files, lambda _paper: "sketch.svg", order=9,
    tip="Front and back with darts and seams closed, drawn from the pattern itself", is_printed=False,
)  # fmt: skip
