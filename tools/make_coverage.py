"""Writes beside the shipped fonts which characters they have; to be run when a font was exchanged."""

from __future__ import annotations

import itertools
import json
from pathlib import Path

from reportlab.pdfbase.ttfonts import TTFontFile

FONTS = Path(__file__).parents[1] / "src" / "zesty_pivot" / "data" / "fonts"


def bounds(font: Path) -> list[int]:
    """The first character of each range that a font has, and the first after it."""
    known = sorted(code for code, glyph in TTFontFile(str(font)).charToGlyph.items() if glyph)
    found: list[int] = []
    for _key, group in itertools.groupby(enumerate(known), key=lambda pair: pair[1] - pair[0]):
        row = [code for _number, code in group]
        found += [row[0], row[-1] + 1]
    return found


def main() -> None:
    table = {path.name: bounds(path) for path in sorted(FONTS.glob("*.ttf"))}
    (FONTS / "coverage.json").write_text(json.dumps(table, separators=(",", ":")) + "\n", encoding="utf-8")


if __name__ == "__main__":
    main()
