"""What is kept of a recipe, as text that a person can read and check with a ruler: mm to a hundredth."""

from __future__ import annotations

import math
from collections.abc import Iterator

from zesty_pivot.core.finish.matched import matched
from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.ledger.fullness import station
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.pattern import numbered
from zesty_pivot.core.procedures.base import Context


def kept_text(style: Style) -> str:
    """The whole record of a style."""
    derived = derive(style)
    return "\n".join([*_steps(style, derived), *_pattern(derived), *_sheet(derived), *_hand(style, derived), ""])


def _mm(value: float) -> str:
    return f"{value + 0.0:.2f}".replace("-0.00", "0.00")


def _at(point: object) -> str:
    x, y = point  # type: ignore[misc]
    return f"({_mm(float(x))} {_mm(float(y))})"


def _line(path: Path) -> str:
    return f"{_at(path.start)} {_at(path.point_at(path.length / 2.0))} {_at(path.end)} {_mm(path.length)}"


def _steps(style: Style, derived: Derived) -> Iterator[str]:
    yield f"# {style.name}"
    for number, state in enumerate(derived.derivation.states[1:], start=1):
        yield f"{number} {state.step.said() if state.step is not None else ''}"
        if state.error is not None:
            yield f"  broken: {state.error}"
        for note in state.notes:
            yield f"  {note.piece}: {note.text}" + ("" if note.amount_mm is None else f" [{_mm(note.amount_mm)}]")
    for finding in derived.findings:
        weighed = f"({finding.value:.4g}/{finding.limit:.4g})"
        yield f"{finding.severity.value} {finding.check} {finding.place}: {finding.message} {weighed}"


def _pattern(derived: Derived) -> Iterator[str]:
    pattern, block = derived.pattern, derived.derivation.block
    for piece in pattern.with_extras:
        yield f"\n{numbered(pattern, piece)}: {piece.body.value}, fold {piece.fold}, {_mm(piece.area)} mm2"
        for run in piece.runs:
            side = piece.sides.of(run.edge)
            source = f"{run.source.edge} {run.source.u0:.3f}-{run.source.u1:.3f}{' mirrored' if run.source.is_mirrored else ''}"
            mouth = f" | {run.mouth}" if run.mouth else ""
            yield f"  {run.edge} {side.value if side else ''} {_line(run.path)} < {source}{mouth}"
        yield from _darts(piece, block.drafted(piece))
        for mark in piece.notches:
            yield f"  notch {mark.id} {mark.name} {mark.at.line} {mark.at.u:.4f} {mark.at.is_mirrored} {mark.strokes}"
    for seam in derived.look.seams:
        yield f"seam {seam.a} {_mm(seam.a_mm)} | {seam.b} {_mm(seam.b_mm)} | ease {_mm(seam.ease_mm)}"
    for account in derived.look.accounts:
        placed = "; ".join(f"{entry.dart} {entry.where} {entry.use} {entry.deg:.4f}" for entry in account.placed)
        yield f"account {account.piece} {account.pivot}: {account.block_deg:.4f} + {account.added_deg:.4f} = {placed}"
    yield f"girths {derived.girths}".replace("Girths", "")
    for extra in pattern.extras:
        for follow in extra.follows:
            yield f"{extra.piece.name} {follow.edge} along {follow.along}, shorter by {_mm(follow.shorter_mm)}"
    laid = matched(pattern, Context(block, derived.style.scope()))
    if laid is not None:
        for half in (laid.front, laid.back):
            ends = " ".join(_at(path.start) for _role, path in half.runs)
            yield f"matched {half.name} neck {_mm(half.neck_mm)} shoulder {_mm(half.shoulder_mm)} {ends}"
        yield f"corner {laid.corner_deg:.2f}"


def _darts(piece: Piece, block: Piece) -> Iterator[str]:
    for dart in piece.darts:
        legs = " ".join(_mm(leg) for leg in piece.legs(dart.id))
        yield (
            f"  dart {dart.id} {dart.use.value} of {dart.group} at {station(piece, block, dart.id)}: "
            f"{math.degrees(piece.angle(dart.id)):.4f} deg, mouth {_mm(piece.intake(dart.id))}, legs {legs}, "
            f"bow {_mm(dart.shape.bow_mm)} bend {_mm(dart.shape.bend_mm)}, hold {dart.hold}, away {[p.id for p in dart.parked]}"
        )
    for eye in piece.fisheyes:
        corners = " ".join(_at(corner) for corner in eye.corners)
        yield f"  fish-eye {eye.id} {piece.sides.of(eye.id)} {corners} bow {_mm(eye.bow_mm)}"


def _sheet(derived: Derived) -> Iterator[str]:
    for piece in derived.pieces:
        yield f"\nsheet {piece.name}: {piece.cut_words}, cut line {_mm(float(len(piece.ring)))}"
        yield from _strokes(piece)


def _strokes(piece: FinishedPiece) -> Iterator[str]:
    for stroke in piece.strokes:
        yield f"  {stroke.layer} {stroke.kind} {stroke.id} {' ; '.join(_line(path) for path in stroke.paths)}"
    for circle in piece.circles:
        yield f"  circle {circle}"
    for text in piece.texts:
        yield f"  text {text.text!r} {_at(text.at)} {text.size:.2f} turned {text.turn:.2f} {'bold' if text.bold else ''}"
    for dart in piece.darts:
        sewn = f"set back {_mm(dart.setback_mm)} pressed {dart.fold} cut away {_mm(dart.cut_away_mm)}"
        yield f"  sewn {dart.dart} {sewn} {dart.note}"


def _hand(style: Style, derived: Derived) -> Iterator[str]:
    for way in ("pivot", "slash"):
        yield f"\nby hand, {way}"
        for section in derived.by_hand(way):  # type: ignore[arg-type]
            yield f"  {section.title}"
            yield from (f"    {line.do}: {line.text}" for line in section.lines)
