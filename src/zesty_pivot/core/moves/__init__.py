"""The seven hand moves, one module each: trace, cut, swing, spread, join, mirror, redraw.

Pure functions on pieces: what goes in is never changed. A step of a recipe is a short composition of them.
"""
