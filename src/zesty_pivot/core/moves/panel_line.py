"""One panel while its line is shaped: its stretches from the top, and the edges that they end on."""

from __future__ import annotations

import numpy as np

from zesty_pivot.core.errors import GeometryError
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.geometry.angles import Vector
from zesty_pivot.core.kept import cached_property
from zesty_pivot.core.moves.panels import Panels
from zesty_pivot.core.piece import Piece
from zesty_pivot.core.piece.heights import crossings
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.record import record


@record
class PanelLine:
    """One panel while it is shaped: its line's stretches from the top, the runs of the edges that the line ends on (from the
    line outwards), and the way (1 or -1) in which it gives way horizontally."""

    piece: Piece
    stretches: tuple[Path, ...]
    top: tuple[int, ...]
    bottom: tuple[int, ...]
    way: float
    is_side: bool

    @cached_property
    def starts(self) -> list[float]:
        return [0.0, *np.cumsum([path.length for path in self.stretches]).tolist()]

    def end(self, at_top: bool, by: float) -> Vector:
        """The line's end drawn back by a length (mm) along the edge it ends on; beyond it, straight on."""
        paths = self._outwards[at_top]
        if by < 0.0:
            return paths[0].start + paths[0].start_direction * by
        for path in paths:
            if by <= path.length:
                return path.point_at(by)
            by -= path.length
        return paths[-1].end

    @cached_property
    def _outwards(self) -> dict[bool, list[Path]]:
        """The edges that the line ends on above (True) and below, from the line to their end or to the next mouth."""
        found = {}
        for at_top, indices in ((True, self.top), (False, self.bottom)):
            paths = [self.piece.runs[index].path for index in indices]
            found[at_top] = paths if self.is_side == at_top else [path.reversed() for path in paths]
        return found

    def edge(self, at_top: bool) -> str:
        """The edge that the line ends on."""
        return self.piece.runs[(self.top if at_top else self.bottom)[0]].edge

    def ending(self, at_top: bool) -> float:
        """How long (mm) the edge is that the line ends on."""
        return sum(run.path.length for run in self.piece.runs if run.edge == self.edge(at_top))

    def room(self, at_top: bool) -> float:
        return sum(path.length for path in self._outwards[at_top]) - 1.0

    @cached_property
    def _levels(self) -> dict[float, tuple[float, float]]:
        return {}

    def level(self, name: str, y: float) -> tuple[float, float]:
        """Where the line crosses a height: the distance from its top and x. Raises GeometryError."""
        if y in self._levels:
            return self._levels[y]
        found = crossings(self.stretches, y)
        if not found:
            what = f"the line does not cross the {words(name)} line"
            raise GeometryError(what, where=self.piece.name, advice="Leave that intake empty.")
        self._levels[y] = found[0]
        return found[0]


def panel_line(panels: Panels, *, of_side: bool) -> PanelLine:
    piece = panels.side if of_side else panels.centre
    line = [index for index, run in enumerate(piece.runs) if run.edge == panels.edge]
    before, after = _along(piece, (line[0] - 1) % len(piece.runs), -1), _along(piece, piece.after(line[-1]), 1)
    top, bottom = (after, before) if of_side else (before, after)
    return PanelLine(piece, panels.stretches(of_side), top, bottom, 1.0 if of_side else -1.0, of_side)


def _along(piece: Piece, index: int, step: int) -> tuple[int, ...]:
    """The runs of one edge from a run on, as far as no mouth opens between them."""
    found = [index]
    while True:
        following = (found[-1] + step) % len(piece.runs)
        joint = found[-1] if step > 0 else following
        if piece.runs[following].edge != piece.runs[index].edge or piece.runs[joint].mouth is not None:
            return tuple(found)
        found.append(following)
