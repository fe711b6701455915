"""The shipped fonts in the order in which they are asked, with the characters that each of them has.

What a font has is written down beside it (coverage.json, made by tools/make_coverage.py), as reading it from ten fonts would
take longer than drawing a sheet.
"""

from __future__ import annotations

import bisect
import json
import unicodedata
from functools import lru_cache
from importlib.resources import files

from zesty_pivot.core.record import record

COVERAGE = "coverage.json"


@record
class Face:
    """A family with the files of its regular and bold type; one that has no bold is written in its regular type."""

    family: str
    regular: str
    bold: str

    def file(self, *, bold: bool) -> str:
        """The font's file in the folder of fonts."""
        return self.bold if bold else self.regular

    def has(self, character: str) -> bool:
        """Whether the font has a character of its own."""
        bounds = _coverage()[self.regular]
        return bisect.bisect_right(bounds, ord(character)) % 2 == 1


def _face(family: str, name: str, *, bold: bool = False) -> Face:
    return Face(family, f"{name}-Regular.ttf", f"{name}-{'Bold' if bold else 'Regular'}.ttf")


FACES = (
    _face("Hanken Grotesk", "HankenGrotesk", bold=True),
    _face("Noto Sans", "NotoSans", bold=True),
    _face("Noto Sans Hebrew", "NotoSansHebrew"),
    _face("Noto Sans Arabic", "NotoSansArabic"),
    _face("Noto Sans Armenian", "NotoSansArmenian"),
    _face("Noto Sans Georgian", "NotoSansGeorgian"),
    _face("Noto Sans Thai", "NotoSansThai"),
    _face("Noto Sans Devanagari", "NotoSansDevanagari"),
    Face("Droid Sans Fallback", "DroidSansFallback.ttf", "DroidSansFallback.ttf"),
)


@lru_cache(maxsize=1)
def _coverage() -> dict[str, list[int]]:
    """By font file the bounds of the ranges that it has: the first character of one, the first after it, and so on."""
    found: dict[str, list[int]] = json.loads((files("zesty_pivot.data") / "fonts" / COVERAGE).read_text(encoding="utf-8"))
    return found


def face_of(character: str) -> Face | None:
    """The first font that has a character, or None."""
    return next((face for face in FACES if face.has(character)), None)


def missing(text: str) -> str:
    """The characters of a text that no shipped font has, each once, in their order. What is not seen counts for nothing."""
    if text.isascii():
        return ""
    composed = unicodedata.normalize("NFC", text)
    return "".join(dict.fromkeys(c for c in composed if not c.isspace() and not _is_unseen(c) and face_of(c) is None))


def _is_unseen(character: str) -> bool:
    """Whether a character only tells how others are written: joiners, marks of direction, choices of a variant."""
    return unicodedata.category(character) == "Cf" or 0xFE00 <= ord(character) <= 0xFE0F
