"""Writing a derived style to a folder: SVG, PDF and report."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path as FilePath

from zesty_pivot.core.finish.sheet import Sheet
from zesty_pivot.core.formats import report, svg
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.file_names import svg_names
from zesty_pivot.core.formats.folder import write_together
from zesty_pivot.core.formats.tiles import Tile, Tiling, best_tiling, needed
from zesty_pivot.core.recipe.hand import Section, hand_sheet
from zesty_pivot.core.steps.hand import Way


def tiled(sheet: Sheet, paper: str) -> tuple[Tiling, tuple[Tile, ...]]:
    """The tiling of a sheet, and the tiles that carry something of it."""
    tiling = best_tiling(sheet.width, sheet.height, paper)
    boxes = set()
    for laid in sheet.laid:
        left, top, right, bottom = laid.piece.box()
        boxes.add((left + laid.dx, top + laid.dy, right + laid.dx, bottom + laid.dy))
    return tiling, needed(tiling, boxes)


def makers(derived: Derived, formats: Sequence[str], paper: str) -> dict[str, Callable[[], bytes]]:
    """What makes each file of a derived style, by the file's name."""
    style = derived.style
    found: dict[str, Callable[[], bytes]] = {}
    if "svg" in formats:
        found["sheet.svg"] = lambda: svg.sheet_svg(derived.sheet, style.name)
        names = svg_names(piece.name for piece in derived.pieces)
        for piece in derived.pieces:
            found[names[piece.name]] = lambda piece=piece: svg.piece_svg(piece)  # type: ignore[misc]
    if "pdf" in formats:
        from zesty_pivot.core.formats import pdf

        pages = hand_pages(derived)
        found[f"tiles-{paper}.pdf"] = lambda: pdf.tiled_pdf(derived.sheet, *tiled(derived.sheet, paper), style.name, pages)
        found["full.pdf"] = lambda: pdf.full_pdf(derived.sheet, style.name, pages)
    found["report.json"] = lambda: report.dump(report.report(derived))
    return found


def outputs(
    derived: Derived, formats: Sequence[str], paper: str, progress: Callable[[int, int], None] = lambda _done, _total: None
) -> dict[str, bytes]:
    """The files of a derived style by name. Everything is worked out before anything is written.

    `progress` is told how many files of how many are made; what it raises stops the work.
    """
    known = makers(derived, formats, paper)
    found: dict[str, bytes] = {}
    for name, make in known.items():
        progress(len(found), len(known))
        found[name] = make()
    progress(len(known), len(known))
    return found


def hand_pages(derived: Derived, way: Way | None = None) -> tuple[Section, ...]:
    """The hand sheet that goes along with the pages: in the way asked for, else as the finish says; none when it says so."""
    chosen = way or derived.style.finish.hand_sheet
    return () if chosen == "none" else hand_sheet(derived.derivation, derived.style.scope(), chosen)


def hand_pdf(derived: Derived, way: Way, paper: str) -> bytes:
    """The hand sheet alone as a PDF."""
    from zesty_pivot.core.formats import pdf

    return pdf.hand_pdf(derived.style.name, hand_pages(derived, way), paper)


def write_all(derived: Derived, folder: FilePath, formats: Sequence[str], paper: str = "A4") -> list[FilePath]:
    """Writes the files of a derived style to a folder, report.json always: all or none. Raises FileError when it cannot."""
    return write_together(folder, outputs(derived, formats, paper))
