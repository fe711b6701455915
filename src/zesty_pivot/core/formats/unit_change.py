"""A style in another unit: every bare length is given the unit it had, so that nothing changes its meaning.

Which fields are lengths their types say (`Length`, `Along`).
"""

from __future__ import annotations

import types
from collections.abc import Sequence
from typing import Annotated, Any, TypeVar, Union, get_args, get_origin

from pydantic import ValidationError

from zesty_pivot.core.errors import FileError, FormulaError
from zesty_pivot.core.formats import files
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.formats.variants import Variant
from zesty_pivot.core.quantity import Unit, is_share, with_unit
from zesty_pivot.core.quantity.fields import InUnits, Model
from zesty_pivot.core.steps.base import Step

M = TypeVar("M", bound=Model)


def with_units(style: Style, units: Unit) -> Style:
    """The same style with `units` as the unit of bare numbers. Raises FileError when a length cannot be given its unit."""
    old = style.units
    if old == units:
        return style
    advice = "Write that length with its unit, and try again."
    try:
        change: dict[str, Any] = {
            "finish": _spelt(style.finish, old),
            "steps": tuple(_spelt(step, old) for step in style.steps),
        }
        change["variants"] = tuple(_respelt(one, old) for one in style.variants)
        change["lays"] = tuple(_spelt(one, old) for one in style.lays)
        change["measures"] = {name: with_unit(text, old) for name, text in style.measures.items()}
        return Style.model_validate({**dict(style), **change, "units": units})
    except ValidationError as fault:
        raise FileError(files.faults(fault), advice=advice) from None
    except FormulaError as fault:
        raise FileError(fault.what, advice=advice) from None


def steps_in(steps: tuple[Step, ...], old: Unit) -> tuple[Step, ...]:
    """Steps with every bare length given the unit that it had. Raises FileError when one cannot be given its unit."""
    try:
        return tuple(_spelt(step, old) for step in steps)
    except (ValidationError, FormulaError) as fault:
        raise FileError(str(fault).splitlines()[0], advice="Write that length with its unit, and try again.") from None


def _respelt(one: Variant, old: Unit) -> Variant:
    return one if one.steps is None else one.model_copy(update={"steps": tuple(_spelt(step, old) for step in one.steps)})


def _spelt(model: M, unit: Unit) -> M:
    """A part of a file with every bare length in it given its unit."""
    fields = type(model).model_fields
    given = model.model_fields_set
    return type(model).model_validate(
        {name: _part(getattr(model, name), fields[name].annotation, fields[name].metadata, unit) for name in given}
    )


def _part(value: Any, kind: Any, marks: Sequence[object], unit: Unit) -> Any:
    """A value of a field with the lengths in it given their unit, by the field's type and the marks on it."""
    if isinstance(value, Model):
        return _spelt(value, unit)
    inner = get_args(kind)
    if get_origin(kind) is Annotated:
        return _part(value, inner[0], inner[1:], unit)
    if isinstance(value, dict):
        return {key: _part(part, inner[1], (), unit) for key, part in value.items()}
    if isinstance(value, tuple):
        return tuple(_part(part, inner[0], (), unit) for part in value)
    if not isinstance(value, str | float | int) or isinstance(value, bool):
        return value
    for mark in marks:
        if isinstance(mark, InUnits):
            return value if mark.or_share and is_share(value) else with_unit(value, unit)
    if get_origin(kind) in (Union, types.UnionType):
        for one in inner:
            made = _part(value, one, (), unit)
            if made is not value:
                return made
    return value
