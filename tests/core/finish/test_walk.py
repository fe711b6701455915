"""Walking seams: rolled without slipping, differences at their place, notches that meet or miss."""

import numpy as np
import pytest
import shapely

from tests.core.finish.built_in import with_built_in
from tests.samples import move, real_pattern, worked
from zesty_pivot.core.errors import PlaceError
from zesty_pivot.core.finish.balance import balance_point, is_beside_a_dart
from zesty_pivot.core.finish.walk import Walk, walk
from zesty_pivot.core.piece import EdgeRef, Pattern, Place

ENDS = ("underarm", "side waist")


def side(pattern: Pattern) -> Walk:
    return walk(pattern, EdgeRef.read("front.side_seam"), EdgeRef.read("back.side_seam"), ENDS)


def test_a_built_in_difference_shows_at_its_place() -> None:
    """4 mm more in the last third: no difference before it, all of it after, and the balance notch still meets."""
    found = side(with_built_in(4.0, 0.7, 1.0))
    assert found.difference_mm == pytest.approx(4.0, abs=1e-3)
    size = found.a.length
    assert found.running(0.3 * size) == pytest.approx(0.0, abs=1e-3)
    assert found.running(0.69 * size) == pytest.approx(0.0, abs=1e-3)
    assert found.running(0.85 * size) == pytest.approx(2.0, abs=0.05)
    assert found.running(size) == pytest.approx(4.0, abs=1e-3)
    assert [round(stretch.difference_mm, 2) for stretch in found.stretches] == [0.0, 4.0]
    assert next(n for n in found.notches if n.title == "balance notch").meets


def test_a_difference_before_the_notch_makes_it_miss() -> None:
    found = side(with_built_in(4.0, 0.1, 0.4))
    notch = next(n for n in found.notches if n.title == "balance notch")
    assert notch.difference_mm == pytest.approx(4.0, abs=1e-3) and not notch.meets
    assert [round(stretch.difference_mm, 2) for stretch in found.stretches] == [4.0, 0.0]


@pytest.mark.parametrize("steps", [[], [move("shoulder", "french")], [move("waist", "side_bust", share="50%")]])
def test_b_rolls_along_a_without_slipping(steps: list) -> None:
    """At every distance both lines touch in one point with one direction, the pieces lie on different sides."""
    found = side(worked(steps).pattern if steps else real_pattern())
    for share in np.linspace(0.0, 1.0, 23):
        at = share * min(found.a.length, found.b.length)
        motion = found.laid(at)
        assert np.hypot(*(motion(found.b.point(at)) - found.a.point(at))) < 1e-9
        along = motion(found.b.point(at) + found.b.direction(at)) - motion(found.b.point(at))
        assert along @ found.a.direction(at) == pytest.approx(1.0, abs=1e-9)
        normal = np.array([-found.a.direction(at)[1], found.a.direction(at)[0]])
        inside = [_centre(s.piece) for s in (found.a, found.b)]
        heights = [(inside[0] - found.a.point(at)) @ normal, (motion(inside[1]) - found.a.point(at)) @ normal]
        assert heights[0] * heights[1] < 0


def _centre(piece) -> np.ndarray:  # type: ignore[no-untyped-def]
    ring = np.concatenate([run.path.outline for run in piece.runs])
    return np.array(shapely.Polygon(ring).buffer(0.0).centroid.coords[0])


def test_darts_on_the_seam_are_shut_and_their_notches_told() -> None:
    found = side(worked([move("shoulder", "french")]).pattern)
    told = {notch.title: notch for notch in found.notches}
    lonely = told["French dart, front"]
    assert lonely.b_mm is None and not lonely.meets and lonely.a_mm == pytest.approx(0.85 * found.a.length)
    shoulders = walk(
        real_pattern(), EdgeRef.read("front.shoulder"), EdgeRef.read("back.shoulder"), ("neck point", "shoulder tip")
    )
    pair = next(notch for notch in shoulders.notches if notch.title == "shoulder dart")
    assert pair.difference_mm == pytest.approx(pair.b_mm - pair.a_mm) and not pair.meets
    assert shoulders.difference_mm == pytest.approx(3.0, abs=0.01)  # the real block's ease in the back shoulder
    assert sum(s.difference_mm for s in shoulders.stretches) == pytest.approx(shoulders.difference_mm)


def test_unknown_edges_are_refused() -> None:
    with pytest.raises(PlaceError, match="sleeve"):
        walk(real_pattern(), EdgeRef.read("front.sleeve"), EdgeRef.read("back.side_seam"), ENDS)


def test_balance_notches_go_with_the_cloth() -> None:
    """Half way along the block's edge, wherever a dart has been opened meanwhile."""
    piece = worked([move("shoulder", "side_bust")]).pattern.piece("front")
    place = balance_point(piece, "side_seam")
    assert place is not None
    run = piece.runs[place.run]
    assert run.source.at(place.at / run.path.length) == pytest.approx(0.5, abs=1e-9)
    assert balance_point(piece, "shoulder") is None and balance_point(piece, "waist") is None
    here = worked(
        [{"do": "dart.move", "on": "front", "dart": "waist", "to": {"edge": "side_seam", "at": "50%"}}]
    ).pattern.piece("front")
    assert is_beside_a_dart(here, balance_point(here, "side_seam"))
    assert not is_beside_a_dart(piece, Place(place.run, place.at))


def test_darts_and_notches_are_as_far_from_the_other_end() -> None:
    found = side(worked([move("shoulder", "side_bust"), move("waist", "french", on="back")]).pattern)
    back = found.turned()
    assert back.ends == (found.ends[1], found.ends[0]) and found.stretches[0].start == ENDS[0]
    assert {notch.title for notch in back.notches} == {notch.title for notch in found.notches}
    other = {notch.title: notch for notch in back.notches}
    for notch in found.notches:
        there = other[notch.title]
        for mine, theirs, long in ((notch.a_mm, there.a_mm, found.a.length), (notch.b_mm, there.b_mm, found.b.length)):
            assert (mine is None) == (theirs is None)
            if mine is not None and theirs is not None:
                assert mine + theirs == pytest.approx(long, abs=1e-6)
    front = next(notch for notch in found.notches if notch.title.startswith("side dart"))
    assert front.a_mm == pytest.approx(0.2 * found.a.length, abs=1e-6)
