"""DXF files: lines, polylines with arcs, arcs, ellipses, splines, blocks and layers, read with ezdxf."""

from __future__ import annotations

import io
import logging
import math
import re
from collections.abc import Iterable
from typing import Any

import numpy as np
from ezdxf import path as dxf_path
from ezdxf import recover
from ezdxf.document import Drawing as Document
from ezdxf.entities.dxfentity import DXFEntity
from ezdxf.entities.insert import Insert
from ezdxf.lldxf.const import DXFError
from ezdxf.math import Vec3

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.geometry import bezier
from zesty_pivot.core.intake.drawing import Array, Collector, Drawing

# $INSUNITS of the DXF reference: what one unit is, in mm.
UNITS = {1: 25.4, 2: 304.8, 4: 1.0, 5: 10.0, 6: 1000.0, 13: 0.001, 14: 100.0}
UNIT_WORDS = {1: "in", 2: "ft", 4: "mm", 5: "cm", 6: "m", 13: "µm", 14: "dm"}
_METRIC, _ENGLISH = re.compile(r"units?\s*[:=]\s*metric", re.I), re.compile(r"units?\s*[:=]\s*(english|imperial)", re.I)

_DEEPEST = 8  # blocks within blocks
_MOST = 50_000  # entities
_DRAWN = {"LINE", "LWPOLYLINE", "POLYLINE", "ARC", "CIRCLE", "ELLIPSE", "SPLINE", "HELIX"}
_FLAT = 1e-4  # file units: what is no cubic exactly (rational splines) is drawn this closely
_FACES = {"3DFACE", "HATCH", "SOLID", "MESH", "IMAGE", "VIEWPORT", "DIMENSION", "LEADER", "XLINE", "RAY"}


def read(content: bytes) -> Drawing:
    """The lines and words of a DXF; y turned down. Raises FileError for what is no DXF, or draws nothing.

    Its unit is that of its header, or of a text "Units: METRIC" (mm) or "ENGLISH" (inches) as exchange files for patterns
    write.
    """
    document = _opened(content)
    collector = _Entities()
    collector.walk(document.modelspace(), "", 0)
    code = _unit_code(document)
    told = next((word.text for word in collector.words if _METRIC.search(word.text) or _ENGLISH.search(word.text)), "")
    if told:
        return collector.made(1.0 if _METRIC.search(told) else 25.4, told)
    return collector.made(UNITS.get(code), UNIT_WORDS.get(code, ""))


def _opened(content: bytes) -> Document:
    if b"\0" in content[:64] and not content.startswith(b"AutoCAD Binary DXF"):
        raise FileError("it is no DXF", advice="Save it as ASCII DXF.")
    if not content.startswith(b"AutoCAD Binary DXF") and b"SECTION" not in content:
        raise FileError("it is no DXF", advice="Save it as ASCII DXF, R12 or later.")
    logging.getLogger("ezdxf").setLevel(logging.CRITICAL)  # what it recovers from is its own affair; what is left out is told
    try:
        document, _auditor = recover.read(io.BytesIO(content))
    except DXFError as fault:
        raise FileError(f"it cannot be read as DXF: {fault}", advice="Save it again as ASCII DXF.") from None
    except RecursionError:
        raise FileError("its blocks are nested too deeply", advice="Save it again with its blocks dissolved.") from None
    except Exception as fault:  # noqa: BLE001 - the library lets faults of any kind through
        raise FileError(f"it cannot be read as DXF ({type(fault).__name__})", advice="Save it again as ASCII DXF.") from None
    return document


def _unit_code(document: Document) -> int:
    try:
        return int(document.header.get("$INSUNITS", 0))
    except (TypeError, ValueError):
        return 0


class _Entities(Collector):
    def __init__(self) -> None:
        super().__init__()
        self._count = 0

    def walk(self, entities: Iterable[DXFEntity], group: str, depth: int) -> None:
        for entity in entities:
            self._count += 1
            if self._count > _MOST:
                raise FileError("it holds more entities than a pattern has", advice="Save only the block's pieces.")
            try:
                self._one(entity, group, depth)
            except FileError:
                raise
            except RecursionError:
                self.note("a block nested too deeply")
            except Exception:  # noqa: BLE001 - one broken entity costs itself
                self.note(f"a broken {entity.dxftype().lower()}")

    def _one(self, entity: DXFEntity, group: str, depth: int) -> None:
        kind, layer = entity.dxftype(), str(entity.dxf.get("layer", "0"))
        if isinstance(entity, Insert):
            if depth >= _DEEPEST:
                self.note("a block nested too deeply")
                return
            for one in entity.multi_insert() if entity.mcount > 1 and entity.mcount < 1000 else (entity,):
                for attribute in one.attribs:
                    self._word(attribute, layer, group or str(entity.dxf.name))
                self.walk(one.virtual_entities(), group or str(entity.dxf.name), depth + 1)
        elif kind in ("TEXT", "MTEXT", "ATTDEF"):
            self._word(entity, layer, group)
        elif kind == "POINT":
            at = entity.dxf.location
            self.dot((float(at.x), -float(at.y)), layer, group)
        elif kind in _DRAWN:
            self._curve(entity, kind, layer, group)
        else:
            self.note(f"a {kind.lower()}")

    def _word(self, entity: Any, layer: str, group: str) -> None:
        at = entity.dxf.get("insert", Vec3())
        text = entity.plain_text()
        self.text((float(at.x), -float(at.y)), str(text), layer, group)

    def _curve(self, entity: Any, kind: str, layer: str, group: str) -> None:
        if kind == "CIRCLE":
            at = entity.ocs().to_wcs(entity.dxf.center)
            self.dot((float(at.x), -float(at.y)), layer, group, abs(float(entity.dxf.radius)))
        made = dxf_path.make_path(entity, segments=16) if kind != "SPLINE" else dxf_path.make_path(entity, level=8)
        for one in made.sub_paths():
            cubics = _cubics(one)
            if cubics:
                self.line(np.stack(cubics), layer, group)


def _cubics(path: dxf_path.Path) -> list[Array]:
    found: list[Array] = []
    here = _at(path.start)
    for command in path.commands():
        end = _at(command.end)
        if isinstance(command, dxf_path.Curve3To):
            control = _at(command.ctrl)
            found.append(np.stack([here, here + (control - here) * 2.0 / 3.0, end + (control - end) * 2.0 / 3.0, end]))
        elif isinstance(command, dxf_path.Curve4To):
            found.append(np.stack([here, _at(command.ctrl1), _at(command.ctrl2), end]))
        elif isinstance(command, dxf_path.LineTo):
            found.append(bezier.line(here, end))
        here = end
    return found


def _at(point: Vec3) -> Array:
    x, y = float(point.x), float(point.y)
    if not (math.isfinite(x) and math.isfinite(y)):
        raise ValueError("no number")
    return np.array([x, -y])
