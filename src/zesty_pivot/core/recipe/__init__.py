"""A recipe: an ordered list of steps over a block, worked out with its unchanged beginning reused."""

from zesty_pivot.core.recipe.evaluation import Derivation, Evaluator, State

__all__ = ["Derivation", "Evaluator", "State"]
