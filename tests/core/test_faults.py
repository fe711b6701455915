"""Faults of the program: caught where they happen, logged once, told in one sentence, and nothing else is touched."""

import json
from pathlib import Path

import pytest

from tests.samples import move, real_block, style, worked
from zesty_pivot.core import faults
from zesty_pivot.core.checks import corners
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.errors import FileError, StepError
from zesty_pivot.core.finish import whole
from zesty_pivot.core.formats import derived as formats_derived
from zesty_pivot.core.formats import report, style_file, svg
from zesty_pivot.core.formats.derived import derive, unworked
from zesty_pivot.core.formats.style_file import anonymous_steps
from zesty_pivot.core.quantity import Scope
from zesty_pivot.core.recipe import Evaluator
from zesty_pivot.core.recipe.hand import hand_sheet
from zesty_pivot.core.steps import registry
from zesty_pivot.core.steps.dart_move import MoveDart

STEPS = [move("shoulder", "mid_armhole", "40%"), move("waist", "french"), {"do": "piece.true", "on": "front", "edge": "waist"}]


def fails(*_args: object, **_more: object) -> None:
    raise RuntimeError("planted for Mrs Example in /home/example/secret")


@pytest.mark.plants_faults
def test_a_fault_in_a_step_costs_that_step_and_nothing_else(monkeypatch: pytest.MonkeyPatch, fault_net) -> None:
    right = worked(STEPS)
    apply = MoveDart.apply

    def planted(self: MoveDart, pattern, context):  # type: ignore[no-untyped-def]
        return fails() if self.dart == "waist" else apply(self, pattern, context)

    monkeypatch.setattr(MoveDart, "apply", planted)
    found = Evaluator().evaluate(right.block, [registry.read(step) for step in STEPS], Scope("cm"))
    ((number, error),) = found.broken
    assert number == 2 and isinstance(error, StepError) and "\n" not in str(error)
    reference = error.what.rpartition("reference ")[2].rstrip(")")
    assert "this is a fault of the program" in error.what and len(reference) == 8
    assert found.states[2].pattern is found.states[1].pattern  # what stood before it stands
    assert found.states[3].error is None and found.states[3].pattern != found.states[2].pattern  # and what comes after is done
    assert [doing for doing, _fault in fault_net.caught] == ["the step “Move a dart”"]


@pytest.mark.plants_faults
def test_words_and_paper_procedures_of_a_step_fail_alone(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(MoveDart, "words", fails)
    found = worked(STEPS)
    assert found.states[1].step.said() == "dart.move"  # type: ignore[union-attr]
    monkeypatch.undo()
    monkeypatch.setattr(MoveDart, "by_hand", fails)
    sheet = hand_sheet(found, Scope("cm"), "pivot")
    assert [section.lines[0].do for section in sheet[1:3]] == ["broken", "broken"]
    assert "fault of the program" in sheet[1].lines[0].text and sheet[3].lines[0].do != "broken"


@pytest.mark.plants_faults
def test_a_check_that_fails_is_a_finding_and_the_others_are_run(monkeypatch: pytest.MonkeyPatch) -> None:
    before = {finding.check for finding in derive(style([])).findings}
    monkeypatch.setattr(corners, "jog", fails)
    found = derive(style([])).findings
    (one,) = [finding for finding in found if finding.check == "corners"]
    assert one.severity is Severity.ERROR and "“Joined seams run smooth” could not be done" in one.message and one.advice
    assert {finding.check for finding in found} == before


@pytest.mark.plants_faults
def test_a_piece_that_cannot_be_finished_is_drawn_by_its_seams_and_says_so(monkeypatch: pytest.MonkeyPatch) -> None:
    finish_piece = whole.finish_piece
    monkeypatch.setattr(
        whole, "finish_piece", lambda piece, *a, **k: fails() if piece.name == "back" else finish_piece(piece, *a, **k)
    )
    found = derive(style([]))
    front, back = found.pieces
    assert not front.fault and "fault of the program" in back.fault
    assert {stroke.layer for stroke in back.strokes} == {"seam"} and any("no cut line" in text.text for text in back.texts)
    assert any(finding.check == "cut_line" and finding.piece == "back" for finding in found.findings) and found.has_errors
    text = svg.piece_svg(back).decode()
    assert 'id="cut"' in text and 'class="cut"' not in text
    assert json.loads(report.dump(report.report(found)))["pieces"][1]["name"] == "back"


@pytest.mark.plants_faults
def test_girths_that_fail_are_none(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(formats_derived, "girths", fails)
    assert derive(style([])).girths.bust is None


def test_a_style_that_cannot_be_worked_out_is_shown_broken() -> None:
    found = unworked(style(STEPS), StepError("no way"))
    assert len(found.derivation.broken) == 3 and found.pattern is found.derivation.block and found.has_errors


@pytest.mark.plants_faults
def test_the_log_holds_what_helps_and_no_person(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("HOME", "/home/example")
    work = style([{**STEPS[0], "name": "for Mrs Example"}], measures={"bust": "93 cm"})
    log = faults.FaultLog(tmp_path / "deep" / "faults.log", lambda: anonymous_steps(work))
    faults.LOGGER.addHandler(log)
    try:
        for _ in range(3):
            try:
                fails()
            except RuntimeError as fault:
                reference = faults.caught(fault, "step dart.move")
    finally:
        faults.LOGGER.removeHandler(log)
    text = (tmp_path / "deep" / "faults.log").read_text()
    assert text.count(reference) == 1  # the same fault is written once
    assert "RuntimeError: planted" in text and "test_faults.py:" in text and '"do": "dart.move"' in text
    assert "/home/example" not in text and 'for Mrs Example"' not in text and "93" not in text
    assert str(Path(faults.__file__).parents[3]) not in text


@pytest.mark.plants_faults
def test_the_log_stays_small_and_never_fails(tmp_path: Path) -> None:
    path = tmp_path / "faults.log"
    path.write_bytes(b"x" * (faults.MAX_LOG + 1))
    for log in (faults.FaultLog(path, fails), faults.FaultLog(tmp_path / "faults.log" / "no-folder", lambda: "")):
        faults.LOGGER.addHandler(log)
        try:
            raise KeyError("shoulder")
        except KeyError as fault:
            faults.caught(fault, "a check")
        finally:
            faults.LOGGER.removeHandler(log)
    assert path.stat().st_size < 4000 and (tmp_path / "faults.log.old").stat().st_size > faults.MAX_LOG
    assert "KeyError: 'shoulder'" in path.read_text()


def test_a_reference_tells_the_place_not_the_words() -> None:
    def at(fault: Exception) -> str:
        with pytest.raises(type(fault)) as caught:
            raise fault
        return faults._reference(caught.value)

    assert at(ValueError("one")) == at(ValueError("two")) != at(KeyError("one"))


def test_any_document_that_was_edited_saves_and_opens() -> None:
    work = style(STEPS)
    assert work.checked() == work
    with pytest.raises(FileError, match="control character"):
        work.model_copy(update={"name": "a\x07b"}).checked()
    with pytest.raises(FileError, match="400"):
        work.with_steps(work.steps * 200).checked()
    assert style_file.from_block(real_block(), "one\ttwo\x00").name == "onetwo"
