"""How edges and corners of bodice halves usually look: means and spreads over drafts of random people.

Written by `python -m tools.measure_shapes` from 1800 drafts by the program's methods, stretched by up to
12%. An edge: its share of the outline's sewn length, how far it bows inwards and outwards in shares of its
chord. A corner: its turn in degrees. No source outside.
"""

from __future__ import annotations

KINDS = ("back", "back to the hip", "front", "front to the hip")

EDGES: dict[str, dict[str, tuple[tuple[float, float], ...]]] = {
    "back": {
        "neckline": ((0.0776, 0.0220), (0.1057, 0.0300), (0.0000, 0.0300)),
        "shoulder": ((0.0973, 0.0220), (0.0082, 0.0300), (0.0000, 0.0300)),
        "armhole": ((0.1936, 0.0341), (0.1906, 0.0759), (0.0000, 0.0300)),
        "side_seam": ((0.1437, 0.0360), (0.0004, 0.0300), (0.0089, 0.0343)),
        "waist": ((0.1814, 0.0297), (0.0375, 0.0300), (0.0000, 0.0300)),
        "centre": ((0.3064, 0.0260), (0.0000, 0.0300), (0.0087, 0.0300)),
    },
    "back to the hip": {
        "neckline": ((0.0550, 0.0220), (0.1052, 0.0300), (0.0000, 0.0300)),
        "shoulder": ((0.0694, 0.0220), (0.0000, 0.0300), (0.0000, 0.0300)),
        "armhole": ((0.1491, 0.0261), (0.2332, 0.0544), (0.0000, 0.0300)),
        "side_seam": ((0.2211, 0.0316), (0.0700, 0.0675), (0.0013, 0.0300)),
        "waist": ((0.1650, 0.0262), (0.0000, 0.0300), (0.0000, 0.0300)),
        "centre": ((0.3403, 0.0230), (0.0121, 0.0300), (0.0059, 0.0300)),
    },
    "front": {
        "neckline": ((0.1135, 0.0220), (0.1953, 0.1024), (0.0000, 0.0300)),
        "shoulder": ((0.0969, 0.0220), (0.0009, 0.0300), (0.0009, 0.0300)),
        "armhole": ((0.2029, 0.0368), (0.2625, 0.0975), (0.0000, 0.0300)),
        "side_seam": ((0.1438, 0.0363), (0.0083, 0.0300), (0.0112, 0.0372)),
        "waist": ((0.1866, 0.0363), (0.0558, 0.0653), (0.0005, 0.0300)),
        "centre": ((0.2562, 0.0570), (0.0079, 0.0300), (0.0000, 0.0300)),
    },
    "front to the hip": {
        "neckline": ((0.0756, 0.0220), (0.1382, 0.0300), (0.0000, 0.0300)),
        "shoulder": ((0.0694, 0.0220), (0.0000, 0.0300), (0.0000, 0.0300)),
        "armhole": ((0.1439, 0.0273), (0.2533, 0.0519), (0.0000, 0.0300)),
        "side_seam": ((0.2204, 0.0308), (0.0979, 0.0680), (0.0000, 0.0300)),
        "waist": ((0.1647, 0.0270), (0.0000, 0.0300), (0.0000, 0.0300)),
        "centre": ((0.3260, 0.0309), (0.0000, 0.0300), (0.0000, 0.0300)),
    },
}

CORNERS: dict[str, dict[str, tuple[float, float]]] = {
    "back": {
        "centre_neck": (90.05, 9.00),
        "neck_point": (88.74, 9.00),
        "shoulder_tip": (90.00, 9.00),
        "underarm": (90.01, 9.00),
        "side_waist": (84.82, 10.98),
        "centre_waist": (87.86, 9.00),
    },
    "back to the hip": {
        "centre_neck": (90.10, 9.00),
        "neck_point": (90.03, 9.00),
        "shoulder_tip": (89.97, 9.00),
        "underarm": (89.95, 9.00),
        "side_waist": (101.27, 9.00),
        "centre_waist": (90.20, 9.00),
    },
    "front": {
        "centre_neck": (90.00, 9.00),
        "neck_point": (91.26, 9.00),
        "shoulder_tip": (89.99, 9.00),
        "underarm": (90.01, 9.00),
        "side_waist": (88.15, 17.22),
        "centre_waist": (85.07, 13.20),
    },
    "front to the hip": {
        "centre_neck": (90.00, 9.00),
        "neck_point": (90.04, 9.00),
        "shoulder_tip": (89.96, 9.00),
        "underarm": (89.93, 9.00),
        "side_waist": (101.16, 9.00),
        "centre_waist": (89.97, 9.00),
    },
}
