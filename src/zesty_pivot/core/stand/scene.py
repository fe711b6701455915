"""What is seen of a fitting: the form and the cloth as skins, and the lines that are drawn on them."""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence

import numpy as np
import shapely
from numpy.typing import NDArray
from scipy.spatial import ConvexHull

from zesty_pivot.core.kept import Kept
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.record import record
from zesty_pivot.core.sewn.seam_plan import SeamPlan
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.core.stand.form import Form
from zesty_pivot.core.stand.maps import GAPS, PULLS
from zesty_pivot.core.stand.paper import Held
from zesty_pivot.core.stand.raster import Picture, Skin, Viewpoint, is_seen, normals_of
from zesty_pivot.core.stand.worn import carried

LOOKS = ("cloth", "paper", "grain", "gap", "pull")
FORM_ANGLES, FORM_STEP = 96, 11.0  # of the triangles that the form is drawn by, mm
GRAIN_APART, GRAIN_STEP = 32.0, 8.0  # mm
SEEN_MM = 4.0  # that a line may lie under what is drawn
# From light to dark, so that they are told apart by lightness alone: a yellow to a deep blue.
BANDS = ((251, 244, 205), (206, 224, 180), (137, 196, 179), (74, 148, 178), (53, 91, 157), (35, 34, 96))

Points = NDArray[np.float64]
Numbers = NDArray[np.int64]


@record
class Palette:
    """Colours of a picture, red, green, blue from 0 to 255: of the form, of cloth, of paper, and of the bands of a map from the
    least on."""

    form: tuple[int, int, int] = (198, 186, 170)
    cloth: tuple[int, int, int] = (222, 205, 178)
    paper: tuple[int, int, int] = (250, 246, 236)
    bands: tuple[tuple[int, int, int], ...] = BANDS


@record(eq=False)
class LineOnBody:
    """A line on form or cloth: `points` (n, 3) mm, and its kind: `tape`, `centre`, `seam`, `edge`, `dart`, `fold`, `grain`."""

    kind: str
    points: Points


_TAPES: Kept[tuple[LineOnBody, ...]] = Kept(12)  # by the form, which many fittings stand on


def seen_runs(lines: Sequence[LineOnBody], eye: Viewpoint, picture: Picture) -> Iterator[tuple[LineOnBody, Points]]:
    """The parts of lines that are not behind what is drawn, as they are seen: points (n, 2), n > 1, in pixels."""
    if not lines:
        return
    of = np.repeat(np.arange(len(lines)), [len(line.points) for line in lines])
    seen = eye.seen(np.concatenate([line.points for line in lines]))
    there = is_seen(picture, seen, SEEN_MM * eye.scale)
    breaks = np.flatnonzero((np.diff(of) != 0) | (there[1:] != there[:-1])) + 1
    for first, after in itertools.pairwise([0, *breaks.tolist(), len(of)]):
        if there[first] and after - first > 1:
            yield lines[of[first]], seen[first:after, :2]


def form_skin(form: Form, palette: Palette, low: float) -> Skin:
    """The form as it is drawn, from a height on."""
    surface = form.surface
    heights = np.arange(low, surface.high + FORM_STEP, FORM_STEP).clip(max=surface.high)
    angles = np.linspace(0.0, 2.0 * np.pi, FORM_ANGLES, endpoint=False)
    around, up = np.meshgrid(angles, heights)
    points = surface.at(around.ravel(), up.ravel())
    first = np.arange(len(points)).reshape(up.shape)
    after = np.roll(first, -1, axis=1)
    triangles = np.concatenate([
        np.stack([first[:-1], after[:-1], after[1:]], axis=-1).reshape(-1, 3),
        np.stack([first[:-1], after[1:], first[1:]], axis=-1).reshape(-1, 3),
    ])  # fmt: skip
    return Skin(points, triangles, normals_of(points, triangles), np.array([palette.form], dtype=float), is_closed=True)


def extent(fitting: Fitting) -> tuple[float, float, float]:
    """Half its width, its lowest and its highest height, mm, however it is turned."""
    surface, low = fitting.form.surface, float(fitting.places[:, 2].min())
    widest = float(max(surface.radii.max(), np.hypot(*fitting.places[:, :2].T).max()))
    return widest + 10.0, min(fitting.form.heights.hip - 45.0, low - 20.0), surface.high


def cloth_skin(fitting: Fitting, look: str, palette: Palette) -> Skin:
    """The cloth as it is drawn, by one of LOOKS."""
    points, triangles, own = fitting.both_sides()
    normals = normals_of(fitting.places, fitting.triangles)
    normals[fitting.worn.sheet.on_axis, 0] = 0.0
    normals /= np.maximum(np.linalg.norm(normals, axis=1), 1e-12)[:, None]
    if not fitting.worn.is_whole:
        normals = np.concatenate([normals, normals * (-1.0, 1.0, 1.0)])
    if look in ("gap", "pull"):
        values, limits = (fitting.gap, GAPS) if look == "gap" else (fitting.pull, PULLS)
        return Skin(points, triangles, normals, np.array(palette.bands, dtype=float), values[own], limits)
    color = palette.paper if look == "paper" else palette.cloth
    return Skin(points, triangles, normals, np.array([color], dtype=float))


def tapes(form: Form) -> tuple[LineOnBody, ...]:
    """The tapes of a form: its girths as a tape lies, centre front and back, and both sides."""
    return _TAPES.get((form,), (), lambda: tuple(_tapes(form)))


def _tapes(form: Form) -> Iterator[LineOnBody]:
    for height in form.levels.values():
        section = form.surface.section(height, 180)
        hull = section[ConvexHull(section).vertices]
        ring = np.concatenate([hull, hull[:1]])
        yield LineOnBody("tape", np.column_stack([ring, np.full(len(ring), height)]))
    heights = np.arange(form.heights.hip, form.heights.nape, 10.0)
    for angle in (90.0, -90.0, 0.0, 180.0):
        top = form.heights.pit if angle == 90.0 else form.heights.nape
        if angle in (0.0, 180.0):
            top = form.heights.chest
        up = heights[heights <= top]
        yield LineOnBody("centre", form.surface.at(np.full(len(up), np.radians(angle)), up))


def seams(fitting: Fitting) -> tuple[LineOnBody, ...]:
    """Seams, darts and edges of the garment, both sides of the body."""
    return _both(_sewn_lines(fitting.worn.plan, fitting.worn.own, fitting.places), is_whole=fitting.worn.is_whole)


def _sewn_lines(plan: SeamPlan, own: Numbers, places: Points) -> list[LineOnBody]:
    roles = {(piece.name, edge): role for piece in plan.pieces for edge, role in piece.roles}
    count = np.bincount(plan.sewn, minlength=len(plan.sewn))
    found = []
    for line in plan.lines:
        points = np.array(line.points)
        kind = "edge" if line.kind == "edge" else "dart"
        if kind == "edge" and roles.get((line.piece, line.id)) == "centre":
            kind = "fold"
        elif kind == "edge" and len(points) > 2 and (count[plan.sewn[points[1:-1]]] > 1).mean() > 0.5:
            kind = "seam"
        found.append(LineOnBody(kind, places[own[points]]))
    return found


def paper_skin(paper: Held, palette: Palette) -> Skin:
    """Paper that is held in the hand."""
    points, triangles = paper.places, paper.sheet.triangles
    normals = normals_of(points, triangles)
    if not paper.is_whole:
        normals[paper.sheet.on_axis, 0] = 0.0
        normals /= np.maximum(np.linalg.norm(normals, axis=1), 1e-12)[:, None]
        triangles = np.concatenate([triangles, triangles[:, ::-1] + len(points)])
        points, normals = (np.concatenate([one, one * (-1.0, 1.0, 1.0)]) for one in (points, normals))
    return Skin(points, triangles, normals, np.array([palette.paper], dtype=float))


def paper_lines(paper: Held) -> tuple[LineOnBody, ...]:
    """Its edges and the darts that are shut."""
    return _both(_sewn_lines(paper.mesh.plan, paper.own, paper.places), is_whole=paper.is_whole)


def grain(fitting: Fitting) -> tuple[LineOnBody, ...]:
    """Lines along the grain of every piece, drawn on the cloth."""
    found = []
    for n, piece in enumerate(fitting.worn.plan.pieces):
        lines = list(_along_grain(fitting, n, piece))
        if lines:
            places = carried(fitting.worn, fitting.places, n, np.concatenate(lines))
            found += [LineOnBody("grain", part) for part in np.split(places, np.cumsum([len(line) for line in lines])[:-1])]
    return _both(found, is_whole=fitting.worn.is_whole)


def _along_grain(fitting: Fitting, number: int, piece: Piece) -> Iterator[Points]:
    way = np.array([0.0, 1.0]) if piece.grain is None else np.subtract(piece.grain[1], piece.grain[0])
    way = way / max(float(np.hypot(*way)), 1e-9)
    across = np.array([-way[1], way[0]])
    plan = fitting.worn.plan
    rings = [plan.places[list(ring)] for ring in plan.rings[number]]
    area = shapely.make_valid(shapely.Polygon(rings[0], rings[1:]))
    out, along = rings[0] @ across, rings[0] @ way
    for at in np.arange(np.ceil(out.min() / GRAIN_APART) * GRAIN_APART, out.max(), GRAIN_APART):
        ends = [across * at + way * along.min(), across * at + way * along.max()]
        cut = shapely.intersection(shapely.LineString(ends), area)
        for part in shapely.get_parts(cut):
            if part.geom_type == "LineString" and part.length > 2.0 * GRAIN_STEP:
                steps = np.linspace(0.0, part.length, int(part.length / GRAIN_STEP) + 2)
                yield shapely.get_coordinates(shapely.line_interpolate_point(part, steps))


def _both(lines: list[LineOnBody], *, is_whole: bool) -> tuple[LineOnBody, ...]:
    if is_whole:
        return tuple(lines)
    return (*lines, *(LineOnBody(line.kind, line.points * (-1.0, 1.0, 1.0)) for line in lines))
