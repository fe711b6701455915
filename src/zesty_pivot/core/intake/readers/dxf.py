"""DXF, as drafting programs and pattern rooms exchange it."""

from __future__ import annotations

import re

from zesty_pivot.core.intake.drawing import Drawing
from zesty_pivot.core.intake.readers.base import Reader

_SECTION = re.compile(rb"^\s*0\s*\r?\n\s*SECTION\b", re.MULTILINE)


def _read(content: bytes) -> Drawing:
    from zesty_pivot.core.intake import dxf

    return dxf.read(content)


def _is_one(head: bytes) -> bool:
    return head.startswith(b"AutoCAD Binary DXF") or bool(_SECTION.search(head))


READER = Reader("dxf", "DXF", (".dxf",), _is_one, _read, order=2)
