"""Places of a body in words, as a fitting says them: `the bust, centre front`."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from zesty_pivot.core.stand.form import Form

NEAR = 32.0  # mm above and below a line that belongs to it
MIDDLE = 35.0  # mm from the centre that still is the centre
ROUND = 70.0  # degrees of a quarter turn that are right across
SIDE = 32.0  # degrees round from the side that still are the side
OF_EDGES = {"neckline": "neck", "armhole": "armhole", "waist": "lower edge", "hem": "lower edge"}

Points = NDArray[np.float64]


def where(form: Form, place: Points, edge: str = "", *, is_whole: bool = False) -> str:
    """A place (3,) mm in words; `edge` is the role of the edge that it lies on, if it does. On a whole body left and right, as
    worn, are said."""
    return f"the {OF_EDGES.get(edge) or zone(form, place)}, {_round(form, place, is_whole=is_whole)}"


def zone(form: Form, place: Points) -> str:
    """How high on the body a place (3,) mm lies, in words: `bust`."""
    return _height(form, place, is_back=is_behind(form, place))


def goes_round(form: Form, places: Points) -> bool:
    """Whether places (n, 3) mm lie right across one side of front or back."""
    ahead = form.surface.middle(places[:, 2])
    return bool(np.ptp(np.arctan2(places[:, 1] - ahead, np.abs(places[:, 0]))) > np.radians(ROUND))


def is_behind(form: Form, place: Points) -> bool:
    """Whether a place lies on the back."""
    ahead = float(form.surface.middle(np.array([place[2]]))[0])
    return bool(place[1] < ahead)


def _height(form: Form, place: Points, *, is_back: bool) -> str:
    at, levels, z = form.heights, form.levels, float(place[2])
    bust = levels["bust"]
    if z > at.pit - 15.0:
        return "base of the neck" if abs(float(place[0])) < MIDDLE else "shoulder"
    if z > bust + NEAR:
        upper = z > 0.5 * (bust + NEAR + at.pit)
        return ("upper back" if is_back else "upper chest") if upper else ("shoulder blades" if is_back else "chest")
    if z > bust - NEAR:
        return "back" if is_back else "chest" if form.is_child else "bust"
    if z > NEAR:
        return "small of the back" if is_back else "waist" if form.is_child else "under-bust"
    if z > -NEAR:
        return "waist"
    return "seat" if is_back else "hip"


def _round(form: Form, place: Points, *, is_whole: bool) -> str:
    ahead = float(form.surface.middle(np.array([place[2]]))[0])
    off = np.degrees(np.arctan2(abs(place[1] - ahead), abs(place[0])))
    hand = ("left " if place[0] > 0.0 else "right ") if is_whole else ""
    body = "back" if place[1] < ahead else "front"
    if abs(place[0]) < MIDDLE:
        return f"centre {body}"
    if off < SIDE:
        return f"{hand}side"
    return f"{hand}{body} towards the side" if off < 2.0 * SIDE else f"{hand}{body}"
