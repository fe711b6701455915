"""Cloth as it lies on the cutting table: x along it, y across."""

from __future__ import annotations

from typing import Literal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.nest.cut_pieces import CutPiece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record

Nap = Literal["none", "one_way"]
LEAST, MOST = 200.0, 5000.0  # mm across


@record
class Cloth:
    """`width` mm across, from edge to edge; `is_folded` lengthwise, right sides together; a one-way `nap` lets no piece lie
    upside down; `tolerance` degrees that the grain may lean; `gap` mm between pieces; `selvedge` mm at both edges that are not
    cut from; `repeat` (along, across) mm of stripes or checks, 0 for none; `shrinks` (along, across) shares that it loses
    before it is cut; `price` of a metre."""

    name: str = "self"
    width: float = 1400.0
    is_folded: bool = False
    nap: Nap = "none"
    tolerance: float = 0.0
    gap: float = 5.0
    selvedge: float = 10.0
    repeat: tuple[float, float] = (0.0, 0.0)
    shrinks: tuple[float, float] = (0.0, 0.0)
    price: float = 0.0

    @property
    def usable(self) -> float:
        """Mm across that pieces may lie on, once it has shrunk; on folded cloth from the fold to the selvedges."""
        whole = self.width * (1.0 - self.shrinks[1])
        return whole / 2.0 - self.selvedge if self.is_folded else whole - 2.0 * self.selvedge

    @property
    def turns(self) -> tuple[float, ...]:
        """The degrees that pieces may be turned by."""
        ways = (0.0,) if self.nap == "one_way" else (0.0, 180.0)
        lean = self.tolerance
        leans = (0.0,) if lean <= 0.0 else (0.0, lean / 2.0, -lean / 2.0, lean, -lean)
        return tuple(way + own for way in ways for own in leans)

    def bought(self, length: float) -> float:
        """Mm to buy for a lay of a length."""
        return length / (1.0 - self.shrinks[0])

    def checked(self) -> Cloth:
        """Itself. Raises ZestyError where it is no cloth that anything can be cut from."""
        if not LEAST <= self.width <= MOST:
            raise ZestyError(f"cloth {self.width:g} mm wide", where="lay", advice="Give a width from 20 cm to 5 m.")
        if not 0.0 <= self.gap <= 100.0 or not 0.0 <= self.selvedge <= 200.0 or not 0.0 <= self.tolerance <= 15.0:
            raise ZestyError(
                "a gap up to 10 cm, a selvedge up to 20 cm and a lean of up to 15 degrees can be laid", where="lay",
                advice="Change what is more than that.",
            )  # fmt: skip
        if not all(0.0 <= share <= 0.3 for share in self.shrinks) or not all(0.0 <= mm <= 2000.0 for mm in self.repeat):
            raise ZestyError(
                "cloth may shrink by up to 30 % and repeat within up to 2 m",
                where="lay",
                advice="Change what is more than that.",
            )
        if self.usable <= 50.0:
            raise ZestyError("its selvedges leave nothing to cut from", where="lay", advice="Take wider cloth.")
        return self


def too_wide(piece: CutPiece, cloth: Cloth) -> ZestyError:
    """The refusal of a piece that no turn lets lie on the cloth."""
    across = piece.shape.bounds[3] - piece.shape.bounds[1]
    fold = " on the fold" if cloth.is_folded else ""
    return ZestyError(
        f"{words(piece.key)} is {across / 10.0:.1f} cm wide across the grain, cloth{fold} leaves {cloth.usable / 10.0:.1f} cm",
        where="lay", advice="Take wider cloth, open it, or cut the piece with a seam.",
    )  # fmt: skip
