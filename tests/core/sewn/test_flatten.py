"""Cloth sewn and laid flat: what was one piece before is that piece again, a cone is the cone of its dart."""

from __future__ import annotations

import math

import numpy as np
import pytest
import shapely

from tests.samples import hip_pattern, real_pattern, worked
from zesty_pivot.core.conventions.sewing import PLAIN
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Body, Dart, EdgeRef, Piece, Run, SeamSide, Source
from zesty_pivot.core.piece.refs import Seam
from zesty_pivot.core.sewn.flatten import flattened
from zesty_pivot.core.sewn.mesh import Mesh, meshed
from zesty_pivot.core.sewn.seam_plan import seam_plan

NONE = np.empty(0, dtype=np.int64)


def polygon(name: str, corners: list[tuple[float, float]], edges: list[str]) -> Piece:
    """A piece with straight edges, clockwise on the paper (y down); u runs along the loop, but for `back.` names against it."""
    runs = []
    for k, edge in enumerate(edges):
        path = Path.straight(corners[k], corners[(k + 1) % len(corners)])
        source = Source(f"block.{edge}", 1.0, 0.0) if edge.startswith("against") else Source(f"block.{edge}", 0.0, 1.0)
        runs.append(Run(edge, path, source))
    return Piece(name, None, tuple(runs), tuple((edge, "style_line") for edge in edges))


def sewn(pieces: list[Piece], pairs: list[tuple[EdgeRef, EdgeRef]], step: float = 12.0) -> Mesh:
    seams = [Seam(SeamSide((a,)), SeamSide((b,))) for a, b in pairs]
    return meshed(seam_plan(pieces, seams, PLAIN, step), step)


def turned(points: np.ndarray, angle: float, shift: tuple[float, float]) -> list[tuple[float, float]]:
    cos, sin = math.cos(angle), math.sin(angle)
    return [(cos * x - sin * y + shift[0], sin * x + cos * y + shift[1]) for x, y in points]


@pytest.mark.parametrize("angle", [0.0, 0.7, 2.5, -3.0])
def test_two_parts_of_a_rectangle_are_the_rectangle(angle: float) -> None:
    """200 by 100 mm cut aslant; one part lies elsewhere, turned by any angle: sewn and flat every distance is what it was."""
    left = polygon("left", [(0, 0), (120, 0), (80, 100), (0, 100)], ["top", "cut", "low", "end"])
    there = turned(np.array([(120, 0), (200, 0), (200, 100), (80, 100)]), angle, (500.0, -70.0))
    right = polygon("right", there, ["top", "end", "low", "against"])
    mesh = sewn([left, right], [(EdgeRef("left", "cut"), EdgeRef("right", "against"))])
    flat = flattened(mesh, NONE)
    corners = {}
    for line in mesh.plan.lines:
        corners[line.piece, line.id] = flat[line.points[0]]
    at = np.array([corners["left", "top"], corners["right", "end"], corners["right", "low"], corners["left", "end"]])
    gaps = np.hypot(*(at[:, None] - at[None]).transpose(2, 0, 1))
    whole = np.array([(0, 0), (200, 0), (200, 100), (0, 100)], dtype=float)
    assert np.abs(gaps - np.hypot(*(whole[:, None] - whole[None]).transpose(2, 0, 1))).max() < 0.05
    assert shapely.LinearRing(at).is_ccw == shapely.LinearRing(whole).is_ccw  # not turned over


@pytest.mark.parametrize("degrees", [10.0, 30.0, 60.0])
def test_a_cone_keeps_its_area_and_opens_all_round(degrees: float) -> None:
    """A disc of 100 mm with one dart to its middle: flat it is a disc again, its rim as long as it was sewn but for what a
    cone cannot do in the plane, and the same all round."""
    half = math.radians(degrees) / 2.0
    angles = np.linspace(half, math.tau - half, 73)
    ring = Path.polyline(np.stack([100.0 * np.cos(angles), 100.0 * np.sin(angles)], axis=1))
    disc = Piece(
        "disc", None, (Run("rim", ring, Source("block.rim", 0.0, 1.0), "dart"),), (("rim", "hem"),),
        darts=(Dart("dart", "middle"),), landmarks={"middle": (0.0, 0.0)}, body=Body.BACK,
    )  # fmt: skip
    mesh = sewn([disc], [], 8.0)
    flat = flattened(mesh, NONE)
    rim = next(flat[list(line.points)] for line in mesh.plan.lines if line.kind == "edge")
    middle = next(flat[line.points[-1]] for line in mesh.plan.lines if line.kind == "dart")
    assert np.hypot(*(rim[0] - rim[-1])) < 1e-6  # shut
    radii = np.hypot(*(rim - middle).T)
    assert np.ptp(radii) < 0.05 * radii.mean()
    # As rigid as can be in the plane: a disc between the one with this rim and the one with these legs.
    assert 100.0 * (1.0 - degrees / 360.0) - 0.5 < radii.mean() < 100.0 + 0.5


@pytest.mark.parametrize("kind", ["princess", "band", "yoke"])
def test_panels_sewn_again_are_the_piece(kind: str) -> None:
    """A child's or dartless piece is not at hand for all: a back whose darts are moved out of the way, cut by a line."""
    steps = {
        "princess": {"do": "line.princess", "on": "back"},
        "band": {"do": "line.band", "on": "back"},
        "yoke": {"do": "yoke.cut", "on": "back"},
    }  # fmt: skip
    block = real_pattern()
    pattern = worked([steps[kind]], block).pattern
    back = tuple(piece for piece in pattern.pieces if piece.body is Body.BACK)
    assert len(back) == 2
    names = {piece.name for piece in back}
    seams = [seam for seam in pattern.seams if all(part.piece in names for part in seam.parts)]
    flats = []
    for pieces, joins in ((back, seams), ((block.piece("back"),), [])):
        mesh = meshed(seam_plan(pieces, joins, PLAIN, 12.0), 12.0)
        flat = flattened(mesh, NONE)
        centre = np.concatenate([flat[list(line.points)] for line in mesh.plan.lines if line.id == "centre"])
        side = np.concatenate([flat[list(line.points)] for line in mesh.plan.lines if line.id.startswith("side_seam")])
        flats.append((np.ptp(centre, axis=0), side.mean(axis=0) - centre.mean(axis=0), len(mesh.triangles)))
    (centre, across, _count), (its, theirs, _number) = flats
    assert np.hypot(*centre) == pytest.approx(np.hypot(*its), abs=1.0)
    assert np.hypot(*across) == pytest.approx(np.hypot(*theirs), rel=0.02)


def test_the_outline_is_covered_by_triangles() -> None:
    for pattern in (real_pattern(), hip_pattern()):
        mesh = meshed(seam_plan(pattern.pieces, pattern.seams, PLAIN, 10.0), 10.0)
        corners = mesh.places[mesh.triangles]
        one, other = corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0]
        areas = (one[:, 0] * other[:, 1] - one[:, 1] * other[:, 0]) / 2.0
        assert (areas > 0.0).all()
        for n, rings in enumerate(mesh.plan.rings):
            outline, *holes = [mesh.places[list(ring)] for ring in rings]
            assert areas[mesh.pieces == n].sum() == pytest.approx(shapely.Polygon(outline, holes).area, rel=1e-4)
            assert len(holes) == len(pattern.pieces[n].fisheyes)
        # Partners meet: every point of the side seam of the front lies on one of the back's.
        plan = mesh.plan
        order = ("front", "back")
        sides = [{int(plan.sewn[p]) for line in plan.lines if line.piece == of and line.id == "side_seam" for p in line.points}
                 for of in order]  # fmt: skip
        assert sides[0] == sides[1] and len(sides[0]) > 10
        tops = [
            next(line.points[0] for line in plan.lines if line.piece == of and line.id == "side_seam")
            for of in ("front", "back")
        ]
        assert plan.sewn[tops[0]] == plan.sewn[tops[1]]  # underarm on underarm, not on the waist
