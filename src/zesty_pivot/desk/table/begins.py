"""What begins at a place of the pattern: the steps that a pattern maker would take from there, the likeliest first. No Qt."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator, Mapping
from typing import Any

from zesty_pivot.core.piece import Body, Dart, Pattern, Piece, Use, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.record import record
from zesty_pivot.desk.table.things import Thing, edge_of, spot_of

Value = dict[str, Any]


@record
class Offer:
    """Something to do, as it is said: a kind of step, and the steps that it may begin as, the best first."""

    title: str
    do: str
    values: tuple[Value, ...]


@record
class Beginning:
    """Where something would begin: the thing that was pointed at, its piece, and that of the block it comes from."""

    thing: Thing
    piece: Piece
    block: Piece
    pattern: Pattern
    unit: Unit
    snap: float  # mm within which a station is meant

    @property
    def edge(self) -> str:
        """The edge that was pointed at."""
        return edge_of(self.thing)

    @property
    def spot(self) -> Value:
        """The place on its edge, as it is said in a step."""
        spot = spot_of(self.piece, self.block, self.edge, self.thing.along, self.unit, self.snap)
        return spot.model_dump(by_alias=True, exclude_none=True)

    @property
    def pair(self) -> Value:
        """Front and back, for steps that are done to both."""
        names = {piece.body: piece.of or piece.name for piece in reversed(self.pattern.pieces)}
        own = self.piece.of or self.piece.name
        front, back = names.get(Body.FRONT, own), names.get(Body.BACK, "")
        return {"on": front, "other": back if back != front else ""}

    @property
    def here(self) -> Value:
        """This piece."""
        return {"on": self.piece.name}


Fields = Callable[[Beginning], Iterable[Value]]


def _one(fields: Callable[[Beginning], Value]) -> Fields:
    return lambda place: (fields(place),)


def _pair(**more: Any) -> Fields:
    return _one(lambda place: {**place.pair, **more})


def _here(**more: Any) -> Fields:
    return _one(lambda place: {**place.here, **more})


def _edge(**more: Any) -> Fields:
    """On this edge of this piece."""
    return _one(lambda place: {**place.here, "edge": place.edge, **more})


def _worn(edge: str, **more: Any) -> Fields:
    """On an edge of front and back as it is worn, else on this one alone."""
    return lambda place: ({**place.pair, "edge": edge, **more}, {**place.pair, "edge": place.edge, **more})


def _from(key: str = "from", **more: Any) -> Fields:
    """From this spot."""
    return _one(lambda place: {**place.here, key: place.spot, **more})


def _let_in(**more: Any) -> Fields:
    """Let in along this edge: from this spot where there is room, else where it is."""
    return lambda place: (
        {**place.here, "edge": place.edge, "start": place.spot, **more},
        {**place.here, "edge": place.edge, **more},
    )


def _slash(place: Beginning) -> Iterator[Value]:
    for dart in place.piece.darts:
        yield {**place.here, "at": place.spot, "dart": dart.id, "whole": True}
    for role in ("armhole", "shoulder", "side_seam", "neckline", "waist", "hem"):
        for edge in (edge for edge, known in place.piece.roles if known == role and edge != place.edge):
            yield {**place.here, "at": place.spot, "hinge": {"edge": edge, "at": "50%"}}


ACROSS = {
    "side_seam": ("centre", "armhole"), "armhole": ("centre", "waist", "hem", "side_seam"), "shoulder": ("waist", "hem"),
    "neckline": ("armhole", "waist", "hem"), "centre": ("side_seam", "armhole"),
}  # fmt: skip


def _line(place: Beginning) -> Iterator[Value]:
    """A style line from this spot to the edge across, or to another."""
    roles = dict(place.piece.roles)
    for role in ACROSS.get(roles.get(place.edge, ""), ("side_seam", "centre")):
        for edge in (edge for edge, known in roles.items() if known == role):
            for at in ("50%", "60%", "40%"):
                yield {**place.here, "from": place.spot, "to": {"edge": edge, "at": at}}


def _from_side(place: Beginning) -> Iterator[Value]:
    back, front = place.pair["other"], place.pair["on"]
    yield {"on": back, "other": front}
    yield {"on": front, "other": back}


Row = tuple[str, str, Fields]

AT: Mapping[str, tuple[Row, ...]] = {
    "neckline": (
        ("Reshape the neckline", "neck.shape", _pair()),
        ("Take out gape here", "neck.gape", _from("at")),
        ("Face it", "piece.facing", _pair(kind="neck")),
        ("Gather it", "fullness.gather", _edge()),
        ("Lay pleats from here", "fullness.pleat", _let_in()),
        ("Princess line from here", "line.princess", _from()),
        ("Hang a cowl", "drape.cowl", _pair()),
        ("Open it with a zip or a slit", "neck.opening", _here()),
        ("Bind it", "trim.binding", _worn("neckline")),
        ("Pipe it", "trim.piping", _worn("neckline")),
        ("Stand it up with a collar", "trim.stand", _worn("neckline")),
        ("Frill along it", "trim.frill", _worn("neckline")),
        ("Contrast band along it", "line.band", _edge()),
        ("Square it to the centre", "piece.square", _edge()),
        ("Style line from here", "line.cut", _line),
        ("Slash from here", "fullness.slash", _slash),
        ("True it", "piece.true", _edge()),
    ),
    "shoulder": (
        ("Princess line from here", "line.princess", _from()),
        ("Yoke below it", "yoke.cut", _here()),
        ("Move the seam forward", "yoke.join", _pair(seam="kept", forward="2 cm")),
        ("True armhole over it", "piece.true_seam", _pair(seam="shoulder", edge="armhole")),
        ("True neckline over it", "piece.true_seam", _pair(seam="shoulder", edge="neckline")),
        ("Ruffle along it", "trim.ruffle", _worn("shoulder")),
        ("Strap from here", "trim.strap", _pair()),
        ("Gather it", "fullness.gather", _edge()),
        ("Slash from here", "fullness.slash", _slash),
        ("Style line from here", "line.cut", _line),
        ("True it", "piece.true", _edge()),
    ),
    "armhole": (
        ("Princess line from here", "line.princess", _from()),
        ("Yoke across", "yoke.cut", _here()),
        ("Reshape the armhole", "trim.armhole", _pair()),
        ("Face it with the neck", "piece.facing", _pair(kind="all_in_one")),
        ("Bind it", "trim.binding", _worn("armhole")),
        ("Band on it", "trim.band", _worn("armhole")),
        ("Frill along it", "trim.frill", _worn("armhole")),
        ("Style line from here", "line.cut", _line),
        ("Hang a cowl from it", "drape.cowl_armhole", _pair()),
        ("Elastic casing", "trim.casing", _worn("armhole")),
        ("Slash from here", "fullness.slash", _slash),
        ("True it", "piece.true", _edge()),
    ),
    "side_seam": (
        ("Style line from here", "line.cut", _line),
        ("Let it out or take it in", "piece.let_out", _pair()),
        ("Move the side seam", "piece.side_seam", _from_side),
        ("Side panel", "piece.side_panel", _pair()),
        ("Drape folds into it", "drape.fan", _edge()),
        ("Gather it", "fullness.gather", _edge()),
        ("Slash from here", "fullness.slash", _slash),
        ("True armhole over it", "piece.true_seam", _pair(seam="side_seam", edge="armhole")),
        ("True waist over it", "piece.true_seam", _pair(seam="side_seam", edge="waist")),
        ("True it", "piece.true", _edge()),
    ),
    "waist": (
        ("True it", "piece.true", _edge()),
        ("Let it flare", "fullness.flare", _edge()),
        ("Peplum below it", "trim.peplum", _worn("waist")),
        ("Lay pleats from here", "fullness.pleat", _let_in()),
        ("Tucks from here", "fullness.tuck", _let_in()),
        ("Gather it", "fullness.gather", _edge()),
        ("Waistband", "trim.waistband", _worn("waist")),
        ("Circular flare below it", "fullness.circle", _worn("waist")),
        ("Midriff above it", "yoke.cut", _here(kind="midriff")),
        ("Raise or trim it", "trim.hem", _here()),
        ("Tie or sash", "trim.tie", _worn("waist")),
        ("Elastic casing", "trim.casing", _worn("waist")),
        ("Square it to the centre", "piece.square", _edge()),
        ("True it over the side", "piece.true_seam", _pair(seam="side_seam", edge="waist")),
        ("Slash from here", "fullness.slash", _slash),
    ),
    "hem": (
        ("Let it flare", "fullness.flare", _edge()),
        ("True it", "piece.true", _edge()),
        ("Face it", "piece.facing", _pair(kind="hem")),
        ("Raise or trim it", "trim.hem", _here()),
        ("Circular flare below it", "fullness.circle", _worn("hem")),
        ("Frill along it", "trim.frill", _worn("hem")),
        ("Bind it", "trim.binding", _worn("hem")),
        ("Elastic casing", "trim.casing", _worn("hem")),
        ("Lay pleats from here", "fullness.pleat", _let_in()),
        ("Slash from here", "fullness.slash", _slash),
    ),
    "centre": (
        ("Open it with a zip or a slit", "neck.opening", _here()),
        ("Take the centre in at the waist", "line.contour", _here()),
        ("Unfold the piece", "piece.unfold", _here()),
        ("Style line from here", "line.cut", _line),
        ("Button placket", "trim.placket", _pair()),
        ("Button loops", "trim.loops", _edge()),
        ("Twist", "drape.twist", _here()),
        ("Slash from here", "fullness.slash", _slash),
    ),
    "": (  # style lines, yokes, the ends of straps
        ("True it", "piece.true", _edge()),
        ("Gather it", "fullness.gather", _edge()),
        ("Lay pleats from here", "fullness.pleat", _let_in()),
        ("Tucks from here", "fullness.tuck", _let_in()),
        ("Pipe it", "trim.piping", _worn("")),
        ("Frill along it", "trim.frill", _worn("")),
        ("Let it flare", "fullness.flare", _edge()),
        ("Contrast band along it", "line.band", _edge()),
        ("Style line from here", "line.cut", _line),
        ("Slash from here", "fullness.slash", _slash),
    ),
    "piece": (
        ("Princess line", "line.princess", _here()),
        ("Yoke", "yoke.cut", _here()),
        ("Unfold it", "piece.unfold", _here()),
        ("Lining of all pieces", "piece.facing", _pair(kind="lining")),
        ("Reshape the neckline", "neck.shape", _pair()),
        ("Flare the lower edge", "fullness.flare", _here()),
        ("Drape", "drape.fan", _here()),
        ("Twist", "drape.twist", _here()),
    ),
}  # fmt: skip

MANY = ((2, "3 cm"), (2, "2 cm"), (3, "2.5 cm"), (3, "1.5 cm"), (4, "2 cm"), (1, "3 cm"))  # tucks or pleats and how far apart
AS: tuple[tuple[str, str], ...] = (
    ("Gather it", "gathers"), ("Lay it in soft pleats", "pleats"), ("Make tucks of it", "tucks"), ("Ease it in", "ease"),
    ("Let it flare", "flare"), ("Sew it as a dart", "dart"),
)  # fmt: skip
NOW = {Use.DART: "dart", Use.GATHERS: "gathers", Use.TUCK: "tucks", Use.PLEAT: "pleats", Use.EASE: "ease", Use.FLARE: "flare"}
GOALS = ("french", "mid_shoulder", "side_bust", "mid_armhole", "centre_waist", "mid_neck", "waist")
HARMLESS = ("centre_bust", "centre_waist", "side_bust", "side_waist")


def offers(place: Beginning) -> list[Offer]:
    """What begins at a place, the likeliest first."""
    thing = place.thing
    if thing.kind == "dart":
        return [one for one in _of_dart(place, place.piece.dart(thing.id)) if one.values]
    if thing.kind == "piece":
        return _of_rows(AT["piece"], place)
    role = place.piece.role(place.edge)
    found = _of_rows(AT.get(role, AT[""]), place)
    here = list(_darts_to(place))
    # A dart that could come here is the second thought at a seam, the first one nowhere.
    return [*found[:3], *here, *found[3:]]


def _of_rows(rows: Iterable[Row], place: Beginning) -> list[Offer]:
    return [Offer(title, do, tuple({"do": do, **value} for value in fields(place))) for title, do, fields in rows]


def _darts_to(place: Beginning) -> Iterator[Offer]:
    for dart in place.piece.darts:
        if dart.parked or place.piece.dart_edge(dart.id) == "":
            continue
        title = f"Move the {dart_words(place.piece, dart.id)} dart here"
        yield Offer(title, "dart.move", ({"do": "dart.move", **place.here, "dart": dart.id, "to": place.spot},))


def _of_dart(place: Beginning, dart: Dart) -> Iterator[Offer]:
    on = {**place.here, "dart": dart.id}
    goals = tuple({"do": "dart.move", **on, "to": {"station": name}} for name in GOALS)
    others = [other for other in place.piece.darts if other.pivot == dart.pivot and other.id != dart.id]
    yield Offer("Move it", "dart.move", goals)
    for other in others:
        title = f"Move all of it into the {dart_words(place.piece, other.id)} dart"
        yield Offer(title, "dart.move", ({"do": "dart.move", **on, "to": {"dart": other.id}},))
    for title, use in AS:
        if use != NOW[dart.use]:
            many = tuple({"count": count, "spacing": apart} for count, apart in MANY) if use in ("tucks", "pleats") else ({},)
            yield Offer(title, "dart.use", tuple({"do": "dart.use", **on, "as": use, **more} for more in many))
    halves = tuple(
        {"do": "dart.split", **on, "parts": [{"to": {"station": name}, "share": "50%"}]} for name in GOALS
    )  # fmt: skip
    yield Offer("Split it in two", "dart.split", halves)
    yield Offer("Make several darts of it", "dart.fan", ({"do": "dart.fan", **on},))
    if others:
        ids = [dart.id, *(other.id for other in others)]
        yield Offer("Equal mouths", "dart.equalise", ({"do": "dart.equalise", **place.here, "darts": ids},))
    edge = place.piece.dart_edge(dart.id)
    yield Offer(
        "Princess line through it", "line.princess", ({"do": "line.princess", **place.here, "from": {"dart": dart.id}},)
    )
    yield Offer(f"True the {words(edge)} across it", "piece.true", ({"do": "piece.true", **place.here, "edge": edge},))
    yield Offer("Bow or bend its legs", "dart.shape", ({"do": "dart.shape", **on},))
    parked = tuple({"do": "dart.park", **place.here, "darts": [dart.id], "to": {"station": name}} for name in HARMLESS)
    yield Offer("Park it", "dart.park", () if dart.parked else parked)
    yield Offer("Bring back what is parked in it", "dart.return", _back(place, dart))
    gathered = {"do": "yoke.cut", **place.here, "led": dart.id, "seam_darts": "gathers"}
    yield Offer("Yoke with its fullness gathered", "yoke.cut", (gathered,))


def _back(place: Beginning, dart: Dart) -> tuple[Value, ...]:
    return ({"do": "dart.return", **place.here, "darts": [one.id for one in dart.parked]},) if dart.parked else ()
