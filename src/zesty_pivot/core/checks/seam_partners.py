"""1: seam partners unequal beyond 1 mm, or beyond the intended ease."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Mend, Severity
from zesty_pivot.core.checks.limits import SEAM_MM
from zesty_pivot.core.quantity import format_length


def _run(look: Look) -> Iterable[Finding]:
    for seam in look.seams:
        rest = seam.difference_mm
        if abs(rest) <= SEAM_MM:
            continue
        unit = look.scope.unit
        piece = seam.a.parts[0].piece
        longer, shorter = (seam.b, seam.a) if rest > 0 else (seam.a, seam.b)
        amount = format_length(abs(rest), unit, fine=True)
        meant = f" beyond the {format_length(seam.ease_mm, unit, fine=True)} ease" if seam.ease_mm else ""
        mend = None
        if seam.b_mm > seam.a_mm:
            ease = round(seam.b_mm - seam.a_mm, 3)
            title = f"Take {format_length(ease, unit, fine=True)} as ease"
            mend = Mend(title, finish={"ease": {str(seam.a): f"{ease:g} mm"}})
        yield Finding(
            "seam_partners", Severity.WARNING, piece, str(seam.a),
            f"the {longer.words()} is {amount} longer than the {shorter.words()}{meant}",
            abs(rest), SEAM_MM, "mm", "Ease it in, or make the two equal.", mend,
        )  # fmt: skip


CHECK = Check("seam_partners", "Seam partners are equal", _run)
