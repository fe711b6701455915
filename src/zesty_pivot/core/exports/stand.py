"""The pattern on the form of its own body: a picture from the front and from behind. Asked for together with the cut sheet or
the report it stands in them as well."""

from __future__ import annotations

from zesty_pivot.core.exports.base import Export, Make
from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.printing import Printing

STAND = "stand"


def _files(derived: Derived, _printing: Printing) -> dict[str, Make]:
    from zesty_pivot.core.formats.stood import PICTURE, stand_picture

    return {PICTURE: lambda: stand_picture(derived)}


EXPORT = Export(
    STAND, "picture on the stand", ".png", _files, lambda _paper: "stand.png", order=9, is_wanted=lambda _derived: False,
    tip="The pattern on the form of its body, from the front and from behind: where it stands off, where it pulls",
)  # fmt: skip
