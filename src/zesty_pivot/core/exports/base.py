"""What an export format is. A format is one file beside this one that defines `EXPORT`, and the library that it calls is loaded
only when something is written."""

from __future__ import annotations

from collections.abc import Callable

from zesty_pivot.core.formats.derived import Derived
from zesty_pivot.core.formats.printing import Printing
from zesty_pivot.core.record import record

FULL = "full"  # the choice of one page at full size, where others name a paper

Make = Callable[[], bytes]


@record
class Export:
    """A format: its id on the command line, its name for people ("Save the ..."), the ending of its files.

    `files` gives what makes each file of a derived style, by the file's name, put on paper so. `whole` names
    the one of them that holds the whole style, for a paper or FULL. What is printed is offered to be opened when it is saved;
    what is usual is written where nothing is asked for, what is
    wanted of a style where everything is.
    """

    id: str
    title: str
    ending: str
    files: Callable[[Derived, Printing], dict[str, Make]]
    whole: Callable[[str], str]
    button: str = ""
    tip: str = ""
    icon: str = ""
    shortcut: str = ""
    order: int = 9
    is_printed: bool = False
    is_usual: bool = False
    is_wanted: Callable[[Derived], bool] = lambda _derived: True

    @property
    def kind(self) -> str:
        """The files of this format as a file dialog names them: `PDF (*.pdf)`."""
        return f"{self.ending[1:].upper()} (*{self.ending})"
