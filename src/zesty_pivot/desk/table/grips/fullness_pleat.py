"""Handles of fullness.pleat."""

from __future__ import annotations

from zesty_pivot.core.steps.fullness_pleat import Pleat
from zesty_pivot.desk.table.grips.base import Grips
from zesty_pivot.desk.table.grips.let_in import begins_at, begun_elsewhere

GRIPS = Grips(Pleat, begins_at, begun_elsewhere)
