"""Necklines on several blocks."""

from __future__ import annotations

import math
import random

import numpy as np

from tests.samples import hip_pattern, real_block, real_pattern, scaled_value
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.piece import Pattern, Piece
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Derivation, Evaluator
from zesty_pivot.core.steps import registry


def equalised(value: dict) -> dict:  # type: ignore[type-arg]
    """A stretched block whose darts' legs are equal again: the mouth's second end is drawn to the length of the first."""
    for piece in value["pieces"]:
        pins = piece["landmarks"]
        for dart in piece["darts"]:
            pin = np.array(pins[dart["pivot"]])
            first, second = (np.array(end) for end in dart["mouth"])
            moved = pin + (second - pin) * (math.dist(first, pin) / math.dist(second, pin))
            old, new = (" ".join(f"{x:.6f}" for x in point) for point in (second, moved))
            for edge in piece["edges"]:
                edge["path"] = edge["path"].replace(old, new)
            dart["mouth"][1] = [round(float(x), 6) for x in moved]
    return value


def random_blocks() -> list[Pattern]:
    """Ten blocks from 80 to 130 cm bust, up to 5 % longer or shorter than their width asks for."""
    chance = random.Random(11)
    found = []
    for number in range(10):
        across = (80.0 + 50.0 * number / 9.0) / 92.8
        value = equalised(scaled_value(across, across * chance.uniform(0.95, 1.05)))
        found.append(block_file.pattern(block_file.from_value(value, "random")))
    return found


BLOCKS = {"real": real_pattern(), "hip": hip_pattern(), **{f"random {n}": made for n, made in enumerate(random_blocks())}}


def shaped(block: Pattern, shape: str, before: tuple[dict, ...] = (), **more: object) -> Derivation:  # type: ignore[type-arg]
    steps = [*before, {"do": "neck.shape", "on": "front", "shape": shape, **more}]
    return Evaluator().evaluate(block, [registry.read(step) for step in steps], Scope("cm", real_block().measurements))


def made(block: Pattern, shape: str, before: tuple[dict, ...] = (), **more: object) -> Pattern:  # type: ignore[type-arg]
    derivation = shaped(block, shape, before, **more)
    assert not derivation.broken, derivation.broken
    return derivation.pattern


def neck(piece: Piece) -> list[Path]:
    return [run.path for run in piece.runs if piece.role(run.edge) == "neckline"]
