"""Lays on cloth: small with their measures, and at full size for a plotter."""

from __future__ import annotations

from collections.abc import Iterator
from functools import partial

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.lay_models import LayFile
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.kept import kept_with
from zesty_pivot.core.nest.lay import LayPlan


def asked_lays(derived: Derived, printing: Printing) -> tuple[LayFile, ...]:
    """The lays of the style; one on the cloth that was asked for where it has none, or another was."""
    if printing.cloth or not derived.style.lays:
        return (LayFile(width=printing.cloth or "140 cm", folded=printing.folded, nap="one_way" if printing.nap else "none"),)
    return tuple(one for one in derived.style.lays if one.variant in ("", derived.style.variant))


def plan_for(derived: Derived, kept: LayFile) -> LayPlan:
    """The lay as the file keeps it, where its pieces still lie apart; else the shortest that is found. Raises ZestyError where
    it cannot be laid."""
    return _plan_for(derived, kept.model_dump_json())


@kept_with
def _plan_for(derived: Derived, told: str) -> LayPlan:
    """Three files are made of one lay."""
    from zesty_pivot.core.formats.kept_lay import laid, laid_from

    kept = LayFile.model_validate_json(told)
    known = laid_from(derived, kept)
    if known is not None and not known.clashes:
        return known
    *_, best = laid(derived, kept)
    return best


def _named(derived: Derived, printing: Printing) -> Iterator[tuple[str, LayFile]]:
    """The lays with the stems of their files: `lay-self`, `lay-self2`."""
    used: dict[str, int] = {}
    for one in asked_lays(derived, printing):
        used[one.cloth] = used.get(one.cloth, 0) + 1
        yield f"lay-{one.cloth}{used[one.cloth] if used[one.cloth] > 1 else ''}", one


def _small(derived: Derived, printing: Printing) -> bytes:
    from zesty_pivot.core.formats.kept_lay import changed_since
    from zesty_pivot.core.formats.lay_sheet import lay_rows, lays_pdf
    from zesty_pivot.core.nest.paged import PAPERS

    unit, size = derived.style.units, printing.paper if printing.paper in PAPERS else "A4"
    plans = [(plan_for(derived, one), one) for one in asked_lays(derived, printing)]
    rows = tuple((plan, lay_rows(plan, unit, changed_since(derived, one))) for plan, one in plans)
    return lays_pdf(rows, derived.style.title, size)


def _drawn(derived: Derived, one: LayFile) -> bytes:
    from zesty_pivot.core.formats.lay_sheet import lay_at_full_size
    from zesty_pivot.core.formats.svg import sheet_svg

    return sheet_svg(lay_at_full_size(plan_for(derived, one)), derived.style.title)


def _plotted(derived: Derived, printing: Printing, one: LayFile) -> bytes:
    from zesty_pivot.core.exports.plot import plotted
    from zesty_pivot.core.formats.lay_sheet import lay_at_full_size

    return plotted(lay_at_full_size(plan_for(derived, one)), printing)


def _files(derived: Derived, printing: Printing) -> dict[str, Make]:
    found: dict[str, Make] = {"lay.pdf": lambda: _small(derived, printing)}
    for stem, one in _named(derived, printing):
        found[f"{stem}.svg"] = partial(_drawn, derived, one)
        found[f"{stem}.plt"] = partial(_plotted, derived, printing, one)
    return found


EXPORT = Export(
    "lay", "lay on cloth", ".pdf", _files, lambda _paper: "lay.pdf", order=6,
    is_wanted=lambda derived: bool(derived.style.lays),
    tip="Where every piece lies on the cloth, and how much to buy",
)  # fmt: skip
