"""A fitting as a picture for paper: from the front and from behind, where it stands off and where it pulls, with legends."""

from __future__ import annotations

import io
from importlib.resources import as_file, files

import numpy as np
from PIL import Image, ImageDraw, ImageFont

from zesty_pivot.core.lettering import FACES
from zesty_pivot.core.quantity import MM_PER, Unit
from zesty_pivot.core.stand.fitting import Fitting
from zesty_pivot.core.stand.maps import GAPS, PULLS
from zesty_pivot.core.stand.raster import Viewpoint, drawn
from zesty_pivot.core.stand.scene import Palette, cloth_skin, extent, form_skin, seams, seen_runs

WIDE = 1800  # px of the whole picture
FINER = 2  # times as large as it is drawn
TILT = 0.06  # radians from above
BELOW, BAND, TEXT = 92, 52, 26  # px: room for a legend, a band of it, its letters
INK, EDGE = (29, 27, 24), (138, 131, 120)
HEADS = {"gap": "stands off", "pull": "stretched"}


def printed(fitting: Fitting, unit: Unit) -> bytes:
    """The picture as PNG, legends in a unit. The same fitting gives the same bytes."""
    half, low, high = extent(fitting)
    wide = WIDE // 4
    scale = wide / (2.0 * half)
    tall = round((high - low) * scale)
    whole = Image.new("RGB", (4 * wide, tall + BELOW), "white")
    lines, palette = seams(fitting), Palette()
    for n, look in enumerate(HEADS):
        skins = form_skin(fitting.form, palette, low), cloth_skin(fitting, look, palette)
        for k, turn in enumerate((0.0, np.pi)):
            eye = Viewpoint(turn, TILT, scale * FINER, (0.0, (low + high) / 2.0), (wide * FINER, tall * FINER))
            picture = drawn(skins, eye)
            one = Image.new("RGB", eye.size, "white")
            colored = Image.fromarray(picture.pixels)
            one.paste(colored, mask=colored)
            pen = ImageDraw.Draw(one)
            for line, run in seen_runs(lines, eye, picture):
                width = FINER * 2 if line.kind == "edge" else FINER
                pen.line([(x, y) for x, y in run.tolist()], fill=INK, width=width)
            whole.paste(one.resize((wide, tall), Image.Resampling.LANCZOS), ((2 * n + k) * wide, 0))
        _legend(whole, look, (2 * n * wide, tall), unit)
    out = io.BytesIO()
    whole.save(out, "PNG", optimize=False)
    return out.getvalue()


def _legend(whole: Image.Image, look: str, corner: tuple[int, int], unit: Unit) -> None:
    """Bands with their limits, under the two figures of a map."""
    pen, bands = ImageDraw.Draw(whole), Palette().bands
    with as_file(files("zesty_pivot.data") / "fonts" / FACES[0].file(bold=False)) as path:
        font = ImageFont.truetype(str(path), TEXT)
    x, y = corner[0] + 195, corner[1] + 14
    if look == "gap":
        limits = [f"{mm / MM_PER[unit]:.2g}" for mm in GAPS]
    else:
        limits = [f"{100.0 * share:g}" for share in PULLS]
    pen.text((corner[0] + 185, y + BAND / 2 - 4), f"{HEADS[look]}, {unit if look == 'gap' else '%'}", INK, font, anchor="rm")
    for n, band in enumerate(bands):
        box = (x + n * 2 * BAND, y, x + (n + 1) * 2 * BAND, y + BAND - 20)
        pen.rectangle(box, fill=band, outline=EDGE)
    for n, text in enumerate(limits, start=1):
        pen.text((x + n * 2 * BAND, y + BAND + 6), text, INK, font, anchor="mm")
