"""Garments that are to be tried on, and the work of it, which is done in a thread."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterator, Mapping

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.piece import Body, Pattern
from zesty_pivot.core.record import record
from zesty_pivot.core.sizes.sized import Wearer
from zesty_pivot.core.sizes.under import Under
from zesty_pivot.core.stand.cloth_kinds import kind_of
from zesty_pivot.core.stand.fitting import COARSE, Fitting, tried_on
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.core.stand.paper import Held, in_the_hand

Garment = tuple[Pattern, Sewing, Pattern]  # and the block that it comes from
Key = tuple[object, ...]


@record(eq=False)
class Wearable:
    """Where a garment comes from: what it is told by, what must not go as long as it is, and what gives it."""

    name: Key
    keeps: object
    garment: Callable[[], Garment]


def of_pattern(pattern: Pattern, sewing: Sewing, block: Pattern) -> Wearable:
    """A pattern that is there."""
    return Wearable((id(pattern), sewing), pattern, lambda: (pattern, sewing, block))


def of_variant(style: Style, name: str) -> Wearable:
    """A variant of a style, which is worked out when it is put on; the same as long as nothing of it is edited."""
    shown = style.with_variant(name)

    def garment() -> Garment:
        derived = derive(shown, at_rest=False)
        return derived.pattern, derived.derivation.sewing, derived.derivation.block

    told = shown.model_dump_json(include={"steps", "finish", "measures", "units"})
    return Wearable((id(style.block), told), style.block, garment)


def in_size(style: Style, under: Under, wearer: Wearer) -> Wearable:
    """A style in a size, which is worked out when it is put on."""

    def garment() -> Garment:
        made = under.styled(style, wearer.title, dict(wearer.lengths), is_child=wearer.is_child)
        derived = derive(made, at_rest=False)
        return derived.pattern, derived.derivation.sewing, derived.derivation.block

    told = style.model_dump_json(include={"steps", "finish", "measures", "units"})
    return Wearable((id(style.block), id(under), wearer, told), (style.block, under), garment)


@record(eq=False)
class ToTryOn:
    """A garment on the form of a body, told by its measurements (mm); without them the paper of front or back in the hand."""

    key: Key
    title: str
    source: Wearable
    lengths: tuple[tuple[str, float], ...] | None
    is_child: bool = False
    body: Body = Body.NONE


@record(eq=False)
class TriedOn:
    """What came of something that is wanted by now."""

    key: Key
    shown: Fitting | Held


Found = Mapping[Key, Fitting | Held]


def is_enough(found: Fitting | Held | None, fine: float) -> bool:
    """Whether nothing better is to be worked out with points so far apart, mm."""
    return found is not None and found.done >= 1.0 and (isinstance(found, Held) or found.step <= fine)


def worked(missing: list[ToTryOn], kind: str, stop: threading.Event, fine: float, found: Found) -> Iterator[TriedOn]:
    """One after the other, better and better; what was found of it soon is gone on from."""
    for one in missing:
        pattern, sewing, block = one.source.garment()
        if one.lengths is None:
            turns: Iterator[Fitting | Held] = in_the_hand(pattern, one.body, sewing, stop)
        else:
            known = found.get(one.key)
            soon = known if isinstance(known, Fitting) and known.done >= 1.0 and known.step == COARSE else None
            form = form_of(dict(one.lengths), is_child=one.is_child)
            turns = tried_on(pattern, block, sewing, form, kind_of(kind), stop, fine=fine, soon=soon)
        for turn in turns:
            yield TriedOn(one.key, turn)
