"""The gallery of yokes and midriffs."""

from __future__ import annotations

from zesty_pivot.core.piece import Piece
from zesty_pivot.core.steps.base import Step
from zesty_pivot.core.steps.yoke_cut import YokeCut
from zesty_pivot.desk.galleries.base import Design, Fields, GalleryEntry


def led(_step: Step, piece: Piece) -> list[Fields]:
    """What opens in the seam of itself, else one of the piece's darts that is led to it, the nearest above first."""
    darts = sorted(piece.darts, key=lambda dart: piece.pivot(dart.pivot)[1])
    return [{}, *({"led": dart.id} for dart in darts)]


def beside_it(step: Step, _piece: Piece) -> list[Fields]:
    """The left side where the user wants it, else a quarter down."""
    assert isinstance(step, YokeCut)
    return [{} if step.at is not None else {"at": "25%"}]


GALLERY = GalleryEntry(
    "yoke.cut",
    "Yokes",
    {
        "straight": Design("Straight", "a level seam from armhole to armhole", {"kind": "yoke"}),
        "curved": Design("Curved", "lowest at the centre, which it leaves square", {"kind": "yoke", "shape": "curved"}),
        "pointed": Design("Pointed", "a point at the centre", {"kind": "yoke", "shape": "pointed"}),
        "scalloped": Design("Scalloped", "arcs that hang down", {"kind": "yoke", "shape": "scalloped"}),
        "gathered": Design(
            "Gathers below", "the fullness of a dart gathered into the seam", {"kind": "yoke", "seam_darts": "gathers"}, led
        ),
        "pleated": Design("Pleats below", "or laid in pleats there", {"kind": "yoke", "seam_darts": "pleats"}, led),
        "uneven": Design(
            "Uneven",
            "higher on the left than on the right",
            {"kind": "yoke", "right": "60%"},
            beside_it,
        ),
        "midriff": Design("Midriff", "a band round the waist, its waist darts shut", {"kind": "midriff"}),
        "midriff_curved": Design(
            "Curved midriff", "rising to the centre in a curve", {"kind": "midriff", "shape": "curved", "depth": "-3 cm"}
        ),
        "midriff_pointed": Design(
            "Pointed midriff", "a point up at the centre", {"kind": "midriff", "shape": "pointed", "depth": "-3 cm"}
        ),
        "midriff_down": Design(
            "Point down", "a point down at the centre", {"kind": "midriff", "shape": "pointed", "depth": "2 cm"}
        ),
        "hip": Design("Hip yoke", "from the waist to a seam below, its darts shut", {"kind": "hip"}),
        "hip_pointed": Design("Pointed hip", "with a point down at the centre", {"kind": "hip", "shape": "pointed"}),
    },
    cleared=("led",),
    sizes=("right",),
    words=("kind", "shape", "seam_darts"),
)
