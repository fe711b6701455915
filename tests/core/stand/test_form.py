"""Forms have the girths, lengths and widths that were measured; what was not measured is estimated and told."""

from __future__ import annotations

import numpy as np
import pytest
import shapely

from tests.bodies import CHILD, PERSON
from tests.plausible import plausible_body
from zesty_pivot.core.stand.form import Form, form_of

EXACT = 0.0005  # of a girth


def measured(form: Form, height: float) -> float:
    """A girth as a tape shows it, by another library, over eight times as many points as the form was fitted by."""
    return float(shapely.MultiPoint(form.surface.section(height, 2560)).convex_hull.length)


@pytest.mark.parametrize("seed", range(8))
def test_girths_of_random_bodies(seed: int) -> None:
    body = plausible_body(np.random.default_rng(900 + seed))
    form = form_of(body)
    for name, height in form.levels.items():
        assert measured(form, height) == pytest.approx(form.measures[name], rel=EXACT), name
    # From the shoulder at the neck over blade and bust to the waist.
    for length in form.lengths:
        assert length.mm == pytest.approx(length.asked, abs=12.0), length.name
    heights = [form.heights.hip, 0.0, *(form.levels[name] for name in ("under_bust", "bust", "over_bust"))]
    heights += [form.heights.pit, form.heights.tip, form.heights.neck]
    assert heights == sorted(heights)


def test_a_person_taped() -> None:
    form = form_of(PERSON)
    at = form.heights
    tips = form.surface.at(np.zeros(40), np.linspace(at.tip - 10.0, at.tip, 40))[:, 0]
    assert 2.0 * tips.max() == pytest.approx(PERSON["shoulder"], abs=3.0)
    fall = np.degrees(np.arctan2(at.neck - at.tip, PERSON["shoulder"] / 2.0 - PERSON["bust"] / 12.0))
    assert 14.0 < fall < 22.0  # degrees that shoulders fall, common practice, no source
    bust = form.bust_point
    assert bust is not None
    assert bust[0] == pytest.approx(PERSON["span"] / 2.0)
    assert abs(form.surface.distance(bust[None])[0]) < 0.05
    front, back = form.front_at(40.0, 20.0), form.front_at(40.0, 20.0, is_back=True)
    assert front[1] > 0.0 > back[1]
    # The bust stands out before chest and waist; left and right are alike.
    assert bust[1] > form.front_at(bust[0], at.under_bust or 0.0)[1]
    section = form.surface.section(at.bust or 0.0)
    mirrored = shapely.Polygon(section * (-1.0, 1.0))
    assert shapely.Polygon(section).symmetric_difference(mirrored).area < 1.0


def test_front_and_back_lengths_make_the_posture() -> None:
    upright = form_of({**PERSON, "fwl": PERSON["fwl"] + 15.0})
    stooped = form_of({**PERSON, "fwl": PERSON["fwl"] - 15.0})
    assert upright.heights.ahead > form_of(PERSON).heights.ahead > stooped.heights.ahead


def test_a_fuller_bust_stands_out_more() -> None:
    small = form_of({**PERSON, "under_bust": PERSON["bust"] - 90.0})
    full = form_of({**PERSON, "under_bust": PERSON["bust"] - 170.0})
    assert small.bust_point is not None
    assert full.bust_point is not None
    depth = [form.bust_point[1] - form.front_at(0.0, form.heights.bust or 0.0)[1] for form in (small, full)]
    assert depth[1] > depth[0]


def test_what_is_missing_is_told() -> None:
    form = form_of({"bust": 960.0})
    names = {one.name for one in form.guessed}
    assert {"waist", "hip", "shoulder", "fwl", "bwl", "sh_bp", "span", "neck", "armhole"} <= names
    assert "head" not in names  # a form has none
    assert all(one.why for one in form.guessed)
    assert not {one.name for one in form_of(PERSON).guessed} & set(PERSON)
    with pytest.raises(KeyError):
        form_of({"waist": 700.0})


def test_a_child_has_no_bust_point() -> None:
    form = form_of(CHILD, is_child=True)
    assert form.is_child
    assert form.bust_point is None
    for name, height in form.levels.items():
        assert measured(form, height) == pytest.approx(form.measures[name], rel=EXACT), name
    deep = form.surface.section(form.levels["bust"])
    wide, depth = np.ptp(deep, axis=0)
    assert 1.1 < wide / depth < 1.5  # children are rounder


@pytest.mark.parametrize("bust", [700.0, 1500.0])
def test_small_and_large(bust: float) -> None:
    form = form_of({"bust": bust})
    for name, height in form.levels.items():
        assert measured(form, height) == pytest.approx(form.measures[name], rel=EXACT), name
    assert np.isfinite(form.surface.radii).all()
    assert form.surface.radii.min() > 20.0


def test_the_same_form_twice() -> None:
    assert np.array_equal(form_of(PERSON).surface.radii, form_of(PERSON).surface.radii)
