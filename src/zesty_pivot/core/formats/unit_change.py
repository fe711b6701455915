"""A style in another unit: every bare length is given the unit it had, so that nothing changes its meaning."""

from __future__ import annotations

from typing import Any

from pydantic import ValidationError

from zesty_pivot.core.errors import FileError
from zesty_pivot.core.formats import files
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.quantity import Unit, is_share
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step

_BARE = set("0123456789., /⁄+-¼½¾⅐⅑⅒⅓⅔⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞")


def with_units(style: Style, units: Unit) -> Style:
    """The same style with `units` as the unit of bare numbers. Raises FileError when a length cannot be given its unit."""
    old = style.units
    if old == units:
        return style
    finish = style.finish.model_dump(mode="json", exclude_none=True)
    for key in ("allowances", "ease"):
        finish[key] = {name: given(text, old) for name, text in finish[key].items()}
    finish["cut_away"] = given(finish["cut_away"], old)
    for own in finish["darts"].values():
        if "setback" in own:
            own["setback"] = given(own["setback"], old)
    value: dict[str, Any] = {name: getattr(style, name) for name in ("name", "block", "notes")}
    value["measures"] = {name: given(text, old) for name, text in style.measures.items()}
    value["steps"] = tuple(_step(step, old) for step in style.steps)
    try:
        return Style.model_validate({**value, "units": units, "finish": finish})
    except ValidationError as fault:
        raise FileError(files.faults(fault), advice="Write that length with its unit, and try again.") from None


def given(text: str | float, unit: Unit) -> str:
    """A bare number with its unit written out; formulas and lengths with units stay as they are."""
    words = str(text)
    return f"{words} {unit}" if set(words) <= _BARE else words


def _step(step: Step, old: Unit) -> Step:
    return registry.read(_with_unit(registry.dump(step), step.lengths, old))


def _with_unit(value: Any, lengths: tuple[str, ...], unit: Unit) -> Any:
    """JSON of a step with every bare length given its unit: the step's own, and `at` of places that is no share."""
    if isinstance(value, dict):
        return {key: _length(key, part, lengths, unit) for key, part in value.items()}
    return [_with_unit(part, lengths, unit) for part in value] if isinstance(value, list) else value


def _length(key: str, value: Any, lengths: tuple[str, ...], unit: Unit) -> Any:
    if key in lengths and isinstance(value, str | float | int):
        return given(value, unit)
    if key == "at" and isinstance(value, str | float | int) and not is_share(value):
        return given(value, unit)
    return _with_unit(value, lengths, unit)
