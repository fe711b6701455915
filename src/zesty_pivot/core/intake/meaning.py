"""What the name of a layer, group or class says of the lines that stand in it."""

from __future__ import annotations

import re
from enum import StrEnum


class Kind(StrEnum):
    """What a line is for."""

    SEAM = "seam"
    CUT = "cut"
    LEG = "dart leg"
    NOTCH = "notch"
    DRILL = "drill hole"
    GRAIN = "grain"
    FOLD = "fold"
    CROSS = "point"
    INNER = "inner line"
    ASIDE = "left aside"
    UNKNOWN = ""


# Layers of exchange files for patterns in the manner of D6673, as remembered: see shared TRIALS. 84 and 85 hold the lines of
# 1 and 14 once more as exact curves.
_NUMBERED = {
    "1": Kind.CUT, "2": Kind.ASIDE, "3": Kind.ASIDE, "4": Kind.NOTCH, "5": Kind.ASIDE, "6": Kind.FOLD, "7": Kind.GRAIN,
    "8": Kind.INNER, "9": Kind.ASIDE, "10": Kind.ASIDE, "11": Kind.INNER, "13": Kind.DRILL, "14": Kind.SEAM, "15": Kind.ASIDE,
    "80": Kind.NOTCH, "81": Kind.NOTCH, "82": Kind.NOTCH, "83": Kind.NOTCH, "84": Kind.CUT, "85": Kind.SEAM,
}  # fmt: skip

_EXACT = {"84": "1", "85": "14"}

# The first that is found in a name decides. Common practice, no source.
_WORDS: tuple[tuple[str, Kind], ...] = (
    (r"crease|\bcaps?\b|\bthin\b|dimension|\btexts?\b|label|title|page|frame|tile|arrow|balance square", Kind.ASIDE),
    (r"\blegs?\b|\bdarts?\b", Kind.LEG),
    (r"notch|\bnip", Kind.NOTCH),
    (r"drill|\bhole|punch", Kind.DRILL),
    (r"grain", Kind.GRAIN),
    (r"\bcross|bust.?point|apex", Kind.CROSS),
    (r"fold|mirror|\bcentre\b|\bcenter\b", Kind.FOLD),
    (r"seam|sew|stitch", Kind.SEAM),
    (r"\bcut|boundary|outline", Kind.CUT),
    (r"internal|inner|mark", Kind.INNER),
)
_COMPILED = tuple((re.compile(pattern, re.IGNORECASE), kind) for pattern, kind in _WORDS)


def meaning(layer: str) -> Kind:
    """What lines of this layer are for, as far as its name says."""
    numbered = _NUMBERED.get(layer.strip())
    if numbered is not None:
        return numbered
    spaced = re.sub(r"[_\-.]+", " ", layer)
    return next((kind for pattern, kind in _COMPILED if pattern.search(spaced)), Kind.UNKNOWN)


def without_doubles(layers: frozenset[str]) -> frozenset[str]:
    """The layers without those whose lines stand in another layer once more, exactly."""
    doubled = {plain for exact, plain in _EXACT.items() if exact in layers}
    return layers - doubled


_SIZE = re.compile(r"(?:size|sz|gr(?:ade|öße)?)?\s*[_\- ]*\b(\d{1,3}|x{0,4}s|m|x{0,5}l|small|medium|large)\b", re.IGNORECASE)


def size_word(name: str) -> str:
    """The size that a layer's or block's name ends with: `front_38`, `Size 12`, `XL`. Nothing where it names none."""
    if meaning(name) is not Kind.UNKNOWN or name.strip() == "0":
        return ""
    found = list(_SIZE.finditer(re.sub(r"[_\-.]+", " ", name)))
    return found[-1][1].upper() if found else ""
