"""A block graded from one body to another by a table of rules, and where its points go."""

from __future__ import annotations

from collections.abc import Mapping

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile, BlockPiece
from zesty_pivot.core.geometry import svgpath
from zesty_pivot.core.piece import Body
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.graded_piece import PieceGrading, Spot
from zesty_pivot.core.sizes.rules import BODICE, CHILD, DartRule, RuleTable, SizeDifferences, point_rule, rule_table

ROUNDS = 8  # in which the side seams come to match: each leaves a hundredth of what was off


@record
class Arrow:
    """Where a point of a piece was and where it is graded to, mm, and why."""

    piece: str
    point: str
    start: Spot
    end: Spot
    why: str


def graded(
    block: BlockFile, base: Mapping[str, float], size: Mapping[str, float], *, darts: DartRule = "grow", name: str = "",
    is_child: bool = False,
) -> BlockFile:  # fmt: skip
    """A block that fits one body (measurements in mm) graded to another. Raises ZestyError where a rule lacks a measurement or
    what comes of it is no sound block."""
    differences = SizeDifferences(base, size, is_child=is_child)
    title = name or block.name
    if differences.are_nothing:
        return block.model_copy(update={"name": title})
    pieces = _partners(block, differences, darts)
    measures = {known: round(mm, 6) for known, mm in size.items()}
    made = block.model_copy(
        update={"name": title, "pieces": pieces, "measurements": measures, "method": None, "settings": {}, "own_method": None}
    )
    try:
        block_file.pattern(made)
    except ZestyError as fault:
        where = ", ".join(filter(None, (f"grading to {title}", fault.where)))
        raise ZestyError(fault.what, where=where, advice="The sizes lie too far apart for this block: draft it.") from None
    return made


def _partners(block: BlockFile, differences: SizeDifferences, darts: DartRule) -> tuple[BlockPiece, ...]:
    """All pieces graded; the front's side seam ends where it is as much longer or shorter than the back's as it was."""
    table = table_for(block)
    pieces = [PieceGrading(piece, differences, table, darts).made() for piece in block.pieces]
    sides = {piece.body: n for n, piece in enumerate(block.pieces) if _side_mm(piece)}
    if Body.FRONT not in sides or Body.BACK not in sides:
        return tuple(pieces)
    front, back = sides[Body.FRONT], sides[Body.BACK]
    wanted = _side_mm(pieces[back]) + _side_mm(block.pieces[front]) - _side_mm(block.pieces[back])
    lower = 0.0
    for _round in range(ROUNDS):
        off = wanted - _side_mm(pieces[front])
        if abs(off) < 1e-7:
            break
        lower += off
        pieces[front] = PieceGrading(block.pieces[front], differences, table, darts, lower).made()
    return tuple(pieces)


def _side_mm(piece: BlockPiece) -> float:
    """The sewn length of a piece's side seam, 0 where it has none."""
    return sum(path.length for edge in piece.edges if edge.role == "side_seam" for path in svgpath.read(edge.path))


def arrows(
    block: BlockFile, base: Mapping[str, float], size: Mapping[str, float], *, darts: DartRule = "grow", is_child: bool = False
) -> tuple[Arrow, ...]:
    """Where the points that rules are named for go, on the pieces as they lie."""
    made = graded(block, base, size, darts=darts, is_child=is_child)
    table, found = table_for(block), list[Arrow]()
    for old, new in zip(block.pieces, made.pieces, strict=True):
        for point, at in old.landmarks.items():
            rule = point_rule(table, point, old.body)
            if rule is not None:
                found.append(Arrow(old.name, point, at, new.landmarks[point], rule.why))
    return tuple(found)


def table_for(block: BlockFile) -> RuleTable:
    """The rules that a block is graded by: a child's has no bust point."""
    return rule_table(BODICE if block.has_bust_point else CHILD)
