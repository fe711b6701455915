"""Blocks of random people, drafted by the six methods with random conventions: what may lie on a rail. No part of the
program chooses them."""

from __future__ import annotations

import random
from functools import lru_cache

from tests.bodies import METHODS
from zesty_pivot.core.drafting.method import Method
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.drafted_block import drafted
from zesty_pivot.data.methods import shipped

SET = 0.15  # share of the conventions that are another than usual
# Words that stretch a draft over what its method can do with most bodies.
LEFT = {"armhole_rule", "side_dart", "true_by", "lengths_apart"}


def body(random: random.Random, method: str) -> dict[str, float]:
    """A plausible person for a method, mm; the ranges of `tests.bodies`."""
    share = random.uniform
    if method == "child":
        chest = share(500.0, 720.0)
        return {"bust": chest, "fwl": chest * share(0.40, 0.47), "shoulder": chest * share(0.38, 0.44)}
    bust, bwl = share(760.0, 1320.0), share(370.0, 440.0)
    fwl = bwl + (share(-12.0, 12.0) if method == "easy" else share(5.0, 80.0) * min(1.0, bust / 1000.0))
    sh_bp = bust / 6.0 + share(85.0, 125.0)
    return {
        "bust": bust, "under_bust": bust * share(0.83, 0.90), "waist": bust * share(0.70, 0.92), "hip": bust * share(1.0, 1.12),
        "shoulder": 250.0 + bust * share(0.13, 0.17), "sh_bp": sh_bp, "sh_under_bust": sh_bp + share(55.0, 85.0), "fwl": fwl,
        "bwl": bwl, "span": bust * share(0.18, 0.215), "hip_depth": share(180.0, 220.0),
    }  # fmt: skip


def settings(random: random.Random, method: Method) -> dict[str, str]:
    """Some of a method's conventions set to another choice; lengths up to a quarter longer or shorter."""
    found: dict[str, str] = {}
    for parameter in method.parameters:
        if random.random() > SET or parameter.id in LEFT:
            continue
        if parameter.choices:
            found[parameter.id] = random.choice(parameter.choices).word
        elif parameter.kind == "length" and parameter.default and parameter.default[0].isdigit():
            found[parameter.id] = f"({parameter.default}) * {random.uniform(0.75, 1.25):.3f}"
    return found


@lru_cache(maxsize=2048)
def random_block(seed: int, method: str = "") -> BlockFile:
    """A block of a random person; a person or conventions that the method refuses are drawn again."""
    chance = random.Random(f"block {seed} {method}")
    method = method or METHODS[seed % len(METHODS)]
    while True:
        try:
            block = drafted(shipped(method), body(chance, method), settings(chance, shipped(method)))
            block_file.pattern(block)
            return block
        except ZestyError:
            continue
