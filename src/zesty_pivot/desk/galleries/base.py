"""What a gallery is made of: variants of one kind of step, by the fields that they set."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from contextlib import suppress
from typing import Any

from pydantic import ValidationError

from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.record import record
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step

Fields = Mapping[str, Any]  # as the step's JSON has them


@record
class Design:
    """One picture: what the step's fields are then. `of` adds those that depend on the step and the piece that it meets, the
    best first; none where that has no such variant."""

    title: str
    hint: str
    fields: Fields
    of: Callable[[Step, Piece], Sequence[Fields]] = lambda _step, _piece: ({},)


@record
class GalleryEntry:
    """The variants of a kind of step, by name. Taking one takes the fields of all others out, and those `cleared` too; those in
    `else_cleared` only where it cannot be done with them. Which one a step is, the fields in `words` tell by their values, and
    those in `sizes` by being asked for."""

    do: str
    title: str
    variants: Mapping[str, Design]
    cleared: tuple[str, ...] = ()
    else_cleared: tuple[str, ...] = ()
    words: tuple[str, ...] = ()
    sizes: tuple[str, ...] = ()

    @cached_property
    def keys(self) -> tuple[str, ...]:
        """Every field that a variant decides."""
        return tuple(dict.fromkeys([*(key for one in self.variants.values() for key in one.fields), *self.cleared]))

    def taken(self, name: str, step: Step, piece: Piece) -> list[Step]:
        """A step with a variant taken, the best way first; none where the piece has none."""
        variant, found = self.variants[name], []
        kept = {key: value for key, value in registry.dump(step).items() if key not in self.keys}
        bare = {key: value for key, value in kept.items() if key not in self.else_cleared}
        for base in (kept, bare) if bare != kept else (kept,):
            for more in variant.of(step, piece):
                with suppress(ValidationError):
                    found.append(registry.read({**base, **variant.fields, **more}))
        return found

    def now(self, step: Step, piece: Piece) -> str | None:
        """The variant that a step is: as it was taken (the last of several, which says more), else with sizes of the user's
        own."""
        made = [(name, one) for name in self.variants for one in self.taken(name, step, piece)]
        exact = [name for name, one in made if one == step]
        alike = (name for name, one in made if self._signed(one) == self._signed(step))
        return exact[-1] if exact else next(alike, None)

    def _signed(self, step: Step) -> tuple[object, ...]:
        return (*(getattr(step, key) for key in self.words), *(bool(getattr(step, key)) for key in self.sizes))
