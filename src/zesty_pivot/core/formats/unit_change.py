"""A style in another unit: every bare length is given the unit it had, so that nothing changes its meaning."""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from zesty_pivot.core.errors import FileError, FormulaError
from zesty_pivot.core.formats import files
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.quantity import Unit, is_share, with_unit
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step


def with_units(style: Style, units: Unit) -> Style:
    """The same style with `units` as the unit of bare numbers. Raises FileError when a length cannot be given its unit."""
    old = style.units
    if old == units:
        return style
    advice = "Write that length with its unit, and try again."
    try:
        value: dict[str, Any] = {name: getattr(style, name) for name in ("name", "block", "notes")}
        value["finish"] = _finish(style, old)
        value["measures"] = {name: with_unit(text, old) for name, text in style.measures.items()}
        value["steps"] = tuple(_step(step, old) for step in style.steps)
        return Style.model_validate({**value, "units": units})
    except ValidationError as fault:
        raise FileError(files.faults(fault), advice=advice) from None
    except FormulaError as fault:
        raise FileError(fault.what, advice=advice) from None


def _finish(style: Style, old: Unit) -> dict[str, Any]:
    finish = style.finish.model_dump(mode="json", exclude_none=True)
    for key in ("allowances", "ease"):
        finish[key] = {name: with_unit(text, old) for name, text in finish[key].items()}
    finish["cut_away"] = with_unit(finish["cut_away"], old)
    for own in finish["darts"].values():
        if "setback" in own:
            own["setback"] = with_unit(own["setback"], old)
    return finish


def _step(step: Step, old: Unit) -> Step:
    return registry.read(_walked(registry.dump(step), step.lengths, old))


def _walked(value: Any, lengths: tuple[str, ...], unit: Unit) -> Any:
    """JSON of a step with every bare length given its unit: the step's own, and `at` of places that is no share."""
    if isinstance(value, dict):
        return {key: _part(key, part, lengths, unit) for key, part in value.items()}
    return [_walked(part, lengths, unit) for part in value] if isinstance(value, list) else value


def _part(key: str, value: Any, lengths: tuple[str, ...], unit: Unit) -> Any:
    is_length = key in lengths or (key == "at" and isinstance(value, str | float | int) and not is_share(value))
    return with_unit(value, unit) if is_length and isinstance(value, str | float | int) else _walked(value, lengths, unit)
