"""What must hold for a pattern whatever made it: each rule gives the sentences of what does not. The geometry is looked at
with Shapely, not with what drew it."""

from __future__ import annotations

import itertools
import json
import math
import re
import xml.etree.ElementTree as ET
from collections.abc import Iterator

import numpy as np
import shapely

from zesty_pivot.core.finish.allowance import Stretch
from zesty_pivot.core.formats import report, style_file, svg
from zesty_pivot.core.formats.derived import Derived, derive
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.piece.names import SEAM_ROLES
from zesty_pivot.core.piece.refs import EdgeRef
from zesty_pivot.core.piece.region import outline
from zesty_pivot.core.recipe.hand import hand_sheet
from zesty_pivot.core.steps.trim import TrimStep

ODD_WORDS = re.compile(r"\bnan\b|\bNone\b|object at 0x|Traceback|\binf\b|<[a-z_]+\.|\{|\}|\*")
LEAST_AREA = 100.0  # mm2
JOG = 1.0  # mm


def broken(found: Derived, *, deep: bool = True) -> list[str]:
    """Everything that does not hold. `deep` also writes the files and opens the style again."""
    rules = [
        *_words(found),
        *_accounts(found),
        *_pieces(found),
        *_partners(found),
        *_seams(found),
        *_changes(found),
        *_trims(found),
    ]
    if deep:
        rules += [*_files(found), *_again(found)]
    return rules


def _findings(found: Derived, check: str) -> set[str]:
    return {finding.piece for finding in found.findings if finding.check == check}


def _words(found: Derived) -> Iterator[str]:
    for number, fault in found.derivation.broken:
        text = str(fault)
        if "\n" in text or not fault.what or ODD_WORDS.search(text):
            yield f"words of broken step {number}: {text}"
    for finding in found.findings:
        if not finding.advice or ODD_WORDS.search(finding.message) or not math.isfinite(finding.value):
            yield f"words of finding {finding.check}: {finding.message}"
    for state in found.derivation.states:
        for note in state.notes:
            if ODD_WORDS.search(note.text):
                yield f"words of a note: {note.text}"


def _accounts(found: Derived) -> Iterator[str]:
    for account in found.look.accounts:
        if abs(account.missing_deg) > 1e-6:  # files keep six decimals: a joint that is closed turns by so little
            yield f"account of {account.piece} {account.pivot}: {account.missing_deg:.4f} degrees missing"


def _pieces(found: Derived) -> Iterator[str]:
    crossing = _findings(found, "outline")
    centres = _findings(found, "centre_line")
    sewn = {(piece.name): piece for piece in found.pieces}
    for piece in found.pattern.with_extras:
        ring = outline(piece)
        steps = np.abs(np.diff(ring, axis=0, append=ring[:1])).max(axis=1)
        region = shapely.Polygon(ring[steps > 1e-5])
        if not np.isfinite(ring).all():
            yield f"{piece.name}: a point that is no number"
            continue
        if not region.is_valid and piece.name not in crossing:
            yield f"{piece.name}: its outline crosses itself and no finding says so"
        if region.area < LEAST_AREA:
            yield f"{piece.name}: {region.area:.1f} mm2"
        if piece.grain is not None and region.is_valid:
            line = shapely.LineString(piece.grain)
            arrow = next((s for s in sewn[piece.name].strokes if s.id == "grain"), None)
            drawn = shapely.LineString([arrow.paths[0].start, arrow.paths[0].end]) if arrow is not None else line
            if piece.name not in _findings(found, "grain") and arrow is not None:
                outside = drawn.difference(shapely.Polygon(sewn[piece.name].ring).buffer(0.5)).length
                if outside > 0.5:
                    yield f"{piece.name}: {outside:.1f} mm of the grain arrow lie outside"
        yield from _centre(piece, centres)
        yield from _cut(found, piece)


def _centre(piece: Piece, said: set[str]) -> Iterator[str]:
    """The centre of a half is one line: it may be opened by a dart or bent on purpose, but it has no step in it."""
    for run, after in zip(piece.runs, (*piece.runs[1:], piece.runs[0]), strict=True):
        if run.mouth is None and piece.role(run.edge) == piece.role(after.edge) == "centre":
            gap = math.dist(run.path.end, after.path.start)
            if gap > JOG and piece.name not in said:
                yield f"{piece.name}: a step of {gap:.1f} mm in the centre"


def _cut(found: Derived, piece: Piece) -> Iterator[str]:
    done = next(done for done in found.pieces if done.name == piece.name)
    if done.fault:
        if piece.name not in _findings(found, "cut_line"):
            yield f"{piece.name}: no cut line, and no finding says so"
        if any(lost in done.fault for lost in ("no edge", "no dart", "no pivot", "no piece")):
            yield f"{piece.name}: the cut line looks for what is not there: {done.fault}"
        return
    cut = shapely.Polygon(done.ring)
    if not cut.is_valid:
        yield f"{piece.name}: the cut line crosses itself: {shapely.is_valid_reason(cut)}"
        return
    seams = [
        path for stroke in done.strokes if stroke.layer == "seam" and stroke.kind in ("seam", "fold") for path in stroke.paths
    ]
    for path in seams:
        outside = shapely.LineString(path.flatten(0.02)).difference(cut.buffer(0.05)).length
        if outside > 0.05:
            yield f"{piece.name}: {outside:.1f} mm of a seam lie outside the cut line"
            return
    worst = max((_nearer(stretch, cut.buffer(0.05)) for stretch in done.stretches), default=0.0)
    if worst > 0.0:
        yield f"{piece.name}: the cut line is {worst:.2f} mm too near to the seam"


def _nearer(stretch: Stretch, cut: shapely.Polygon) -> float:
    """How much of the allowance is missing beyond 0.05 mm, measured square to the seam at places along it, mm."""
    worst = 0.0
    for share in (0.1, 0.35, 0.6, 0.85):
        at = share * stretch.path.length
        point, (x, y) = stretch.path.point_at(at), stretch.path.direction_at(at)
        way = shapely.LineString([point, point + np.array([y, -x]) * max(stretch.allowance, 1e-6)])
        worst = max(worst, float(way.difference(cut).length))
    return worst


def _trims(found: Derived) -> Iterator[str]:
    """Every trim has its edge as that is in the end, or a finding says that it has lost it."""
    pattern, lost = found.pattern, _findings(found, "trims_follow")
    for extra in pattern.extras:
        if not isinstance(extra.asked, TrimStep) or extra.lost:
            if extra.lost and extra.of[0] not in lost:
                yield f"{extra.piece.name}: lost, and no finding says so"
            continue
        known = [worn.mm for worn in extra.asked.worn(pattern)]
        if min(abs(mm - extra.edge_mm) for mm in known) > 1e-6:
            yield f"{extra.piece.name}: made for {extra.edge_mm:.3f} mm of an edge of {known}"


def _partners(found: Derived) -> Iterator[str]:
    """Every shoulder, side seam and style line of the body is sewn to something, or a finding says that it is not."""
    pattern = found.pattern
    sewn: dict[EdgeRef, int] = {}
    for seam in pattern.seams:
        for part in seam.parts:
            sewn[part] = sewn.get(part, 0) + 1
    has_other = len(found.derivation.block.pieces) > 1
    for piece in pattern.pieces:
        for edge, role in piece.roles:
            lonely = role in (*SEAM_ROLES, "style_line") and EdgeRef(piece.name, edge) not in sewn
            if lonely and has_other and piece.name not in _findings(found, "partners"):
                yield f"{piece.name}: the {edge} has no partner, and no finding says so"
    halves = any(piece.is_unfolded for piece in pattern.pieces)  # a half cut as a pair is sewn to both sides of the whole
    for part, count in sewn.items():
        if count > (2 if halves else 1):
            yield f"{part} is sewn {count} times"


def _seams(found: Derived) -> Iterator[str]:
    said = {finding.place for finding in found.findings if finding.check == "seam_partners"}
    for row in found.look.seams:
        if abs(row.difference_mm) > 1.0 + 1e-6 and str(row.a) not in said:
            yield f"{row.a} and {row.b} differ by {row.difference_mm:.2f} mm and no finding says so"


def _changes(found: Derived) -> Iterator[str]:
    """A step that is done changes something, or says that it did not."""
    for number, (before, state) in enumerate(itertools.pairwise(found.derivation.states), start=1):
        step = state.step
        if step is None or step.off or state.error is not None or state.notes:
            continue
        if _same(before.pattern, state.pattern):
            yield f"step {number} {step.do} changed nothing and does not say so"


def _same(one: Pattern, two: Pattern) -> bool:
    return one is two or one == two


def _files(found: Derived) -> Iterator[str]:
    for piece in found.pieces:
        text = svg.piece_svg(piece)
        try:
            ET.fromstring(text)
        except ET.ParseError as fault:
            yield f"{piece.name}: its SVG cannot be read: {fault}"
        if b"nan" in text or b"inf" in text:
            yield f"{piece.name}: no number in its SVG"
    for way in ("pivot", "slash"):
        for section in hand_sheet(found.derivation, found.style.scope(), way):  # type: ignore[arg-type]
            for line in section.lines:
                if ODD_WORDS.search(line.text):
                    yield f"hand sheet: {line.text}"


def _again(found: Derived) -> Iterator[str]:
    """Saved and opened again the style is the same, and gives the same report."""
    style = style_file.from_value(json.loads(style_file.dump(found.style)), "again")
    if style != found.style:
        yield "the style is another one when it is opened again"
    elif report.dump(report.report(derive(style))) != report.dump(report.report(found)):
        yield "the style gives another report when it is opened again"
