"""The cut sheet and the making sheet: what is cut of what, what else is needed, and in which order it is sewn."""

from __future__ import annotations

import csv
import io
import json
from itertools import islice

from zesty_pivot.core.conventions.options import is_on_fold
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.piece import FinishedPiece, allowance_of, cut_order
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.kept_lay import OF_KIND, laid, laid_from
from zesty_pivot.core.formats.lay_models import CLOTHS, WIDTHS, LayFile
from zesty_pivot.core.formats.sketch import sketched
from zesty_pivot.core.making.flat_sketch import SketchView
from zesty_pivot.core.making.operations import SewingStep, sewing_order
from zesty_pivot.core.nest.cut_pieces import count_of
from zesty_pivot.core.piece import Piece, dart_key
from zesty_pivot.core.piece.names import capital, words
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import record

# Trims of which a length is bought or cut on, by kind: what it is called among the notions. Common practice, no source.
BY_LENGTH = {"piping": "piping cord", "stay": "stay tape", "casing": "elastic or cord for the casing"}


@record(eq=False)
class CutRow:
    """A piece to be cut: how often in words and in pieces of cloth, from which cloths, its size (mm) and its allowances."""

    number: int
    name: str
    order: str
    count: int
    cloths: tuple[str, ...]
    is_mirrored: bool
    size: tuple[float, float]
    allowances: str
    piece: FinishedPiece


@record(eq=False)
class StandShown:
    """The pattern on its form: a picture (PNG, nothing where it could not be tried on), and what is said of it."""

    picture: bytes
    says: tuple[str, ...]


@record(eq=False)
class CutSheet:
    """Everything on it: `head` and `lays` are names with what they are, `watch` points that findings speak of, `sketch` the
    garment from the front and from the back, `stand` the pattern on its form where that was asked for."""

    head: tuple[tuple[str, str], ...]
    rows: tuple[CutRow, ...]
    notions: tuple[tuple[str, str], ...]
    lays: tuple[tuple[str, str], ...]
    order: tuple[SewingStep, ...]
    watch: tuple[str, ...]
    sketch: tuple[SketchView, ...]
    stand: StandShown | None = None


def cut_sheet(derived: Derived, stand: StandShown | None = None) -> CutSheet:
    """The cut sheet of a style, lengths in its unit."""
    kinds = {extra.piece.name: extra.kind for extra in derived.pattern.extras}
    drawn = {piece.name: piece for piece in derived.pattern.with_extras}
    rows = []
    for number, piece in enumerate(derived.sheet_pieces, start=1):
        left, top, right, bottom = piece.box()
        count = count_of(piece.cut)
        rows.append(
            CutRow(
                number, capital(words(piece.name)), piece.cut_words, count, OF_KIND.get(kinds.get(piece.name, ""), ("self",)),
                piece.cut == "pair", (right - left, bottom - top), _allowances(derived, drawn[piece.name]), piece,
            )
        )  # fmt: skip
    pressed = frozenset(
        f"{piece.name}.{dart.id}" for piece in derived.pattern.pieces for dart in piece.darts
        if derived.style.finish.of_dart(dart_key(piece, dart.id)).end == "press_away"
    )  # fmt: skip
    watch = tuple(
        f"{words(one.piece)}: {one.message}" if one.piece else one.message for one in derived.findings if not one.accepted
    )
    return CutSheet(
        derived.sheet.title, tuple(rows), _notions(derived), _lays(derived), sewing_order(derived.pattern, pressed), watch,
        sketched(derived), stand,
    )  # fmt: skip


def _allowances(derived: Derived, piece: Piece) -> str:
    """The allowances of a piece's edges, each width with the edges that have it; the commonest first and without names."""
    finish, scope, unit = derived.style.finish, derived.look.scope, derived.style.units
    extra = next((one for one in derived.pattern.extras if one.piece.name == piece.name), None)
    on_fold = is_on_fold(extra.cut if extra is not None else cut_order(piece, finish))
    widths: dict[str, list[str]] = {}
    for edge, role in piece.roles:
        if edge == piece.fold and on_fold:
            continue
        try:
            mm = allowance_of(piece, edge, finish, scope)
        except ZestyError:
            continue  # a finding tells of a length that cannot be read
        widths.setdefault(format_length(mm, unit), []).append(words(role))
    if not widths:
        return "none"
    first, *others = sorted(widths, key=lambda width: -len(widths[width]))
    return "; ".join([first, *(f"{' and '.join(dict.fromkeys(widths[width]))} {width}" for width in others)])


def _notions(derived: Derived) -> tuple[tuple[str, str], ...]:
    """Zips and slits, lengths of what is sewn on, thread."""
    unit, found = derived.style.units, list[tuple[str, str]]()
    for opening in derived.pattern.openings:
        name = {"zip": "Zip", "slit": "Fastening of the slit", "placket": "Buttons or snaps for the placket"}
        found.append((name.get(opening.kind, capital(opening.kind)), format_length(opening.length_mm, unit)))
    for extra in derived.pattern.extras:
        if extra.kind in BY_LENGTH and extra.edge_mm:
            found.append((capital(BY_LENGTH[extra.kind]), format_length(extra.edge_mm, unit)))
    if any("interfacing" in OF_KIND.get(extra.kind, ()) for extra in derived.pattern.extras):
        found.append(("Interfacing", "for the facings"))
    found.append(("Thread", "matching"))
    return tuple(found)


def _lays(derived: Derived) -> tuple[tuple[str, str], ...]:
    """How much cloth: of the lays that are kept, else one by one on cloth of the usual widths."""
    unit, found = derived.style.units, list[tuple[str, str]]()
    own = [one for one in derived.style.lays if one.variant in ("", derived.style.variant)]
    for kept in own or [LayFile(cloth=cloth, width=width) for cloth in CLOTHS for width in WIDTHS]:
        try:
            plan = laid_from(derived, kept)
            if plan is None or plan.clashes:
                plan = min(islice(laid(derived, kept, seconds=0), 3), key=lambda one: one.length)
        except ZestyError as fault:
            said = fault.what
        else:
            if not plan.pieces:
                continue
            said = format_length(plan.bought, unit)
        found.append((f"{capital(kept.cloth)}, {kept.width} wide{', folded' if kept.folded else ''}", said))
    return tuple(found)


def as_csv(sheet: CutSheet) -> bytes:
    """The pieces as a table."""
    out = io.StringIO()
    write = csv.writer(out)
    write.writerow(["number", "piece", "cut", "pieces of cloth", "cloth", "mirrored", "width mm", "height mm", "allowances"])
    for row in sheet.rows:
        write.writerow(
            [
                row.number, row.name, row.order, row.count, " and ".join(row.cloths), "yes" if row.is_mirrored else "no",
                f"{row.size[0]:.1f}", f"{row.size[1]:.1f}", row.allowances,
            ]
        )  # fmt: skip
    return out.getvalue().encode()


def as_json(sheet: CutSheet) -> bytes:
    """All of it, for other programs."""
    value = {
        "format": "zesty-pivot/cut-sheet",
        "version": 1,
        "head": dict(sheet.head),
        "pieces": [
            {
                "number": row.number, "name": row.piece.name, "cut": row.piece.cut, "count": row.count,
                "cloths": list(row.cloths), "mirrored": row.is_mirrored, "width_mm": round(row.size[0], 2),
                "height_mm": round(row.size[1], 2), "allowances": row.allowances,
            }
            for row in sheet.rows
        ],
        "notions": [{"what": name, "how_much": said} for name, said in sheet.notions],
        "cloth": [{"what": name, "length": said} for name, said in sheet.lays],
        "order": [
            {"id": one.id, "says": one.says, "stitches_per_10_cm": one.stitches, "after": list(one.after)}
            for one in sheet.order
        ],
        "watch": list(sheet.watch),
    }  # fmt: skip
    return (json.dumps(value, indent=1, ensure_ascii=False) + "\n").encode()
