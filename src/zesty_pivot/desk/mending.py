"""Truing all at once: what the findings offer, a step each, so that each can be looked at and refused; together one card and
one entry of the history."""

from __future__ import annotations

import itertools
from typing import TYPE_CHECKING, TypeGuard

from zesty_pivot.core.checks.base import Mend
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.model import DeskModel

if TYPE_CHECKING:
    from zesty_pivot.core.steps.dart_equalise import EqualiseDarts

GROUP = "trued"
_MOST = 8  # rounds; a pattern is done in two or three, more would mean that one mend undoes another
_EQUAL = 0.05  # mm between mouths that are told as equal


def truing(derived: Derived) -> list[Mend]:
    """The truing steps that the findings of the whole recipe offer; not those of findings that were accepted."""
    mends = [found.mend for found in derived.findings if found.mend is not None and not found.accepted]
    return [mend for mend in mends if str((mend.step or {}).get("do")).startswith("piece.")]


def can_true(model: DeskModel) -> bool:
    """Whether something asks to be trued, or may ask."""
    return model.view == "style" and (not model.pace.is_checked or bool(truing(model.derived)))


def true_all(model: DeskModel) -> None:
    """Adds the truing steps, those of the chosen piece first, looking anew after each round; one that cannot be or helps
    nothing is left out. Mouths that were made equal before are equal afterwards."""
    style, group = model.style, _free(model.style.steps)
    chosen = model.pivot[0] if model.pivot is not None else ""
    tried: list[dict[str, object]] = []
    derived = model.derived
    for _round in range(_MOST):
        wanted = [mend.step for mend in truing(derived) if mend.step is not None and mend.step not in tried]
        wanted.sort(key=lambda value: value.get("on") != chosen)
        if not wanted:
            break
        tried += wanted
        steps = [registry.read({**value, "group": group}) for value in wanted]
        derived = model.worked_out(style.with_steps((*derived.style.steps, *steps)))
        derived = _kept(model, derived, len(style.steps))
        uneven = _uneven(style.steps, derived.pattern, group)
        if uneven:
            derived = model.worked_out(style.with_steps((*derived.style.steps, *uneven)))
    made = derived.style.steps[len(style.steps) :]
    trued = sum(not _equalises(step) for step in made)
    if not made:
        model.say("Nothing was trued: what the findings ask for cannot be done here.", fault=True)
        return
    chosen_step = model.step
    model.looking, model.step = None, len(style.steps) + len(made) - 1  # before, so that the panels show it once
    if model.edit(style.with_steps((*style.steps, *made)), f"true all, {trued} seams"):
        model.chosen_changed.emit()
        model.say(f"Trued, {trued} seam{'s' if trued != 1 else ''}: one card, each with its amount inside it.")
    else:
        model.step = chosen_step


def _equalises(step: Step) -> TypeGuard[EqualiseDarts]:
    """Whether a step makes mouths equal, told without loading that kind of step."""
    return step.do == "dart.equalise"


def _free(steps: tuple[Step, ...]) -> str:
    """A name that no group of the recipe has."""
    known = {step.group for step in steps}
    return next(name for number in itertools.count(1) if (name := f"{GROUP} {number}") not in known)


def _kept(model: DeskModel, derived: Derived, begin: int) -> Derived:
    """The same without those of the added steps that are broken or change nothing."""
    bad = {number for number, _fault in derived.derivation.broken} | set(derived.derivation.idle)
    gone = {number for number in bad if number > begin}
    if not gone:
        return derived
    steps = tuple(step for number, step in enumerate(derived.style.steps, start=1) if number not in gone)
    return model.worked_out(derived.style.with_steps(steps))


def _uneven(steps: tuple[Step, ...], pattern: Pattern, group: str) -> list[Step]:
    """The steps that made mouths equal once more, where they are not any longer."""
    found: list[Step] = []
    for step in steps:
        if _equalises(step) and not step.off and pattern.has(step.on):
            piece = pattern.piece(step.on)
            known = step.with_ids(pattern)
            if all(piece.has_dart(dart) for dart in known.darts):
                mouths = [piece.intake(dart) for dart in known.darts]
                if max(mouths) - min(mouths) > _EQUAL:
                    found.append(step.model_copy(update={"group": group, "name": ""}))
    return found
