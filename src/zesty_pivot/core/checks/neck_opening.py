"""6: the finished neck opening must pass over the head; cords at a child's neck are cautioned against."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.ledger.opening import OpenedNeck, opened
from zesty_pivot.core.quantity import format_length

# A bust under this (mm) is a child's size. Common practice, no source.
CHILD = 760.0


def _run(look: Look) -> Iterable[Finding]:
    found = opened(look.pattern, look.scope.measures, look.finish.stretch)
    if found is None:
        return
    name = next(piece.name for piece in look.pattern.pieces if "neckline" in dict(piece.roles).values())
    unit = look.scope.unit
    if found.short_mm > 0.0:
        yield _too_small(found, look, name)
    if look.scope.measures.get("bust", CHILD) < CHILD:
        yield Finding(
            "neck_opening", Severity.REMARK, name, "neckline:cords",
            "a child's size: cords and ties at the neck are a strangling hazard, and many places forbid them",
            look.scope.measures["bust"], CHILD, "mm",
            "Use none, see the rules of the place it is sold in, and check that the neck passes the child's head"
            + ("." if "head" in look.scope.measures else f": {format_length(found.head_mm, unit)} was taken, measure it."),
        )  # fmt: skip


def _too_small(found: OpenedNeck, look: Look, name: str) -> Finding:
    unit = look.scope.unit
    pulled = f", {format_length(found.stretched_mm, unit)} pulled out" if found.stretched_mm > found.whole_mm + 0.5 else ""
    whose = "the head" if found.is_measured else "a usual head"
    backs = [piece for piece in look.pattern.come_from("back") if {"neckline", "centre"} <= set(dict(piece.roles).values())]
    mend = None
    if backs and not look.pattern.openings:
        mend = Mend("Zip at the back", step={"do": "neck.opening", "on": "back", "length": f"{found.zip_mm:.0f} mm"})
    return Finding(
        "neck_opening", Severity.WARNING, name, "neckline",
        f"the neck opens to {format_length(found.whole_mm, unit)}{pulled}, less than {whose} of "
        f"{format_length(found.head_mm, unit)}",
        found.stretched_mm, found.head_mm, "mm",
        "Let it open: a zip at the back, a slit with button and loop, or choose a wider shape.", mend,
    )  # fmt: skip


CHECK = Check("neck_opening", "The neck passes over the head", _run)
