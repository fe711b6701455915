"""Two panels shaped along the seam between them: intake by level, a smooth bust, one length, notches."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import field
from typing import Literal

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import JOIN_TOL, Path
from zesty_pivot.core.moves.between_levels import Aim, Knots, Slopes, course, held
from zesty_pivot.core.moves.panel_ends import NARROW, extended, led_to, opening
from zesty_pivot.core.moves.panel_line import PanelLine, panel_line
from zesty_pivot.core.moves.panels import Panels
from zesty_pivot.core.moves.shaping import Knot, displaced, rounding_at
from zesty_pivot.core.piece import Notch, Origin, Piece, Run, Source
from zesty_pivot.core.piece.heights import crossings, girth_level
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record, replace

# Panels that differ by more than this (mm) are no panels of one line. Common practice, no source.
MOST_APART = 20.0

NOTCH_APART = 50.0  # mm above and below the bust. Common practice, no source.
_NOTCH_CLEAR = 15.0  # mm that a notch keeps from the line's ends

_LEAST = 0.05  # mm; less is not worth counting
_SECANTS = 30
_BACK_OFF = 1e-9  # mm
_ROUNDS = 6
_FLAT = 0.2  # mm of mouth for each mm of the aim, below which a secant leads nowhere
_MOUTH_OFF = 0.02  # mm that the lower mouth may be off: a fifth of what can be seen on paper


@record
class Wanted:
    """What is asked for. `top` and `bottom` are mouths (mm) at the line's ends, `levels` intakes (mm) at heights (name, y,
    mm), each None or left out where the darts decide; those named in `at_least` are never made less than the darts give.
    `more` is taken at heights beyond what the darts give, whatever that is; at `still` heights nothing more is taken.
    What goes beyond the darts comes off both panels alike, but for those named in `outwards` (all off the side panel, unless
    it is let out) and in `off_centre`: so much (mm) of the whole intake comes off the centre panel, counted from the middle of
    what the darts give. What is named in `swung` the darts give from elsewhere, shut, by swinging the side panel: there the
    centre panel's edge is the line as it was drawn, both are counted from it, and letting out is all the side panel's too.
    `smooth` is how far (mm) a corner is rounded to either side, `ease` how much longer (mm) the side panel is,
    `mended_at_top` the end where its line is made so, `notch_y` the height of the middle notch, `strokes` those of each
    notch."""

    top: float | None = None
    bottom: float | None = None
    levels: tuple[tuple[str, float, float], ...] = ()
    at_least: frozenset[str] = frozenset()
    more: tuple[tuple[str, float, float], ...] = ()
    still: tuple[float, ...] = ()
    off_centre: Mapping[str, float] = field(default_factory=dict)
    outwards: frozenset[str] = frozenset()
    swung: frozenset[str] = frozenset()
    smooth: float = 60.0
    ease: float = 0.0
    mended_at_top: bool = True
    notch_y: float | None = None
    strokes: int = 1

    def off_centre_mm(self, name: str, natural: float, taken: float) -> float:
        """How much (mm) of what is taken beyond the darts comes off the centre panel."""
        if name in self.off_centre:
            return self.off_centre[name] - (0.0 if name in self.swung else natural / 2.0)
        return 0.0 if self.is_side_only(name, taken) else taken / 2.0

    @property
    def most_apart(self) -> float:
        """By how much (mm) the panels' lines may differ before they are mended. Beside an edge that runs nearly along the line,
        such as an armhole, their ends differ by as much as is taken in, and more. Our own choice."""
        return max(MOST_APART, 1.5 * ((self.top if self.mended_at_top else self.bottom) or 0.0))

    def is_side_only(self, name: str, taken: float) -> bool:
        """Whether all of it comes off the side panel, or is let out there."""
        return name in self.outwards and (taken > 0.0 or name in self.swung)


@record
class Shaped:
    """The panels, with what they had and were given: `natural` are intakes (mm) that the darts give, `taken` what goes beyond
    them, both by `top`, `bottom` and level, and `off_centre` the part of it that came off the centre panel; `extended` is how
    much (mm) the centre's and the side's line were lengthened where they are mended, `shorter` how much (mm) the edges at the
    line's `top` and `bottom` lost."""

    panels: Panels
    natural: dict[str, float] = field(default_factory=dict)
    taken: dict[str, float] = field(default_factory=dict)
    off_centre: dict[str, float] = field(default_factory=dict)
    extended: tuple[float, float] = (0.0, 0.0)
    shorter: dict[str, float] = field(default_factory=dict)


def shaped(panels: Panels, wanted: Wanted) -> Shaped:
    """The panels with their line shaped.

    An intake is the distance between the panels as they lie, straight across at a level, or from end to end at the top and
    the bottom. What is taken beyond the darts follows a smooth curve along each line that is nothing at the pivots. The upper
    (or lower) ends are then drawn longer or shorter until the side panel's line is as long as the centre's, and `ease` longer;
    the edges there follow. That moves the ends a little sideways, so the mouth there is approached in a few rounds.

    Raises GeometryError when an intake does not fit.
    """
    sides = (panel_line(panels, of_side=False), panel_line(panels, of_side=True))
    name, given = ("top", wanted.top) if wanted.mended_at_top else ("bottom", wanted.bottom)
    drawn = _drawn(sides, wanted, given)
    if given is not None and not (name in wanted.at_least and given <= drawn.natural[name]):
        aim = asked = given
        last: tuple[float, float] | None = None
        for _ in range(_ROUNDS):
            off = asked - drawn.mouth(asked, at_top=wanted.mended_at_top)
            if abs(off) <= _MOUTH_OFF:
                break
            steep = (last[1] - off) / (aim - last[0]) if last is not None and aim != last[0] else 1.0
            last = aim, off
            aim += off / steep if steep > _FLAT else off  # a secant: beside an armhole the ends move twice as far as asked
            drawn = _drawn(sides, wanted, aim, drawn)
        drawn.taken[name] = asked - drawn.natural[name]
    apart_by = drawn.extended[1] - drawn.extended[0]
    if abs(apart_by) > wanted.most_apart:
        apart = format_length(abs(apart_by), "cm", fine=True)
        raise GeometryError(
            f"the panels would differ by {apart}", where=panels.side.name, advice="Take in less, or bow it less."
        )
    one, two = (
        _rebuilt(side, panels.edge, line, {at_top: back[side.is_side] for at_top, back in drawn.back.items()})
        for side, line in zip(sides, drawn.lines, strict=True)
    )
    made = _notched(replace(panels, centre=one, side=two), wanted)
    shorter = {
        end: sum(side.ending(at_top) - sum(run.path.length for run in panel.runs if run.edge == side.edge(at_top))
                 for side, panel in zip(sides, (one, two), strict=True))
        for end, at_top in (("top", True), ("bottom", False))
    }  # fmt: skip
    of_centre = {name: wanted.off_centre_mm(name, drawn.natural[name], mm) for name, mm in drawn.taken.items()}
    return Shaped(made, drawn.natural, drawn.taken, of_centre, drawn.extended, shorter)


@record
class _Drawn:
    """Both panels' lines drawn, from the top; how far their ends were drawn back (mm) at the top (True) and the bottom."""

    lines: tuple[list[Path], list[Path]]
    natural: dict[str, float]
    taken: dict[str, float]
    extended: tuple[float, float]
    back: dict[bool, tuple[float, float]]

    def mouth(self, asked: float, *, at_top: bool) -> float:
        """How far (mm) the ends are apart, where `asked` is wanted; next to nothing at the height of the inner one."""
        lasts = [line[0].reversed() if at_top else line[-1] for line in self.lines]
        heights = [float(last.end[1]) for last in lasts]
        y = max(heights) + JOIN_TOL if at_top else min(heights) - JOIN_TOL
        across = [crossings((last,), y) for last in lasts] if asked < NARROW else []
        return across[1][0][1] - across[0][0][1] if across and all(across) else opening(lasts[0].end, lasts[1].end, asked)


def _drawn(sides: tuple[PanelLine, PanelLine], wanted: Wanted, mouth: float | None, before: _Drawn | None = None) -> _Drawn:
    """The panels' lines, the ends that are mended first drawn back to a mouth of `mouth` mm. What was drawn `before` to another
    mouth stays beyond the point next to them."""
    natural: dict[str, float] = {}
    taken: dict[str, float] = {}
    knots: tuple[list[Knot], list[Knot]] = ([], [])
    for side, mine in zip(sides, knots, strict=True):
        mine += [(pin, np.zeros(2)) for pin in side.starts[1:-1]]
        for y in wanted.still:
            s = side.level("fish-eye's", y)[0]
            if all(abs(s - known) > 1.0 for known in side.starts):
                mine.append((s, np.zeros(2)))
    back: dict[bool, tuple[float, float]] = {}
    for at_top in (True, False):
        given = mouth if at_top == wanted.mended_at_top else wanted.top if at_top else wanted.bottom
        name = "top" if at_top else "bottom"
        natural[name] = math.dist(*(side.end(at_top, 0.0) for side in sides))
        asked = max(given, natural[name]) if given is not None and name in wanted.at_least else given
        taken[name] = 0.0 if asked is None else asked - natural[name]
        is_even = name not in wanted.off_centre and not wanted.is_side_only(name, taken[name])
        of_centre = None if is_even else wanted.off_centre_mm(name, natural[name], taken[name])
        back[at_top] = (0.0, 0.0) if asked is None else _drawn_back(sides, at_top, asked, of_centre)
        for side, mine, by in zip(sides, knots, back[at_top], strict=True):
            s = 0.0 if at_top else side.starts[-1]
            mine.append((s, side.end(at_top, by) - side.end(at_top, 0.0)))
    for name, y, amount in (*wanted.levels, *wanted.more):
        places = [side.level(name, y) for side in sides]
        natural[name] = places[1][1] - places[0][1]
        if (name, y, amount) in wanted.more:
            amount += natural[name]
        taken[name] = (max(amount, natural[name]) if name in wanted.at_least else amount) - natural[name]
        of_centre = wanted.off_centre_mm(name, natural[name], taken[name])
        for side, mine, (s, _x), by in zip(sides, knots, places, (of_centre, taken[name] - of_centre), strict=True):
            # Where the corner's rounding reaches so far, the amount is counted with it.
            aside = np.array([side.way * by, 0.0]) - rounding_at(side.stretches, wanted.smooth, s)
            mine.append((s, aside))
    only: Literal[0, -1] | None = None if before is None or len(sides[0].stretches) < 2 else 0 if wanted.mended_at_top else -1

    def draw(to: Knots, slopes: tuple[Slopes, Slopes] = ({}, {})) -> tuple[list[Path], list[Path]]:
        one, two = (
            list(displaced(side.stretches, mine, wanted.smooth, only=only, slopes=given))
            for side, mine, given in zip(sides, to, slopes, strict=True)
        )
        if before is None or only is None:
            return one, two
        for lines, drawn in zip((one, two), before.lines, strict=True):
            lines[:] = [*lines, *drawn[1:]] if only == 0 else [*drawn[:-1], *lines]
        return one, two

    pivots = [float(path.end[1]) for path in sides[0].stretches[:-1]]
    aims = _aims(sides, back, natural, taken, wanted)
    if only is not None:  # what is drawn already is not asked for again
        aims = [aim for aim in aims if (aim.y < pivots[0] if only == 0 else aim.y > pivots[-1])]
    even = course(aims, pivots)
    one, two = draw(knots) if even is None else held((sides[0].stretches, sides[1].stretches), knots, even, draw)
    lines, each = _met((one, two), sides, back, wanted)
    return _Drawn(lines, natural, taken, each, back)


def _met(
    lines: tuple[list[Path], list[Path]],
    sides: tuple[PanelLine, PanelLine],
    back: Mapping[bool, tuple[float, float]],
    wanted: Wanted,
) -> tuple[tuple[list[Path], list[Path]], tuple[float, float]]:
    """Both lines made equally long where they are mended, the side's `ease` longer, and how much (mm) each was lengthened:
    shared as the edges there are long: both then turn alike, and no corner comes between them."""
    one, two = (list(line) for line in lines)
    longer = sum(path.length for path in one) + wanted.ease - sum(path.length for path in two)
    at, at_top = (0, True) if wanted.mended_at_top else (-1, False)
    rooms = [side.room(at_top) - by for side, by in zip(sides, back[at_top], strict=True)]
    share = min(max(rooms[0] / sum(rooms), 0.0), 1.0)
    each = -longer * share, longer * (1.0 - share)
    if abs(longer) <= wanted.most_apart:
        one[at], two[at] = (extended(line[at], by, at_start=at_top) for line, by in zip((one, two), each, strict=True))
    return (one, two), each


def _aims(
    sides: tuple[PanelLine, PanelLine],
    back: Mapping[bool, tuple[float, float]],
    natural: Mapping[str, float],
    taken: Mapping[str, float],
    wanted: Wanted,
) -> list[Aim]:
    """The intakes that are asked for, by height; those that the darts gave already too."""
    found = [
        Aim(
            y,
            natural[name] + taken[name],
            abs(taken[name]) > _LEAST,
            wanted.off_centre_mm(name, natural[name], taken[name]) - taken[name] / 2.0,
        )
        for name, y, _mm in wanted.levels
    ]
    for at_top, given in ((True, wanted.top), (False, wanted.bottom)):
        if given is not None:
            name = "top" if at_top else "bottom"
            y, apart = _straight_across(sides, at_top, back[at_top])
            if not at_top:  # where it is measured along the waist: the same but for a few tenths
                apart = natural[name] + taken[name]
            found.append(Aim(y, apart, abs(taken[name]) > _LEAST, (back[at_top][0] - back[at_top][1]) / 2.0))
    return found


def _straight_across(sides: tuple[PanelLine, PanelLine], at_top: bool, back: tuple[float, float]) -> tuple[float, float]:
    """The height (y, mm) midway between two ends of the line, drawn back, and how far the lines are apart straight across
    there: ends that stand aslant are further apart than that."""
    ends = [side.end(at_top, by) for side, by in zip(sides, back, strict=True)]
    y = float(ends[0][1] + ends[1][1]) / 2.0
    ways = [side.stretches[0].start_direction if at_top else side.stretches[-1].end_direction for side in sides]
    leans = float(np.mean([way[0] / way[1] for way in ways]))  # both lean nearly alike once they are shaped
    return y, float(ends[1][0] - ends[0][0]) - float(ends[1][1] - ends[0][1]) * leans


def counted(made: Shaped, cut: Panels, levels: Mapping[str, float], clear: float) -> Shaped:
    """The panels with what was taken at the levels where girths are measured, the corner's rounding too; within `clear` mm of
    the line's own points it is nothing. `cut` are the panels before they were shaped."""
    taken = dict(made.taken)
    points = [float(path.end[1]) for path in cut.stretches(False)]
    for name in ("bust", "waist", "hip"):
        y = girth_level(levels, name)
        if y is None or name in taken or any(abs(y - point) < clear for point in points):
            continue
        before, now = level_gap(cut, y), level_gap(made.panels, y)
        if before is not None and now is not None and abs(now - before) > _LEAST:
            taken[name] = now - before
    return replace(made, taken=taken)


def level_gap(panels: Panels, y: float) -> float | None:
    """The distance (mm) between two panels' lines straight across at a height as they lie, None where one does not reach."""
    xs: list[float] = []
    for which in (False, True):
        hits = crossings(panels.stretches(which), y)
        if not hits:
            return None
        xs.append(hits[0][1])
    return xs[1] - xs[0]


def _drawn_back(sides: Sequence[PanelLine], at_top: bool, asked: float, of_centre: float | None) -> tuple[float, float]:
    """How far (mm) each panel's end is drawn back along its edge so that both stand so far apart: the centre's by `of_centre`,
    or both alike. Raises GeometryError when the edges are too short."""
    rooms = [side.room(at_top) for side in sides]
    room = min(rooms) if of_centre is None else min((rooms[1] + of_centre) / 2.0, rooms[0] if of_centre < rooms[0] else 0.0)
    low, high = -min(min(rooms), 100.0), min(room, 300.0)

    def each(by: float) -> tuple[float, float]:
        return (by, by) if of_centre is None else (of_centre, 2.0 * by - of_centre)

    def gap(by: float) -> float:
        one, two = (side.end(at_top, back) for side, back in zip(sides, each(by), strict=True))
        return opening(one, two, asked)

    # The gap grows nearly evenly: a few secants settle it.
    one, off = 0.0, gap(0.0) - asked
    two = min(max(-off / 2.0, low), high)
    for _ in range(_SECANTS):
        beyond = gap(two) - asked
        if abs(beyond) <= _BACK_OFF:
            return each(two)
        if beyond == off:
            break
        one, two, off = two, min(max(two - beyond * (two - one) / (beyond - off), low), high), beyond
    end, given, most = "top" if at_top else "lower end", gap(0.0), format_length(gap(high), "cm")
    if asked < given:
        what = f"the darts give {format_length(given, 'cm')} at the line's {end}, and cannot give {format_length(asked, 'cm')}"
        advice = "Enter what they give, or more; or take a part of a dart elsewhere first."
    else:
        what = f"an intake of {format_length(asked, 'cm')} does not fit at the line's {end}"
        advice = f"Ask for less than {most}."
    raise GeometryError(what, where=sides[0].piece.name, advice=advice)


def _rebuilt(side: PanelLine, edge: str, line: Sequence[Path], back: dict[bool, float]) -> Piece:
    """The panel with its shaped line, and the edges that it ends on drawn to it."""
    piece, runs = side.piece, list(side.piece.runs)
    gone: set[int] = set()
    for at_top, hosts in ((True, side.top), (False, side.bottom)):
        corner = line[0].start if at_top else line[-1].end
        outwards = side.is_side == at_top
        kept = led_to([runs[index] for index in hosts], back[at_top], corner, outwards=outwards)
        short = len(hosts) - len(kept)
        gone.update(hosts[:short])
        for index, run in zip(hosts[short:], kept, strict=True):
            runs[index] = run
    lengths = np.cumsum([0.0, *(path.length for path in line)])
    indices = [index for index, run in enumerate(piece.runs) if run.edge == edge]
    for number, path in enumerate(line):
        source = Source(
            runs[indices[0]].source.edge, float(lengths[number] / lengths[-1]), float(lengths[number + 1] / lengths[-1])
        )
        at = indices[len(line) - 1 - number] if side.is_side else indices[number]
        drawn = Run(edge, path.reversed(), source.turned()) if side.is_side else Run(edge, path, source)
        runs[at] = replace(drawn, mouth=runs[at].mouth)
    return replace(piece, runs=tuple(run for index, run in enumerate(runs) if index not in gone))


def _notched(panels: Panels, wanted: Wanted) -> Panels:
    """Notches at the bust and 5 cm above and below, at equal lengths from the ends of both panels; the ease lies between
    them."""
    one, two = (panel_line(panels, of_side=which) for which in (False, True))
    total, other = one.starts[-1], two.starts[-1]
    middle = one.starts[1] if len(one.starts) > 2 else total / 2.0
    if wanted.notch_y is not None:
        middle = one.level("bust", wanted.notch_y)[0]
    found: tuple[list[Notch], list[Notch]] = ([], [])
    for name, by, eased in (("above", -NOTCH_APART, 0.0), ("bust", 0.0, 0.5), ("below", NOTCH_APART, 1.0)):
        s = middle + by
        if not _NOTCH_CLEAR <= s <= total - _NOTCH_CLEAR:
            continue
        there = s + eased * (other - total)
        for mine, side, at, long in ((found[0], one, s, total), (found[1], two, there, other)):
            source = next(run.source for run in side.piece.runs if run.edge == panels.edge)
            origin = Origin(source.edge, at / long, source.is_mirrored)
            mine.append(Notch(f"{panels.edge}.{name}", name, origin, wanted.strokes))
    return replace(
        panels,
        centre=replace(panels.centre, notches=(*panels.centre.notches, *found[0])),
        side=replace(panels.side, notches=(*panels.side.notches, *found[1])),
    )
