"""Packed pages as a PDF, read back by pypdf and laid together by their joining marks with Shapely; and as they are kept."""

from __future__ import annotations

import io
import json

import numpy as np
import pypdf
import pytest
import shapely
from shapely import affinity

from tests.pdf_lines import diamonds, lines_of, shown
from tests.samples import style
from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.exports.registry import outputs
from zesty_pivot.core.formats import style_file
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.kept_pages import kept_of, kept_plan, page_plan, with_pages
from zesty_pivot.core.formats.pdf_pages import DIAMOND
from zesty_pivot.core.formats.printing import Printing, chosen_pages, listed
from zesty_pivot.core.nest.joins import joins
from zesty_pivot.core.nest.pages import plan_of
from zesty_pivot.data.demo import _read


def _exact(cubics: np.ndarray) -> shapely.LineString:
    """Cubics (n, 4, 2) by Bernstein's polynomials, in 96 chords each."""
    t = np.linspace(0.0, 1.0, 97)[:, None]
    weights = ((1 - t) ** 3, 3 * t * (1 - t) ** 2, 3 * t * t * (1 - t), t**3)
    return shapely.LineString(np.concatenate([sum(w * p for w, p in zip(weights, cubic, strict=True)) for cubic in cubics]))


@pytest.mark.parametrize("overlap", [10.0, 0.0])
def test_pages_laid_together_by_their_marks_give_the_pattern(overlap: float) -> None:
    """Every page is laid to its neighbour by the joining marks alone; what they show then covers every line of the pattern,
    and where two pages show the same they agree within 0.1 mm."""
    derived = derive(_read("antiphon.zpiv"))
    printing = Printing(overlap=overlap)
    plan = page_plan(derived, printing)
    pages = pypdf.PdfReader(io.BytesIO(outputs(derived, ("pdf",), printing)["tiles-A4.pdf"])).pages[1:]
    assert len(pages) == len(plan.pages)
    marks = [diamonds(page, DIAMOND) for page in pages]
    wide, tall = plan.setup.field
    edge = plan.setup.edge
    at = {1: np.zeros(2)}
    found = list(joins(plan))
    for _ in range(len(found)):
        for join in found:
            a, b = join.first.number, join.second.number
            if (a in at) == (b in at):
                continue
            near = (
                edge + (wide, tall)[not join.is_beside] - overlap / 2.0 if overlap else edge + (wide, tall)[not join.is_beside]
            )
            axis = 0 if join.is_beside else 1
            mine = sorted((m for m in marks[a - 1].tolist() if abs(m[axis] - near) < 0.1), key=lambda m: m[1 - axis])
            far = edge + overlap / 2.0
            theirs = sorted((m for m in marks[b - 1].tolist() if abs(m[axis] - far) < 0.1), key=lambda m: m[1 - axis])
            assert len(mine) == len(theirs) == 2
            shift = np.mean(np.array(mine) - np.array(theirs), axis=0)
            assert np.allclose(np.array(mine) - np.array(theirs), shift, atol=0.03)
            if a in at:
                at[b] = at[a] + shift
            else:
                at[a] = at[b] - shift
    assert len(at) == len(pages)
    seen = {n: affinity.translate(shown(pages[n - 1]), *at[n]) for n in at}
    for join in found:
        one, two = seen[join.first.number], seen[join.second.number]
        fields = [
            affinity.translate(shapely.box(edge, edge, edge + wide, edge + tall), *at[j.number])
            for j in (join.first, join.second)
        ]
        strip = fields[0].intersection(fields[1]).buffer(-0.3)
        if overlap and not one.intersection(strip).is_empty:
            assert shapely.hausdorff_distance(one.intersection(strip), two.intersection(strip)) < 0.1
    together = shapely.STRtree([part for geometry in seen.values() for part in shapely.get_parts(geometry)])
    first = plan.pages[0]
    for laid in plan.laid:
        for stroke in laid.piece.strokes:
            for path in stroke.paths:
                line = affinity.translate(_exact(path.cubics), laid.dx - first.x + edge, laid.dy - first.y + edge)
                points = shapely.line_interpolate_point(line, np.arange(0.0, line.length, 1.5))
                _which, far = together.query_nearest(points, return_distance=True, all_matches=False)
                assert far.max() < 0.1, (laid.piece.name, stroke.id)


def test_every_page_tells_its_size_and_where_it_belongs() -> None:
    derived = derive(style([]))
    printing = Printing("A4", packing="kept")
    plan = page_plan(derived, printing)
    pages = pypdf.PdfReader(io.BytesIO(outputs(derived, ("pdf",), printing)["tiles-A4.pdf"])).pages
    assert "letter on letter" in " ".join(pages[0].extract_text().split())
    for one, page in zip(plan.pages, pages[1:], strict=True):
        text = page.extract_text()
        assert f"page {one.name} of {len(plan.pages)}" in text and "frame 190.0 x 277.0 mm" in text and "5 cm" in text
        for join in joins(plan):
            if one.number in (join.first.number, join.second.number):
                other = join.second if one.number == join.first.number else join.first
                assert text.count(f"page {other.name}") >= 1 and join.letter in text.split()
        frame = [line for line, clip in lines_of(page) if clip is None and len(line) == 5 and np.ptp(line[:, 0]) > 150.0]
        assert any(np.ptp(line, axis=0) == pytest.approx((190.0, 277.0), abs=0.01) for line in frame)
        # Five centimetres are marked off along the frame: six ticks, ten millimetres apart.
        straight = [line for line, clip in lines_of(page) if clip is None and len(line) == 2]
        down = [line for line in straight if abs(line[0, 1] - 10.0) < 0.01 and 1.0 < line[1, 1] - line[0, 1] < 4.0]
        ticks = {round(float(line[0, 0]), 2) for line in down}
        assert {10.0 + 10.0 * n for n in range(6)} <= ticks


def test_some_pages_are_printed_again() -> None:
    derived = derive(style([]))
    printing = Printing(only="2, 4-5", packing="kept")
    pages = pypdf.PdfReader(io.BytesIO(outputs(derived, ("pdf",), printing)["tiles-A4.pdf"])).pages
    assert len(pages) == 4 and "3 of" in pages[0].extract_text()
    assert [f"page {n} of" in page.extract_text() for n, page in zip((2, 4, 5), pages[1:], strict=True)] == [True] * 3
    for wrong in ("x", "0", "3-2", "99", "2,,3", "-4"):
        with pytest.raises(ZestyError) as fault:
            outputs(derived, ("pdf",), Printing(only=wrong, packing="kept"))
        assert "2, 5-7" in fault.value.advice
    all_pages = page_plan(derived, printing).pages
    assert chosen_pages(" ", all_pages) == all_pages and listed({5, 1, 2, 3, 7}) == "1-3, 5, 7"


def test_colours_are_in_the_lines_only_where_they_are_asked_for() -> None:
    derived = derive(style([]))
    for in_colour in (False, True):
        pages = pypdf.PdfReader(
            io.BytesIO(outputs(derived, ("pdf",), Printing(in_colour=in_colour, packing="kept"))["tiles-A4.pdf"])
        ).pages
        strokes = {
            part
            for page in pages[1:]
            for part in page.get_contents().get_data().decode("latin-1").split("\n")
            if part.endswith(" RG")
        }
        chromatic = [part for part in strokes if np.ptp([float(x) for x in part.split()[:3]]) > 0.1]
        assert bool(chromatic) == in_colour
        widths = {
            float(line.split()[0])
            for page in pages[1:]
            for line in page.get_contents().get_data().decode("latin-1").split("\n")
            if line.endswith(" w")
        }
        assert min(widths) > 0.199 * 72 / 25.4  # no hair lines, which cheap printers leave out


def test_pages_are_kept_and_come_out_again(tmp_path) -> None:  # type: ignore[no-untyped-def]
    before = _read("canticle.zpiv")
    derived = derive(before)
    printing = Printing("Letter")
    plan = plan_of(derived.sheet_pieces, printing.setup, rounds=2)
    kept = before.model_copy(update={"pages": with_pages(before.pages, kept_of(plan, before.variant, printing))})
    path = tmp_path / "kept.zpiv"
    style_file.save(kept, path)
    again = derive(style_file.read(path))
    found = kept_plan(again, printing)
    assert found is not None and [(p.piece, p.quarters) for p in found.puts] == [(p.piece, p.quarters) for p in plan.puts]
    assert np.allclose([(p.x, p.y) for p in found.puts], [(p.x, p.y) for p in plan.puts], atol=1e-3)
    assert [(p.column, p.row) for p in found.pages] == [(p.column, p.row) for p in plan.pages]
    # Another paper, an edge, a joining or another pattern: not these pages.
    assert kept_plan(again, Printing("A4")) is None and kept_plan(again, Printing("Letter", overlap=0.0)) is None
    less = kept.model_copy(update={"steps": kept.steps[:1]})
    assert kept_plan(derive(less), printing) is None
    # Packed again for the same paper, the new pages take the place of the old.
    assert len(with_pages(kept.pages, kept_of(plan, before.variant, printing))) == 1
    assert len(with_pages(kept.pages, kept_of(plan, before.variant, Printing("Letter", apart=True)))) == 2


def test_kept_pages_that_are_none_are_refused() -> None:
    value = {"variant": "", "paper": "A4", "edge": 10, "overlap": 10, "puts": [{"piece": "front", "turn": 45, "x": 0, "y": 0}]}
    content = json.loads(style_file.dump(style([])))
    content["pages"] = [value]
    with pytest.raises(FileError, match="turn"):
        style_file.from_value(content, "x.zpiv")
