"""report.json: the pattern in figures. Plain dataclasses, as it is only ever written."""

from __future__ import annotations

import itertools
import json
import math
from collections.abc import Iterator
from dataclasses import asdict
from typing import Literal

from zesty_pivot.core.checks.base import Finding
from zesty_pivot.core.formats import variants
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.file_names import svg_names
from zesty_pivot.core.ledger.fullness import station
from zesty_pivot.core.ledger.seams import finished_length
from zesty_pivot.core.moves.laid_open import laid_open, layers
from zesty_pivot.core.piece import EdgeRef, Piece, dart_words
from zesty_pivot.core.record import record


@record
class EdgeRow:
    """An edge with its sewn length in mm."""

    id: str
    role: str
    sewn_mm: float


@record
class DartRow:
    """A dart: where it opens and what it is called there, its use, angle in degrees, mouth, legs to the pivot and set-back in
    mm."""

    id: str
    station: str
    called: str
    use: str
    angle_deg: float
    intake_mm: float
    leg_mm: tuple[float, float]
    point_setback_mm: float


@record
class ReportPiece:
    """A piece with its cut order, the name of its SVG file, and its area (darts left out) in mm2."""

    name: str
    cut: str
    svg: str
    area_mm2: float
    edges: tuple[EdgeRow, ...]
    darts: tuple[DartRow, ...]


@record
class SeamRow:
    """A seam's account in mm."""

    a: str
    b: str
    a_mm: float
    b_mm: float
    ease_mm: float
    difference_mm: float


@record
class PlacedRow:
    """One entry of a fullness account."""

    where: str
    use: str
    deg: float


@record
class AccountRow:
    """A pivot's fullness account in degrees; the pivot is written `piece.pivot`."""

    pivot: str
    block_deg: float
    placed: tuple[PlacedRow, ...]
    missing_deg: float
    added_deg: float = 0.0  # what steps put in on purpose, negative for what they took out


@record
class GirthRow:
    """Finished girths in mm, null where the pattern has no such line."""

    bust: float | None
    waist: float | None
    hip: float | None
    neck_opening: float | None


@record
class MeasuredRow:
    """The finished length in mm, both halves, that was written down when an edge was drawn; `role` is the edge's."""

    role: str
    mm: float


@record
class TapeRow:
    """A tape that was kept: its number in the recipe, its name, what formulas call it, what it
    shows and is asked to hold, mm."""

    step: int
    name: str
    formula: str
    piece: str
    mm: float
    hold_mm: float | None


@record
class OpeningRow:
    """A zip or slit at a piece's centre, its length in mm as it was made."""

    piece: str
    kind: str
    length_mm: float


@record
class FollowRow:
    """An edge of a facing, the garment's edges that it follows, and how much shorter it is meant to be, mm."""

    edge: str
    follows: str
    less_mm: float


@record
class FullnessRow:
    """Gathers, pleats or tucks at one edge: how long the stretch is on the paper and once taken up, mm; `held` is false where
    they hang free; `count` is how many folds, of gathers 1; `layers` lie in the seam."""

    piece: str
    id: str
    kind: str
    edge: str
    open_mm: float
    finished_mm: float
    taken_mm: float
    held: bool
    count: int
    layers: float


@record
class TrimRow:
    """A part of a trim: the length in mm of the edge that it is sewn to, its cutting order, and what there is to say of it."""

    piece: str
    edge_mm: float
    cut: str
    told: str


@record
class FindingRow:
    """A finding of a check; `accepted` is the reason why it may stay, where one was given."""

    check: str
    severity: Literal["error", "warning", "remark"]
    piece: str
    message: str
    value: float
    limit: float
    advice: str
    accepted: str = ""


@record
class ToldRow:
    """What a step said of its work: its number in the recipe, the piece, the sentence, and the amount in it in mm (what it
    moved, took or gave), None where there is none."""

    step: int
    piece: str
    text: str
    amount_mm: float | None


@record
class Report:
    """A derived style in figures."""

    style: str
    pieces: tuple[ReportPiece, ...]
    seams: tuple[SeamRow, ...]
    accounts: tuple[AccountRow, ...]
    girths: GirthRow
    findings: tuple[FindingRow, ...]
    measured: tuple[MeasuredRow, ...] = ()
    openings: tuple[OpeningRow, ...] = ()
    facings: tuple[FollowRow, ...] = ()
    told: tuple[ToldRow, ...] = ()
    fullness: tuple[FullnessRow, ...] = ()
    trims: tuple[TrimRow, ...] = ()
    tapes: tuple[TapeRow, ...] = ()
    variant: str = ""  # which of the style's variants this is
    format: Literal["zesty-pivot/report"] = "zesty-pivot/report"
    version: Literal[1] = 1


def report(derived: Derived) -> Report:
    """The report of a derived style."""
    girths = derived.girths
    names = svg_names(piece.name for piece in derived.pattern.with_extras)
    return Report(
        style=derived.style.name,
        variant=shown.name if (shown := variants.shown(derived.style.variants)) is not None else "",
        pieces=tuple(
            _piece(derived, piece, number, names[piece.name]) for number, piece in enumerate(derived.pattern.with_extras)
        ),
        seams=tuple(
            SeamRow(a=str(s.a), b=str(s.b), a_mm=s.a_mm, b_mm=s.b_mm, ease_mm=s.ease_mm, difference_mm=s.difference_mm)
            for s in derived.look.seams
        ),
        accounts=tuple(
            AccountRow(
                pivot=f"{account.piece}.{account.pivot}",
                block_deg=account.block_deg,
                placed=tuple(PlacedRow(where=entry.where, use=entry.use, deg=entry.deg) for entry in account.placed),
                missing_deg=account.missing_deg,
                added_deg=account.added_deg,
            )
            for account in derived.look.accounts
        ),
        girths=GirthRow(bust=girths.bust, waist=girths.waist, hip=girths.hip, neck_opening=girths.neck_opening),
        findings=tuple(_finding(found) for found in derived.findings),
        measured=tuple(MeasuredRow(one.role, one.mm) for one in derived.pattern.measured),
        openings=tuple(OpeningRow(one.piece, one.kind, one.length_mm) for one in derived.pattern.openings),
        facings=tuple(
            FollowRow(str(EdgeRef(extra.piece.name, one.edge)), str(one.along), one.shorter_mm)
            for extra in derived.pattern.extras
            for one in extra.follows
        ),
        told=tuple(
            ToldRow(number, note.piece, note.text, note.amount_mm)
            for number, state in enumerate(derived.derivation.states)
            for note in state.notes
        ),
        fullness=tuple(row for piece in derived.pattern.with_extras for row in _fullness(piece)),
        trims=tuple(
            TrimRow(extra.piece.name, extra.edge_mm, finished.cut_words, extra.told)
            for extra, finished in zip(derived.pattern.extras, derived.pieces[len(derived.pattern.pieces) :], strict=True)
            if extra.asked is not None
        ),
        tapes=tuple(_tapes(derived)),
    )


def _finding(found: Finding) -> FindingRow:
    return FindingRow(
        check=found.check, severity=found.severity.value, piece=found.piece, message=found.message, value=found.value,
        limit=found.limit, advice=found.advice, accepted=found.accepted,
    )  # fmt: skip


def _tapes(derived: Derived) -> Iterator[TapeRow]:
    states = derived.derivation.states
    for number, (before, after) in enumerate(itertools.pairwise(states), start=1):
        for one in after.pattern.tapes[len(before.pattern.tapes) :]:
            yield TapeRow(number, one.name, one.key, one.on, one.mm, one.hold_mm)


def _fullness(piece: Piece) -> Iterator[FullnessRow]:
    for laid in laid_open(piece)[1] if piece.fullness else ():
        full = laid.fullness
        for end in laid.ends:
            count, thick = max(1, len(laid.lines)), layers(laid, end) if end.held else 1.0
            lengths = end.open_mm, end.sewn_mm, end.taken_mm
            yield FullnessRow(piece.name, full.id, full.style, end.edge, *lengths, end.held, count, thick)


def _piece(derived: Derived, piece: Piece, number: int, svg: str) -> ReportPiece:
    finished = derived.pieces[number]
    setbacks = {dart.dart: dart.setback_mm for dart in finished.darts}
    block = derived.derivation.block.drafted(piece)
    return ReportPiece(
        name=piece.name,
        cut=finished.cut_words,
        svg=svg,
        area_mm2=laid_open(piece)[0].area if piece.fullness else piece.area,
        edges=tuple(EdgeRow(id=edge.id, role=edge.role, sewn_mm=finished_length(piece, edge.id)) for edge in piece.edges),
        darts=tuple(
            DartRow(
                id=dart.id,
                station=station(piece, block, dart.id),
                called=dart_words(piece, dart.id),
                use=dart.use.value,
                angle_deg=math.degrees(piece.angle(dart.id)),
                intake_mm=piece.intake(dart.id),
                leg_mm=piece.legs(dart.id),
                point_setback_mm=setbacks.get(dart.id, 0.0),
            )
            for dart in piece.darts
        ),
    )


def dump(value: Report, stand: dict[str, object] | None = None) -> bytes:
    """The file's bytes; with what the stand tells, where it was asked for."""
    content = asdict(value)
    if stand is not None:
        content["stand"] = stand
    head = {"format": content.pop("format"), "version": content.pop("version")}
    return (json.dumps({**head, **content}, indent=1, ensure_ascii=False) + "\n").encode()
