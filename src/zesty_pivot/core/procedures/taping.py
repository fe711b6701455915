"""Two pieces taped along the seam between them."""

from __future__ import annotations

import shapely

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import Motion, Path
from zesty_pivot.core.moves import join
from zesty_pivot.core.moves.mirror import flip
from zesty_pivot.core.piece import EdgeRef, Origin, Pattern, Piece, SeamSide
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.side_seam import TAPED, one_side
from zesty_pivot.core.quantity import Unit, format_length
from zesty_pivot.core.record import record, replace


@record
class Taped:
    """The pattern with two pieces as one, and how long the seam was that is gone."""

    pattern: Pattern
    long_mm: float
    words: str


def seam_between(pattern: Pattern, on: str, other: str, edge: str | None = None, role: str | None = None) -> tuple[str, str]:
    """The edges of the seam between two pieces, of the first piece and of the other: the longest, or that of an edge or a role.
    Raises StepError when there is none."""
    if on == other:
        raise StepError("a piece cannot be joined to itself", where=on, advice="Name another piece.")
    mine = pattern.piece(on)
    pattern.piece(other)
    known: list[tuple[str, str]] = []
    for one, two in (seam.pair for seam in pattern.seams if seam.pair is not None):
        if (one.piece, two.piece) == (on, other):
            known.append((one.edge, two.edge))
        elif (two.piece, one.piece) == (on, other):
            known.append((two.edge, one.edge))
    found = [pair for pair in known if edge in (None, pair[0]) and role in (None, mine.role(pair[0]))]
    if found:
        return max(found, key=lambda pair: mine.edge(pair[0]).sewn_length)
    along = "one seam" if role is None else f"the {words(role)}"
    what = f"{words(on)} and {words(other)} are not sewn to each other along {along}"
    raise StepError(what, where=on, advice="Choose two pieces that share a whole seam.")


def taped(pattern: Pattern, on: str, other: str, edges: tuple[str, str], name: str, unit_: Unit, most: float = TAPED) -> Taped:
    """The pattern with the second piece taped to the first along their edges, called by a name. Lines that differ by up to
    `most` mm are made one. Raises StepError or GeometryError when they do not lie flat together."""
    whole = [each for each in (on, other) if pattern.piece(each).is_unfolded]
    if len(whole) == 1:
        what = f"the {words(whole[0])} is unfolded and the other is a half"
        raise StepError(what, where=on, advice="Join them before it is unfolded, or unfold both.")
    one, two = (one_side(pattern.piece(each), edge) for each, edge in zip((on, other), edges, strict=True))
    here, there = one.edge(edges[0]).runs[0], two.edge(edges[1]).runs[0]
    if one.role(edges[0]) != "style_line":  # drawn alike on both, so one is turned over
        two = flip(two, there.path.start, there.path.end - there.path.start)
        there = two.edge(edges[1]).runs[0]
    apart = _apart(here.path, there.path)
    if apart > most:
        gap = format_length(apart, unit_, fine=True)
        raise StepError(f"the two do not lie flat together: their lines are {gap} apart", where=on,
                        advice="A shaped seam has to stay a seam; join the pieces before it is shaped.")  # fmt: skip
    clash = {dart.id for dart in one.darts} & {dart.id for dart in two.darts}
    if clash:
        what = f"both pieces have a dart called {words(sorted(clash)[0])}"
        raise StepError(what, where=on, advice="Move one of them away before they are joined.")
    two, renamed = _own_names(fitted(two, edges[1], here.path), one, edges)
    made = join.pieces(one, two, edges, name)
    made = replace(made, notches=tuple(mark for mark in (*one.notches, *two.notches) if not _on(mark.at, edges, one, two)))
    return Taped(_without(pattern, made, (on, other), renamed), here.path.length, format_length(here.path.length, unit_))


def _apart(here: Path, there: Path) -> float:
    """How far two lines lie from each other when the second is laid end to end to the first, mm."""
    laid = there.moved(Motion.lay((there.end, there.start), (here.start, here.end)))
    return float(shapely.LineString(here.outline).hausdorff_distance(shapely.LineString(laid.outline)))


def fitted(piece: Piece, edge: str, like: Path) -> Piece:
    """The piece with its edge's end put where the other line ends: files keep six decimals, and pencil lines are wider."""
    index = next(k for k, run in enumerate(piece.runs) if run.edge == edge)
    run = piece.runs[index]
    motion = Motion.lay((like.start, like.end), (run.path.end, run.path.start))
    mine = like.moved(motion).reversed()
    after = piece.after(index)
    runs = list(piece.runs)
    runs[index] = replace(run, path=mine)
    before = (index - 1) % len(runs)
    for neighbour, at_start, point in ((before, False, mine.start), (after, True, mine.end)):
        cubics = runs[neighbour].path.cubics.copy()
        end, handle = ((0, 0), (0, 1)) if at_start else ((-1, 3), (-1, 2))
        cubics[handle] += point - cubics[end]  # the line beside leaves it as it did
        cubics[end] = point
        runs[neighbour] = replace(runs[neighbour], path=Path(cubics))
    return replace(piece, runs=tuple(runs))


def _own_names(two: Piece, one: Piece, edges: tuple[str, str]) -> tuple[Piece, dict[str, str]]:
    """The second piece with other names for edges that the first has too, and the new names by the old; those beside the joined
    edge run on across it and keep theirs."""
    index = next(k for k, run in enumerate(two.runs) if run.edge == edges[1])
    beside = {two.runs[index - 1].edge, two.runs[two.after(index)].edge}
    taken = {edge for edge, _role in one.roles}
    renamed = {
        edge: f"{edge}_{two.of or two.name}" for edge, _role in two.roles if edge in taken and edge not in {*beside, edges[1]}
    }
    runs = tuple(replace(run, edge=renamed.get(run.edge, run.edge)) for run in two.runs)
    return replace(two, runs=runs, roles=tuple((renamed.get(edge, edge), role) for edge, role in two.roles)), renamed


def _on(at: Origin, edges: tuple[str, str], one: Piece, two: Piece) -> bool:
    """Whether a notch's line is the seam that is gone."""
    gone = {run.source.line for piece, edge in ((one, edges[0]), (two, edges[1])) for run in piece.edge(edge).runs}
    return (at.line, at.is_mirrored) in gone


def _without(pattern: Pattern, made: Piece, parts: tuple[str, str], renamed: dict[str, str]) -> Pattern:
    """The pattern with the joined piece in the place of the first, seams led to it, the seam between the two left out."""
    kept, gone = parts

    def led(side: SeamSide) -> SeamSide:
        found = (EdgeRef(made.name, renamed.get(at.edge, at.edge)) if at.piece == gone else
                 EdgeRef(made.name, at.edge) if at.piece == kept else at for at in side.parts)  # fmt: skip
        return SeamSide(tuple(dict.fromkeys(found)))

    pieces = tuple(made if piece.name == kept else piece for piece in pattern.pieces if piece.name != gone)
    known = dict(made.roles)
    seams = []
    for old in pattern.seams:
        seam = replace(old, a=led(old.a), b=led(old.b))
        lost = any(part.piece == made.name and part.edge not in known for part in seam.parts)
        if not lost and {part.piece for part in seam.parts} != {made.name}:
            seams.append(seam)

    def panel(name: str) -> str:
        return made.name if name in parts else name

    lines = tuple(
        replace(line, panels=(panel(line.panels[0]), panel(line.panels[1])))
        for line in pattern.lines
        if line.angles or not set(line.panels) <= set(parts)
    )
    return replace(pattern, pieces=pieces, seams=tuple(seams), lines=lines)
