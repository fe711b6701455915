"""The flat sketch: as wide as the cloth is sewn, both sides of the body, the right way round, the same for the same cloth."""

from __future__ import annotations

import io
import xml.etree.ElementTree as ET

import numpy as np
import pypdf
import pytest
import shapely

from tests.samples import move, real_pattern, style, worked
from tests.torture import recipes
from zesty_pivot.core.conventions.sewing import OwnPoint, Sewing, sewing_of
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.exports.registry import all_exports
from zesty_pivot.core.formats.cut_sheet import cut_sheet
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.pdf_cut_sheet import cut_sheet_pdf
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.formats.sketch import sketch_svg, sketched
from zesty_pivot.core.geometry import svgpath
from zesty_pivot.core.making.flat_sketch import SketchView, flat_sketch
from zesty_pivot.core.piece import Body, DartRef, called
from zesty_pivot.data.demo import demo_styles

STYLES = {one.name: one for one in demo_styles()}


def demo(name: str) -> Derived:
    return derive(next(one for known, one in STYLES.items() if known.startswith(name)))


def length(view: SketchView, kind: str) -> float:
    return sum(stroke.path.length for stroke in view.strokes if stroke.kind == kind)


def is_sound(views: tuple[SketchView, ...]) -> None:
    for view in views:
        assert view.area.is_valid and view.area.area > 0.0
        for stroke in view.strokes:
            assert np.isfinite(stroke.path.cubics).all()
            # Every line lies on the cloth.
            assert view.area.buffer(12.0).contains(shapely.LineString(stroke.path.outline)), stroke.kind


@pytest.mark.parametrize("name", list(STYLES))
def test_demo_styles(name: str) -> None:
    made = derive(STYLES[name])
    views = flat_sketch(made.pattern, sewing_of(made.style.finish, made.look.scope))
    assert [view.body for view in views] == [Body.FRONT, Body.BACK]
    is_sound(views)
    for view in views:
        left, _top, right, _low = view.box
        assert left == pytest.approx(-right, rel=0.05)  # nothing of the body's two sides is missing
        # As much cloth as the pieces have, sewn: darts and fish-eyes cut out, pleats and gathers taken up.
        pieces = [piece for piece in made.pattern.pieces if piece.body is view.body]
        if not made.pattern.joins:
            cloth = sum(
                piece.times * (piece.area - sum(shapely.Polygon(eye.outline).area for eye in piece.fisheyes))
                for piece in pieces
            )
            assert view.area.area == pytest.approx(cloth, rel=0.03)


@pytest.mark.parametrize("seed", range(6))
def test_random_styles(seed: int) -> None:
    _block, made = recipes.random_style(seed)
    is_sound(sketched(derive(made)))


def test_the_same_fullness_elsewhere_gives_the_same_garment() -> None:
    """The pivot principle: the cloth is the same wherever the dart opens, sewn to the pivot it has the same outline."""
    outlines = []
    for station in ("waist", "french", "side_bust", "mid_armhole", "shoulder_tip", "mid_shoulder", "centre_neck"):
        pattern = worked([] if station == "waist" else [move("waist", station)]).pattern
        own = [(DartRef(piece.name, called(piece, dart.id)), OwnPoint(0.0)) for piece in pattern.pieces for dart in piece.darts]
        front, _back = flat_sketch(pattern, Sewing(own=tuple(own)))
        outlines.append((station, front.area))
    _name, first = outlines[0]
    for station, area in outlines[1:]:
        assert area.symmetric_difference(first).area < 0.01 * first.area, station
        assert area.buffer(0).hausdorff_distance(first) < 8.0, station


def test_both_darts_are_drawn_on_both_sides() -> None:
    front, back = flat_sketch(real_pattern())
    for view, count in ((front, 2), (back, 2)):
        darts = [stroke.path for stroke in view.strokes if stroke.kind == "dart"]
        assert len(darts) == 2 * count
        assert sum(path.start[0] > 0 for path in darts) == count  # as many on each side
        for path in darts:  # from the seam to the point, which lies further inside
            inside = [-shapely.Point(*at).distance(view.area.boundary) for at in (path.start, path.end)]
            assert inside[1] < inside[0] and inside[0] > -6.0


def top(area: shapely.Geometry, x: float) -> float:
    return float(area.intersection(shapely.LineString([(x, -900.0), (x, 900.0)])).bounds[1])


def test_what_is_asymmetric_is_seen_as_worn() -> None:
    """Deeper on the wearer's left: seen from the front that is at the right."""
    pattern = demo("Evensong").pattern
    piece = pattern.piece("front")
    line = np.concatenate([run.path.outline for run in piece.runs if piece.role(run.edge) == "neckline"])
    deepest = line[line[:, 1].argmax()][0]
    assert deepest > 10.0  # right side up the left is at x > 0
    front, _back = flat_sketch(pattern)
    assert top(front.area, deepest) > top(front.area, -deepest) + 5.0


def test_a_whole_back_is_seen_from_behind() -> None:
    """A dart on the wearer's left alone: seen from behind it is at the left, where a front shows it at the right."""
    for on, dart, way in (("back", "shoulder.left", -1.0), ("front", "waist.left", 1.0)):
        steps = [{"do": "piece.unfold", "on": on}, {"do": "dart.move", "on": on, "dart": dart, "to": {"station": "mid_neck"}}]
        view = flat_sketch(worked(steps).pattern)[on == "back"]
        starts = np.array([stroke.path.start for stroke in view.strokes if stroke.kind == "dart"])
        at_neck = [x for x, y in starts if y < top(view.area, x) + 3.0 and abs(x) < 70.0]
        assert len(at_neck) == 1 and at_neck[0] * way > 20.0, (on, at_neck)


def test_a_zip_lies_in_the_centre_back_as_long_as_it_is() -> None:
    made = demo("Galliard")
    _front, back = flat_sketch(made.pattern)
    (zipped,) = (one for one in made.pattern.openings if one.kind == "zip")
    lines = [stroke.path for stroke in back.strokes if stroke.kind == "opening"]
    assert len(lines) == 2  # of both halves, one on the other
    for path in lines:
        assert path.length == pytest.approx(zipped.length_mm, rel=0.02) and np.abs(path.outline[:, 0]).max() < 1e-6
        assert path.start[1] < path.end[1] and path.start[1] == pytest.approx(back.area.intersection(
            shapely.LineString([(0.0, -500.0), (0.0, 900.0)])).bounds[1], abs=2.0)  # fmt: skip


def test_panels_have_their_seam_and_a_yoke_over_the_shoulder_is_on_both_views() -> None:
    front, back = flat_sketch(demo("Canticle").pattern)
    for view in (front, back):
        seams = [stroke.path for stroke in view.strokes if stroke.kind == "seam" and abs(stroke.path.start[0]) > 5.0]
        assert len(seams) >= 2
    front, back = flat_sketch(demo("Madrigal").pattern)
    assert front.box[1] < 15.0 and back.box[1] < 15.0  # the necks: nothing stands up over the shoulders
    assert any(stroke.kind == "gathers" for stroke in front.strokes)
    assert any(stroke.kind == "fold" for stroke in back.strokes)


def test_a_half_sewn_to_a_whole_is_there_twice() -> None:
    made = derive(style([{"do": "line.princess", "on": "front"}, {"do": "piece.unfold", "on": "front_centre"}]))
    whole, _back = flat_sketch(made.pattern)
    half, _back = flat_sketch(derive(style([{"do": "line.princess", "on": "front"}])).pattern)
    assert whole.area.area == pytest.approx(half.area.area, rel=0.01)
    assert length(whole, "seam") == pytest.approx(length(half, "seam"), rel=0.02)


def test_what_cannot_lie_flat_is_told(monkeypatch: pytest.MonkeyPatch) -> None:
    """As of a twist, which is sewn to itself: here no cloth at all may be stretched."""
    monkeypatch.setattr("zesty_pivot.core.making.flat_sketch.STRETCHED", -1.0)
    derived = derive(style([move("waist", "french")]))
    assert sketched(derived) == ()
    with pytest.raises(ZestyError, match="can be laid flat") as fault:
        sketch_svg(derived)
    assert fault.value.advice
    assert not cut_sheet(derived).sketch and cut_sheet_pdf(cut_sheet(derived), "x").startswith(b"%PDF")


def test_svg_and_paper() -> None:
    """Read back by an XML parser; a fifth of the garment, every line in it."""
    made = demo("Canticle")
    views = sketched(made)
    root = ET.fromstring(sketch_svg(made))
    svg = "{http://www.w3.org/2000/svg}"
    groups = [group for group in root.iter(f"{svg}g") if group.get("id")]
    assert [group.get("id") for group in groups] == ["front", "back"]
    for group, view in zip(groups, views, strict=True):
        paths = [svgpath.read(path.get("d"))[0] for path in group.iter(f"{svg}path")]
        assert sum(path.length for path in paths) == pytest.approx(sum(s.path.length for s in view.strokes), rel=1e-3)
        assert {path.get("class") for path in group.iter(f"{svg}path")} == {stroke.kind for stroke in view.strokes}
    wide = sum(view.box[2] - view.box[0] for view in views) + 60.0 + 100.0
    assert float(root.get("width").removesuffix("mm")) == pytest.approx(wide / 5.0, abs=0.01)
    assert all_exports()["sketch"].files(made, Printing())["sketch.svg"]() == sketch_svg(made)
    page = pypdf.PdfReader(io.BytesIO(cut_sheet_pdf(cut_sheet(made), "Canticle"))).pages[0]
    assert page.get_contents().get_data().count(b" c\n") + page.get_contents().get_data().count(b" c ") > 100
