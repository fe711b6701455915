"""What is done to a whole piece half by half: each side as a half is drawn, and both put together again."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.geometry import JOIN_TOL
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.moves import mirror
from zesty_pivot.core.piece import Pattern, Piece, Seam, SeamSide, Side, StyleLine
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import replace

Halves = Mapping[Side, Pattern]  # the pattern as it is on each side of the body


def parted(pattern: Pattern, name: str) -> Halves:
    """The pattern twice, for each side of the body, with the unfolded piece `name`, other unfolded parts of the same piece of
    the block, and the panels beside them as halves. Raises GeometryError when something of one side lies on the other."""
    whole = pattern.piece(name)
    mine = [piece for piece in pattern.pieces if _source(piece) == _source(whole) and piece.sides.known]
    halves = {piece.name: dict(zip(Side, mirror.halved(piece), strict=True)) for piece in mine if mirror.side_of(piece) is None}
    on, towards = _line(halves[name][Side.LEFT])
    found = {}
    for side in Side:
        plain = {
            piece.name: halves[piece.name][side] if piece.name in halves else mirror.as_half(piece, on, towards)
            for piece in mine
        }
        kept = [piece for piece in pattern.pieces if piece not in mine or mirror.side_of(piece) in (side, None)]
        seams = [_plain_seam(seam, pattern, plain) for seam in pattern.seams if _is_on(seam, pattern, plain, side)]
        lines = [_plain_line(line, plain) for line in pattern.lines if line.of != _source(whole) or line.side in (None, side)]
        pieces = tuple(plain.get(piece.name, piece) for piece in kept)
        found[side] = replace(pattern, pieces=pieces, seams=tuple(seams), lines=tuple(lines))
    return found


def together(halves: Halves, sources: Sequence[str], before: Pattern) -> Pattern:
    """One pattern of two, in which what comes from these pieces of the block is drawn as halves. What is as `before` stays
    so. Of others, one on the fold is opened to the whole, a panel that is the same on both sides stays a half, to be cut as a
    pair, and what differs is cut once for each side.

    Raises StepError or GeometryError when a fold cannot be opened.
    """
    left = halves[Side.LEFT]
    made = {name: parts for source in sources for name, parts in _wholes(halves, source, before).items()}
    pieces = [new for piece in left.pieces for new in made.pop(piece.name, [piece])]
    pieces += [new for parts in made.values() for new in parts]
    known = {piece.name: piece for piece in pieces}
    seams = [_sided_seam(seam, known, side) for side in Side for seam in halves[side].seams if _fits(seam, known, side)]
    each = {side: [_sided_line(line, known, side) for line in halves[side].lines] for side in Side}
    lines = [_unlike(line, each[side.other], side) for side in Side for line in each[side]]
    one_each = {(line.of, line.id): line for line in reversed(lines)}  # one of a pair of panels is on both sides
    return replace(left, pieces=tuple(pieces), seams=tuple(dict.fromkeys(seams)), lines=tuple(reversed([*one_each.values()])))


def _wholes(halves: Halves, source: str, before: Pattern) -> dict[str, list[Piece]]:
    """What becomes of each half that comes from a piece of the block, by its name."""
    left, right = halves[Side.LEFT], halves[Side.RIGHT]
    mine = list(dict.fromkeys(piece.name for half in (left, right) for piece in half.come_from(source)))
    folds = [piece for piece in left.come_from(source) if piece.fold is not None]
    made: dict[str, list[Piece]] = {}
    for name in mine:
        one, two = (half.piece(name) if half.has(name) else None for half in (left, right))
        if one == two and one in before.pieces:
            continue
        if one is not None and two is not None and one.fold is not None:
            made[name] = [mirror.opened(one, two)]
        elif one is not None and two is not None and _alike(one, two):
            made[name] = [_pair_of(one, two)]
        elif not folds:
            if any(piece.fold is not None for piece in before.come_from(source)):
                what = f"no part of the {words(source)} lies on the fold, and its sides differ"
                raise StepError(what, where=source, advice="Do this before the sides are made different.")
            what = f"the {words(source)} has a seam at its centre, and its sides would differ"
            raise StepError(
                what, where=source, advice="Draft it with its centre on the fold, or choose a shape for both sides."
            )
        else:  # from the right side of the body to the left
            on, towards = _line(folds[0])
            sided = ((Side.RIGHT, two), (Side.LEFT, one))
            made[name] = [mirror.one_side(half, side, on, towards) for side, half in sided if half is not None]
    return made


def _pair_of(one: Piece, two: Piece) -> Piece:
    """The half that both sides are cut from; what was cut away with one side only stays told of that side."""
    both = [entry for entry in one.added if entry in two.added]
    own = [
        (side.id(pivot), angle)
        for side, half in ((Side.LEFT, one), (Side.RIGHT, two))
        for pivot, angle in half.added
        if (pivot, angle) not in both
    ]
    return replace(one, added=(*both, *own)) if own else one


def _source(piece: Piece) -> str:
    return piece.of or piece.name


def _line(half: Piece) -> tuple[Vector, Vector]:
    """The line that a half is turned over along: a point of it, and its direction."""
    runs = half.edge(half.fold or "centre").runs
    return runs[0].path.start, runs[-1].path.end - runs[0].path.start


def _alike(one: Piece, two: Piece) -> bool:
    """Whether two halves are the same as drawn."""
    if len(one.runs) != len(two.runs) or one.roles != two.roles or one.darts != two.darts:
        return False
    paths = [(a.path.cubics, b.path.cubics) for a, b in zip(one.runs, two.runs, strict=True)]
    return all(a.shape == b.shape and bool(np.abs(a - b).max() < JOIN_TOL) for a, b in paths)


# From the whole to its halves.


def _is_on(seam: Seam, pattern: Pattern, plain: Mapping[str, Piece], side: Side) -> bool:
    """Whether a seam is there on a side of the body: none of what it joins is on the other."""
    known = {pattern.piece(part.piece).sides.of(part.edge) for part in seam.parts if part.piece in plain}
    return known <= {side, None}


def _plain_seam(seam: Seam, pattern: Pattern, plain: Mapping[str, Piece]) -> Seam:
    def named(end: SeamSide) -> SeamSide:
        return SeamSide(tuple(
            replace(part, piece=plain[part.piece].name, edge=pattern.piece(part.piece).sides.name(part.edge))
            if part.piece in plain else part
            for part in end.parts
        ))  # fmt: skip

    return replace(seam, a=named(seam.a), b=named(seam.b))


def _plain_line(line: StyleLine, plain: Mapping[str, Piece]) -> StyleLine:
    if line.side is None or not set(line.panels) & set(plain):
        return line
    one, two = (plain[name].name if name in plain else name for name in line.panels)
    return replace(line, id=line.id.removesuffix(f".{line.side.value}"), panels=(one, two), side=None)


# From the halves to the whole.


def _now(name: str, known: Mapping[str, Piece], side: Side) -> Piece:
    """What a piece of a half is on a side of the whole."""
    return known.get(name) or known[mirror.side_name(name, side)]


def _fits(seam: Seam, known: Mapping[str, Piece], side: Side) -> bool:
    """Whether a seam of one side of the body joins nothing of the other."""
    others = [known[part.piece].sides.of(part.edge) for part in seam.parts if part.piece in known]
    return all(other in (side, None) for other in others)


def _sided_seam(seam: Seam, known: Mapping[str, Piece], side: Side) -> Seam:
    def named(end: SeamSide) -> SeamSide:
        parts = [(part, _now(part.piece, known, side)) for part in end.parts]
        return SeamSide(tuple(replace(p, piece=piece.name, edge=piece.sides.id(p.edge, side)) for p, piece in parts))

    return replace(seam, a=named(seam.a), b=named(seam.b))


def _unlike(line: StyleLine, others: Sequence[StyleLine], side: Side) -> StyleLine:
    """A line over both sides that did not take in the same on both: the one of its side."""
    other = next((other for other in others if (other.of, other.id) == (line.of, line.id)), line)
    return line if line.side is not None or other == line else replace(line, id=side.id(line.id), side=side)


def _sided_line(line: StyleLine, known: Mapping[str, Piece], side: Side) -> StyleLine:
    if line.side is not None:
        return line
    if not all({name, mirror.side_name(name, side)} & set(known) for name in line.panels):
        return line  # one of its panels has been joined to another
    one, two = (_now(name, known, side) for name in line.panels)
    if mirror.side_of(two) is None:
        return line
    return replace(line, id=side.id(line.id), panels=(one.name, two.name), side=side)
