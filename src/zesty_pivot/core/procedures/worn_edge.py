"""An edge as it is worn: round the garment across its seams, from piece to piece, over the centres to the other half."""

from __future__ import annotations

import itertools
import operator
from collections.abc import Iterator, Sequence

from zesty_pivot.core.errors import StepError
from zesty_pivot.core.piece import Body, Edge, EdgeRef, Pattern, Piece, Run, Side
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.sides import body_of
from zesty_pivot.core.record import record

# What can be asked for: the roles that an edge of this name is made of.
WORN: dict[str, tuple[str, ...]] = {
    "neckline": ("neckline",),
    "armhole": ("armhole",),
    "waist": ("waist",),
    "hem": ("hem",),
    "lower": ("waist", "hem"),
    "top": ("neckline", "armhole", "strap_end"),
}
SIDE = "side"
SEAMS = {"shoulder": "shoulder", "side_seam": SIDE}  # how the seams are called that an edge crosses


@record
class WornPart:
    """A stretch of it on one piece: the edge, its sewn length (mm), the half of the body that it is worn on (of what is
    drawn as one half), and whether it is walked as the piece's outline goes."""

    ref: EdgeRef
    mm: float
    half: Side
    forward: bool
    body: Body


@record
class WornEdge:
    """The stretches in the order in which they are worn, and what lies before, between and behind them: the names of seams, CF,
    CB, or `end`. `count` is how often it is there: a left one that is like the right one counts twice."""

    parts: tuple[WornPart, ...]
    joints: tuple[str, ...]
    is_round: bool
    count: int = 1

    @property
    def mm(self) -> float:
        """Its length, mm."""
        return sum(part.mm for part in self.parts)

    @property
    def crossings(self) -> tuple[tuple[str, float], ...]:
        """The seams and centres inside it with how far along (mm) they lie."""
        found, at = [], 0.0
        for part, joint in zip(self.parts[:-1], self.joints[1:-1], strict=True):
            at += part.mm
            found.append((joint, at))
        return tuple(found)

    def of_body(self, body: Body) -> float:
        """How much of it (mm) is on the front, or on the back."""
        return sum(part.mm for part in self.parts if part.body is body)

    def begun_at(self, *joints: str) -> WornEdge:
        """The same, where it goes all round, begun at the first of these joints that it has; walked to the front first."""
        if not self.is_round:
            return self
        for joint in joints:
            found = [k for k, name in enumerate(self.joints[:-1]) if name == joint]
            if found:
                k = found[0]
                ring = (*self.joints[k:-1], *self.joints[: k + 1])
                return WornEdge((*self.parts[k:], *self.parts[:k]), ring, is_round=True, count=self.count)
        return self


def worn_edges(pattern: Pattern, edge: str, names: Sequence[str]) -> tuple[WornEdge, ...]:
    """The edges of this name (`WORN`, or the id of an edge) of the pieces that come from `names`, each as it is worn. Two that
    are alike on the left and the right are one that counts twice.

    Raises StepError where no piece has such an edge.
    """
    pieces = [piece for piece in pattern.pieces if _is_of(piece, names)]
    roles = WORN.get(edge)
    wanted = {
        (piece.name, one.id)
        for piece in pieces
        for one in piece.edges
        if (one.role in roles if roles is not None else edge in (one.id, piece.sides.name(one.id)))
    }
    if not wanted:
        has = sorted({words(role) for piece in pieces for _id, role in piece.roles})
        what = f"no piece of the {' and '.join(words(name) for name in names)} has an edge called {words(edge)}"
        raise StepError(what, advice=f"Choose one of: {', '.join(has)}." if has else "Choose another piece.")
    walk = _Walk(pattern, wanted)
    found: list[WornEdge] = []
    left = [node for name, id in sorted(wanted) for node in walk.nodes(pattern.piece(name), id)]
    while left:
        one = walk.whole(left[0])
        seen = {(part.ref.piece, part.ref.edge, part.half) for part in one.parts}
        left = [node for node in left if node not in seen]
        found.append(one)
    return _paired(found)


def _is_of(piece: Piece, names: Sequence[str]) -> bool:
    return piece.name in names or piece.of in names or piece.body.value in names or (piece.body is Body.NONE and len(names) > 1)


def _paired(found: list[WornEdge]) -> tuple[WornEdge, ...]:
    made: list[WornEdge] = []
    for one in found:
        key = [(part.ref, round(part.mm, 9)) for part in one.parts]
        for k, other in enumerate(made):
            mirrored = [(part.ref, round(part.mm, 9)) for part in other.parts]
            if key == mirrored or _alike(one, other):
                made[k] = WornEdge(other.parts, other.joints, other.is_round, other.count + 1)
                break
        else:
            made.append(one)
    return tuple(made)


def _alike(one: WornEdge, two: WornEdge) -> bool:
    """Whether the edge of one side is as the other's: the same lengths between the same seams."""

    def told(edge: WornEdge) -> list[tuple[str, float]]:
        return sorted((part.body.value, round(part.mm, 6)) for part in edge.parts)

    return {part.half for part in one.parts} != {part.half for part in two.parts} and told(one) == told(two)


Node = tuple[str, str, Side]  # a piece, an edge of it, and the half that it is worn on


class _Walk:
    """Walks from stretch to stretch: across centres to the other half, across seams to the partner."""

    def __init__(self, pattern: Pattern, wanted: set[tuple[str, str]]) -> None:
        self._pattern, self._wanted = pattern, wanted

    def nodes(self, piece: Piece, edge: str) -> list[Node]:
        """An edge on each half that it is worn on."""
        side = piece.sides.of(edge)
        sides = list(Side) if side is None and not piece.is_unfolded else [side or Side.LEFT]
        return [(piece.name, edge, half) for half in sides]

    def whole(self, node: Node) -> WornEdge:
        """All that is worn on from a stretch, both ways."""
        ahead, joints, is_round = self._from(node, forward=True)
        if is_round:
            return self._edge(ahead, [joints[-1], *joints], is_round=True)
        back, before, _round = self._from(node, forward=False)
        turned = [(node, not forward) for node, forward in reversed(back[1:])]
        return self._edge([*turned, *ahead], [*reversed(before), *joints], is_round=False)

    def _edge(self, steps: list[tuple[Node, bool]], joints: list[str], *, is_round: bool) -> WornEdge:
        """The stretches with what lies between; one of a piece that is front and back in one is two, with the side between."""
        parts: list[WornPart] = []
        between = joints[:1]
        for ((name, edge, half), forward), behind in zip(steps, joints[1:], strict=True):
            piece = self._pattern.piece(name)
            ref, runs = EdgeRef(name, edge), [(_body(piece, run), run.path.length) for run in piece.edge(edge).runs]
            mine = [
                WornPart(ref, sum(mm for _body_, mm in stretch), half, forward, body)
                for body, stretch in itertools.groupby(runs, operator.itemgetter(0))
            ]
            parts += mine if forward else mine[::-1]
            between += [*([SIDE] * (len(mine) - 1)), behind]
        return WornEdge(tuple(parts), tuple(between), is_round=is_round)

    def _from(self, node: Node, *, forward: bool) -> tuple[list[tuple[Node, bool]], list[str], bool]:
        """The stretches from one on, what lies behind each, and whether it comes round to the first."""
        steps, joints = [(node, forward)], list[str]()
        while True:
            joint, after = self._next(*steps[-1])
            joints.append(joint)
            if after is None or any(after[0] == known for known, _way in steps[1:]):
                return steps, joints, False
            if after[0] == node:
                return steps, joints, True
            steps.append(after)

    def _next(self, node: Node, forward: bool) -> tuple[str, tuple[Node, bool] | None]:
        name, edge, half = node
        piece = self._pattern.piece(name)
        beside = beside_edge(piece, edge, forward=forward)
        if (name, beside.id) in self._wanted:
            centre = _centre_words(piece, edge) if piece.sides.of(edge) is not piece.sides.of(beside.id) else words(beside.role)
            return centre, ((name, beside.id, self._half_of(piece, beside.id, half)), forward)
        if beside.role == "centre":
            mirrored = None if piece.is_unfolded else ((name, edge, half.other), not forward)
            return _centre_words(piece, beside.id), mirrored
        for other, id in self._mates(piece, beside, half):
            for onward in (False, True):
                after = beside_edge(other, id, forward=onward)
                if (other.name, after.id) in self._wanted:
                    joint = SEAMS.get(beside.role, words(piece.sides.name(beside.id)))
                    return joint, ((other.name, after.id, self._half_of(other, after.id, half)), onward)
        return SEAMS.get(beside.role, "end"), None

    def _half_of(self, piece: Piece, edge: str, half: Side) -> Side:
        return piece.sides.of(edge) or half

    def _mates(self, piece: Piece, edge: Edge, half: Side) -> Iterator[tuple[Piece, str]]:
        """The edges that one is sewn to, those on this half first."""
        ref = EdgeRef(piece.name, edge.id)
        found = []
        for seam in self._pattern.seams:
            for mine, mate in ((seam.a, seam.b), (seam.b, seam.a)):
                if ref in mine.parts:
                    found += [(self._pattern.piece(other.piece), other.edge) for other in mate.parts]
        yield from sorted(found, key=lambda one: one[0].sides.of(one[1]) not in (None, half))


def beside_edge(piece: Piece, edge: str, *, forward: bool) -> Edge:
    """The edge of a piece before or behind one."""
    ids = [id for id, _role in piece.roles]
    return piece.edges[(ids.index(edge) + (1 if forward else -1)) % len(ids)]


def _centre_words(piece: Piece, edge: str) -> str:
    """CF or CB; of a piece that is front and back in one, which has both, by an edge's provenance."""
    return {Body.FRONT: "CF", Body.BACK: "CB"}.get(_body(piece, piece.edge(edge).runs[0]), "centre")


def runs_of(piece: Piece, part: WornPart) -> list[Run]:
    """The runs of a stretch, as the piece's outline goes."""
    return [run for run in piece.edge(part.ref.edge).runs if _body(piece, run) is part.body]


def _body(piece: Piece, run: Run) -> Body:
    return body_of(run.source.edge, piece.body)
