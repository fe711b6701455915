"""Renders the photograph that ships with the demo: the demo's block as paper within the printed frame. Run: `python -m
tools.photograph_demo`."""

from __future__ import annotations

import cv2
import numpy as np
from tests.core.intake.photo.scenes import scene
from tests.photographed import Shot, photograph, table

from tools.make_demo import OUT
from zesty_pivot.core.intake.photo.mat import mat
from zesty_pivot.data.demo import PHOTOGRAPH, demo_style

MEGAPIXELS = 4


def main() -> None:
    """Draws the table, takes the picture, writes it as JPEG."""
    chance = np.random.default_rng(20261129)
    frame = mat("A4")
    pieces = [piece for _piece, piece in scene(demo_style().block, notched=("side_seam", "armhole"))]
    shot = Shot(2304, 1728, lean=9.0, towards=40.0, turn=93.0, k1=-0.05, light=0.2, noise=2.0, blur=0.7)
    pixels = photograph(table(frame, pieces, chance, colour=(96, 84, 58)), frame, shot, chance)
    (OUT / PHOTOGRAPH).write_bytes(cv2.imencode(".jpg", pixels, [cv2.IMWRITE_JPEG_QUALITY, 86])[1].tobytes())


if __name__ == "__main__":
    main()
