"""SVG, as drawing programs save it."""

from __future__ import annotations

from zesty_pivot.core.intake.drawing import Drawing
from zesty_pivot.core.intake.readers.base import Reader


def _read(content: bytes) -> Drawing:
    from zesty_pivot.core.intake import svg

    return svg.read(content)


READER = Reader("svg", "SVG", (".svg",), lambda head: b"<svg" in head.lower(), _read, order=1)
