"""The steps of recipes, one module each. A module that defines `STEP` is found by the registry."""
