"""Actions of sizes."""

from __future__ import annotations

from zesty_pivot.core.formats import files
from zesty_pivot.desk.action import Action, Desk

CHARTS = "Size charts (*.zsizes *.csv)"
TABLES = "People (*.csv *.jsonl *.zmeas)"


def _is_seen(desk: Desk) -> bool:
    return desk.model.view == "sizes"


def _has_chosen(desk: Desk) -> bool:
    found = desk.views.in_sizes.sizes.sized(desk.views.in_sizes.sizes.chosen) if _is_seen(desk) else None
    return found is not None and found.derived is not None


def _is_writing(desk: Desk) -> bool:
    return _is_seen(desk) and desk.views.in_sizes.writing.work.is_at_work


def _station(id: str, title: str, tip: str) -> Action:
    def turn(desk: Desk) -> None:
        desk.model.set_view("sizes")
        desk.views.in_sizes.sizes.turn(id)

    return Action(f"sizes.{id}", "Body", title, "", turn, tip=tip)


def _put_under(desk: Desk) -> None:
    found = desk.views.in_sizes.sizes.sized(desk.views.in_sizes.sizes.chosen)
    if found is not None and found.derived is not None:
        desk.bodies.put_block_under(found.derived.style.block)


def _trace(desk: Desk) -> None:
    found = desk.views.in_sizes.sizes.sized(desk.views.in_sizes.sizes.chosen)
    if found is not None and found.derived is not None:
        desk.lay.trace_derived(found.derived, found.wearer.title)
        desk.model.set_view("style")
        desk.lay.show_panel("trace")


def _own_blocks(desk: Desk) -> None:
    folder = desk.ask.folder("The folder with a block a size")
    if folder is not None:
        desk.model.tried(lambda: desk.views.in_sizes.sizes.take_blocks(folder))


def _write(desk: Desk) -> None:
    folder = desk.ask.folder("Write every size to a folder")
    if folder is not None:
        desk.views.in_sizes.sizes.turn("write")
        desk.model.tried(lambda: desk.views.in_sizes.writing.write_sizes(folder))


def _write_table(desk: Desk) -> None:
    table = desk.ask.open_file("Write the style for everybody in a table", TABLES)
    folder = desk.ask.folder("Write everybody to a folder") if table is not None else None
    if table is not None and folder is not None:
        desk.views.in_sizes.sizes.turn("write")
        desk.model.tried(lambda: desk.views.in_sizes.writing.write_table(table, folder))


def _save_nested(desk: Desk) -> None:
    folder = desk.ask.folder("Save the nested sheets to a folder")
    if folder is None:
        return
    from zesty_pivot.core.formats.folder import write_together
    from zesty_pivot.core.sizes.nested_files import nested_files

    sizes, style = desk.views.in_sizes.sizes, desk.model.style
    found, point, base, printing = sizes.sizes, sizes.point, sizes.who.base, desk.views.paging.printing
    desk.worker.run(
        "Writing the nested sheets",
        lambda told: write_together(folder, nested_files(style.title, found, point, base, style.units, printing, told)),
        lambda made: desk.model.say(f"Saved {len(made)} files to {folder}."),
        lambda fault: desk.model.say(str(fault), fault=True),
    )


def _can_save_nested(desk: Desk) -> bool:
    return (
        _is_seen(desk) and any(one.derived is not None for one in desk.views.in_sizes.sizes.sizes) and not desk.worker.is_busy
    )


def _chart_seen(desk: Desk) -> bool:
    return _is_seen(desk) and desk.views.in_sizes.sizes.station == "chart"


def _add(desk: Desk) -> None:
    after = desk.views.in_sizes.view.chart.table.chosen
    name = desk.ask.text("Add a size", f"What the size after {after} is called", "")
    if name:
        desk.views.in_sizes.charts.add(name, after)


def _bring_in(desk: Desk) -> None:
    path = desk.ask.open_file("Bring in a size chart", CHARTS)
    told: list[str] = []
    if path is not None and desk.model.tried(lambda: told.extend(desk.views.in_sizes.charts.take_in(path))):
        desk.model.say("; ".join(told[:4]) or f"{path.name} is the chart now. Undo brings the other back.", fault=bool(told))


def _save_chart(desk: Desk) -> None:
    path = desk.ask.save_file("Save the size chart", "sizes.zsizes", CHARTS)
    if path is not None:
        target = path if path.suffix else path.with_suffix(".zsizes")
        desk.model.tried(lambda: desk.views.in_sizes.charts.write_to(target), f"Saved {target.name}.")


def _save_growth(desk: Desk) -> None:
    from zesty_pivot.core.sizes.nested_files import growth_csv

    path = desk.ask.save_file("Save how seams grow", "growth.csv", "CSV (*.csv)")
    if path is not None:
        target = path if path.suffix else path.with_suffix(".csv")
        content = growth_csv(desk.views.in_sizes.sizes.sizes, desk.model.style.units)
        desk.model.tried(lambda: files.write_atomic(target, content), f"Saved {target.name}.")


def actions() -> tuple[Action, ...]:
    """In the order of the menu."""
    return (
        _station("chart", "Size chart", "Measurements by size, steps between them"),
        _station("nested", "Sizes over each other", "Every piece in all sizes, laid on each other at a point"),
        _station("growth", "How seams grow", "A row a seam, uneven growth marked"),
        _station("grading", "How blocks are graded", "Where each point goes, and why; the ways compared"),
        _station("write", "Write all sizes", "Every size to a folder of its own"),
        Action(
            "sizes.put_under", "Body", "Put the chosen size under this style", "", _put_under, _has_chosen, "layers",
            "The same recipe for that body; what it changes is listed; undone in one step",
        ),
        Action("sizes.trace", "Body", "Lay the chosen size under the table", "", _trace, _has_chosen, tip="As tracing paper"),
        Action(
            "sizes.own_blocks", "Body", "Take blocks of their own…", "", _own_blocks, _is_seen,
            tip="A folder with a block file a size, called as the size is",
        ),
        Action(
            "sizes.nested_sheets", "Body", "Save the nested sheets…", "", _save_nested, _can_save_nested, "printer",
            "SVG and PDF with a layer a size, and how seams grow",
        ),
        Action("sizes.growth_table", "Body", "Save how seams grow…", "", _save_growth, _can_save_nested, tip="As CSV"),
        Action("sizes.write_all", "Body", "Write these sizes…", "", _write, lambda w: _is_seen(w) and not _is_writing(w)),
        Action(
            "sizes.write_table", "Body", "Write everybody in a table…", "", _write_table,
            lambda w: _is_seen(w) and not _is_writing(w), tip="A CSV, JSON lines or measurement file: a folder a person",
        ),
        Action("sizes.stop", "Body", "Stop writing", "", lambda w: w.views.in_sizes.writing.stop(), _is_writing),
        Action(
            "chart.base", "Body", "Make it the base", "",
            lambda w: w.views.in_sizes.charts.set_base(w.views.in_sizes.view.chart.table.chosen), _chart_seen,
            tip="Sizes over each other stay where the base lies",
        ),
        Action("chart.add", "Body", "Add a size…", "", _add, _chart_seen),
        Action(
            "chart.remove", "Body", "Take the size out", "",
            lambda w: w.views.in_sizes.charts.remove(w.views.in_sizes.view.chart.table.chosen), _chart_seen,
        ),
        Action("chart.import", "Body", "Bring in a size chart…", "", _bring_in, _is_seen),
        Action("chart.export", "Body", "Save the size chart…", "", _save_chart, _is_seen),
        Action(
            "chart.shipped", "Body", "Back to the chart that ships", "", lambda w: w.views.in_sizes.charts.back_to_shipped(),
            _is_seen,
        ),
    )  # fmt: skip
