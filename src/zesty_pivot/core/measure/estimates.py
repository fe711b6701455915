"""What may stand for a measurement that was not taken: an estimate from the others, with its reason.

The proportions are those of size tables for women as remembered (bust 88, waist 72, hip 97, back length 41 cm): common
practice, no source. An estimate is a place to begin; it is always marked as one.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping

from zesty_pivot.core.record import record

CM, IN = 10.0, 25.4


@record
class Estimate:
    """A length in mm that stands for a missing measurement, and why."""

    name: str
    mm: float
    why: str


@record
class _Rule:
    name: str
    needs: tuple[str, ...]
    works: Callable[..., float]
    why: str


# Of several rules for one measurement the first whose needs are known is taken. What hangs on the fewest guesses stands first.
_RULES: tuple[_Rule, ...] = (
    _Rule("under_bust", ("bust",), lambda bust: bust - 13 * CM, "bust less 13 cm"),
    _Rule("over_bust", ("bust",), lambda bust: bust - 3 * CM, "bust less 3 cm"),
    _Rule("waist", ("bust",), lambda bust: bust - 16 * CM, "bust less 16 cm"),
    _Rule("hip", ("bust",), lambda bust: bust + 9 * CM, "bust and 9 cm"),
    _Rule("shoulder", ("across_back",), lambda back: back + 3.5 * CM, "across back and 3.5 cm"),
    _Rule("shoulder", ("bust",), lambda bust: 26 * CM + 0.14 * bust, "26 cm and 14 % of the bust"),
    _Rule("sh_bp", ("bust",), lambda bust: bust / 6 + 12 * CM, "a sixth of the bust and 12 cm"),
    _Rule("sh_under_bust", ("sh_bp",), lambda down: down + 7.5 * CM, "shoulder to bust point and 7.5 cm"),
    _Rule("bwl", ("fwl", "bust"), lambda fwl, bust: fwl - bust / 24, "front waist length less a 24th of the bust"),
    _Rule("bwl", ("bust",), lambda bust: 35 * CM + 0.07 * bust, "35 cm and 7 % of the bust"),
    _Rule("fwl", ("bwl", "bust"), lambda bwl, bust: bwl + bust / 24, "back waist length and a 24th of the bust"),
    _Rule("span", ("bust",), lambda bust: 0.205 * bust, "20.5 % of the bust"),
    _Rule("across_chest", ("shoulder",), lambda wide: wide - 5.5 * CM, "shoulder width less 5.5 cm"),
    _Rule("across_back", ("shoulder",), lambda wide: wide - 3.5 * CM, "shoulder width less 3.5 cm"),
    _Rule("hip_depth", ("fwl",), lambda fwl: 0.47 * fwl, "47 % of the front waist length"),
    _Rule("armhole", ("bust",), lambda bust: 2 * (bust / 6 + 1.5 * IN), "twice a sixth of the bust and 1 1/2 in"),
    _Rule("neck", ("bust",), lambda bust: bust / 3 + 7 * CM, "a third of the bust and 7 cm"),
    _Rule("head", (), lambda: 57 * CM, "57 cm, as most have"),
)  # fmt: skip

_OF_CHILDREN: tuple[_Rule, ...] = (
    _Rule("waist", ("bust",), lambda bust: bust - 2 * CM, "chest less 2 cm"),
    _Rule("hip", ("bust",), lambda bust: bust + 4 * CM, "chest and 4 cm"),
    _Rule("shoulder", ("bust",), lambda bust: 0.42 * bust, "42 % of the chest"),
    _Rule("fwl", ("bwl",), lambda bwl: bwl + 1 * CM, "back length and 1 cm"),
    _Rule("fwl", ("bust",), lambda bust: 0.43 * bust, "43 % of the chest"),
    _Rule("bwl", ("fwl",), lambda fwl: fwl - 1 * CM, "half length less 1 cm"),
    _Rule("across_chest", ("shoulder",), lambda wide: wide - 3 * CM, "shoulder width less 3 cm"),
    _Rule("across_back", ("shoulder",), lambda wide: wide - 2 * CM, "shoulder width less 2 cm"),
    _Rule("hip_depth", ("fwl",), lambda fwl: 0.47 * fwl, "47 % of the half length"),
    _Rule("armhole", ("shoulder",), lambda shoulder: shoulder, "the shoulder width: the armhole is half of it deep"),
    _Rule("neck", ("bust",), lambda bust: bust / 3 + 8 * CM, "a third of the chest and 8 cm"),
    _Rule("head", ("bust",), lambda bust: 44 * CM + 0.12 * bust, "44 cm and 12 % of the chest"),
)


def estimates(known: Mapping[str, float], *, is_child: bool = False) -> dict[str, Estimate]:
    """Estimates (mm) for the measurements that are not known, by name; those that nothing is known for are not there."""
    found: dict[str, Estimate] = {}
    have = dict(known)
    for rule in _OF_CHILDREN if is_child else _RULES:
        if rule.name in have or any(need not in have for need in rule.needs):
            continue
        mm = rule.works(*(have[need] for need in rule.needs))
        if mm > 0.0:
            guessed = [need for need in rule.needs if need in found]
            have[rule.name] = mm
            found[rule.name] = Estimate(rule.name, mm, rule.why + (", itself estimated" if guessed else ""))
    return found
