"""A pattern tried on a form: coarse and soon, then fine; where it lies at rest, how far it stands off and how hard it pulls."""

from __future__ import annotations

import threading
from collections.abc import Iterator

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.conventions.sewing import Sewing
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.record import record, replace
from zesty_pivot.core.stand.cloth import ClothKind, ElasticCloth, added
from zesty_pivot.core.stand.form import Form
from zesty_pivot.core.stand.settle import let_go
from zesty_pivot.core.stand.worn import Donned, carried_over, worn

COARSE, FINE = 16.0, 8.0  # mm between points: soon, and in the end
MOST_COARSE, MOST_FINE = 60, 40  # rounds
SHOWN = 4  # rounds between two looks at what goes on

Points = NDArray[np.float64]
Numbers = NDArray[np.int64]


@record(eq=False)
class Fitting:
    """What is on a form. `places` (m, 3) mm of the cloth's points, `gap` (m,) mm from the form, `pull` (m,) the share by which
    the cloth is stretched there at most; `step` the size of its triangles, `done` the share of the work that is done, `rests`
    whether it lies still."""

    form: Form
    kind: ClothKind
    worn: Donned
    places: Points
    gap: Points
    pull: Points
    step: float
    done: float
    rests: bool

    @property
    def triangles(self) -> Numbers:
        """Those of the cloth's points."""
        return self.worn.sheet.triangles

    def both_sides(self) -> tuple[Points, Numbers, Numbers]:
        """Points, triangles, and the number of the cloth's point of each: a half with its mirror."""
        count = self.worn.sheet.count
        if self.worn.is_whole:
            return self.places, self.triangles, np.arange(count)
        over = self.places * (-1.0, 1.0, 1.0)
        return (
            np.concatenate([self.places, over]), np.concatenate([self.triangles, self.triangles[:, ::-1] + count]),
            np.tile(np.arange(count), 2),
        )  # fmt: skip


def tried_on(
    pattern: Pattern, block: Pattern, sewing: Sewing, form: Form, kind: ClothKind, stop: threading.Event, *,
    fine: float = FINE, soon: Fitting | None = None,
) -> Iterator[Fitting]:  # fmt: skip
    """The pattern on a form, better and better: every few rounds of the coarse cloth, then of the fine one, until `done` is 1.
    With `fine` no finer than COARSE there is no second cloth; `soon` is the coarse one at rest, where it is known already.
    Raises ZestyError for what cannot be sewn."""
    share = 0.2 if fine < COARSE else 1.0
    if soon is None:
        coarse = worn(pattern, block, sewing, form, COARSE)
        for soon in _settling(_begun(form, kind, coarse, coarse.start, COARSE), MOST_COARSE, stop, 0.0, share):
            yield soon
    if soon is None or stop.is_set() or fine >= COARSE:
        return
    finer = worn(pattern, block, sewing, form, fine)
    places = carried_over(soon.worn, soon.places, finer)
    yield from _settling(_begun(form, kind, finer, places, fine), MOST_FINE, stop, share, 1.0)


def _begun(form: Form, kind: ClothKind, on: Donned, places: Points, step: float) -> Fitting:
    nothing = np.zeros(len(places))
    return Fitting(form, kind, on, places, nothing, nothing, step, 0.0, rests=False)


def _settling(begun: Fitting, most: int, stop: threading.Event, since: float, until: float) -> Iterator[Fitting]:
    """A cloth let go: every few rounds and at the end, unless it is stopped. Shares of the work are counted from one to
    another."""
    cloth = ElasticCloth(begun.worn.sheet, begun.kind, outside=begun.form.surface.outside)
    last = None
    for last in let_go(cloth, begun.places, most, stop):
        if last.number % SHOWN == 1 and not last.rests:
            yield _seen(begun, cloth, last.places, since + (until - since) * last.number / (most + 1), rests=False)
    if last is not None and not stop.is_set():
        yield _seen(begun, cloth, last.places, until, rests=last.rests)


def _seen(begun: Fitting, cloth: ElasticCloth, places: Points, done: float, *, rests: bool) -> Fitting:
    gap, pull = begun.form.surface.distance(places), pull_of(cloth, places)
    for values in (places, gap, pull):
        values.setflags(write=False)  # what is shown is shared with other threads
    return replace(begun, places=places, gap=gap, pull=pull, done=done, rests=rests)


def pull_of(cloth: ElasticCloth, places: Points) -> Points:
    """The share (m,) by which the cloth is stretched at its points, in the direction where it is most: mean of triangles."""
    first, _second, _on, _in = cloth.stretches(places)
    corners, count = cloth.sheet.triangles.ravel(), cloth.sheet.count
    sums = added(corners, np.repeat((first - 1.0) * cloth.areas, 3), count)
    return np.asarray(sums / added(corners, np.repeat(cloth.areas, 3), count))
