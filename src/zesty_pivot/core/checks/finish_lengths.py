"""21: a length of the finish that cannot be worked out, as when its formula names a measurement that is not there."""

from __future__ import annotations

from collections.abc import Iterable

from zesty_pivot.core.checks.base import Check, Finding, Look, Severity
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.quantity import length_mm


def _run(look: Look) -> Iterable[Finding]:
    for text in dict.fromkeys(look.finish.lengths()):
        try:
            length_mm(text, look.scope)
        except ZestyError as fault:
            yield Finding(
                "finish_lengths", Severity.ERROR, "", "",
                f"the length {text!r} in the finish cannot be worked out: {fault.what}",
                1.0, 0.0, "faults", fault.advice,
            )  # fmt: skip


CHECK = Check("finish_lengths", "Lengths of the finish can be worked out", _run)
