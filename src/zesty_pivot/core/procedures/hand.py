"""Paper procedures: what a person with pin, scissors, ruler and tape does for a step, with this pattern's numbers.

Each line carries its figures as they are printed, so that the procedure can be followed from them alone.
"""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from typing import Literal

from zesty_pivot.core.piece import Piece, dart_words
from zesty_pivot.core.piece.called import title_of
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.piece.spot import STATION_WORDS, STATIONS, Spot, far_from_centre, resolve, side_of_spot, station_spot
from zesty_pivot.core.quantity import Scope, Unit, format_length, is_share, length_mm, share_of
from zesty_pivot.core.record import record

Way = Literal["pivot", "slash"]


@record
class Line:
    """One thing to do. `do` says what kind, `figures` are the names and numbers in it as they are printed."""

    do: str
    text: str
    figures: Mapping[str, str]


def line(do: str, text: str, **figures: str) -> Line:
    """A line whose figures are written into its text at their names in braces."""
    return Line(do, text.format(**figures), figures)


def chord_figures(angle: float, reach: float, unit: Unit) -> dict[str, str]:
    """An angle (radians) as the opening at the edge, so far (mm) from its point: the `chord`, printed."""
    return {"chord": format_length(2.0 * reach * math.sin(angle / 2.0), unit)}


def centre_words(piece: str) -> str:
    """`centre front`, `centre back`."""
    return f"centre {words(piece)}"


def edges_of(piece: Piece, runs: Iterable[int]) -> str:
    """The edges of an arc of runs as a list in words: `neckline, shoulder and armhole`."""
    names = list(dict.fromkeys(words(piece.runs[index].edge) for index in runs))
    names = [centre_words(piece.name) if name == "centre" else name for name in names]
    return names[0] if len(names) == 1 else ", ".join(names[:-1]) + " and " + names[-1]


def still_words(piece: Piece, still: Sequence[int], moving: Sequence[int]) -> str:
    """The part that stays: by its centre where the other part has none of it, else by its edges."""
    centre = [any(piece.role(piece.runs[index].edge) == "centre" for index in part) for part in (still, moving)]
    return f"the {centre_words(piece.name)}" if centre == [True, False] else edges_of(piece, still)


def _known(spot: Spot, piece: Piece) -> Spot:
    """A station as the place on an edge or level that it stands for; any other spot as it is."""
    if spot.station is None or spot.station == "waist":
        return spot
    if piece.is_hip_length and spot.station in ("centre_waist", "side_waist"):
        return station_spot(spot.station, piece)
    return STATIONS[spot.station]


def mark_name(spot: Spot, piece: Piece, pivot: str) -> str | None:
    """The name of the mark to be made on the fresh trace for a spot that the block decides, or None for one that is
    measured when its turn comes."""
    if spot.station == "waist":
        return f"waist below the {words(pivot)}"
    if piece.is_hip_length and spot.station in ("side_bust", "french"):
        return STATION_WORDS[spot.station]
    spot = _known(spot, piece)
    if spot.level is not None:
        where = centre_words(piece.name) if spot.edge == "centre" else words(spot.edge or "")
        return f"{where} at the {words(spot.level)} line"
    return None


def place_line(spot: Spot, piece: Piece, scope: Scope, pivot: str) -> Line:
    """How the place of a spot is found on the paper as it lies now."""
    on = words(piece.name)
    if spot.dart is not None:
        return line(
            "at_dart", "On the {on}: the place is the mouth of the {dart} dart.", on=on, dart=dart_words(piece, spot.dart)
        )
    mark = mark_name(spot, piece, pivot)
    if mark is not None:
        return line("at_mark", "On the {on}: the place is your mark “{mark}”.", on=on, mark=mark)
    if spot.as_far_as is not None:
        far = format_length(far_from_centre(piece, resolve(spot, piece, piece, scope, pivot)), scope.unit)
        named = title_of(piece, spot.as_far_as)
        through = f"nearer leg of the {named} dart" if piece.has_dart(spot.as_far_as) else named
        text = (
            "On the {on}, draw a line parallel to the {centre} through the {through}, {far} from it: the place is where it "
            "meets the {edge}."
        )
        figures = {"on": on, "centre": centre_words(piece.name), "far": far, "edge": words(spot.edge or "")}
        return line("at_far", text, **figures, through=through, dart=named if piece.has_dart(spot.as_far_as) else "")
    named = f" ({STATION_WORDS[spot.station]})" if spot.station else ""
    side = side_of_spot(spot, piece, pivot)
    spot = _known(spot, piece)
    asked = spot.edge or ""
    edge = piece.edge(piece.sides.id(piece.sides.name(asked), piece.sides.of(asked) or side))
    ends = piece.ends.get(edge.role, ("start", "end"))
    start = spot.from_ or ends[0]
    total, unit = edge.sewn_length, scope.unit
    at = spot.at if spot.at is not None else "0%"
    if not is_share(at):
        text = "On the {on}, measure {at} along the {edge} from the {start}, open mouths skipped" + named + "."
        distance = format_length(length_mm(at, scope), unit)
        return line("at_length", text, on=on, at=distance, edge=words(edge.id), start=words(start))
    share = share_of(at)
    if share * total < 0.05:
        text = "On the {on}, the place is the end of the {edge} at the {start}" + named + "."
        return line("at_length", text, on=on, at=format_length(0.0, unit), edge=words(edge.id), start=words(start))
    there = format_length(share * total, unit)
    folds = {0.25: " A quarter is found by folding twice.", 0.5: " Half is found by folding.", 0.75: " Fold twice."}
    text = (
        "On the {on}, go {share} of the way along the {edge} from the {start}, open mouths skipped" + named
        + f": {there} of {format_length(total, unit)}.{folds.get(share, '')}"
    )  # fmt: skip
    return line("at_share", text, on=on, share=f"{100.0 * share:.4g}%", edge=words(edge.id), start=words(start))


def preparing_line(spot: Spot, piece: Piece, block: Piece, scope: Scope, pivot: str) -> Line | None:
    """The mark that has to be made on the fresh trace for a spot, before anything is cut; None when none is needed."""
    name = mark_name(spot, piece, pivot)
    if name is None:
        return None
    on = words(block.name)
    if spot.station == "waist":
        held = [d.id for d in block.darts if d.pivot == pivot and block.dart_edge(d.id) == "waist"]
        if held:
            text = "{on}: mark “{mark}” at both legs of the {dart} dart, where they meet the waist."
            return line("mark_dart", text, on=on.capitalize(), mark=name, dart=dart_words(block, held[0]))
        text = "{on}: mark “{mark}” on the waist, straight below the {pin}, parallel to the {centre}."
        return line("mark_plumb", text, on=on.capitalize(), mark=name, pin=words(pivot), centre=centre_words(block.name))
    if block.is_hip_length and spot.station in ("side_bust", "french"):
        share = share_of(STATIONS[spot.station].at or 0.0)
        seam = block.edge("side_seam").sewn_length
        at = format_length(share_of(station_spot(spot.station, block).at or 0.0) * seam, scope.unit)
        text = "{on}: mark “{mark}” on the side seam, {at} from the underarm, {share} of the way to the waist line."
        return line("mark_share", text, on=on.capitalize(), mark=name, at=at, share=f"{100.0 * share:.4g}%")
    known = _known(spot, block)
    resolve(known, block, block, scope, pivot)  # a level that misses its edge is refused here, in words
    text = "{on}: mark “{mark}” where the {level} line meets the {edge}."
    return line(
        "mark_level", text, on=on.capitalize(), mark=name, level=words(known.level or ""), edge=words(known.edge or "")
    )  # fmt: skip
