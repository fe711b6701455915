"""The form of neck.shape: the numbers of the chosen shape, with what the block gives for those left empty."""

from __future__ import annotations

from typing import Any

from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.necklines import backs
from zesty_pivot.core.necklines.registry import all_shapes, shape_of
from zesty_pivot.core.piece import Body, Pattern
from zesty_pivot.core.record import record
from zesty_pivot.core.steps.neck_shape import UNEVEN, ShapeNeck
from zesty_pivot.desk.forms.base import FormEntry, StepForm
from zesty_pivot.desk.forms.places import first_change
from zesty_pivot.desk.forms.plain import PlainForm
from zesty_pivot.desk.forms.rows import ChoiceRow, CountRow, FlagRow, LengthRow, Row, whole_number
from zesty_pivot.desk.labels import label
from zesty_pivot.desk.model import DeskModel

DO = "neck.shape"

NUMBERS = (
    "corner", "drop", "bow", "turn", "lobe", "hole_start", "hole_width", "hole_height", "hole_end", "slit", "open", "under",
    "rise", "inset", "strap", "lower", "widen", "flare", "past", "up",
)  # fmt: skip
ENDS = {"round": "round", "point": "in a point", "heart": "as a sweetheart"}
FORMS = {
    "asymmetric": {"curve": "one soft curve", "box": "box corner, then a curve", "straight": "box corner, then straight"},
    "keyhole_yoke": {"curve": "a curve", "heart": "a sweetheart", "straight": "straight"},
}
FORM_TITLES = {"asymmetric": "The way across", "keyhole_yoke": "Yoke seam"}
WIDTHS = [("centre", "from the centre"), ("neck_point", "from the neck point"), ("shoulder_tip", "in from the shoulder tip"),
          ("shoulder_left", "left of the shoulder, along it")]  # fmt: skip
DEPTHS = [
    ("neck_point", "below the neck point"), ("centre_neck", "below the block's neckline"),
    ("chest", "below the chest line"), ("bust", "below the bust line"),
]  # fmt: skip


@record
class ShapeRow(LengthRow):
    """One of the shape's numbers; empty, it comes from the block and is shown greyed."""

    empty: str = "from the block"
    signed: bool = True

    def show_start(self, field: Any, text: str) -> None:
        """What the block gives."""
        field.edit.setPlaceholderText(text)


class NeckForm(PlainForm):
    """Only the numbers that the shape takes, called as they are called for it."""

    def show_step(self, at: int, step: Any, before: Pattern) -> None:
        super().show_step(at, step, before)
        if not isinstance(step, ShapeNeck):
            return
        shape = shape_of(step.shape)
        try:
            context = self.model.derived.context
            starts = step.model_copy(update=dict.fromkeys(shape.starts)).numbers(context, step.on)
        except ZestyError:
            starts = {}
        self.titles["form"].setText(FORM_TITLES.get(step.shape, ""))
        for key, row in self.rows.items():
            if isinstance(row, ShapeRow) and key in shape.starts:
                self.titles[key].setText(shape.words_for(key))
                self.fields[key].setAccessibleName(shape.words_for(key))
                given = f"{self.model.length(starts[key])}, from the block" if key in starts else row.empty
                row.show_start(self.fields[key], given)


def _takes(key: str) -> Any:
    """Whether a number says something: the shape takes it, and in the form that is chosen it matters."""
    return lambda step: key in shape_of(step.shape).starts and key not in _idle(step)


def _idle(step: Any) -> tuple[str, ...]:
    """The numbers of a shape that its chosen form does without."""
    if step.shape == "asymmetric":
        return ("bow",) if step.form in ("box", "straight") else ("corner",)
    return ("hole_end", "end") if step.shape == "keyhole_yoke" and step.ends_on_seam else ()


def _has_side(step: Any) -> bool:
    return step.shape in UNEVEN


def _follows(step: Any) -> bool:
    return bool(step.other) and len(shape_of(step.shape).backs) > 1


def _back_choices(step: Any, _piece: Any) -> list[tuple[str, str]]:
    return [(name, backs.NAMES[name]) for name in shape_of(step.shape).backs]


class _BackRow(ChoiceRow):
    def value(self, step: Any) -> Any:
        return step.kind_of_back()


class _FormRow(ChoiceRow):
    def value(self, step: Any) -> Any:
        return step.form or next(iter(shape_of(step.shape).forms), "")


class _EndRow(ChoiceRow):
    def value(self, step: Any) -> Any:
        return step.end or (shape_of(step.shape).at_end[0] if shape_of(step.shape).at_end else "round")


ROWS: tuple[Row, ...] = (
    ChoiceRow("shape", "Shape", choices=lambda _s, _p: [(name, shape.title) for name, shape in all_shapes().items()]),
    ChoiceRow("side", "Side, as worn", _has_side, choices=lambda _s, _p: [("left", "left"), ("right", "right")]),
    ShapeRow("width", "Half width", _takes("width"), more=("width_from", "neck_point")),
    ChoiceRow("width_from", "Width measured", _takes("width"), choices=lambda _s, _p: WIDTHS),
    ShapeRow("depth", "Depth", _takes("depth"), more=("depth_from", "centre_neck")),
    ChoiceRow("depth_from", "Depth measured", _takes("depth"), choices=lambda _s, _p: DEPTHS),
    CountRow("arcs", "Arcs", lambda step: shape_of(step.shape).arcs, read=whole_number(2, 7)),
    _EndRow(
        "end", "At the centre", lambda step: bool(shape_of(step.shape).at_end) and "end" not in _idle(step),
        choices=lambda step, _p: [(name, ENDS[name]) for name in shape_of(step.shape).at_end],
    ),
    _FormRow(
        "form", "Form", lambda step: bool(shape_of(step.shape).forms),
        choices=lambda step, _p: list(FORMS.get(step.shape, {}).items()),
    ),
    FlagRow("ends_on_seam", "Opening ends on the yoke seam", lambda step: step.shape == "keyhole_yoke"),
    *(ShapeRow(key, key, _takes(key), share=key == "under") for key in NUMBERS),
    _BackRow("back", "Back", _follows, choices=_back_choices),
    LengthRow("back_width", "Half back at the chest line", lambda step: bool(step.other) and step.kind_of_back() == "razor"),
    LengthRow("back_depth", "Back depth below the neck point", lambda step: bool(step.other), empty="from the block"),
)  # fmt: skip


def make(model: DeskModel) -> StepForm:
    """A new form."""
    form = NeckForm(model, ShapeNeck, ROWS)
    hint = label("All shapes on your block: the gallery on the left.", "quiet")
    hint.setWordWrap(True)
    form.layout().addWidget(hint)  # type: ignore[union-attr]
    return form


def first_step(model: DeskModel) -> dict[str, object] | None:
    """A step to begin with: round, on front and back."""
    names = [piece.of or piece.name for piece in model.pattern.pieces]
    fronts = [piece.of or piece.name for piece in model.pattern.pieces if piece.body is not Body.BACK]
    leads = [*dict.fromkeys(fronts), "back"]
    values: list[dict[str, object]] = []
    for name in leads:
        other = "back" if name != "back" and "back" in names else ""
        values += [{"do": DO, "on": name, "shape": shape, "other": other} for shape in ("round", "v", "canoe")]
    return first_change(model, values)


FORM = FormEntry(
    DO,
    make,
    first_step,
    lambda model: any("neckline" in dict(piece.roles).values() for piece in model.pattern.pieces),
    order=80,
)
