"""What must hold after every move of darts."""

import pytest

from zesty_pivot.core.ledger import accounts
from zesty_pivot.core.piece import Pattern


def whole(pattern: Pattern, block: Pattern) -> None:
    """The invariants: every account whole, every sewn length and the area as in the block."""
    for account in accounts(pattern, block):
        assert abs(account.missing_deg) < 1e-9, account
    for before in block.pieces:
        after = pattern.piece(before.name)
        assert after.area == pytest.approx(before.area, abs=1e-5)
        for edge in before.edges:
            assert after.edge(edge.id).sewn_length == pytest.approx(edge.sewn_length, abs=1e-7)
