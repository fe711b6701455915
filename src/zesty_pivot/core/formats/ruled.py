"""The ruler file (.zruler): what was measured on the paper of a block, as it was typed; and the outlines drawn from it."""

from __future__ import annotations

from pathlib import Path as FilePath
from typing import Literal

from pydantic import Field, field_validator

from zesty_pivot.core.errors import FileError, GeometryError, ZestyError, one_of
from zesty_pivot.core.formats import files
from zesty_pivot.core.formats.brought_in import BroughtIn
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.intake.hints import Hints, PieceHints
from zesty_pivot.core.intake.ruler.net import CLOSES, RulerNet, adjusted_net, said
from zesty_pivot.core.intake.ruler.outline import RuledPiece, drawn
from zesty_pivot.core.intake.ruler.sheet import RUNS_TO, Item, RulerPiece, edge_words, point_words, points_of
from zesty_pivot.core.intake.traced import TracedPaper
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.piece import Body
from zesty_pivot.core.quantity import Scope, Unit, format_length, length_mm, with_unit
from zesty_pivot.core.quantity.fields import Length, Model
from zesty_pivot.core.record import record

KIND = "ruler"
SUFFIX = ".zruler"
APART = 120.0  # mm between front and back on the paper
MOST_ITEMS = 8  # on an edge


class RulerMeasures(Model):
    """The measures of half a front or back: what lies on its edges, distances by point and by where they are measured from,
    lengths along an edge with a tape."""

    items: dict[str, tuple[Item, ...]] = Field(default_factory=dict, description="by edge, in order from the centre neck")
    distances: dict[str, dict[str, Length]] = Field(
        default_factory=dict, description="by point, by the point it is measured from"
    )
    along: dict[str, Length] = Field(default_factory=dict, description="by edge, along it, without the mouths of darts")

    @field_validator("items")
    @classmethod
    def _few(cls, value: dict[str, tuple[Item, ...]]) -> dict[str, tuple[Item, ...]]:
        for edge, items in value.items():
            _known_edge(edge)
            if len(items) > MOST_ITEMS:
                raise ValueError(f"{edge}: {len(items)} darts and points; {MOST_ITEMS} is the most")
        return value

    @field_validator("along")
    @classmethod
    def _edges(cls, value: dict[str, Length]) -> dict[str, Length]:
        for edge in value:
            _known_edge(edge)
        return value

    def piece(self, body: Body, unit: Unit) -> RulerPiece:
        """The same in mm; what stands for a point that is not there any longer is left out. Raises a ZestyError for a length
        that is none."""
        scope = Scope(unit)
        known = {point.id: point.sources for point in points_of(self.items)}
        distances = {}
        for id, row in self.distances.items():
            for source, text in row.items():
                if source in known.get(id, ()):
                    distances[id, source] = _length(text, scope, f"{point_words(id)} from {point_words(source)}")
        along = {edge: _length(text, scope, f"along the {edge_words(edge)}") for edge, text in self.along.items()}
        return RulerPiece(body, self.items, distances, along)


class RulerFile(Model):
    """What was measured on the paper of a block."""

    format: Literal["zesty-pivot/ruler"] = "zesty-pivot/ruler"
    version: Literal[1] = 1
    name: str = Field(default="Measured block", max_length=200)
    units: Unit = "cm"
    front: RulerMeasures | None = None
    back: RulerMeasures | None = None

    def of(self, body: Body) -> RulerMeasures | None:
        """The measures of the front or the back."""
        return self.front if body is Body.FRONT else self.back


def _known_edge(edge: str) -> None:
    if edge not in RUNS_TO:
        what, advice = one_of("edge", edge, tuple(RUNS_TO))
        raise ValueError(f"{what}. {advice}")


def _length(text: str | float, scope: Scope, where: str) -> float:
    mm = length_mm(text, scope)
    if not 0.0 < mm < 3000.0:
        raise FileError(f"{text} is no length that a ruler measures on a block", where=where, advice="Measure it again.")
    return mm


def with_units(file: RulerFile, unit: Unit) -> RulerFile:
    """A file with another unit for plain numbers; those that were typed say theirs."""

    def told(measures: RulerMeasures | None) -> RulerMeasures | None:
        if measures is None:
            return None
        rows = {
            id: {other: with_unit(text, file.units) for other, text in row.items()} for id, row in measures.distances.items()
        }
        along = {edge: with_unit(text, file.units) for edge, text in measures.along.items()}
        return measures.model_copy(update={"distances": rows, "along": along})

    if unit == file.units:
        return file
    return file.model_copy(update={"units": unit, "front": told(file.front), "back": told(file.back)})


def without_item(measures: RulerMeasures, edge: str, place: int) -> RulerMeasures:
    """Measures without the dart or point that lies at a place (from 0) of an edge; those of its kind after it, and their
    distances, move up."""
    items = measures.items.get(edge, ())
    kind = items[place]
    number = sum(1 for item in items[: place + 1] if item == kind)

    def renamed(id: str) -> str:
        on, _colon, item = id.partition(":")
        count = int(item.strip("pabti")) if item else 0
        if on != edge or (item[:1] == "p") != (kind == "point") or count < number:
            return id
        return "" if count == number else id.replace(f"{count}", f"{count - 1}")

    distances = {
        renamed(id): {renamed(source): value for source, value in row.items() if renamed(source)}
        for id, row in measures.distances.items()
        if renamed(id)
    }
    kept = {**measures.items, edge: (*items[:place], *items[place + 1 :])}
    return measures.model_copy(update={"items": kept, "distances": distances})


@record(eq=False)
class RuledSource(BroughtIn):
    """A block by ruler: its file, the nets and outlines of its pieces, and why a piece has none."""

    file: RulerFile
    nets: dict[Body, RulerNet]
    pieces: dict[Body, RuledPiece]
    faults: dict[Body, str]
    called: str = ""

    @property
    def name(self) -> str:
        """As its file is called, or would be."""
        return self.called or f"{self.file.name}{SUFFIX}"

    @property
    def hints(self) -> Hints:
        """Which piece and corner is which: the ruler's sheet says so."""
        return Hints(
            {
                number: PieceHints(body=body, corners=dict(piece.corners))
                for number, (body, piece) in enumerate(self.pieces.items())
            }
        )

    @cached_property
    def paper(self) -> TracedPaper:
        """The pieces. Raises FileError where none can be drawn yet."""
        if not self.pieces:
            body, why = next(
                iter(self.faults.items()), (Body.FRONT, "Nothing was measured. Measure every point from two others.")
            )
            what, _dot, advice = why.partition(". ")
            raise FileError(f"{what[0].lower()}{what[1:]}", where=f"{self.name}, {body.value}", advice=advice)
        return TracedPaper(tuple(piece.traced for piece in self.pieces.values()), tuple(self.notes()))

    def notes(self) -> list[str]:
        """What does not close, and what no distance holds, in sentences, front and back."""
        missing = [text for net in self.nets.values() for text in said(net)]
        return missing + [f"{body.value.capitalize()}: {text}." for body in self.nets for text in self.unclosed(body)]

    def unclosed(self, body: Body) -> list[str]:
        """What does not close on a piece, the worst first, in words."""

        def how(off: float) -> str:
            return f"{format_length(abs(off), self.file.units, fine=True)} {'longer' if off > 0 else 'shorter'}"

        net, piece = self.nets.get(body), self.pieces.get(body)
        found = [
            f"{point_words(one.point)} from {point_words(one.source)} is drawn {how(one.off)} than measured"
            for one in (net.open if net is not None else ())
        ]
        along = piece.along.items() if piece is not None else ()
        return found + [
            f"the {edge_words(edge)} is drawn {how(off)} than along the tape" for edge, off in along if abs(off) > CLOSES
        ]

    def lines(self, _unit: str | None = None) -> tuple[Path, ...]:
        """The outlines as they were drawn."""
        return tuple(piece.traced.outline for piece in self.pieces.values())

    def traced(self, _unit: str | None = None, _size: str = "") -> TracedPaper:
        """The pieces; raises FileError like `paper`."""
        return self.paper


def source(file: RulerFile, name: str = "") -> RuledSource:
    """The outlines that the measures make, as far as they do; what stands in the way is told by piece."""
    nets: dict[Body, RulerNet] = {}
    pieces: dict[Body, RuledPiece] = {}
    faults: dict[Body, str] = {}
    shift = 0.0
    for body in (Body.FRONT, Body.BACK):
        measures = file.of(body)
        if measures is None:
            continue
        try:
            piece = measures.piece(body, file.units)
            net = adjusted_net(piece)
            nets[body] = net
            if net.loose:
                faults[body] = " ".join(said(net))
                continue
            pieces[body] = drawn(piece, net, shift)
        except GeometryError:
            faults[body] = f"The {body.value}'s points make no outline: look at what does not close."
        except ZestyError as fault:
            faults[body] = str(fault)
        else:
            shift = float(pieces[body].traced.ring[:, 0].max()) + APART
    return RuledSource(file, nets, pieces, faults, name)


def is_ruler(content: bytes) -> bool:
    """Whether a file is a ruler file, by how it begins."""
    return content.lstrip()[:1] == b"{" and b'"zesty-pivot/ruler"' in content[:400]


def read(path: FilePath) -> RulerFile:
    """A ruler file; raises FileError in one line for anything that is none."""
    return files.validated(RulerFile, files.read_json(path, KIND), files.shown(path))


def from_bytes(name: str, content: bytes) -> RulerFile:
    """The same from its content; raises FileError."""
    return files.validated(RulerFile, files.parse_json(content.decode("utf-8", "replace"), KIND, name), name)


def dump(file: RulerFile) -> bytes:
    """The file's bytes."""
    return (file.model_dump_json(indent=1, exclude_none=True) + "\n").encode()
