"""The pattern sewn: which points of cloth come to lie on each other, a mesh of it, and how it lies flat."""
