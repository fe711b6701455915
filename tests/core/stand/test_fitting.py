"""Garments on forms: at rest, sound, the same twice; what fits, what is tight, what a dart does; what cannot be sewn."""

from __future__ import annotations

import threading
import time

import numpy as np
import pytest

from tests.bodies import EVEN_PERSON
from tests.fitted import at_a_station, at_bust, demo, drafted, fit, form_for, to_the_points, worn_demo
from tests.plausible import plausible_body
from tests.samples import move, style
from zesty_pivot.core.conventions.sewing import PLAIN
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.piece import Body, EdgeRef, Pattern, SeamSide
from zesty_pivot.core.piece.refs import Seam
from zesty_pivot.core.procedures.base import Context
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.record import replace
from zesty_pivot.core.sewn import seam_plan as planning
from zesty_pivot.core.sewn.laid import centres
from zesty_pivot.core.stand.cloth_kinds import KINDS, USUAL, kind_of
from zesty_pivot.core.stand.fitting import COARSE, Fitting, tried_on
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.core.stand.maps import pulling
from zesty_pivot.core.stand.told import told
from zesty_pivot.core.stand.worn import worn
from zesty_pivot.core.steps import registry

PENETRATION = 0.5  # mm


def is_sound(fitting: Fitting, folds: float = 0.005) -> None:
    assert fitting.rests
    assert fitting.done == 1.0
    assert np.isfinite(fitting.places).all()
    middles = fitting.places[fitting.triangles].mean(axis=1)
    for points in (fitting.places, middles):
        assert fitting.form.surface.distance(points).min() > -PENETRATION
    rest, corners = fitting.worn.sheet.rest, fitting.places[fitting.triangles]
    flat = np.abs(np.linalg.det(np.stack([rest[:, 1] - rest[:, 0], rest[:, 2] - rest[:, 0]], axis=2)))
    across = np.cross(corners[:, 1] - corners[:, 0], corners[:, 2] - corners[:, 0])
    assert np.linalg.norm(across, axis=1) == pytest.approx(flat, rel=0.35)  # nothing is crumpled
    out = fitting.form.surface.outside(middles)[1]
    facing = (across * out).sum(axis=1) / np.linalg.norm(across, axis=1)
    assert (facing < 0.0).mean() < folds  # nothing is turned inside out


@pytest.mark.parametrize("name", ["Descant", "Evensong"])
def test_demo_styles_hang(name: str) -> None:
    """A bodice, and a whole front with another right than left; all others in `make torture`."""
    fitting = worn_demo(name)
    is_sound(fitting)
    assert fitting.worn.is_whole == (name == "Evensong")
    highest, lowest = fitting.places[:, 2].max(), fitting.places[:, 2].min()
    assert highest < fitting.form.heights.neck + 25.0
    assert -40.0 < lowest < 40.0  # at the waist
    # Front and back are not each other's, and left and right are not exchanged.
    for n, piece in enumerate(fitting.worn.plan.pieces):
        mine = np.unique(fitting.triangles[fitting.worn.mesh.pieces == n])
        places = fitting.places[mine]
        ahead = places[:, 1].mean() - fitting.form.surface.middle(places[:, 2]).mean()
        assert (ahead > 0.0) == (piece.body is not Body.BACK), piece.name


def test_what_is_not_worn_is_named() -> None:
    derived = demo("Rondel")
    found = worn(derived.pattern, derived.look.block, derived.look.sewing, form_for(derived), COARSE)
    assert "neckline frill" in found.left_out
    assert worn_demo("Descant").worn.left_out == ()


def test_a_cowl_falls_in_folds() -> None:
    fitting = worn_demo("Aria")
    is_sound(fitting, folds=0.05)  # but where a fold turns over
    middle = fitting.worn.sheet.on_axis
    front = middle[fitting.places[middle, 1] > 0.0]
    assert fitting.gap[front].max() > 25.0  # it hangs away from the body
    # Its edge hangs in the middle, below the shoulders, and nobody is asked to take it out.
    ends = fitting.places[fitting.worn.sheet.held[:, 1]]
    assert fitting.places[front, 2].max() < ends[:, 2].min() - 25.0
    said = [one.finding for one in told(fitting, "cm")]
    assert not any(finding.check == "stand_neckline" and finding.piece == "front" for finding in said)


def test_the_same_twice() -> None:
    derived = demo("Descant")
    one, other = worn_demo("Descant"), fit(derived.pattern, derived.look.block, form_for(derived), derived.look.sewing)
    assert np.array_equal(one.places, other.places)
    assert np.array_equal(one.gap, other.gap)
    for values in (one.places, one.gap, one.pull):  # shown by other threads: nobody writes into them
        with pytest.raises(ValueError, match="read-only"):
            values[0] = 0.0


@pytest.mark.parametrize("seed", [2])
def test_a_block_sits_on_the_body_it_was_drafted_for(seed: int) -> None:
    """Sixty of them in `make torture`."""
    body = plausible_body(np.random.default_rng(seed))
    block = drafted("two_dart", body)
    fitting = fit(block, block, form_of(body))
    is_sound(fitting)
    assert pulling(fitting) == ()
    for level in ("bust", "waist"):
        near = np.abs(fitting.places[:, 2] - fitting.form.levels[level]) < 12.0
        assert fitting.gap[near].max() < 25.0, level


def test_six_centimetres_more_are_tight_round_bust_and_waist() -> None:
    body = dict(EVEN_PERSON)
    block = drafted("two_dart", body)
    more = {name: mm + 60.0 if name in ("bust", "under_bust", "waist", "hip") else mm for name, mm in body.items()}
    fitting = fit(block, block, form_of(more))
    is_sound(fitting)
    tight = pulling(fitting)
    assert tight
    assert any("bust" in patch.words or "back" in patch.words or "waist" in patch.words for patch in tight)
    # 6 cm on a body of 97 less the 2.4 cm of ease: some 4 %; nowhere absurd.
    assert 0.02 < max(patch.value for patch in tight) < 0.13
    assert fitting.pull.max() < 0.25
    # Let out by what it tells, first at the waist (11 %), then at the bust (6 %), it is tight no longer.
    step = registry.read({"do": "piece.let_out", "on": "front", "other": "back", "top": "15 mm", "bottom": "23 mm"})
    wider = step.apply(block, Context(block, Scope("cm", {}), PLAIN)).pattern
    assert max((patch.value for patch in pulling(fit(wider, block, form_of(more)))), default=0.0) < 0.03


def test_the_pivot_principle_is_seen_in_cloth() -> None:
    """The same fullness at other places round one point: the garment is the same. Twelve stations in `make torture`."""
    gaps, pulls = zip(*(at_bust(at_a_station(name)) for name in ("mid_shoulder", "centre_waist")), strict=True)
    assert np.ptp(gaps) < 3.0
    assert np.ptp(pulls) < 0.01
    # A dart that is taken away shows: left open it is room below the bust.
    open_ = derive(style([move("shoulder", "waist"), {"do": "dart.use", "on": "front", "dart": "waist", "as": "flare"}]))
    loose = fit(open_.pattern, open_.look.block, form_for(open_), to_the_points(open_.pattern))
    low = loose.places[:, 2] < 30.0
    assert loose.gap[low & (loose.places[:, 1] > 0.0)].max() > 60.0


def test_it_stops_and_tells_how_far_it_is() -> None:
    derived, stop = demo("Descant"), threading.Event()
    seen = tried_on(derived.pattern, derived.look.block, derived.look.sewing, form_for(derived), kind_of(USUAL), stop, fine=8.0)
    first = next(seen)
    second = next(seen)
    assert 0.0 < first.done < second.done < 0.2
    assert not second.rests
    stop.set()
    began = time.monotonic()
    assert list(seen) == []
    assert time.monotonic() - began < 1.0


def test_a_finer_cloth_lies_where_the_coarse_one_does() -> None:
    derived = demo("Descant")
    coarse = worn_demo("Descant")
    fine = fit(derived.pattern, derived.look.block, coarse.form, derived.look.sewing, fine=12.5, soon=coarse)
    is_sound(fine)
    for fitting in (coarse, fine):
        assert fitting.worn.sheet.on_axis.size
    assert len(fine.places) > 1.4 * len(coarse.places)
    assert np.quantile(fine.gap, [0.25, 0.5, 0.75]) == pytest.approx(np.quantile(coarse.gap, [0.25, 0.5, 0.75]), abs=2.0)
    assert fine.places[:, 2].min() == pytest.approx(coarse.places[:, 2].min(), abs=5.0)


@pytest.mark.parametrize("edge", ["side_seam", "shoulder"])
def test_a_seam_the_wrong_way_round_is_refused(edge: str, monkeypatch: pytest.MonkeyPatch) -> None:
    """It crumpled the cloth without any error."""
    given = planning._Planning._side

    def turned(self, side: SeamSide):  # type: ignore[no-untyped-def]
        found = given(self, side)
        if side.parts[0] != EdgeRef("back", edge):
            return found
        whole = found[-1].start + found[-1].length
        return [replace(s, start=whole - s.start - s.length, is_turned=not s.is_turned) for s in reversed(found)]

    monkeypatch.setattr(planning._Planning, "_side", turned)
    derived = demo("Descant")
    with pytest.raises(ZestyError, match=r"wrong way round|apart"):
        worn(derived.pattern, derived.look.block, derived.look.sewing, form_for(derived), COARSE)


def test_what_cannot_be_sewn_says_why() -> None:
    derived = demo("Descant")
    front = derived.pattern.piece("front")
    lost = Pattern((replace(front, body=Body.NONE),))
    with pytest.raises(ZestyError, match="no front or back"):
        worn(lost, derived.look.block, derived.look.sewing, form_for(derived), COARSE)
    across = replace(
        derived.pattern, seams=(Seam(SeamSide((EdgeRef("front", "neckline"),)), SeamSide((EdgeRef("back", "waist"),))),)
    )
    with pytest.raises(ZestyError, match=r"apart|wrong way round"):
        worn(across, derived.look.block, derived.look.sewing, form_for(derived), COARSE)


@pytest.mark.parametrize("body", ["front", "back"])
def test_front_alone_and_back_alone(body: str) -> None:
    derived = demo("Descant")
    alone = replace(derived.pattern, pieces=(derived.pattern.piece(body),), seams=())
    found = worn(alone, derived.look.block, derived.look.sewing, form_for(derived), COARSE)
    assert found.sheet.count > 100
    assert np.isfinite(found.start).all()


def test_kinds_of_cloth() -> None:
    assert len({kind.id for kind in KINDS}) == len(KINDS) >= 6
    by_id = {kind.id: kind for kind in KINDS}
    for weight in ("light", "medium", "heavy"):
        assert by_id[f"{weight}_soft"].bend < by_id[f"{weight}_firm"].bend
    with pytest.raises(KeyError, match="medium_firm"):
        kind_of("silk")


@pytest.mark.parametrize("is_whole", [False, True])
def test_a_slit_hangs_open(is_whole: bool) -> None:
    steps = [{"do": "neck.opening", "on": "back", "kind": "slit", "length": "12 cm"}]
    if is_whole:
        steps.append({"do": "piece.unfold", "on": "front"})
    derived = derive(style(steps))
    assert not derived.derivation.broken
    on = worn(derived.pattern, derived.look.block, derived.look.sewing, form_for(derived), 16.0)
    assert on.is_whole is is_whole
    n = next(number for number, piece in enumerate(on.plan.pieces) if piece.name == "back")
    middle = centres(on.plan)
    mine = middle[on.plan.of[middle] == n]
    down = on.plan.places[mine, 1] - on.plan.places[mine, 1].min()
    other = np.isin(on.plan.of, [k for k, piece in enumerate(on.plan.pieces) if piece.name == "back.right"])
    for at, y in zip(mine.tolist(), down.tolist(), strict=True):
        if is_whole:  # sewn to the right half from the end of the slit on
            is_shut = bool((on.plan.sewn[other] == on.plan.sewn[at]).any())
        else:  # held to the middle of the body
            is_shut = bool(np.isin(on.own[at], on.sheet.on_axis))
        assert is_shut is (y >= 120.0 - 1e-6), y
