"""Sizes over each other: the point that lies on itself, how seams grow, and the nested sheet in every format."""

from __future__ import annotations

import csv
import io
import itertools
import re
import xml.etree.ElementTree as ElementTree

import numpy as np
import pypdf
import pytest
import shapely
from svgelements import Path as SvgPath

from tests.core.sizes.nesting import in_all_sizes, wearers
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.svg import piece_svg
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.record import replace
from zesty_pivot.core.sizes.nested import growth, nested, point_of, points_of
from zesty_pivot.core.sizes.nested_files import growth_csv, nested_files
from zesty_pivot.core.sizes.nested_pdf import nested_full_pdf, nested_pages_pdf
from zesty_pivot.core.sizes.nested_sheet import NestedSheet, look_of, nested_sheet
from zesty_pivot.core.sizes.nested_svg import nested_svg
from zesty_pivot.core.sizes.sized import Sized, Sizer, Wearer
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.data.demo import demo_style
from zesty_pivot.data.sizes import shipped_chart

SVG = "{http://www.w3.org/2000/svg}"
BASE = 3


@pytest.fixture(scope="module")
def sizes() -> tuple[Sized, ...]:
    return in_all_sizes("Descant")


@pytest.fixture(scope="module")
def sheet(sizes: tuple[Sized, ...]) -> NestedSheet:
    return nested_sheet("Descant", sizes, "underarm", BASE)


def outline(piece: Piece) -> shapely.Polygon:
    return shapely.Polygon(np.concatenate([run.path.outline for run in piece.runs]))


# On each other.


def test_a_point_lies_on_itself_and_the_base_where_it_was(sizes: tuple[Sized, ...]) -> None:
    assert set(points_of(sizes)) >= {"neck_point", "bust_point", "centre_waist", "underarm", "side_waist"}
    for point in points_of(sizes):
        for one in nested(sizes, point, BASE):
            spots = [found + line.shift for line in one.lines if (found := point_of(line.piece, one.point)) is not None]
            assert len(spots) == len(sizes)
            assert np.ptp(spots, axis=0) == pytest.approx([0.0, 0.0], abs=1e-9)
            assert not one.lines[BASE].shift.any()
            if point_of(one.lines[0].piece, point) is not None:
                assert one.point == point


def test_larger_sizes_lie_round_smaller_ones(sizes: tuple[Sized, ...]) -> None:
    """Laid on the neck point in the middle of the shoulder every size covers the one before, by Shapely, but for darts."""
    for one in nested(sizes, "neck_point"):
        areas = [outline(line.piece) for line in one.lines]
        shifted = [
            shapely.transform(area, lambda xy, by=line.shift: xy + by) for area, line in zip(areas, one.lines, strict=True)
        ]
        assert all(shape.is_valid for shape in shifted)
        for small, large in itertools.pairwise(shifted):
            assert large.area > small.area
            assert small.convex_hull.difference(large.convex_hull).area < 0.002 * small.area


def test_a_piece_without_the_point_takes_another() -> None:
    sizes = in_all_sizes("Madrigal")
    found = {one.name: one.point for one in nested(sizes, "side_waist")}
    assert found["front"] == "side_waist" and found["yoke"] == "shoulder_tip"
    names = {one.name for one in nested(in_all_sizes("Rondel"), "neck_point")}
    assert {"neckline_frill", "waist_tie"} <= names  # parts of their own are nested too


def test_a_size_that_cannot_be_made_leaves_the_others(sizes: tuple[Sized, ...]) -> None:
    lost = Sized(Wearer("nobody", ()), None, "nobody's bust is known")
    found = nested((lost, *sizes), "neck_point", 0)
    assert all(len(one.lines) == len(sizes) and one.lines[0].number == 1 for one in found)
    assert all(one.mm[0] is None and one.mm[1] is not None for one in growth((lost, *sizes)))
    with pytest.raises(ZestyError, match="no size"):
        nested_sheet("none", (lost,), "neck_point")
    assert not lost.verdict.is_sound and lost.verdict.errors == ("nobody's bust is known",)


def test_what_is_worked_out_again() -> None:
    """Blocks are kept as long as the style's own body is the same: another waist of it grades them otherwise."""
    style, (wearer, *_rest) = demo_style(), wearers(shipped_chart(), "regular")
    sizer, under = Sizer(), Under()
    first = sizer.sized(style, under, wearer)
    again = sizer.sized(style.model_copy(update={"notes": "x"}), under, wearer)
    assert first.pattern is not None and again.pattern is first.pattern
    assert sizer.knows(style, under, wearer)
    slimmer = style.model_copy(update={"measures": {**style.measures, "waist": "70 cm"}})
    assert not sizer.knows(slimmer, under, wearer)
    other = sizer.sized(slimmer, under, wearer)
    assert other.pattern is not None
    lengths = [one.piece("back").edge("waist").sewn_length for one in (first.pattern, other.pattern)]
    assert lengths[1] - lengths[0] > 10.0  # from a slimmer body to the same size is farther
    sizer.keep_only(())
    assert not sizer.knows(slimmer, under, wearer)


# How seams grow.


def test_seams_grow_evenly_along_the_shipped_chart() -> None:
    for name, group in (("Descant", "regular"), ("Canticle", "tall"), ("Carol", "children")):
        found = growth(in_all_sizes(name, group))
        assert {(one.piece, one.edge) for one in found if one.has_odd} == set(), name


def test_lengths_are_those_of_the_outline(sizes: tuple[Sized, ...]) -> None:
    found = {(one.piece, one.edge): one.mm for one in growth(sizes)}
    for n, size in enumerate(sizes):
        assert size.pattern is not None
        front = size.pattern.piece("front")
        for id in ("armhole", "waist", "centre"):
            points = [run.path.outline for run in front.edge(id).runs]
            chords = sum(float(np.linalg.norm(np.diff(part, axis=0), axis=1).sum()) for part in points)
            assert found["front", id][n] == pytest.approx(chords, abs=0.05)
    lengths = [mm for mm in found["front", "waist"] if mm is not None]
    assert all(one < two for one, two in itertools.pairwise(lengths))  # from the smallest on


def test_a_seam_that_grows_unevenly_is_marked() -> None:
    """A slip in the chart: one size's waist 3 cm too large."""
    chart = shipped_chart()
    bodies = wearers(chart, "regular")
    wrong = dict(bodies[4].lengths)
    wrong["waist"] += 30.0
    bodies[4] = replace(bodies[4], lengths=tuple(sorted(wrong.items())))
    sizer = Sizer()
    found = growth([sizer.sized(demo_style(), Under(), body) for body in bodies])
    waist = next(one for one in found if (one.piece, one.edge) == ("back", "waist"))
    assert waist.has_odd and waist.is_odd[4] and waist.is_odd[5]  # into it, and out of it
    assert not any(waist.is_odd[n] for n in (0, 1, 2, 3, 7, 8, 9)) and waist.steps[0] is None
    even = [waist.steps[n] or 0.0 for n in (1, 2, 3, 7, 8, 9)]
    assert even == pytest.approx([even[0]] * 6, abs=1.0)  # also where the sizes lie farther apart
    centre = next(one for one in found if (one.piece, one.edge) == ("back", "centre"))
    assert not centre.has_odd


def test_people_follow_nobody(sizes: tuple[Sized, ...]) -> None:
    mixed = [replace(size, wearer=replace(size.wearer, group="")) for size in (sizes[7], sizes[0], sizes[4], sizes[2])]
    assert not any(one.has_odd for one in growth(mixed))


# On a sheet.


def groups(data: bytes) -> dict[str, ElementTree.Element]:
    return {one.get("id", ""): one for one in ElementTree.fromstring(data) if one.tag == f"{SVG}g"}


def test_svg_has_a_group_a_size_with_that_size_in_it(sizes: tuple[Sized, ...], sheet: NestedSheet) -> None:
    data = nested_svg(sheet)
    assert data == nested_svg(sheet)
    found = groups(data)
    assert list(found) == ["all", *(f"size-{n}" for n in range(1, len(sizes) + 1))]
    for n, size in enumerate(sizes, 1):
        group = found[f"size-{n}"]
        assert group.findtext(f"{SVG}title") == size.wearer.title
        assert size.derived is not None
        own = ElementTree.fromstring(piece_svg(size.derived.pieces[0]))
        for kind in ("cut", "waist"):
            mine = next(e for e in group.iter(f"{SVG}path") if e.get("id") == f"front.{n}.{kind}")
            alone = next(e for e in own.iter(f"{SVG}path") if e.get("id") == kind)
            a, b = (SvgPath(e.get("d")).bbox() for e in (mine, alone))
            assert (a[2] - a[0], a[3] - a[1]) == pytest.approx((b[2] - b[0], b[3] - b[1]), abs=1e-3)
        words = {element.text for element in group.iter(f"{SVG}text")}
        assert size.wearer.short in words
    # Told apart by dashes as well as by colour; at the underarm they lie on each other.
    dashes = [
        next(e for e in found[f"size-{n}"].iter(f"{SVG}path") if e.get("class") == "cut").get("stroke-dasharray")
        for n in range(1, 8)
    ]
    assert len(set(dashes)) == 7
    assert len({(look_of(n).dash_mm, look_of(n).colour) for n in range(35)}) == 35
    spots = [point_of(line.piece, "underarm") + line.shift for line in nested(sizes, "underarm", BASE)[0].lines]  # type: ignore[operator]
    assert np.ptp(spots, axis=0) == pytest.approx([0.0, 0.0], abs=1e-9)


def layers(reader: pypdf.PdfReader) -> list[str]:
    return [group.get_object()["/Name"] for group in reader.trailer["/Root"]["/OCProperties"]["/OCGs"]]


@pytest.mark.parametrize("is_paged", [False, True])
def test_pdf_has_a_layer_a_size(sizes: tuple[Sized, ...], sheet: NestedSheet, is_paged: bool) -> None:
    """Read by pypdf: the layers are named, on, and every page's marks belong to one that the page knows."""
    few = nested_sheet("Descant", sizes[2:5], "neck_point", 1)
    data = nested_pages_pdf(few, Printing().setup) if is_paged else nested_full_pdf(sheet)
    reader = pypdf.PdfReader(io.BytesIO(data))
    titles = [size.wearer.title for size in (sizes[2:5] if is_paged else sizes)]
    assert layers(reader) == titles
    assert len(reader.trailer["/Root"]["/OCProperties"]["/D"]["/ON"]) == len(titles)
    used = set()
    for page in reader.pages:
        known = page["/Resources"]["/Properties"]
        content = page.get_contents().get_data().decode("latin-1")  # type: ignore[union-attr]
        named = set(re.findall(r"/OC /(L\d+) BDC", content))
        assert named <= {str(name).lstrip("/") for name in known}
        assert content.count(" BDC") == content.count("EMC")
        used |= named
    assert used == {f"L{n}" for n in range(1, len(titles) + 1)}
    if not is_paged:
        boxes = [piece.box() for piece in sheet.pieces]
        wide = sum(box[2] - box[0] for box in boxes) + 25.0 * (len(boxes) - 1) + 30.0  # true size, as they lie side by side
        assert float(reader.pages[0].mediabox[2]) / 72.0 * 25.4 == pytest.approx(wide, abs=0.01)


def test_one_size_alone_lies_where_it_lies_among_all(sheet: NestedSheet) -> None:
    alone = sheet.only(2)
    assert {stroke.of_size for piece in alone.pieces for stroke in piece.strokes} == {0, 2}
    whole, one = (groups(nested_svg(s)) for s in (sheet, alone))
    assert set(one) == {"all", "size-2"}
    first, second = (
        {e.get("id"): e.get("d") for e in found["size-2"].iter(f"{SVG}path")} for found in (whole, one)
    )  # fmt: skip
    assert first == second
    assert alone.title.endswith(sheet.titles[1])


def test_all_the_files(sizes: tuple[Sized, ...]) -> None:
    told: list[tuple[int, int]] = []
    made = nested_files("Descant", sizes[:2], "neck_point", 0, "in", progress=lambda done, of: told.append((done, of)))
    assert set(made) == {
        "nested.svg", "nested.pdf", "nested-A4.pdf", "growth.csv",
        *(f"nested-regular-{size}.{ending}" for size in (34, 36) for ending in ("svg", "pdf")),
    }  # fmt: skip
    assert told[0] == (0, 8) and told[-1] == (7, 8)
    rows = list(csv.reader(io.StringIO(made["growth.csv"].decode("utf-8-sig"))))
    assert rows[0] == ["piece", "edge", "regular · 34 (in)", "regular · 36 (in)", "look at"]
    front = next(one for one in growth(sizes[:2]) if (one.piece, one.edge) == ("front", "waist"))
    row = next(row for row in rows if row[:2] == ["front", "waist"])
    assert [float(cell) * 25.4 for cell in row[2:4]] == pytest.approx([mm or 0.0 for mm in front.mm], abs=0.02)


def test_no_formula_gets_into_the_table(sizes: tuple[Sized, ...]) -> None:
    evil = replace(sizes[0], wearer=replace(sizes[0].wearer, title="=1+1"))
    head = next(csv.reader(io.StringIO(growth_csv((evil,), "cm").decode("utf-8-sig"))))
    assert head[2].startswith("'=")
