"""The neck panel and the handles of a neckline, with real events."""

from __future__ import annotations

from PyQt6.QtCore import QPointF
from PyQt6.QtGui import QEnterEvent
from PyQt6.QtWidgets import QApplication

from tests.desk.handles import drag, points
from tests.samples import move, style
from zesty_pivot.core.finish.matched import matched
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.steps import registry

ROUND = {"do": "neck.shape", "on": "front", "shape": "round"}


def opened(open_desk, steps=()):  # type: ignore[no-untyped-def]
    window = open_desk(style(list(steps)))
    window.run("panel.neck")
    return window


def rows(window) -> dict[str, str]:  # type: ignore[no-untyped-def]
    return dict(window.side.neck.figures.rows)


def hover(choice) -> None:  # type: ignore[no-untyped-def]
    at = QPointF(5, 5)
    QApplication.sendEvent(choice, QEnterEvent(at, at, at))


def test_the_matched_view_tells_lengths_and_corner(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk, [ROUND])
    found = matched(window.model.pattern, Context(window.model.derived.derivation.block, window.model.style.scope()))
    assert found is not None and abs(found.corner_deg) < 0.5
    assert window.side.neck.matched.shown is not None and rows(window)["Across the shoulder"] == "smooth"
    assert (
        rows(window)["Half of front, back"]
        == f"{window.model.length(found.front.neck_mm)}, {window.model.length(found.back.neck_mm)}"
    )
    # Laid together, both shoulders begin at one point and run the same way.
    shoulders = [next(path for role, path in half.runs if role == "shoulder") for half in (found.front, found.back)]
    assert abs(shoulders[0].start - shoulders[1].start).max() < 1e-9
    assert abs(shoulders[0].start_direction - shoulders[1].start_direction).max() < 1e-9
    window.model.file.replace(style([{**ROUND, "shape": "strapless"}]), None)
    assert window.side.neck.matched.shown is None and "doesn't have to pass" in window.side.neck.advice.text()


def test_the_opening_is_mended_by_its_buttons(open_desk) -> None:  # type: ignore[no-untyped-def]
    for kind in ("zip", "slit", "wider"):
        window = opened(open_desk, [ROUND])
        panel = window.side.neck
        assert panel.ways.isEnabled() and "too small for the head" in panel.advice.text()
        panel.buttons[kind].click()
        assert panel.advice.text() == "The head fits through." and not panel.ways.isEnabled(), kind
        if kind == "wider":
            (step,) = window.model.style.steps
            assert step.width_from == "centre" and step.width.endswith(" mm")
        else:
            assert window.model.style.steps[-1].kind == kind


def test_handles_change_width_and_depths(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([ROUND]))
    window.strip.choose(1)
    assert set(points(window)) == {"depth", "width", "back_depth"}
    drag(window, "depth", QPointF(0, 30))
    first = window.model.style.steps[0]
    assert (
        first.depth is not None
        and first.depth.endswith("mm")
        and first.width is None
        and not window.model.derived.derivation.broken
    )
    drag(window, "width", QPointF(12, 5))
    assert window.model.style.steps[0].width_from == "centre" and window.model.style.steps[0].depth == first.depth
    drag(window, "back_depth", QPointF(0, 12))
    assert window.model.style.steps[0].back_depth is not None
    for _ in range(3):
        window.run("edit.undo")
    assert window.model.style.steps[0].depth is None


def test_a_width_from_the_tip_stays_one(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{**ROUND, "width": "9 cm", "width_from": "shoulder_tip"}]))
    window.strip.choose(1)
    drag(window, "width", QPointF(15, 6))
    step = window.model.style.steps[0]
    assert step.width_from == "shoulder_tip" and float(step.width.removesuffix(" mm")) < 90.0


def test_a_free_curve_is_dragged_by_its_points(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{**ROUND, "shape": "free"}]))
    window.strip.choose(1)
    assert {"point0", "point1"} <= set(points(window))
    before = window.model.pattern.piece("front").edge("neckline").sewn_length
    drag(window, "point0", QPointF(8, 14))
    step = window.model.style.steps[0]
    assert len(step.points) == 2 and not window.model.derived.derivation.broken
    assert window.model.pattern.piece("front").edge("neckline").sewn_length != before


def test_the_form_shows_what_the_shape_takes(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([{**ROUND, "shape": "scallop"}]))
    window.strip.choose(1)
    form = window.side.reading.form("neck.shape")
    seen = {key for key, holder in form._holders.items() if holder.isVisibleTo(form)}
    assert {"shape", "width", "depth", "arcs", "lobe", "back"} <= seen and not {"strap", "side", "hole_start"} & seen
    assert "from the block" in form.fields["width"].edit.placeholderText()
    window.model.recipe.replace_step(0, window.model.style.steps[0].model_copy(update={"shape": "camisole"}), "camisole")
    assert form.titles["width"].text() == "Strap from the centre" and form.fields["strap"].isVisibleTo(form)
    form.fields["shape"].picked.emit("asymmetric")
    form.fields["side"].picked.emit("right")
    assert window.model.style.steps[0].side == "right" and not window.model.derived.derivation.broken


def test_facings_lie_beside_the_body_and_the_theme_reaches_the_gallery(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk, [ROUND, {"do": "piece.facing", "on": "front"}])
    shifts = window.table.layout_now()
    assert {"front_facing", "back_facing"} <= set(shifts)
    window.strip.choose(1)
    gallery = window.drawer.gallery("neck.shape")
    gallery.finish()
    before = gallery.grid.choices["round"].icon().pixmap(78, 58).toImage()
    window.set_theme("dark")
    assert gallery.grid.choices["round"].icon().pixmap(78, 58).toImage() != before


def test_the_stretch_of_the_edge_counts(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = opened(open_desk, [ROUND])
    assert window.side.neck.ways.isEnabled()
    window.model.set_view("finish")
    window.views.finish.stretch.committed.emit("40%")
    assert window.model.style.finish.stretch == "40%"
    window.model.set_view("style")
    window.run("panel.reading")
    window.run("panel.neck")
    assert window.side.neck.advice.text() == "The head fits through."


def test_facings_have_rows_in_the_finish_view(open_desk) -> None:  # type: ignore[no-untyped-def]
    window = open_desk(style([ROUND, {"do": "piece.facing", "on": "front"}]))
    window.model.set_view("finish")
    fields = window.views.finish.own_fields
    assert {"cut:front_facing", "front_facing.neckline", "back_facing.facing_edge"} <= set(fields)
    fields["front_facing.neckline"].committed.emit("1 cm")
    fields["cut:front_facing"].picked.emit("one")
    piece = next(found for found in window.model.derived.pieces if found.name == "front_facing")
    assert piece.cut == "one" and window.model.style.finish.allowances["front_facing.neckline"] == "1 cm"
    fields["cut:front_facing"].picked.emit("auto")
    assert next(found for found in window.model.derived.pieces if found.name == "front_facing").cut == "fold"


def test_a_step_that_only_a_preview_has_is_not_chosen(open_desk) -> None:
    """Found by torture: a card beyond the document's steps was chosen while something was looked at, and the panel failed."""
    window = open_desk(style([]))
    model = window.model
    window.run("panel.neck")
    model.preview(model.style.with_steps((registry.read(move("waist", "french")),)))
    model.choose_step(0)
    assert model.step is None
    model.preview(None)
    assert model.step is None and not model.is_previewing


def test_the_form_leaves_out_what_the_chosen_form_does_without(open_desk) -> None:  # type: ignore[no-untyped-def]
    """No field that changes nothing: a soft edge has no corner to round, a keyhole that ends on its seam no end below it."""
    window = open_desk(style([{**ROUND, "shape": "asymmetric"}]))
    window.strip.choose(1)
    form = window.side.reading.form("neck.shape")

    def shown(*keys: str) -> list[bool]:
        return [form._holders[key].isVisibleTo(form) for key in keys]

    assert shown("bow", "corner") == [True, False]
    form.fields["form"].picked.emit("box")
    assert shown("bow", "corner") == [False, True] and window.model.style.steps[0].form == "box"
    window.model.recipe.replace_step(0, registry.read({**ROUND, "shape": "keyhole_yoke"}), "yoke")
    assert shown("hole_end", "end", "ends_on_seam") == [True, True, True]
    form.fields["ends_on_seam"].click()
    assert window.model.style.steps[0].ends_on_seam and shown("hole_end", "end", "ends_on_seam") == [False, False, True]
