"""The hand sheet: a whole recipe as a paper procedure, with this pattern's numbers."""

from __future__ import annotations

import itertools
from functools import partial

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.kept import Kept
from zesty_pivot.core.piece import Pattern, dart_words
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.procedures.hand import Line, Way, line
from zesty_pivot.core.quantity import in_unit
from zesty_pivot.core.quantity.formula import Scope
from zesty_pivot.core.recipe.by_halves import paper_lines
from zesty_pivot.core.recipe.evaluation import KEPT_STATES, Derivation, State
from zesty_pivot.core.record import record

WAYS: dict[Way, str] = {"pivot": "Pivot: pin, trace, swing, trace", "slash": "Slash: cut, close, tape"}


@record
class Section:
    """What is done for one step: its number (0 for the preparation), a heading, and the lines in order."""

    number: int
    title: str
    lines: tuple[Line, ...]


def hand_sheet(derivation: Derivation, scope: Scope, way: Way) -> tuple[Section, ...]:
    """The preparation and one section for each step of the recipe. Steps that are off are left out; a broken one says why."""
    context = Context(derivation.block, scope, derivation.sewing)
    sections: list[Section] = []
    marks: dict[str, Line] = {}
    for number, (before, state) in enumerate(itertools.pairwise(derivation.states), start=1):
        if state.step is not None and not state.step.off:
            key = (number, way, scope.key(), derivation.sewing)
            made = _SECTIONS.get(
                (derivation.block, before, state), key, partial(_section, number, before.pattern, state, context, way)
            )
            sections.append(made[0])
            marks.update((mark.text, mark) for mark in made[1])
    return (Section(0, "Before you start", (*_preparing(derivation, marks), *_on_the_way(sections))), *sections)


_SECTIONS: Kept[tuple[Section, tuple[Line, ...]]] = Kept(KEPT_STATES)


def _section(number: int, before: Pattern, state: State, context: Context, way: Way) -> tuple[Section, tuple[Line, ...]]:
    """What is done for a step, and the marks that it needs on the fresh trace."""
    step, unit = state.step, context.scope.unit
    if step is None:
        return Section(number, "", ()), ()
    title = step.name or f"{words(step.on).capitalize()}: {in_unit(step.said(before), unit)}"
    if state.error is not None:
        return Section(number, title, (line("broken", "This step cannot be done: {why}.", why=state.error.what),)), ()
    marks: tuple[Line, ...] = ()
    try:
        known, here = step.with_ids(before), context.at(before)
        marks = known.marks_by_hand(before, here)
        lines = paper_lines(known, before, here, way)
    except ZestyError as fault:
        lines = (line("broken", "No instructions: {why}.", why=fault.what),)
    except Exception as fault:  # noqa: BLE001 - the boundary of a step's paper procedure: the others are written
        why = faults.sentence("it", faults.caught(fault, f"the paper procedure of “{step.title}”"))
        lines = (line("broken", "No instructions: {why}.", why=why),)
    return Section(number, title, lines), marks


def _on_the_way(sections: list[Section]) -> tuple[Line, ...]:
    """The marks that are measured when their turn comes, listed in their order."""
    marks: dict[str, None] = {}
    for one in (one for section in sections for one in section.lines):
        f = one.figures
        if one.do in ("at_share", "at_length"):
            marks[f"{f['on']} {f['edge']}, {f['share' if one.do == 'at_share' else 'at']} from the {f['start']}"] = None
        elif one.do == "at_far":
            marks[f"{f['on']} {f['edge']}, {f['far']} from the {f['centre']}"] = None
        elif one.do == "points":
            marks[f"{f['edge']}, K, L and P"] = None
        elif one.do in ("sewn_point", "fold") and "pin" in f:
            marks[f"sewn point of the {f['dart']} dart"] = None
    if not marks:
        return ()
    return (line("listed", "Marks that you will make on the way, in this order: {marks}.", marks="; ".join(marks)),)


def _preparing(derivation: Derivation, marks: dict[str, Line]) -> tuple[Line, ...]:
    names = " and ".join(words(piece.name) for piece in derivation.block.pieces)
    found = [
        line(
            "trace_block", "Trace the block afresh with its construction lines: {pieces}. Keep the block itself.", pieces=names
        )
    ]
    for piece in derivation.block.pieces:
        for dart in piece.darts:
            if dart.extended_mm > 0.0:
                text = "{on}: draw the legs of the {dart} dart from the ends of its mouth to the {pin}."
                lead = {"on": words(piece.name).capitalize(), "dart": dart_words(piece, dart.id), "pin": words(dart.pivot)}
                found.append(line("lead", text, **lead))
    return (*found, *marks.values())
