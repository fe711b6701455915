"""Handles of fullness.gather."""

from __future__ import annotations

from zesty_pivot.core.steps.fullness_gather import Gather
from zesty_pivot.desk.table.grips.base import Grips
from zesty_pivot.desk.table.grips.let_in import begins_at, begun_elsewhere

GRIPS = Grips(Gather, begins_at, begun_elsewhere)
