"""Drafts of plausible bodies by each method in turn: drawn, measured whole, or refused by name."""

from __future__ import annotations

import random

from tests.bodies import METHODS
from tests.core.drafting.holding import hold
from zesty_pivot.core.drafting.draft import DraftError, draft
from zesty_pivot.data.methods import shipped


def tried(number: int) -> str | None:
    """What is wrong with the draft of one number; None when nothing is."""
    chance, id = random.Random(number), METHODS[number % len(METHODS)]
    body = _child(chance) if id == "child" else _body(chance)
    if id == "easy":
        body["bwl"] = body["fwl"] + chance.uniform(-12.0, 12.0)
    try:
        hold(draft(shipped(id), body, {}))
    except DraftError as refused:
        return None if refused.advice and len(str(refused)) < 1200 else f"draft {number}: refused with {refused}"
    except Exception as fault:  # noqa: BLE001 - whatever is raised is what is looked for
        said = " ".join(str(fault).split())[:300]
        return f"draft {number}, {id}: {type(fault).__name__}: {said}; { ({name: round(mm, 1) for name, mm in body.items()}) }"
    return None


def _body(chance: random.Random) -> dict[str, float]:
    """A grown-up, ranges as those of `tests.bodies`."""
    bust, bwl = chance.uniform(760.0, 1320.0), chance.uniform(370.0, 440.0)
    sh_bp = bust / 6.0 + chance.uniform(85.0, 125.0)
    return {
        "bust": bust, "under_bust": bust * chance.uniform(0.83, 0.90), "waist": bust * chance.uniform(0.70, 0.92),
        "hip": bust * chance.uniform(1.0, 1.12), "shoulder": 250.0 + bust * chance.uniform(0.13, 0.17), "sh_bp": sh_bp,
        "sh_under_bust": sh_bp + chance.uniform(55.0, 85.0), "fwl": bwl + chance.uniform(5.0, 80.0) * min(1.0, bust / 1000.0),
        "bwl": bwl, "span": bust * chance.uniform(0.18, 0.215), "hip_depth": chance.uniform(180.0, 220.0),
    }  # fmt: skip


def _child(chance: random.Random) -> dict[str, float]:
    chest = chance.uniform(500.0, 720.0)
    return {"bust": chest, "fwl": chest * chance.uniform(0.40, 0.47), "shoulder": chest * chance.uniform(0.38, 0.44)}
