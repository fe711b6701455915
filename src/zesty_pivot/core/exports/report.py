"""The report: every length, angle and finding, for other programs."""

from __future__ import annotations

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.folder import REPORT
from zesty_pivot.core.formats.printing import Printing


def _files(derived: Derived, _printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats import report

    return {REPORT: lambda: report.dump(report.report(derived))}


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
