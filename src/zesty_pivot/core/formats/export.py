"""Writing a derived style to a folder: SVG, PDF and report."""

from __future__ import annotations

import re
from collections.abc import Sequence
from pathlib import Path as FilePath

from zesty_pivot.core.finish.sheet import Sheet
from zesty_pivot.core.formats import files, report, svg
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.tiles import Tile, Tiling, best_tiling, needed


def tiled(sheet: Sheet, paper: str) -> tuple[Tiling, tuple[Tile, ...]]:
    """The tiling of a sheet, and the tiles that carry something of it."""
    tiling = best_tiling(sheet.width, sheet.height, paper)
    boxes = set()
    for laid in sheet.laid:
        left, top, right, bottom = laid.piece.box()
        boxes.add((left + laid.dx, top + laid.dy, right + laid.dx, bottom + laid.dy))
    return tiling, needed(tiling, boxes)


def outputs(derived: Derived, formats: Sequence[str], paper: str) -> dict[str, bytes]:
    """The files of a derived style by name. Everything is worked out before anything is written."""
    style = derived.style
    found: dict[str, bytes] = {}
    if "svg" in formats:
        found["sheet.svg"] = svg.sheet_svg(derived.sheet, style.name)
        for piece in derived.pieces:
            found[f"{_safe(piece.name)}.svg"] = svg.piece_svg(piece)
    if "pdf" in formats:
        from zesty_pivot.core.formats import pdf

        tiling, tiles = tiled(derived.sheet, paper)
        found[f"tiles-{paper}.pdf"] = pdf.tiled_pdf(derived.sheet, tiling, tiles, style.name)
        found["full.pdf"] = pdf.full_pdf(derived.sheet, style.name)
    found["report.json"] = report.dump(report.report(derived))
    return found


def write_all(derived: Derived, folder: FilePath, formats: Sequence[str], paper: str = "A4") -> list[FilePath]:
    """Writes the files of a derived style to a folder, report.json always. Raises FileError when it cannot."""
    written: list[FilePath] = []
    for name, content in outputs(derived, formats, paper).items():
        files.write_atomic(folder / name, content)
        written.append(folder / name)
    return written


def _safe(name: str) -> str:
    return re.sub(r"[^A-Za-z0-9_-]+", "-", name).strip("-") or "piece"
