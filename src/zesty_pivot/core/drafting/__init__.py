"""Blocks from measurements: a method is a data file, drawn operation by operation."""

from zesty_pivot.core.drafting.draft import Done, Draft, DraftError, Truing, draft
from zesty_pivot.core.drafting.method import SUFFIX, Method

__all__ = ["SUFFIX", "Done", "Draft", "DraftError", "Method", "Truing", "draft"]
