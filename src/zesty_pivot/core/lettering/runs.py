"""A line of text in runs of one font and one direction, in the order in which they stand from left to right.

The order is that of the Unicode bidirectional algorithm (UAX 9), by python-bidi.
"""

from __future__ import annotations

import itertools
import re
import unicodedata

from zesty_pivot.core.lettering.faces import FACES, Face, face_of
from zesty_pivot.core.record import record

UNKNOWN = "\ufffd"  # stands for a character that no font has

_RIGHT_TO_LEFT = re.compile(
    "[\u0590-\u08ff\u200f\u202b\u202e\u2067\ufb1d-\ufdff\ufe70-\ufeff\U00010800-\U00010fff\U0001e800-\U0001efff]"
)

# Scripts whose letters take other forms or places beside each other: they are shaped, glyph by glyph.
_SHAPED = re.compile("[\u0300-\u036f\u0590-\u08ff\u0900-\u109f\u1780-\u17ff\ufb1d-\ufdff\ufe70-\ufeff]")


@record
class TextRun:
    """A stretch of a line, in the order in which it is read: its font, whether it runs from right to left, and whether its
    letters must be shaped."""

    text: str
    face: Face
    is_rtl: bool

    @property
    def is_shaped(self) -> bool:
        """Whether its letters take forms and places by those beside them."""
        return self.is_rtl or _SHAPED.search(self.text) is not None


def is_plain(text: str) -> bool:
    """Whether a text is written from left to right in the first font alone: most are."""
    return text.isascii() or (
        not _RIGHT_TO_LEFT.search(text) and all(FACES[0].has(c) for c in text) and not _SHAPED.search(text)
    )


def rough_width(text: str) -> float:
    """About how wide a line is, in heights of its letters: half a height a letter, a whole one for those of East Asia."""
    return sum(1.0 if unicodedata.east_asian_width(character) in "WF" else 0.5 for character in text)


def visual_runs(text: str) -> tuple[TextRun, ...]:
    """The runs of a line from left to right. A character that no font has is the sign for an unknown one."""
    line = unicodedata.normalize("NFC", text)
    faces = _faces(line)
    levels = _levels(line)
    runs: list[tuple[int, TextRun]] = []
    for key, group in itertools.groupby(range(len(line)), key=lambda at: (levels[at], faces[at])):
        level, face = key
        words = "".join(line[at] if face is not None else UNKNOWN for at in group)
        runs.append((level, TextRun(words, face or FACES[1], level % 2 == 1)))
    return tuple(run for _level, run in _reordered(runs))


def _faces(line: str) -> list[Face | None]:
    """The font of each character: of a word the first that has all of it, so that no word is patched together."""
    found: list[Face | None] = []
    for word in re.findall(r"\s+|\S+", line):
        beside = found[-1:] if word.isspace() else []  # a space is as wide as in the word before it
        whole = next((face for face in (*beside, *FACES) if face is not None and all(face.has(c) for c in word)), None)
        if whole is not None:
            found += [whole] * len(word)
            continue
        for character in word:
            last = found[-1] if found else None
            # Marks go with their letter, and what is not seen with what stands before it.
            follows = unicodedata.category(character) in ("Mn", "Me", "Mc", "Cf") or character.isspace()
            found.append(last if last is not None and (follows or last.has(character)) else face_of(character))
    return found


def _levels(line: str) -> list[int]:
    """The embedding level of each character: odd from right to left."""
    if not _RIGHT_TO_LEFT.search(line):
        return [0] * len(line)
    from bidi import algorithm  # only where it is needed: most lines are not

    storage = algorithm.get_empty_storage()
    storage["base_level"] = algorithm.get_base_level(line)
    storage["base_dir"] = ("L", "R")[storage["base_level"]]
    algorithm.get_embedding_levels(line, storage)
    algorithm.explicit_embed_and_overrides(storage)
    algorithm.resolve_weak_types(storage)
    algorithm.resolve_neutral_types(storage, False)
    algorithm.resolve_implicit_levels(storage, False)
    levels = iter([int(one["level"]) for one in storage["chars"]])
    # Marks of direction are taken out by the algorithm; they keep the level of what stands before them.
    found: list[int] = []
    for character in line:
        removed = character in "\u202a\u202b\u202c\u202d\u202e"
        found.append((found[-1] if found else 0) if removed else next(levels, 0))
    return found


def _reordered(runs: list[tuple[int, TextRun]]) -> list[tuple[int, TextRun]]:
    """Rule L2: from the highest level to the lowest odd one, every row of runs at that level or above is reversed."""
    found = list(runs)
    highest = max((level for level, _run in found), default=0)
    for level in range(highest, 0, -1):
        at = 0
        while at < len(found):
            stop = at
            while stop < len(found) and found[stop][0] >= level:
                stop += 1
            found[at:stop] = reversed(found[at:stop])
            at = max(stop, at + 1)
    return found
