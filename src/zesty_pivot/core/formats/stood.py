"""A derived style on the form of its own body, for sheets and reports."""

from __future__ import annotations

import threading
from dataclasses import asdict

from zesty_pivot.core import faults
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.cut_sheet import StandShown
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.measure import BY_NAME
from zesty_pivot.core.piece.names import capital
from zesty_pivot.core.record import record
from zesty_pivot.core.stand.cloth_kinds import USUAL, kind_of
from zesty_pivot.core.stand.fitting import FINE, Fitting, tried_on
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.core.stand.printed import printed
from zesty_pivot.core.stand.told import Points, StandFinding, told

PICTURE = "stand.png"
KNOWS = "On a form, which has no arms and does not move; cloth pulls alike in every direction."


@record(eq=False)
class Stood:
    """What came of it: the fitting at rest and what it tells; or `fault`, a sentence that says why there is none."""

    fitting: Fitting | None
    told: tuple[StandFinding, ...]
    fault: str = ""


@kept_with
def stood(derived: Derived) -> Stood:
    """The pattern in the usual cloth, at rest. It takes some ten seconds, once for each derived style."""
    style, block = derived.style, derived.derivation.block
    lengths = style.body()
    try:
        if "bust" not in lengths:
            raise ZestyError("nobody's bust is known", where="stand", advice="Give the style the bust of its body.")
        form = form_of(lengths, is_child=style.block.method == "child" or not style.block.has_bust_point)
        *_, last = tried_on(derived.pattern, block, derived.look.sewing, form, kind_of(USUAL), threading.Event(), fine=FINE)
        return Stood(last, told(last, style.units))
    except ZestyError as fault:
        return Stood(None, (), str(fault))
    except Exception as fault:  # noqa: BLE001 - the boundary of a picture: the sheet that it stands on is written all the same
        return Stood(None, (), faults.sentence("trying it on", faults.caught(fault, "the stand on a sheet")))


@kept_with
def stand_picture(derived: Derived) -> bytes:
    """PNG of it, from the front and from behind. Raises ZestyError where it cannot be tried on."""
    found = stood(derived)
    if found.fitting is None:
        raise ZestyError(found.fault, where=PICTURE)
    return printed(found.fitting, derived.style.units)


def stand_shown(derived: Derived) -> StandShown:
    """What a cut sheet has of it."""
    found = stood(derived)
    if found.fitting is None:
        return StandShown(b"", (f"Not shown: {found.fault}",))
    whose = derived.style.block.name
    says = [f"{KNOWS} Cloth: {found.fitting.kind.title}; the form is made from the measurements of {whose}."]
    says += [capital(f"{one.finding.message}.") for one in found.told]
    return StandShown(stand_picture(derived), tuple(says))


@record
class StandTold:
    """What the stand tells, in a report: as a finding, with the place on the form in mm (left, front, above the waist)."""

    check: str
    severity: str
    piece: str
    message: str
    value: float
    advice: str
    place_mm: tuple[float, float, float]


@record
class StandReport:
    """The style on its own body's form: the cloth, whether it came to rest, where it stands off most (mm) and is stretched most
    (a share), what of the form is estimated, what is not worn, what it tells; `fault` where it could not be tried on."""

    cloth: str
    rests: bool
    most_off_mm: float
    most_stretched: float
    estimated: tuple[str, ...]
    not_worn: tuple[str, ...]
    tells: tuple[StandTold, ...]
    fault: str = ""


def _rounded(place: Points) -> tuple[float, float, float]:
    x, y, z = (round(float(at), 1) for at in place)
    return x, y, z


def stand_report(derived: Derived) -> dict[str, object]:
    """What the report has of it."""
    found = stood(derived)
    shown = found.fitting
    if shown is None:
        return asdict(StandReport("", False, 0.0, 0.0, (), (), (), found.fault))
    tells = tuple(
        StandTold(
            one.finding.check, one.finding.severity.value, one.finding.piece, one.finding.message, one.finding.value,
            one.finding.advice, _rounded(one.place),
        )
        for one in found.told
    )  # fmt: skip
    return asdict(
        StandReport(
            shown.kind.title, shown.rests, round(float(shown.gap.max()), 1), round(float(shown.pull.max()), 4),
            tuple(BY_NAME[one.name].short for one in shown.form.guessed), shown.worn.left_out, tells,
        )
    )  # fmt: skip
