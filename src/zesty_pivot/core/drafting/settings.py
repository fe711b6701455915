"""The conventions that a draft is made with: what was set, and the method's defaults for the rest."""

from __future__ import annotations

from collections.abc import Mapping

from zesty_pivot.core.drafting.evaluate import Surroundings, worth
from zesty_pivot.core.drafting.expression import names_in, parsed
from zesty_pivot.core.drafting.method import Method, Parameter
from zesty_pivot.core.drafting.values import Number, Value
from zesty_pivot.core.errors import FormulaError, one_of
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.quantity import Scope, Unit, format_length, length_mm, share_of, with_unit

Settings = Mapping[str, str]

YES = ("yes", "true", "on")
NO = ("no", "false", "off")
LEFT_OUT = ("", "none")  # a parameter that may be left out, left out on purpose


def kept(method: Method, given: Mapping[str, str | float], unit: Unit) -> dict[str, str]:
    """What was set as it is kept in a file: lengths with their unit, words as they are, in the order of the parameters.

    Raises FormulaError for a parameter that the method has not, or a text that is no length and no word of its choices.
    """
    for id in given:
        method.parameter(id)
    found: dict[str, str] = {}
    for parameter in method.parameters:
        if parameter.id not in given:
            continue
        text = given[parameter.id]
        words = text.strip() if isinstance(text, str) else text
        if isinstance(words, str) and words.lower() in LEFT_OUT and parameter.is_optional:
            continue
        if parameter.kind == "word":
            found[parameter.id] = _word(parameter, str(words))
        elif parameter.kind == "share":
            share_of(_number(words))
            found[parameter.id] = str(words)
        else:
            found[parameter.id] = str(with_unit(_number(words), unit))
    return found


def _number(words: str | float) -> str | float:
    """A number that came as text, as a number: `0.55` is 55 %."""
    try:
        return float(words)
    except ValueError:
        return words


def _word(parameter: Parameter, text: str) -> str:
    choices = [choice.word for choice in parameter.choices]
    low = text.lower()
    for same, word in ((YES, "yes"), (NO, "no")):
        if low in same and word in choices:
            return word
    if low in choices:
        return low
    what, advice = one_of("word", text, choices)
    raise FormulaError(what, where=parameter.id, advice=advice)


def resolved(method: Method, settings: Settings, measures: Mapping[str, float]) -> dict[str, Value]:
    """The value of every parameter that is not left out, in mm; each may hang on the measurements and on those before it.

    Raises FormulaError for one that cannot be worked out, or lies outside its range.
    """
    found: dict[str, Value] = {name: Number(mm, 1) for name, mm in measures.items()}
    for parameter in method.parameters:
        text = settings.get(parameter.id, parameter.default)
        if not text or (parameter.id not in settings and _lacks_measurement(parameter, found)):
            continue
        found[parameter.id] = _value(method, parameter, text, found, is_set=parameter.id in settings)
    return found


def _lacks_measurement(parameter: Parameter, known: Mapping[str, Value]) -> bool:
    """Whether a default hangs on a measurement that was not taken: the parameter is left out then."""
    return parameter.kind != "word" and any(
        name in MEASUREMENTS and name not in known for name in names_in(parsed(parameter.default))
    )


def _value(method: Method, parameter: Parameter, text: str, known: Mapping[str, Value], *, is_set: bool) -> Value:
    if parameter.kind == "word":
        return text
    try:
        if parameter.kind == "share":
            value = Number(share_of(_number(text)))
        elif is_set:
            lengths = {name: found.amount for name, found in known.items() if isinstance(found, Number) and found.power == 1}
            value = Number(length_mm(text, Scope(method.units, lengths)), 1)
        else:
            worked = worth(parsed(text), Surroundings(known))
            if not isinstance(worked, Number) or (worked.power != 1 and worked.amount != 0.0):
                raise FormulaError(f"{text!r} is no length")
            value = Number(worked.amount, 1)
    except FormulaError as fault:
        raise FormulaError(fault.what, where=f"{parameter.title} ({parameter.id})", advice=fault.advice) from None
    _in_range(method, parameter, value, known)
    return value


def _in_range(method: Method, parameter: Parameter, value: Number, known: Mapping[str, Value]) -> None:
    limits = [worth(parsed(text), Surroundings(known)) if text else None for text in (parameter.low, parameter.high)]
    amounts = [limit.amount if isinstance(limit, Number) else None for limit in limits]
    low, high = amounts
    if (low is None or value.amount >= low - 1e-9) and (high is None or value.amount <= high + 1e-9):
        return

    def told(amount: float) -> str:
        return f"{amount:.0%}" if parameter.kind == "share" else format_length(amount, method.units)

    limit = f"{told(low or 0.0)} to {told(high)}" if high is not None else f"at least {told(low or 0.0)}"
    raise FormulaError(
        f"{told(value.amount)} is outside its range", where=f"{parameter.title} ({parameter.id})", advice=f"It may be {limit}."
    )
