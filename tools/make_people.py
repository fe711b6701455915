"""Writes the demo's people with their drafted blocks, and the styles over those, to src/zesty_pivot/data/demo.

The Quillmere soloists and the youngest treble: invented people, invented measurements. Run: `python tools/make_people.py`.
"""

from __future__ import annotations

from pathlib import Path
from typing import Any

from zesty_pivot.core.formats import block_file, measures_file, style_file
from zesty_pivot.core.formats.drafted_block import block_name, drafted
from zesty_pivot.core.formats.measures_file import Measures, Person
from zesty_pivot.core.formats.style_file import Style, from_block
from zesty_pivot.core.steps import registry
from zesty_pivot.data.methods import shipped

OUT = Path(__file__).parent.parent / "src" / "zesty_pivot" / "data" / "demo"

NAMES = ("bust", "under_bust", "waist", "hip", "shoulder", "across_chest", "across_back", "sh_bp", "sh_under_bust", "fwl",
         "bwl", "span", "hip_depth", "armhole", "neck", "head")  # fmt: skip


def person(name: str, date: str, notes: str, *lengths: float | str, child: bool = False) -> Person:
    """A person of the demo, lengths in cm in the order of NAMES; inches as they were written down."""
    taken = zip(NAMES, lengths, strict=True)
    written = {known: f"{mm} cm" if isinstance(mm, int | float) else mm for known, mm in taken if mm}
    return Person(name=name, date=date, notes=notes, is_child=child, measures=written)


PEOPLE = (
    person("Isaura Thornwick", "2026-01-12", "Soprano. Before the tour.",
           94, 82, 76, 100, 39, 33.5, 36, 27, 34.5, 44, 41, 19, 20, 41, 37.5, 57),
    person("Isaura Thornwick", "2026-10-05", "Soprano.",
           96, 83, 78, 102, 39, 33.5, 36, 27.5, 35, 44.2, 41.2, 19.2, 20, 41.5, 38, 57),
    person("Maren Ashgrove", "2026-10-05", "Alto. Measured in inches.",
           "42 1/2 in", "37 in", "35 in", "44 in", "15 3/4 in", "14 in",
           "14 3/4 in", "11 1/2 in", "14 1/2 in", "18 1/2 in", "16 1/2 in", "8 1/2 in", "8 in", "17 3/4 in", "15 1/2 in",
           "22 3/4 in"),
    person("Perpetua Lisle", "2026-10-06", "Contralto. Front much longer than back.",
           118, 101, 101, 122, 42, 37, 39, 31.5, 39, 50, 42.5, 23, 21,
           46.5, 41, 58),
    person("Tamsin Orrell", "2026-10-06", "Mezzo. Front and back nearly equal.",
           86, 75, 68, 93, 38, 32, 34.5, 25.5, 32.5, 41.5, 41, 17.5, 19.5, 38,
           35.5, 56),
    person("Wren Hallow", "2026-10-07", "The youngest treble, six years. No cords or ties at the neck.",
           61, 0, 60, 0, 26, 23, 24, 0, 0, 26, 25, 0,
           12, 29, 28, 52, child=True),
)  # fmt: skip

# By person: the method of their block, and what is set of it.
BLOCKS: dict[str, tuple[str, dict[str, str]]] = {
    "Isaura Thornwick": ("quarter_waist", {}),
    "Maren Ashgrove": ("quarter_hip", {"hollow_front": "1/2 in"}),
    "Perpetua Lisle": ("quarter_waist", {"intake_front": "1 1/2 in", "side_path": "ruled"}),
    "Tamsin Orrell": ("easy", {}),
    "Wren Hallow": ("child", {"ease": "3/8 in"}),
}

STYLES: dict[str, tuple[str, dict[str, Any]]] = {
    "galliard": ("Isaura Thornwick", {
        "name": "Galliard bodice", "units": "cm",
        "steps": [
            {"do": "dart.move", "on": "front", "dart": "waist", "to": {"station": "mid_armhole"}},
            {"do": "neck.shape", "on": "front", "shape": "square"},
            {"do": "neck.opening", "on": "back", "kind": "zip", "length": "28 cm"},
            {"do": "piece.true", "on": "front", "edge": "side_seam"},
            {"do": "piece.true", "on": "front", "edge": "waist"},
            {"do": "piece.true_seam", "on": "front", "other": "back", "seam": "side_seam", "edge": "waist"},
        ],
        "notes": "The galliard, over a drafted block. Change her measurements in Measure and the style follows.",
    }),
    "carol": ("Wren Hallow", {
        "name": "Carol smock", "units": "cm",
        "steps": [
            {"do": "neck.opening", "on": "back", "kind": "zip", "length": "16 cm"},
            {"do": "yoke.cut", "on": "front"},
            {"do": "fullness.gather", "on": "front", "edge": "yoke", "ratio": 1.5},
        ],
        "notes": "The youngest treble. A yoke with gathers on the dartless block, a zip behind. No cords at the neck.",
    }),
}  # fmt: skip


def block(name: str) -> block_file.BlockFile:
    """A person's block, drafted from the latest measurements."""
    method, settings = BLOCKS[name]
    found = Measures(people=PEOPLE).person(name)
    chosen = shipped(method)
    return drafted(chosen, found.lengths("cm"), settings, block_name(chosen, name))


def main() -> None:
    """Writes everything."""
    (OUT / "soloists.zmeas").write_bytes(measures_file.dump(Measures(name="The Quillmere soloists", people=PEOPLE)))
    for name in BLOCKS:
        (OUT / f"{name.split()[0].lower()}.zblock").write_bytes(block_file.dump(block(name)))
    for file, (name, value) in STYLES.items():
        style: Style = from_block(block(name), value["name"])
        steps = tuple(registry.read(step) for step in value["steps"])
        made = style.model_copy(update={"units": value["units"], "steps": steps, "notes": value["notes"]})
        (OUT / f"{file}.zpiv").write_bytes(style_file.dump(made))


if __name__ == "__main__":
    main()
