"""Darts folded shut on the sheet."""

import numpy as np
import shapely

from zesty_pivot.core.finish.darts import SewnDart
from zesty_pivot.core.geometry import Motion, between
from zesty_pivot.core.piece import Piece


def seam_beside(piece: Piece, dart: SewnDart) -> shapely.LineString:
    """The seam on the side the dart is pressed to, from the mouth on round the outline."""
    index = piece.mouth_run(dart.dart)
    if dart.fold == "before":
        runs = [piece.runs[(index - k) % len(piece.runs)].path.reversed() for k in range(3)]
    else:
        runs = [piece.runs[(index + 1 + k) % len(piece.runs)].path for k in range(3)]
    return shapely.LineString(np.concatenate([path.flatten(0.001) for path in runs]))


def folded_shut(dart: SewnDart) -> np.ndarray:
    """Where every point of the cap lies when the dart is folded shut: the half next to the pressed side mirrored
    in its leg, the other half turned shut about the sewn point with the cloth it belongs to."""
    assert dart.cap is not None
    near, far = dart.mouth if dart.fold == "before" else dart.mouth[::-1]
    cap = dart.cap if dart.fold == "before" else dart.cap.reversed()
    points = np.array([cap.point_at(distance) for distance in np.linspace(0.0, cap.length, 201)])
    middle = (dart.mouth[0] + dart.mouth[1]) / 2 - dart.point
    side = np.array([middle[1], -middle[0]])
    sign = np.sign((near - dart.point) @ side)
    is_near = ((points - dart.point) @ side) * sign >= 0
    mirrored = Motion.reflect(dart.point, near - dart.point)(points)
    turned = Motion.turn(dart.point, between(far - dart.point, near - dart.point))(points)
    return np.where(is_near[:, None], mirrored, turned)
