"""The page of a PDF as the other modules draw on it: millimetres, y down, the shipped type."""

from __future__ import annotations

import io
import math

from reportlab import rl_config
from reportlab.lib.colors import HexColor
from reportlab.lib.utils import ImageReader
from reportlab.pdfgen.canvas import Canvas

from zesty_pivot import __version__
from zesty_pivot.core.formats import pdf_text
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.bezier import are_straight
from zesty_pivot.core.quantity.units import IN

MM = 72.0 / IN  # PDF points per mm: 72 to the inch
INK = HexColor("#1d1b18")
FAINT = HexColor("#8a8378")
WHITE = HexColor("#ffffff")

rl_config.useA85 = 0  # streams as bytes: as text they take as long to write as everything else, and a quarter more room


class Paper:
    """A canvas with mm, y down, and the corner of the sheet shifted to where a tile wants it."""

    def __init__(self, title: str) -> None:
        self._buffer = io.BytesIO()
        # `invariant` fixes the file's dates and ids, so that two exports of one style are byte-equal.
        self.canvas = Canvas(self._buffer, pagesize=(100.0, 100.0), invariant=1, pageCompression=1)
        self.canvas.setTitle(title)
        self.canvas.setCreator(f"Zesty Pivot {__version__}")
        self.height = 0.0

    def page(self, width: float, height: float) -> None:
        self.height = height
        self.canvas.setPageSize((width * MM, height * MM))
        self.canvas.setLineCap(1)
        self.canvas.setLineJoin(1)

    def done(self) -> bytes:
        self.canvas.save()
        return self._buffer.getvalue()

    def point(self, x: float, y: float) -> tuple[float, float]:
        return x * MM, (self.height - y) * MM

    def look(self, width: float, dash: tuple[float, ...] = (), faint: bool = False, colour: str = "") -> None:
        self.canvas.setStrokeColor(HexColor(colour) if colour else FAINT if faint else INK)
        self.canvas.setLineWidth(width * MM)
        self.canvas.setDash([part * MM for part in dash], 0)

    def path(self, path: Path, dx: float, dy: float) -> None:
        drawn = self.canvas.beginPath()
        drawn.moveTo(*self.point(path.start[0] + dx, path.start[1] + dy))
        for cubic, straight in zip(path.cubics.tolist(), are_straight(path.cubics).tolist(), strict=True):
            spots = [self.point(x + dx, y + dy) for x, y in cubic]
            if straight:
                drawn.lineTo(*spots[3])
            else:
                drawn.curveTo(*spots[1], *spots[2], *spots[3])
        self.canvas.drawPath(drawn, stroke=1, fill=0)

    def line(self, x0: float, y0: float, x1: float, y1: float) -> None:
        self.canvas.line(*self.point(x0, y0), *self.point(x1, y1))

    def rect(self, x: float, y: float, width: float, height: float, *, filled: bool = False) -> None:
        self.canvas.setFillColor(INK)
        self.canvas.rect(*self.point(x, y + height), width * MM, height * MM, stroke=1, fill=int(filled))

    def picture(self, data: bytes, x: float, y: float, width: float) -> float:
        """A PNG or JPEG as wide as asked for; where it ends, y."""
        image = ImageReader(io.BytesIO(data))
        wide, tall = image.getSize()
        height = width * float(tall) / float(wide)
        left, low = self.point(x, y + height)
        self.canvas.drawImage(image, left, low, width * MM, height * MM)
        return y + height

    def text(
        self, x: float, y: float, text: str, size: float, *, bold: bool = False, centred: bool = True, turn: float = 0.0,
        white: bool = False,
    ) -> None:  # fmt: skip
        """A line of writing about its middle or from its beginning; `turn` (radians, clockwise) is about the place given."""
        self.canvas.setFillColor(WHITE if white else INK)
        at, up = self.point(x, y)
        back = pdf_text.width(text, size * MM, bold=bold) / 2.0 if centred else 0.0
        if not turn:
            pdf_text.draw(self.canvas, at - back, up, text, size * MM, bold=bold)
            return
        self.canvas.saveState()
        self.canvas.translate(at, up)
        self.canvas.rotate(-math.degrees(turn))  # y up, so the other way round
        pdf_text.draw(self.canvas, -back, 0.0, text, size * MM, bold=bold)
        self.canvas.restoreState()

    def wrapped(self, text: str, size: float, width: float, *, bold: bool = False) -> list[str]:
        """A text in lines of at most `width` mm."""
        return pdf_text.wrapped(text, size * MM, width * MM, bold=bold)
