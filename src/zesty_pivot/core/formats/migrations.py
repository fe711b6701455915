"""Files of earlier versions brought to the present one, on their plain JSON, before anything is read out of them.

Version 2 says which half of the body a block's piece covers, and on which side of an unfolded piece a fish-eye dart is drawn;
in version 1 both stood in names. Version 3 of a block knows the method it was drafted with, points that fish-eyes are sewn to
and allowances of its own: nothing that an older one could say otherwise. Version 4 of a style has variants, findings that were
accepted, and how pieces lie on the table: nothing of that was in an older one.
Version 5 keeps packed pages, lays, and when it was printed. Version 6 says which sizes it is made in.
"""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.piece.sides import Body, Side


def block(value: dict[str, Any]) -> dict[str, Any]:
    """A block's JSON as version 3. What is not of the kind it should be is left for the reader to tell of."""
    if value.get("version") not in (1, 2):
        return value
    pieces = value.get("pieces")
    if isinstance(pieces, list) and value["version"] == 1:
        value = {**value, "pieces": [_with_body(piece) for piece in pieces]}
    return {**value, "version": 3}


def _with_body(piece: Any) -> Any:
    if not isinstance(piece, dict) or not isinstance(piece.get("name"), str) or "body" in piece:
        return piece
    named = (body for body in (Body.FRONT, Body.BACK) if piece["name"].startswith(body.value))
    return {**piece, "body": next(named, Body.NONE).value}


def style(value: dict[str, Any]) -> dict[str, Any]:
    """A style's JSON as version 6; the block inside is brought there by itself. What version 3 changed, the names of darts in
    the finish, is known only when the recipe is worked out: the reader does it."""
    if value.get("version") in (3, 4, 5):
        return {**value, "version": 6}
    if value.get("version") not in (1, 2):
        return value
    steps = value.get("steps")
    if isinstance(steps, list):
        steps = [_in_full(step) for step in steps]
        value = {**value, "steps": [_with_side(step) for step in steps] if value["version"] == 1 else steps}
    return {**value, "version": 6}


# Until version 3 the slashes of a flare always radiated, by themselves from shoulder to waist; the larger part of a piece
# that was cut kept its name; and panels were made equally long at the lower end. What lay
# between a princess line and its point could be eased in, with a nick in the seam: the darts are bent to the line now.
_BEFORE_3: dict[str, dict[str, str]] = {
    "fullness.flare": {"edge": "waist", "hinge": "shoulder"},
    "line.cut": {"keeps": "larger"},
    "line.princess": {"mend": "bottom"},
}


def _in_full(step: Any) -> Any:
    """A step that was done otherwise until version 3, said in full."""
    known = _BEFORE_3.get(str(step.get("do")), {}) if isinstance(step, dict) else {}
    if known and step["do"] == "line.princess" and step.get("rest") == "ease":
        step = {key: value for key, value in step.items() if key != "rest"}
    if isinstance(step, dict) and step.get("do") == "neck.shape" and str(step.get("shape")).startswith("keyhole"):
        known = _keyhole(step)
    return {**known, **step} if known else step


def _keyhole(step: dict[str, Any]) -> dict[str, Any]:
    """What stood in no file before version 3: a keyhole was as long below its widest place as above, a yoke's straight seam lay
    at its end."""
    if step["shape"] == "keyhole_yoke":
        return {"form": "straight", "ends_on_seam": True}
    return {"hole_end": step["hole_height"]} if "hole_height" in step else {}


def _with_side(step: Any) -> Any:
    if not isinstance(step, dict) or step.get("do") != "dart.fisheye" or not isinstance(step.get("dart"), str):
        return step
    side = next((side for side in Side if step["dart"].endswith(f".{side.value}")), None)
    return step if side is None or "side" in step else {**step, "side": side.value}


def measures(value: dict[str, Any]) -> dict[str, Any]:
    """A measurement file's JSON as version 2, which holds several people: version 1 was one, without a date."""
    if value.get("version") != 1:
        return value
    person = {"name": value.get("name", ""), "measures": value.get("measures", {})}
    known = {key: held for key, held in value.items() if key not in ("name", "measures")}
    return {**known, "version": 2, "people": [person]}
