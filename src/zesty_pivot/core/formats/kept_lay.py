"""Lays of a style: which pieces are cut from which cloth, the lay that its file keeps, and what has changed since."""

from __future__ import annotations

import hashlib
from collections.abc import Iterator
from threading import Event

import numpy as np

from zesty_pivot.core.finish.piece import FinishedPiece
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.lay_models import LaidFile, LayFile
from zesty_pivot.core.formats.matching import phases_of
from zesty_pivot.core.nest.cloth import Cloth
from zesty_pivot.core.nest.cut_pieces import CutPiece, cut_pieces
from zesty_pivot.core.nest.lay import LayPlan, OnCloth, plan_of_places
from zesty_pivot.core.nest.laying import lays
from zesty_pivot.core.quantity import Scope, length_mm, share_of
from zesty_pivot.core.record import replace

# Of each kind of part beside the body: from which cloths it is cut. Common practice, no source.
OF_KIND = {"lining": ("lining",), "facing": ("self", "interfacing")}


def cloth_of(kept: LayFile, scope: Scope) -> Cloth:
    """The cloth in mm. Raises FormulaError for a length that cannot be read, ZestyError for cloth that is none."""
    return Cloth(
        kept.cloth, length_mm(kept.width, scope), kept.folded, kept.nap, kept.lean, length_mm(kept.gap, scope),
        length_mm(kept.selvedge, scope), (length_mm(kept.repeat_along, scope), length_mm(kept.repeat_across, scope)),
        (share_of(kept.shrinks_along), share_of(kept.shrinks_across)), kept.price,
    ).checked()  # fmt: skip


def _place(one: LaidFile) -> OnCloth:
    return OnCloth(one.key, one.turn, one.x, one.y, one.locked)


def pieces_of_cloth(derived: Derived, cloth: str) -> tuple[FinishedPiece, ...]:
    """The finished pieces that are cut from a cloth."""
    kinds = {extra.piece.name: extra.kind for extra in derived.pattern.extras}
    return tuple(piece for piece in derived.sheet_pieces if cloth in OF_KIND.get(kinds.get(piece.name, ""), ("self",)))


def cut_for(derived: Derived, kept: LayFile) -> tuple[CutPiece, ...]:
    """What is cut for a lay. Raises ZestyError where a piece cannot lie on that cloth."""
    pieces = pieces_of_cloth(derived, kept.cloth)
    sets = [(str(n + 1) if kept.sets > 1 else "", pieces) for n in range(kept.sets)]
    return cut_pieces(sets, is_folded=kept.folded)


def stamp(piece: CutPiece) -> str:
    """What tells a piece from itself after a change: its outline within a hundredth of a mm, and how it is cut."""
    ring = np.round(piece.piece.ring, 2) + 0.0
    told = hashlib.sha1(ring.tobytes() + piece.piece.cut.encode(), usedforsecurity=False)
    return told.hexdigest()[:16]


def laid_from(derived: Derived, kept: LayFile) -> LayPlan | None:
    """The lay that is kept, with the pieces as they are now; none where nothing is kept or other pieces are cut. Raises
    ZestyError as `cut_for` does."""
    pieces = cut_for(derived, kept)
    if not kept.places or {piece.key for piece in pieces} != {place.key for place in kept.places}:
        return None
    return plan_of_places(cloth_of(kept, derived.style.scope()), pieces, [_place(one) for one in kept.places])


def changed_since(derived: Derived, kept: LayFile) -> tuple[str, ...]:
    """The names of pieces that are no longer what they were when the lay was made; none where nothing was laid."""
    if not kept.places:
        return ()
    now = {piece.key: (stamp(piece), piece.piece.name) for piece in cut_for(derived, kept)}
    gone = [key for key in kept.stamps if key not in now]
    other = [name for key, (told, name) in now.items() if kept.stamps.get(key) != told]
    return tuple(dict.fromkeys([*other, *gone]))


def keep(kept: LayFile, plan: LayPlan) -> LayFile:
    """The lay with where its pieces lie."""
    places = tuple(
        LaidFile(key=place.key, turn=place.turn, x=round(place.x, 3), y=round(place.y, 3), locked=place.is_locked)
        for place in plan.places
    )
    return kept.model_copy(update={"places": places, "stamps": {piece.key: stamp(piece) for piece in plan.pieces}})


def laid(
    derived: Derived, kept: LayFile, *, seconds: int | None = None, stop: Event | None = None
) -> Iterator[LayPlan]:  # fmt: skip
    """Shorter and shorter lays; pieces that are locked stay where they are. Matched at more than one notch they all lie one
    way up: upside down a piece shows the stripes in the other order. Raises ZestyError where it cannot be laid."""
    cloth, pieces = cloth_of(kept, derived.style.scope()), cut_for(derived, kept)
    if cloth.repeat[0] and len(kept.match) > 1:
        cloth = replace(cloth, nap="one_way")
    known = {piece.key for piece in pieces}
    locked = [_place(one) for one in kept.places if one.locked and one.key in known]
    yield from lays(
        cloth, pieces, phases=phases_of(derived, pieces, kept.match, cloth), locked=locked, seconds=seconds, stop=stop
    )
