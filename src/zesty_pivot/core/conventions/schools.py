"""The named conventions of pattern rooms. All figures: common practice, no source."""

from __future__ import annotations

from collections.abc import Mapping

from zesty_pivot.core.piece import Body
from zesty_pivot.core.quantity.units import IN
from zesty_pivot.core.record import record

# Above this intake (mm) a dart is a large one. Common practice, no source.
LARGE_INTAKE = 50.0


@record
class Setback:
    """How far the sewn point stays from the pivot, mm, for small and for large darts."""

    title: str
    small_mm: float
    large_mm: float
    reason: str
    large_from_mm: float = LARGE_INTAKE

    def distance(self, intake_mm: float, large_from_mm: float | None = None) -> float:
        """The set-back in mm for a dart of this intake; `large_from_mm` is the intake above which it is a large one, where
        that is not the school's."""
        limit = self.large_from_mm if large_from_mm is None else large_from_mm
        return self.large_mm if intake_mm > limit else self.small_mm


SETBACKS: dict[str, Setback] = {
    "graded": Setback(
        "2 cm, 4 cm for a large dart",
        20.0,
        40.0,
        "A large dart ends further away, or it makes a peak; a small one may come close.",
    ),
    "near": Setback("1.5 cm, any dart", 15.0, 15.0, "The fullness sits close to the bust: for a fitted bodice."),
    "even": Setback("2 cm, any dart", 20.0, 20.0, "One figure for all darts: quick, and safe for small ones."),
    "three_quarter_inch": Setback("3/4 in, any dart", 0.75 * IN, 0.75 * IN, "Rooms that measure in inches end any dart here."),
    "inch": Setback("1 in, any dart", IN, IN, "A soft shape: the fullness is let out early."),
    "large_shoulder": Setback(
        "3/4 in, 1 1/4 in for a large dart",
        0.75 * IN,
        1.25 * IN,
        "A large shoulder dart is stopped higher, where the chest is hollow.",
    ),
}


@record
class Weight:
    """A thickness of cloth, and the widest intake (mm) that is still folded into a cap; a wider one is cut away inside."""

    title: str
    most_mm: float
    reason: str


CAP_UP_TO: dict[str, Weight] = {
    "light": Weight("light cloth: folded up to 8 cm", 80.0, "Thin cloth lies flat even when a wide dart is folded."),
    "medium": Weight("medium cloth: folded up to 5 cm", LARGE_INTAKE, "A wider dart in medium cloth shows as a ridge."),
    "heavy": Weight("heavy cloth: folded up to 2 cm", 20.0, "Three layers of thick cloth cannot be pressed flat."),
}

# Towards which side of its mouth a dart is folded, by the role of its edge: `before` is the side met first
# on the clockwise way round, `after` the other. Down at side, armhole and centre; towards the centre elsewhere.
_TO_CENTRE = {"neckline": "before", "shoulder": "before", "waist": "after", "hem": "after"}
_DOWN = {"armhole": "after", "side_seam": "after", "centre": "before"}


@record
class FoldSchool:
    """Which way darts are pressed, by the role of the edge they open on."""

    title: str
    sides: Mapping[str, str]
    reason: str


FOLDS: dict[str, FoldSchool] = {
    "trade": FoldSchool(
        "to the centre; side and armhole down", {**_TO_CENTRE, **_DOWN}, "Upright folds turn inwards, level ones hang down."
    ),
    "waist_to_side": FoldSchool(
        "the same, but waist darts to the side",
        {**_TO_CENTRE, **_DOWN, "waist": "before"},
        "Waist darts pressed to the side lie smoother under a skirt.",
    ),
}


@record
class AllowanceSchool:
    """Seam allowance in mm by role; `seam` is for roles that are not named; `centre_open` for a centre that is sewn."""

    title: str
    seam: float
    roles: Mapping[str, float]
    centre_open: Mapping[Body, float]

    def of(self, role: str, body: Body) -> float:
        """The allowance in mm of an edge with this role; a centre is asked for only when it does not lie on the fold."""
        if role == "centre":
            return self.centre_open.get(body, self.seam)
        return self.roles.get(role, self.seam)


# What lies under a lapped seam reaches so far (mm) past the plain allowance, beyond the stitching. Common practice, no source.
UNDER_A_LAP = 5.0

ALLOWANCES: dict[str, AllowanceSchool] = {
    "industry_metric": AllowanceSchool(
        "industry: 1 cm, neck, armhole 0.6",
        10.0,
        {"neckline": 6.0, "armhole": 6.0, "opening": 6.0, "facing_edge": 0.0, "raw_edge": 0.0, "hem": 30.0},
        {Body.BACK: 15.0},
    ),
    "inches_room": AllowanceSchool(
        "inches: 1/2 in, 1/4 in neck",
        0.5 * IN,
        {"neckline": 0.25 * IN, "opening": 0.25 * IN, "facing_edge": 0.0, "raw_edge": 0.0, "hem": 1.0 * IN},
        {},
    ),
    "home_room": AllowanceSchool(
        "home: side 1 1/2 in, joins 1 in",
        1.0 * IN,
        {
            "hem": 1.0 * IN,
            "side_seam": 1.5 * IN,
            "shoulder": 0.5 * IN,
            "neckline": 0.5 * IN,
            "armhole": 0.5 * IN,
            "opening": 0.5 * IN,
            "raw_edge": 0.0,
        },
        {Body.BACK: 1.5 * IN},
    ),
    "none": AllowanceSchool("none: seam lines only", 0.0, {}, {}),
}


def reasons_of(table: Mapping[str, Setback] | Mapping[str, FoldSchool] | Mapping[str, Weight]) -> dict[str, str]:
    """Why each school does as it does, by its name."""
    return {name: school.reason for name, school in table.items()}
