"""Field types for files and steps: a length or a share keeps what was written, a formula stays a formula."""

import re
from collections.abc import Callable, Iterator
from functools import lru_cache
from typing import Annotated, ClassVar, Self, TypeVar, get_args

from pydantic import AfterValidator, BaseModel, BeforeValidator, ConfigDict, Field, FiniteFloat, model_validator

from zesty_pivot.core.quantity.formula import is_share, readable, share_of
from zesty_pivot.core.record import record


def _not_bool(value: object) -> object:
    if isinstance(value, bool):
        raise ValueError("true and false are not numbers")
    return value


@record
class InUnits:
    """Marks the type of a field that holds a length; `or_share` where a share may stand in its place."""

    or_share: bool = False


@record
class OfWhole:
    """Marks the type of a field that holds a share."""


@record
class NamesDart:
    """Marks a field that names a dart, or several."""


Length = Annotated[
    FiniteFloat | str,
    BeforeValidator(_not_bool),
    AfterValidator(readable),
    InUnits(),
    Field(description="A length: a number in the file's unit, or a formula such as '5 1/4 in' or 'bust/12'."),
]


def _shared(value: str | float) -> str | float:
    share_of(value)
    return value


Share = Annotated[
    FiniteFloat | str,
    BeforeValidator(_not_bool),
    AfterValidator(_shared),
    OfWhole(),
    Field(description="A share or fraction: '55%' or 0.55."),
]


def _along(value: str | float) -> str | float:
    return _shared(value) if is_share(value) else readable(value)


Along = Annotated[
    FiniteFloat | str,
    BeforeValidator(_not_bool),
    AfterValidator(_along),
    InUnits(or_share=True),
    Field(description="How far along an edge: a share such as '55%' or 0.55, or a length."),
]


Made = TypeVar("Made", bound="Model")


class Model(BaseModel):
    """Root of everything read from a file: frozen, no unknown fields, numbers finite."""

    # Building a model when it is first used keeps a cold start short.
    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, populate_by_name=True, defer_build=True)

    lines: ClassVar[frozenset[str]] = frozenset()  # the names of fields that may hold several lines

    @model_validator(mode="after")
    def _plain_text(self) -> Self:
        """No control characters in any name or text: they cannot be printed, and are in no file by intent."""
        for name, value in vars(self).items():
            for text in _texts(value):
                odd = _ODD_IN_LINES.search(text) if name in self.lines else _ODD.search(text)
                if odd is not None:
                    raise ValueError(f"a control character (U+{ord(odd[0]):04X}) in {name}; take it out")
        return self


def with_darts(model: Made, name: Callable[[str], str]) -> Made:
    """A model with every dart that it or a model inside it names called otherwise; the same one when nothing changes."""
    changed: dict[str, object] = {}
    for field, is_dart in _may_name_darts(type(model)):
        old = getattr(model, field)
        new = _with_darts(old, name, is_dart=is_dart)
        if new is not old and new != old:
            changed[field] = new
    return model.model_copy(update=changed) if changed else model


@lru_cache(maxsize=512)
def _may_name_darts(model: type[Model]) -> tuple[tuple[str, bool], ...]:
    """The fields of a model that name darts themselves, or hold models that may."""
    known = (
        (name, any(isinstance(mark, NamesDart) for mark in info.metadata), info) for name, info in model.model_fields.items()
    )
    return tuple((name, is_dart) for name, is_dart, info in known if is_dart or _holds_models(info.annotation))


def _holds_models(annotation: object) -> bool:
    is_model = isinstance(annotation, type) and not get_args(annotation) and issubclass(annotation, Model)
    return is_model or any(_holds_models(part) for part in get_args(annotation))


def _with_darts(value: object, name: Callable[[str], str], *, is_dart: bool) -> object:
    if isinstance(value, Model):
        return with_darts(value, name)
    if isinstance(value, tuple):
        return tuple(_with_darts(part, name, is_dart=is_dart) for part in value)
    return name(value) if is_dart and isinstance(value, str) and value else value


# Control characters, ends of lines, halves of surrogate pairs, and the two that are no characters at all.
_ODD = re.compile("[\x00-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff\ufffe\uffff]")
_ODD_IN_LINES = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x9f\u2028\u2029\ud800-\udfff\ufffe\uffff]")


def _texts(value: object) -> Iterator[str]:
    """The texts that a field holds itself; models inside it look at their own."""
    if isinstance(value, str):
        yield value
    elif isinstance(value, dict):
        for key, part in value.items():
            yield from _texts(key)
            yield from _texts(part)
    elif isinstance(value, tuple):
        for part in value:
            if isinstance(part, str):
                yield part
