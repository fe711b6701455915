"""What is proposed of a traced piece: how sure it is, and why."""

from __future__ import annotations

from enum import StrEnum

from zesty_pivot.core.record import record


class Sure(StrEnum):
    """How sure a proposal is."""

    SAID = "said"  # by the person or in so many words by the file
    SURE = "sure"
    LIKELY = "likely"
    UNSURE = "unsure"


@record
class Guess:
    """One thing that is proposed: what of (`body`, `corner neck_point`, `dart waist`, `bust_point`), its worth in words, and
    why it is thought so."""

    what: str
    worth: str
    sure: Sure
    why: str

    @property
    def words(self) -> str:
        """What it is of, as people say it: `the waist dart`, `the bust point`."""
        kind, _space, name = self.what.partition(" ")
        if kind == "dart":
            return f"the {name} dart"
        if kind == "pivot":
            return f"what the {name} dart turns about"
        return {"body": "front or back", "corners": "which corner is which", "length": "waist or hip length"}.get(
            kind, f"the {kind.replace('_', ' ')}"
        )


def least(*sures: Sure) -> Sure:
    """The least sure of some."""
    order = list(Sure)
    return max(sures, key=order.index)
