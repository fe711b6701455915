"""Variants of a style: other recipes over the same block, kept in one file; what two have in common is edited once."""

from collections.abc import Iterable, Sequence
from typing import Annotated, Any

from pydantic import BeforeValidator, Field, SerializeAsAny

from zesty_pivot.core.formats import files
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.quantity.fields import Model
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.base import Step

MAX_STEPS, MAX_VARIANTS = 400, 60
FIRST = "As the block"  # what a variant without steps is called


def _step(value: Any) -> Step:
    return files.read_inside(lambda: registry.read(value))


AnyStep = Annotated[SerializeAsAny[Step], BeforeValidator(_step)]
Steps = tuple[Step, ...]


class Variant(Model):
    """One of a style's recipes. The variant on the table has its steps in the style itself, and none here."""

    name: str = Field(min_length=1, max_length=120)
    of: str = Field(default="", max_length=120, description="the variant that it was made from")
    shared: int = Field(default=0, ge=0, description="how many steps from the first on it has in common with that one")
    named_by: int | None = Field(default=None, ge=0, description="the step whose words are its name; none once it was named")
    steps: tuple[AnyStep, ...] | None = Field(default=None, max_length=MAX_STEPS)


def faults_of(variants: Sequence[Variant]) -> str:
    """What is wrong with the variants of a style, if anything is."""
    names = [one.name for one in variants]
    if not variants:
        return ""
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        return f"two variants are called {twice!r}"
    if sum(one.steps is None for one in variants) != 1:
        return "just one variant, the one on the table, has its steps in the style itself"
    lost = next((one for one in variants if one.of and (one.of not in names or one.of == one.name)), None)
    return f"{lost.name!r} is a variant of {lost.of!r}, which is not there" if lost is not None else ""


def shown(variants: Sequence[Variant]) -> Variant | None:
    """The variant on the table; None in a style without variants."""
    return next((one for one in variants if one.steps is None), None)


def free(name: str, taken: Iterable[str]) -> str:
    """A name that no variant has yet: with a number behind it where it has to."""
    known, name = set(taken), name[:110] or FIRST
    return next(one for one in (name, *(f"{name} {number}" for number in range(2, len(known) + 3))) if one not in known)


def changed(variants: tuple[Variant, ...], before: Steps, after: Steps) -> tuple[Variant, ...]:
    """The variants once the steps of the one on the table have changed: a change that lies wholly in what another has in common
    with it is made there as well; one that does not parts them where it begins."""
    table = shown(variants)
    if table is None or before == after:
        return variants
    first = _alike(before, after)
    tail = min(_alike(before[::-1], after[::-1]), len(before) - first, len(after) - first)
    last, more = len(before) - tail, len(after) - len(before)
    # A step that is added right where two part belongs to the one on the table alone.
    whole = max(last, first + 1)
    reached = {one.name for one in variants if _in_common(variants, table.name, one.name) >= whole}
    made = []
    for one in variants:
        steps = one.steps
        if steps is not None and one.name in reached:
            steps = (*steps[:first], *after[first : len(after) - tail], *steps[last:])
        by = one.named_by
        if by is not None and one.name in reached and by >= last:
            by += more
        made.append(one.model_copy(update={"steps": steps, "named_by": by, "shared": _still(one, reached, first, last, more)}))
    return _named(tuple(made), after)


def _named(variants: tuple[Variant, ...], steps: Steps) -> tuple[Variant, ...]:
    """The variants, those without a name of their own called by what their step says now."""
    for one in variants:
        mine = steps if one.steps is None else one.steps
        said = "" if one.named_by is None else _said(mine, one.named_by)
        if said and not _is_called(one.name, said):
            variants = renamed(variants, one.name, said, by=one.named_by)
    return variants


def _said(steps: Steps, at: int) -> str:
    return capital(steps[at].said())[:110] if at < len(steps) else ""


def _is_called(name: str, said: str) -> bool:
    """Whether a name is these words, with or without a number behind them."""
    return name == said or (name.startswith(f"{said} ") and name.removeprefix(f"{said} ").isdigit())


def _still(one: Variant, reached: set[str], first: int, last: int, more: int) -> int:
    """How much a variant has in common with the one it was made from, after a change of the steps from `first` to `last`."""
    if one.shared <= first or not one.of:
        return one.shared
    both = one.name in reached, one.of in reached
    if all(both):
        return one.shared + more if one.shared >= last else first
    return first if any(both) else one.shared


def _in_common(variants: Sequence[Variant], one: str, other: str) -> int:
    """How many steps two variants have in common: as many as every variant on the way from one to the other has."""
    known = {each.name: each for each in variants}
    if one == other:
        return MAX_STEPS + 1
    ways = [_to_root(known, name) for name in (one, other)]
    meet = next((name for name in ways[0] if name in ways[1]), None)
    if meet is None:
        return 0
    on_the_way = [name for way in ways for name in way[: way.index(meet)]]
    return min(known[name].shared for name in on_the_way)


def _to_root(known: dict[str, Variant], name: str) -> list[str]:
    found = [name]
    while known[found[-1]].of and known[found[-1]].of not in found:
        found.append(known[found[-1]].of)
    return found


def _alike(one: Steps, two: Steps) -> int:
    """How many steps from the first on are the same."""
    count = 0
    for a, b in zip(one, two, strict=False):
        if a != b:
            break
        count += 1
    return count


def begun(variants: tuple[Variant, ...], steps: Steps, at: int) -> tuple[tuple[Variant, ...], Steps]:
    """Another variant, on the table from then on: the variants, and the steps of the style. What comes before the step `at` it
    has in common with the one that was there, that step and those after it are its own and begin alike; where `at` is -1 it is
    begun afresh from the block. Both are called by the words of the step where they part, until the user names them."""
    part = max(at, 0)
    known = variants or (Variant(name=_said(steps, part) or FIRST, named_by=part),)
    table = next(one for one in known if one.steps is None)
    put_away = tuple(one.model_copy(update={"steps": steps}) if one is table else one for one in known)
    own = steps if at >= 0 else ()
    name = free(_said(own, part) or FIRST, (one.name for one in known))
    return (*put_away, Variant(name=name, of=table.name, shared=part, named_by=part)), own


def put_on_table(variants: tuple[Variant, ...], steps: Steps, name: str) -> tuple[tuple[Variant, ...], Steps]:
    """Another variant on the table, by its name; the same where it is there already. Raises KeyError for a name of none."""
    wanted = next((one for one in variants if one.name == name), None)
    if wanted is None:
        raise KeyError(name)
    if wanted.steps is None:
        return variants, steps
    made = tuple(
        one.model_copy(update={"steps": None if one is wanted else steps if one.steps is None else one.steps})
        for one in variants
    )
    return made, wanted.steps


def without(variants: tuple[Variant, ...], name: str) -> tuple[Variant, ...]:
    """The variants without one that is not on the table; those made from it are of the one it was made from, from then on.
    The last one left is no variant any more."""
    gone = next(one for one in variants if one.name == name)
    made = []
    for one in variants:
        if one is gone:
            continue
        if one.of == name:
            shared = min(one.shared, gone.shared) if gone.of else 0
            one = one.model_copy(update={"of": gone.of, "shared": shared})
        made.append(one)
    return tuple(made) if len(made) > 1 else ()


def renamed(variants: tuple[Variant, ...], name: str, new: str, by: int | None = None) -> tuple[Variant, ...]:
    """The variants with one called otherwise: as the user says, or by the words of a step."""
    new = free(new, (one.name for one in variants if one.name != name))
    return tuple(
        one.model_copy(update={"name": new, "named_by": by} if one.name == name else {"of": new if one.of == name else one.of})
        for one in variants
    )
