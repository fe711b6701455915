"""What a command writes, and how it ends where the output is closed or full."""

from __future__ import annotations

import click

from zesty_pivot.core.errors import FileError


def echo(text: str, *, err: bool = False) -> None:
    """Writes a line. Raises FileError where the output is closed or full, which click would pass over."""
    try:
        click.echo(text, err=err)
    except OSError as fault:
        raise unwritten(fault) from None


def unwritten(fault: OSError) -> FileError:
    """What is said of an output that takes no more."""
    if isinstance(fault, BrokenPipeError):
        return FileError("the output was closed before everything was written")
    what = f"the output cannot be written: {fault.strerror}"
    return FileError(what, advice="Free some space, or write it elsewhere.")
