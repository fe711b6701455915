"""What can be done with steps: added, changed, copied, kept, looked back at."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core.steps import registry
from zesty_pivot.desk.action import Action, Desk
from zesty_pivot.desk.drawer.doors import DOORS
from zesty_pivot.desk.drawer.tiles import why_not
from zesty_pivot.desk.forms.registry import all_forms
from zesty_pivot.desk.mending import can_true, true_all
from zesty_pivot.desk.other_piece import other_of, values_on_other
from zesty_pivot.desk.step_pictures import PICTURES
from zesty_pivot.desk.trying import first_that_works


def has_step(desk: Desk) -> bool:
    return desk.model.step is not None and desk.model.view == "style"


def _has_group(desk: Desk) -> bool:
    steps, at = desk.model.style.steps, _step(desk)
    return has_step(desk) and at < len(steps) and bool(steps[at].group)


def _step(desk: Desk) -> int:
    return desk.model.step if desk.model.step is not None else 0


def _toggle(desk: Desk) -> None:
    model, at = desk.model, _step(desk)
    step = model.style.steps[at]
    verb = "switch on" if step.off else "switch off"
    model.recipe.replace_step(at, step.model_copy(update={"off": not step.off}), f"{verb} {model.recipe.said(at)}")


def _look(by: int) -> Callable[[Desk], None]:
    return lambda desk: desk.model.choose_step(desk.model.state_index - 1 + by)


def _can_look(by: int) -> Callable[[Desk], bool]:
    def can(desk: Desk) -> bool:
        last = len(desk.model.derived.derivation.states) - 1
        return desk.model.view == "style" and 0 <= desk.model.state_index + by <= last

    return can


def _keep(desk: Desk) -> None:
    said = desk.model.recipe.said(_step(desk))
    name = desk.docs.ask_text("Keep as a recipe piece", "Name, such as our French dart with 2 cm", said[:1].upper() + said[1:])
    if name is not None and name.strip():
        desk.recipe_pieces.keep(name, desk.marked_steps())


def add(do: str) -> Callable[[Desk], None]:
    def run(desk: Desk) -> None:
        form = all_forms()[do]
        value = form.first(desk.model) if form.can(desk.model) else None
        if value is None:
            desk.model.say(f"{registry.headings()[do].title}: {why_not(do, desk.model)}", fault=True)
        else:
            step = registry.read(value)
            desk.model.set_view("style")
            desk.lay.show_panel("reading")
            desk.model.recipe.add_step(step)
            desk.drawer.note(do)
            desk.edit_step()

    return run


def _again(desk: Desk) -> None:
    add(desk.model.style.steps[_step(desk)].do)(desk)


def _on_other(desk: Desk) -> None:
    model = desk.model
    step = model.style.steps[_step(desk)]
    trial = first_that_works(model, values_on_other(step, model.pattern))
    if trial.step is None:
        model.say(f"{step.title} on the other piece: {trial.fault}", fault=True)
    else:
        model.recipe.add_step(trial.step)
        desk.edit_step()


def _has_other(desk: Desk) -> bool:
    steps, at = desk.model.style.steps, _step(desk)
    return has_step(desk) and at < len(steps) and bool(other_of(steps[at].on, desk.model.pattern))


def _can_add(do: str) -> Callable[[Desk], bool]:
    return lambda desk: all_forms()[do].can(desk.model)


def adding() -> tuple[Action, ...]:
    keys = {"dart.move": "Ctrl+D", "dart.split": "Ctrl+L", "dart.merge": "Ctrl+M", "piece.true": "Ctrl+T"}
    steps = registry.headings()
    return tuple(
        Action(
            f"add.{do}", "Step", steps[do].title, keys.get(do, ""), add(do), _can_add(do), PICTURES.get(do, "plus"),
            steps[do].summary, is_late=True,
        )
        for do in dict.fromkeys((*(do for door in DOORS for do in door.steps), *steps))  # then what has no door
        if do in steps
    )  # fmt: skip


def steps() -> tuple[Action, ...]:
    return (
        Action(
            "step.edit", "Step", "Edit the step", "F4", lambda w: w.edit_step(), has_step, "pen-line",
            "Go to the fields of the chosen step",
        ),
        Action(
            "step.again", "Step", "Add the next of the same kind", "Ctrl+Return", _again, has_step, "plus",
            "Another step like the chosen one, after it",
        ),
        Action(
            "step.other", "Step", "The same on the other piece", "Ctrl+G", _on_other, _has_other, "plus",
            "What the chosen step does on the front, on the back too, and the other way round",
        ),
        Action(
            "step.fold", "Step", "Fold or unfold the card", "F3", lambda w: w.fold_card(), _has_group, "list-collapse",
            "The cards of steps that belong together, such as those of a truing",
        ),
        Action("step.rename", "Step", "Name the step", "F2", lambda w: w.rename_step(), has_step, "pencil"),
        Action(
            "step.duplicate", "Step", "Duplicate the step", "Ctrl+Shift+D",
            lambda w: w.model.recipe.duplicate_step(_step(w)), has_step, "copy",
        ),
        Action("step.off", "Step", "Switch the step off or on", "Ctrl+Shift+O", _toggle, has_step, "eye-off"),
        Action(
            "step.earlier", "Step", "Step earlier", "Ctrl+Shift+Left", lambda w: w.model.recipe.move_step(_step(w), -1),
            lambda w: has_step(w) and _step(w) > 0, "chevron-left",
        ),
        Action(
            "step.later", "Step", "Step later", "Ctrl+Shift+Right", lambda w: w.model.recipe.move_step(_step(w), 1),
            lambda w: has_step(w) and _step(w) + 1 < len(w.model.style.steps), "chevron-right",
        ),
        Action(
            "step.remove", "Step", "Remove the step", "Ctrl+Backspace", lambda w: w.model.recipe.remove_step(_step(w)),
            has_step, "trash-2",
        ),
        Action(
            "true.all", "Step", "True all flagged seams", "Ctrl+Shift+T", lambda w: true_all(w.model),
            lambda w: can_true(w.model), "wand-sparkles",
            "A step for each corner, jog and unequal leg, with its amount; take out what you do not want",
        ),
        Action(
            "step.copy", "Step", "Copy the step", "Ctrl+C", lambda w: w.recipe_pieces.copy(w.marked_steps()), has_step, "copy",
            "The chosen step, or those marked with Shift, to be pasted into any style",
        ),
        Action(
            "step.paste", "Step", "Paste steps", "Ctrl+V", lambda w: w.recipe_pieces.paste(), lambda w: w.model.view == "style",
            tip="Copied steps after the chosen card",
        ),
        Action(
            "step.keep", "Step", "Keep as a recipe piece…", "", _keep, has_step, "save",
            "The chosen step, or those marked with Shift, under a name in the drawer",
        ),
        Action("look.back", "Step", "Look one step back", "Alt+Left", _look(-1), _can_look(-1), tip="The pattern before it"),
        Action("look.on", "Step", "Look one step on", "Alt+Right", _look(1), _can_look(1), tip="The pattern after it"),
    )  # fmt: skip
