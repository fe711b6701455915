"""Zesty Pivot: styled garment patterns from a fitted bodice block."""

import os

# Algebra in one thread: what is solved here is small, and several threads that wait for each other take more time than they
# save, most of all beside the interface and where several processes work. Must be said before NumPy is loaded.
os.environ.setdefault("OPENBLAS_NUM_THREADS", "1")

__version__ = "0.1.0"
