"""The whole sheet on one page: its squares lie below the pieces, at their size."""

from __future__ import annotations

import io

import numpy as np
import pypdf
import pytest

from tests.pdf_lines import lines_of
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.pdf import full_pdf
from zesty_pivot.data.demo import demo_styles


@pytest.mark.parametrize("number", [0, 6, 16])
def test_the_squares_lie_below_every_piece(number: int) -> None:
    made = derive(demo_styles()[number])
    page = pypdf.PdfReader(io.BytesIO(full_pdf(made.sheet, "t"))).pages[0]
    lines = [line for line, _clip in lines_of(page)]
    boxes = [(line.min(axis=0), line.max(axis=0)) for line in lines]
    lowest = max(one.piece.box()[3] + one.dy for one in made.sheet.laid)
    squares = [(low, high) for low, high in boxes if np.ptp([low, high], axis=0) == pytest.approx((100.0, 100.0), abs=0.01)]
    assert squares  # 10 cm
    for low, high in squares:
        assert low[1] > lowest + 19.0  # the margin of the sheet and 5 mm
        assert high[1] < float(page.mediabox.height) * 25.4 / 72.0
