"""The flat sketch of a style as SVG, and on pages of paper."""

from __future__ import annotations

from html import escape

from zesty_pivot.core import faults
from zesty_pivot.core.conventions.sewing import sewing_of
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.pdf_paper import Paper
from zesty_pivot.core.geometry import svgpath
from zesty_pivot.core.making.flat_sketch import SketchView, flat_sketch

SCALE = 5.0  # mm of the garment to a mm of the drawing
GAP = 60.0  # mm of the garment between front and back
INK = "#1d1b18"
# mm of the drawing that a line is wide, and its dashes.
LOOKS: dict[str, tuple[float, tuple[float, ...]]] = {
    "outline": (0.5, ()), "seam": (0.3, ()), "dart": (0.25, ()), "fold": (0.25, (1.6, 0.8)), "gathers": (0.18, ()),
    "opening": (0.6, (0.8, 0.5)),
}  # fmt: skip


def sketched(derived: Derived) -> tuple[SketchView, ...]:
    """Front and back of a style; nothing where it cannot be drawn: what the sketch stands on is written all the same."""
    try:
        return flat_sketch(derived.pattern, sewing_of(derived.style.finish, derived.look.scope))
    except Exception as fault:  # noqa: BLE001 - the boundary of a picture
        faults.caught(fault, "the flat sketch")
        return ()


def sketch_svg(derived: Derived) -> bytes:
    """The sketch at a fifth of its size. Raises ZestyError where there is nothing to draw."""
    views = sketched(derived)
    if not views:
        raise ZestyError(
            "neither front nor back can be laid flat", where="flat sketch",
            advice="Switch off the step that joins them or twists the cloth, and save it again.",
        )  # fmt: skip
    wide, tall = _size(views)
    edge = 10.0 * SCALE
    lines = [
        '<?xml version="1.0" encoding="UTF-8"?>',
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{(wide + 2 * edge) / SCALE:.2f}mm" '
        f'height="{(tall + 2 * edge) / SCALE:.2f}mm" viewBox="0 0 {wide + 2 * edge:.2f} {tall + 2 * edge:.2f}">',
        f"<title>{escape(derived.style.title)}</title>",
        f'<g fill="none" stroke="{INK}" stroke-linecap="round" stroke-linejoin="round">',
    ]
    x = edge
    for view in views:
        left, top, right, _low = view.box
        lines.append(f'<g id="{view.body.value}" transform="translate({x - left:.3f} {edge - top:.3f})">')
        for stroke in view.strokes:
            width, dashes = LOOKS[stroke.kind]
            gaps = " ".join(f"{part * SCALE:g}" for part in dashes)
            dashed = f' stroke-dasharray="{gaps}"' if gaps else ""
            data = svgpath.write((stroke.path,), 2)
            lines.append(f'<path class="{stroke.kind}" stroke-width="{width * SCALE:g}"{dashed} d="{data}"/>')
        lines.append("</g>")
        x += right - left + GAP
    lines += ["</g>", "</svg>", ""]
    return "\n".join(lines).encode()


def _size(views: tuple[SketchView, ...]) -> tuple[float, float]:
    boxes = [view.box for view in views]
    return sum(box[2] - box[0] for box in boxes) + GAP * (len(boxes) - 1), max(box[3] - box[1] for box in boxes)


def add_sketch(
    paper: Paper, views: tuple[SketchView, ...], box: tuple[float, float, float, float], weight: float = 1.0
) -> None:
    """Front and back side by side in a box (x, y, width, height, mm of the page); lines `weight` times as wide as usual."""
    if not views:
        return
    x, y, width, height = box
    wide, tall = _size(views)
    scale = min(width / wide, height / tall)
    canvas, at = paper.canvas, x + (width - wide * scale) / 2.0
    for view in views:
        left, top, right, _low = view.box
        canvas.saveState()
        canvas.translate(*paper.point(at, y))
        canvas.scale(scale, scale)
        page, paper.height = paper.height, 0.0
        for stroke in view.strokes:
            line, dashes = LOOKS[stroke.kind]
            paper.look(weight * line / scale, tuple(weight * part / scale for part in dashes))
            paper.path(stroke.path, -left, -top)
        paper.height = page
        canvas.restoreState()
        at += (right - left + GAP) * scale
