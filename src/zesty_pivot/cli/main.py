"""`zesty-pivot`: opens the window, or does one job and ends.

Exit codes: 0 done, 1 findings or refused input, 2 wrong usage. Messages go to stderr in one line.
"""

from __future__ import annotations

import json
import os
import sys
from collections.abc import Sequence
from contextlib import suppress
from pathlib import Path
from typing import Literal

import click

from zesty_pivot import __version__
from zesty_pivot.cli.cold import prepare
from zesty_pivot.cli.deriving import derive, folder
from zesty_pivot.cli.importing import import_block
from zesty_pivot.cli.opened import fault_log, opened, own_methods
from zesty_pivot.cli.plotting import plotter
from zesty_pivot.cli.saying import echo, unwritten
from zesty_pivot.core import faults
from zesty_pivot.core.errors import FileError, ZestyError


class _Commands(click.Group):
    """Commands by name; any other first word is a file, or `demo`, for the window."""

    def parse_args(self, ctx: click.Context, args: list[str]) -> list[str]:
        known = self.list_commands(ctx)
        if args and args[0] not in known and not args[0].startswith("-"):
            args = ["open", *args]
        return super().parse_args(ctx, args or ["open"])


@click.group(cls=_Commands, context_settings={"help_option_names": ["-h", "--help"]})
@click.version_option(__version__, prog_name="zesty-pivot")
def cli() -> None:
    """Derive styled garment patterns from a fitted bodice block.

    Without a command: opens the window. `zesty-pivot demo` opens it on the demo style, `zesty-pivot FILE` on a
    style or block file.
    """


@cli.command(name="open", hidden=True)
@click.argument("file", required=False)
def open_window(file: str | None) -> None:
    """Open the window, on a style, a block, or the demo."""
    if not any(os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")):
        raise ZestyError("no display was found for the window", advice="Use derive or demo-sheets, which need none.")
    from zesty_pivot.desk.start import start

    path = None if file in (None, "demo") else Path(str(file))
    if path is not None and not path.exists():
        raise FileError("there is no such file", where=str(path), advice="Check the name, or see zesty-pivot --help.")
    sys.exit(start(path, demo=file == "demo"))


@cli.command()
@click.argument("style", type=click.Path(path_type=Path))
@click.option("--block", type=click.Path(path_type=Path), help="Use this block instead of the style's own.")
def check(style: Path, block: Path | None) -> None:
    """Print the findings of STYLE; exit 1 when one is an error."""
    from zesty_pivot.core.formats.derived import derive as work_out

    derived = work_out(opened(style, block, None))
    for finding in derived.findings:
        place = f"{finding.piece}: " if finding.piece else ""
        told = finding.advice + (f" Accepted: {finding.accepted}." if finding.accepted else "")
        echo(f"{finding.severity.value}: {place}{finding.message} (limit {finding.limit:g} {finding.unit}). {told}")
    if not derived.findings:
        echo("nothing found")
    sys.exit(1 if derived.has_errors else 0)


@cli.command()
@click.argument("style", type=click.Path(path_type=Path))
@click.option("--block", type=click.Path(path_type=Path), help="Use this block instead of the style's own.")
@click.option(
    "--way", type=click.Choice(("pivot", "slash")), default="pivot", show_default=True, help="Swing, or cut and tape."
)
def hand(style: Path, block: Path | None, way: Literal["pivot", "slash"]) -> None:
    """Print the paper procedure of STYLE with its numbers."""
    from zesty_pivot.core.formats.derived import derive as work_out

    derived = work_out(opened(style, block, None))
    for section in derived.by_hand(way):
        echo(f"{section.number}  {section.title}" if section.number else section.title)
        for line in section.lines:
            echo(f"    - {line.text}")
    sys.exit(1 if derived.derivation.broken else 0)


@cli.command()
@click.argument("method")
@click.option("--measures", type=click.Path(path_type=Path), required=True, help="Body measurements, .zmeas or .csv.")
@click.option("--person", default="", help="Whose of them; not needed where the file has one person.")
@click.option("--set", "given", multiple=True, metavar="NAME=VALUE", help="Set a parameter of the method; several times.")
@click.option("--out", type=click.Path(path_type=Path), required=True, help="The block file to write.")
def draft(method: str, measures: Path, person: str, given: Sequence[str], out: Path) -> None:
    """Draft a block with METHOD (an id, or a .zmethod file) from measurements."""
    from zesty_pivot.core.drafting.method import SUFFIX
    from zesty_pivot.core.drafting.settings import kept
    from zesty_pivot.core.formats import block_file, files, measures_csv, measures_file, method_file
    from zesty_pivot.core.formats.drafted_block import block_name, drafted
    from zesty_pivot.data.methods import ORDER, all_methods

    if not out.name:
        raise click.BadParameter("is empty; give the file to write.", param_hint="--out")
    chosen = method_file.chosen(method, () if method.endswith(SUFFIX) else all_methods(own_methods()))
    people, told = measures_csv.read_people(measures)
    for line in told:
        echo(f"zesty-pivot: {line}", err=True)
    lengths = measures_file.lengths_of(people, person, files.shown(measures))
    settings = kept(chosen, dict(_pair(text) for text in given), people.units)
    whose = people.person(person).name
    block = drafted(chosen, lengths, settings, block_name(chosen, whose), is_own=chosen.id not in ORDER)
    files.write_atomic(out, block_file.dump(block))
    echo(str(out))


def _pair(text: str) -> tuple[str, str]:
    name, equals, value = text.partition("=")
    if not equals or not name.strip():
        raise click.BadParameter(f"{text!r} is not NAME=VALUE.", param_hint="--set")
    return name.strip(), value.strip()


@cli.command()
@click.option("--json", "as_json", is_flag=True, help="As JSON, with every parameter, its default, range and choices.")
def methods(as_json: bool) -> None:
    """List every drafting method with its parameters."""
    from zesty_pivot.core.drafting.listing import listing
    from zesty_pivot.data.methods import all_methods

    found = listing(all_methods(own_methods()))
    if as_json:
        echo(json.dumps({"methods": found}, indent=1, ensure_ascii=False))
        return
    for method in found:
        echo(f"{method['id']}: {method['title']}. {method['summary']}")
        for parameter in method["parameters"]:
            words = f"; {', '.join(choice['word'] for choice in parameter['choices'])}" if parameter["choices"] else ""
            default = f" (default {parameter['default']}{words})" if parameter["default"] else ""
            echo(f"    {parameter['id']}: {parameter['title']}{default}")


@cli.command()
@click.option("--into", type=click.Path(path_type=Path), help="Data folder; your own when not given.")
def integrate(into: Path | None) -> None:
    """Write the menu entry, the icon, the file types and the man page to your data folder."""
    from zesty_pivot.desk.desktop_entry import install

    for path in install(into):
        echo(str(path))


@cli.command()
@click.option("--json", "as_json", is_flag=True, help="As JSON, with every parameter, its default and choices.")
def steps(as_json: bool) -> None:
    """List every step with its parameters."""
    from zesty_pivot.core.conventions.schools import ALLOWANCES, CAP_UP_TO, FOLDS, SETBACKS
    from zesty_pivot.core.steps.registry import listing

    found = listing()
    schools = {
        kind: {name: school.title for name, school in table.items()}
        for kind, table in (("setback", SETBACKS), ("fold", FOLDS), ("allowance", ALLOWANCES), ("weight", CAP_UP_TO))
    }
    if as_json:
        echo(json.dumps({"steps": found, "schools": schools}, indent=1, ensure_ascii=False))
        return
    for step in found:
        echo(f"{step['do']}: {step['summary']}")
        for name, parameter in step["parameters"]["properties"].items():
            if name not in ("do", "off", "name"):
                default = f" (default {parameter['default']})" if parameter.get("default") is not None else ""
                echo(f"    {name}: {parameter.get('description', '')}{default}")


@cli.command()
@click.argument("kind", type=click.Choice(("style", "block", "report", "measures", "method", "tags", "ruler", "digitiser")))
def schema(kind: str) -> None:
    """Print the JSON Schema of a kind of file."""
    from zesty_pivot.core.formats.schema import schema as schema_of

    echo(json.dumps(schema_of(kind), indent=1, ensure_ascii=False))


@cli.command(name="demo-sheets")
@click.option("--out", callback=folder, required=True, help="Folder to write to.")
def demo_sheets(out: Path) -> None:
    """Write the demo's sheets and pictures without a display."""
    from zesty_pivot.core.exports.registry import all_exports, write_all
    from zesty_pivot.core.formats.derived import derive as work_out
    from zesty_pivot.data.demo import demo_style
    from zesty_pivot.desk.pictures import write_pictures

    write_all(work_out(demo_style()), out, tuple(id for id, one in all_exports().items() if one.is_usual))
    write_pictures(out, all_views=False)
    echo(f"The demo's sheets and pictures are in {out}")


cli.add_command(derive)
cli.add_command(import_block)
cli.add_command(plotter)


def run(args: Sequence[str] | None = None) -> None:
    """Runs a command and ends the process: every refusal is one line on stderr and exit code 1, wrong usage exit code 2."""
    prepare()
    code = _command(args)
    try:
        sys.stdout.flush()
    except OSError as fault:
        code = code if code == 130 else _refused(str(unwritten(fault)))
    _hush()
    sys.exit(code)


def _command(args: Sequence[str] | None) -> int:
    try:
        cli.main(args=args, prog_name="zesty-pivot", standalone_mode=False)
    except SystemExit as ended:
        return ended.code if isinstance(ended.code, int) else 1
    except (click.exceptions.Abort, KeyboardInterrupt):
        return 130
    except click.UsageError as fault:
        return _refused(f"{fault.format_message()} See zesty-pivot --help.", 2)
    except click.ClickException as fault:
        return _refused(fault.format_message())
    except ZestyError as fault:
        return _refused(str(fault))
    except Exception as fault:  # noqa: BLE001 - the boundary of a command
        return _refused(f"{faults.sentence('this', faults.caught(fault, 'a command'))}. {_where_logged()}")
    return 0


def _refused(what: str, code: int = 1) -> int:
    """Says one line on stderr, if there is one to say it to."""
    with suppress(OSError):
        click.echo(f"zesty-pivot: {' '.join(what.split())}", err=True)
    return code


def _hush() -> None:
    """What could not be written is not tried again when the process ends, which would say so in Python's words."""
    for stream in (sys.stdout, sys.stderr):
        try:
            stream.flush()
        except (OSError, ValueError):
            with suppress(OSError):
                os.dup2(os.open(os.devnull, os.O_WRONLY), stream.fileno())


def _where_logged() -> str:
    return f"Details: {fault_log()}"
