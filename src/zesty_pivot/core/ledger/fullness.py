"""The fullness account of each pivot, in degrees: what the block holds, where it sits now, what is missing."""

from __future__ import annotations

import math

from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece import Pattern, Piece, Place, Side, StyleLine
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import describe
from zesty_pivot.core.record import record

# Degrees under this are the noise of float64; anything more has been lost or gained. From the design's bar.
NOISE_DEG = 1e-9

SEAM = "seam"  # the use of what went into a style line

PARKED = "parked"  # the use under which a dart that is put away stands in the account


@record
class Placed:
    """One entry: the dart, where it sits in words (a station's name when it is one), its use and degrees."""

    dart: str
    where: str
    use: str
    deg: float
    piece: str = ""  # the panel that the dart is on; nothing for what is in a seam


@record
class Account:
    """The account of one pivot of one piece. Degrees; `missing_deg` is what the block holds, with what steps added on purpose,
    more than is placed."""

    piece: str
    pivot: str
    block_deg: float
    placed: tuple[Placed, ...]
    added_deg: float = 0.0

    @property
    def missing_deg(self) -> float:
        """Fullness unaccounted for: positive when lost, negative when gained."""
        return self.block_deg + self.added_deg - sum(entry.deg for entry in self.placed)

    @property
    def is_whole(self) -> bool:
        """Whether nothing was lost or gained."""
        return abs(self.missing_deg) <= NOISE_DEG


def accounts(pattern: Pattern, block: Pattern, *, in_words: bool = True) -> tuple[Account, ...]:
    """The account of every pivot that has darts in the block or in the pattern; without saying where its darts sit, which takes
    the longest, when not `in_words`.

    The closed piece is a cone round its pivot, so with every dart led to it the angles sum to the same deficit
    wherever they sit (Gauss-Bonnet).
    """
    found: list[Account] = []
    drafted = {piece.name: block.drafted(piece) for piece in pattern.pieces}
    for source in block.pieces:
        mine = [piece for piece in pattern.pieces if drafted[piece.name] is source]
        # Pieces from elsewhere that parts of this one were taped to.
        guests = [
            piece
            for piece in pattern.pieces
            if drafted[piece.name] is not source and _shares(piece, drafted[piece.name], source)
        ]
        lines = [line for line in pattern.lines if line.of == source.name]
        if not mine and not guests:
            continue
        known = dict.fromkeys(piece.sides.name(dart.pivot) for piece in (source, *mine) for dart in piece.darts)
        known.update(dict.fromkeys(piece.sides.name(entry.pivot) for piece in mine for entry in piece.let_in))
        known.update(dict.fromkeys(pivot for line in lines for pivot, _angle in line.angles))
        is_unfolded = any(piece.is_unfolded for piece in (*mine, *guests))
        name = source.name if mine else drafted[guests[0].name].name
        for half in known:
            pieces = [*mine, *guests] if half in source.landmarks else mine
            if half not in source.landmarks and _is_elsewhere(half, source, block):
                continue  # it is in the account of the piece that it comes from
            held = sum(math.degrees(source.angle(dart.id)) for dart in source.darts if dart.pivot == half)
            for side in [*Side] if is_unfolded else [None]:
                pivot = half if side is None else side.id(half)
                names = {pivot, half}
                added = math.degrees(sum(angle for piece in pieces for name_, angle in piece.added if name_ in names))
                placed = [
                    entry
                    for piece in pieces
                    for name_ in sorted(names)
                    for entry in _placed(piece, drafted[piece.name], name_, in_words=in_words)
                ]
                here = [line for line in lines if line.side in (None, side)]
                placed += [_sewn(line, angle) for line in here for pin, angle in line.angles if pin == half]
                found.append(Account(name, pivot, held, tuple(placed), added))
    return tuple(found)


def _shares(piece: Piece, drafted: Piece, source: Piece) -> bool:
    """Whether a piece from elsewhere has darts round a pivot of a block's piece, or told what became of it."""
    pins = {piece.sides.name(name) for name in (*piece.landmarks, *(name for name, _angle in piece.added))}
    return any(name in source.landmarks and name not in drafted.landmarks for name in pins)


def _is_elsewhere(pivot: str, source: Piece, block: Pattern) -> bool:
    """Whether a pivot that a block's piece does not have is one of another."""
    return any(pivot in other.landmarks for other in block.pieces if other is not source)


def _sewn(line: StyleLine, angle: float) -> Placed:
    """What went into the seam between two panels."""
    return Placed(line.id, f"{words(line.panels[0])} and {words(line.panels[1])}", SEAM, math.degrees(angle))


def _placed(piece: Piece, block: Piece, pivot: str, *, in_words: bool) -> tuple[Placed, ...]:
    found: list[Placed] = []
    for dart in piece.darts:
        if dart.pivot != pivot:
            continue
        where, held = station(piece, block, dart.id) if in_words else "", math.degrees(piece.angle(dart.id))
        put_away = min(held, sum(math.degrees(parked.angle) for parked in dart.parked))
        if put_away > NOISE_DEG:
            found.append(Placed(dart.id, where, PARKED, put_away, piece.name))
        if not dart.parked or held - put_away > NOISE_DEG:
            found.append(Placed(dart.id, where, dart.use.value, held - put_away, piece.name))
    found += [
        Placed(entry.dart, entry.called, entry.use.value, math.degrees(entry.angle), piece.name)
        for entry in piece.let_in
        if entry.pivot == pivot
    ]
    return tuple(found)


def station(piece: Piece, block: Piece, dart: str) -> str:
    """Where a dart opens: the station's name, or the edge and the share along it."""
    known = _stations(piece)
    if dart not in known or known[dart][0] is not block:
        run = piece.mouth_run(dart)
        known[dart] = block, describe(piece, block, Place(run, piece.runs[run].path.length), piece.dart(dart).pivot)
    return known[dart][1]


@kept_with
def _stations(_piece: Piece) -> dict[str, tuple[Piece, str]]:
    """Where the darts of a piece were found to open, by dart, with the block it was told for; `station` fills it."""
    return {}
