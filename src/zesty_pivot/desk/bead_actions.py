"""What can be done with the chosen bead: another use, put it away, bring it back. One table for menu, keys and commands."""

from __future__ import annotations

from typing import TYPE_CHECKING, TypeGuard, get_args

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import Dart, Piece, dart_words
from zesty_pivot.core.procedures.dart_uses import USES, As
from zesty_pivot.core.recipe.attempt import attempt
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step
from zesty_pivot.desk.forms.places import HARMLESS
from zesty_pivot.desk.model import DeskModel

if TYPE_CHECKING:
    from zesty_pivot.core.steps.dart_use import UseDart

TITLES: dict[As, str] = {
    "dart": "Sew it as a dart", "gathers": "Gather it", "tucks": "Make tucks of it", "pleats": "Make soft pleats of it",
    "ease": "Ease it in", "flare": "Let it flare",
}  # fmt: skip
TIPS: dict[As, str] = {
    "dart": "Legs to the pivot, set back and stitched",
    "gathers": "Notches where they start and stop, and how much seam is gathered to how much",
    "tucks": "Folds stitched for a while from the seam",
    "pleats": "Folds held by the seam only, with arrows the way they lie",
    "ease": "Shrunk into the seam, as far as the cloth takes it",
    "flare": "Left open: the edge becomes wider",
}

# Tried one after the other until one can be: how many tucks or pleats, and how far apart.
_MANY = ((2, "3 cm"), (2, "2 cm"), (3, "2.5 cm"), (3, "1.5 cm"), (4, "2 cm"), (1, "3 cm"))

BEAD_MENU = (*(f"use.{as_}" for as_ in get_args(As)), "bead.fan", "bead.shape", "bead.park", "bead.return")


def chosen(model: DeskModel) -> tuple[Piece, Dart] | None:
    """The chosen bead: its piece and dart on the table."""
    if model.view != "style" or model.pivot is None or model.dart is None or not model.pattern.has(model.pivot[0]):
        return None
    piece = model.pattern.piece(model.pivot[0])
    return (piece, piece.dart(model.dart)) if piece.has_dart(model.dart) else None


def can_use(model: DeskModel, as_: As) -> bool:
    """Whether the chosen bead could have another use."""
    found = chosen(model)
    return found is not None and found[1].use is not USES[as_]


def _gives_use(step: Step | None) -> TypeGuard[UseDart]:
    """Whether a step gives a dart its use, told without loading that kind of step."""
    return step is not None and step.do == "dart.use"


def use(model: DeskModel, as_: As) -> None:
    """Gives the chosen bead a use: a new step, or another use in the step that gave it the present one."""
    found = chosen(model)
    if found is None:
        return
    piece, dart = found
    main = dart.group if dart.group and piece.has_dart(dart.group) else dart.id
    base: dict[str, object] = {"do": "dart.use", "on": piece.name, "dart": main, "as": as_}
    values = (
        [{**base, "count": count, "spacing": spacing} for count, spacing in _MANY] if as_ in ("tucks", "pleats") else [base]
    )
    at = model.state_index
    last = model.style.steps[at - 1] if at else None
    replaces = _gives_use(last) and not last.off and (last.on, last.dart) == (piece.name, main)
    states = model.derived.derivation.states
    before = states[at - 1].pattern if replaces else model.pattern
    context = model.derived.context
    fault: ZestyError | None = None
    for value in values:
        step = registry.read(value)
        try:
            attempt(step, before, context)
        except ZestyError as problem:
            fault = fault or problem
            continue
        _put(model, step, at - 1 if replaces else None)
        model.choose_pivot(model.pivot, main if model.pattern.piece(piece.name).has_dart(main) else None)
        return
    model.say(f"Left as it was: {fault}", fault=True)


def _put(model: DeskModel, step: Step, at: int | None) -> None:
    if at is None:
        model.recipe.add_step(step)
    else:
        model.recipe.replace_step(at, step)


def can_park(model: DeskModel) -> bool:
    """Whether the chosen bead is there and not put away already."""
    found = chosen(model)
    return found is not None and not found[1].parked


def park(model: DeskModel) -> None:
    """Puts the chosen bead away to the first harmless place that it can reach."""
    found = chosen(model)
    if found is None:
        return
    piece, dart = found
    for place in HARMLESS:
        value = {"do": "dart.park", "on": piece.name, "darts": [dart.id], "to": {"station": place}}
        if model.recipe.would_change(registry.read(value)):
            model.recipe.add_step(registry.read(value))
            return
    model.say(f"The {dart_words(piece, dart.id)} dart cannot be put away: there is no clear place for it.", fault=True)


def can_return(model: DeskModel) -> bool:
    """Whether something is put away on a piece of the table."""
    return model.view == "style" and any(dart.parked for piece in model.pattern.pieces for dart in piece.darts)


def bring_back(model: DeskModel) -> None:
    """Brings back what is put away: in the chosen bead, or on the first piece that holds something."""
    found = chosen(model)
    if found is not None and found[1].parked:
        value = {"do": "dart.return", "on": found[0].name, "darts": [entry.id for entry in found[1].parked]}
    else:
        piece = next(piece for piece in model.pattern.pieces if any(dart.parked for dart in piece.darts))
        value = {"do": "dart.return", "on": piece.name}
    step = registry.read(value)
    model.recipe.add_step(step)
