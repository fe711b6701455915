"""The trade's names for the parts of a bodice piece, in loop order from the centre neck."""

from __future__ import annotations

from collections.abc import Iterable, Mapping

from zesty_pivot.core.piece.sides import Side

# role of the edge -> (landmark where it begins, landmark where it ends), clockwise on the paper.
EDGE_ENDS: dict[str, tuple[str, str]] = {
    "neckline": ("centre_neck", "neck_point"),
    "shoulder": ("neck_point", "shoulder_tip"),
    "armhole": ("shoulder_tip", "underarm"),
    "side_seam": ("underarm", "side_waist"),
    "waist": ("side_waist", "centre_waist"),
    "centre": ("centre_waist", "centre_neck"),
}

LOOP = tuple(EDGE_ENDS)

# A hip-length piece has a hem where another has its waist; the waist is then a level inside it.
HIP_ENDS: dict[str, tuple[str, str]] = {
    **{role: ends for role, ends in EDGE_ENDS.items() if role != "waist"},
    "side_seam": ("underarm", "side_hem"),
    "hem": ("side_hem", "centre_hem"),
    "centre": ("centre_hem", "centre_neck"),
}

HIP_LOOP = ("neckline", "shoulder", "armhole", "side_seam", "hem", "centre")

CORNERS = tuple(dict.fromkeys(first for ends in (EDGE_ENDS, HIP_ENDS) for first, _last in ends.values()))

# Points inside a piece, as blocks name them.
LANDMARKS = ("bust_point", "blade_point", "waist_tip")

LAPPED_UNDER = "lapped under"  # an edge that another is turned under and laid over

FOLD = "fold."  # notches whose ids begin so number the folds of a drape

TWIST = "twist"  # the edge of a tab that goes through the other half, and the role of its sides

LEVELS = ("chest", "bust", "under_bust", "waist", "hip")

# Roles that a piece shares with its partner piece and that are sewn together there.
SEAM_ROLES = ("shoulder", "side_seam")

UPPER = ("neckline", "shoulder", "armhole")  # roles of the edges above the bust, beside the centre

DART_LEG = "dart_leg"

WORDS = {
    "neckline": "neckline",
    "shoulder": "shoulder",
    "armhole": "armhole",
    "side_seam": "side seam",
    "waist": "waist",
    "hem": "hem",
    "centre": "centre",
    "style_line": "style line",
    "dart_leg": "dart leg",
    "wrap_end": "end of the wrap",
    "french": "French",
}

_ORDINALS = {"2": "second", "3": "third", "4": "fourth"}

_SIDE_WORDS = frozenset(side.value for side in Side)


def ends_of(roles: Iterable[str]) -> Mapping[str, tuple[str, str]]:
    """The landmarks where edges begin and end, by role, on a piece with these roles."""
    return HIP_ENDS if "hem" in roles else EDGE_ENDS


def capital(text: str) -> str:
    """A text with a capital at its beginning, the rest as it is: `French dart` stays so."""
    return text[:1].upper() + text[1:]


def words(name: str) -> str:
    """A name from a file as it is read aloud: `side_seam` is `side seam`, `waist.left` is `left waist`,
    `waist-2` is `second waist`."""
    plain, _dot, side = name.rpartition(".")
    if plain and side in _SIDE_WORDS:
        return f"{side} {words(plain)}"
    base, _dash, number = name.rpartition("-")
    if base and number.isdigit():  # of several of one name
        return f"{_ORDINALS.get(number, f'{number}th')} {words(base)}"
    return WORDS.get(name, name.replace("_", " "))
