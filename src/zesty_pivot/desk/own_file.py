"""What is the user's own, or what ships where nothing of it is there; one that cannot be read is set aside, not lost."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TypeVar

from zesty_pivot.core.errors import ZestyError

Value = TypeVar("Value")


def own_or_shipped(
    path: Path, read: Callable[[Path], Value], shipped: Callable[[], Value], say: Callable[[str], object], instead: str
) -> Value:
    """What a file holds; `instead` is what is said of what is shown for one that cannot be read."""
    try:
        return read(path) if path.exists() else shipped()
    except ZestyError as fault:
        kept = path.with_name(f"{path.name}.unread")
        path.replace(kept)
        say(f"{fault} {instead}; the file is kept as {kept.name}.")
        return shipped()
