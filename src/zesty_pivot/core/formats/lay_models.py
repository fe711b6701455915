"""Cloth and lays as they stand in a style's file."""

from typing import Literal

from pydantic import Field

from zesty_pivot.core.quantity.fields import Length, Model, Share

CLOTHS = ("self", "lining", "interfacing")  # what pieces are cut from
WIDTHS = ("90 cm", "114 cm", "140 cm", "150 cm")  # as cloth is sold. Common practice, no source
MOST_LAYS = 24

ClothName = Literal["self", "lining", "interfacing"]


class LaidFile(Model):
    """A piece on the cloth: turned by so many degrees, its frame's origin at (x, y) mm."""

    key: str = Field(min_length=1, max_length=300)
    turn: float = Field(default=0.0, ge=-360.0, le=360.0)
    x: float = Field(ge=-1e5, le=1e5)
    y: float = Field(ge=-1e5, le=1e5)
    locked: bool = False


class LayFile(Model):
    """A cloth, and the lay on it. `stamps` tell each piece as it was then, so that it is known when the pattern has changed."""

    cloth: ClothName = "self"
    width: Length = "140 cm"
    folded: bool = False
    nap: Literal["none", "one_way"] = "none"
    lean: float = Field(default=0.0, ge=0.0, le=15.0, description="degrees that the grain may lean")
    gap: Length = "5 mm"
    selvedge: Length = "1 cm"
    repeat_along: Length = 0.0
    repeat_across: Length = 0.0
    match: tuple[str, ...] = Field(
        default=(), max_length=40, description="notches by their ids that stripes or checks match at"
    )
    shrinks_along: Share = 0.0
    shrinks_across: Share = 0.0
    price: float = Field(default=0.0, ge=0.0, le=1e6, description="of a metre")
    sets: int = Field(default=1, ge=1, le=20, description="how many garments are cut at once")
    variant: str = Field(default="", max_length=200)
    places: tuple[LaidFile, ...] = Field(default=(), max_length=2000)
    stamps: dict[str, str] = Field(default_factory=dict, max_length=2000)
