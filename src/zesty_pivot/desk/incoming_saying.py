"""What a person may say of something on an import: each as a title and what it does. No Qt here."""

from __future__ import annotations

from collections.abc import Callable, Iterator

import numpy as np

from zesty_pivot.core.intake.roles import LANDMARKS
from zesty_pivot.core.piece import Body
from zesty_pivot.core.record import record
from zesty_pivot.desk.incoming import Incoming
from zesty_pivot.desk.table.incoming_things import IncomingThing, LaidPiece, corner_words, nearest_on_outline

ON_OUTLINE = 12.0  # mm from the outline that a place on it is meant


@record
class Saying:
    """Something that may be said: its words, whether it is how things are taken now, and what saying it does."""

    title: str
    say: Callable[[], None]
    is_so: bool = False


def sayings(incoming: Incoming, thing: IncomingThing | None, laid: LaidPiece | None, at: tuple[float, float]) -> list[Saying]:
    """What may be said of a thing, else of the place of a piece at `at` (mm on the table)."""
    if thing is not None:
        return list(_of_thing(incoming, thing, laid)) if laid is not None and laid.number == thing.number else []
    if laid is None:
        return []
    found: list[Saying] = []
    off, place = nearest_on_outline(laid, np.array(at))
    if off <= ON_OUTLINE and laid.tagged is not None:
        found += _corners(incoming, laid, place, "")
    return [*found, *of_piece(incoming, laid, at)]


def _of_thing(incoming: Incoming, thing: IncomingThing, laid: LaidPiece) -> Iterator[Saying]:
    kind, _space, name = thing.what.partition(" ")
    number = thing.number
    if kind == "corner":
        yield from _corners(incoming, laid, thing.at, name)
    elif kind == "dart":
        yield from _of_dart(incoming, laid, thing, name)
    elif kind == "bust_point":
        hints = incoming.told.hints.of(number)
        yield Saying(
            "The bust point is here", lambda: incoming.say(number, "the bust point", bust_point=laid.on_paper(*thing.at))
        )
        if hints.bust_point is not None:
            yield Saying("Find the bust point again", lambda: incoming.say(number, "the bust point", bust_point=None))
    yield from _forgetting(incoming, number)


def _corners(incoming: Incoming, laid: LaidPiece, place: tuple[float, float], now: str) -> Iterator[Saying]:
    tagged = laid.tagged
    assert tagged is not None
    for name in LANDMARKS:
        yield Saying(
            f"This is the {corner_words(name, tagged)}",
            lambda name=name: incoming.say_corner(laid.number, name, laid.on_paper(*place)),  # type: ignore[misc]
            name == now,
        )


def _of_dart(incoming: Incoming, laid: LaidPiece, thing: IncomingThing, id: str) -> Iterator[Saying]:
    tagged = laid.tagged
    assert tagged is not None
    dart = next(one for one in tagged.darts if one.id == id)
    drawn = laid.on_paper(*thing.at)
    hints = incoming.told.hints.of(laid.number)
    number = laid.number

    def about(pivot: tuple[float, float]) -> None:
        others = tuple(one for one in hints.pivots if np.hypot(*(np.array(one[0]) - drawn)) > 5.0)
        incoming.say(number, f"what the {id} dart turns about", pivots=(*others, (drawn, pivot)))

    def on_paper(name: str) -> tuple[float, float]:
        back = tagged.motion.undone(np.array(tagged.inside[name]))
        return float(back[0]), float(back[1])

    yield Saying("It turns about its own point", lambda: about(drawn), dart.pivot != "bust_point")
    if "bust_point" in tagged.inside:
        yield Saying("It turns about the bust point", lambda: about(on_paper("bust_point")), dart.pivot == "bust_point")
    yield Saying("This is no dart", lambda: incoming.say(number, "no dart", no_darts=(*hints.no_darts, drawn)))


def of_piece(incoming: Incoming, laid: LaidPiece, at: tuple[float, float] | None = None) -> Iterator[Saying]:
    """What may be said of a whole piece; `at` is a place in it, mm on the table."""
    number, tagged = laid.number, laid.tagged
    hints = incoming.told.hints.of(number)
    for body, title in ((Body.FRONT, "This is the front"), (Body.BACK, "This is the back")):
        is_so = tagged is not None and tagged.body is body
        yield Saying(
            title,
            lambda body=body: incoming.say(number, title_of(body), body=body, is_left_out=False),  # type: ignore[misc]
            is_so,
        )
    yield Saying(
        "It is no part of the block", lambda: incoming.say(number, "no part of the block", is_left_out=True), hints.is_left_out
    )
    if tagged is None:
        return
    if tagged.seen.is_centre_straight:
        yield Saying(
            "Its centre lies on the fold", lambda: incoming.say(number, "the fold", is_on_fold=True), tagged.is_on_fold
        )
        yield Saying("Its centre is a seam", lambda: incoming.say(number, "the fold", is_on_fold=False), not tagged.is_on_fold)
    yield Saying("It ends at the waist", lambda: incoming.say(number, "the length", is_hip=False), not tagged.is_hip)
    yield Saying("It ends at the hip", lambda: incoming.say(number, "the length", is_hip=True), tagged.is_hip)
    if at is not None:
        place = laid.on_paper(*at)
        if tagged.body is Body.FRONT:
            yield Saying("The bust point is here", lambda: incoming.say(number, "the bust point", bust_point=place))
        if tagged.is_hip:
            yield Saying("The waist is at this height", lambda: incoming.say(number, "the waist", waist=place))
    yield from _forgetting(incoming, number)


def title_of(body: Body) -> str:
    """What saying it is called in the history."""
    return f"the {body.value}"


def _forgetting(incoming: Incoming, number: int) -> Iterator[Saying]:
    if number in incoming.told.hints.pieces:
        yield Saying("Forget what I said of this piece", lambda: incoming.forget(number))
