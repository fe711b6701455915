"""How long the stand takes, against one sparse factorisation of the same cloth; its memory."""

from __future__ import annotations

import threading
import time

from scipy import sparse
from scipy.sparse.linalg import splu

from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.stand.cloth import ElasticCloth
from zesty_pivot.core.stand.cloth_kinds import USUAL, kind_of
from zesty_pivot.core.stand.fitting import FINE, tried_on
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.core.stand.worn import worn
from zesty_pivot.data.demo import demo_style

MOST_MB = 400.0  # of memory that the whole may take

# What a process of its own does, for its memory: the demo at rest in fine cloth.
ALONE = """
import threading
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.stand.cloth_kinds import USUAL, kind_of
from zesty_pivot.core.stand.fitting import tried_on
from zesty_pivot.core.stand.form import form_of
from zesty_pivot.data.demo import demo_style
made = derive(demo_style())
look = made.look
for one in tried_on(made.pattern, look.block, look.sewing, form_of(look.scope.measures), kind_of(USUAL), threading.Event()):
    pass
"""


def stood() -> tuple[float, float, float]:
    """Seconds until the first shape lies still, until the fine one does, and of one factorisation of the fine cloth."""
    made = derive(demo_style())
    look, form = made.look, form_of(made.look.scope.measures)
    began, first = time.perf_counter(), 0.0
    for one in tried_on(made.pattern, look.block, look.sewing, form, kind_of(USUAL), threading.Event()):
        if one.step > FINE:
            first = time.perf_counter() - began
    whole = time.perf_counter() - began
    fine = worn(made.pattern, look.block, look.sewing, form, FINE)
    cloth = ElasticCloth(fine.sheet, kind_of(USUAL), outside=form.surface.outside)
    _slope, bend = cloth.slope_and_bend(fine.start)
    held = sparse.csc_matrix(bend + sparse.diags(1e-4 * cloth.masses))
    times = []
    for _ in range(5):
        began = time.perf_counter()
        splu(held, permc_spec="MMD_AT_PLUS_A", diag_pivot_thresh=0.0, options={"SymmetricMode": True})
        times.append(time.perf_counter() - began)
    return first, whole, sorted(times)[2]
