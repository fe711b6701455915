"""What is looked at on a block that came in from outside: front and back walked at shoulder, side and armhole, legs,
corners; each with its difference, and where there is one a mend."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator

import numpy as np

from zesty_pivot.core.checks.base import Look
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile, BlockPiece
from zesty_pivot.core.geometry import Path, bezier, svgpath
from zesty_pivot.core.piece import Body, Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import Scope, Unit, format_length
from zesty_pivot.core.record import record

EQUAL = 1.0  # mm that partners may differ: TRADE 9.1
SHOULDER_EASE = 13.0  # mm that a back shoulder is longer to be eased in: up to half an inch, common practice, no source
USUAL_EASE = 6.35  # mm of it that a mend leaves: 1/4 in, common practice, no source
MOST_MENDED = 30.0  # mm; more is no slip of the pencil, and the seam's end is not simply moved
SEEN = ("dart_legs", "corners", "outline", "neck_width")  # checks of styles that a block passes as well


@record
class BlockMend:
    """A mend of a block: what it does, in words, and the block after it."""

    title: str
    block: BlockFile


@record
class Walked:
    """One line: what was looked at, what was found, whether it is right, what to do, and what would mend it. What is `trued`
    in the style, such as the corner across a dart, is no fault of the block."""

    title: str
    says: str
    is_right: bool
    advice: str = ""
    mend: BlockMend | None = None
    is_trued_later: bool = False


def walk_block(block: BlockFile, unit: Unit) -> list[Walked]:
    """The lines, in the order in which one looks; lengths told in a unit."""
    pattern = block_file.pattern(block)
    by_body = {piece.body: piece for piece in pattern.pieces}
    front, back = by_body.get(Body.FRONT), by_body.get(Body.BACK)
    found: list[Walked] = []
    if front is not None and back is not None:
        found += _partners(block, front, back, unit)
    else:
        other = "back" if front is not None else "front"
        advice = f"Import the {other} as well, to walk them."
        found.append(Walked("Front and back", f"there is no {other}", is_right=False, advice=advice, is_trued_later=True))
    found += _found(block, pattern, unit)
    return found


def _partners(block: BlockFile, front: Piece, back: Piece, unit: Unit) -> Iterator[Walked]:
    def told(mm: float) -> str:
        return format_length(mm, unit, fine=True)

    for role, title, ease in (("shoulder", "Shoulders", SHOULDER_EASE), ("side_seam", "Side seams", 0.0)):
        one, two = _sewn(front, role), _sewn(back, role)
        off = two - one
        says = f"front {told(one)}, back {told(two)}, darts shut"
        if abs(off) <= EQUAL:
            yield Walked(title, says, is_right=True)
        elif 0.0 < off <= ease:
            yield Walked(title, f"{says}; the back is eased by {told(off)}", is_right=True)
        else:
            longer = "back" if off > 0.0 else "front"
            says = f"{says}; the {longer} is longer by {told(abs(off))}"
            kept = USUAL_EASE if off > ease > 0.0 else 0.0  # a back that is too long keeps what is eased in
            rest = f", {told(kept)} of the back eased in" if kept else ""
            mend = _lengthened(block, front, role, off - kept, f"{title.lower()}{rest}") if abs(off) <= MOST_MENDED else None
            advice = "" if mend else "Look at the corners: one may be tagged wrongly."
            yield Walked(title, says, is_right=False, advice=advice, mend=mend)
    one, two = _sewn(front, "armhole"), _sewn(back, "armhole")
    yield Walked("Armhole", f"{told(one + two)} round: front {told(one)}, back {told(two)}", is_right=True)


def _sewn(piece: Piece, role: str) -> float:
    return sum(edge.sewn_length for edge in piece.edges if edge.role == role)


def _found(block: BlockFile, pattern: Pattern, unit: Unit) -> Iterator[Walked]:
    look = Look(pattern, pattern, Finish(), Scope(unit, dict(block.measurements)))
    seen = [finding for finding in findings(look, at_rest=False) if finding.check in SEEN]
    for finding in seen:
        advice, is_corner = f"In the style: {finding.advice}", finding.check == "corners"
        yield Walked(words(finding.piece).capitalize(), finding.message, False, advice, is_trued_later=is_corner)
    if not seen:
        yield Walked("Joins", "neck, armhole and waist run smooth over their seams", is_right=True)


# By role: the edge that follows at the end that is moved.
_AFTER: dict[str, tuple[str, ...]] = {"shoulder": ("armhole",), "side_seam": ("waist", "hem")}


def _lengthened(block: BlockFile, piece: Piece, role: str, by: float, title: str) -> BlockMend | None:
    """The front's seam made as long as its partner: its outer or lower end is moved along it, and the edge that begins there
    with it."""
    model = next(one for one in block.pieces if one.name == piece.name)
    after = next((edge.id for edge in model.edges if edge.role in _AFTER[role]), None)
    mine = next(edge.id for edge in model.edges if edge.role == role)
    if after is None:
        return None
    runs = [run for run in piece.runs if run.edge == mine]
    end = runs[-1].path.end
    to = end + runs[-1].path.end_direction * by

    def moved(edge_id: str, change: Callable[[list[Path]], list[Path]]) -> BlockPiece:
        edges = tuple(
            edge.model_copy(update={"path": svgpath.write(change(svgpath.read(edge.path)))}) if edge.id == edge_id else edge
            for edge in model.edges
        )
        return model.model_copy(update={"edges": edges})

    model = moved(mine, lambda paths: [*paths[:-1], _with_end(paths[-1], to)])
    model = moved(after, lambda paths: [_with_end(paths[0].reversed(), to).reversed(), *paths[1:]])
    corner = {
        name: (round(float(to[0]), 6), round(float(to[1]), 6))
        for name, at in model.landmarks.items()
        if math.dist(at, end) < 0.01
    }
    model = model.model_copy(update={"landmarks": {**model.landmarks, **corner}})
    mended = block.model_copy(update={"pieces": tuple(model if one.name == model.name else one for one in block.pieces)})
    try:
        block_file.pattern(mended)
    except ZestyError:
        return None
    return BlockMend(f"Make the front's as long as the back's: {title}", mended)


def _with_end(path: Path, to: np.ndarray) -> Path:
    cubics = path.cubics.copy()
    last = cubics[-1]
    cubics[-1] = bezier.line(last[0], to) if bezier.is_straight(last) else np.vstack([last[:2], last[2:] + (to - last[3])])
    return Path(cubics)
