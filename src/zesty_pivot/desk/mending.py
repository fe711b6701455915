"""Truing all at once: what the findings offer, a step each, so that each can be looked at and refused."""

from __future__ import annotations

from zesty_pivot.core.checks.base import Mend
from zesty_pivot.desk.model import DeskModel

_MOST = 24  # a pattern has fewer edges than this; more rounds would mean that one mend undoes another


def truing(model: DeskModel) -> list[Mend]:
    """The truing steps that the findings of the whole recipe offer."""
    mends = [finding.mend for finding in model.derived.findings if finding.mend is not None and finding.mend.step is not None]
    return [mend for mend in mends if str((mend.step or {}).get("do")).startswith("piece.")]


def can_true(model: DeskModel) -> bool:
    """Whether something asks to be trued."""
    return model.view == "style" and bool(truing(model))


def true_all(model: DeskModel) -> None:
    """Adds the truing steps one after the other, looking anew after each; one that helped nothing is not tried again."""
    tried: list[dict[str, object]] = []
    count = len(model.style.steps)
    for _ in range(_MOST):
        mend = next((mend for mend in truing(model) if mend.step not in tried), None)
        if mend is None or mend.step is None:
            break
        tried.append(mend.step)
        model.recipe.mend(mend)
        if model.derived.derivation.states[-1].error is not None:
            model.undo()
    made = len(model.style.steps) - count
    model.say(f"{made} step{'s' if made != 1 else ''} added, each with its amount on its card.")
