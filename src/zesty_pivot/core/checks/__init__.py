"""The checks, one rule a module. A module that defines `CHECK` is found by the registry."""
