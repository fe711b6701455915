"""Blocks that come in from outside: files, photographs, digitisers, rulers. All end in one type, outlines with marks, and
from there in a tagged block."""
