"""The files of a nested sheet: all sizes in one, with a layer each; each size alone, where it lies; and how seams grow."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import partial

from zesty_pivot.core.formats.file_names import plain_names
from zesty_pivot.core.formats.measures_csv import write_table
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.quantity import MM_PER, Unit
from zesty_pivot.core.sizes.nested import growth
from zesty_pivot.core.sizes.nested_pdf import nested_full_pdf, nested_pages_pdf
from zesty_pivot.core.sizes.nested_sheet import NestedSheet, nested_sheet
from zesty_pivot.core.sizes.nested_svg import nested_svg
from zesty_pivot.core.sizes.sized import Sized

Progress = Callable[[int, int], None]
PLACES = {"mm": 1, "cm": 2, "in": 3}


def nested_files(
    title: str, sizes: Sequence[Sized], point: str, base: int, unit: Unit, printing: Printing | None = None,
    progress: Progress = lambda _done, _total: None,
) -> dict[str, bytes]:  # fmt: skip
    """The files by name: `nested.svg`, `nested.pdf` on one page, `nested-A4.pdf` in pages of that paper, `growth.csv`, and
    `nested-SIZE.svg` and `.pdf` of each. Raises ZestyError where there is no size to put there, or there are too many pages."""
    paper, sheet = printing or Printing(), nested_sheet(title, sizes, point, base)
    makers: dict[str, Callable[[], bytes]] = {
        "nested.svg": partial(nested_svg, sheet),
        "nested.pdf": partial(nested_full_pdf, sheet),
        f"nested-{paper.paper}.pdf": partial(nested_pages_pdf, sheet, paper.setup),
        "growth.csv": partial(growth_csv, sizes, unit),
        **_each(sheet, paper.paper),
    }
    found = dict[str, bytes]()
    for name, make in makers.items():
        progress(len(found), len(makers))
        found[name] = make()
    return found


def _each(sheet: NestedSheet, paper: str) -> dict[str, Callable[[], bytes]]:
    found: dict[str, Callable[[], bytes]] = {}
    for number, stem in enumerate(plain_names(sheet.titles, (paper,)).values(), 1):
        one = sheet.only(number)
        found |= {f"nested-{stem}.svg": partial(nested_svg, one), f"nested-{stem}.pdf": partial(nested_full_pdf, one)}
    return found


def growth_csv(sizes: Sequence[Sized], unit: Unit) -> bytes:
    """A row a seam, its sewn length in every size; what grows unevenly is named in the last column."""
    titles = [size.wearer.title for size in sizes]
    rows = [["piece", "edge", *(f"{title} ({unit})" for title in titles), "look at"]]
    for one in growth(sizes):
        lengths = ["" if mm is None else f"{mm / MM_PER[unit]:.{PLACES[unit]}f}" for mm in one.mm]
        odd = ", ".join(title for title, is_odd in zip(titles, one.is_odd, strict=True) if is_odd)
        rows.append([one.piece, one.edge, *lengths, odd])
    return write_table(rows)
