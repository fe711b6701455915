"""SVG files: paths, shapes, transforms, groups and layers, read with svgelements."""

from __future__ import annotations

import io
import math
import re

import numpy as np
from svgelements import (
    SVG,
    Arc,
    Circle,
    Close,
    CubicBezier,
    Ellipse,
    Group,
    Image,
    Line,
    Move,
    Path,
    QuadraticBezier,
    Shape,
    Text,
    Use,
)

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.geometry import bezier
from zesty_pivot.core.intake.drawing import Array, Collector, Drawing

# So many user units an inch that what has a unit comes out in millimetres: the library takes a millimetre as 0.0393701 inch.
PPI = 1.0 / 0.0393701

_PHYSICAL = re.compile(r"^\s*[-+0-9.eE]+\s*(mm|cm|in|pt|pc|q|Q)\s*$")
_DEEPEST = 60  # groups within groups
_ARC_PARTS = math.pi / 8.0


def read(content: bytes) -> Drawing:
    """The lines and words of an SVG. Its unit is known where its width or height has one (mm, cm, in, pt).

    Raises FileError for what is no SVG or draws nothing.
    """
    head = content[:4096].lower()
    if b"<svg" not in content[: 1 << 20].lower() and b"<svg" not in head:
        raise FileError("it is no SVG", advice="Save it as plain SVG.")
    if b"<!entity" in content.lower():
        raise FileError("it defines entities, which no pattern needs", advice="Save it as plain SVG.")
    try:
        document = SVG.parse(io.BytesIO(content), reify=True, ppi=PPI)
    except RecursionError:
        raise FileError("its groups are nested too deeply", advice="Save it as plain SVG.") from None
    except Exception as fault:  # noqa: BLE001 - the library lets faults of any kind through
        raise FileError(f"it cannot be read as SVG ({type(fault).__name__})", advice="Save it as plain SVG.") from None
    if not isinstance(document, Group):  # a file whose first element is none that draws
        raise FileError("it holds no drawing", advice="Save it as plain SVG.")
    collector = Collector()
    is_physical = any(_PHYSICAL.match(str(document.values.get(name, ""))) for name in ("width", "height"))
    _walk(document, collector, "", "", 0)
    return collector.made(1.0 if is_physical else None, "mm" if is_physical else "")


def _walk(group: Group, collector: Collector, layer: str, piece: str, depth: int) -> None:
    if depth > _DEEPEST:
        collector.note("groups nested too deeply")
        return
    for element in group:
        if isinstance(element, Group | Use):
            own = _name(element)
            # The outermost named group is the piece or the layer, the innermost the layer.
            _walk(element, collector, own or layer, piece or own, depth + 1)
        elif isinstance(element, Image):
            collector.note("a picture")
        elif isinstance(element, Text):
            _text(element, collector, layer, piece)
        elif isinstance(element, Shape):
            _shape(element, collector, layer, piece)


def _name(element: Group) -> str:
    values = element.values or {}
    # Drawing programs keep a layer's name as a `label` in a namespace of their own.
    label = next((text for key, text in values.items() if isinstance(key, str) and key.endswith("}label")), "")
    return str(label or element.id or values.get("class") or "").strip()


def _text(element: Text, collector: Collector, layer: str, piece: str) -> None:
    where = element.transform.point_in_matrix_space((float(element.x or 0.0), float(element.y or 0.0)))
    collector.text((where.x, where.y), str(element.text or ""), layer, piece)


def _shape(element: Shape, collector: Collector, layer: str, piece: str) -> None:
    if str(element.values.get("display", "")) == "none" or str(element.values.get("visibility", "")) == "hidden":
        collector.note("what the file hides")
        return
    own = str(element.values.get("class") or "").strip()
    if isinstance(element, Circle | Ellipse) and not isinstance(element, Path):
        box = element.bbox()
        if box is not None:
            left, top, right, bottom = box
            if abs((right - left) - (bottom - top)) <= 0.01 * max(right - left, 1e-9):
                collector.dot(((left + right) / 2.0, (top + bottom) / 2.0), own or layer, piece, (right - left) / 2.0)
    path = abs(Path(element))
    chain: list[Array] = []
    for segment in path:
        if isinstance(segment, Move):
            _flush(chain, collector, own or layer, piece)
        elif segment.start is not None and segment.end is not None:
            chain += _cubics(segment)
    _flush(chain, collector, own or layer, piece)


def _flush(chain: list[Array], collector: Collector, layer: str, piece: str) -> None:
    if chain:
        collector.line(np.stack(chain), layer, piece)
        chain.clear()


def _at(point: object) -> Array:
    return np.array([float(point.x), float(point.y)])  # type: ignore[attr-defined]


def _cubics(segment: object) -> list[Array]:
    if isinstance(segment, Line | Close):
        return [bezier.line(_at(segment.start), _at(segment.end))]
    if isinstance(segment, CubicBezier):
        return [np.stack([_at(one) for one in (segment.start, segment.control1, segment.control2, segment.end)])]
    if isinstance(segment, QuadraticBezier):
        first, control, last = _at(segment.start), _at(segment.control), _at(segment.end)
        return [np.stack([first, first + (control - first) * 2.0 / 3.0, last + (control - last) * 2.0 / 3.0, last])]
    if isinstance(segment, Arc):
        parts = max(1, math.ceil(abs(float(segment.sweep or 0.0)) / _ARC_PARTS))
        return [one for part in segment.as_cubic_curves(arc_required=parts) for one in _cubics(part)]
    return []
