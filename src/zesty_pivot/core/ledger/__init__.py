"""The accounts: where every degree of fullness sits, and whether seam partners agree in length."""

from zesty_pivot.core.ledger.fullness import Account, Placed, accounts
from zesty_pivot.core.ledger.girths import Girths, girths
from zesty_pivot.core.ledger.seams import SeamAccount, seam_accounts

__all__ = ["Account", "Girths", "Placed", "SeamAccount", "accounts", "girths", "seam_accounts"]
