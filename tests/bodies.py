"""Plausible bodies, for properties of drafts; mm.

Ranges from size tables as remembered (women's bust 76 to 132 cm, back waist length 37 to 44 cm): common practice, no source.
"""

from __future__ import annotations

from hypothesis import strategies as st

IN = 25.4

# A measured person (invented), and a child: round numbers, so that arithmetic by hand stays readable.
PERSON = {
    "bust": 38 * IN, "under_bust": 33 * IN, "waist": 30 * IN, "hip": 40 * IN, "shoulder": 15 * IN, "sh_bp": 10.5 * IN,
    "sh_under_bust": 13.5 * IN, "fwl": 17.5 * IN, "bwl": 16 * IN, "span": 7.5 * IN, "hip_depth": 8 * IN,
}  # fmt: skip
EVEN_PERSON = {**PERSON, "bwl": 17.25 * IN}
CHILD = {"bust": 24 * IN, "fwl": 10 * IN, "shoulder": 10 * IN}

METHODS = ("quarter_waist", "quarter_hip", "easy", "child", "blouse_four_darts", "two_dart")


def person(method: str) -> dict[str, float]:
    """The measured person as a method wants one."""
    return dict(CHILD if method == "child" else EVEN_PERSON if method == "easy" else PERSON)


@st.composite
def bodies(draw: st.DrawFn) -> dict[str, float]:
    """A plausible grown-up body."""

    def share(low: float, high: float) -> float:
        return draw(st.floats(low, high, allow_nan=False))

    bust = share(760.0, 1320.0)
    bwl = share(370.0, 440.0)
    fwl = bwl + share(5.0, 80.0) * min(1.0, bust / 1000.0)
    shoulder = 250.0 + bust * share(0.13, 0.17)
    sh_bp = bust / 6.0 + share(85.0, 125.0)
    waist, under_bust = bust * share(0.70, 0.92), bust * share(0.83, 0.90)
    return {
        "bust": bust, "under_bust": under_bust, "waist": waist, "hip": bust * share(1.0, 1.12), "shoulder": shoulder,
        "sh_bp": sh_bp, "sh_under_bust": sh_bp + share(55.0, 85.0), "fwl": fwl, "bwl": bwl, "span": bust * share(0.18, 0.215),
        "hip_depth": share(180.0, 220.0),
    }  # fmt: skip


@st.composite
def even_bodies(draw: st.DrawFn) -> dict[str, float]:
    """One whose front and back waist lengths agree within half an inch."""
    body = draw(bodies())
    return {**body, "bwl": body["fwl"] - draw(st.floats(-12.0, 12.0))}


@st.composite
def children(draw: st.DrawFn) -> dict[str, float]:
    """A child of some two to ten years: chest 50 to 72 cm."""
    chest = draw(st.floats(500.0, 720.0))
    found = {"bust": chest, "fwl": chest * draw(st.floats(0.40, 0.47)), "shoulder": chest * draw(st.floats(0.38, 0.44))}
    if draw(st.booleans()):
        found["waist"] = chest * draw(st.floats(0.9, 1.02))
    return found


def bodies_for(method: str) -> st.SearchStrategy[dict[str, float]]:
    """Bodies that a method is for."""
    return {"child": children(), "easy": even_bodies()}.get(method, bodies())
