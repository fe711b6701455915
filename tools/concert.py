"""The recipes of the demo styles: the winter concert (invented)."""

from __future__ import annotations

from typing import Any

# The styles of the winter concert (invented), by file name.
STYLES: dict[str, dict[str, Any]] = {
    "descant": {
        "name": "Descant bodice", "units": "cm",
        "steps": [{"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "french"}}],
        "notes": "Winter concert, soprano solo. The shoulder stays plain for the clasp; fullness goes to the French dart.",
    },
    "vesper": {
        "name": "Vesper bodice", "units": "cm",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "waist"}},
            {"do": "dart.move", "on": "front", "dart": "waist", "to": {"station": "mid_armhole"}, "share": "40%"},
            {"do": "piece.true", "on": "front", "edge": "waist"},
        ],
        "notes": "Evening rehearsal, alto solo. Both front darts go to the waist, two fifths of them on to the armhole.",
    },
    "matins": {
        "name": "Matins bodice", "units": "in",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "side_bust"}},
            {"do": "piece.true", "on": "front", "edge": "waist", "over": "2 in"},
            {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"station": "mid_neck"}},
        ],
        "notes": "Morning service, second soprano. A side bust dart, and the back's shoulder dart in the neck. In inches.",
    },
    "compline": {
        "name": "Compline bodice", "units": "cm",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "mid_neck"}},
            {"do": "dart.use", "on": "front", "dart": "shoulder", "as": "gathers", "ratio": 1.8},
            {"do": "dart.move", "on": "back", "dart": "shoulder", "to": {"station": "mid_neck"}},
            {"do": "piece.true", "on": "front", "edge": "waist"},
        ],
        "notes": "Late service, contralto solo. The bust dart is gathered into the neckline; the back's is in the neck.",
    },
    "lauds": {
        "name": "Lauds bodice", "units": "cm",
        "steps": [
            {"do": "dart.merge", "on": "front", "darts": ["waist", "shoulder"],
             "to": {"edge": "centre", "from": "centre_waist", "at": "35%"}},
            {"do": "piece.true", "on": "front", "edge": "waist"},
            {"do": "dart.use", "on": "back", "dart": "waist", "as": "tucks", "count": 2, "spacing": "3 cm", "stitched": "8 cm"},
        ],
        "notes": "Morning concert, mezzo solo. Both front darts meet at a CF seam as an arrowhead; the back has two tucks.",
    },
    "canticle": {
        "name": "Canticle gown bodice", "units": "cm",
        "steps": [
            {"do": "line.princess", "on": "front", "school": "hollow", "waist": "2.8 cm"},
            {"do": "line.princess", "on": "back"},
            {"do": "line.contour", "on": "back_centre", "by": "1/2 in"},
            {"do": "piece.true_seam", "on": "front_centre", "other": "front_side", "seam": "style_line", "edge": "waist"},
            {"do": "piece.true_seam", "on": "front_centre", "other": "front_side", "seam": "style_line", "edge": "shoulder"},
            {"do": "piece.true_seam", "on": "back_centre", "other": "back_side", "seam": "style_line", "edge": "waist"},
        ],
        "sizes": [f"{group} · {size}" for group in ("regular", "tall") for size in range(34, 54, 2)],
        "notes": "Gala night, soprano solo and choir. A princess gown bodice in four numbered panels, hollow above the bust, "
        "zip at CB; made in all sizes.",
    },
    "nocturne": {
        "name": "Nocturne tunic", "units": "cm", "block": "quillmere-hip",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "side_bust"}},
            {"do": "dart.fisheye", "on": "front", "intake": "3 cm", "bow": "2 mm"},
            {"do": "dart.fisheye", "on": "back", "intake": "1 in", "top": "1 in"},
        ],
        "notes": "Night rehearsal, alto solo. A tunic to the hip: fish-eye darts at the waist, a side bust dart.",
    },
    "antiphon": {
        "name": "Antiphon bodice", "units": "in",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "side_bust"}},
            {"do": "neck.shape", "on": "front", "shape": "canoe", "width": "1 1/4 in", "width_from": "shoulder_tip"},
            {"do": "trim.armhole", "on": "front"},
            {"do": "piece.facing", "on": "front", "kind": "all_in_one", "depth": "2 1/2 in"},
        ],
        "notes": "Second sopranos. Canoe neck for the chain of office; sleeveless, faced all in one: little shoulder is left.",
    },
    "carillon": {
        "name": "Carillon bodice", "units": "cm",
        "steps": [
            {"do": "neck.shape", "on": "front", "shape": "sweetheart", "width": "6 cm", "width_from": "shoulder_tip",
             "back": "square", "back_depth": "11 cm"},
            {"do": "trim.armhole", "on": "front", "shoulder_in": "2 cm"},
            {"do": "neck.gape", "on": "front", "amount": "6 mm", "at": {"edge": "neckline", "at": "30%"}},
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "waist"}},
        ],
        "notes": "Altos. Sweetheart front on straps of 4 cm, square back; what gapes went into the bust dart and to the waist.",
    },
    "evensong": {
        "name": "Evensong bodice", "units": "cm",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "french"}},
            {"do": "neck.shape", "on": "front", "shape": "asymmetric", "side": "left"},
            {"do": "piece.facing", "on": "front", "kind": "neck", "depth": "5 cm"},
        ],
        "notes": "The solo contralto. Deep on the left as worn, cut once, right side up; French darts leave the chest plain.",
    },
    "madrigal": {
        "name": "Madrigal yoke blouse", "units": "cm",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "side_bust"}},
            {"do": "yoke.cut", "on": "back"},
            {"do": "yoke.cut", "on": "front"},
            {"do": "yoke.join", "on": "front_yoke", "forward": "2 cm"},
            {"do": "fullness.gather", "on": "front", "edge": "yoke", "ratio": 1.6},
            {"do": "fullness.pleat", "on": "back", "kind": "box", "count": 1, "depth": "2 cm",
             "start": {"edge": "yoke", "at": "0%"}},
        ],
        "notes": "The part-song quartet. One yoke over the shoulders, gathers in front, a box pleat at CB to breathe.",
    },
    "toccata": {
        "name": "Toccata pleated front", "units": "cm",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "waist"}},
            {"do": "fullness.tuck", "on": "front", "count": 5, "depth": "3 mm", "spacing": "7 mm", "stitched": "16 cm",
             "edge": "neckline", "start": {"edge": "neckline", "at": "1 cm"}},
            {"do": "fullness.pleat", "on": "front", "count": 4, "depth": "1 cm", "spacing": "2 cm", "far": "0%",
             "stitched": "6 cm"},
        ],
        "notes": "The organist's turn. Five narrow tucks released above the bust, four pleats stitched down from the waist.",
    },
    "aria": {
        "name": "Aria cowl top", "units": "cm",
        "steps": [
            {"do": "drape.cowl", "on": "front", "level": "mid", "folds": 3, "pleat": "1 cm", "widen": "2.5 cm"},
            {"do": "neck.opening", "on": "back", "kind": "zip", "length": "18 cm"},
            {"do": "piece.true", "on": "front", "edge": "waist"},
            {"do": "trim.binding", "on": "front", "edge": "armhole", "wide": "7 mm"},
        ],
        "notes": "The coloratura's aria. A cowl with three folds on the bias, its facing cut in one, a weight at its tip.",
    },
    "chorale": {
        "name": "Chorale draped side", "units": "cm",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"dart": "waist"}},
            {"do": "piece.unfold", "on": "front"},
            {"do": "drape.fan", "on": "front", "edge": "side_seam.left", "darts": ["waist.left", "waist.right"],
             "slashes": ["2 cm", "3 cm", "2 cm"], "order": ["1", "waist.left", "2", "waist.right", "3"]},
            {"do": "piece.true", "on": "front", "edge": "waist.left"},
            {"do": "piece.true", "on": "front", "edge": "waist.right"},
            {"do": "neck.opening", "on": "back", "kind": "zip", "length": "20 cm"},
        ],
        "notes": "For the last chorale. Darts and slashes folded into the left side as worn; the lining lies smooth.",
    },
    "rondel": {
        "name": "Rondel peplum bodice", "units": "cm",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "shoulder", "to": {"station": "side_bust"}},
            {"do": "piece.true", "on": "front", "edge": "waist"},
            {"do": "neck.shape", "on": "front", "shape": "square"},
            {"do": "neck.opening", "on": "back", "kind": "zip", "length": "30 cm"},
            {"do": "trim.peplum", "on": "front", "part": 0.5, "depth": "16 cm", "hem": "dipped", "dip": "6 cm",
             "raised_by": "1 in"},
            {"do": "trim.band", "on": "front", "edge": "armhole", "depth": "3 cm"},
            {"do": "trim.frill", "on": "front", "edge": "neckline", "ratio": 1.6, "depth": "4 cm"},
            {"do": "trim.tie", "on": "front", "edge": "lower", "tail": "55 cm", "wide": "4 cm"},
        ],
        "notes": "The round dance. A half-circle peplum an inch above the waist, bands at the arms, a frill, ties behind.",
    },
}  # fmt: skip
