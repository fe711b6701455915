"""Plausible people for the stand: round size tables as remembered, each measure off by as much as people are.

Common practice, no source; the tables are those of `core/measure/estimates`.
"""

from __future__ import annotations

import numpy as np


def plausible_body(chance: np.random.Generator) -> dict[str, float]:
    """A grown-up of bust 80 to 120 cm, mm."""

    def off(most: float) -> float:
        return float(chance.uniform(-most, most))

    bust = float(chance.uniform(800.0, 1200.0))
    bwl = 350.0 + 0.07 * bust + off(10.0)
    fwl = bwl + bust / 24.0 + off(8.0)
    sh_bp = bust / 6.0 + 120.0 + off(8.0)
    return {
        "bust": bust, "under_bust": bust - 130.0 + off(15.0), "waist": bust - 160.0 + off(25.0), "hip": bust + 90.0 + off(30.0),
        "shoulder": 260.0 + 0.14 * bust + off(10.0), "sh_bp": sh_bp, "sh_under_bust": sh_bp + 75.0 + off(8.0), "fwl": fwl,
        "bwl": bwl, "span": 0.205 * bust + off(6.0), "hip_depth": 0.47 * fwl + off(10.0),
    }  # fmt: skip
