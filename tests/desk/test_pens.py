"""One walk for every pen: SVG, PDF and screen are told the same, and a text lies on paper as the finish has it."""

import math
import re
from typing import Any

import pypdf
import pytest
from PyQt6.QtGui import QImage, QPainter

from zesty_pivot.core.finish.pen import LOOKS, draw
from zesty_pivot.core.formats import pdf, svg
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.pdf_pen import PdfPen
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.desk.table.finished import ScreenPen

Told = list[tuple[Any, ...]]
DEMOS = {made.name: made for made in demo_styles()}


class Ear:
    """A pen that only listens."""

    def __init__(self) -> None:
        self.told: Told = []

    def begin(self, *what: Any) -> None:
        self.told.append(("begin", *what))

    def stroke(self, *what: Any) -> None:
        self.told.append(("stroke", *what))

    def circle(self, *what: Any) -> None:
        self.told.append(("circle", *what))

    def text(self, *what: Any) -> None:
        self.told.append(("text", *what))


def overheard(kind: type, monkeypatch: pytest.MonkeyPatch) -> Told:
    """What pens of a kind are told from now on, in its order."""
    told: Told = []
    for name in ("begin", "stroke", "circle", "text"):
        was = getattr(kind, name)

        def both(self: Any, *what: Any, name: str = name, was: Any = was) -> None:
            told.append((name, *what))
            was(self, *what)

        monkeypatch.setattr(kind, name, both)
    return told


@pytest.mark.parametrize("name", DEMOS)
def test_every_pen_is_told_the_same(name: str, monkeypatch: pytest.MonkeyPatch, qtbot) -> None:  # type: ignore[no-untyped-def]
    made, ear = derive(DEMOS[name]), Ear()
    draw(made.sheet.laid, ear)
    heard = [overheard(kind, monkeypatch) for kind in (svg.SvgPen, PdfPen, ScreenPen)]
    svg.sheet_svg(made.sheet, name)
    pdf.full_pdf(made.sheet, name)
    image = QImage(400, 300, QImage.Format.Format_ARGB32)
    painter = QPainter(image)
    draw(made.sheet.laid, ScreenPen(painter, 1.0))
    painter.end()
    pieces = [what for what in ear.told if what[0] == "begin"]
    assert [piece for _begin, piece, _dx, _dy in pieces] == [laid.piece for laid in made.sheet.laid]
    assert {id(laid.piece) for laid in made.sheet.laid} == {id(piece) for piece in made.pieces}
    assert {what[1].kind for what in ear.told if what[0] == "stroke"} <= set(LOOKS)
    for told in heard:
        assert len(told) == len(ear.told) and all(a[0] == b[0] and a[1] is b[1] for a, b in zip(told, ear.told, strict=True))


@pytest.mark.parametrize(("name", "begins", "way"), [("Compline bodice", "gather ", -1), ("Carillon bodice", "ease ", 1)])
def test_a_text_lies_along_its_seam_in_svg_pdf_and_on_the_screen(name: str, begins: str, way: int, qtbot) -> None:  # type: ignore[no-untyped-def]
    """Once it was turned in the SVG and level in the PDF and on the screen."""
    made = derive(DEMOS[name])
    (text,) = [text for piece in made.pieces for text in piece.texts if text.text.startswith(begins)]
    degrees = math.degrees(text.turn)
    assert 2.0 < way * degrees < 60.0
    line = next(line for line in svg.sheet_svg(made.sheet, "t").decode().splitlines() if text.text in line)
    said = re.search(r"rotate\((\S+) ", line)
    assert said is not None and float(said[1]) == pytest.approx(degrees, abs=1e-3)  # SVG: clockwise, y down
    assert pdf_turn(pdf.full_pdf(made.sheet, "t"), text.text) == pytest.approx(-degrees, abs=1e-2)  # PDF: y up
    assert screen_turn(made, text.text) == pytest.approx(degrees, abs=1e-6)


def pdf_turn(content: bytes, words: str) -> float:
    """The direction of a text on the first page, degrees counter-clockwise, as pypdf reads it."""
    import io

    found: list[float] = []

    def seen(text: str, page: list[float], own: list[float], _font: Any, _size: float) -> None:
        if words in text:
            x, y = own[0] * page[0] + own[1] * page[2], own[0] * page[1] + own[1] * page[3]
            found.append(math.degrees(math.atan2(y, x)))

    pypdf.PdfReader(io.BytesIO(content)).pages[0].extract_text(visitor_text=seen)
    (turn,) = found
    return turn


def screen_turn(made: Derived, words: str) -> float:
    """The direction of a text as a painter is asked for it, degrees clockwise."""
    image = QImage(50, 50, QImage.Format.Format_ARGB32)
    found: list[float] = []

    class Painter(QPainter):
        def drawText(self, *what: Any) -> None:  # type: ignore[override]
            if what[-1] == words:
                frame = self.worldTransform()
                found.append(math.degrees(math.atan2(frame.m12(), frame.m11())))

    painter = Painter(image)
    draw(made.sheet.laid, ScreenPen(painter, 1.0))
    painter.end()
    (turn,) = found
    return turn
