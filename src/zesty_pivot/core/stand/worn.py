"""The pattern put on a form: what is sewn of it, and where its cloth begins, sewn already and a little off the form.

Front and back are laid flat with their darts and seams shut, then wrapped: down the front as far as the form's own front is
long, round it as far as its girth goes; what is wider stands off at the side. So no seam has to be drawn shut.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray
from scipy.interpolate import LinearNDInterpolator, NearestNDInterpolator

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.piece import Body, EdgeRef, Pattern, Piece, SeamSide
from zesty_pivot.core.piece.edge import Origin
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.place import by_origin, point
from zesty_pivot.core.piece.refs import Seam
from zesty_pivot.core.piece.sides import Side
from zesty_pivot.core.procedures.yoke_joining import JoinAsked, apart
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.sewn.laid import LaidFlat, centres, laid_flat, seams_among, with_right_halves
from zesty_pivot.core.sewn.mesh import Mesh, meshed
from zesty_pivot.core.sewn.seam_plan import SeamPlan, SewnLine, seam_plan
from zesty_pivot.core.stand.cloth import SewnSheet, added
from zesty_pivot.core.stand.form import Form
from zesty_pivot.core.stand.hung import hung

OFF = 14.0  # mm that the cloth begins off the form
FLAT_STEP = 14.0  # mm between points where the pieces are laid flat
APART = 160.0  # mm that points which are sewn to each other may lie apart when it is begun
NARROW = 50.0  # mm that a side may lie before the form's when it is put on, without more ado
MOST_WIDER = 1.8  # by which cloth is wider at most when it is put on
SHORT, TOGETHER = 30.0, 0.4  # mm of a seam that is looked at; a share: ends so near each other have been brought together

Points = NDArray[np.float64]
Numbers = NDArray[np.int64]


@record(eq=False)
class Donned:
    """A pattern as it is put on. `plan` and `mesh` say what is sewn, `own` (n,) the sheet's point of each point of the mesh;
    `start` (m, 3) mm where they begin. Of a half body the other half is its mirror (`is_whole` says there is none).
    `left_out` names what is not worn, `taken_up` the gathers, pleats and tucks that are sewn as their finished width."""

    plan: SeamPlan
    mesh: Mesh
    own: Numbers
    sheet: SewnSheet
    start: Points
    is_whole: bool
    left_out: tuple[str, ...]
    taken_up: tuple[str, ...] = ()

    def together(self, places: Points) -> Points:
        """Places (n, 3) of the points of the mesh brought together where they are sewn, those on the axis onto it: (m, 3)."""
        members = np.unique(self.mesh.triangles)
        own, count = self.own[members], self.sheet.count
        found = np.stack([added(own, places[members, k], count) for k in range(3)], axis=1)
        found /= np.bincount(own, minlength=count)[:, None]
        found[self.sheet.on_axis, 0] = 0.0
        return found


def worn(pattern: Pattern, block: Pattern, sewing: Sewing, form: Form, step: float) -> Donned:
    """The pattern's cloth in triangles of about `step` mm, beginning on the form; `block` is what it was made from. Raises
    ZestyError, with the name of the piece or seam, for what cannot be sewn."""
    yokes = tuple(join for join in pattern.joins if isinstance(join.asked, JoinAsked))
    parted, _joins = apart(replace(pattern, joins=yokes))  # a yoke over the shoulder belongs to front and back
    pieces = tuple(piece for piece in parted.pieces if piece.body is not Body.NONE)
    left_out = [piece.name for piece in parted.pieces if piece.body is Body.NONE] + [
        extra.piece.name for extra in pattern.extras
    ]
    if not pieces:
        raise ZestyError("there is no front or back in it", where="stand", advice="Say which body each piece is for.")
    is_whole = any(piece.is_unfolded for piece in pieces)
    flat = {}
    for body in (Body.FRONT, Body.BACK):
        of_body = tuple(piece for piece in pieces if piece.body is body)
        if of_body:  # of halves sewn to whole pieces the right one is the mirror of the left
            laid = laid_flat(of_body, seams_among(parted.seams, of_body), sewing, FLAT_STEP)
            flat[body] = replace(laid, flat=laid.flat - (0.0, _sunk(laid, block)))
    seams = parted.seams
    if is_whole:
        halves = [piece for piece in pieces if not piece.is_unfolded]
        pieces, seams = with_right_halves(pieces, seams)
        seams = (*seams, *_middle_seams(halves))
    plan = seam_plan(pieces, seams, sewing, step)
    if is_whole:
        plan = _with_slits(plan, pattern)
    mesh = meshed(plan, step)
    wraps = {body: _Wrap(form, block, body, laid) for body, laid in flat.items()}
    places = np.zeros((len(mesh.places), 3))
    for n, piece in enumerate(plan.pieces):
        mine = np.unique(mesh.triangles[mesh.pieces == n])
        spots = _carried(flat[piece.body], piece, mesh.places[mine])
        places[mine] = wraps[piece.body].around(spots)
        if piece.hangs and piece.body is Body.FRONT and "bust" in piece.levels:
            places[mine] = hung(form, piece, spots, places[mine], float(spots[:, 1].min()), piece.levels["bust"])
    own, count = _sheet_points(mesh)
    triangles, rest = own[mesh.triangles], mesh.places[mesh.triangles]
    # Seen from outside, fronts and backs lie in opposite ways on the paper.
    turned = np.array([piece.body is Body.BACK for piece in plan.pieces])[mesh.pieces]
    triangles[turned], rest[turned] = triangles[turned][:, ::-1], rest[turned][:, ::-1]
    axis = np.empty(0, dtype=np.int64) if is_whole else np.unique(own[_shut_centre(plan, pattern)])
    pinned = np.zeros((count, 3), dtype=bool)
    pinned[own[_neck_ends(plan)], 1] = True  # neither to the front nor to the back
    sheet = SewnSheet(rest, triangles, count, axis, pinned)
    found = Donned(
        plan, mesh, own, sheet, np.empty((0, 3)), is_whole, tuple(words(name) for name in left_out), _taken_up(parted)
    )
    start = found.together(places)
    _refuse_far(found, places, start)
    return replace(found, start=start)


def _taken_up(pattern: Pattern) -> tuple[str, ...]:
    """What is sewn as its finished width: `gathers of the front`."""
    found = (f"{one.taking.value} of the {words(piece.name)}" for piece in pattern.pieces for one in piece.fullness)
    return tuple(dict.fromkeys(found))


def _sunk(laid: LaidFlat, block: Pattern) -> float:
    """How far (mm) what is laid flat lies below where its block's shoulder is, at the place of the shoulder that is nearest to
    the neck: where it lies depends on which part of the cloth was swung."""
    found: tuple[float, float] | None = None
    for piece in laid.plan.pieces:
        drawn = [line for line in laid.plan.lines if line.piece == piece.name and line.kind == "edge"]
        for run, line in zip(piece.runs, drawn, strict=True):
            source = run.source
            base = next((one for one in block.pieces if any(own.source.edge == source.edge for own in one.runs)), None)
            if base is None or piece.role(run.edge) != "shoulder":
                continue
            share, end = min((source.u0, line.points[0]), (source.u1, line.points[-1]))
            place = point(base, by_origin(base, Origin(source.edge, share)))
            if found is None or share < found[0]:
                found = share, float(laid.flat[end, 1] - place[1])
    return 0.0 if found is None else found[1]


def _sheet_points(mesh: Mesh) -> tuple[Numbers, int]:
    """The sheet's point of each point of a mesh, and how many there are."""
    used = np.unique(mesh.sewn[np.unique(mesh.triangles)])
    return np.minimum(np.searchsorted(used, mesh.sewn), len(used) - 1), len(used)


def _neck_ends(plan: SeamPlan) -> Numbers:
    """The ends of shoulder seams at the neck, where a garment is pinned to the form's shoulder line."""
    found = list[int]()
    for n, piece in enumerate(plan.pieces):
        mine = [line for line in plan.lines if line.piece == piece.name]
        necks = {int(plan.sewn[at]) for line in mine if _role(piece, line) == "neckline" for at in line.points}
        ring = set(plan.rings[n][0])
        for line in mine:
            if _role(piece, line) == "shoulder":
                found += [at for at in line.points if at in ring and int(plan.sewn[at]) in necks]
    return np.array(found, dtype=np.int64)


def _role(piece: Piece, line: SewnLine) -> str:
    return piece.role(line.id) if line.kind == "edge" else ""


def _shut_centre(plan: SeamPlan, pattern: Pattern) -> Numbers:
    """The points of the centre edges that are on the fold, sewn or zipped; where a slit is they hang open."""
    middle = centres(plan)
    return middle[~np.isin(middle, _in_slits(plan, pattern))]


def _in_slits(plan: SeamPlan, pattern: Pattern) -> Numbers:
    """The points of the centre edges that lie in a slit."""
    slits = {opening.piece: opening.length_mm for opening in pattern.openings if opening.kind == "slit"}
    slits |= {Side.RIGHT.id(name): mm for name, mm in slits.items()}
    middle, found = centres(plan), [np.empty(0, dtype=np.int64)]
    for n, piece in enumerate(plan.pieces):
        if piece.name in slits:
            mine = middle[plan.of[middle] == n]
            down = plan.places[mine, 1]
            found.append(mine[down - down.min() < slits[piece.name] - JOIN_TOL])
    return np.concatenate(found)


def _with_slits(plan: SeamPlan, pattern: Pattern) -> SeamPlan:
    """The plan of a whole body with left and right apart where a slit is."""
    sewn = plan.sewn.copy()
    turned = {Side.RIGHT.id(piece.name) for piece in plan.pieces}
    rights = np.array([piece.name in turned for piece in plan.pieces])
    for at in _in_slits(plan, pattern).tolist():
        together = np.flatnonzero(sewn == sewn[at])
        for side in (together[rights[plan.of[together]]], together[~rights[plan.of[together]]]):
            if len(side):
                sewn[side] = side.min()
    return replace(plan, sewn=sewn)


def carried_over(coarse: Donned, places: Points, fine: Donned) -> Points:
    """Where the points of a finer cloth of the same pattern lie, (m, 3) mm, by where those of a coarser one do."""
    found = np.zeros((len(fine.mesh.places), 3))
    for n in range(len(fine.plan.pieces)):
        known, wanted = (np.unique(mesh.triangles[mesh.pieces == n]) for mesh in (coarse.mesh, fine.mesh))
        found[wanted] = _between(coarse.mesh.places[known], places[coarse.own[known]], fine.mesh.places[wanted])
    return fine.together(found)


def carried(on: Donned, places: Points, piece: int, spots: Points) -> Points:
    """Where spots (k, 2) of a piece (its number) lie on the body, (k, 3) mm."""
    known = np.unique(on.mesh.triangles[on.mesh.pieces == piece])
    return _between(on.mesh.places[known], places[on.own[known]], spots)


def _between(at: Points, values: Points, places: Points) -> Points:
    """Values (n, k) known at places (n, 2), at other places: as in a plane between three, beyond them as the nearest."""
    found = LinearNDInterpolator(at, values)(places)
    lost = np.isnan(found[:, 0])
    if lost.any():
        found[lost] = NearestNDInterpolator(at, values)(places[lost])
    return np.asarray(found)


def _middle_seams(halves: list[Piece]) -> list[Seam]:
    """Left and right halves, sewn to each other down the middle."""
    found = []
    for piece in halves:
        for edge, role in piece.roles:
            if role == "centre" and piece.edge(edge).runs:
                a, b = (SeamSide((EdgeRef(name, edge),)) for name in (piece.name, Side.RIGHT.id(piece.name)))
                found.append(Seam(a, b))
    return found


def _carried(laid: LaidFlat, piece: Piece, places: Points) -> Points:
    """Where places of a piece lie in the flat, mm; of a right half that is not there the mirror of the left."""
    names = [one.name for one in laid.plan.pieces]
    sign = 1.0
    name = piece.name
    if name not in names:
        name = next(one for one in names if Side.RIGHT.id(one) == name)
        sign, places = -1.0, places * (-1.0, 1.0)
    mine = np.unique(laid.mesh.triangles[laid.mesh.pieces == names.index(name)])
    at, flat = laid.mesh.places[mine], laid.flat[mine]
    return _between(at, flat, places) * (sign, 1.0)


def _refuse_far(worn: Donned, places: Points, start: Points) -> None:
    """Raises where points that are sewn to each other begin far apart, and where a seam's ends come together: seams the wrong
    way round crumple the cloth without any other sign."""
    members = np.unique(worn.mesh.triangles)
    members = members[members < len(worn.plan.of)]  # others are sewn to nothing
    far = 2.0 * np.linalg.norm(places[members] - start[worn.own[members]], axis=1)
    worst = int(far.argmax())
    if far[worst] > APART:
        piece = worn.plan.pieces[int(worn.plan.of[members[worst]])]
        raise ZestyError(
            f"a seam of the {words(piece.name)} begins {far[worst] / 10.0:.0f} cm apart", where="stand",
            advice="What is sewn across the body like this is not shown on the stand.",
        )  # fmt: skip
    for line in worn.plan.lines:
        ends = np.array([line.points[0], line.points[-2]])  # the last one may be the next line's first
        alone, sewn = (float(np.linalg.norm(at[1] - at[0])) for at in (places[ends], start[worn.own[ends]]))
        if line.kind == "edge" and alone > SHORT and sewn < TOGETHER * alone:
            raise ZestyError(
                f"the {words(line.id)} of the {words(line.piece)} is sewn the wrong way round", where="stand",
                advice="Look at which ends of the seam meet, in the walk.",
            )  # fmt: skip


class _Wrap:
    """Flat cloth of one body laid round a form; of what is much too narrow for it all is
    wider, so that its sides meet."""

    def __init__(self, form: Form, block: Pattern, body: Body, laid: LaidFlat) -> None:
        self._sign = -1.0 if body is Body.BACK else 1.0
        base = next((piece for piece in block.pieces if piece.body is body), block.pieces[0])
        self._top = float(base.landmarks["neck_point"][1]) if "neck_point" in base.landmarks else 0.0
        self._tables(form)
        sides = laid.flat[_side_points(laid.plan)]
        self._wider = 1.0
        if len(sides):
            ways, _lines, _heights = self._rows(sides)
            lacks = ways[:, -1] - np.abs(sides[:, 0])
            if lacks.max() > NARROW:
                self._wider = float(np.clip((ways[:, -1] / np.maximum(np.abs(sides[:, 0]), 1.0)).max(), 1.0, MOST_WIDER))

    def _tables(self, form: Form) -> None:
        """Heights by how far down the cloth goes, and over heights and angles how far round."""
        surface = form.surface
        middle = self._sign * np.pi / 2.0
        angle = self._sign * np.radians(60.0)
        top = form.heights.neck - 6.0
        self._heights = np.arange(surface.low + 20.0, surface.high, 6.0)
        down = np.linspace(top, surface.low + 20.0, 200)
        # A column from the neck point over the bust or the blade, which begins on the ridge of the shoulder.
        column = surface.at(np.full(200, angle), down)[:, 1:]
        column[0, 0] = float(surface.at(np.array([0.0]), np.array([top]))[0, 1])
        self._along = np.concatenate([[0.0], np.cumsum(np.hypot(*np.diff(column, axis=0).T))])
        self._down = down
        angles = np.linspace(middle, 0.0, 48)
        grid = np.stack([surface.at(angles, np.full(48, height)) for height in self._heights])
        out = grid[..., :2] * (1.0 + OFF / np.linalg.norm(grid[..., :2], axis=2, keepdims=True))
        self._round = np.concatenate(
            [np.zeros((len(grid), 1)), np.cumsum(np.hypot(*np.moveaxis(np.diff(out, axis=1), 2, 0)), axis=1)], axis=1
        )
        self._out = out

    def _rows(self, flat: Points) -> tuple[Points, Points, Points]:
        """Of points of the flat the distances round the form at their height (n, k), where they lie (n, k, 2), the height."""
        down = flat[:, 1] - self._top
        height = np.interp(down, self._along, self._down)
        height = np.where(down < 0.0, self._down[0] - down, height)
        height = np.where(down > self._along[-1], self._down[-1] - (down - self._along[-1]), height)
        row = np.clip((height - self._heights[0]) / 6.0, 0.0, len(self._heights) - 1.001)
        low = row.astype(np.int64)
        part = (row - low)[:, None]
        ways = self._round[low] * (1.0 - part) + self._round[low + 1] * part
        return ways, self._out[low] * (1.0 - part[..., None]) + self._out[low + 1] * part[..., None], height

    def around(self, flat: Points) -> Points:
        """(n, 3) mm of points (n, 2) of the flat."""
        ways, lines, height = self._rows(flat)
        wide = np.abs(flat[:, 0]) * self._wider
        found = np.empty((len(flat), 3))
        for n in range(len(flat)):
            for k in range(2):
                found[n, k] = np.interp(wide[n], ways[n], lines[n, :, k])
        found[:, 0] += np.maximum(wide - ways[:, -1], 0.0)
        found[:, 0] *= np.where(flat[:, 0] < 0.0, -1.0, 1.0)
        found[:, 2] = height
        return found


def _side_points(plan: SeamPlan) -> Numbers:
    """The points of the side seams of a plan."""
    roles = {(piece.name, edge): role for piece in plan.pieces for edge, role in piece.roles}
    lines = (line for line in plan.lines if line.kind == "edge" and roles.get((line.piece, line.id)) == "side_seam")
    return np.array([at for line in lines for at in line.points[:-1]], dtype=np.int64)
