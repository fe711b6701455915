"""line.princess: a half cut into two panels along a line through its pivots; the darts go into the seam."""

import itertools
import math
from collections.abc import Callable, Sequence
from typing import Annotated, ClassVar, Literal, Self

import numpy as np
from pydantic import Field, model_validator

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.moves.bend import bent
from zesty_pivot.core.moves.give_back import along_the_chest, down_the_side, given_back, widened
from zesty_pivot.core.moves.grain import grain_of_part, square_grain
from zesty_pivot.core.moves.panel_shape import Shaped, Wanted, counted, level_gap, shaped
from zesty_pivot.core.moves.panels import Panels, Through, cut_panels, drawn
from zesty_pivot.core.piece import EdgeRef, FishEye, Pattern, Piece, Place, StyleLine, Use, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import UPPER, words
from zesty_pivot.core.piece.refs import sewn
from zesty_pivot.core.piece.spot import Spot, below, resolve
from zesty_pivot.core.procedures.base import Context, Note, Outcome
from zesty_pivot.core.procedures.hand import Line, Way
from zesty_pivot.core.procedures.hand_panels import NOTHING, panels_by_hand
from zesty_pivot.core.procedures.intakes import CLEAR, INTAKES, LEVELS, PanelIntakes
from zesty_pivot.core.procedures.into_panels import free_line, free_name, with_panels
from zesty_pivot.core.procedures.legs import made_equal
from zesty_pivot.core.procedures.line_top import line_top
from zesty_pivot.core.procedures.panel_notes import panel_notes
from zesty_pivot.core.quantity import Scope, format_length, length_mm
from zesty_pivot.core.quantity.fields import Length, NamesDart
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.steps.base import Step

# A princess line passes the bust point by at most this (mm). Common practice, no source.
MOST_PAST = 25.0

# A side panel is eased over the bust by at most this (mm). Common practice, no source.
MOST_EASE = 6.0

WORTH_GIVING = 0.5  # mm; less comes of drawing the upper edge across both panels
WORTH_TELLING = 1.0  # mm of width given back

# A princess line falls at least so much (mm) from its beginning to its point, and from there to its end. Our own choice.
_STEEP = 10.0


@record
class _Made:
    """A line worked out: what it was shaped to, its pivots, both panels as they leave the step, its record and its notes."""

    shaped: Shaped
    pins: tuple[str, ...]
    centre: Piece
    side: Piece
    line: StyleLine
    notes: tuple[Note, ...]


_KEPT: Kept[_Made] = Kept()


class Princess(Step):
    """Cuts the piece from an edge above, through (or past) its pivots, to an edge below; shapes and notches both panels."""

    title: ClassVar[str] = "Princess line"
    summary: ClassVar[str] = "Turn darts into a seam through or near the bust point: two panels that sew together."
    half_by_half: ClassVar[bool] = True

    do: Literal["line.princess"] = "line.princess"
    from_: Spot = Field(default=Spot(station="mid_shoulder"), alias="from", description="where the line begins, above")
    to: Spot | None = Field(default=None, description="where it ends; the waist or hem under its point when not given")
    past: Length = Field(default=0, description="how far it passes the point towards the side; negative towards the centre")
    bow_above: Length = Field(default=0, description="how far the upper part stands off at its middle, towards the side")
    bow_below: Length = Field(default=0, description="how far the lower part stands off at its middle, towards the side")
    darts: Annotated[tuple[str, ...] | None, NamesDart()] = Field(
        default=None, max_length=12, description="the darts it takes in; all round its points when not given"
    )
    rest: Literal["bend", "dart"] = Field(default="bend", description="darts bent to the line, or a small one left beside it")
    mend: Literal["top", "bottom"] = Field(default="top", description="the end where both panels' lines are made equally long")
    school: Literal["darts", "hollow", "fitted", "close"] = Field(default="darts", description="least intakes to begin with")
    top: Length | None = Field(default=None, description="intake at the upper end; as the darts give when not given")
    chest: Length | None = Field(default=None, description="intake at the chest line")
    under_bust: Length | None = Field(default=None, description="intake at the under-bust line")
    waist: Length | None = Field(default=None, description="intake at the waist")
    hip: Length | None = Field(default=None, description="intake at the hip line")
    centre_top: Length | None = Field(default=None, description="of it off the centre panel; none at a shoulder, else half")
    centre_chest: Length | None = Field(default=None, description="of it off the centre panel; half when not given")
    centre_under_bust: Length | None = Field(default=None, description="of it off the centre panel; half when not given")
    centre_waist: Length | None = Field(default=None, description="of it off the centre panel; half when not given")
    centre_hip: Length | None = Field(default=None, description="of it off the centre panel; half when not given")
    smooth: Length = Field(default="6 cm", description="how far the corner at the point is rounded to either side")
    ease: Length = Field(default="3 mm", description="how much longer the side panel is, eased in between the notches")
    give_back: Literal["outside", "underarm", "none"] = Field(
        default="outside", description="where the width that is taken at the top is given back"
    )

    @model_validator(mode="after")
    def _once(self) -> Self:
        if self.darts is not None and len(set(self.darts)) < len(self.darts):
            raise ValueError("a dart is named twice")
        return self

    @property
    def _mended(self) -> str:
        return "upper" if self.mend == "top" else "lower"

    def words(self) -> str:
        """`princess line from mid shoulder`."""
        past = "" if str(self.past) in ("0", "0.0") else f", {self.past} past the point"
        return f"princess line from {self.from_.words()}{past}"

    # Where it runs.

    def _throughs(self, piece: Piece, top_role: str, context: Context) -> list[Through]:
        """The pivots on its way from above, with their darts. Raises StepError when there is none."""
        past = length_mm(self.past, context.scope)
        if abs(past) > MOST_PAST + 1e-9:
            most = format_length(MOST_PAST, context.scope.unit)
            raise StepError(
                f"a line {format_length(abs(past), context.scope.unit)} off the point is no princess line",
                where=self.on, advice=f"Go past it by at most {most}, or cut a style line instead.",
            )  # fmt: skip
        if "bust_point" in piece.landmarks:
            pivots = ["bust_point"]
        else:
            held = {dart.pivot for dart in piece.darts if dart.use is Use.DART}
            held |= {name for name in ("waist_tip",) if name in piece.landmarks and piece.is_hip_length}
            lower = [name for name in held if self._is_lower(piece, name)]
            upper = [name for name in held if name not in lower] if top_role in ("shoulder", "neckline") else []
            pivots = sorted({*upper, *lower}, key=lambda name: float(piece.pivot(name)[1]))
        if not pivots:
            raise StepError("there is no point for the line to go through", where=self.on, advice="Cut a style line instead.")
        eyes = {eye.id for eye in piece.fisheyes}
        for dart in self.darts or ():
            if dart not in eyes and piece.dart(dart).pivot not in pivots:
                what = (
                    f"the {dart_words(piece, dart)} dart leads to the {words(piece.dart(dart).pivot)}, which is not on the line"
                )
                raise StepError(what, where=self.on, advice="Leave it out, or begin the line where it passes that point.")
        found = []
        for pivot in pivots:
            mine = [dart.id for dart in piece.darts if dart.pivot == pivot]
            taken = [id for id in mine if piece.dart(id).use is Use.DART and (self.darts is None or id in self.darts)]
            left = [id for id in mine if id not in taken]
            offset = past if pivot == pivots[-1] or len(pivots) == 1 else 0.0
            if left and offset == 0.0:
                raise StepError(
                    f"the {dart_words(piece, left[0])} dart would reach the seam at the {words(pivot)}",
                    where=self.on, advice="Take it into the line, or take the line past the point.",
                )  # fmt: skip
            found.append(Through(pivot, offset, tuple(taken)))
        return found

    @staticmethod
    def _is_lower(piece: Piece, pivot: str) -> bool:
        """Whether a pivot without a bust point is the waist's: its darts open below, or it is the waist's tip."""
        edges = [piece.role(piece.dart_edge(dart.id)) for dart in piece.darts if dart.pivot == pivot]
        return pivot == "waist_tip" or any(role not in UPPER for role in edges)

    def _top(self, piece: Piece, context: Context, pivot: str) -> Place:
        place = line_top(self.from_, piece, context.block.drafted(piece), context.scope, pivot)
        role = piece.role(piece.runs[place.run].edge)
        if role == "centre":
            raise StepError(
                "the line begins on the centre", where=self.on, advice="Begin on the shoulder, armhole or neckline."
            )
        return place

    def _drawing(self, throughs: list[Through], context: Context) -> Callable[[Piece], tuple[Place, Place, tuple[Path, ...]]]:
        """What draws the line on the piece while its darts wait elsewhere."""
        bows = length_mm(self.bow_above, context.scope), length_mm(self.bow_below, context.scope)

        def draw(piece: Piece) -> tuple[Place, Place, tuple[Path, ...]]:
            last = throughs[-1].pivot
            top = self._top(piece, context, throughs[0].pivot)
            block = context.block.drafted(piece)
            bottom = below(piece, block, last) if self.to is None else resolve(self.to, piece, block, context.scope, last)
            points = [places.point(piece, top)]
            for through in throughs:
                points.append(piece.pivot(through.pin) + np.array([through.offset, 0.0]))
            points.append(places.point(piece, bottom))
            heights = [float(point[1]) for point in points]
            if any(below - above < _STEEP for above, below in itertools.pairwise(heights)):
                what = "the line does not run from above its point to below it"
                raise StepError(what, where=self.on, advice="Begin it higher, or end it lower.")
            return top, bottom, drawn(points, bows)

        return draw

    # What it takes.

    def _wanted(self, piece: Piece, cut: Panels, top_role: str, opens: set[str], context: Context) -> Wanted:
        """What is asked for; `opens` are the roles of the edges that its darts open in."""
        scope = context.scope
        own = {name: getattr(self, name) for name in ("top", *LEVELS)}
        school = INTAKES[self.school].of(piece.body)
        asked = PanelIntakes(
            {name: length_mm(text, scope) for name, text in own.items() if text is not None},
            {name: mm for name, mm in school.items() if not (name == "top" and top_role != "shoulder")},
            tuple(self._eyes(piece)),
            self._off_centre(scope),
        )
        ease = length_mm(self.ease, scope)
        if not 0.0 <= ease <= MOST_EASE + 1e-9:
            most = format_length(MOST_EASE, "mm")
            raise StepError(
                f"{format_length(ease, 'mm')} of ease over the bust",
                where=self.on,
                advice=f"Enter 0 to {most}; no cloth takes more.",
            )
        smooth = length_mm(self.smooth, scope)
        if smooth < 0.0:
            raise StepError("the rounding at the point must be 0 or more", where=self.on, advice="Enter 0 or more.")
        return replace(
            asked.wanted(piece, cut, context.block.drafted(piece)),
            smooth=smooth,
            ease=ease,
            mended_at_top=self.mend == "top",
            outwards=frozenset({"top"} if top_role == "shoulder" else ()),
            swung=frozenset(() if top_role in opens else ("top", "chest")),
        )

    def _off_centre(self, scope: Scope) -> dict[str, float]:
        """How much (mm) of each intake comes off the centre panel, where that is said. Raises StepError for more than all."""
        found: dict[str, float] = {}
        for name in ("top", *LEVELS):
            given, whole = getattr(self, f"centre_{name}"), getattr(self, name)
            if given is None:
                continue
            found[name] = length_mm(given, scope)
            most = math.inf if whole is None else length_mm(whole, scope)
            if not -1e-9 <= found[name] <= most + 1e-9:
                off, of = (format_length(mm, scope.unit) for mm in (found[name], most))
                what = f"{off} of an intake{'' if whole is None else f' of {of}'} off the centre panel"
                raise StepError(what, where=self.on, advice=f"Enter 0 to {'all of it' if whole is None else of}.")
        return found

    def _eyes(self, piece: Piece) -> list[FishEye]:
        """The fish-eye darts that the line takes in: those under its last point."""
        return [eye for eye in piece.fisheyes if self.darts is None or eye.id in self.darts]

    def _made(self, pattern: Pattern, context: Context) -> _Made:
        """What comes of the piece. It hangs on the piece alone, so while another piece is worked on it is at hand."""
        piece = pattern.piece(self.on)
        names = (free_name(pattern, f"{self.on}_centre"), free_name(pattern, f"{self.on}_side"))
        key = (self, names, *context.scope.key())
        return _KEPT.get((piece, context.block), key, lambda: self._worked(piece, names, context))

    def _worked(self, piece: Piece, names: tuple[str, str], context: Context) -> _Made:
        if piece.is_unfolded:
            raise StepError("the piece is unfolded", where=self.on, advice="Cut the line before it is unfolded.")
        main = "bust_point" if "bust_point" in piece.landmarks else next(iter(piece.landmarks), "")
        top = self._top(piece, context, main)
        top_role = piece.role(piece.runs[top.run].edge)
        throughs = self._throughs(piece, top_role, context)
        edge = free_line(piece, "princess")
        drafted = context.block.drafted(piece)
        eyes = {eye.id for eye in self._eyes(piece)}
        clear = replace(piece, fisheyes=tuple(eye for eye in piece.fisheyes if eye.id not in eyes), of=piece.of or piece.name)
        clear, told = made_equal(clear, (dart for through in throughs for dart in through.darts), context.scope.unit)
        clear, throughs, were = self._bent(clear, throughs)
        cut = cut_panels(clear, drafted, throughs, self._drawing(throughs, context), edge, names, edge)
        darts = [dart for through in throughs for dart in through.darts]
        opens = {clear.role(clear.dart_edge(dart)) for dart in darts}
        made = counted(shaped(cut, self._wanted(piece, cut, top_role, opens, context)), cut, drafted.levels, CLEAR)
        centre, side = (_unmarked(panel, throughs) for panel in (made.panels.centre, made.panels.side))
        notes = [*told, *panel_notes(self.on, made, darts, self._mended, context.scope.unit)]
        bends = {pivot: angle - were[pivot] for pivot, angle in made.panels.angles if pivot in were}
        side = replace(side, added=(*side.added, *bends.items()))
        notes += [self._bend_note(pivot, more, context) for pivot, more in bends.items()]
        bust = down_the_side(piece, drafted.levels["bust"]) if "bust" in drafted.levels else None
        side, given = self._given_back(side, (piece, cut, made), top_role, bust, context, notes)
        below = self._bottom_edge(piece)
        side = replace(side, grain=square_grain(side, below) or side.grain)
        centre = replace(centre, grain=grain_of_part(centre, piece, below))
        amounts = dict(made.taken)
        if abs(amounts.get("top", 0.0)) > NOTHING:
            amounts["top"] = made.shorter["top"]  # what the edge above lost counts, not the mouth
        for name, mm in widened(made.panels.side, side, drafted.levels).items():
            amounts[name] = amounts.get(name, 0.0) - mm
        taken = tuple((name, mm) for name, mm in amounts.items() if abs(mm) > 1e-9)
        style = StyleLine(edge, piece.of or piece.name, (centre.name, side.name), made.panels.angles, taken, given)
        return _Made(made, tuple(through.pivot for through in throughs), centre, side, style, tuple(notes))

    def apply(self, pattern: Pattern, context: Context) -> Outcome:
        """The pattern with the two panels. Raises StepError, PlaceError or GeometryError when it cannot be."""
        made = self._made(pattern, context)
        one, two = (EdgeRef(panel.name, made.line.id) for panel in (made.centre, made.side))
        seam = sewn(one, two, length_mm(self.ease, context.scope))
        after = with_panels(pattern, self.on, (made.centre, made.side), (seam,))
        return Outcome(replace(after, lines=(*after.lines, made.line)), made.notes)

    def _bent(self, piece: Piece, throughs: list[Through]) -> tuple[Piece, list[Through], dict[str, float]]:
        """The piece with the darts that the line passes led to it, where they are to be bent, and their angles (radians) at
        their pivots until then."""
        found: list[Through] = []
        were: dict[str, float] = {}
        for through in throughs:
            if self.rest == "bend" and through.offset and through.darts:
                mark = f"*{through.pivot}"
                were[through.pivot] = sum(piece.angle(dart) for dart in through.darts)
                piece = bent(piece, through.darts, mark, piece.pivot(through.pivot) + np.array([through.offset, 0.0]))
                through = replace(through, offset=0.0, bent_to=mark)
            found.append(through)
        return piece, found, were

    def _bend_note(self, pivot: str, more: float, context: Context) -> Note:
        past = length_mm(self.past, context.scope)
        text = format_length(abs(past), context.scope.unit, fine=True)
        text += f" {'outside' if past > 0.0 else 'inside'} the {words(pivot)}: {math.degrees(more):+.1f}°"
        return Note(f"darts bent to the line, {text}", self.on, abs(past))

    @staticmethod
    def _bottom_edge(piece: Piece) -> str:
        return next((edge for edge, role in piece.roles if role in ("waist", "hem")), "")

    def _given_back(
        self, side: Piece, since: tuple[Piece, Panels, Shaped], top_role: str, keeps: float | None,
        context: Context, notes: list[Note],
    ) -> tuple[Piece, float]:  # fmt: skip
        """The side panel with the width that its top lost given back, where asked and possible; `keeps` mm down the side seam
        nothing is wider. Where a dart in the side was shut, the underarm has swung about its point with all above it."""
        piece, cut, made = since
        lost, unit = made.shorter["top"], context.scope.unit
        is_mended = top_role == "armhole" and abs(made.taken.get("top", 0.0)) <= NOTHING  # no width was taken there

        def taken(y: float, since: Panels) -> float:
            before, now = level_gap(since, y), level_gap(made.panels, y)
            return 0.0 if before is None or now is None else now - before

        beside = None
        if self.give_back == "underarm" and top_role in ("shoulder", "armhole"):
            beside = max(taken(float(piece.corner("underarm")[1]), cut), 0.0)  # since the cut: the block's girth is kept
        if max(abs(lost), beside or 0.0) < WORTH_GIVING or self.give_back == "none" or is_mended:
            return side, 0.0
        if top_role not in ("shoulder", "armhole"):
            change = f"{format_length(abs(lost), unit)} {'shorter' if lost > 0.0 else 'longer'}"
            is_strapless = "shoulder" not in {role for panel in (made.panels.centre, side) for _edge, role in panel.roles}
            text = f"the {'top edge' if is_strapless else words(top_role)} of this half is {change}"
            notes.append(Note(text if is_strapless else f"{text}; widen it if that is not intended", side.name, abs(lost)))
            return side, 0.0

        out = None if beside is None else beside * along_the_chest(piece, side)
        only_rounded = shaped(cut, Wanted(smooth=length_mm(self.smooth, context.scope))).panels
        found, longer = given_back(side, lost, lambda y: taken(y, only_rounded), underarm=out, keeps=keeps)
        where = "shoulder tip" if top_role == "shoulder" else "underarm"
        amounts = [(lost, where), *([(beside, "underarm")] if beside is not None and where != "underarm" else [])]
        moved = [
            f"{format_length(abs(mm), unit, fine=True)} {'given back' if mm > 0.0 else 'taken off'} at the {place}"
            for mm, place in amounts if abs(mm) > WORTH_TELLING
        ]  # fmt: skip
        if moved:
            change = f"{format_length(abs(longer), unit, fine=True)} {'longer' if longer >= 0.0 else 'shorter'}"
            told_mm = max(abs(mm) for mm, _place in amounts)
            notes.append(Note(f"{' and '.join(moved)}; the armhole is {change}", side.name, told_mm))
        return found, lost

    def intakes(self, pattern: Pattern, context: Context) -> dict[str, tuple[float, float]]:
        """What the darts give (mm) at each level and end, and what it is once shaped; for tables. Raises as `apply` does."""
        made = self._made(pattern, context).shaped
        drafted = context.block.drafted(pattern.piece(self.on))
        found = {name: (mm, mm + made.taken.get(name, 0.0)) for name, mm in made.natural.items()}
        probe = {name: drafted.levels[name] for name in LEVELS if name in drafted.levels and name not in found}
        for name, y in probe.items():
            gap = level_gap(made.panels, y)
            if gap is not None:
                found[name] = (gap, gap)
        return found

    def by_hand(self, pattern: Pattern, context: Context, way: Way) -> tuple[Line, ...]:
        """Draw, notch, cut, shape; the same in both ways."""
        made = self._made(pattern, context)
        smooth = length_mm(self.smooth, context.scope)
        end = f"the {words(made.shaped.panels.bottom_role)}" if self.to is None else self.to.words()
        return panels_by_hand(
            self.on, self.from_.words(), end, made.pins, made.shaped, smooth, self._mended, context.scope.unit
        )


def _unmarked(panel: Piece, throughs: Sequence[Through]) -> Piece:
    """A panel without the marks that darts were bent to."""
    marks = {through.bent_to for through in throughs}
    return replace(panel, landmarks={name: at for name, at in panel.landmarks.items() if name not in marks})


STEP = Princess
