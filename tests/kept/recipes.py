"""Recipes that between them use every step both ways: to either side, in and out, longer and shorter, on half and whole."""

from __future__ import annotations

from typing import Any

from tests.samples import hip_block, real_block, scaled_value
from zesty_pivot.core.conventions.options import Finish
from zesty_pivot.core.formats import block_file
from zesty_pivot.core.formats.style_file import Style
from zesty_pivot.core.steps import registry

Steps = list[dict[str, Any]]


def _of(do: str, on: str = "front", **more: Any) -> dict[str, Any]:
    return {"do": do, "on": on, **more}


def _to(dart: str, station: str, on: str = "front", **more: Any) -> dict[str, Any]:
    return {"do": "dart.move", "on": on, "dart": dart, "to": {"station": station, **more.pop("at", {})}, **more}


UNFOLD = _of("piece.unfold")
HEART = {"from": {"edge": "centre", "at": "80%"}, "to": {"edge": "centre", "at": "60%"}, "shape": "heart", "width": "3 cm"}
LINE = {"from": {"edge": "armhole", "at": "60%"}, "to": {"edge": "side_seam", "at": "60%"}}

# name -> (block, unit, finish, steps)
RECIPES: dict[str, tuple[str, str, dict[str, Any], Steps]] = {
    "moves": ("real", "cm", {}, [
        _to("shoulder", "french", share="40%"), _to("waist", "mid_armhole", mouth="2 cm"), _to("shoulder", "waist"),
        _to("waist", "side_waist", "back"), _of("piece.true", edge="waist"), _of("piece.true", edge="armhole", over="3 cm"),
    ]),
    "chains": ("small", "in", {"end": "cap", "weight": "heavy"}, [
        _of("dart.merge", darts=["side", "waist"]), _of("dart.split", dart="side", parts=[
            {"to": {"station": "mid_armhole"}, "share": "30%"}, {"to": {"station": "french"}, "mouth": "1 in"}]),
        _of("dart.equalise", darts=["mid_armhole", "french"]), _of("dart.fan", dart="side", count=3, spacing="1 in"),
        _of("dart.shape", dart="mid_armhole", bow="3 mm"), _of("dart.shape", dart="french", bow="-2 mm"),
    ]),
    "uses": ("real", "cm", {"fold": "waist_to_side"}, [
        _to("shoulder", "mid_neck"), _of("dart.use", dart="shoulder", **{"as": "gathers"}, ratio=1.8, raised="8 mm"),
        _of("dart.use", dart="waist", **{"as": "pleats"}, count=2, spacing="4 cm"),
        _of("dart.use", "back", dart="waist", **{"as": "tucks"}, count=3, spacing="2 cm", stitched="8 cm"),
        _to("shoulder", "mid_armhole", "back", share="40%"),
        _of("dart.use", "back", dart="mid_armhole", **{"as": "ease"}, over="8 cm", cloth="soft"),
    ]),
    "flared and shaped": ("real", "cm", {"end": "cut_away", "allowance": "home_room"}, [
        _of("dart.use", dart="waist", **{"as": "flare"}), _of("dart.shape", dart="shoulder", bend="6 mm", at="40%"),
        _of("dart.shape", "back", dart="shoulder", bend="-5 mm"),
        _of("dart.use", "back", dart="waist", **{"as": "gathers"}, over="6 cm"),
        _of("dart.use", "back", dart="waist", **{"as": "tucks"}, count=1),
    ]),
    "parallel and away": ("real", "cm", {}, [
        _to("shoulder", "waist"), _of("dart.fan", dart="waist", count=4, spacing="2 cm", parallel=True),
        _of("dart.park", "back", darts=["waist"]), _of("dart.park", "back", darts=["shoulder"], to={"station": "mid_armhole"}),
        _of("dart.return", "back", darts=["shoulder"]), _of("dart.return", "back"),
        _of("dart.park", darts=["waist-4"]), _to("waist-4", "french", share="30%"), _to("french", "side_waist"),
        _of("dart.return"),
    ]),
    "slashes": ("real", "in", {"allowance": "inches_room"}, [
        _of("fullness.slash", at={"edge": "waist", "at": "30%"}, hinge={"edge": "shoulder", "at": "60%"}, by="1 in"),
        _of("fullness.slash", at={"edge": "armhole", "at": "40%"}, dart="waist", by="1/2 in"),
        _of("fullness.slash", "back", at={"edge": "armhole", "at": "50%"}, dart="shoulder", by="-1/4 in"),
        _of("fullness.slash", "back", at={"edge": "shoulder", "at": "20%"}, hinge={"edge": "waist", "at": "80%"}, by="-1/4 in"),
        _of("fullness.flare", "back", count=2, by="1 in"),
    ]),
    "princess": ("real", "cm", {}, [
        _of("line.princess", past="1 cm", bow_above="-1 cm", ease="4 mm", rest="dart"),
        _of("line.contour", "back", by="1 cm"),
        _of("line.princess", "back", **{"from": {"edge": "armhole", "at": "45%"}}, school="close", give_back="underarm"),
    ]),
    "princess of a long block": ("hip", "cm", {}, [
        _of("line.princess", past="-8 mm"), _of("line.princess", "back", school="hollow"), _of("line.contour", "back_centre"),
    ]),
    "lines": ("real", "cm", {}, [
        _of("line.cut", **LINE, bow="2 cm", peak="40%"), _of("line.band", "back", edge="armhole", width="3 cm"),
        _of("piece.join", other="front_panel"),
    ]),
    "keyhole line": ("small", "cm", {}, [
        _of("line.cut", **{**HEART, "shape": "keyhole"}, name="window"), _of("line.cut", "back", **LINE, bow="1 cm"),
        _to("side", "waist"), _of("line.band", "front", edge="neckline", width="3 cm"),
    ]),
    "trimmed": ("real", "cm", {}, [
        _of("trim.armhole", other="back", shoulder_in="2 cm", lower="1 cm", widen="5 mm"),
        _to("waist", "side_waist", "back"), _of("trim.hem", "back", by="1 cm"), _to("waist", "shoulder_tip"),
        _of("trim.hem", by="-8 mm"), _of("piece.square", edge="waist"), _of("piece.square", "back", edge="neckline"),
    ]),
    "let out": ("real", "cm", {}, [
        _to("shoulder", "french"), _of("piece.let_out", other="back", top="1 cm", bottom="2 cm"), _to("waist", "side_bust"),
        _of("piece.let_out", "back", other="", top="-5 mm", bottom="0"),
    ]),
    "strapless": ("real", "in", {}, [
        _of("trim.strapless", shape="sweetheart", depth="8 in"), _of("trim.strapless", "back", depth="8 1/2 in"),
        *[_of("line.princess", on, **{"from": {"edge": "neckline", "at": "55%"}}) for on in ("front", "back")],
    ]),
    "side seam": ("real", "cm", {}, [
        _to("shoulder", "side_bust"), _of("piece.side_seam", "back", other="front", by="1.5 cm"),
        _of("piece.true_seam", seam="side_seam", edge="armhole"), _of("piece.true_seam", seam="shoulder", edge="neckline"),
    ]),
    "side panel": ("small", "cm", {}, [
        _of("piece.side_panel", front="3 cm", back="4 cm", front_waist="2 cm"), _of("neck.shape", shape="round"),
    ]),
    "whole": ("real", "cm", {}, [
        UNFOLD, _to("shoulder.left", "french"), _to("waist.right", "mid_armhole", share="50%"),
        _to("shoulder.right", "mid_neck", at={"side": "left"}), _of("piece.unfold", "back"),
        _of("dart.park", darts=["waist.left"]), _of("dart.use", dart="waist.right", **{"as": "pleats"}, count=1),
    ]),
    "whole hip": ("hip", "in", {}, [
        _of("dart.fisheye", intake="1 1/2 in", bow="1/8 in"), UNFOLD, _of("dart.fisheye", dart="waist.right", intake="1 in"),
        _of("dart.fisheye", dart="more", intake="1/2 in", axis="2 in", side="right"), _of("dart.fisheye", "back", intake="0"),
        _of("trim.hem", "back", by="1/2 in"),
    ]),
    "necks": ("real", "cm", {}, [
        _of("neck.shape", shape="keyhole", back_depth="6 cm"), _of("neck.gape", amount="6 mm"),
        _of("neck.opening", "back", kind="slit", length="12 cm"), _to("shoulder", "waist"), _of("piece.facing", kind="neck"),
    ]),
    "hems": ("real", "cm", {}, [_of("piece.facing", kind="hem", depth="4 cm"), _to("shoulder", "neck_point", share="30%")]),
    "camisole": ("real", "in", {}, [
        _of("neck.shape", shape="camisole"), _of("piece.facing", kind="camisole"), _of("piece.facing", kind="lining"),
    ]),
    "yoke and zip": ("real", "cm", {}, [_of("neck.shape", shape="keyhole_yoke"), _of("neck.opening", "back", length="20 cm")]),
    "wrap": ("real", "cm", {}, [_of("neck.shape", shape="wrap"), _of("neck.gape")]),
    "one shoulder": ("real", "cm", {}, [_of("neck.shape", shape="one_shoulder", side="right")]),
    "uneven": ("small", "cm", {}, [_of("neck.shape", shape="asymmetric", side="right")]),
    "uneven faced": ("real", "cm", {}, [_of("neck.shape", shape="asymmetric"), _of("piece.facing", kind="neck")]),
    "off shoulder": ("real", "cm", {}, [
        _of("neck.shape", shape="off_shoulder"), _of("piece.facing", kind="all_in_one", depth="8 cm"),
    ]),
    "raised": ("real", "cm", {}, [_of("neck.shape", shape="raised"), _of("piece.facing", kind="neck")]),
    "yokes": ("real", "cm", {}, [
        _of("yoke.cut", "back"), _of("yoke.cut", shape="curved"), _of("yoke.cut", "back", kind="midriff", shape="scalloped"),
    ]),
    "hip yokes": ("hip", "cm", {}, [_of("yoke.cut", kind="hip"), _of("yoke.cut", "back", kind="midriff", shape="curved")]),
    "uneven yoke": ("real", "cm", {}, [
        _of("yoke.cut", at="5 cm", right="11 cm", seam_darts="gathers"), _of("neck.shape", shape="v", depth="9 cm"),
        _of("yoke.cut", "back", led="waist", seam_darts="pleats"),
    ]),
    "let in": ("real", "cm", {}, [
        _of("yoke.cut", "back"), _of("fullness.gather", "back", edge="yoke", ratio=1.6, rows=3),
        _of("fullness.pleat", edge="neckline", kind="box", count=1, depth="4 mm"),
        _of("fullness.tuck", "back", kind="pin", edge="armhole", stitched="6 cm"),
    ]),
    "joined yoke": ("real", "cm", {}, [
        _of("yoke.cut", "back"), _of("yoke.cut"), _of("yoke.join", "front_yoke", forward="2 cm"),
    ]),
    "heart": ("real", "in", {}, [_of("line.cut", **HEART)]),
    "slit": ("real", "cm", {}, [
        _of("neck.shape", shape="slit", open="1 cm"), _of("neck.shape", "back", other="", shape="scallop"),
    ]),
    "across panels": ("real", "cm", {}, [_of("line.princess"), _of("line.princess", "back"), _of("neck.shape", shape="canoe")]),
    "free": ("real", "cm", {}, [_of("neck.shape", shape="free")]),
    "necks of panels": ("real", "cm", {}, [
        _of("line.princess", **{"from": {"edge": "neckline", "at": "80%"}}), _of("neck.shape", shape="scoop"),
    ]),
    "cowls": ("real", "cm", {}, [_of("drape.cowl", folds=3, pleat="8 mm"), _of("drape.cowl", "back", other="", level="high")]),
    "cowl by its slash": ("hip", "in", {}, [_of("drape.cowl", spread="1 in", darts="none", grain="straight", facing="2 in")]),
    "cowl under the arm": ("real", "cm", {}, [
        _of("drape.cowl_armhole", depth="28 cm", inwards="2 cm"), _of("neck.shape", shape="v", depth="10 cm"),
    ]),
    "drapes": ("real", "cm", {}, [
        _of("drape.fan", "back", taken="gathers"), UNFOLD, _of("drape.fan", edge="side_seam.left", slashes=["2 cm", "25 mm"]),
    ]),
    "draped shoulder": ("small", "in", {}, [_of("drape.fan", edge="shoulder", taken="tucks", stitched="1 in", bias=True)]),
    "twisted": ("real", "in", {}, [_of("drape.twist"), _of("trim.band", edge="waist")]),
    "trims": ("real", "cm", {}, [
        _of("trim.frill", ratio=2, edge="waist", cloth="90 cm"), _of("trim.band", edge="armhole", lap="2 cm", made="faced"),
        _of("trim.piping"), _of("trim.casing", stretch="20%"), _of("trim.ruffle", front="40%"),
        _of("neck.shape", shape="square"), _of("trim.binding", layers="doubled"), _of("trim.bow"),
        _of("trim.tie", kind="sash", ends="pointed"),
    ]),
    "opened": ("small", "in", {"allowance": "home_room"}, [
        _of("trim.placket"), _of("trim.loops", "back", along="4 in"), _of("trim.stand", lap="1/2 in"), _of("trim.tie"),
        _of("trim.peplum", hem="dipped", raised_by="1 in"), _of("trim.waistband", kind="shaped", edge="waist"),
    ]),
    "taped": ("real", "cm", {}, [
        _of("measure.tape", name="half neckline", way="seam", to={"on": "back", "station": "centre_neck"},
            **{"from": {"station": "centre_neck"}}),
        _of("neck.shape", shape="round", depth="half_neckline/2"),
        _of("measure.tape", to={"dart": "waist", "part": "sewn"}, hold="30 cm", on_sheet=True,
            **{"from": {"landmark": "neck_point"}}),
        _of("measure.tape", "back", way="level", to={"station": "mid_armhole"},
            **{"from": {"edge": "centre", "level": "chest"}}),
    ]),
    "flounced": ("real", "cm", {}, [
        _of("neck.shape", shape="camisole"), _of("trim.strap", kind="rouleau"),
        _of("trim.peplum", kind="pleated", hem="uneven"),
        _of("fullness.circle", edge="top", part=0.75, seams="even", level="1 cm", pieces=2),
    ]),
}  # fmt: skip


def style_of(name: str) -> Style:
    """The style of a recipe."""
    block, units, finish, steps = RECIPES[name]
    blocks = {"real": real_block, "hip": hip_block, "small": _small}
    return Style.model_validate({
        "name": name, "units": units, "block": blocks[block](), "finish": Finish.model_validate(finish),
        "steps": [registry.read(step) for step in steps],
    })  # fmt: skip


def _small() -> block_file.BlockFile:
    """A small block whose shoulder dart has been led to the side: other names, other proportions."""
    value = scaled_value(0.86, 0.93)
    front = value["pieces"][0]
    for dart in front["darts"]:
        dart["id"] = {"shoulder": "side"}.get(dart["id"], dart["id"])
    return block_file.from_value(value, "small")
