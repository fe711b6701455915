"""The stand on paper: the picture, the page of the cut sheet and what the report has of it."""

from __future__ import annotations

import io
import json

import numpy as np
import pypdf
import pytest
from PIL import Image

from tests.fitted import demo, fit, form_for
from tests.samples import style
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.registry import outputs, wanted_by
from zesty_pivot.core.formats import stood
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.stood import stand_picture
from zesty_pivot.core.record import replace
from zesty_pivot.core.stand.printed import BELOW, WIDE, printed
from zesty_pivot.core.stand.scene import BANDS


def pixels(data: bytes) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGB")).astype(int)


def counted(part: np.ndarray, color: tuple[int, int, int]) -> int:
    return int((np.abs(part - color).max(axis=-1) <= 1).sum())


def test_the_picture(rough_stand: float) -> None:
    derived = demo("Descant")
    shown = fit(derived.pattern, derived.look.block, form_for(derived), derived.look.sewing, fine=rough_stand)
    data = printed(shown, "cm")
    assert data == printed(shown, "cm")  # byte for byte
    seen = pixels(data)
    assert seen.shape[1] == WIDE and 600 < seen.shape[0] < 1100
    figures, legend = seen[:-BELOW], seen[-BELOW:]
    # Four figures, none empty, front and back mirror images of themselves (the light comes from one side).
    for part in np.split(figures, 4, axis=1):
        covered = (part < 250).any(axis=-1)
        assert 0.2 < covered.mean() < 0.9
        assert (covered != covered[:, ::-1]).mean() < 0.03
    for half in np.split(legend, 2, axis=1):
        for band in BANDS:
            assert counted(half, band) > 500, band
    assert not np.array_equal(pixels(printed(shown, "in"))[-BELOW:], legend)  # other numbers under the bands
    # The gap map has more than one band in it, what is pulled little has the palest only.
    assert figures[:, : WIDE // 2].std() > figures[:, WIDE // 2 :].std()


def test_it_stands_on_the_cut_sheet_and_in_the_report_where_it_is_asked_for(rough_stand: float) -> None:
    derived = fresh("Descant")
    plain = outputs(derived, ("cut-sheet",), Printing())
    assert "stand" not in json.loads(plain["report.json"]) and "stand.png" not in plain
    asked = outputs(derived, ("cut-sheet",), Printing(on_stand=True))
    assert outputs(derived, ("stand",), Printing())["stand.png"] == asked["stand.png"]
    assert set(asked) == {*plain, "stand.png"}
    before, after = (pypdf.PdfReader(io.BytesIO(made["cut-sheet.pdf"])) for made in (plain, asked))
    assert len(after.pages) == len(before.pages) + 1
    page = next(page for page in after.pages if "on the stand" in page.extract_text())
    (image,) = page.images
    assert np.array_equal(np.asarray(image.image.convert("RGB")), pixels(asked["stand.png"]).astype(np.uint8))
    told = json.loads(asked["report.json"])["stand"]
    assert told["cloth"] == "medium and firm, as calico" and told["fault"] == "" and "across chest" in told["estimated"]
    assert told["most_off_mm"] > 5.0 and 0.0 <= told["most_stretched"] < 0.3
    text = " ".join(page.extract_text().split())
    for one in told["tells"]:
        assert one["message"][1:] in text and len(one["place_mm"]) == 3
    assert "stand" not in wanted_by(derived)  # it takes its time: nobody gets it unasked


def test_what_cannot_be_tried_on_says_why_on_the_sheet(rough_stand: float) -> None:
    bare = style([])
    bare = bare.model_copy(update={"block": bare.block.model_copy(update={"measurements": {}})})
    derived = derive(bare)
    made = outputs(derived, ("cut-sheet",), Printing(on_stand=True))
    assert "stand.png" not in made
    assert "nobody's bust is known" in json.loads(made["report.json"])["stand"]["fault"]
    text = " ".join(page.extract_text() for page in pypdf.PdfReader(io.BytesIO(made["cut-sheet.pdf"])).pages)
    assert "Not shown:" in text and "bust is known" in text
    with pytest.raises(ZestyError, match="bust is known"):
        stand_picture(derived)


@pytest.mark.plants_faults
def test_a_fault_leaves_the_sheet(rough_stand: float, monkeypatch) -> None:  # type: ignore[no-untyped-def]
    def broken(*_args: object, **_named: object) -> None:
        raise RuntimeError("planted")

    monkeypatch.setattr(stood, "tried_on", broken)
    made = outputs(fresh("Descant"), ("cut-sheet",), Printing(on_stand=True))
    assert "trying it on" in json.loads(made["report.json"])["stand"]["fault"].lower()
    assert len(pypdf.PdfReader(io.BytesIO(made["cut-sheet.pdf"])).pages) >= 2


def fresh(name: str) -> Derived:
    """A style with nothing kept with it; one lay, so that little else is worked out."""
    return replace(demo(name))
