"""What a fitting says of places: in the right words, on the right side, with a mend that mends."""

from __future__ import annotations

import numpy as np
import pytest

from tests.bodies import CHILD, PERSON
from tests.fitted import demo, fit, form_for, worn_demo
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.record import replace
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.core.stand.maps import OFF_MM, edge_roles, pulling, standing_off
from zesty_pivot.core.stand.told import told
from zesty_pivot.core.stand.whereabouts import goes_round, is_behind, where
from zesty_pivot.core.steps import registry

FORM = form_of(PERSON)


@pytest.mark.parametrize(
    ("angle", "level", "said"),
    [
        (90.0, "bust", "the bust, centre front"), (-90.0, "bust", "the back, centre back"), (0.0, "bust", "the bust, side"),
        (90.0, "waist", "the waist, centre front"), (-90.0, "hip", "the seat, centre back"), (50.0, "hip", "the hip, front"),
        (-50.0, "waist", "the waist, back"), (90.0, "under_bust", "the under-bust, centre front"),
    ],
)  # fmt: skip
def test_words(angle: float, level: str, said: str) -> None:
    place = FORM.surface.at(np.array([np.radians(angle)]), np.array([FORM.levels[level]]))[0]
    assert where(FORM, place).startswith(said)
    assert is_behind(FORM, place) == (angle < 0.0)


def test_words_of_edges_sides_and_heights() -> None:
    left = FORM.surface.at(np.array([0.3]), np.array([0.0]))[0]
    assert where(FORM, left, is_whole=True) == "the waist, left side"
    assert where(FORM, left * (-1.0, 1.0, 1.0), is_whole=True) == "the waist, right side"
    assert where(FORM, left, "armhole") == "the armhole, side"
    top = FORM.surface.at(np.array([0.1]), np.array([FORM.heights.tip]))[0]
    assert where(FORM, top).startswith("the shoulder")
    upper = FORM.surface.at(np.array([np.pi / 2]), np.array([FORM.heights.pit - 30.0]))[0]
    assert where(FORM, upper).startswith("the upper chest")
    child = form_of(CHILD, is_child=True)
    chest = child.surface.at(np.array([np.pi / 2]), np.array([child.levels["bust"]]))[0]
    assert where(child, chest).startswith("the chest")
    ring = FORM.surface.at(np.linspace(-1.2, 1.2, 30), np.zeros(30))
    assert goes_round(FORM, ring)
    assert not goes_round(FORM, ring[12:18])


def with_values(fitting: Fitting, *, gap: np.ndarray | None = None, pull: np.ndarray | None = None) -> Fitting:
    count = len(fitting.places)
    return replace(
        fitting, gap=np.zeros(count) if gap is None else gap, pull=np.zeros(count) if pull is None else pull
    )  # fmt: skip


def test_patches() -> None:
    fitting = worn_demo("Descant")
    bust = fitting.form.bust_point
    assert bust is not None
    off = np.linalg.norm(fitting.places - bust, axis=1)
    gap = np.where(off < 40.0, 30.0 - off / 4.0, 0.0)
    (patch,) = standing_off(with_values(fitting, gap=gap))
    assert patch.value == pytest.approx(gap.max())
    assert patch.words.startswith("the bust, front")
    assert patch.area == pytest.approx(np.pi * 40.0**2, rel=0.35)
    assert standing_off(with_values(fitting, gap=np.full(len(gap), OFF_MM - 0.1))) == ()
    # One triangle tells nothing.
    lone = np.zeros(len(gap))
    lone[int(off.argmin())] = 0.5
    assert pulling(with_values(fitting, pull=lone)) == ()
    assert pulling(with_values(fitting)) == ()


def test_a_tight_girth_is_named_by_height() -> None:
    fitting = worn_demo("Descant")
    level = np.abs(fitting.places[:, 2] - fitting.form.levels["bust"]) < 25.0
    found = pulling(with_values(fitting, pull=np.where(level, 0.06, 0.0)))
    assert {patch.words for patch in found} & {"the bust, right across"}
    said = [one.finding for one in told(with_values(fitting, pull=np.where(level, 0.06, 0.0)), "cm")]
    tight = next(finding for finding in said if finding.check == "stand_pulls")
    assert tight.severity.value == "warning"
    assert "6 %" in tight.message
    # 6 % of the form's bust, in the unit of the style.
    lacks = 0.06 * fitting.form.measures["bust"]
    assert f"{lacks / 10.0:.1f} cm" in tight.advice
    # A quarter of it an edge, at the underarm of front and back: what the step takes.
    step = tight.mend.step
    assert (step["do"], step["on"], step["other"], step["bottom"]) == ("piece.let_out", "front", "back", "0")
    assert step["top"] == f"{round(lacks / 4.0) / 10.0:g} cm" and "Let the sides out by" in tight.mend.title
    waist = np.abs(fitting.places[:, 2] - fitting.form.levels["waist"]) < 25.0
    said = [one.finding for one in told(with_values(fitting, pull=np.where(waist, 0.04, 0.0)), "cm")]
    tight = next(finding for finding in said if finding.check == "stand_pulls")
    assert tight.mend.step["top"] == "0" and tight.mend.step["bottom"].endswith("cm")


def test_edges_are_those_of_the_finished_garment() -> None:
    fitting = worn_demo("Descant")
    roles = edge_roles(fitting)
    assert set(roles.values()) == {"neckline", "armhole", "waist"}
    necks = fitting.places[[point for point, role in roles.items() if role == "neckline"]]
    assert (np.abs(necks[:, 0]) < 110.0).all()
    assert necks[:, 2].min() > fitting.form.levels["over_bust"]


def test_a_gaping_neckline_is_taken_out() -> None:
    """The step that is offered makes the gap smaller on the same form."""
    derived = demo("Vesper")
    before = worn_demo("Vesper")
    finding = next(one.finding for one in told(before, "cm") if one.finding.check == "stand_neckline" and one.finding.mend)
    assert finding.piece == "front"
    assert finding.mend is not None
    style = derived.style
    mended = derive(style.model_copy(update={"steps": (*style.steps, registry.read(finding.mend.step))}))
    assert not mended.derivation.broken
    after = fit(mended.pattern, mended.look.block, form_for(derived), mended.look.sewing)

    def gap(fitting: Fitting) -> float:
        roles = edge_roles(fitting)
        mine = [p for p, role in roles.items() if role == "neckline" and not is_behind(fitting.form, fitting.places[p])]
        return float(fitting.gap[mine].max())

    assert gap(after) < gap(before) - 1.0


def test_a_front_that_is_too_short_hangs_higher() -> None:
    fitting = worn_demo("Descant")
    lifted = fitting.places.copy()
    front = lifted[:, 1] > fitting.form.surface.middle(lifted[:, 2])
    lifted[front & (lifted[:, 2] < 60.0), 2] += 40.0
    said = [one.finding.message for one in told(replace(fitting, places=lifted), "cm")]
    assert any("higher in front than behind" in text for text in said)
    lifted[front & (lifted[:, 2] < 100.0), 2] -= 90.0
    said = [one.finding.message for one in told(replace(fitting, places=lifted), "in")]
    assert any("lower in front than behind" in text for text in said)
    moved = fitting.places + np.array([0.0, 0.0, 40.0])
    pins = [one.finding.message for one in told(replace(fitting, places=moved), "cm")]
    assert any("above it" in text and "bust" in text for text in pins)
