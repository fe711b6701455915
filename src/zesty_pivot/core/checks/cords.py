"""Ties, straps and bows on a child's garment: the usual caution, and the rules of the place."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.checks.neck_opening import CHILD
from zesty_pivot.core.piece.names import words

CORDS = {"tie", "bow", "strap", "loops", "casing"}  # what can be drawn tight or caught, or is threaded with a cord


def _run(look: Look) -> Iterable[Finding]:
    bust = look.scope.measures.get("bust", CHILD)
    if bust >= CHILD:
        return
    for extra in look.pattern.extras:
        if extra.kind not in CORDS:
            continue
        at_neck = extra.kind == "strap" or extra.piece.name.startswith(("neckline", "top"))
        where = "at the neck is a strangling hazard" if at_neck else "with loose ends can be caught"
        yield Finding(
            "cords", Severity.WARNING if at_neck else Severity.REMARK, extra.of[0], extra.piece.name,
            f"a child's size: a {words(extra.kind)} {where}, and many places forbid it",
            bust, CHILD, "mm",
            "Leave it out, or sew it down along its length; see the rules of the place it is sold in.",
        )  # fmt: skip


CHECK = Check("cords", "No cords on a child's garment", _run)
