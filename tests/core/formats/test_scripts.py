"""What was typed in any script is what the PDF and the SVG show: read back by Poppler (pdftotext, pdffonts, pdftoppm), which
had no part in writing them."""

import subprocess
import xml.etree.ElementTree as ET
from pathlib import Path

import pypdf
import pytest
from PyQt6.QtGui import QImage

from tests.core.lettering.scripts import WORDS
from tests.samples import style
from zesty_pivot.core.exports.pdf import hand_pdf
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.formats import svg
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.pdf_paper import Paper
from zesty_pivot.core.formats.printing import Printing

EIGHT = ["Łódź Čeština", "Ελληνικά", "Кириллица", "前後", "עברית", "العربية", "ქართული", "हिन्दी क्षेत्र", "Հայերեն", "ไทย ที่นี่"]
APART = 14.0  # mm between two lines of the page


def page(lines: list[str]) -> bytes:
    paper = Paper("Scripts")
    paper.page(120.0, APART * (len(lines) + 1))
    for number, line in enumerate(lines, start=1):
        paper.text(60.0, APART * number, line, 8.0, bold=number % 2 == 0)
    paper.canvas.showPage()
    return paper.done()


def read(*args: str | Path) -> str:
    return subprocess.run([str(arg) for arg in args], capture_output=True, text=True, check=True).stdout


def test_a_page_of_ten_scripts_is_read_back(tmp_path: Path) -> None:
    path = tmp_path / "scripts.pdf"
    path.write_bytes(page(EIGHT))
    marks = dict.fromkeys(map(ord, "\u202a\u202b\u202c\f"))  # marks of direction that the reader puts round its words
    lines = [line.strip() for line in read("pdftotext", "-raw", path, "-").translate(marks).splitlines() if line.strip()]
    assert lines == EIGHT
    embedded = [line.split() for line in read("pdffonts", path).splitlines()[2:]]
    assert len(embedded) >= 9
    assert all(row[-5] == "yes" and row[-4] == "yes" for row in embedded if "Helvetica" not in row[0]), embedded
    assert path.stat().st_size < 150_000  # subsets: the fonts have five megabytes
    # Scripts that need no shaping are read by any reader.
    plain = pypdf.PdfReader(path).pages[0].extract_text().split()
    assert {"Łódź", "Čeština", "Ελληνικά", "Кириллица", "前後", "ქართული", "Հայերեն"} <= set(plain)


def test_the_page_as_a_picture_shows_letters_and_no_boxes(tmp_path: Path, qapp) -> None:
    """Each line has its own ink: no two words, and no word and the sign for something unknown, look alike."""
    (tmp_path / "p.pdf").write_bytes(page([*EIGHT, "한국어"]))
    read("pdftoppm", "-r", "60", "-png", "-gray", "-singlefile", tmp_path / "p.pdf", tmp_path / "p")
    image = QImage(str(tmp_path / "p.png")).convertToFormat(QImage.Format.Format_Grayscale8)
    high = image.height() / (len(EIGHT) + 2)
    seen = []
    for number in range(len(EIGHT) + 1):
        rows = range(round((number + 0.4) * high), round((number + 1.3) * high))
        seen.append(tuple(sum(image.pixelColor(x, y).value() < 128 for y in rows) for x in range(image.width())))
    assert all(sum(row) > 20 for row in seen) and len(set(seen)) == len(seen)


@pytest.mark.parametrize("text", WORDS)
def test_labels_of_a_style_in_any_script(text: str, tmp_path: Path) -> None:
    derived = derive(style([]).model_copy(update={"name": text}).with_finish({"size": text, "cloth": text[:40]}))
    assert not [finding for finding in derived.findings if finding.check == "letters"]
    files = outputs(derived, ("svg", "pdf"), Printing(packing="kept"))
    tree = ET.fromstring(files["sheet.svg"])
    written = [node.text for node in tree.iter("{http://www.w3.org/2000/svg}text")]
    assert text in written and f"size {text}" in written
    (tmp_path / "full.pdf").write_bytes(files["full.pdf"])
    back = read("pdftotext", "-raw", tmp_path / "full.pdf", "-")
    assert all(word in back for word in text.split())
    assert len(hand_pdf(derived, "pivot", "A4")) > 1000
    assert b"Noto Sans Hebrew" in svg.piece_svg(derived.pieces[0])


def test_long_lines_are_broken_in_every_script() -> None:
    paper = Paper("x")
    for text in ("עברית " * 30, "前" * 200, "Кириллица и ещё " * 20, "plain words " * 30):
        rows = paper.wrapped(text.strip(), 5.0, 80.0)
        assert len(rows) > 2 and "".join(rows).replace(" ", "") == text.replace(" ", "")
