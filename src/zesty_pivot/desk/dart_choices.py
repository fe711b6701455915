"""How a dart can be sewn, as choices: where its point is, to which side it is folded, how its mouth ends."""

from __future__ import annotations

from zesty_pivot.core.conventions.schools import SETBACKS
from zesty_pivot.core.conventions.sewing import setback_of
from zesty_pivot.core.piece import Body, Piece
from zesty_pivot.core.quantity import format_length
from zesty_pivot.core.record import replace
from zesty_pivot.desk.document import Document

OWN = "own"
AS_STYLE = "school"
DART_ENDS = [("cap", "folded, with a cap"), ("cut_away", "cut away inside"), ("press_away", "not sewn, pressed away")]

Choices = tuple[list[tuple[str, str]], str]  # values with titles, and the one that is chosen


def point_choices(document: Document, piece: Piece, dart: str, key: str) -> Choices:
    """Where a dart is sewn to: what stands there without a choice, then the schools. `key` is the dart's in the finish."""
    style = document.style
    own = style.finish.darts.get(key)
    undecided = replace(document.derived.derivation.sewing, own=())
    mm = format_length(setback_of(piece, dart, undecided), style.units)
    if piece.dart(dart).extended_mm > 0.0:
        said = f"{mm}, as the block has it"
    else:
        said = f"{mm}, its own tip" if piece.body is Body.BACK else f"{mm}, as the style"
    schools = [("", said), *((name, school.title) for name, school in SETBACKS.items())]
    if own is not None and own.setback is not None:
        return [*schools, (OWN, f"{own.setback}, its own")], OWN
    return schools, own.school or "" if own else ""


def end_choices(document: Document, key: str) -> Choices:
    """How the mouth of a dart ends."""
    own = document.style.finish.darts.get(key)
    return [(AS_STYLE, "as the style"), *DART_ENDS], own.end if own and own.end else AS_STYLE


def fold_choices(document: Document, piece: Piece, dart: str, key: str) -> Choices:
    """To which side a dart is folded, said by where that side lies."""
    own = document.style.finish.darts.get(key)
    first, second = piece.mouth(dart)
    x, y = first - second
    if abs(x) > abs(y):
        is_inwards = abs(float(first[0])) < abs(float(second[0]))
        centre = {Body.FRONT: "towards CF", Body.BACK: "towards CB"}.get(piece.body, "towards the centre")
        sides = (centre, "towards the side") if is_inwards else ("towards the side", centre)
    else:
        sides = ("up", "down") if y < 0.0 else ("down", "up")
    sewn = [each for one in document.derived.pieces if one.name == piece.name for each in one.darts if each.dart == dart]
    now = sewn[0].fold if sewn else ""
    told = dict(zip(("before", "after"), sides, strict=True)).get(now, "")
    return [
        (AS_STYLE, f"{told}, as the style" if told else "as the style"), ("before", sides[0]), ("after", sides[1]),
    ], own.fold if own and own.fold else AS_STYLE  # fmt: skip
