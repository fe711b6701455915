"""trim.strapless: everything above a top edge cut away, straight or sweetheart, from the centre to the armhole."""

from typing import ClassVar, Literal

import numpy as np
from pydantic import Field

from zesty_pivot.core.errors import PlaceError, StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.moves.cut import across
from zesty_pivot.core.moves.style_lines import refuse_unclear, stays_inside
from zesty_pivot.core.piece import Pattern, Piece, Place, Run, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.heights import edges_at
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import Spot, resolve
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.clearing import first_way, station_of
from zesty_pivot.core.procedures.hand import Line, Way, centre_words, line
from zesty_pivot.core.procedures.into_panels import with_panels
from zesty_pivot.core.quantity import format_length, length_mm
from zesty_pivot.core.quantity.fields import Length
from zesty_pivot.core.record import replace
from zesty_pivot.core.steps.base import Step

# Where darts that open above the edge go, the first that has a clear way: down, where a bustier has its seams.
AWAY = ("waist", "side_bust", "french", "side_waist")


# How far a sweetheart runs level from its peak, and how far level to its end, as shares of the way outwards: the fullest first;
# into a deep armhole it comes from below. Our own choice.
_FULL = ((0.5, 0.0), (0.35, 0.0), (0.2, 0.0), (0.2, 0.4), (0.1, 0.7))

TOP = "neckline"  # the top edge takes the neckline's place


class Strapless(Step):
    """Moves the darts that open above down, cuts along the top edge and drops what lies above."""

    title: ClassVar[str] = "Strapless edge"
    summary: ClassVar[str] = (
        "A top edge at a depth, straight or sweetheart, to mid armhole or the underarm; the rest is cut away."
    )
    half_by_half: ClassVar[bool] = True

    do: Literal["trim.strapless"] = "trim.strapless"
    # 7 to 8 in below the shoulder line: common practice, no source.
    depth: Length = Field(default="7 in", description="of the edge at the centre, below the neck point")
    shape: Literal["straight", "sweetheart"] = Field(default="straight", description="how the edge runs")
    rise: Length = Field(default="1 1/4 in", description="how far a sweetheart stands over its dip at the centre")
    to: Spot = Field(default=Spot(edge="armhole", at="75%"), description="where it ends at the armhole")

    def words(self) -> str:
        """`sweetheart edge 7 in down`."""
        return f"{self.shape} edge {self.depth} down"

    def _ends(self, piece: Piece, context: Context) -> tuple[Place, Place]:
        """Where the edge meets the centre, and where it ends."""
        block = context.block.drafted(piece)
        neck = block.corner("neck_point")
        y = float(neck[1]) + length_mm(self.depth, context.scope)
        found = edges_at(piece, "centre", y)
        if not found:
            low, high = self._reach(piece, float(neck[1]), context)
            raise StepError(
                f"an edge {self.depth} down does not meet the centre", where=self.on, advice=f"Enter {low} to {high}."
            )
        pivot = piece.darts[0].pivot if piece.darts else next(iter(piece.landmarks), "")
        stop = resolve(self.to, piece, block, context.scope, pivot)
        if piece.role(piece.runs[stop.run].edge) != "armhole":
            raise StepError("the edge does not end at the armhole", where=self.on, advice="Choose a place on the armhole.")
        return found[-1][0], stop

    def _reach(self, piece: Piece, neck: float, context: Context) -> tuple[str, str]:
        ys = [float(point[1]) for run in piece.edge("centre").runs for point in (run.path.start, run.path.end)]
        unit = context.scope.unit
        return format_length(max(0.0, min(ys) - neck), unit), format_length(max(ys) - neck, unit)

    def _line(self, piece: Piece, start: Place, stop: Place, context: Context) -> Path:
        one, two = places.point(piece, start), places.point(piece, stop)
        way = two - one
        if self.shape == "straight":
            # Square at the centre, then a shallow curve to the armhole.
            return Path(np.array([[one, one + np.array([way[0] * 0.45, 0.0]), two - way * 0.3, two]]))
        rise = length_mm(self.rise, context.scope)
        if rise <= 0.0:
            raise StepError(
                "a sweetheart edge has to rise above its dip", where=self.on, advice="Enter how far it rises above its dip."
            )
        pins = [at for name, at in piece.landmarks.items() if name in ("bust_point", "blade_point")]
        x = pins[0][0] if pins else one[0] + way[0] * 0.45
        top = np.array([min(max(x, one[0] + way[0] * 0.25), one[0] + way[0] * 0.7), min(one[1], two[1]) - rise])
        first, last = top[0] - one[0], two[0] - top[0]
        up = np.array([one, one + np.array([first * 0.12, -(one[1] - top[1]) * 0.6]), top - np.array([first * 0.6, 0.0]), top])
        for full, level in _FULL:
            end = two - (np.array([last, 0.0]) * level if level else (two - top) * 0.25)
            path = Path(np.array([up, [top, top + np.array([last * full, 0.0]), end, two]]))
            if stays_inside(piece, path):
                break
        return path

    def _cleared(self, pattern: Pattern, context: Context) -> tuple[Outcome, list[str]]:
        """The pattern with the darts that open above the edge moved down."""
        moved: list[str] = []
        made = Outcome(pattern)
        while True:
            piece = made.pattern.piece(self.on)
            start, stop = self._ends(piece, context)
            above = _above(piece, start, stop)
            pins = {d.id: piece.pivot(d.pivot) for d in piece.darts}
            line = self._line(piece, start, stop, context)
            dart = next((d for d in piece.darts if piece.mouth_run(d.id) in above and not _is_over(line, pins[d.id])), None)
            if dart is None:
                return made, moved
            made = made.then(self._down(made.pattern, dart.id, context))
            moved.append(dart.id)

    def _down(self, pattern: Pattern, dart: str, context: Context) -> Outcome:
        before = pattern.piece(self.on)
        made = first_way(pattern, self.on, dart, [station_of(name) for name in AWAY], context, lambda piece: piece != before)
        if made is None:
            what = f"the {dart_words(before, dart)} dart opens above the edge and cannot be moved down"
            raise StepError(what, where=self.on, advice="Move it to the waist or the side first.")
        return made

    def _made(self, pattern: Pattern, context: Context) -> tuple[Outcome, Piece, Path, list[str]]:
        piece = pattern.piece(self.on)
        if piece.is_unfolded or not {"neckline", "centre", "armhole"} <= {role for _edge, role in piece.roles}:
            what = "this edge needs a half with neckline, centre and armhole"
            advice = "Cut it before princess lines, or take the strapless neckline, which goes over panels."
            raise StepError(what, where=self.on, advice=advice)
        made, moved = self._cleared(pattern, context)
        piece = made.pattern.piece(self.on)
        start, stop = self._ends(piece, context)
        drawn = self._line(piece, start, stop, context)
        refuse_unclear(piece, drawn)
        kept, gone = _below(piece, start, stop, drawn, self.shape)
        # Darts that lie above the edge whole go with what is cut away; their fullness is taken out of the account.
        lost = tuple((dart.pivot, -piece.angle(dart.id)) for dart in gone.darts)
        return made, replace(kept, added=(*piece.added, *lost)), drawn, moved

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the piece cut off along its top edge. Raises StepError, PlaceError or GeometryError."""
        made, kept, drawn, moved = self._made(pattern, context)
        unit = context.scope.unit
        notes = [Note(f"the top edge of this half is {format_length(drawn.length, unit)}", self.on, drawn.length)]
        before = {dart.id for dart in made.pattern.piece(self.on).darts}
        gone = sorted(before - {dart.id for dart in kept.darts})
        if gone:
            notes.append(Note(f"cut away with what lies above: {', '.join(words(dart) for dart in gone)}", self.on))
        if moved:
            notes.append(Note(f"moved down out of the way: {', '.join(words(dart) for dart in moved)}", self.on))
        return Outcome(with_panels(made.pattern, self.on, (kept,), ()), (*notes, *made.notes))

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Darts down, mark, draw, cut; the same in both ways."""
        _made, _kept, drawn, moved = self._made(pattern, context)
        unit = context.scope.unit
        names = {"on": words(self.on), "centre": centre_words(self.on), "to": self.to.words(), "shape": self.shape}
        found = []
        if moved:
            text = "Move the {darts} of the {on} down to the waist or the side."
            found.append(line("darts_down", text, on=words(self.on), darts=" and ".join(words(dart) for dart in moved)))
        text = (
            "On the {on}, mark {depth} below the neck point on the {centre} and draw a {shape} edge to the {to}, square at the "
            "{centre}: it is {long} long. Cut the upper part away."
        )
        figures = {"depth": length_mm(self.depth, context.scope), "long": drawn.length}
        found.append(line("strapless", text, **names, **{k: format_length(mm, unit) for k, mm in figures.items()}))
        return tuple(found)


def _is_over(line: Path, pin: np.ndarray) -> bool:
    """Whether a point lies above the edge."""
    points = line.outline
    return float(pin[1]) < float(np.interp(pin[0], points[:, 0], points[:, 1]))


def _above(piece: Piece, start: Place, stop: Place) -> set[int]:
    """The runs whose end lies above the edge: from the centre over neckline and shoulder to the armhole."""
    found, index = set(), start.run
    if start.at >= piece.runs[start.run].path.length - 1e-6:
        index = piece.after(index)
    while index != stop.run:
        found.add(index)
        index = piece.after(index)
    return found


def _below(piece: Piece, start: Place, stop: Place, drawn: Path, shape: str) -> tuple[Piece, Piece]:
    """The part under the edge, whose new edge is its neckline, and what is cut away."""
    new = "*top"
    under, over = across(piece, start, stop, drawn, new, "neckline", (piece.name, "cut away"))
    if "side_seam" not in dict(under.roles):
        under, over = over, under
    if "side_seam" not in dict(under.roles):
        raise PlaceError("nothing is left under the edge", where=piece.name, advice="Cut it higher.")
    line = f"{piece.name}.{'sweetheart' if shape == 'sweetheart' else 'top'}"

    def named(run: Run) -> Run:
        return replace(run, edge=TOP, source=replace(run.source, edge=line, is_pointed=shape == "sweetheart"))

    runs = tuple(named(run) if run.edge == new else run for run in under.runs)
    roles = tuple((TOP if edge == new else edge, role) for edge, role in under.roles)
    return replace(under, name=piece.name, runs=runs, roles=roles, grain=under.grain or piece.grain), over


STEP = Strapless
