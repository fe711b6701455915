"""What a thing on the table is called, and its figures as a cutter asks for them."""

from __future__ import annotations

import math
from collections.abc import Iterator

from zesty_pivot.core.conventions.sewing import setback_of, sewn_legs
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.ledger.seams import finished_length
from zesty_pivot.core.moves.laid_open import laid_open
from zesty_pivot.core.piece import Body, EdgeRef, Piece, dart_words
from zesty_pivot.core.piece import place as places
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.piece.spot import far_from_centre
from zesty_pivot.desk.document import Document
from zesty_pivot.desk.table.things import Thing, edge_of

Rows = list[tuple[str, str]]

USES = {
    "dart": "sewn as a dart", "gathers": "gathered", "tuck": "folded in tucks", "pleat": "laid in pleats", "ease": "eased in",
    "flare": "left open as flare",
}  # fmt: skip


def piece_of(document: Document, thing: Thing) -> Piece:
    """The piece that a thing is on. Assumes that it is on the table."""
    return next(piece for piece in document.pattern.with_extras if piece.name == thing.piece)


def is_there(document: Document, thing: Thing) -> bool:
    """Whether a thing is on the table still."""
    piece = next((piece for piece in document.pattern.with_extras if piece.name == thing.piece), None)
    if piece is None:
        return False
    if thing.kind == "dart":
        return piece.has_dart(thing.id)
    return thing.kind == "piece" or edge_of(thing) in dict(piece.roles)


def title_of_thing(document: Document, thing: Thing) -> str:
    """`Front shoulder`, `French dart`, `Balance notch of the back side seam`."""
    piece = piece_of(document, thing)
    if thing.kind == "piece":
        return capital(words(piece.name))
    if thing.kind == "dart":
        return f"{capital(dart_words(piece, thing.id))} dart, {words(piece.name)}"
    edge = edge_words(piece, edge_of(thing))
    if thing.kind == "notch":
        name = thing.id.partition(":")[2]
        return f"{'Balance notch' if name == 'balance' else 'Notch'} of the {words(piece.name)} {edge}"
    return capital(f"{words(piece.name)} {edge}")


def edge_words(piece: Piece, edge: str) -> str:
    """What an edge is called; the centre of a front CF, of a back CB."""
    if piece.role(edge) == "centre":
        return {Body.FRONT: "CF", Body.BACK: "CB"}.get(piece.body, "centre")
    return words(edge)


def figures_of(document: Document, thing: Thing) -> Rows:
    """Its figures, what is asked most often first."""
    if thing.kind == "dart":
        return list(_dart(document, piece_of(document, thing), thing.id))
    if thing.kind == "piece":
        return list(_piece(piece_of(document, thing)))
    return list(_edge(document, thing))


def _edge(document: Document, thing: Thing) -> Iterator[tuple[str, str]]:
    piece, edge = piece_of(document, thing), edge_of(thing)
    total = piece.edge(edge).sewn_length
    finished, laid = finished_length(piece, edge), _open_length(piece, edge)
    yield "Sewn", document.length(finished)
    if abs(laid - finished) > 0.05:
        yield "Open on the paper", document.length(laid)
    yield from _partner(document, piece, edge)
    role = piece.role(edge)
    for end, away in zip(piece.ends.get(role, ()), (thing.along, total - thing.along), strict=False):
        yield f"From the {words(end)}", document.length(away)
    try:
        far = far_from_centre(piece, places.along(piece, edge, thing.along))
        centre = {Body.FRONT: "CF", Body.BACK: "CB"}.get(piece.body, "the centre")
        yield f"From {centre}", document.length(far)
    except ZestyError:
        pass
    yield from _lean(piece, thing)


def _open_length(piece: Piece, edge: str) -> float:
    """The length of an edge (mm) with its darts open and what is let in laid open."""
    paper = laid_open(piece)[0] if piece.fullness else piece
    found = sum(run.path.length for run in paper.edge(edge).runs)
    return found + sum(paper.intake(dart.id) for dart in paper.darts if paper.dart_edge(dart.id) == edge)


def _partner(document: Document, piece: Piece, edge: str) -> Iterator[tuple[str, str]]:
    ref = EdgeRef(piece.name, edge)
    for seam in document.look.seams:
        for mine, mate, sign in ((seam.a, seam.b, 1.0), (seam.b, seam.a, -1.0)):
            if ref in mine.parts:
                length = seam.b_mm if sign > 0.0 else seam.a_mm
                more = sign * (seam.b_mm - seam.a_mm)
                told = (
                    "equal"
                    if abs(more) < 0.05
                    else f"{document.length(abs(more), fine=True)} {'longer' if more > 0 else 'shorter'}"
                )
                yield f"Sewn to {mate.words()}", f"{document.length(length)}, {told}"


def _lean(piece: Piece, thing: Thing) -> Iterator[tuple[str, str]]:
    """How a straight edge leans, and how a curved one runs at the place."""
    place = places.along(piece, edge_of(thing), thing.along)
    way = piece.runs[place.run].path.direction_at(place.at)
    yield "To the level there", f"{abs((math.degrees(math.atan2(way[1], way[0])) + 90.0) % 180.0 - 90.0):.1f}°"


def _dart(document: Document, piece: Piece, dart: str) -> Iterator[tuple[str, str]]:
    own, sewing = piece.dart(dart), document.derived.derivation.sewing
    yield "Mouth", document.length(piece.intake(dart))
    yield "Angle", f"{math.degrees(piece.angle(dart)):.1f}°"
    legs = piece.legs(dart)
    yield "Legs to the pivot", " and ".join(dict.fromkeys(document.length(leg) for leg in legs))
    if own.use.value == "dart":
        sewn = sewn_legs(piece, dart, sewing)
        yield "Sewn legs", " and ".join(dict.fromkeys(document.length(leg.length) for leg in sewn))
        yield "Sewn point back", document.length(setback_of(piece, dart, sewing))
    yield "Used", "put away" if own.parked else USES.get(own.use.value, own.use.value)
    try:
        place = places.Place(piece.mouth_run(dart), piece.runs[piece.mouth_run(dart)].path.length)
        yield "Mouth from the centre", document.length(far_from_centre(piece, place))
    except ZestyError:
        pass


def _piece(piece: Piece) -> Iterator[tuple[str, str]]:
    yield "Edges", ", ".join(edge_words(piece, edge.id) for edge in piece.edges)
    yield "Darts", ", ".join(dart_words(piece, dart.id) for dart in piece.darts) or "none"
    yield "Cloth in it", f"{piece.area / 100.0:.0f} cm²"
