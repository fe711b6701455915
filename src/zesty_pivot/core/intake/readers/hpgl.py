"""HP-GL, as plotters are sent it."""

from __future__ import annotations

import re

from zesty_pivot.core.intake.drawing import Drawing
from zesty_pivot.core.intake.readers.base import Reader

_BEGINS = re.compile(rb"^\s*(?:\x1b[^A-Za-z]*[A-Za-z]|[\s;])*(?:IN|DF|SP|PU|PD|PA|IP|SC)\s*[-\d;,\s]", re.IGNORECASE)


def _read(content: bytes) -> Drawing:
    from zesty_pivot.core.intake import hpgl

    return hpgl.read(content)


READER = Reader("hpgl", "HP-GL", (".plt", ".hpgl", ".hpg", ".hgl"), lambda head: bool(_BEGINS.match(head)), _read, order=3)
