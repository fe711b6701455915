"""Garments on forms: every demo style, blocks drafted for plausible people, the pivot principle at every station, and random
recipes on random people; each at rest, sound, or refused in a sentence."""

from __future__ import annotations

import random

import numpy as np

from tests.fitted import at_a_station, at_bust, demo, drafted, fit, form_for
from tests.plausible import plausible_body
from tests.samples import FRONT_STATIONS
from tests.torture.recipes import random_style
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.stand.fitting import COARSE, Fitting
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.core.stand.maps import pulling
from zesty_pivot.core.stand.printed import printed
from zesty_pivot.core.stand.told import told
from zesty_pivot.data.demo import demo_styles

PENETRATION = 0.5  # mm
FOLDED = 0.06  # of the triangles that may be turned over, in the folds of a cowl


def tried(seed: int) -> str | None:
    """One garment, of a kind by its number."""
    chance = random.Random(seed)
    kinds = (_of_the_demo, _of_its_own_body, _of_its_own_body, _at_a_station, _random)
    said = ""
    try:
        said = kinds[seed % len(kinds)](chance) or ""
    except ZestyError as fault:
        if "\n" in str(fault) or not fault.advice:
            said = f"refused badly: {fault!r}"
    except Exception as fault:  # noqa: BLE001 - what this family looks for
        said = f"{type(fault).__name__}: {fault}"
    return f"garment {seed}: {said}" if said else None


def _fault(fitting: Fitting) -> str | None:
    if not np.isfinite(fitting.places).all():
        return "a place is no number"
    middles = fitting.places[fitting.triangles].mean(axis=1)
    deepest = min(float(fitting.form.surface.distance(at).min()) for at in (fitting.places, middles))
    if deepest < -PENETRATION:
        return f"{-deepest:.2f} mm through the form"
    corners = fitting.places[fitting.triangles]
    across = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    facing = (across * fitting.form.surface.outside(middles)[1]).sum(axis=1)
    if (facing < 0.0).mean() > FOLDED:
        return f"{100.0 * (facing < 0.0).mean():.0f} % of it is inside out"
    told(fitting, "cm")
    if not printed(fitting, "in").startswith(b"\x89PNG"):
        return "no picture"
    return None


def _of_the_demo(chance: random.Random) -> str | None:
    name = chance.choice([one.name for one in demo_styles()])
    derived = demo(name)
    found = _fault(fit(derived.pattern, derived.look.block, form_for(derived), derived.look.sewing, COARSE))
    return f"{name}: {found}" if found else None


def _of_its_own_body(chance: random.Random) -> str | None:
    body = plausible_body(np.random.default_rng(chance.randrange(10**9)))
    block = drafted("two_dart", body)
    fitting = fit(block, block, form_of(body), rough=COARSE)
    near = [np.abs(fitting.places[:, 2] - fitting.form.levels[level]) < 12.0 for level in ("bust", "waist")]
    if any(patch.value > 0.04 for patch in pulling(fitting)) or max(fitting.gap[at].max() for at in near if at.any()) > 32.0:
        return f"a block does not sit on its own body: {body}"
    return _fault(fitting)


def _at_a_station(chance: random.Random) -> str | None:
    station = chance.choice(list(FRONT_STATIONS))
    fitting = at_a_station(station, COARSE)
    (gap, pull), (waist, usual) = at_bust(fitting), at_bust(at_a_station("waist", COARSE))
    if abs(gap - waist) > 3.0 or abs(pull - usual) > 0.01:
        return f"{station}: {gap:.1f} mm at the bust, {100 * pull:.1f} %; in the waist {waist:.1f} mm, {100 * usual:.1f} %"
    return _fault(fitting)


def _random(chance: random.Random) -> str | None:
    _block, made = random_style(chance.randrange(10**9), most=4)
    derived = derive(made)
    body = plausible_body(np.random.default_rng(chance.randrange(10**9)))
    fitting = fit(derived.pattern, derived.look.block, form_of(body), derived.look.sewing, COARSE)
    return None if np.isfinite(fitting.places).all() else "a place is no number"
