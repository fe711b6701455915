"""The form of each step, by its `do`."""
