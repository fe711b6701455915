"""`record`: what `dataclass(frozen=True)` makes, made late, so that a program of many small classes starts fast.

The fields are those of the standard library's dataclasses; `replace`, `fields` and `asdict` of that library work. Its methods
are compiled one by one when a class is defined, a millisecond and a half each; here comparing, hashing and printing are shared,
and the initialiser is compiled when the first instance is made.
"""

from __future__ import annotations

import dataclasses
from collections.abc import Callable, Mapping
from dataclasses import MISSING, Field, FrozenInstanceError, dataclass, field, fields
from operator import attrgetter, itemgetter
from typing import TYPE_CHECKING, Any, TypeVar, cast, dataclass_transform, overload

T = TypeVar("T")

_COPIED = "_copied"  # where a class has the names that `replace` takes over, and whether a copy is looked at after
EARLY = 40  # instances made without a compiled initialiser: compiling one takes as long as making some sixty without


@overload
@dataclass_transform(frozen_default=True, field_specifiers=(field,))
def record(cls: type[T], /) -> type[T]: ...


@overload
@dataclass_transform(frozen_default=True, field_specifiers=(field,))
def record(*, eq: bool = True, order: bool = False) -> Callable[[type[T]], type[T]]: ...


def record(cls: type[T] | None = None, /, *, eq: bool = True, order: bool = False) -> Any:
    """A frozen class of the fields that it annotates; `eq` and `order` as with dataclasses. Setting or deleting a field raises
    FrozenInstanceError."""
    if cls is None:
        return lambda one: _made(one, eq=eq, order=order)
    return _made(cls, eq=eq, order=order)


def _made(cls: type[T], *, eq: bool, order: bool) -> type[T]:
    cls.__doc__ = cls.__doc__ or cls.__name__  # else the signature would be worked out for it, half of the time for a class
    made = dataclass(init=False, repr=False, eq=False, match_args=False)(cls)
    known = fields(cast("Any", made))
    methods: dict[str, Any] = {"__repr__": _printed(known), "__match_args__": tuple(one.name for one in known if one.init)}
    methods["__getstate__"] = _sent(frozenset(one.name for one in known))
    if eq:
        methods |= _compared(known)
    if order:
        methods |= _ordered(known)
    for name, method in methods.items():
        if name not in vars(cls):
            setattr(made, name, method)
    own: dict[str, Any] = {"__init__": _begun(made, known), **_frozen(made, frozenset(one.name for one in known))}
    for name, method in own.items():
        setattr(made, name, method)
    names = {one.name: None for one in known}.keys()
    if len(names) > 1 and all(one.init for one in known):
        setattr(made, _COPIED, (names, itemgetter(*names), hasattr(made, "__post_init__")))
    return made


if TYPE_CHECKING:
    from dataclasses import replace as replace  # the same to a type checker
else:

    def replace(one: T, /, **changes: Any) -> T:
        """A copy with some fields changed, as the standard library makes it, in a tenth of its time: the values of the others
        are taken over as they are. Raises TypeError for what is no field."""
        cls = one.__class__
        names, taken, is_looked_at = vars(cls).get(_COPIED, (frozenset(), None, False))
        if not names or not changes.keys() <= names:
            return dataclasses.replace(one, **changes)
        made = object.__new__(cls)
        values = vars(made)
        values.update(zip(names, taken(vars(one)), strict=True))
        values.update(changes)
        if is_looked_at:
            made.__post_init__()
        return made


def _values(known: tuple[Field[Any], ...]) -> Callable[[Any], tuple[Any, ...]]:
    names = [one.name for one in known if one.compare]
    if len(names) > 1:
        return cast("Callable[[Any], tuple[Any, ...]]", attrgetter(*names))
    return lambda one: tuple(getattr(one, name) for name in names)


def _compared(known: tuple[Field[Any], ...]) -> dict[str, Any]:
    values = _values(known)

    def equal(self: Any, other: object) -> Any:
        return values(self) == values(other) if other.__class__ is self.__class__ else NotImplemented

    return {"__eq__": equal, "__hash__": lambda self: hash(values(self))}


def _ordered(known: tuple[Field[Any], ...]) -> dict[str, Any]:
    values = _values(known)

    def compared(way: Callable[[Any, Any], bool]) -> Callable[[Any, object], Any]:
        return lambda self, other: way(values(self), values(other)) if other.__class__ is self.__class__ else NotImplemented

    return {
        "__lt__": compared(lambda one, two: one < two), "__le__": compared(lambda one, two: one <= two),
        "__gt__": compared(lambda one, two: one > two), "__ge__": compared(lambda one, two: one >= two),
    }  # fmt: skip


def _printed(known: tuple[Field[Any], ...]) -> Callable[[Any], str]:
    names = [one.name for one in known if one.repr]
    return lambda self: f"{type(self).__qualname__}({', '.join(f'{name}={getattr(self, name)!r}' for name in names)})"


def _sent(names: frozenset[str]) -> Callable[[Any], dict[str, Any]]:
    """What is copied, or sent to another process: the fields, without what was worked out from them and is kept beside."""
    return lambda self: {name: value for name, value in vars(self).items() if name in names}


def _frozen(cls: Any, names: frozenset[str]) -> dict[str, Any]:
    def assign(self: Any, name: str, value: object) -> None:
        if type(self) is cls or name in names:
            raise FrozenInstanceError(f"cannot assign to field {name!r}")
        super(cls, self).__setattr__(name, value)

    def delete(self: Any, name: str) -> None:
        if type(self) is cls or name in names:
            raise FrozenInstanceError(f"cannot delete field {name!r}")
        super(cls, self).__delattr__(name)

    return {"__setattr__": assign, "__delattr__": delete}


def _begun(cls: Any, known: tuple[Field[Any], ...]) -> Callable[..., None]:
    """An initialiser that takes its own place by a compiled one when it has been called EARLY times, or wrongly."""
    names = tuple(one.name for one in known if one.init)
    left = iter(range(EARLY))

    def begin(self: Any, *args: Any, **named: Any) -> None:
        given = dict(zip(names, args, strict=False)) | named
        is_fit = len(given) == len(args) + len(named) and given.keys() <= set(names)
        if next(left, None) is None or not is_fit or not _filled(self, known, given):
            cls.__init__ = _compiled(cls, known)
            cls.__init__(self, *args, **named)

    return begin


def _filled(made: Any, known: tuple[Field[Any], ...], given: Mapping[str, Any]) -> bool:
    """Gives an instance its values; False, and nothing done, where one is missing."""
    if any(one.default is MISSING and one.default_factory is MISSING and one.name not in given for one in known):
        return False
    for one in known:
        if one.name in given:
            object.__setattr__(made, one.name, given[one.name])
        elif one.default_factory is not MISSING:
            object.__setattr__(made, one.name, one.default_factory())
        elif one.init:
            object.__setattr__(made, one.name, one.default)
    if hasattr(made, "__post_init__"):
        made.__post_init__()
    return True


def _compiled(cls: Any, known: tuple[Field[Any], ...]) -> Callable[..., None]:
    space: dict[str, Any] = {"_set": object.__setattr__, "_none": MISSING}
    heads, lines = ["self"], []
    for one in known:
        name, value = one.name, one.name
        if one.default_factory is not MISSING:
            space[f"_make_{name}"] = one.default_factory
            value = f"_make_{name}() if {name} is _none else {name}" if one.init else f"_make_{name}()"
            heads += [f"{name}=_none"] if one.init else []
        elif one.default is not MISSING:
            space[f"_is_{name}"] = one.default
            heads += [f"{name}=_is_{name}"] if one.init else []
        else:
            heads.append(name)
        if one.init or one.default_factory is not MISSING:
            lines.append(f" _set(self, {name!r}, {value})")
    if hasattr(cls, "__post_init__"):
        lines.append(" self.__post_init__()")
    source = f"def __init__({', '.join(heads)}):\n" + ("\n".join(lines) or " pass")
    exec(compile(source, f"<record {cls.__qualname__}>", "exec"), space)
    made = cast("Callable[..., None]", space["__init__"])
    made.__qualname__ = f"{cls.__qualname__}.__init__"
    return made
