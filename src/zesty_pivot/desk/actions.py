"""The table of actions: menus, buttons and shortcuts come from here alone. An action is data and a plain function."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Protocol

from zesty_pivot.core.steps import registry
from zesty_pivot.desk.forms.registry import all_forms
from zesty_pivot.desk.model import VIEWS, DeskModel
from zesty_pivot.desk.table.canvas import Canvas


class Desk(Protocol):
    """What actions ask of the window."""

    model: DeskModel

    def canvas(self) -> Canvas: ...
    def new_from_block(self) -> None: ...
    def open_dialog(self) -> None: ...
    def open_demo(self) -> None: ...
    def save(self) -> bool: ...
    def save_as(self) -> bool: ...
    def rename(self) -> None: ...
    def export_pdf(self) -> None: ...
    def export_svg(self) -> None: ...
    def export_all(self) -> None: ...
    def close(self) -> bool: ...
    def about(self) -> None: ...


@dataclass(frozen=True)
class Action:
    """One action: id, menu, title, shortcut, when it can be done, and what it does. `icon` is a file name."""

    id: str
    menu: str
    title: str
    shortcut: str
    run: Callable[[Desk], object]
    enabled: Callable[[DeskModel], bool] = lambda _model: True
    icon: str = ""
    tip: str = ""


def _has_step(model: DeskModel) -> bool:
    return model.step is not None


def _step(model: DeskModel) -> int:
    return model.step if model.step is not None else 0


def _toggle(window: Desk) -> None:
    model = window.model
    at = _step(model)
    step = model.style.steps[at]
    verb = "switch on" if step.off else "switch off"
    model.replace_step(at, step.model_copy(update={"off": not step.off}), f"{verb} {step.words()}")


def _show(view: str) -> Callable[[Desk], None]:
    return lambda window: window.model.set_view(view)


def _units(unit: str) -> Callable[[Desk], None]:
    return lambda window: window.model.set_units(unit)  # type: ignore[arg-type]


def _add(do: str) -> Callable[[Desk], None]:
    def run(window: Desk) -> None:
        value = all_forms()[do].first(window.model)
        if value is not None:
            step = registry.read(value)
            window.model.set_view("style")
            window.model.add_step(step, step.words())

    return run


def _can_add(do: str) -> Callable[[DeskModel], bool]:
    return lambda model: do != "dart.move" or any(piece.darts for piece in model.pattern.pieces)


def _adding() -> tuple[Action, ...]:
    keys = {"dart.move": "Ctrl+D", "piece.true": "Ctrl+T"}
    return tuple(
        Action(f"add.{do}", "Step", f"{step.title}", keys.get(do, ""), _add(do), _can_add(do), tip=step.summary)
        for do, step in registry.all_steps().items()
        if do in all_forms()
    )


def actions() -> tuple[Action, ...]:
    """Every action, in the order of the menus."""
    return (
        Action("file.new", "File", "New style from a block…", "Ctrl+N", lambda w: w.new_from_block(), icon="file-plus"),
        Action("file.open", "File", "Open…", "Ctrl+O", lambda w: w.open_dialog(), icon="folder-open"),
        Action("file.demo", "File", "Open the demo", "", lambda w: w.open_demo()),
        Action("file.save", "File", "Save", "Ctrl+S", lambda w: w.save(), icon="save"),
        Action("file.save_as", "File", "Save as…", "Ctrl+Shift+S", lambda w: w.save_as()),
        Action("file.rename", "File", "Name the style…", "", lambda w: w.rename()),
        Action("export.pdf", "File", "Save the PDF…", "Ctrl+P", lambda w: w.export_pdf(), icon="printer"),
        Action("export.svg", "File", "Save the sheet as SVG…", "", lambda w: w.export_svg()),
        Action("export.all", "File", "Save everything to a folder…", "Ctrl+E", lambda w: w.export_all()),
        Action("file.quit", "File", "Quit", "Ctrl+Q", lambda w: w.close()),
        Action("edit.undo", "Edit", "Undo", "Ctrl+Z", lambda w: w.model.undo(), lambda m: bool(m.undo_title), "undo-2"),
        Action("edit.redo", "Edit", "Redo", "Ctrl+Shift+Z", lambda w: w.model.redo(), lambda m: bool(m.redo_title), "redo-2"),
        *_adding(),
        Action("step.off", "Step", "Switch the step off or on", "Ctrl+Shift+O", _toggle, _has_step, "eye-off"),
        Action(
            "step.earlier", "Step", "Step earlier", "Ctrl+Shift+Left", lambda w: w.model.move_step(_step(w.model), -1),
            lambda m: m.step is not None and m.step > 0, "chevron-left",
        ),
        Action(
            "step.later", "Step", "Step later", "Ctrl+Shift+Right", lambda w: w.model.move_step(_step(w.model), 1),
            lambda m: m.step is not None and m.step + 1 < len(m.style.steps), "chevron-right",
        ),
        Action(
            "step.remove", "Step", "Remove the step", "Ctrl+Backspace", lambda w: w.model.remove_step(_step(w.model)),
            _has_step, "trash-2",
        ),
        *(
            Action(f"view.{view}", "View", view.capitalize(), f"Ctrl+{number}", _show(view), tip=tip)
            for number, (view, tip) in enumerate(
                zip(VIEWS, ("Derive the pattern", "Allowances, caps and marks", "Pages and files"), strict=True), start=1
            )
        ),
        Action("view.fit", "View", "Show all", "Ctrl+0", lambda w: w.canvas().fit(), icon="maximize"),
        Action("view.nearer", "View", "Nearer", "Ctrl++", lambda w: w.canvas().zoom(1.25), icon="zoom-in"),
        Action("view.further", "View", "Further", "Ctrl+-", lambda w: w.canvas().zoom(0.8), icon="zoom-out"),
        Action("units.cm", "View", "Show centimetres", "", _units("cm"), lambda m: m.style.units != "cm"),
        Action("units.mm", "View", "Show millimetres", "", _units("mm"), lambda m: m.style.units != "mm"),
        Action("units.in", "View", "Show inches", "", _units("in"), lambda m: m.style.units != "in"),
        Action("help.about", "Help", "About Zesty Pivot", "", lambda w: w.about()),
    )  # fmt: skip
