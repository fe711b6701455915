"""The block file (.zblock): its model, and the pattern it describes."""

import math
from functools import lru_cache
from pathlib import Path as FilePath
from typing import TYPE_CHECKING, Annotated, Any, Literal

import numpy as np
from pydantic import BeforeValidator, Field, FiniteFloat, SerializeAsAny, field_validator

from zesty_pivot.core.errors import FileError, ZestyError
from zesty_pivot.core.formats import files, migrations
from zesty_pivot.core.geometry import JOIN_TOL, Path, between, svgpath
from zesty_pivot.core.piece import Body, Dart, EdgeRef, FishEye, Pattern, Piece, Run, Seam, Shape, Source
from zesty_pivot.core.piece.names import CORNERS, HIP_LOOP, LOOP, SEAM_ROLES, ends_of
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.piece.region import crosses_itself, fisheye_fault
from zesty_pivot.core.quantity.fields import Model
from zesty_pivot.core.quantity.formula import MAX_LENGTH_MM
from zesty_pivot.core.record import record

KIND = "block"
SUFFIX = ".zblock"
MATCH = 0.01  # mm: landmarks and mouths must lie on their edges this closely; files keep six decimals
MOST_BESIDE = math.radians(45.0)  # a dart's point further beside its axis, seen from the pivot, is none. Our own choice
MAX_COORDINATE = 10_000.0  # mm; no block is 10 m long, so more is a slip of the unit

Millimetres = Annotated[FiniteFloat, Field(ge=-MAX_COORDINATE, le=MAX_COORDINATE)]
Coordinate = tuple[Millimetres, Millimetres]

if TYPE_CHECKING:
    from zesty_pivot.core.drafting.method import Method as OwnMethod
else:

    def _method(value: Any) -> Any:
        """A block's own method, whose dozen of models are built only for a block that has one."""
        from zesty_pivot.core.drafting.method import Method

        return files.read_inside(lambda: Method.model_validate(value))

    OwnMethod = Annotated[SerializeAsAny[Model], BeforeValidator(_method)]


# Names that begin with a star are the program's own, for slits and tears that are on their way.
OWN_ID = Field(min_length=1, max_length=60, pattern=r"^[^*]")


class BlockEdge(Model):
    """One edge: its role and its line as SVG path data in mm; a gap between subpaths is a dart's mouth."""

    id: str = OWN_ID
    role: Literal["neckline", "shoulder", "armhole", "side_seam", "waist", "hem", "centre"]
    path: str = Field(max_length=100_000)


class BlockDart(Model):
    """One dart: its edge, the mouth's ends and the sewn point in mm, and the landmark it pivots on."""

    id: str = OWN_ID
    edge: str
    mouth: tuple[Coordinate, Coordinate]
    point: Coordinate
    pivot: str
    even: Millimetres | None = Field(default=None, description="how far up from the mouth its legs are sewn side by side, mm")


class BlockFishEye(Model):
    """A dart inside a hip-length piece: its points above and below, and the two places at the waist, mm. `point` is where it is
    sewn to above, if not to its top."""

    id: str = OWN_ID
    top: Coordinate
    waist: tuple[Coordinate, Coordinate]
    bottom: Coordinate
    point: Coordinate | None = None


class BlockPiece(Model):
    """One piece of a block, drawn as a half with the centre at x = 0."""

    name: str = Field(min_length=1, max_length=60)
    body: Body = Field(description="the half of the body that it covers")
    fold: str | None = None
    landmarks: dict[str, Coordinate]
    levels: dict[str, Millimetres] = Field(default_factory=dict)
    edges: tuple[BlockEdge, ...]
    darts: tuple[BlockDart, ...] = ()
    fisheyes: tuple[BlockFishEye, ...] = ()
    grain: tuple[Coordinate, Coordinate] | None = None
    allowances: dict[str, Millimetres] = Field(
        default_factory=dict, description="by edge: what a style made of the block lays outside it, mm"
    )


class BlockFile(Model):
    """A block: the fitted master pattern without seam allowance."""

    format: Literal["zesty-pivot/block"] = "zesty-pivot/block"
    version: Literal[3] = 3
    units: Literal["mm"] = "mm"
    name: str = Field(default="Block", max_length=200)
    measurements: dict[str, FiniteFloat] = Field(default_factory=dict, description="body measurements in mm")
    pieces: tuple[BlockPiece, ...] = Field(min_length=1, max_length=20)
    method: str | None = Field(default=None, max_length=40, description="the drafting method that it was drawn with")
    settings: dict[str, str] = Field(default_factory=dict, description="what was set of the method's parameters")
    own_method: OwnMethod | None = Field(default=None, description="the method itself, where it is not one of the program's")

    @property
    def has_bust_point(self) -> bool:
        """Whether any piece has one; a child's block has none."""
        return any("bust_point" in piece.landmarks for piece in self.pieces)

    @field_validator("measurements")
    @classmethod
    def _positive(cls, value: dict[str, float]) -> dict[str, float]:
        for name, mm in value.items():
            if not 0.0 < mm <= MAX_LENGTH_MM:
                raise ValueError(f"{name} is {mm:g}; a measurement must be greater than 0 and under 100 m")
        return value


@record
class _Where:
    """Words for the place of a fault."""

    file: str
    piece: str

    def fault(self, what: str, advice: str) -> FileError:
        return FileError(what, where=f"{self.file}, piece {self.piece!r}", advice=advice)


def read(path: FilePath) -> BlockFile:
    """A block from a file; raises FileError in one line for anything that is not a sound block."""
    return from_value(files.read_json(path, KIND), files.shown(path))


def from_value(value: dict[str, Any], where: str) -> BlockFile:
    """A block from plain JSON of any version; raises FileError like `read`."""
    block = files.validated(BlockFile, migrations.block(files.header(value, KIND, where)), where)
    try:
        pattern(block)
    except FileError as fault:
        raise FileError(fault.what, where=f"{where}, {fault.where}".rstrip(", "), advice=fault.advice) from None
    return block


def dump(block: BlockFile) -> bytes:
    """The file's bytes."""
    return (block.model_dump_json(indent=1, exclude_none=True) + "\n").encode()


class _Key:
    """A block by identity, so that the pattern of one frozen block is worked out once."""

    def __init__(self, block: BlockFile) -> None:
        self.block = block

    def __hash__(self) -> int:
        return id(self.block)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Key) and other.block is self.block


def pattern(block: BlockFile) -> Pattern:
    """The block as a pattern, darts led to their pivots. Raises FileError when it is not sound."""
    return _pattern(_Key(block))


@lru_cache(maxsize=64)
def _pattern(key: _Key) -> Pattern:
    names = [piece.name for piece in key.block.pieces]
    if len(set(names)) != len(names):
        raise FileError("two pieces have one name", where=key.block.name, advice="Rename one.")
    pieces = tuple(_piece(piece, _Where("block", piece.name)) for piece in key.block.pieces)
    return Pattern(pieces, _seams(pieces))


def _seams(pieces: tuple[Piece, ...]) -> tuple[Seam, ...]:
    """Front and back are sewn to each other at the shoulder and the side."""
    by_name = {piece.name: piece for piece in pieces}
    front, back = by_name.get("front"), by_name.get("back")
    if front is None or back is None:
        return ()
    return tuple(
        sewn(EdgeRef(front.name, _edge_of(front, role)), EdgeRef(back.name, _edge_of(back, role))) for role in SEAM_ROLES
    )


def _edge_of(piece: Piece, role: str) -> str:
    return next(id for id, its in piece.roles if its == role)


def _piece(model: BlockPiece, where: _Where) -> Piece:
    roles = tuple(edge.role for edge in model.edges)
    if roles not in (LOOP, HIP_LOOP):
        missing = [role for role in LOOP if role not in roles and not (role == "waist" and "hem" in roles)]
        what = f"edge {missing[0]!r} is missing" if missing else f"the edges run {', '.join(roles)}"
        raise where.fault(what, f"Give the edges in loop order: {', '.join(LOOP)}; or a hem instead of the waist.")
    if len({edge.id for edge in model.edges}) != len(model.edges):
        raise where.fault("two edges have one id", "Rename one.")
    runs = _runs(model, where)
    runs = _with_mouths(model, runs, where)
    _landmarks(model, runs, where)
    inside = {name: at for name, at in model.landmarks.items() if name not in CORNERS}
    darts = tuple(_dart(dart, inside, where) for dart in model.darts)
    fold = model.fold
    if fold is not None and fold not in {edge.id for edge in model.edges}:
        raise where.fault(f"the fold {fold!r} is no edge", "Name an edge, such as 'centre'.")
    if roles == HIP_LOOP and "waist" not in model.levels:
        raise where.fault("a piece with a hem has no waist line", "Give the level 'waist'.")
    piece = Piece(
        name=model.name,
        body=model.body,
        fold=fold,
        runs=runs,
        roles=tuple((edge.id, edge.role) for edge in model.edges),
        darts=darts,
        landmarks=inside,
        levels=dict(model.levels),
        grain=model.grain,
        fisheyes=tuple(_fisheye(dart) for dart in model.fisheyes),
    )
    _sound(piece, where)
    return piece


def _runs(model: BlockPiece, where: _Where) -> tuple[Run, ...]:
    runs: list[Run] = []
    for edge in model.edges:
        try:
            paths = svgpath.read(edge.path)
        except ZestyError as fault:
            raise where.fault(f"edge {edge.id!r}: {fault.what}", fault.advice or "Mend the path.") from None
        if max(np.abs(path.cubics).max() for path in paths) > MAX_COORDINATE:
            raise where.fault(f"edge {edge.id!r} reaches past 10 m", "Give the path in mm.")
        if min(path.length for path in paths) <= MATCH:
            raise where.fault(f"edge {edge.id!r} has a stretch of no length", "Leave it out.")
        # Segments to where they begin draw nothing, and have no direction either.
        paths = [Path(path.cubics[path.lengths > JOIN_TOL]) if path.lengths.min() <= JOIN_TOL else path for path in paths]
        total, before = sum(path.length for path in paths), 0.0
        for number, path in enumerate(paths):
            after = 1.0 if number == len(paths) - 1 else before + path.length / total
            runs.append(Run(edge.id, path, Source(f"{model.name}.{edge.id}", before, after)))
            before = after
    return tuple(runs)


def _with_mouths(model: BlockPiece, runs: tuple[Run, ...], where: _Where) -> tuple[Run, ...]:
    """The runs with each dart's id where its mouth opens; every gap must be one dart's mouth."""
    named: list[Run] = []
    left = {dart.id: dart for dart in model.darts}
    if len(left) != len(model.darts):
        raise where.fault("two darts have one id", "Rename one.")
    for index, run in enumerate(runs):
        start, stop = run.path.end, runs[(index + 1) % len(runs)].path.start
        dart = next((d for d in left.values() if _is_mouth(d, start, stop)), None)
        if dart is not None:
            del left[dart.id]
            run = Run(run.edge, run.path, run.source, dart.id)
        elif math.dist(start, stop) > MATCH and (stray := [d.id for d in left.values() if d.edge == run.edge]):
            raise where.fault(f"the mouth of dart {stray[0]!r} is no gap of edge {run.edge!r}", "Give the gap's two ends.")
        elif math.dist(start, stop) > MATCH:
            raise where.fault(
                f"the outline is open after edge {run.edge!r}, by {math.dist(start, stop):.2f} mm",
                "Close it, or give it a dart.",
            )
        named.append(run)
    if left:
        id = next(iter(left))
        raise where.fault(f"the mouth of dart {id!r} is no gap of edge {left[id].edge!r}", "Give the gap's two ends.")
    return tuple(named)


def _is_mouth(dart: BlockDart, start: np.ndarray, stop: np.ndarray) -> bool:
    one, two = dart.mouth
    return any(math.dist(a, start) <= MATCH and math.dist(b, stop) <= MATCH for a, b in ((one, two), (two, one)))


def _landmarks(model: BlockPiece, runs: tuple[Run, ...], where: _Where) -> None:
    """Corner landmarks must be given and lie where their edges begin and end (either lip of a mouth there)."""
    for edge in model.edges:
        first, last = ends_of(edge.role for edge in model.edges)[edge.role]
        mine = [run for run in runs if run.edge == edge.id]
        for name, lip in ((first, mine[0].path.start), (last, mine[-1].path.end)):
            if name not in model.landmarks:
                raise where.fault(f"landmark {name!r} is missing", "Give its place in mm.")
            opened = any(run.mouth for run in runs if np.abs(run.path.end - lip).max() <= MATCH) or any(
                runs[k - 1].mouth for k, run in enumerate(runs) if np.abs(run.path.start - lip).max() <= MATCH
            )
            if math.dist(model.landmarks[name], lip) > MATCH and not opened:
                raise where.fault(f"landmark {name!r} is not at the end of edge {edge.id!r}", "Move the one to the other.")


def _dart(dart: BlockDart, inside: dict[str, Coordinate], where: _Where) -> Dart:
    if dart.pivot not in inside:
        known = ", ".join(sorted(inside)) or "none"
        raise where.fault(f"dart {dart.id!r} has no pivot {dart.pivot!r}", f"Landmarks inside the piece: {known}.")
    pin, mouth = np.array(inside[dart.pivot]), np.array(dart.mouth)
    way, axis = np.array(dart.point) - pin, mouth.mean(axis=0) - pin
    short, beside = float(np.hypot(*way)), between(axis, way)
    shape = Shape(even_mm=dart.even) if dart.even and 0.0 < dart.even < float(np.hypot(*axis)) - short else Shape()
    # Only a point between the pivot and the mouth is one to sew to; a file may have the pivot itself, or a point beyond it.
    if short <= MATCH or short >= float(np.hypot(*axis)) or abs(beside) > MOST_BESIDE:
        return Dart(dart.id, dart.pivot, shape=shape)
    return Dart(dart.id, dart.pivot, extended_mm=short, beside=beside if abs(beside) * short > MATCH else 0.0, shape=shape)


def _fisheye(model: BlockFishEye) -> FishEye:
    left, right = sorted(model.waist)
    return FishEye(model.id, model.point or model.top, right, model.bottom, left)


def _sound(piece: Piece, where: _Where) -> None:
    """The outline must run clockwise without crossing itself, and each dart must open inwards."""
    if crosses_itself(piece):
        raise where.fault("the outline crosses itself", "Check the edges and the darts' points.")
    if piece.area <= 0.0:
        raise where.fault("the edges run anticlockwise", "Run from the centre neck over the shoulder to the waist.")
    ids = [*(dart.id for dart in piece.darts), *(eye.id for eye in piece.fisheyes)]
    if len(set(ids)) != len(ids):
        raise where.fault("two darts have one id", "Rename one.")
    for eye in piece.fisheyes:
        fault = fisheye_fault(piece, eye)
        if fault is not None:
            raise where.fault(f"fish-eye {eye.id!r}: {fault}", "Check its four corners.")
    for dart in piece.darts:
        if piece.angle(dart.id) <= 0.0:
            raise where.fault(f"dart {dart.id!r} has no angle at its pivot", "Check its mouth.")
        if min(piece.legs(dart.id)) <= MATCH:
            raise where.fault(f"dart {dart.id!r} has a leg of no length", "Check its mouth and pivot.")
