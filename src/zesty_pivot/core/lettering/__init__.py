"""Writing in every script: which of the shipped fonts has a character, and in what order runs of text stand on the paper."""

from zesty_pivot.core.lettering.faces import FACES, Face, missing
from zesty_pivot.core.lettering.runs import TextRun, is_plain, rough_width, visual_runs

__all__ = ["FACES", "Face", "TextRun", "is_plain", "missing", "rough_width", "visual_runs"]
