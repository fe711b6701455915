"""Stickers: as many as pieces of cloth; their codes read from the drawn page by OpenCV, which had no part in making them."""

from __future__ import annotations

import subprocess
from pathlib import Path

import pypdf
import pytest

from tests.samples import move, style
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.stickers import stickers, version_of_pattern
from zesty_pivot.data.demo import _read


def test_one_for_every_piece_of_cloth() -> None:
    derived = derive(_read("canticle.zpiv").with_finish({"size": "14"}))
    made = stickers(derived)
    assert len(made) == 7  # one piece on the fold, three pairs
    assert [one.lines[0] for one in made].count("Front side") == 2
    assert {one.lines[2] for one in made if one.lines[0] == "Front side"} == {"cut 1 pair, 1 of 2", "cut 1 pair, 2 of 2"}
    assert all("size=14" in one.code and "style=Canticle gown bodice" in one.code for one in made)


def test_the_version_changes_with_the_pattern_only() -> None:
    one, again, other = (derive(style(steps)) for steps in ([], [], [move("shoulder", "french")]))
    assert version_of_pattern(one) == version_of_pattern(again) != version_of_pattern(other)
    named = derive(style([]).with_finish({"size": "14", "date": "today"}))
    assert version_of_pattern(named) == version_of_pattern(one)


@pytest.mark.parametrize("name", ["descant", "rondel"])
def test_the_codes_are_read_from_the_page(name: str, tmp_path: Path) -> None:
    cv2 = pytest.importorskip("cv2")
    derived = derive(_read(f"{name}.zpiv").with_finish({"size": "12; a"}))
    path = tmp_path / "s.pdf"
    path.write_bytes(outputs(derived, ("stickers",), Printing())["stickers.pdf"])
    subprocess.run(["pdftoppm", "-r", "300", "-gray", "-png", path, tmp_path / "p"], check=True)
    read: list[str] = []
    for page in sorted(tmp_path.glob("p*.png")):
        image = cv2.imread(str(page), cv2.IMREAD_GRAYSCALE)
        # Each sticker by itself: three side by side, 37 mm tall, from 10 mm on.
        dots = 300 / 25.4
        for row in range(7):
            for column in range(3):
                x, y = 10.0 + column * 190.0 / 3.0, 10.0 + row * 37.0
                part = image[int(y * dots) + 3 : int((y + 37.0) * dots) - 3, int(x * dots) + 3 : int((x + 31.0) * dots)]
                white = cv2.copyMakeBorder(part, 40, 40, 40, 40, cv2.BORDER_CONSTANT, value=255)
                # A telephone is held nearer and farther until it reads.
                tried = (cv2.resize(white, None, fx=near, fy=near) for near in (1.0, 0.7, 1.5, 0.5, 2.0))
                found = (cv2.QRCodeDetector().detectAndDecode(one)[0] for one in tried)
                read += [text for text in (next((text for text in found if text), ""),) if text]
    assert sorted(read) == sorted(one.code for one in stickers(derived))
    assert all("size=12  a" in text for text in read)  # what parts the parts is no part of a name
    words = " ".join(" ".join(page.extract_text().split()) for page in pypdf.PdfReader(path).pages)
    assert all(one.lines[0] in words for one in stickers(derived))
