"""Handles of fullness.tuck."""

from __future__ import annotations

from zesty_pivot.core.steps.fullness_tuck import Tuck
from zesty_pivot.desk.table.grips.base import Grips
from zesty_pivot.desk.table.grips.let_in import begins_at, begun_elsewhere

GRIPS = Grips(Tuck, begins_at, begun_elsewhere)
