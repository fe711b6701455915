"""Kinds of cloth by weight and hand.

Weights and flexural rigidities are those of common shirtings, dress goods and coatings as remembered (5 to 120 µN m): common
practice, no source. Bias is not modelled: a cloth takes the same pull in every direction.
"""

from __future__ import annotations

from zesty_pivot.core.errors import one_of
from zesty_pivot.core.stand.cloth import ClothKind

KINDS = (
    ClothKind("light_soft", "light and soft, as voile", 80.0, 0.5, 0.006),
    ClothKind("light_firm", "light and firm, as lawn", 110.0, 0.6, 0.020),
    ClothKind("medium_soft", "medium and soft, as crêpe", 160.0, 0.6, 0.012),
    ClothKind("medium_firm", "medium and firm, as calico", 150.0, 0.7, 0.040),
    ClothKind("heavy_soft", "heavy and soft, as wool crêpe", 280.0, 0.8, 0.050),
    ClothKind("heavy_firm", "heavy and firm, as coating", 380.0, 1.0, 0.120),
)
USUAL = "medium_firm"  # what toiles are made of

PAPER = ClothKind("paper", "paper", 80.0, 8.0, 0.060)


def kind_of(id: str) -> ClothKind:
    """A kind by its id. Raises KeyError that lists them."""
    found = next((kind for kind in KINDS if kind.id == id), None)
    if found is None:
        what, advice = one_of("cloth", id, (kind.id for kind in KINDS))
        raise KeyError(f"{what}. {advice}")
    return found
