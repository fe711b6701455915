"""A format is one file: the command line, the folder and the report's place among them."""

import json
from pathlib import Path

import pytest

from tests.samples import move, style
from zesty_pivot.core.exports.base import FULL
from zesty_pivot.core.exports.registry import all_exports, makers, outputs, write_all
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.formats.lay_models import LayFile
from zesty_pivot.core.formats.printing import Printing

STYLE = style([move("waist", "french")]).model_copy(update={"lays": (LayFile(folded=True),)})  # laid, not searched for


def test_every_module_of_the_folder_is_a_format() -> None:
    import zesty_pivot.core.exports as folder

    modules = {path.stem for path in Path(folder.__path__[0]).glob("*.py")} - {"__init__", "base", "registry"}
    assert len(all_exports()) == len(modules) >= 3


def test_each_names_the_file_that_holds_the_whole_style() -> None:
    made = derive(STYLE)
    for one in all_exports().values():
        for paper in ("A4", "A3", "Letter"):
            files = one.files(made, Printing(paper, packing="kept"))
            assert one.whole(paper) in files and one.whole(FULL) in files, one.id
            assert one.whole(paper).endswith(one.ending)
        assert one.kind.endswith(f"(*{one.ending})")


@pytest.mark.usefixtures("rough_stand")
def test_the_report_is_written_beside_whatever_is_asked_for(tmp_path: Path) -> None:
    made = derive(STYLE)
    assert list(makers(made, ("json",), Printing(packing="kept"))) == ["report.json"]
    for id in all_exports():
        names = {path.name for path in write_all(made, tmp_path / id, (id,), Printing(packing="kept"))}
        assert "report.json" in names and names == set(outputs(made, (id,), Printing(packing="kept")))
    told = json.loads((tmp_path / "svg" / "report.json").read_text())
    assert {piece["name"] for piece in told["pieces"]} == {"front", "back"}
