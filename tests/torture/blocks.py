"""Blocks to torture: real ones and stretched ones, small and large, with other darts than they came with."""

from __future__ import annotations

import json
import random
from functools import lru_cache

from tests.bodies import METHODS, person
from tests.samples import DATA, hip_block, real_block, scaled_value, stretched_value
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.block_file import BlockFile
from zesty_pivot.core.formats.drafted_block import drafted
from zesty_pivot.data.demo import demo_style
from zesty_pivot.data.methods import shipped

COUNT = 36
DRAFTED = 24  # from this number on blocks are drafted, for other bodies with other conventions


@lru_cache(maxsize=COUNT)
def block(number: int) -> BlockFile:
    """One of COUNT blocks; the same number is the same block for every seed."""
    fixed = (real_block, lambda: demo_style().block, hip_block, _side_waist)
    if number < len(fixed):
        return fixed[number]()
    if number >= DRAFTED:
        return _drafted(number)
    chance = random.Random(number)
    x, y = chance.uniform(0.72, 1.45), chance.uniform(0.8, 1.3)
    if number % 4 == 0:
        value = json.loads(block_file.dump(_side_waist()))
        return block_file.from_value(stretched_value(value, x, y), f"block {number}")
    value = scaled_value(x, y)
    if number % 4 == 1:  # without a back, or without a front
        value["pieces"] = [value["pieces"][number % 8 // 4]]
    return block_file.from_value(value, f"block {number}")


@lru_cache(maxsize=1)
def _side_waist() -> BlockFile:
    return block_file.read(DATA / "side-waist-dart-91.zblock")


def _drafted(number: int) -> BlockFile:
    """A block drafted for a body and conventions that hang on its number; each method in turn."""
    chance, id = random.Random(number), METHODS[number % len(METHODS)]
    method = shipped(id)
    for _ in range(200):
        size = chance.uniform(0.85, 1.3)
        body = {name: mm * size * chance.uniform(0.96, 1.04) for name, mm in person(id).items()}
        if id == "easy":
            body["bwl"] = body["fwl"]
        settings: dict[str, str] = {}
        for parameter in chance.sample(method.parameters, 3):
            words = [choice.word for choice in parameter.choices]
            if words:
                settings[parameter.id] = chance.choice(words)
        try:
            return drafted(method, body, settings)
        except ZestyError:
            continue
    raise AssertionError(f"no body for {id}")
