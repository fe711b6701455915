"""All pieces of a pattern finished. A piece that cannot be is drawn by its seam lines alone, and says why."""

from __future__ import annotations

import textwrap
from collections.abc import Iterator, Mapping
from functools import partial

import numpy as np
import shapely

from zesty_pivot.core import faults
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.conventions.sewing import sewing_of
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.finish.labels import label
from zesty_pivot.core.finish.piece import FinishedPiece, Stroke, finish_piece
from zesty_pivot.core.finish.tapes import tape_marks
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.piece import Extra, Pattern, Piece
from zesty_pivot.core.piece.mark import Mark
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.pattern import panel_words
from zesty_pivot.core.piece.region import cloth
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.record import replace

_LINE = 34  # characters of a line of the reason


def finish_pattern(
    pattern: Pattern, finish: Finish, scope: Scope, style: str, block: Pattern | None = None
) -> tuple[FinishedPiece, ...]:
    """The finished pieces: those of the body, then facings, straps and linings. Raises nothing: a piece that cannot be finished
    has a `fault` and no cut line."""
    return tuple(finishing(pattern, finish, scope, style, block))


def finishing(
    pattern: Pattern, finish: Finish, scope: Scope, style: str, block: Pattern | None = None
) -> Iterator[FinishedPiece]:
    """The same one by one: a piece takes some tens of milliseconds."""
    marks: Mapping[str, tuple[Mark, ...]] = {}
    if any(tape.on_sheet for tape in pattern.tapes):
        marks = tape_marks(pattern, Context(block or pattern, scope, sewing_of(finish, scope)))
    for piece in pattern.pieces:
        drafted = None if block is None else block.drafted(piece)
        yield _of_body(piece, finish, scope, style, panel_words(pattern, piece), drafted, marks.get(piece.name, ()))
    for extra in pattern.extras:
        yield _extra(extra, finish, scope, style)


_KEPT: Kept[FinishedPiece] = Kept()


def _of_body(
    piece: Piece, finish: Finish, scope: Scope, style: str, panel: str, drafted: Piece | None, marks: tuple[Mark, ...]
) -> FinishedPiece:  # fmt: skip
    marked = piece if not marks else replace(piece, marks=(*piece.marks, *marks))
    work = partial(_finished, marked, finish, scope, style, panel, drafted)
    written = tuple((mark.id, mark.text, mark.path) for mark in marks)
    return _KEPT.get((piece, finish, drafted), (*scope.key(), style, panel, *written), work)


def _extra(extra: Extra, finish: Finish, scope: Scope, style: str) -> FinishedPiece:
    work = partial(_finished, extra.piece, _of_extra(extra, finish), scope, style, "")
    return _KEPT.get((extra, finish), (*scope.key(), style), work)


def _of_extra(extra: Extra, finish: Finish) -> Finish:
    """How a facing, strap or lining is finished: cut as it says itself unless the user decided otherwise."""
    name = extra.piece.name
    asked = finish.cut.get(name, "auto")
    cut = {**finish.cut, name: extra.cut if asked == "auto" else asked}
    cloth = {"lining": "lining", "facing": f"{finish.cloth}, interfacing" if finish.cloth else "self, interfacing"}
    return finish.model_copy(update={"cut": cut, "cloth": cloth.get(extra.kind, finish.cloth)})


def _finished(
    piece: Piece, finish: Finish, scope: Scope, style: str, panel: str, drafted: Piece | None = None
) -> FinishedPiece:  # fmt: skip
    try:
        return finish_piece(piece, finish, scope, style, panel=panel, drafted=drafted)
    except ZestyError as fault:
        return seam_only(piece, str(fault))
    except Exception as fault:  # noqa: BLE001 - the boundary of a piece's finish: the other pieces are finished
        return seam_only(piece, faults.sentence("its finish", faults.caught(fault, f"the finish of {words(piece.name)}")))


def seam_only(piece: Piece, why: str) -> FinishedPiece:
    """A piece by its seam lines, with the reason why it has no cut line written on it. Assumes a sound piece."""
    strokes = [Stroke("seam", "seam", edge.id, tuple(run.path for run in edge.runs)) for edge in piece.edges]
    ring = np.concatenate([run.path.outline for run in piece.runs])
    lines = [
        (words(piece.name), 8.0, True),
        ("no cut line", 6.0, True),
        *((row, 4.0, False) for row in textwrap.wrap(why, _LINE)),
    ]
    widest = max(shapely.get_parts(cloth(piece)), key=lambda part: float(part.area))
    texts = label(lines, widest) if widest.area > 0.0 else ()
    return FinishedPiece(piece.name, "one", tuple(strokes), (), texts, (), (), ring, (), why)
