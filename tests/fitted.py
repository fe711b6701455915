"""Fittings that several tests look at, each made once."""

from __future__ import annotations

import functools
import threading
from unittest import mock

import numpy as np

from tests.samples import move, style
from zesty_pivot.core.conventions.sewing import PLAIN, OwnPoint, Sewing
from zesty_pivot.core.drafting.draft import draft
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.formats.drafted_block import block_of
from zesty_pivot.core.piece import DartRef, Pattern
from zesty_pivot.core.piece.called import called
from zesty_pivot.core.stand import fitting
from zesty_pivot.core.stand.cloth_kinds import USUAL, kind_of
from zesty_pivot.core.stand.fitting import Fitting, tried_on
from zesty_pivot.core.stand.form import Form, form_of
from zesty_pivot.data.demo import demo_styles
from zesty_pivot.data.methods import shipped

ROUGH = 20.0  # mm between points


@functools.cache
def demo(name: str) -> Derived:
    """A demo style by the beginning of its name."""
    return derive(next(style for style in demo_styles() if style.name.startswith(name)))


def form_for(derived: Derived) -> Form:
    """The form of the body that a style is for."""
    return form_of(derived.look.scope.measures, is_child="bust_point" not in derived.look.block.piece("front").landmarks)


def fit(
    pattern: Pattern,
    block: Pattern,
    form: Form,
    sewing: Sewing = PLAIN,
    rough: float = ROUGH,
    fine: float | None = None,
    soon: Fitting | None = None,
) -> Fitting:
    """The pattern at rest on a form, in cloth somewhat coarser than a window shows first."""
    with mock.patch.object(fitting, "COARSE", rough):
        turns = tried_on(pattern, block, sewing, form, kind_of(USUAL), threading.Event(), fine=fine or rough, soon=soon)
        return list(turns)[-1]


@functools.cache
def worn_demo(name: str) -> Fitting:
    """A demo style at rest on its own body, in coarse cloth."""
    derived = demo(name)
    return fit(derived.pattern, derived.look.block, form_for(derived), derived.look.sewing)


def to_the_points(pattern: Pattern) -> Sewing:
    """Every dart sewn all the way to its pivot, wherever it opens now."""
    darts = ((piece, dart.id) for piece in pattern.pieces for dart in piece.darts)
    return Sewing(own=tuple((DartRef(piece.name, called(piece, dart)), OwnPoint(setback_mm=0.0)) for piece, dart in darts))


@functools.cache
def at_a_station(station: str, rough: float = ROUGH) -> Fitting:
    """The front's whole fullness moved to a station, sewn to the bust point, in coarse cloth."""
    steps = [move("shoulder", "waist"), *([move("waist", station)] if station != "waist" else [])]
    derived = derive(style(steps))
    return fit(derived.pattern, derived.look.block, form_for(derived), to_the_points(derived.pattern), rough)


def at_bust(fitting: Fitting) -> tuple[float, float]:
    """The mean gap (mm) within 45 mm of the bust point, and how much the cloth pulls there."""
    aim = fitting.form.bust_point
    assert aim is not None
    near = np.linalg.norm(fitting.places - aim, axis=1) < 45.0
    return float(fitting.gap[near].mean()), float(np.quantile(fitting.pull[near], 0.9))


def drafted(method: str, body: dict[str, float]) -> Pattern:
    """A block of a method for a body."""
    return block_file.pattern(block_of(draft(shipped(method), body, {})))
