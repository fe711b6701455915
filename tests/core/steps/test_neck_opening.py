"""neck.opening: zips and slits where the head does not pass."""

from __future__ import annotations

import pytest

from tests.core.steps.after_steps import sound, worked
from tests.core.steps.necks import made
from tests.samples import real_pattern, style
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.ledger.opening import HEAD, opened
from zesty_pivot.core.piece import place as places


def test_the_opening_counts_the_edge_and_both_sides_of_a_slit() -> None:
    """56 to 58 cm for women, the middle taken: from memory of size tables, common practice, no source."""
    plain = opened(real_pattern(), {}, 0.0)
    assert plain is not None and not plain.is_measured and plain.head_mm == HEAD == 570.0
    whole = 2.0 * sum(piece.edge("neckline").sewn_length for piece in real_pattern().pieces)
    assert plain.whole_mm == pytest.approx(whole) and plain.short_mm == pytest.approx(570.0 - whole)
    slit = opened(sound({"do": "neck.opening", "on": "back", "kind": "slit", "length": "10 cm"}), {"head": 560.0}, 0.0)
    assert slit is not None and slit.is_measured and slit.stretched_mm == pytest.approx(whole + 200.0) and slit.short_mm < 0.0
    knit = opened(real_pattern(), {}, "50%")
    assert knit is not None and knit.stretched_mm == pytest.approx(1.5 * whole) and knit.short_mm < 0.0


def test_an_opening_is_counted_from_the_neckline_as_it_is() -> None:
    slit = {"do": "neck.opening", "on": "back", "kind": "slit", "length": "12 cm"}
    deeper = {"do": "neck.shape", "on": "front", "shape": "round", "back_depth": "7 cm"}
    counts = []
    for steps in ((slit,), (slit, deeper)):
        found = opened(sound(*steps), {}, 0.0)
        assert found is not None
        counts.append(found.opens_mm)
    assert counts[0] == pytest.approx(240.0) and counts[1] == pytest.approx(240.0 - 2.0 * (70.0 - 22.0), abs=1e-6)
    gone = opened(sound(slit, {**deeper, "back_depth": "16 cm"}), {}, 0.0)
    assert gone is not None and gone.opens_mm == 0.0


def test_a_slit_neckline_is_marked_where_it_ends() -> None:
    front = sound({"do": "neck.shape", "on": "front", "shape": "slit", "slit": "18 cm"}).piece("front")
    (mark,) = [mark for mark in front.notches if mark.id == "slit.end"]
    place = places.by_origin(front, mark.at)
    assert places.point(front, place)[1] == pytest.approx(180.0, abs=1e-6)


def test_a_slit_is_a_cut_line_on_the_sheet() -> None:
    for steps, name, long in (
        ([{"do": "neck.opening", "on": "back", "kind": "slit", "length": "9 cm"}], "back", 90.0),
        ([{"do": "neck.shape", "on": "front", "shape": "slit", "depth": "9 cm", "slit": "17 cm"}], "front", 80.0),
    ):
        piece = next(found for found in derive(style(steps)).pieces if found.name == name)
        (slit,) = [stroke for stroke in piece.strokes if stroke.id == "slit"]
        assert slit.layer == "cut" and sum(path.length for path in slit.paths) == pytest.approx(long, abs=1e-6)


def test_the_shortest_zip_lets_the_head_through() -> None:
    found = opened(real_pattern(), {"head": 700.0}, 0.0)
    assert found is not None and found.zip_mm % 5.0 == 0.0
    after = opened(sound({"do": "neck.opening", "on": "back", "length": f"{found.zip_mm} mm"}), {"head": 700.0}, 0.0)
    assert after is not None and -10.0 <= after.short_mm <= 0.0


@pytest.mark.parametrize("shape", ["wrap", "strapless", "camisole", "off_shoulder"])
def test_what_goes_round_no_neck_needs_no_opening(shape: str) -> None:
    assert opened(made(real_pattern(), shape), {}, 0.0) is None


def test_a_zip_makes_the_centre_a_seam_and_a_slit_keeps_the_fold() -> None:
    zipped = sound({"do": "neck.opening", "on": "back"})
    assert zipped.piece("back").fold is None and zipped.openings[0].length_mm == pytest.approx(180.0) and not zipped.extras
    slit = sound({"do": "neck.opening", "on": "front", "kind": "slit", "length": "9 cm"})
    assert slit.piece("front").fold == "centre" and [extra.kind for extra in slit.extras] == ["facing"]
    assert any(mark.id == "slit.end" for mark in slit.piece("front").notches)


def test_openings_that_cannot_be_are_refused() -> None:
    for more, what in (({"length": "80 cm"}, "80.0 cm"), ({"length": "5 mm"}, "0.5 cm"), ({"on": "side"}, "no piece")):
        ((_number, fault),) = worked({"do": "neck.opening", "on": "back", **more}).broken
        assert what in str(fault)
    twice = worked({"do": "neck.opening", "on": "back"}, {"do": "neck.opening", "on": "back", "kind": "slit"})
    assert "already has an opening" in str(twice.broken[0][1])
