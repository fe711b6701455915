"""What is drawn on a part of its own besides its outline: fold lines, buttons, what to gather."""

from __future__ import annotations

from typing import Literal

from zesty_pivot.core.geometry import Path
from zesty_pivot.core.record import record

MarkKind = Literal["crease", "cross", "thin", "hole", "text"]


@record
class Mark:
    """A line (`path`), or a place `at` (mm) with a hole of a `radius` (mm) or a `text` about it. Only parts of their own have
    them, as no step moves those."""

    id: str
    kind: MarkKind
    path: Path | None = None
    at: tuple[float, float] = (0.0, 0.0)
    radius: float = 0.0
    text: str = ""
