"""How a style is put on paper: which paper, how its pages join, which of them are printed."""

from __future__ import annotations

from typing import Literal

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.nest.paged import EDGE, OVERLAP, Page, PageSetup, page_setup
from zesty_pivot.core.record import record

Packing = Literal["search", "kept", "none"]
DxfVersion = Literal["R12", "R2000", "R2010"]


@record
class Printing:
    """`paper` is a name or a size (`330x480`, mm), `edge` and `overlap` are mm (overlap 0: pages are laid edge to edge);
    `apart` gives every piece pages of its own, `only` says which pages are printed (`2, 5-7`; empty: all). `packing` is how the
    pieces come to lie: as the style's file keeps them and searched for where it does not (`search`), as kept and side by side
    where it does not (`kept`), side by side (`none`). `dxf` is the version that DXF is written in, `dxf_each` writes
    every piece to a file of its own as well. `roll` and `roll_length` (0: without an end) are mm of a plotter's paper, `pens`
    how many it has. `cloth` is the width of the cloth to lay on, where it is another than the style's own, `folded` and with a
    one-way `nap`. `on_stand` puts a picture of the pattern on its form, and what it tells, on the cut sheet and in the
    report."""

    paper: str = "A4"
    edge: float = EDGE
    overlap: float = OVERLAP
    apart: bool = False
    only: str = ""
    in_colour: bool = False
    packing: Packing = "search"
    dxf: DxfVersion = "R2000"
    dxf_each: bool = False
    roll: float = 900.0
    roll_length: float = 0.0
    pens: int = 3
    cloth: str = ""
    folded: bool = False
    nap: bool = False
    on_stand: bool = False

    @property
    def setup(self) -> PageSetup:
        """The pages, upright. Raises ZestyError where the paper is none, or too little of it is left."""
        return page_setup(self.paper, self.edge, self.overlap)


def chosen_pages(only: str, pages: tuple[Page, ...]) -> tuple[Page, ...]:
    """The pages that are printed: all, or those that a list like `2, 5-7` names. Raises ZestyError for what is no such list and
    for a page that there is not."""
    if not only.strip():
        return pages
    wanted: set[int] = set()
    for part in only.replace(";", ",").split(","):
        first, dash, last = part.strip().partition("-")
        try:
            low, high = int(first), int(last if dash else first)
        except ValueError:
            raise ZestyError(f"{part.strip()!r} is no page", where="pages", advice="Name pages as 2, 5-7.") from None
        if not 1 <= low <= high <= len(pages):
            raise ZestyError(
                f"{part.strip()} is not among the pages 1 to {len(pages)}", where="pages", advice="Name pages as 2, 5-7."
            )
        wanted |= set(range(low, high + 1))
    return tuple(page for page in pages if page.number in wanted)


def listed(numbers: set[int]) -> str:
    """Page numbers as a list like `2, 5-7`."""
    found: list[str] = []
    for number in sorted(numbers):
        if number - 1 in numbers:
            found[-1] = f"{found[-1].split('-')[0]}-{number}"
        else:
            found.append(str(number))
    return ", ".join(found)
