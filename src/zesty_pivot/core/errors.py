"""The one family of errors: each message is a single line that says what, where and what to do."""

from __future__ import annotations

import difflib
import re
from collections.abc import Iterable


class ZestyError(Exception):
    """Root of everything the program refuses, with its parts kept apart for the interface.

    `what` is the fault, `where` the place (file, piece, step, field), `advice` what to do.
    """

    def __init__(self, what: str, *, where: str = "", advice: str = "") -> None:
        self.what, self.where, self.advice = _one_line(what), _one_line(where), _one_line(advice)
        super().__init__(str(self))

    def __str__(self) -> str:
        head = f"{self.where}: {self.what}" if self.where else self.what
        return f"{head.rstrip('.')}. {self.advice}" if self.advice else head


_LONG = re.compile(r"\S{81,}")  # no word of ours; a name from a file may be as long as it likes
_MOST = 1000  # characters of any part of a message


def _one_line(text: str) -> str:
    """A text in one line that can be read: control characters escaped, what runs on and on cut short."""
    text = " ".join(text.split())
    if not text.isprintable():
        text = "".join(c if c.isprintable() else c.encode("unicode_escape", "surrogatepass").decode() for c in text)
    text = _LONG.sub(lambda match: f"{match[0][:60]}…", text)
    return text if len(text) <= _MOST else f"{text[:_MOST]}…"


class GeometryError(ZestyError, ValueError):
    """A curve or an outline that cannot be worked with."""


class FormulaError(ZestyError, ValueError):
    """A length, share or formula that cannot be read or worked out."""


class PlaceError(ZestyError, LookupError):
    """A place (edge, station, landmark, dart) that this piece does not have."""


class FileError(ZestyError, ValueError):
    """A file that cannot be read, or written, as what it says it is."""


class StepError(ZestyError, ValueError):
    """A step of a recipe that cannot be done on the pattern it meets."""


def one_of(kind: str, name: str, choices: Iterable[str]) -> tuple[str, str]:
    """Words for an unknown name: (what, advice), with the near name or the sorted choices. The program's own names, which begin
    with a star, are nobody's choice."""
    name = name if len(name) <= 60 else f"{name[:57]}..."
    known = sorted(choice for choice in choices if not choice.startswith("*"))
    near = difflib.get_close_matches(name, known, n=1)
    if near:
        return f"no {kind} {name!r}", f"Did you mean {near[0]!r}?"
    listed = ", ".join(known) if known else "none here"
    return f"no {kind} {name!r}", f"Choose one of: {listed}."
