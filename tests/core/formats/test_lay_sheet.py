"""A small lay read back from its page with pypdf: pieces where they lie, the edges of the cloth, the scale."""

from __future__ import annotations

import io

import numpy as np
import pypdf
import pytest
import shapely

from tests.lays import outlines_of
from tests.pdf_lines import lines_of
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.kept_lay import laid
from zesty_pivot.core.formats.lay_models import LayFile
from zesty_pivot.core.formats.lay_sheet import lay_at_full_size, lay_rows, lays_pdf
from zesty_pivot.core.nest.lay import LayPlan
from zesty_pivot.data.demo import _read


def plan_of(name: str, **told: object) -> LayPlan:
    *_, plan = laid(derive(_read(f"{name}.zpiv")), LayFile(**told), seconds=0)
    return plan


def boxes(plan: LayPlan) -> tuple[list[np.ndarray], str]:
    """Every line of the page (n, 2) mm, and what is written on it."""
    (page,) = pypdf.PdfReader(io.BytesIO(lays_pdf(((plan, lay_rows(plan, "cm")),), "Canticle"))).pages
    return [line for line, _clip in lines_of(page)], page.extract_text()


@pytest.mark.parametrize(("name", "folded"), [("canticle", False), ("descant", True)])
def test_a_small_lay(name: str, folded: bool) -> None:
    plan = plan_of(name, folded=folded, width="150 cm", selvedge="2 cm")
    lines, text = boxes(plan)
    # The frame is the cloth: as long as the lay, and across with its selvedges, on folded cloth one of them.
    across = plan.cloth.usable + (20.0 if folded else 40.0)
    frames = [line for line in lines if np.ptp(line, axis=0).min() > 20.0]
    (frame,) = [line for line in frames if np.divide(*np.ptp(line, axis=0)) == pytest.approx(plan.length / across, rel=1e-3)]
    scale, corner = np.ptp(frame[:, 0]) / plan.length, frame.min(axis=0)
    edge = 0.0 if folded else 20.0
    # Every piece is where it lies, the fold (or the first selvedge) at the top.
    for outline in outlines_of(plan):
        wanted = corner + (np.array(outline.exterior.coords) + np.array([0.0, edge])) * scale
        there = shapely.Polygon(wanted)
        drawn = [shapely.Polygon(line) for line in lines if len(line) > 5]
        assert min(shape.symmetric_difference(there).area for shape in drawn) < 0.02 * there.area
    # Where it may not be cut: lines along the selvedge, 2 cm from the edge.
    straight = [line for line in lines if len(line) == 2]
    along = sorted(line[0, 1] for line in straight if np.ptp(line[:, 0]) == pytest.approx(np.ptp(frame[:, 0]), abs=0.01))
    assert along == pytest.approx([corner[1] + edge * scale, corner[1] + (edge + plan.cloth.usable) * scale], abs=0.01)
    # A stroke every 10 cm, above the cloth.
    ticks = sorted(line[0, 0] for line in straight if np.ptp(line[:, 0]) < 1e-6 and line[:, 1].min() < corner[1] - 1.0)
    assert np.diff(ticks) == pytest.approx(100.0 * scale, abs=0.01) and len(ticks) == int(plan.length / 100.0) + 1
    assert ("fold" in text.replace("on the fold", "").replace("folded", "")) == folded
    assert f"{plan.length / 10.0:.1f} cm" in text and str(len(plan.pieces)) in text


def test_at_full_size_it_lies_as_it_was_laid() -> None:
    plan = plan_of("canticle", width="90 cm")
    sheet = lay_at_full_size(plan)
    rings = [one.piece.ring + np.array([one.dx, one.dy]) for one in sheet.laid]
    every = np.concatenate(rings)
    assert (every >= -1e-6).all() and (every <= (sheet.width + 1e-6, sheet.height + 1e-6)).all()
    first, *others = [ring.mean(axis=0) for ring in rings]
    for mine, at in zip(plan.laid[1:], others, strict=True):
        there = (mine.piece.ring + np.array([mine.dx, mine.dy])).mean(axis=0)
        begun = (plan.laid[0].piece.ring + np.array([plan.laid[0].dx, plan.laid[0].dy])).mean(axis=0)
        assert at - first == pytest.approx(there - begun, abs=1e-6)
