"""A block by ruler: distances that were measured on its paper, the net of arcs that they make, and the outline."""
