"""Getting a document ready to be shown; safe in a thread of its own. No Qt here."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file, files, style_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.record import record

Told = Callable[[int, int], None]


@record
class OpenDocument:
    """A document worked out: its file if it has one, what that file held, and the evaluator that knows its states."""

    derived: Derived
    evaluator: Evaluator
    path: Path | None
    stamp: str | None


def ready(style: Style, path: Path | None = None, told: Told | None = None, *, checked: bool = True) -> OpenDocument:
    """A style worked out whole, and `checked`, unless that is left for later. Raises a ZestyError when its block is not sound;
    all else that is wrong with it is a broken step or a finding, so that any document that was saved opens again."""
    stamp = files.stamp(path) if path is not None else None
    evaluator = Evaluator()
    derived = derive(style, evaluator, told)
    if not derived.pattern.pieces:
        raise ZestyError("the style has no pieces", where=style.name, advice="Give it a block.")
    opened = OpenDocument(derived, evaluator, path, stamp)
    if checked:
        opened.derived.findings  # noqa: B018 - kept once asked for; asked here, they are worked out beside the interface
    return opened


def read(path: Path, told: Told | None = None) -> OpenDocument:
    """A style from its file, or a new style over a block. Raises a ZestyError when it cannot be read or is not sound."""
    if path.suffix == block_file.SUFFIX:
        return ready(style_file.from_block(block_file.read(path), path.stem.replace("-", " ")), None, told)
    return ready(style_file.read(path), path, told)
