"""What a style's finish decides for single darts, in files up to version 2: there it named them by their ids; now by where they
open at the end of the recipe."""

from __future__ import annotations

from typing import TYPE_CHECKING

from zesty_pivot.core.conventions.options import DartFinish
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.piece import DartRef, dart_key
from zesty_pivot.core.recipe import Evaluator

if TYPE_CHECKING:
    from zesty_pivot.core.piece import Pattern
    from zesty_pivot.core.quantity import Scope
    from zesty_pivot.core.steps.base import Step


def named_by_place(
    darts: dict[str, DartFinish], block: Pattern, steps: tuple[Step, ...], scope: Scope
) -> dict[str, DartFinish]:
    """The same decisions by the darts' present names. One for a dart that is not there stays as it is."""
    if not darts:
        return darts
    try:
        pattern = Evaluator().evaluate(block, steps, scope).pattern
    except ZestyError:
        return darts
    return {_key(pattern, key): decided for key, decided in darts.items()}


def _key(pattern: Pattern, key: str) -> str:
    ref = DartRef.read(key)
    if not pattern.has(ref.piece) or not pattern.piece(ref.piece).has_dart(ref.dart):
        return key
    return dart_key(pattern.piece(ref.piece), ref.dart)
