"""Measures the demo's block with a ruler that is read to half a millimetre. Run: `python -m tools.measure_demo`."""

from __future__ import annotations

from tests.ruled_blocks import ruler_file

from tools.make_demo import OUT
from zesty_pivot.core.formats import ruled
from zesty_pivot.core.formats.ruled import RulerMeasures
from zesty_pivot.data.demo import SHEET, demo_style


def main() -> None:
    """Front and back, in centimetres, a point on each curve."""
    whole = ruler_file(demo_style().block, curve_points=1)

    def read(measures: RulerMeasures | None) -> RulerMeasures | None:
        if measures is None:
            return None
        rows = {id: {other: _read(mm) for other, mm in row.items()} for id, row in measures.distances.items()}
        return measures.model_copy(
            update={"distances": rows, "along": {edge: _read(mm) for edge, mm in measures.along.items()}}
        )

    file = whole.model_copy(
        update={"units": "cm", "name": "Thornwick by ruler", "front": read(whole.front), "back": read(whole.back)}
    )
    (OUT / SHEET).write_bytes(ruled.dump(file))


def _read(mm: float | str) -> float:
    """To half a millimetre, in centimetres."""
    return round(float(mm) * 2.0) / 20.0


if __name__ == "__main__":
    main()
