"""`zesty-pivot derive`: a style worked out, and its sheets written."""

from __future__ import annotations

import sys
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import TYPE_CHECKING

import click

from zesty_pivot.cli.bodies import of_chart, several, under_of, write
from zesty_pivot.cli.opened import opened, with_variant
from zesty_pivot.cli.saying import echo
from zesty_pivot.core.errors import ZestyError
from zesty_pivot.core.formats.printing import DxfVersion, Packing, Printing
from zesty_pivot.core.nest.paged import EDGE, OVERLAP

if TYPE_CHECKING:
    from zesty_pivot.core.formats.style_file import Style
    from zesty_pivot.core.sizes.bodies import BodyRow


def folder(_context: click.Context, _option: click.Parameter, value: str) -> Path:
    """A folder to write to. An empty name, as an unset variable of a script gives, is wrong usage and not this folder."""
    if not value.strip():
        raise click.BadParameter("is empty; give the folder to write to.")
    return Path(value)


class _Format(click.ParamType[str]):
    """An export format by its id. The formats are looked for only when one is named, or help is asked for."""

    name = "format"

    def convert(self, value: str, param: click.Parameter | None, ctx: click.Context | None) -> str:
        from zesty_pivot.core.exports.registry import all_exports

        if value not in all_exports():
            self.fail(f"{value!r} is not one of {', '.join(all_exports())}.", param, ctx)
        return value

    def get_metavar(self, param: click.Parameter, ctx: click.Context) -> str:
        from zesty_pivot.core.exports.registry import all_exports

        return f"[{'|'.join(all_exports())}]"


def _printing(asked: Printing) -> Printing:
    """What was asked of the pages; a paper that is none is wrong usage."""
    try:
        _ = asked.setup
    except ZestyError as fault:
        raise click.BadParameter(str(fault), param_hint="--paper") from None
    return asked


def _dated(style: Style, date: str | None) -> Style:
    if date is None:
        return style
    try:
        return style.with_finish({"date": date})
    except ValueError:
        raise click.BadParameter("is too long, or holds what cannot be printed.", param_hint="--date") from None


def _bodies(
    style: Style, measures: Path | None, person: str, sizes: Sequence[str], all_sizes: bool, chart: Path | None
) -> Iterator[BodyRow] | None:
    """The bodies that it is derived for, where they are several."""
    if sizes or all_sizes:
        if measures is not None or person:
            raise click.UsageError("give either sizes or measurements.")
        if sizes and all_sizes:
            raise click.UsageError("--size and --all-sizes do not go together.")
        return of_chart(chart, sizes, is_all=all_sizes, is_child=not style.block.has_bust_point)
    if chart is not None:
        raise click.UsageError("--chart needs --size or --all-sizes.")
    return several(measures, style.units) if measures is not None and not person else None


@click.command()
@click.argument("style", type=click.Path(path_type=Path))
@click.option("--block", type=click.Path(path_type=Path), help="Use this block instead of the style's own.")
@click.option("--measures", type=click.Path(path_type=Path), help="Take the measurements from this file.")
@click.option("--person", default="", help="Whose of them; of several people without it, everybody's, a folder each.")
@click.option("--size", "sizes", multiple=True, metavar="NAME", help="A size of the chart; several make a folder each.")
@click.option("--all-sizes", is_flag=True, help="Every size of the chart that it can be made in.")
@click.option(
    "--chart", type=click.Path(path_type=Path), help="The size chart (.zsizes or .csv); the one that ships if not given."
)
@click.option(
    "--blocks", "way", metavar="draft|grade|FOLDER", default=None,
    help="Draft the block of each size or person, grade the style's, or take their own out of a folder; "
    "drafted blocks are drafted if not given.",
)  # fmt: skip
@click.option("--nested", is_flag=True, help="All sizes over each other as well: SVG, PDF with layers, how seams grow.")
@click.option("--zip", "is_zip", is_flag=True, help="An archive of each size or person instead of a folder.")
@click.option("--jobs", type=click.IntRange(0, 64), default=0, help="Processes for several bodies; 0: as many as cores.")
@click.option("--out", callback=folder, required=True, help="Folder to write to.")
@click.option(
    "--format", "formats", multiple=True, type=_Format(), help="What to write beside report.json; svg and pdf when not given."
)
@click.option("--paper", "--page", "paper", default="A4", show_default=True, help="A4, A3, Letter, Legal, or mm as 330x480.")
@click.option("--edge", type=float, default=EDGE, show_default=True, help="Mm of every page that the printer leaves white.")
@click.option("--overlap", type=float, default=OVERLAP, show_default=True, help="Mm that pages share; 0: edge to edge.")
@click.option("--apart", is_flag=True, help="Pages of its own for every piece.")
@click.option("--only", default="", metavar="PAGES", help="Print these pages only, as 2,5-7.")
@click.option("--colour", is_flag=True, help="Print lines in colours.")
@click.option(
    "--packing", type=click.Choice(("search", "kept", "none")), default="search", show_default=True,
    help="Fewest pages, as the file keeps them, or side by side.",
)  # fmt: skip
@click.option(
    "--dxf", type=click.Choice(("R12", "R2000", "R2010")), default="R2000", show_default=True, help="Version of the DXF."
)
@click.option("--dxf-each", is_flag=True, help="A DXF of its own for every piece as well.")
@click.option("--roll", type=float, default=900.0, show_default=True, help="Mm of the plotter's roll.")
@click.option("--roll-length", type=float, default=0.0, help="Mm that it draws before its paper ends; 0: without an end.")
@click.option("--pens", type=click.IntRange(1, 3), default=3, show_default=True, help="Pens that the plotter has.")
@click.option("--cloth", default="", help="Width of the cloth to lay on, as '140 cm'; the style's own lays when not given.")
@click.option("--folded", is_flag=True, help="Lay on the folded cloth.")
@click.option("--nap", is_flag=True, help="All pieces one way up.")
@click.option("--date", default=None, help="Date on the labels; the style's own when not given.")
@click.option("--variant", default=None, help="Which of the style's variants; the one on its table when not given.")
@click.option("--all-variants", is_flag=True, help="Every variant, each to a folder of its own within the folder.")
def derive(
    style: Path, block: Path | None, measures: Path | None, person: str, sizes: Sequence[str], all_sizes: bool,
    chart: Path | None, way: str | None, nested: bool, is_zip: bool, jobs: int, out: Path,
    formats: Sequence[str], paper: str,
    edge: float, overlap: float, apart: bool, only: str, colour: bool, packing: Packing, dxf: DxfVersion, dxf_each: bool,
    roll: float, roll_length: float, pens: int, cloth: str, folded: bool, nap: bool,
    date: str | None, variant: str | None, all_variants: bool,
) -> None:  # fmt: skip
    """Write the sheets of STYLE and report.json to a folder."""
    from zesty_pivot.core.exports.registry import all_exports, write_all, write_variants
    from zesty_pivot.core.formats.derived import derive as work_out

    printing = _printing(
        Printing(paper, edge, overlap, apart, only, colour, packing, dxf, dxf_each, roll, roll_length, pens, cloth, folded, nap)
    )
    wanted = tuple(formats) or tuple(id for id, one in all_exports().items() if one.is_usual)
    bare = _dated(opened(style, block, None), date)
    rows = _bodies(bare, measures, person, sizes, all_sizes, chart)
    if rows is not None:
        if all_variants:
            raise click.UsageError("--all-variants goes with one body only.")
        write(
            with_variant(bare, variant),
            rows,
            out,
            wanted,
            printing,
            under=under_of(bare, way),
            jobs=jobs,
            is_zip=is_zip,
            is_nested=nested,
        )
    if way is not None or nested:
        raise click.UsageError("--blocks and --nested go with several sizes or people.")
    chosen = bare if measures is None else _dated(opened(style, block, measures, person), date)
    if all_variants:
        if variant is not None:
            raise click.UsageError("--variant and --all-variants do not go together.")
        made = write_variants(chosen, out, wanted, printing)
        written = list(made)
    else:
        derived = work_out(with_variant(chosen, variant))
        made, written = {out: derived}, write_all(derived, out, wanted, printing)
    for path in written:
        echo(str(path))
    for derived in made.values():
        for number, fault in derived.derivation.broken:
            echo(f"zesty-pivot: step {number} could not be done: {fault}", err=True)
    sys.exit(1 if any(derived.has_errors for derived in made.values()) else 0)
