"""Every check seen to speak, and to be silent."""

import dataclasses
import pkgutil

import pytest

from tests.core.checks.looking import look, said
from tests.samples import move, real_pattern, style, worked
from zesty_pivot.core import checks
from zesty_pivot.core.checks.base import Severity
from zesty_pivot.core.checks.registry import all_checks, findings
from zesty_pivot.core.conventions.options import DartFinish, Finish
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.geometry import Path
from zesty_pivot.core.ledger import accounts, girths, seam_accounts
from zesty_pivot.core.piece import Pattern
from zesty_pivot.core.quantity import Scope

SHARED = {"base", "limits", "registry"}  # what checks have in common

TRUED = [
    {"do": "piece.true", "on": "front", "edge": "waist"},
    {"do": "piece.true", "on": "back", "edge": "waist"},
    {"do": "piece.true", "on": "back", "edge": "shoulder"},
]


def bent(pattern: Pattern, piece: str, edge: str, by: tuple[float, float]) -> Pattern:
    """A pattern with one edge's last point of its first run moved: something no step would do."""
    target = pattern.piece(piece)
    index = next(k for k, run in enumerate(target.runs) if run.edge == edge)
    cubics = target.runs[index].path.cubics.copy()
    cubics[-1, 2:] += by
    run = dataclasses.replace(target.runs[index], path=Path(cubics))
    return pattern.with_piece(dataclasses.replace(target, runs=(*target.runs[:index], run, *target.runs[index + 1 :])))


def test_a_check_is_called_like_its_module_and_by_one_title() -> None:
    modules = {name for _finder, name, _is_package in pkgutil.iter_modules(checks.__path__) if name not in SHARED}
    assert {check.id for check in all_checks()} == modules
    titles = [check.title for check in all_checks()]
    assert all(titles) and len(set(titles)) == len(titles)


def test_every_finding_has_value_limit_place_and_advice() -> None:
    found = findings(look(worked([move("shoulder", "waist")]).pattern))
    assert found
    for finding in found:
        assert finding.advice and finding.place and finding.piece and finding.unit
        assert finding.value != finding.limit
        assert "\n" not in finding.message


def test_unequal_seams_and_the_ease_that_is_meant() -> None:
    # The real block's back shoulder is 3 mm longer than its front.
    (message,) = said("seam_partners", look())
    assert "back shoulder is 0.30 cm longer" in message
    assert said("seam_partners", look(finish=Finish(ease={"front.shoulder": "3 mm"}))) == []
    (over,) = said("seam_partners", look(finish=Finish(ease={"front.shoulder": "6 mm"})))
    assert "front shoulder is 0.30 cm longer" in over and "beyond the 0.60 cm ease" in over


def test_its_mend_makes_it_go() -> None:
    (finding,) = [f for f in findings(look()) if f.check == "seam_partners"]
    assert finding.mend is not None and finding.mend.finish is not None
    assert said("seam_partners", look(finish=Finish.model_validate(finding.mend.finish))) == []


def test_unequal_legs() -> None:
    assert said("dart_legs", look()) == []
    (message,) = said("dart_legs", look(bent(real_pattern(), "front", "waist", (0.0, 2.0))))
    assert "legs of the waist dart differ by 0.20 cm" in message


def test_corners_and_their_mend() -> None:
    before = said("corners", look())
    assert any("waist has a corner of 29.4° across the waist dart" in message for message in before)
    trued = said("corners", look(worked(TRUED).pattern))
    assert not any("waist dart" in message for message in trued)
    assert any("where front and back meet" in message for message in trued)


def test_a_closed_joint_with_a_corner_speaks() -> None:
    found = said("corners", look(worked([move("waist", "french")]).pattern))
    assert any("waist has a corner of 27.5° where it was cut and closed" in message for message in found)


def test_a_centre_that_is_not_square() -> None:
    pattern = real_pattern()
    tilted = bent(pattern, "front", "centre", (0.0, 0.0))
    assert not any("off square" in message for message in said("corners", look(tilted)))
    piece = pattern.piece("back")
    cubics = piece.runs[0].path.cubics.copy()
    cubics[0, 1] += (0.0, 8.0)
    run = dataclasses.replace(piece.runs[0], path=Path(cubics))
    changed = pattern.with_piece(dataclasses.replace(piece, runs=(run, *piece.runs[1:])))
    assert any("neckline leaves the centre" in message for message in said("corners", look(changed)))


@pytest.mark.parametrize(("setback", "words"), [("5 mm", "is sewn to 0.50 cm"), ("7 cm", "ends 7.00 cm"), ("2 cm", "")])
def test_the_sewn_point(setback: str, words: str) -> None:
    found = said("dart_point", look(finish=Finish(darts={"front.waist": DartFinish(setback=setback)})))
    assert [words in message for message in found] == ([True] if words else [])


def test_lost_fullness_is_an_error() -> None:
    assert said("fullness", look()) == []
    front = real_pattern().piece("front")
    lost = real_pattern().with_piece(
        dataclasses.replace(
            front,
            darts=tuple(dart for dart in front.darts if dart.id != "waist"),
            runs=tuple(dataclasses.replace(r, mouth=None if r.mouth == "waist" else r.mouth) for r in front.runs),
        )
    )
    (finding,) = [f for f in findings(look(lost)) if f.check == "fullness"]
    assert finding.severity is Severity.ERROR and finding.value == pytest.approx(14.053, abs=0.001)
    account = accounts(lost, real_pattern())[0]
    assert not account.is_whole and account.missing_deg == pytest.approx(14.053, abs=0.001)


def test_bulk_by_intake_and_by_angle() -> None:
    assert said("bulk", look()) == []
    pattern = worked([move("shoulder", "waist")]).pattern
    folded = Finish(end="cap")
    assert "takes in 9.0 cm" in said("bulk", look(pattern, folded))[0]
    assert said("bulk", look(pattern)) == []  # its inside is cut away by itself
    for end in ("cut_away", "press_away"):
        decided = Finish.model_validate({"end": "cap", "darts": {"front.waist": {"end": end}}})
        assert said("bulk", look(pattern, decided)) == []
    front = pattern.piece("front")
    pin = front.landmarks["bust_point"]
    near = dataclasses.replace(front, landmarks={**front.landmarks, "bust_point": (pin[0], pin[1] + 110.0)})
    assert any("°" in message for message in said("bulk", look(pattern.with_piece(near), folded)))


def test_a_crossing_outline_is_an_error() -> None:
    assert said("outline", look()) == []
    crossed = bent(real_pattern(), "front", "armhole", (-400.0, 0.0))
    assert any(f.severity is Severity.ERROR for f in findings(look(crossed)) if f.check == "outline")


def test_labels_grain_and_cut_order() -> None:
    assert said("labels", look()) == []
    bare = real_pattern().with_piece(dataclasses.replace(real_pattern().piece("front"), grain=None))
    assert said("labels", look(bare)) == ["the front has no grain line"]
    assert len(said("labels", look(style=" "))) == 2
    opened = worked([move("waist", "centre_bust")]).pattern
    assert said("labels", look(opened)) == []
    (message,) = said("labels", look(opened, Finish(cut={"front": "fold"})))
    assert "a dart opens on its centre" in message


def test_seams_and_girths() -> None:
    shoulder, side = seam_accounts(real_pattern(), {"front.shoulder": 3.0})
    assert shoulder.difference_mm == pytest.approx(0.0, abs=1e-5)
    assert side.a_mm == pytest.approx(192.8791, abs=1e-4)
    found = girths(real_pattern(), real_pattern())
    assert found.hip is None
    assert found.waist == pytest.approx(2 * (194.2273 + 189.5361), abs=0.001)
    moved = girths(worked([move("waist", "side_bust"), move("shoulder", "mid_neck")]).pattern, real_pattern())
    assert moved.bust == pytest.approx(found.bust) and moved.neck_opening == pytest.approx(found.neck_opening)


def test_a_dart_too_short_to_sew_is_offered_to_be_pressed_away() -> None:
    """1 to 1.5 cm is pressed away, 4 cm is sewn: common practice, no source. Pressed away, nothing asks for its point."""
    assert not [f for f in derive(style([])).findings if f.check == "too_short"]
    far = {"back.shoulder": DartFinish(setback="20 cm"), "front.waist": DartFinish(setback="20 cm")}
    found = derive(style([], finish=Finish(darts=far))).findings
    (finding,) = [f for f in found if f.check == "too_short"]
    assert finding.piece == "back" and finding.value < finding.limit == 15.0
    assert finding.mend is not None and finding.mend.finish == {"darts": {"back.shoulder": {"end": "press_away"}}}
    assert [f for f in found if f.check == "dart_point" and f.place == "waist"]
    away = {key: own.model_copy(update={"end": "press_away"}) for key, own in far.items()}
    pressed = derive(style([], finish=Finish(darts=away)))
    assert not [f for f in pressed.findings if f.check in ("too_short", "dart_point")]
    for piece, dart in (("back", "shoulder"), ("front", "waist")):
        finished = next(one for one in pressed.pieces if one.name == piece)
        assert dart not in {sewn.dart for sewn in finished.darts} and dart in {o.dart.id for o in finished.opened}


@pytest.mark.parametrize(("use", "over", "word"), [("gathers", "1.5 cm", "gathered"), ("ease", "30 cm", "eased")])
def test_what_cannot_be_taken_up_says_how_it_was_to_be(use: str, over: str, word: str) -> None:
    steps = [
        move("shoulder", "waist"),
        {"do": "dart.use", "on": "front", "dart": "waist", "as": use, "over": over, "cloth": "soft"},
    ]
    found = [f for f in derive(style(steps)).findings if f.check == "taken_up"]
    if use == "gathers":
        assert [word in f.message and "over 1.5 cm" in f.message for f in found] == [True]
    assert all(f.value > f.limit for f in found)


def test_pleats_in_each_others_way_are_found() -> None:
    """Two families of pleats pushed together by later moves: deeper than the space between them."""
    use = {"do": "dart.use", "on": "front", "dart": "shoulder", "as": "pleats", "count": 1}
    near = {"do": "dart.move", "on": "front", "dart": "waist", "to": {"edge": "shoulder", "at": "60%"}}
    steps = [use, near, {**use, "dart": "waist"}]
    (finding,) = [f for f in derive(style(steps)).findings if f.check == "taken_up"]
    assert finding.value > finding.limit > 0.0 and "deep and only" in finding.message


def test_girths_speak_against_the_body_and_the_wanted_ease() -> None:
    body = Scope("cm", {"waist": 900.0, "bust": 900.0})
    found = [f for f in findings(dataclasses.replace(look(), scope=body)) if f.check == "girths"]
    assert [f.place for f in found] == ["waist"] and "smaller than the body" in found[0].message
    assert found[0].value == pytest.approx(900.0 - (girths(real_pattern(), real_pattern()).waist or 0.0), abs=1e-6)
    wanted = Finish(wearing_ease={"bust": "1 cm"})
    found = [
        f for f in findings(dataclasses.replace(look(finish=wanted), scope=Scope("cm", {"bust": 900.0}))) if f.check == "girths"
    ]
    assert [f.place for f in found] == ["bust"] and "wider than the body with 1" in found[0].message
    exact = Finish(wearing_ease={"bust": f"{(girths(real_pattern(), real_pattern()).bust or 0.0) - 900.0} mm"})
    assert not [f for f in findings(dataclasses.replace(look(finish=exact), scope=body)) if f.place == "bust"]


def test_panels_checks_speak() -> None:
    made = worked([{"do": "line.princess", "on": "front"}]).pattern
    assert said("notches_meet", look(made)) == []
    side = made.piece("front_side")
    moved = tuple(dataclasses.replace(mark, at=dataclasses.replace(mark.at, u=mark.at.u + 0.01)) for mark in side.notches)
    assert len(said("notches_meet", look(made.with_piece(dataclasses.replace(side, notches=moved))))) >= 2
    gone = said("notches_meet", look(made.with_piece(dataclasses.replace(side, notches=side.notches[1:]))))
    assert gone == ["the above notch of front centre and front side has no partner"]
    passing = worked([{"do": "line.princess", "on": "front", "past": "2 cm", "rest": "dart"}]).pattern
    assert said("line_misses", look(passing)) == []
    centre = passing.piece("front_centre")
    away = dataclasses.replace(centre, landmarks={**centre.landmarks, "bust_point": (50.0, 250.0)})
    assert len(said("line_misses", look(passing.with_piece(away)))) == 1


def test_over_one_shoulder_no_truing_is_offered_that_cannot_be_done() -> None:
    """Side panels are cut for one side each by then: the button trued nothing."""
    lines = [{"do": "line.princess", "on": on, "from": {"station": "mid_armhole"}} for on in ("front", "back")]
    steps = [*lines, {"do": "neck.shape", "on": "front", "shape": "one_shoulder"}]
    found = [one for one in derive(style(steps)).findings if one.check == "corners"]
    assert any("before the whole is opened" in one.advice for one in found)
    for mend in [one.mend for one in found if one.mend is not None]:
        assert not derive(style([*steps, mend.step])).derivation.broken, mend
