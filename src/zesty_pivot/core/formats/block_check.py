"""What a pattern maker looks at on a drafted block before using it: girths, partners, legs, corners, widths, balance, bust
point.

Each line has its value and limit, and where there is one a mend: another setting of the method. Source: METHODS of the project
(truing, corner rule, checks after drafting), else common practice, no source.
"""

from __future__ import annotations

import math
from collections.abc import Iterator

from zesty_pivot.core.checks.base import Finding, Look
from zesty_pivot.core.checks.limits import SMOOTH_DEG
from zesty_pivot.core.checks.registry import findings
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.drafting.draft import Draft, refuse
from zesty_pivot.core.drafting.values import Number, Point
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.geometry import Motion, between
from zesty_pivot.core.ledger import girths
from zesty_pivot.core.measure import MEASUREMENTS
from zesty_pivot.core.piece import Body, Pattern, Piece
from zesty_pivot.core.piece.names import words
from zesty_pivot.core.quantity import MM_PER, Scope, Unit, format_length
from zesty_pivot.core.record import record

IN = 25.4
EXACT = 0.05  # mm: girths, partners and legs of a draft agree within this, or something was left as it was
MOST_BALANCE = 5.0 * IN  # front waist length over the back's
ARMHOLE_APART = 1.0 * IN  # half the armhole round from a sixth of the bust and 1 1/2 in
WIDTH_APART = 3.0  # mm that the drafted half width may differ from the measured one; a tape is not read finer
SEEN = ("dart_legs", "corners", "outline", "neck_width")  # checks of styles that a block passes as well


@record
class Setting:
    """A mend: a parameter of the method and what to set it to."""

    id: str
    value: str
    title: str


@record
class Looked:
    """One line of the check: what was looked at, what was found, whether it is right, and what would mend it."""

    title: str
    says: str
    is_right: bool
    mend: Setting | None = None
    advice: str = ""


def check_block(drawn: Draft, block: BlockFile, unit: Unit) -> list[Looked]:
    """The lines of the check of a drafted block, in the order in which one looks; lengths told in a unit."""
    return list(_Checking(drawn, block, unit).lines())


class _Checking:
    def __init__(self, drawn: Draft, block: BlockFile, unit: Unit) -> None:
        self._drawn, self._unit = drawn, unit
        self._pattern: Pattern = block_file.pattern(block)
        self._ids = {parameter.id for parameter in drawn.method.parameters}

    def _told(self, mm: float, *, fine: bool = False) -> str:
        return format_length(mm, self._unit, fine=fine)

    def _set(self, id: str) -> float | None:
        """The length that a parameter has in this draft, mm."""
        found = self._drawn.names.get(id)
        return found.amount if isinstance(found, Number) else None

    def _known(self, name: str) -> float | None:
        return self._drawn.measures.get(name)

    def _mend(self, id: str, value: str | float, title: str) -> Setting | None:
        if id not in self._ids:
            return None
        text = value if isinstance(value, str) else f"{value / MM_PER[self._unit]:.3f} {self._unit}"
        return Setting(id, text, title)

    def lines(self) -> Iterator[Looked]:
        looks = (self._girths, self._balance, self._bust_point, self._side_corner, self._widths, self._armhole, self._seams)
        for look in (*looks, self._remarks):
            yield from look()

    def _girths(self) -> Iterator[Looked]:
        found = girths(self._pattern, self._pattern)
        for name, girth in (("bust", found.bust), ("waist", found.waist), ("hip", found.hip)):
            body = self._known(name)
            girth = self._before_the_swing(girth) if name == "bust" else girth
            if girth is None or body is None:
                continue
            ease, asked = girth - body, self._asked_ease(name)
            says = f"{self._told(girth)} = body {self._told(body)} + ease {self._told(ease)}"
            if asked is None or abs(ease - asked) <= EXACT:
                is_right = ease >= -EXACT
                advice = "" if is_right else "Less than the body."
                yield Looked(MEASUREMENTS[name].capitalize(), says, is_right, advice=advice)
                continue
            off = self._told(abs(ease - asked), fine=True)
            side = "more" if ease > asked else "less"
            mend = self._mend("side_path", "drawn", "Side seam as drawn") if self._word("side_path") == "ruled" else None
            if self._word(f"{name}_from") == "straight":
                mend = self._mend(f"{name}_from", "contour", "Count it from the contoured CB")
            says = f"{says}; {off} {side} than the conventions ask for"
            yield Looked(MEASUREMENTS[name].capitalize(), says, is_right=False, mend=mend)

    def _before_the_swing(self, girth: float | None) -> float | None:
        """The bust: where a dart was swung, the width at the chest line before that."""
        front, back = self._drawn.value("front", "underarm_flat"), self._drawn.value("back", "underarm")
        return 2.0 * (front.x + back.x) if isinstance(front, Point) and isinstance(back, Point) else girth

    def _asked_ease(self, name: str) -> float | None:
        front, back = self._set(f"ease_{name}_front"), self._set(f"ease_{name}_back")
        if front is not None and back is not None:
            return 2.0 * (front + back)
        each = self._set(f"ease_{name}")
        if each is None:
            each = self._set("ease" if self._drawn.method.id == "child" else f"{'side' if name == 'bust' else name}_add")
            return None if each is None or self._drawn.method.id != "child" else 4.0 * each
        return 4.0 * each + (2.0 * (self._set("front_side_add") or 0.0) if name == "waist" else 0.0)

    def _word(self, id: str) -> str:
        found = self._drawn.names.get(id)
        return found if isinstance(found, str) else ""

    def _balance(self) -> Iterator[Looked]:
        fwl, bwl = self._known("fwl"), self._known("bwl")
        if fwl is None or bwl is None:
            return
        balance = fwl - bwl
        is_right = 0.0 <= balance <= MOST_BALANCE
        advice = "" if is_right else f"0 to {self._told(MOST_BALANCE)}: measure front and back waist length again."
        yield Looked("Balance", f"front less back waist length {self._told(balance)}", is_right, advice=advice)

    def _bust_point(self) -> Iterator[Looked]:
        front = next((piece for piece in self._pattern.pieces if "bust_point" in piece.landmarks), None)
        span, down = self._known("span"), self._known("sh_bp")
        if front is None or span is None or down is None:
            return
        x, y = front.landmarks["bust_point"]
        off = max(abs(x - span / 2.0), abs(y - down))
        says = f"{self._told(x)} from CF and {self._told(y)} down; half the span is {self._told(span / 2.0)}"
        mend = self._mend("axis_add", "0 cm", "Axis at half the span") if self._set("axis_add") else None
        yield Looked("Bust point", says, off <= EXACT, mend=None if off <= EXACT else mend)

    def _side_corner(self) -> Iterator[Looked]:
        """With the side dart shut the lower side seam turns outwards by the dart's angle: the corner that is left of it, and
        the
        waist intake that would remove it: (quarter bust + ease - (fwl - bl) tan a) - (waist/4 + ease)."""
        for piece in self._pattern.pieces:
            for dart in piece.darts:
                if piece.role(piece.dart_edge(dart.id)) != "side_seam":
                    continue
                corner, angle = abs(math.degrees(shut_corner(piece, dart.id))), piece.angle(dart.id)
                says = f"{corner:.1f}° with the dart of {math.degrees(angle):.1f}° shut"
                if corner <= SMOOTH_DEG:
                    yield Looked("Side seam at the shut dart", says, is_right=True)
                    continue
                intake = self._smooth_intake(angle)
                mend, advice = (
                    self._mend("side_path", "ruled", "Rule it straight with the dart shut"),
                    f"Under {SMOOTH_DEG:.0f}° runs smooth.",
                )
                if intake is not None:
                    says += f"; a waist dart of {self._told(max(intake, 0.0))} would have none"
                yield Looked("Side seam at the shut dart", says, is_right=False, mend=mend, advice=advice)

    def _smooth_intake(self, angle: float) -> float | None:
        bust, waist, fwl, down = (self._known(name) for name in ("bust", "waist", "fwl", "sh_bp"))
        wide, ease = self._set("ease_bust"), self._set("ease_waist")
        if None in (bust, waist, fwl, down, wide, ease):
            return None
        return (bust / 4 + wide - (fwl - down) * math.tan(angle)) - (waist / 4 + ease)  # type: ignore[operator]

    def _widths(self) -> Iterator[Looked]:
        """The drafted width at the middle of the armhole against across chest and across back; the back's is measured from the
        contoured line. A larger one wants a larger hollow."""
        for body, name, id in ((Body.FRONT, "across_chest", "hollow_front"), (Body.BACK, "across_back", "hollow_back")):
            across, mid = self._known(name), self._drawn.value(body.value, "mid")
            if across is None or not isinstance(mid, Point):
                continue
            start, waist = self._drawn.value(body.value, "contour_start"), self._drawn.value(body.value, "CW")
            drafted = mid.x
            if body is Body.BACK and isinstance(start, Point) and isinstance(waist, Point) and mid.y > start.y:
                drafted -= waist.x * (mid.y - start.y) / (waist.y - start.y)
            off, hollow = drafted - across / 2.0, self._set(id) or 0.0
            says = f"drafted {self._told(2.0 * drafted)}, measured {self._told(across)}"
            if abs(off) <= WIDTH_APART:
                yield Looked(MEASUREMENTS[name].capitalize(), says, is_right=True)
                continue
            wanted = max(0.0, hollow + off)
            title = f"Hollow of {self._told(wanted)}"
            mend = self._mend(id, wanted, title) if abs(wanted - hollow) > EXACT else None
            advice = (
                "Larger: more hollow. Smaller: less."
                if mend
                else "The shoulder is narrower than the chest: measure both again."
            )
            yield Looked(MEASUREMENTS[name].capitalize(), says, is_right=False, mend=mend, advice=advice)

    def _armhole(self) -> Iterator[Looked]:
        measured, bust = self._known("armhole"), self._known("bust")
        length = sum(edge.sewn_length for piece in self._pattern.pieces for edge in piece.edges if edge.role == "armhole")
        if measured is None:
            yield Looked("Armhole", f"{self._told(length)} round, front and back", is_right=True)
            return
        off = 0.0 if bust is None else measured / 2.0 - (bust / 6.0 + 1.5 * IN)
        is_right = abs(off) <= ARMHOLE_APART and length >= measured
        mend = None if is_right else self._mend("armhole_rule", "half_armhole", "Half the armhole round as its depth")
        says = f"{self._told(length)} round, measured {self._told(measured)}"
        yield Looked(
            "Armhole", says, is_right, mend=mend, advice="" if is_right else "It is to be longer than the arm is round."
        )

    def _seams(self) -> Iterator[Looked]:
        """Partners with the darts shut, legs, corners at the seams and across darts: what the checks of a style say of it."""
        scope = Scope(self._unit, self._drawn.measures)
        found = findings(Look(self._pattern, self._pattern, Finish(), scope), at_rest=False)
        yield from self._partners()
        seen = [finding for finding in found if finding.check in SEEN and not self._is_told(finding)]
        for finding in seen:
            mend = self._mends(finding.check, finding.place)
            title, advice = words(finding.piece).capitalize(), "" if mend else f"In the style: {finding.advice}"
            yield Looked(title, finding.message, is_right=False, mend=mend, advice=advice)
        if not seen:
            yield Looked("Joins", "neck, armhole and waist run smooth over their seams", is_right=True)

    def _is_told(self, finding: Finding) -> bool:
        """Whether a line of its own tells of it: the corner of the side seam at the shut dart."""
        return finding.check == "corners" and finding.place.startswith("side_seam:")

    def _mends(self, check: str, place: str) -> Setting | None:
        if check == "dart_legs":
            return self._mend("true_legs", "yes", "Legs made equal")
        if check == "corners" and place.startswith("waist:"):
            return (
                self._mend("true_waist", "yes", "One curve across the shut dart") if self._word("true_waist") == "no" else None
            )
        return None

    def _partners(self) -> Iterator[Looked]:
        by_body = {piece.body: piece for piece in self._pattern.pieces}
        front, back = by_body.get(Body.FRONT), by_body.get(Body.BACK)
        if front is None or back is None:
            return
        for role, title in (("shoulder", "Shoulders"), ("side_seam", "Side seams")):
            one, two = (sum(edge.sewn_length for edge in piece.edges if edge.role == role) for piece in (front, back))
            ease = (self._set("shoulder_ease") or 0.0) if role == "shoulder" else 0.0
            is_right = abs(two - one - ease) <= EXACT
            says = f"front {self._told(one, fine=True)}, back {self._told(two, fine=True)}, darts shut"
            says += f"; the back is eased by {self._told(ease)}" if ease else ""
            mend = None if is_right else self._true_side() if role == "side_seam" else self._true_shoulder()
            yield Looked(title, says, is_right, mend=mend)

    def _true_shoulder(self) -> Setting | None:
        return self._mend("true_shoulder", "yes", "Front shoulder as long as the back's")

    def _true_side(self) -> Setting | None:
        by = "waist" if self._drawn.method.id == "easy" else "dart"
        if self._word("true_hip") == "no":
            return self._mend("true_hip", "yes", "Front as long as the back")
        return self._mend("true_by", by, f"Made equal by the {'side waist' if by == 'waist' else 'side dart'}")

    def _remarks(self) -> Iterator[Looked]:
        for remark in self._drawn.method.remarks:
            try:
                refuse("", (remark,), self._drawn.names)
            except ZestyError as fault:
                yield Looked("Remark", fault.what, is_right=False, advice=fault.advice)


def shut_corner(piece: Piece, dart: str) -> float:
    """The corner (radians) that an edge has across a dart shut at its pivot; clockwise positive."""
    index = piece.mouth_run(dart)
    before, after = piece.runs[index].path, piece.runs[piece.after(index)].path
    turn = Motion.turn((0.0, 0.0), -piece.angle(dart))  # type: ignore[arg-type]
    return between(before.end_direction, turn(after.start_direction))
