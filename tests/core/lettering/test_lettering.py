"""Which font writes what, and in what order: against the fonts themselves and the Unicode bidirectional algorithm."""

import json
from importlib.resources import files

import pytest
from reportlab.pdfbase.ttfonts import TTFontFile

from tests.core.lettering.scripts import WORDS
from tests.samples import real_value, style
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.lettering import FACES, is_plain, missing, rough_width, visual_runs

FONTS = files("zesty_pivot.data") / "fonts"


@pytest.mark.parametrize("text", WORDS)
def test_each_script_has_its_font(text: str) -> None:
    runs = visual_runs(text)
    assert {run.face.family for run in runs} == {WORDS[text]} and missing(text) == ""
    assert is_plain(text) == (WORDS[text] == "Hanken Grotesk")


def test_the_coverage_is_that_of_the_fonts() -> None:
    """Read by the PDF library's own reader of fonts; both types of a family have the same letters."""
    table = json.loads((FONTS / "coverage.json").read_text())
    assert set(table) == {path.name for path in FONTS.iterdir() if path.name.endswith(".ttf")}
    for face in FACES:
        for file in {face.regular, face.bold}:
            known = {code for code, glyph in TTFontFile(str(FONTS / file)).charToGlyph.items() if glyph}
            bounds = table[file]
            assert sum(stop - start for start, stop in zip(bounds[::2], bounds[1::2], strict=True)) == len(known)
            assert all(face.has(chr(code)) == (code in known) for code in [*range(32, 0x600), *list(known)[::97]])


def test_a_word_is_not_patched_together() -> None:
    assert [run.face.family for run in visual_runs("Жmega")] == ["Noto Sans"]
    assert [run.text for run in visual_runs("e\u0301te\u0301")] == ["été"]


def test_the_order_from_left_to_right() -> None:
    """UAX 9: in a line that begins right to left, later words stand to the left; numbers and Latin keep their own order."""
    assert [run.text.strip() for run in visual_runs("עברית ab 12") if run.text.strip()] == ["ab 12", "עברית"]
    assert [run.text.strip() for run in visual_runs("front עברית back") if run.text.strip()] == ["front", "עברית", "back"]
    two = [run.text.strip() for run in visual_runs("ab אבג דהו cd") if run.text.strip()]
    assert two == ["ab", "אבג דהו", "cd"]
    assert all(run.is_rtl == any("\u0590" <= c <= "\u05ff" for c in run.text) for run in visual_runs("ab אבג cd"))


def test_what_no_font_has_is_told() -> None:
    assert missing("front 한국 🧵 한") == "한국🧵" and missing("plain") == "" and missing("a\u200db\ufe0f") == ""
    assert [run.text.strip() for run in visual_runs("한")] == ["\ufffd"]
    assert rough_width("ab") == 1.0 and rough_width("前後") == 2.0
    value = real_value()
    value["pieces"][0]["name"] = "앞"
    odd = style([], block_file.from_value(value, "b")).with_finish({"size": "한"}).model_copy(update={"name": "Łódź 前"})
    told = {finding.message for finding in derive(odd).findings if finding.check == "letters"}
    assert told == {
        "the size holds 한, which no font of the program has",
        "a name of the 앞 holds 앞, which no font of the program has",
    }
