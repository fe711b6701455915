"""Names of files made from the names of pieces and variants: readable in any script, and no two the same on any disk."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Iterable

_TAKEN = ("sheet",)  # the whole style's own file
_MOST = 200  # bytes of a name before its ending; most file systems take 255


def svg_names(pieces: Iterable[str]) -> dict[str, str]:
    """The SVG file of each piece, by the piece's name. A piece whose name can be a file's as it stands has that name; others
    take a hyphen for what cannot stand in one, and a number where that makes two alike."""
    return {name: f"{stem}.svg" for name, stem in plain_names(pieces, _TAKEN).items()}


def plain_names(several: Iterable[str], taken: Iterable[str] = ()) -> dict[str, str]:
    """A name for a file or a folder made from each of several, no two alike and none of those that are `taken`."""
    names = list(dict.fromkeys(several))
    found: dict[str, str] = {}
    used = set(taken)
    for name in sorted(names, key=lambda name: (_plain(name) != name, names.index(name))):
        stem, number = _plain(name), 2
        while _alike(stem) in used:
            stem, number = f"{_plain(name)}-{number}", number + 1
        used.add(_alike(stem))
        found[name] = stem
    return found


def _plain(name: str) -> str:
    """A name of letters, digits, `_` and `-`, of any script."""
    text = "".join(c if _stands(c) else " " for c in unicodedata.normalize("NFC", name))
    text = re.sub(" +", "-", text).strip("-")
    return text.encode()[:_MOST].decode(errors="ignore") or "piece"


def _stands(character: str) -> bool:
    """Whether a character may stand in a file's name: letters and digits with the marks that belong to them, `_` and `-`."""
    return character.isalnum() or character in "_-" or unicodedata.category(character).startswith("M")


def _alike(stem: str) -> str:
    """What two names have in common that some disks and all readers take for one."""
    return unicodedata.normalize("NFKC", stem).casefold()
