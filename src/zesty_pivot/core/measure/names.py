"""Measurement names, in the order in which one measures, with where the tape goes.

Terms follow ISO 8559-1 where it has the measurement, from memory and without its clause numbers; names in files and the
sentences are common practice, no source. Ranges are of grown-ups and of children from about two years on, from size tables as
remembered: they are there to catch a slip of the unit or the pen, and nobody is refused by them.
"""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from zesty_pivot.core.record import record


@record
class Measurement:
    """One measurement: its name in files, its title, where the tape goes, its term in ISO 8559-1 (none where the standard
    has no such measurement), and what is likely (mm): for grown-ups, and for children where it is taken of them."""

    name: str
    title: str
    tape: str
    iso: str
    likely: tuple[float, float]
    child: tuple[float, float] | None = None

    @property
    def short(self) -> str:
        """The title without what stands after its comma."""
        return self.title.partition(",")[0]


CHART: tuple[Measurement, ...] = (
    Measurement("bust", "full bust", "Round the fullest part of the bust, level, breathing quietly; of a child the chest.",
                "bust girth", (700.0, 1600.0), (450.0, 900.0)),
    Measurement("over_bust", "over-bust, above the full bust", "Round the chest high under the arms, above the bust.",
                "upper chest girth", (680.0, 1450.0)),
    Measurement("under_bust", "under-bust", "Round the ribs right below the bust, close.", "under-bust girth", (600.0, 1400.0)),
    Measurement("waist", "waist", "Round the narrowest part, where a cord tied round settles; not tight.", "waist girth",
                (500.0, 1500.0), (430.0, 850.0)),
    Measurement("hip", "hip", "Round the fullest part of the seat, level.", "hip girth", (750.0, 1700.0), (480.0, 950.0)),
    Measurement("shoulder", "shoulder width, tip to tip", "Across the back from one shoulder tip to the other.",
                "shoulder width", (320.0, 520.0), (200.0, 400.0)),
    Measurement("across_chest", "across chest", "Across the front from armhole to armhole, half way down the armhole.",
                "across front width", (270.0, 480.0), (180.0, 350.0)),
    Measurement("across_back", "across back", "Across the back from armhole to armhole, half way down the armhole.",
                "across back width", (280.0, 500.0), (190.0, 360.0)),
    Measurement("sh_bp", "shoulder to bust point", "From the shoulder at the neck straight down to the bust point.",
                "", (200.0, 400.0)),
    Measurement("sh_under_bust", "shoulder to under-bust", "From the shoulder at the neck over the bust to the under-bust.",
                "", (260.0, 500.0)),
    Measurement("fwl", "front waist length", "From the shoulder at the neck over the bust to the waist.",
                "front waist length", (330.0, 600.0), (180.0, 400.0)),
    Measurement("bwl", "back waist length", "From the nape down the middle of the back to the waist.",
                "back waist length", (330.0, 500.0), (180.0, 400.0)),
    Measurement("span", "bust span", "From one bust point to the other.", "bust point width", (130.0, 300.0)),
    Measurement("hip_depth", "hip depth", "From the waist down the side to the hip line.", "waist to hip",
                (140.0, 280.0), (80.0, 220.0)),
    Measurement("armhole", "armhole round", "Round the arm where it joins the body, over the shoulder tip and under the arm.",
                "armscye girth", (320.0, 620.0), (200.0, 420.0)),
    Measurement("neck", "neck girth", "Round the base of the neck.", "neck base girth", (300.0, 520.0), (220.0, 400.0)),
    Measurement("head", "head girth", "Round the widest part of the head, above the ears.", "head girth",
                (500.0, 650.0), (440.0, 600.0)),
)  # fmt: skip

MEASUREMENTS: Mapping[str, str] = MappingProxyType({each.name: each.title for each in CHART})

BY_NAME: Mapping[str, Measurement] = MappingProxyType({each.name: each for each in CHART})
