"""The picture of each step that can be added."""

from __future__ import annotations

PICTURES = {
    "dart.move": "rotate-cw", "dart.split": "split", "dart.merge": "merge", "dart.equalise": "equal",
    "piece.true": "spline", "dart.fan": "list-collapse", "dart.use": "waves", "dart.shape": "diamond",
    "dart.fisheye": "eye", "line.princess": "columns-2",
    "line.cut": "scissors-line-dashed", "line.band": "rectangle-ellipsis", "piece.join": "combine",
    "yoke.cut": "fold-horizontal", "yoke.join": "yoke-join", "fullness.pleat": "pleats",
    "fullness.tuck": "tucks", "fullness.gather": "gathers",
    "line.contour": "chart-spline", "trim.hem": "arrow-up-from-line", "trim.strapless": "crown",
    "dart.park": "square-parking", "dart.return": "undo-dot", "fullness.slash": "slice", "fullness.flare": "fan",
    "piece.side_seam": "move-horizontal", "piece.let_out": "let-out",
    "piece.true_seam": "blend", "piece.square": "square-dashed",
    "piece.unfold": "unfold-horizontal", "piece.side_panel": "panels-top-left",
    "neck.shape": "shirt", "neck.gape": "shrink", "neck.opening": "separator-vertical", "trim.armhole": "circle-dashed",
    "piece.facing": "layers", "trim.frill": "frill", "trim.band": "band", "trim.binding": "binding",
    "trim.piping": "piping", "trim.casing": "casing", "trim.waistband": "waistband", "trim.tie": "tie",
    "trim.bow": "bow", "trim.ruffle": "ruffle", "trim.placket": "placket", "trim.loops": "loops",
    "trim.stand": "stand", "trim.strap": "strap", "trim.peplum": "peplum", "fullness.circle": "circle-part",
    "drape.cowl": "cowl", "drape.cowl_armhole": "cowl", "drape.fan": "drape", "drape.twist": "twist",
}  # fmt: skip
