"""The report: every length, angle and finding, for other programs."""

from __future__ import annotations

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.folder import REPORT
from zesty_pivot.core.formats.printing import Printing


def _files(derived: Derived, printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats import report

    found: dict[str, Make] = {}
    if printing.on_stand:
        from zesty_pivot.core.formats import stood

        if stood.stood(derived).fitting is not None:
            found[stood.PICTURE] = lambda: stood.stand_picture(derived)
        found[REPORT] = lambda: report.dump(report.report(derived), stand=stood.stand_report(derived))
    else:
        found[REPORT] = lambda: report.dump(report.report(derived))
    return found


EXPORT = Export(
    "json",
    "report",
    ".json",
    _files,
    lambda _paper: REPORT,
    tip="Every length, angle and finding, for other programs",
    order=3,
    is_usual=True,
)
