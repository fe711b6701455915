"""Places as choices: stations, where darts are, and any other place as it was said."""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Iterator
from contextlib import suppress
from typing import Any

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Dart, Piece
from zesty_pivot.core.piece.called import title_of
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.piece.spot import ALL_STATIONS, STATION_WORDS, Spot, resolve, spot_words
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.steps import registry
from zesty_pivot.desk.model import DeskModel

FAR = "far"
HARMLESS = ("side_waist", "side_bust", "centre_waist", "waist", "mid_armhole")  # stations where a dart is in no one's way
FAR_ROLES = ("neckline", "shoulder", "waist", "hem")


def place_key(spot: Spot) -> str:
    """A spot as the value of a choice."""
    if spot.station is not None:
        return f"station:{spot.station}"
    if spot.as_far_as is not None and spot.side is None:
        return f"{FAR}:{spot.edge}:{spot.as_far_as}"
    return f"dart:{spot.dart}" if spot.dart is not None else f"spot:{spot.words()}"


def place_choices(piece: Piece | None, darts: Iterable[Dart], now: Spot | None) -> list[tuple[str, str]]:
    """Every station, darts of a piece, and the present place when it is none of these."""
    places = [(f"station:{name}", STATION_WORDS[name]) for name in ALL_STATIONS]
    places += [(f"dart:{dart.id}", f"the {title_of(piece, dart.id)} dart") for dart in darts]
    if piece is not None:
        places += [(place_key(spot), capital(spot_words(spot, piece))) for spot in _as_far(piece)]
    if now is not None and place_key(now) not in [key for key, _title in places]:
        places.append((place_key(now), now.words() if piece is None else spot_words(now, piece)))
    return places


def _as_far(piece: Piece) -> Iterator[Spot]:
    """The places of its upper and lower edges that lie as far from the centre as a pivot or another dart."""
    known = dict.fromkeys([*(dart.pivot for dart in piece.darts), *(dart.id for dart in piece.darts)])
    edges = [edge for edge, role in piece.roles if role in FAR_ROLES]
    for edge, what in itertools.product(edges if not piece.is_unfolded else (), known):
        spot = Spot(edge=edge, as_far_as=what)
        with suppress(ZestyError):
            resolve(spot, piece, piece, Scope(), "")
            yield spot


def place_value(key: str) -> dict[str, Any] | None:
    """The JSON of a chosen place; None for one that was not chosen from the list."""
    kind, _colon, name = key.partition(":")
    if kind == FAR:
        edge, _colon, what = name.partition(":")
        return {"edge": edge, "as_far_as": what}
    return {kind: name} if kind in ("station", "dart") else None


def pivots_with_two(piece: Piece) -> list[list[str]]:
    """The ids of darts that share a pivot, for each pivot with two or more."""
    found: dict[str, list[str]] = {}
    for dart in piece.darts:
        found.setdefault(dart.pivot, []).append(dart.id)
    return [ids for ids in found.values() if len(ids) > 1]


def chosen_first(model: DeskModel) -> list[Piece]:
    """The pieces on the table, the one with the ring first."""
    chosen = model.pivot[0] if model.pivot else ""
    return sorted(model.pattern.pieces, key=lambda piece: piece.name != chosen)


def has_darts(model: DeskModel) -> bool:
    """Whether any piece on the table has a dart."""
    return any(piece.darts for piece in model.pattern.pieces)


def has_pairs(model: DeskModel) -> bool:
    """Whether any pivot on the table has two darts."""
    return any(pivots_with_two(piece) for piece in model.pattern.pieces)


def chosen_darts(model: DeskModel) -> Iterator[tuple[Piece, Dart]]:
    """The darts on the table: those of the chosen piece first, and of each piece the chosen dart first."""
    for piece in chosen_first(model):
        for dart in sorted(piece.darts, key=lambda dart: dart.id != model.dart):
            yield piece, dart


def first_change(model: DeskModel, values: Iterable[dict[str, object]]) -> dict[str, object] | None:
    """The first of some steps (JSON) that can be done and would change the pattern on the table; None when none would."""
    return next((value for value in values if model.recipe.would_change(registry.read(value))), None)


def offered(model: DeskModel, do: str) -> dict[str, object] | None:
    """The first step of a kind that a finding offers."""
    mends = (finding.mend.step for finding in model.findings if finding.mend is not None)
    return next((dict(step) for step in mends if step is not None and step.get("do") == do), None)
