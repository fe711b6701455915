"""The table of actions: menus, buttons, shortcuts and the command list come from here alone.

An action is data and a plain function of the desk; whether it can be done is an expression over the desk's state.
"""

from __future__ import annotations

from zesty_pivot.core.exports.base import Export
from zesty_pivot.core.exports.registry import all_exports
from zesty_pivot.core.procedures.dart_uses import As
from zesty_pivot.core.quantity import Unit
from zesty_pivot.core.recipe.hand import WAYS
from zesty_pivot.desk import (
    bead_actions,
    body_actions,
    digitiser_actions,
    incoming_actions,
    paper_actions,
    ruler_actions,
    sizes_actions,
    stand_actions,
    step_actions,
    table_actions,
    variant_actions,
)
from zesty_pivot.desk.action import Action, Desk
from zesty_pivot.desk.lay import PANELS
from zesty_pivot.desk.model import LIBRARY, START, VIEW_KEYS, VIEWS
from zesty_pivot.desk.settings import ThemeName


def _has_canvas(desk: Desk) -> bool:
    return desk.model.view not in (START, LIBRARY, "measure")


def _view(view: str) -> Action:
    tips = {
        "measure": "Measure people", "block": "Draft a block", "style": "Derive the pattern",
        "stand": "The pattern sewn, on a form", "sizes": "The style in every size",
        "finish": "Allowances, caps and marks", "paper": "Pages and files",
    }  # fmt: skip
    return Action(
        f"view.{view}", "View", view.capitalize(), f"Ctrl+{VIEW_KEYS.index(view) + 1}", lambda desk: desk.model.set_view(view),
        lambda desk: desk.model.view != view, tip=tips[view],
    )  # fmt: skip


def _panel(panel: str) -> Action:
    titles = {
        "reading": ("Reading", "The chosen step, accounts and findings"),
        "trace": ("Tracing paper", "What differs from the block, an earlier state or another style"),
        "walk": ("Walk a seam", "Two seams rolled along each other, with the running difference and the notches"),
        "hand": ("By hand", "The paper procedure with this pattern's numbers"),
        "practise": ("Practise", "Guess the new mouth, or where the fullness went, before the pattern opens"),
        "neck": ("Necklines", "Front and back matched at the shoulder, the opening against the head"),
        "stand": ("Stand beside the table", "The pattern sewn and seen on the body, a little coarse, while you work on it"),
    }

    def run(desk: Desk) -> None:
        desk.model.set_view("style")
        desk.lay.show_panel(panel)

    return Action(
        f"panel.{panel}", "Table", titles[panel][0], f"Alt+{PANELS.index(panel) + 1}", run,
        lambda desk: desk.model.view != "style" or desk.lay.panel != panel, tip=titles[panel][1],
    )  # fmt: skip


def _units(unit: Unit, title: str) -> Action:
    return Action(
        f"units.{unit}", "View", f"Show {title}", "", lambda desk: desk.model.recipe.set_units(unit),
        lambda desk: desk.model.style.units != unit, tip=f"Lengths in {title}; what was written keeps its meaning",
    )  # fmt: skip


def _theme(look: ThemeName, title: str, picture: str) -> Action:
    return Action(
        f"theme.{look}", "View", title, "", lambda desk: desk.set_theme(look),
        lambda desk: desk.keeper.settings.theme != look, picture,
    )  # fmt: skip


def _use(as_: As) -> Action:
    return Action(
        f"use.{as_}", "Dart", bead_actions.TITLES[as_], "", lambda w: bead_actions.use(w.model, as_),
        lambda w: bead_actions.can_use(w.model, as_), tip=bead_actions.TIPS[as_],
    )  # fmt: skip


def _has_bead(desk: Desk) -> bool:
    return bead_actions.chosen(desk.model) is not None


def _bead() -> tuple[Action, ...]:
    return (
        *(_use(as_) for as_ in bead_actions.TITLES),
        Action(
            "bead.fan", "Dart", "Make several darts of it", "", step_actions.add("dart.fan"), _has_bead,
            tip="Radiating or parallel",
        ),
        Action(
            "bead.shape", "Dart", "Bow its legs or bend it", "", step_actions.add("dart.shape"), _has_bead, tip="Shaped legs",
        ),
        Action(
            "bead.park", "Dart", "Park it", "Ctrl+Shift+P", lambda w: bead_actions.park(w.model),
            lambda w: bead_actions.can_park(w.model), tip="Put it away while a neckline or seam is drawn",
        ),
        Action(
            "bead.return", "Dart", "Bring back what is parked", "Ctrl+Shift+B", lambda w: bead_actions.bring_back(w.model),
            lambda w: bead_actions.can_return(w.model), tip="To the place on the cloth where it was",
        ),
    )  # fmt: skip


def _fold(desk: Desk) -> None:
    desk.model.set_view("style")
    desk.lay.show_panel("reading" if desk.lay.panel == "walk" else desk.lay.panel)
    desk.lay.set_fold(0.0 if desk.lay.fold else 1.0)


def _comb(desk: Desk) -> None:
    desk.model.set_view("style")
    desk.lay.show_comb(not desk.lay.comb)


def _spread(desk: Desk) -> None:
    desk.model.set_view("style")
    desk.lay.set_spread(0.0 if desk.lay.spread else 1.0)


def _can_fold(desk: Desk) -> bool:
    return any(piece.darts for piece in desk.model.pattern.pieces)


def _trace_block(desk: Desk) -> None:
    desk.model.set_view("style")
    desk.lay.trace_state(None if desk.lay.traced is not None else 0)


def _walk(desk: Desk) -> None:
    desk.lay.choose_seam((desk.lay.seam + 1) % len(desk.lay.seams))


def _other_way(desk: Desk) -> None:
    ways = list(WAYS)
    desk.lay.read_way(ways[(ways.index(desk.lay.way) + 1) % len(ways)])


def _print(desk: Desk) -> None:
    from zesty_pivot.desk.paper.print_pages import print_pages

    print_pages(desk.ask, desk.views.paging, desk.model, desk.worker)


def _export(one: Export) -> Action:
    return Action(
        f"export.{one.id}", "File", f"Save the {one.title}…", one.shortcut, lambda w: w.docs.export(one),
        lambda w: not w.worker.is_busy, one.icon, one.tip,
    )  # fmt: skip


def _file() -> tuple[Action, ...]:
    return (
        Action(
            "file.start", "File", "Start page", "Ctrl+Home", lambda w: w.model.set_view(START),
            lambda w: w.model.view != START, "house", "Demo styles, recent files, ways to begin",
        ),
        Action("file.new", "File", "New style from a block…", "Ctrl+N", lambda w: w.docs.new_from_block(), icon="file-plus"),
        Action(
            "file.new_demo", "File", "New style over the demo's block", "", lambda w: w.docs.new_over_demo_block(),
            icon="scissors",
        ),
        Action("file.open", "File", "Open…", "Ctrl+O", lambda w: w.docs.open_dialog(), icon="folder-open"),
        Action("file.demo", "File", "Open the demo", "", lambda w: w.docs.open_demo()),
        Action("file.save", "File", "Save", "Ctrl+S", lambda w: w.docs.save(), icon="save"),
        Action("file.save_as", "File", "Save as…", "Ctrl+Shift+S", lambda w: w.docs.save_as()),
        Action("file.rename", "File", "Name the style…", "Shift+F2", lambda w: w.docs.rename()),
        Action(
            "file.title", "File", "Title block…", "Ctrl+I", lambda w: w.pages.show_title_block(), icon="info",
            tip="Name, season, client, size, cloth and date, as they stand on labels and sheets",
        ),
        Action(
            "print.pages", "File", "Print…", "Ctrl+Alt+P", _print, lambda w: not w.worker.is_busy,
            "printer", "The pages at true size, on a printer",
        ),
        *(_export(one) for one in all_exports().values()),
        Action(
            "export.hand", "File", "Save the hand sheet…", "", lambda w: w.docs.export_hand(), lambda w: not w.worker.is_busy,
            tip="The paper procedure as a PDF",
        ),
        Action(
            "export.all", "File", "Save everything to a folder…", "Ctrl+E", lambda w: w.docs.export_all(),
            lambda w: not w.worker.is_busy,
        ),
        Action("export.picture", "File", "Save a picture…", "", lambda w: w.docs.save_picture(), _has_canvas, "image"),
        Action("file.settings", "File", "Settings…", "Ctrl+,", lambda w: w.pages.show_settings(), icon="settings"),
        Action("file.quit", "File", "Quit", "Ctrl+Q", lambda w: w.close()),
    )  # fmt: skip


def _table() -> tuple[Action, ...]:
    return (
        *(_panel(panel) for panel in PANELS),
        Action(
            "table.comb", "Table", "Show the curvature of style lines", "Ctrl+Shift+K", _comb,
            lambda w: bool(w.model.pattern.lines),
            tip="Teeth along each line, as long as it is curved",
        ),
        Action(
            "table.spread", "Table", "Move the panels apart or together", "Ctrl+Shift+L", _spread,
            lambda w: bool(w.model.pattern.lines), tip="As they were cut, or with room between them",
        ),
        Action(
            "table.fold", "Table", "Fold the darts shut or open", "Ctrl+Shift+F", _fold, _can_fold, "fold-horizontal",
            "See the seam across every shut mouth, with its corner",
        ),
        Action(
            "trace.block", "Table", "Lay the block under, or take it away", "Ctrl+B", _trace_block, icon="layers",
            tip="The block as tracing paper",
        ),
        Action("trace.other", "Table", "Lay another style on the table…", "", lambda w: w.docs.trace_other()),
        Action(
            "trace.over", "Table", "Tracing paper over or under", "", lambda w: w.lay.put_over(not w.lay.is_over),
            lambda w: w.lay.traced is not None,
        ),
        Action("walk.next", "Table", "Walk the next seam", "", _walk, lambda w: w.lay.is_walking and len(w.lay.seams) > 1),
        Action(
            "walk.turn", "Table", "Walk from the other end", "", lambda w: w.lay.walk_from_end(not w.lay.is_from_end),
            lambda w: w.lay.is_walking, "arrow-left-right",
        ),
        Action("hand.way", "Table", "By hand the other way", "", _other_way, lambda w: w.lay.panel == "hand"),
    )  # fmt: skip


def actions() -> tuple[Action, ...]:
    """Every action, in the order of the menus."""
    return (
        *_file(),
        Action(
            "edit.undo", "Edit", "Undo", "Ctrl+Z", body_actions.undo, lambda w: bool(body_actions.undone(w)), "undo-2",
        ),
        Action(
            "edit.redo", "Edit", "Redo", "Ctrl+Shift+Z", body_actions.redo, lambda w: bool(body_actions.redone(w)), "redo-2",
        ),
        Action(
            "edit.history", "Edit", "What was done…", "Ctrl+H", lambda w: w.pages.show_history(),
            lambda w: len(w.model.history.values) > 1, "undo-2", "Every change in words and pictures, and the way back to each",
        ),
        Action(
            "edit.copy_picture", "Edit", "Copy the picture", "Ctrl+Shift+C", lambda w: w.docs.copy_picture(), _has_canvas,
            "image", "What the table shows, as PNG and SVG",
        ),
        *step_actions.adding(),
        *step_actions.steps(),
        *_bead(),
        *_table(),
        *table_actions.actions(),
        *variant_actions.actions(),
        *body_actions.actions(),
        *incoming_actions.actions(),
        *digitiser_actions.actions(),
        *ruler_actions.actions(),
        *stand_actions.actions(),
        *sizes_actions.actions(),
        *paper_actions.actions(),
        *(_view(view) for view in VIEWS),
        Action("view.fit", "View", "Show all", "Ctrl+0", lambda w: w.canvas().fit(), _has_canvas, "maximize"),
        Action("view.nearer", "View", "Nearer", "Ctrl++", lambda w: w.canvas().zoom(1.25), _has_canvas, "zoom-in"),
        Action("view.further", "View", "Further", "Ctrl+-", lambda w: w.canvas().zoom(0.8), _has_canvas, "zoom-out"),
        _units("cm", "centimetres"),
        _units("mm", "millimetres"),
        _units("in", "inches"),
        _theme("light", "Light theme", "sun"),
        _theme("dark", "Dark theme", "moon"),
        _theme("system", "System theme", "monitor"),
        Action(
            "view.next_part", "View", "Next part of the window", "F6", lambda w: w.focus_next(),
            tip="The keyboard goes on: header, steps, table, panel, recipe",
        ),
        Action(
            "help.guide", "Help", "Guide", "F1", lambda w: w.pages.show_guide(),
            icon="book-open", tip="The page about what you see",
        ),
        Action("help.commands", "Help", "Find a command…", "Ctrl+K", lambda w: w.pages.show_commands(), icon="command"),
        Action(
            "step.underlay", "Step", "Underlay calculator…", "Ctrl+Shift+U", lambda w: w.pages.show_underlay(), icon="pleats"
        ),
        Action("help.tour", "Help", "Show me the ring", "", lambda w: w.pages.show_tour(), icon="graduation-cap"),
        Action("help.about", "Help", "About Zesty Pivot", "", lambda w: w.pages.about()),
    )  # fmt: skip
