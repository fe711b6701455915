"""The families of steps, as doors of the drawer. No Qt."""

from __future__ import annotations

from zesty_pivot.core.record import record


@record
class Door:
    """A family: its title, its drawing, and its steps in the order of the work."""

    id: str
    title: str
    picture: str
    steps: tuple[str, ...]


DOORS = (
    Door(
        "darts", "Darts", "door-darts",
        (
            "dart.move", "dart.split", "dart.merge", "dart.equalise", "dart.fan", "dart.use", "dart.shape", "dart.fisheye",
            "dart.park", "dart.return",
        ),
    ),
    Door(
        "necklines", "Necklines", "door-necklines",
        ("neck.shape", "neck.gape", "neck.opening", "trim.armhole", "trim.strapless"),
    ),
    Door(
        "lines", "Lines and panels", "door-lines",
        ("line.princess", "line.cut", "line.contour", "piece.side_panel", "line.band"),
    ),
    Door("yokes", "Yokes", "door-yokes", ("yoke.cut", "yoke.join")),
    Door("pleats", "Pleats and gathers", "door-pleats", ("fullness.gather", "fullness.pleat", "fullness.tuck")),
    Door(
        "flare", "Flare and drapes", "door-flare",
        (
            "fullness.flare", "fullness.slash", "fullness.circle", "drape.cowl", "drape.cowl_armhole", "drape.fan",
            "drape.twist",
        ),
    ),
    Door(
        "trims", "Trims", "door-trims",
        (
            "trim.frill", "trim.band", "trim.binding", "trim.piping", "trim.waistband", "trim.peplum", "trim.strap", "trim.tie",
            "trim.bow", "trim.ruffle", "trim.stand", "trim.casing", "trim.placket", "trim.loops",
        ),
    ),
    Door(
        "seams", "Seams and pieces", "door-seams",
        (
            "piece.true", "piece.true_seam", "piece.square", "piece.side_seam", "piece.let_out", "trim.hem", "piece.unfold",
            "piece.join", "piece.facing", "measure.tape",
        ),
    ),
)  # fmt: skip

BY_FAMILY = {"dart": "darts", "neck": "necklines", "line": "lines", "yoke": "yokes", "fullness": "flare", "drape": "flare",
             "trim": "trims"}  # fmt: skip


def door_of(do: str) -> str:
    """The door behind which a kind of step is; one that none names is with its family."""
    for door in DOORS:
        if do in door.steps:
            return door.id
    return BY_FAMILY.get(do.partition(".")[0], "seams")
