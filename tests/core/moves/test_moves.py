"""The seven hand moves and their invariants (DESIGN section 3)."""

import math
from dataclasses import replace

import numpy as np
import pytest
import shapely
from hypothesis import given, settings
from hypothesis import strategies as st

from tests.samples import real_pattern, scaled, stretches, walked
from zesty_pivot.core.conventions.sewing import PLAIN
from zesty_pivot.core.errors import GeometryError, PlaceError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves import cut, join, mirror, redraw, spread, swing, trace
from zesty_pivot.core.piece import Piece, Place, Run, Side
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.region import crosses_itself, outline
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.steps import registry


def front() -> Piece:
    return real_pattern().piece("front")


def slit_at(piece: Piece, edge: str, share: float, name: str = "new") -> Piece:
    place = places.along(piece, edge, piece.edge(edge).sewn_length * share)
    return cut.slit(piece, place, "bust_point", name)


def fresh_lengths(piece: Piece) -> dict[str, float]:
    """Sewn lengths measured anew from the control points, nothing remembered."""
    return {edge.id: sum(Path(run.path.cubics).length for run in edge.runs) for edge in piece.edges}


@settings(max_examples=40, deadline=None)
@given(stretches, st.sampled_from(["shoulder", "side_seam", "neckline"]), st.floats(0.05, 0.95), st.floats(0.05, 1.0))
def test_swing_keeps_lengths_area_and_fullness(stretch: tuple[float, float], edge: str, share: float, part: float) -> None:
    piece = scaled(*stretch).piece("front")
    slashed = slit_at(piece, edge, share)
    angle = piece.angle("waist") * part
    swung = swing.swing(slashed, "waist", "new", angle)
    assert fresh_lengths(swung) == pytest.approx(fresh_lengths(piece), abs=1e-8)
    assert swung.area == pytest.approx(piece.area, abs=1e-6)
    assert sum(swung.angle(d.id) for d in swung.darts) == pytest.approx(sum(piece.angle(d.id) for d in piece.darts), abs=1e-12)
    assert swung.angle("new") == pytest.approx(angle, abs=1e-12)


def test_pivot_and_slash_agree() -> None:
    """Pinned and swung about the pivot, or cut into two and taped at the legs: the same to 1e-9 mm."""
    slashed = slit_at(front(), "side_seam", 0.4)
    pivot = join.shut(swing.swing(slashed, "waist", "new", slashed.angle("waist")), "waist")
    kept, freed = cut.apart(slashed, "new", "waist", ("kept", "freed"))
    # `apart` gives the part from the new mouth to the waist dart; tape it to the rest along the waist dart's legs.
    taped = join.pieces(kept, freed, ("waist.leg", "waist.leg"), "front")
    assert pivot.area == pytest.approx(taped.area, abs=1e-6)
    names = tuple(edge.id for edge in pivot.edges)
    assert walked(taped, edges=names) == pytest.approx(walked(pivot), abs=1e-9)
    assert math.dist(taped.edge("new.leg").runs[0].path.start, taped.edge("new.leg").runs[-1].path.end) == pytest.approx(
        pivot.intake("new"), abs=1e-9
    )


def test_out_and_back_restores_the_piece() -> None:
    piece = front()
    slashed = slit_at(piece, "armhole", 0.5)
    out = swing.swing(slashed, "shoulder", "new", piece.angle("shoulder"))
    back = join.shut(swing.swing(out, "new", "shoulder", out.angle("new")), "new")
    assert walked(back) == pytest.approx(walked(piece), abs=1e-9)
    assert len(back.runs) == len(piece.runs)  # the two halves of the armhole are one line again


@given(st.floats(0.1, 0.9), st.floats(0.1, 0.9))
@settings(max_examples=25, deadline=None)
def test_the_order_of_two_moves_about_one_pivot_does_not_matter(one: float, two: float) -> None:
    piece = slit_at(slit_at(front(), "side_seam", 0.3, "a"), "neckline", 0.5, "b")
    first, second = piece.angle("waist") * one, piece.angle("shoulder") * two
    ab = swing.swing(swing.swing(piece, "waist", "a", first), "shoulder", "b", second)
    ba = swing.swing(swing.swing(piece, "shoulder", "b", second), "waist", "a", first)
    assert walked(ab) == pytest.approx(walked(ba), abs=1e-9)


def test_moves_never_change_their_input() -> None:
    piece = front()
    before = [run.path.cubics.copy() for run in piece.runs]
    slashed = slit_at(piece, "side_seam", 0.4)
    swing.swing(slashed, "waist", "new", 0.1)
    redraw.blend(piece, piece.mouth_run("waist"), 50.0, PLAIN)
    assert all(np.array_equal(a, run.path.cubics) for a, run in zip(before, piece.runs, strict=True))
    assert piece == front()


def test_the_centre_never_moves() -> None:
    piece = front()
    for edge, share in (("armhole", 0.5), ("side_seam", 0.5), ("neckline", 0.5), ("shoulder", 0.9)):
        for dart in ("shoulder", "waist"):
            swung = swing.swing(slit_at(piece, edge, share), dart, "new", piece.angle(dart))
            assert swung.edge("centre").runs[0].path == piece.edge("centre").runs[0].path
            assert swung.grain == piece.grain


def test_a_swing_between_two_pivots_is_refused() -> None:
    back = real_pattern().piece("back")
    with pytest.raises(GeometryError, match="different pivots"):
        swing.swing(back, "waist", "shoulder", 0.05)


def test_a_slit_into_a_mouth_or_across_a_dart_is_refused() -> None:
    piece = front()
    with pytest.raises(PlaceError, match="opens there already"):
        cut.slit(piece, Place(piece.mouth_run("waist"), piece.runs[piece.mouth_run("waist")].path.length), "bust_point", "x")
    back = real_pattern().piece("back")
    place = places.along(back, "armhole", back.edge("armhole").sewn_length * 0.02)
    assert cut.slit(back, place, "blade_point", "x").has_dart("x")
    middle = places.along(back, "armhole", back.edge("armhole").sewn_length * 0.5)
    moved = swing.swing(cut.slit(back, middle, "blade_point", "x"), "shoulder", "x", back.angle("shoulder"))
    with pytest.raises(GeometryError, match="crosses the dart 'x'"):
        cut.slit(moved, places.along(moved, "armhole", 2.0), "waist_tip", "y")


def test_shutting_an_open_dart_is_refused() -> None:
    with pytest.raises(GeometryError, match="still open"):
        join.shut(front(), "waist")


def test_cutting_across_makes_partners_of_equal_length() -> None:
    piece = front()
    start, stop = places.along(piece, "armhole", 60.0), places.along(piece, "centre", 250.0)
    a, b = places.point(piece, start), places.point(piece, stop)
    line = Path(np.array([[a, a + (b - a) * [0.3, 0.0], a + (b - a) * [0.7, 1.0], b]]))
    lower, upper = cut.across(piece, start, stop, line, "yoke", "style_line", ("upper", "lower"))[::-1]
    assert lower.edge("yoke").sewn_length == pytest.approx(upper.edge("yoke").sewn_length, abs=1e-9)
    assert lower.area + upper.area == pytest.approx(piece.area, abs=1e-6)
    names = {dart.id for dart in lower.darts} | {dart.id for dart in upper.darts}
    assert names == {"shoulder", "waist"}
    sources = [lower.edge("yoke").runs[0].source, upper.edge("yoke").runs[0].source]
    assert sources[0].edge == sources[1].edge == "yoke" and sources[0].u0 == sources[1].u1
    with pytest.raises(GeometryError, match="does not run"):
        cut.across(piece, start, stop, Path.straight((0, 0), (1, 1)), "yoke", "style_line", ("a", "b"))


def test_spread_as_a_wedge_adds_the_chord_and_keeps_the_other_edges() -> None:
    piece = real_pattern().piece("back")
    opening, hinge = places.along(piece, "waist", 60.0), places.along(piece, "armhole", 100.0)
    hinge_point = places.point(piece, hinge)
    radius = math.dist(places.point(piece, opening), hinge_point)
    opened = spread.wedge(piece, opening, hinge, math.radians(4.0))
    assert opened.edge("waist").sewn_length - piece.edge("waist").sewn_length == pytest.approx(
        2 * radius * math.sin(math.radians(2.0)), abs=1e-9
    )
    for edge in ("neckline", "shoulder", "side_seam", "centre"):
        assert opened.edge(edge).sewn_length == pytest.approx(piece.edge(edge).sewn_length, abs=1e-9)


def test_spread_parallel_parts_both_ends_alike() -> None:
    back = real_pattern().piece("back")
    first, second = places.along(back, "shoulder", 30.0), places.along(back, "waist", back.edge("waist").sewn_length - 30.0)
    opened = spread.parallel(back, first, second, np.array([20.0, 0.0]))
    for edge in ("shoulder", "waist"):
        assert opened.edge(edge).sewn_length == pytest.approx(back.edge(edge).sewn_length + 20.0, abs=1e-9)
    width = shapely.Polygon(outline(opened)).bounds[2] - shapely.Polygon(outline(back)).bounds[2]
    assert width == pytest.approx(20.0, abs=1e-6)


def test_mirror_twice_is_nothing_and_the_whole_is_the_half_twice() -> None:
    piece = front()
    on, along = np.zeros(2), np.array([0.0, 1.0])
    again = mirror.flip(mirror.flip(piece, on, along), on, along)
    assert walked(again) == pytest.approx(walked(piece), abs=1e-12)
    assert [run.mouth for run in again.runs] == [run.mouth for run in piece.runs]
    whole = mirror.unfold(piece)
    assert whole.area == pytest.approx(2 * piece.area, abs=1e-6)
    assert {dart.id for dart in whole.darts} == {"shoulder.left", "waist.left", "shoulder.right", "waist.right"}
    assert not crosses_itself(whole)
    drawn = [run for run in whole.runs if whole.sides.of(run.edge) is Side.LEFT]
    other = [run for run in whole.runs if whole.sides.of(run.edge) is Side.RIGHT]
    half = [run for run in piece.runs if run.edge != "centre"]
    assert [(whole.sides.name(run.edge), run.path, run.source) for run in drawn] == [(r.edge, r.path, r.source) for r in half]
    for one, two in zip(drawn, reversed(other), strict=True):
        assert two.path.reversed().cubics * [-1.0, 1.0] == pytest.approx(one.path.cubics, abs=1e-12)
        assert whole.sides.name(one.edge) == whole.sides.name(two.edge) and two.source.is_mirrored


def test_the_left_as_worn_lies_right_of_the_centre_front() -> None:
    whole = mirror.unfold(front())
    left = [run for run in whole.runs if run.edge == "shoulder.left"]
    assert all(run.path.outline[:, 0].min() > 0 for run in left)


def test_a_fold_in_two_stretches_unfolds_and_one_with_an_opening_does_not() -> None:
    piece = front()
    index = next(k for k, run in enumerate(piece.runs) if run.edge == "centre")
    first, second = piece.runs[index].path.split_at(150.0)
    one, two = piece.runs[index].source.parted(150.0 / piece.runs[index].path.length)

    def made(upper: Path) -> Piece:
        runs = [Run("centre", first, one), Run("centre", upper, two)]
        return replace(piece, runs=(*piece.runs[:index], *runs, *piece.runs[index + 1 :]))

    assert mirror.unfold(made(second)).area == pytest.approx(2.0 * piece.area, abs=1e-6)
    with pytest.raises(GeometryError, match="opening is cut into the fold"):
        mirror.unfold(made(second.split_at(30.0)[1]))


def test_a_fold_opened_by_a_dart_cannot_unfold() -> None:
    piece = front()
    opened = swing.swing(slit_at(piece, "centre", 0.5), "waist", "new", piece.angle("waist"))
    with pytest.raises(GeometryError, match="fold"):
        mirror.unfold(opened)


def test_trace_copies_a_stretch_with_its_mouths_open() -> None:
    piece = front()
    start, stop = places.along(piece, "neckline", 30.0), places.along(piece, "armhole", 40.0)
    paths = trace.stretch(piece, start, stop)
    total = piece.edge("neckline").sewn_length - 30.0 + piece.edge("shoulder").sewn_length + 40.0
    assert sum(path.length for path in paths) == pytest.approx(total, abs=1e-6)
    assert len(paths) == 2  # the shoulder dart's mouth is open between them
    assert trace.piece(piece, "copy").name == "copy"
    with pytest.raises(GeometryError, match="nothing lies"):
        trace.stretch(piece, start, start)
    round_about = trace.stretch(piece, stop, Place(stop.run, stop.at - 1.0))
    whole = sum(edge.sewn_length for edge in piece.edges)
    assert sum(path.length for path in round_about) == pytest.approx(whole - 1.0, abs=1e-4)


def test_blend_smooths_a_mouth_and_says_by_how_much() -> None:
    piece = front()
    index = piece.mouth_run("waist")
    assert abs(math.degrees(redraw.corner(piece, index, PLAIN))) == pytest.approx(29.4, abs=0.1)  # sewn 2 cm short of the pivot
    made = redraw.blend(piece, index, 50.0, PLAIN)
    done = made.piece
    assert redraw.corner(done, done.mouth_run("waist"), PLAIN) == pytest.approx(0.0, abs=1e-9)
    legs = done.legs("waist")
    assert legs[0] == pytest.approx(legs[1], abs=1e-9)
    # The mouth's ends slid along the sewn legs: what that is at the pivot stands in the account.
    ((pivot, more),) = done.added
    assert pivot == "bust_point" and done.angle("waist") - more == pytest.approx(piece.angle("waist"), abs=1e-12)
    assert done.edge("waist").sewn_length - piece.edge("waist").sewn_length == pytest.approx(made.longer_mm, abs=1e-6)
    assert 0.5 < made.moved_mm < 10.0
    # The leg grows by what the corner moved: the blend bulges to the outside of the old corner.
    assert abs(legs[0] - piece.legs("waist")[0]) == pytest.approx(made.moved_mm, abs=0.6)


def test_a_corner_between_two_edges_is_no_mouth() -> None:
    with pytest.raises(GeometryError, match="nothing to blend"):
        redraw.blend(front(), 0, 20.0, PLAIN)


def test_the_cone_that_a_closed_dart_makes() -> None:
    """A disc sector of angle d taken out closes to a cone with half angle asin(1 - d / 2 pi), and its slant
    stays the radius. Source: development of the right circular cone, textbook geometry."""
    for degrees in (14.05, 31.2, 90.0):
        gap, radius = math.radians(degrees), 100.0
        rim = radius * (2 * math.pi - gap)  # the arc that is left, closed to the cone's base circle
        base = rim / (2 * math.pi)
        assert math.asin(base / radius) == pytest.approx(math.asin(1 - gap / (2 * math.pi)))
    # Our account is that deficit: the directions round the bust point on the cloth sum to 360 less the darts.
    piece = front()
    deficit = sum(piece.angle(dart.id) for dart in piece.darts)
    ring = outline(piece) - piece.pivot("bust_point")
    turns = np.diff(np.unwrap(np.arctan2(ring[:, 1], ring[:, 0])))
    cloth = sum(
        abs(np.unwrap(np.arctan2(*(run.path.outline - piece.pivot("bust_point")).T[::-1])) @ _ends(len(run.path.outline)))
        for run in piece.runs
    )
    assert cloth == pytest.approx(2 * math.pi - deficit, abs=1e-9)
    assert len(turns) > 0


def _ends(count: int) -> np.ndarray:
    weights = np.zeros(count)
    weights[0], weights[-1] = -1.0, 1.0
    return weights


def test_a_slit_at_a_step_that_points_past_the_pivot_is_refused() -> None:
    """A fold-out below the bust leaves a step in the waist; a dart opened there began with 0.04 degrees of its own."""
    slash = {"do": "fullness.slash", "on": "front", "at": {"edge": "centre", "at": "48%"}, "hinge": {"station": "side_waist"},
             "by": "-1.1 cm"}  # fmt: skip
    away = {"do": "dart.merge", "on": "front", "darts": ["shoulder", "waist"], "to": {"station": "side_bust"}}
    steps = [away, slash, {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "waist"}}]
    found = Evaluator().evaluate(scaled(1.37, 0.98), [registry.read(step) for step in steps], Scope("cm"))
    (fault,) = [error for _number, error in found.broken]
    assert "the waist has a step there" in str(fault) and "True the waist first" in str(fault)
