"""What can be done with the variants of a style."""

from __future__ import annotations

from zesty_pivot.desk.action import Action, Desk


def _has(desk: Desk) -> bool:
    return bool(desk.model.variants.all)


def _begin(desk: Desk) -> None:
    """From the chosen card on; from the block's card afresh."""
    desk.model.set_view("style")
    desk.model.variants.begin(desk.model.state_index - 1)


def _rename(desk: Desk) -> None:
    name = desk.model.variants.shown
    new = desk.docs.ask_text("Name the variant", "Name", name)
    if new is not None:
        desk.model.variants.rename(name, new)


def _trace(desk: Desk) -> None:
    """The next variant lies under this one."""
    names = [one.name for one in desk.model.variants.all]
    name = names[(names.index(desk.model.variants.shown) + 1) % len(names)]
    desk.model.set_view("style")
    desk.lay.trace_variant(name)
    desk.lay.show_panel("trace")


def actions() -> tuple[Action, ...]:
    """The actions, in the order of the menu."""
    return (
        Action(
            "variant.new", "Variant", "Another variant from here", "Ctrl+Shift+V", _begin,
            lambda w: w.model.view == "style", "copy",
            "The chosen step and those after it become its own; what is before is common. From the block's card: afresh",
        ),
        Action(
            "variant.next", "Variant", "Next variant", "Ctrl+PgDown", lambda w: w.model.variants.step_on(1), _has,
            tip="Puts the next variant on the table",
        ),
        Action(
            "variant.before", "Variant", "Variant before", "Ctrl+PgUp", lambda w: w.model.variants.step_on(-1), _has,
            tip="Puts the variant before on the table",
        ),
        Action(
            "variant.sheet", "Variant", "All variants side by side", "Ctrl+Shift+A", lambda w: w.pages.show_variants(), _has,
            "layers", "A sheet of pictures with figures",
        ),
        Action(
            "variant.trace", "Variant", "Lay the next variant under", "", _trace, _has,
            tip="Tracing paper, with the differences in numbers",
        ),
        Action(
            "variant.rename", "Variant", "Name the variant…", "", _rename, _has,
            tip="A name of its own instead of its step's words",
        ),
        Action(
            "variant.export", "Variant", "Save every variant to a folder…", "", lambda w: w.docs.export_variants(),
            lambda w: _has(w) and not w.worker.is_busy, tip="A folder for each, with its sheets, pages and report",
        ),
        Action(
            "variant.remove", "Variant", "Take the variant away", "", lambda w: w.model.variants.remove(w.model.variants.shown),
            _has, "trash-2", "The one on the table; undo brings it back",
        ),
    )  # fmt: skip
