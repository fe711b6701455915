"""The jobs that begin with a tape round a body: from an empty measurement set to a block that is printed."""

from __future__ import annotations

import math
import tempfile
from pathlib import Path
from typing import Any

import pypdf
import shapely
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QApplication

from tests.folding import polyline
from tests.jobs.figures import IN, Sheets, is_, long
from tests.jobs.hand import Hand
from tests.sheets import lines
from zesty_pivot.core.measure import CHART

# Three measured people (invented), cm: each job is done for all of them, by the block that the window was opened on.
PEOPLE: dict[str, dict[str, float]] = {
    "two darts 93": {"bust": 96.5, "under_bust": 84.0, "waist": 76.0, "hip": 101.5, "shoulder": 38.5, "sh_bp": 27.0,
                     "sh_under_bust": 34.5, "fwl": 44.5, "bwl": 41.5, "span": 19.0, "hip_depth": 20.5},
    "side and waist 91": {"bust": 88.0, "under_bust": 76.0, "waist": 70.0, "hip": 94.0, "shoulder": 37.5, "sh_bp": 25.5,
                          "sh_under_bust": 32.5, "fwl": 43.0, "bwl": 40.5, "span": 18.0, "hip_depth": 20.0},
    "two darts 76": {"bust": 112.0, "under_bust": 97.0, "waist": 95.0, "hip": 118.0, "shoulder": 41.0, "sh_bp": 30.5,
                     "sh_under_bust": 38.0, "fwl": 48.0, "bwl": 42.5, "span": 22.0, "hip_depth": 21.0},
}  # fmt: skip
CHILDREN = {
    "two darts 93": {"bust": 61.0, "shoulder": 26.0, "fwl": 26.0},
    "side and waist 91": {"bust": 56.0, "shoulder": 24.0, "fwl": 23.5},
    "two darts 76": {"bust": 68.0, "shoulder": 29.5, "fwl": 30.0},
}  # fmt: skip


def body_of(hand: Hand, *, child: bool = False, equal: bool = False, apart: float | None = None) -> dict[str, float]:
    """The person of this run, cm; with equal lengths, or so far apart (cm), where the job says so."""
    found = dict((CHILDREN if child else PEOPLE)[hand.block])
    if equal:
        found["bwl"] = found["fwl"]
    if apart is not None:
        found["bwl"] = found["fwl"] - apart
    return found


def measure(hand: Hand, body: dict[str, float], *, child: bool = False) -> None:
    """Writes a new person down: name, then row by row, an empty row skipped with Enter."""
    hand.seen["body"] = body
    hand.press("Measure")
    hand.press("New person")
    hand.keys("Ada")
    hand.key(Qt.Key.Key_Return)
    if child:
        hand.mark("a child")
        hand.think()
        hand.click(hand.window.views.measure.rows["bust"].edit)
    shown = [each.name for each in CHART if hand.window.views.measure.rows[each.name].isVisibleTo(hand.window)]
    last = max(shown.index(name) for name in body)
    for name in shown[: last + 1]:
        if name in body:
            hand.keys(f"{body[name]:g}")
        hand.key(Qt.Key.Key_Return)
    QApplication.processEvents()


def printed(hand: Hand, button: str) -> Path:
    """Presses a print button; the question for a name is answered with Enter."""
    path = Path(tempfile.mkdtemp()) / "draft.pdf"
    kept = hand.window.ask.save_file
    hand.window.ask.save_file = lambda *_asked: path
    try:
        hand.press(button)
        hand.counted["K"] += 1
    finally:
        hand.window.ask.save_file = kept
    return path


def _page(path: Path) -> tuple[int, float]:
    """How many pages a PDF has, and the width of its largest in mm."""
    pages = pypdf.PdfReader(path).pages
    return len(pages), max(float(page.mediabox.width) for page in pages) * IN / 72.0


# J01: hip block.


def j01(hand: Hand) -> None:
    measure(hand, body_of(hand))
    hand.press("Block")
    hand.pick_named("Drafting method", "Quarter draft to the hip")
    hand.seen["whole"] = printed(hand, "Print the draft…")
    hand.pick_named("Scale of the print", "printed 1:4")
    hand.seen["small"] = printed(hand, "Print the draft…")
    hand.press("New style over this block")


def j01_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    body = seen["body"]
    front, back = pattern.piece("front"), pattern.piece("back")
    wide = sum(math.dist(piece.corner("centre_hem"), piece.corner("side_hem")) for piece in (front, back))
    is_("hip", 2.0 * wide, 10.0 * body["hip"] + 4 * 0.25 * IN)
    chest = front.corner("underarm")[0] + back.corner("underarm")[0]
    waist, y, cl = 0.75 * IN, back.levels["waist"], back.levels["chest"]
    top = (1.0 * IN + cl) / 2.0  # the contour begins at the middle of the back armhole
    is_("bust", 2.0 * (chest - waist * (cl - top) / (y - top)), 10.0 * body["bust"] + IN)
    dart = front.darts[0].id
    is_("side seams", long(sheets, "front", "side_seam"), long(sheets, "back", "side_seam"))
    assert len(front.fisheyes) == len(back.fisheyes) == 1 and front.dart_edge(dart) == "side_seam"
    pages, wide = _page(seen["whole"])
    _small, narrow = _page(seen["small"])
    assert pages > 6 and narrow <= 300.0 and wide <= 300.0
    side = long(sheets, "back", "side_seam") / 10.0
    return f"bust and hip are the body and its ease, side seams {side:.1f} cm; printed 1:1 and 1:4"


# J04: blouse front with four darts.


def j04(hand: Hand) -> None:
    measure(hand, body_of(hand))
    hand.press("Block")
    hand.pick_named("Drafting method", "Blouse front with four darts")
    hand.seen["hand"] = printed(hand, "Print the instruction…")
    hand.pick_named("Scale of the print", "printed 1:4")
    hand.seen["small"] = printed(hand, "Print the draft…")
    hand.press("New style over this block")


def j04_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    front = pattern.piece("front")
    assert len(front.darts) == 4
    for dart in front.darts:
        one, two = front.legs(dart.id)
        is_(f"legs of the {dart.id} dart", one, two, 0.01)
    text = " ".join(page.extract_text() for page in pypdf.PdfReader(seen["hand"]).pages)
    quarter = f"{seen['body']['bust']:g}/4"
    assert quarter in text and "1/12" in text and "Mouth of the armhole dart, extended" in text, quarter
    assert _page(seen["small"])[1] <= 300.0
    return "four darts, legs equal about the bust point, mouths extended on the draft; at 1:4, with the fraction table"


# J06: child.


def j06(hand: Hand) -> None:
    measure(hand, body_of(hand, child=True), child=True)
    texts = [label.text() for label in hand.window.views.measure.findChildren(type(hand.window.views.measure.tape))]
    hand.seen["cautioned"] = any("strangling" in text for text in texts)
    hand.press("Block")
    hand.pick_named("Drafting method", "Child's dartless block")
    hand.press("New style over this block")


def j06_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    front, back = pattern.piece("front"), pattern.piece("back")
    assert not front.darts and not back.darts and "bust_point" not in front.landmarks and seen["cautioned"]
    is_("front neck", float(front.corner("centre_neck")[1]), 2.5 * IN)
    is_("back neck", float(back.corner("centre_neck")[1]), 0.75 * IN)
    drawn = lines(sheets["back"])
    cut, seam = polyline(drawn["cut"][0]), polyline(drawn["centre"][0])
    middle = (seam[0] + seam[-1]) / 2.0
    edges = shapely.LinearRing(cut)
    is_("zip allowance outside CB", edges.distance(shapely.Point(middle)), IN)
    return "no dart, no bust point, neck 2 1/2 in deep in front and 3/4 behind; 1 in for the zip; cord caution shown"


# J20: half block, lengths 2 in apart, CB in 1/2.


def j20(hand: Hand) -> None:
    measure(hand, body_of(hand, apart=5.1))
    hand.press("Block")
    hand.write(hand.window.views.block.fields["contour"].edit, "1/2 in")
    hand.press("New style over this block")


def j20_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    front, back = pattern.piece("front"), pattern.piece("back")
    is_("side seams", long(sheets, "front", "side_seam"), long(sheets, "back", "side_seam"))
    is_("CB in at the waist", float(back.corner("centre_waist")[0]), 0.5 * IN)
    for piece in (front, back):
        wide = sum(run.path.length for run in piece.edge("waist").runs)
        is_(f"{piece.name} waist", wide, 10.0 * seen["body"]["waist"] / 4 + 0.25 * IN)
    return f"side seams {long(sheets, 'back', 'side_seam') / 10.0:.1f} cm with the dart shut, CB in 1/2 in"


# J21: basic block, back dart 1 in above the bust line.


def j21(hand: Hand) -> None:
    measure(hand, body_of(hand, equal=True))
    hand.press("Block")
    hand.pick_named("Drafting method", "Easy draft, equal lengths")
    hand.press("New style over this block")


def j21_check(sheets: Sheets, pattern: Any, seen: dict[str, Any]) -> str:
    front, back = pattern.piece("front"), pattern.piece("back")
    body = seen["body"]
    is_("the back dart's top above the bust line", 10.0 * body["sh_bp"] - float(back.pivot("waist_tip")[1]), IN)
    across = [min(float(run.path.cubics[:, :, 0].min()) for run in piece.edge("armhole").runs) for piece in (front, back)]
    assert across[0] < across[1], across  # the front is hollowed deeper
    is_("front side waist", float(front.corner("side_waist")[0]), 10.0 * body["waist"] / 4 + 1.25 * IN, 6.0)
    is_("side seams", long(sheets, "front", "side_seam"), long(sheets, "back", "side_seam"))
    return "front hollow deeper than the back's, the dart given back at the side, side seams equal"
