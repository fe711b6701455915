"""What is done to sew a pattern together, each thing by itself, and which of them must be done before which.

A line of stitching that ends on another line of stitching comes first: the dart before the seam that it opens in, the princess
seam before the shoulder, the shoulder before the neckline's facing.
"""

from __future__ import annotations

from collections.abc import Iterator
from enum import IntEnum

from zesty_pivot.core.moves.open_up import home_edge
from zesty_pivot.core.piece import EdgeRef, Extra, Pattern, Piece, Seam, Use
from zesty_pivot.core.piece.called import dart_words
from zesty_pivot.core.piece.folds import lies_on_fold
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.worn_edge import WORN
from zesty_pivot.core.record import record, replace


class Rank(IntEnum):
    """In which order things are done that do not ask for each other. Common practice, no source: flat work first, what closes
    the garment late, edges last."""

    DART = 0
    FOLDS = 1
    LINE = 2
    YOKE = 3
    CENTRE = 4
    SHOULDER = 5
    NECK = 6
    SIDE = 7
    ARMHOLE = 8
    WAIST = 9
    LINING = 10
    HEM = 11


# Of each role: when its seam is sewn. Roles that are not named are lines of the design.
RANKS = {
    "style_line": Rank.LINE, "yoke": Rank.YOKE, "centre": Rank.CENTRE, "shoulder": Rank.SHOULDER, "neckline": Rank.NECK,
    "side_seam": Rank.SIDE, "armhole": Rank.ARMHOLE, "waist": Rank.WAIST, "hem": Rank.HEM,
}  # fmt: skip

# By rank: how it is stitched, stitches to 10 cm. Common practice, no source: 2.5 mm a stitch for seams, 4 mm for gathering,
# finer where an edge is turned.
STITCHES = {Rank.FOLDS: 25, Rank.NECK: 50, Rank.ARMHOLE: 50, Rank.HEM: 33}
USUAL_STITCHES = 40


@record
class SewingStep:
    """One thing that is done: its id, what to do in words, the edges whose stitching line it makes (`on`), and those that it
    ends on (`ends`); `after` are the ids that must be done before."""

    id: str
    rank: Rank
    says: str
    on: tuple[EdgeRef, ...] = ()
    ends: tuple[EdgeRef, ...] = ()
    after: tuple[str, ...] = ()

    @property
    def stitches(self) -> int:
        """Stitches to 10 cm."""
        return STITCHES.get(self.rank, USUAL_STITCHES)


def sewing_order(pattern: Pattern, pressed_away: frozenset[str] = frozenset()) -> tuple[SewingStep, ...]:
    """Everything that is sewn, in an order in which nothing asks for what comes later. `pressed_away` are `piece.dart` of darts
    that are not sewn."""
    found = _with_order(tuple(_operations(pattern, pressed_away)))
    left, done = {one.id: one for one in found}, list[SewingStep]()
    names = set[str]()
    while left:
        ready = [one for one in left.values() if names.issuperset(one.after)]
        if not ready:  # two ask for each other over a third: the flatter work goes first, and is not said to wait
            first = min(left.values(), key=lambda one: one.rank)
            ready = [replace(first, after=tuple(id for id in first.after if id in names))]
        one = min(ready, key=lambda each: each.rank)
        done.append(one)
        names.add(one.id)
        del left[one.id]
    return tuple(done)


def _operations(pattern: Pattern, pressed_away: frozenset[str]) -> Iterator[SewingStep]:
    for piece in pattern.with_extras:
        yield from _in_piece(piece, pressed_away)
    for seam in pattern.seams:
        yield _seam(pattern, seam)
    for piece in pattern.pieces:
        yield from _centre(pattern, piece)
    taken = {ref for seam in pattern.seams for ref in seam.parts}
    faced: set[EdgeRef] = set()
    for made in _extras(pattern):
        faced |= set(made.on)
        yield made
    yield from _edges(pattern, taken | faced)


def _in_piece(piece: Piece, pressed_away: frozenset[str]) -> Iterator[SewingStep]:
    """Darts, and fullness that is folded or gathered, of one piece."""
    for dart in piece.darts:
        home = EdgeRef(piece.name, home_edge(piece, dart.id))
        name = f"{dart_words(piece, dart.id)} dart of the {words(piece.name)}"
        key = f"{piece.name}.{dart.id}"
        if dart.use is Use.DART and key not in pressed_away:
            yield SewingStep(key, Rank.DART, f"Sew the {name}.", (), (home,))
        elif dart.use in (Use.TUCK, Use.PLEAT):
            yield SewingStep(key, Rank.FOLDS, f"Fold and baste the {dart.use.value} that was the {name}.", (), (home,))
        elif dart.use is Use.GATHERS:
            yield SewingStep(key, Rank.FOLDS, f"Gather what was the {name}.", (), (home,))
    for eye in piece.fisheyes:
        yield SewingStep(f"{piece.name}.{eye.id}", Rank.DART, f"Sew the {words(eye.id)} of the {words(piece.name)}.")
    for let in piece.fullness:
        ends = {line.start.line.rpartition(".")[2] for line in let.lines} | {
            line.stop.line.rpartition(".")[2] for line in let.lines
        }
        edges = tuple(EdgeRef(piece.name, edge) for edge, _role in piece.roles if edge in ends)
        verb = "Gather" if let.taking.value == "gathers" else f"Fold and baste the {let.taking.value} at"
        yield SewingStep(f"{piece.name}.{let.id}", Rank.FOLDS, f"{verb} the {words(piece.name)}.", (), edges)


def _beside(piece: Piece, edge: str) -> tuple[str, str]:
    """The edges before and after an edge round a piece."""
    ring = [one.id for one in piece.edges]
    at = ring.index(edge)
    return ring[at - 1], ring[(at + 1) % len(ring)]


def _seam(pattern: Pattern, seam: Seam) -> SewingStep:
    """A seam ends on what goes on across it: on the edges beside it that have the same role on both sides."""
    sides = []
    for side in (seam.a, seam.b):
        own = {(part.piece, part.edge) for part in side.parts}
        beside = [EdgeRef(part.piece, edge) for part in side.parts for edge in _beside(pattern.piece(part.piece), part.edge)]
        sides.append([ref for ref in beside if (ref.piece, ref.edge) not in own])
    roles = [{pattern.piece(ref.piece).role(ref.edge) for ref in side} for side in sides]
    both = roles[0] & roles[1]
    ends = tuple(ref for side in sides for ref in side if pattern.piece(ref.piece).role(ref.edge) in both)
    first = seam.parts[0]
    role = pattern.piece(first.piece).role(first.edge)
    ease = f", easing in {abs(seam.ease_mm):.0f} mm" if abs(seam.ease_mm) >= 1.0 else ""
    says = f"Sew the {seam.a.words()} to the {seam.b.words()}{ease}."
    return SewingStep(f"{seam.a}/{seam.b}", RANKS.get(role, Rank.LINE), says, seam.parts, ends)


def _centre(pattern: Pattern, piece: Piece) -> Iterator[SewingStep]:
    """A centre that is cut as a pair is sewn to its own other half; a zip goes in with it."""
    centre = next((edge for edge, role in piece.roles if role == "centre"), None)
    if centre is None or piece.is_unfolded or lies_on_fold(piece):
        for opening in pattern.openings:
            if opening.piece == piece.name and opening.kind == "slit":
                on = tuple(EdgeRef(piece.name, edge) for edge, role in piece.roles if role == "neckline")
                says = f"Face the slit of the {words(piece.name)}, {opening.length_mm / 10.0:.1f} cm long."
                yield SewingStep(f"{piece.name}.slit", Rank.CENTRE, says, (), on)
        return
    seam = EdgeRef(piece.name, centre)
    if any(seam in one.parts for one in pattern.seams):
        return
    ends = tuple(EdgeRef(piece.name, edge) for edge in _beside(piece, centre))
    zipped = next((one for one in pattern.openings if one.piece == piece.name and one.kind == "zip"), None)
    name = "CB" if piece.body.value == "back" else "CF"
    says = f"Sew the {name} seam of the {words(piece.name)}."
    if zipped is not None:
        into = f"the {name} seam of the {words(piece.name)}"
        says = f"Set the zip of {zipped.length_mm / 10.0:.0f} cm into {into}, and sew the rest of the seam."
    yield SewingStep(f"{piece.name}.{centre}/mirror", Rank.CENTRE, says, (seam,), ends)


def _extras(pattern: Pattern) -> Iterator[SewingStep]:
    """Facings, linings and trims are joined to the edges that they follow; facings of one edge first to each other."""
    facings: dict[tuple[str, ...], list[tuple[Extra, tuple[EdgeRef, ...]]]] = {}
    for extra in pattern.extras:
        on = _followed(pattern, extra)
        roles = tuple(sorted({pattern.piece(ref.piece).role(ref.edge) for ref in on}))
        if extra.kind == "facing" and roles:
            facings.setdefault(roles, []).append((extra, on))
            continue
        rank = max((RANKS.get(role, Rank.LINE) for role in roles), default=Rank.LINING)
        if extra.kind in ("lining", "stay"):
            rank = Rank.LINING if extra.kind == "lining" else Rank.FOLDS
        verb = "Line with" if extra.kind == "lining" else "Sew on"
        says = f"{verb} the {words(extra.piece.name)}{_at(roles)}."
        yield SewingStep(f"extra {extra.piece.name}", rank, says, () if extra.kind == "stay" else on)
    for roles, several in facings.items():
        rank = max(RANKS.get(role, Rank.LINE) for role in roles)
        names = " and ".join(words(extra.piece.name) for extra, _on in several)
        joins = f"Sew the {names} together, then to" if len(several) > 1 else f"Sew the {names} to"
        says = f"{joins} the {' and the '.join(words(role) for role in roles)}; turn and understitch."
        on = tuple(ref for _extra, refs in several for ref in refs)
        yield SewingStep(f"facing {' '.join(roles)}", rank, says, on)


def _at(roles: tuple[str, ...]) -> str:
    return f" at the {' and the '.join(words(role) for role in roles)}" if roles else ""


def _followed(pattern: Pattern, extra: Extra) -> tuple[EdgeRef, ...]:
    """The garment's edges that a part is sewn to: those it follows, else those of the role that its step was asked for."""
    refs = [part for follow in extra.follows for part in follow.along.parts]
    role = getattr(extra.asked, "edge", None)
    if not refs and isinstance(role, str):
        asked = WORN.get(role, (role,))
        hosts = [piece for piece in pattern.pieces if piece.name in extra.of]
        refs = [EdgeRef(host.name, edge) for host in hosts for edge, own in host.roles if edge in asked or own in asked]
    return tuple(ref for ref in refs if pattern.has(ref.piece) and ref.edge in dict(pattern.piece(ref.piece).roles))


def _edges(pattern: Pattern, taken: set[EdgeRef]) -> Iterator[SewingStep]:
    """Edges that nothing is sewn to are finished last."""
    by_role: dict[str, list[EdgeRef]] = {}
    for piece in pattern.pieces:
        for edge, role in piece.roles:
            ref = EdgeRef(piece.name, edge)
            if ref not in taken and role in ("neckline", "armhole", "waist", "hem"):
                by_role.setdefault(role, []).append(ref)
    for role, refs in by_role.items():
        verb = "Turn up the" if role in ("hem", "waist") else "Bind or turn the"
        rank = Rank.HEM if role in ("hem", "waist") else RANKS[role]
        yield SewingStep(f"edge {role}", rank, f"{verb} {words(role)}.", tuple(refs))


def _with_order(made: tuple[SewingStep, ...]) -> tuple[SewingStep, ...]:
    """Each with what must come before it. Of two that end on each other the flatter work goes first."""
    before = {one.id: {other.id for other in made if other is not one and set(other.ends) & set(one.on)} for one in made}
    rank = {one.id: one.rank for one in made}
    kept = []
    for one in made:
        after = [id for id in before[one.id] if one.id not in before[id] or (rank[id], id) < (one.rank, one.id)]
        kept.append(replace(one, after=tuple(sorted(after))))
    return tuple(kept)
