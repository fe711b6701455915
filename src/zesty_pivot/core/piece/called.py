"""What a dart is called: by where it opens now, never by where it came from."""

from __future__ import annotations

from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.piece import Piece
from zesty_pivot.core.piece.refs import DartRef
from zesty_pivot.core.piece.sides import Body

# A side seam is a French dart's from this share of its drafted length on, a side dart's above; on a hip-length piece, whose
# seam goes on to the hem, from this much. Common practice, no source: the French dart lies low, near the waist.
FRENCH_FROM, FRENCH_FROM_HIP = 0.6, 0.3
MIDDLE = 0.05  # of the armhole to either side of its middle is mid armhole. Common practice, no source

# By the role of the edge where it opens; the side seam and the armhole are told in more detail.
_BY_ROLE = {"neckline": "neck", "side_seam": "side"}

# The stations whose darts are called otherwise than they are.
_BY_STATION = {"mid_neck": "neck", "mid_shoulder": "shoulder", "side_bust": "side"}


def called(piece: Piece, dart: str) -> str:
    """The name of a dart by the place where it opens: `french`, `shoulder`, `mid_armhole.left`. Of two at one place the later
    one has a number (`waist-2`). Raises PlaceError for a dart without a mouth."""
    return _names(piece)[piece.dart(dart).id]


def dart_words(piece: Piece, dart: str) -> str:
    """What a dart is called, as it is read aloud: `French`, `left mid armhole`, `second waist`."""
    return words(called(piece, dart))


def title_of(piece: Piece | None, dart: str) -> str:
    """What something that may be a dart of a piece is called, as it is read aloud: an open dart by its place; a fish-eye
    dart, or one that is put away, by its id."""
    return dart_words(piece, dart) if piece is not None and piece.has_dart(dart) else words(dart)


def dart_key(piece: Piece, dart: str) -> str:
    """The key of a dart in a style's finish: `front.french`."""
    return str(DartRef(piece.name, called(piece, dart)))


def dart_called(piece: Piece, name: str) -> str | None:
    """The id of the dart that is called so now; None for none."""
    return next((id for id, now in _names(piece).items() if now == name), None)


def dart_id(piece: Piece, name: str) -> str:
    """The id of the dart that a recipe names: by its id, or by the station where it opens. A name that is neither comes back
    as it is."""
    held = {dart.id for dart in piece.darts}
    held.update(dart.group for dart in piece.darts)
    held.update(entry.id for dart in piece.darts for entry in dart.parked)
    if name in held:
        return name
    plain = piece.sides.name(name)
    wanted = {name, _BY_STATION.get(plain, plain) if plain == name else name}
    if name == "centre_bust":
        wanted.add(_centre(piece))
    return next((id for id, now in _names(piece).items() if now in wanted), name)


@kept_with
def _names(piece: Piece) -> dict[str, str]:
    """Every dart's name by its id, in the order of the darts."""
    found: dict[str, str] = {}
    counts: dict[str, int] = {}
    for dart in piece.darts:
        base = _place(piece, piece.mouth_run(dart.id))
        counts[base] = counts.get(base, 0) + 1
        found[dart.id] = base if counts[base] == 1 else _numbered(base, counts[base])
    return found


def _numbered(base: str, number: int) -> str:
    """`waist-2`, `waist-2.left`."""
    plain, dot, side = base.partition(".")
    return f"{plain}-{number}{dot}{side}"


def _place(piece: Piece, index: int) -> str:
    """The name of the place at the end of a run."""
    run, after = piece.runs[index], piece.runs[piece.after(index)]
    role, beyond = piece.role(run.edge), piece.role(after.edge)
    name = _at_corner(piece, run.edge, after.edge)
    if name is None:
        role = beyond if role == "centre" and beyond != "centre" else role
        name = _inside(piece, role, run.source.u1)
    side = piece.sides.of(run.edge) or piece.sides.of(after.edge)
    return name if side is None else side.id(name)


def _at_corner(piece: Piece, one: str, two: str) -> str | None:
    """The landmark where two edges meet; None inside an edge, or where no landmark is."""
    if one == two:
        return None
    ends = [set(piece.ends.get(piece.role(edge), ())) for edge in (one, two)]
    shared = ends[0] & ends[1]
    return next(iter(shared)) if len(shared) == 1 else None


def _inside(piece: Piece, role: str, u: float) -> str:
    """The name of a place inside an edge; `u` is its share of the edge as drafted."""
    if role == "centre":
        return _centre(piece)
    if role == "side_seam" and u >= (FRENCH_FROM_HIP if piece.is_hip_length else FRENCH_FROM):
        return "french"
    if role == "armhole" and abs(u - 0.5) <= MIDDLE:
        return "mid_armhole"
    return _BY_ROLE.get(role, role)


def _centre(piece: Piece) -> str:
    return "centre" if piece.body is Body.NONE else f"centre_{piece.body.value}"
