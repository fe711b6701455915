"""The drawer at the left: steps to add behind a few doors, and galleries of what a step can be."""
