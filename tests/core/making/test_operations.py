"""The sewing order: nothing asks for what comes later, and it is the order of the trade (common practice, no source)."""

from __future__ import annotations

import pytest

from tests.samples import hip_block, move, style
from tests.torture import recipes
from zesty_pivot.core.formats.derived import derive
from zesty_pivot.core.making.operations import SewingStep, sewing_order
from zesty_pivot.data.demo import demo_styles

STYLES = {one.name: one for one in demo_styles()}


def order_of(name: str) -> tuple[SewingStep, ...]:
    return sewing_order(derive(next(one for known, one in STYLES.items() if known.startswith(name))).pattern)


def place(order: tuple[SewingStep, ...], *said: str) -> int:
    """Where the operation stands whose words hold all of these."""
    (number,) = [n for n, one in enumerate(order) if all(word in one.says for word in said)]
    return number


def asks_for_nothing_later(order: tuple[SewingStep, ...]) -> None:
    seen: set[str] = set()
    for one in order:
        assert seen.issuperset(one.after), one
        assert one.id not in seen, one.id
        seen.add(one.id)
        assert one.says.endswith(".") and one.says[0].isupper() and 20 <= one.stitches <= 60


@pytest.mark.parametrize("name", list(STYLES))
def test_no_seam_of_a_demo_style_asks_for_one_that_comes_later(name: str) -> None:
    pattern = derive(STYLES[name]).pattern
    order = sewing_order(pattern)
    asks_for_nothing_later(order)
    # Every seam is sewn, once; every dart that is sewn, once; and a dart before the seam it opens in, looked up afresh.
    at = {one.id: n for n, one in enumerate(order)}
    for seam in pattern.seams:
        assert f"{seam.a}/{seam.b}" in at
    for piece in pattern.pieces:
        for dart in piece.darts:
            if dart.use != "dart":
                continue
            run = piece.mouth_run(dart.id)
            opens = {piece.runs[run].edge, piece.runs[piece.after(run)].edge}
            for seam in pattern.seams:
                if any(ref.piece == piece.name and ref.edge in opens for ref in seam.parts):
                    here = at[f"{piece.name}.{dart.id}"] < at[f"{seam.a}/{seam.b}"]
                    assert here or all(piece.role(edge) == "centre" for edge in opens), (piece.name, dart.id)


@pytest.mark.parametrize("seed", range(20))
def test_no_seam_of_a_random_style_does(seed: int) -> None:
    _block, made = recipes.random_style(seed)
    asks_for_nothing_later(sewing_order(derive(made).pattern))


def test_panels_before_shoulders_before_neck_before_hem() -> None:
    order = order_of("Canticle")
    panels = [place(order, "front centre princess"), place(order, "back centre princess")]
    shoulders = [place(order, "front centre shoulder"), place(order, "front side shoulder")]
    assert max(panels) < min(shoulders) < place(order, "neckline")
    assert max(shoulders) < place(order, "armhole") and place(order, "side side seam") < place(order, "armhole")
    assert place(order, "CB seam") < place(order, "neckline") and order[-1].says == "Turn up the waist."
    assert max(panels) < place(order, "side side seam")


def test_the_zip_goes_in_before_the_neck_is_faced_and_facings_are_joined_first() -> None:
    order = order_of("Antiphon")
    facing = place(order, "facing", "together")
    assert "armhole and the neckline" in order[facing].says
    assert place(order, "front shoulder") < facing and place(order, "front side seam") < facing
    order = order_of("Rondel")
    assert place(order, "zip of 30 cm", "CB") < place(order, "neckline frill")
    assert place(order, "side dart") < place(order, "front side seam") < place(order, "waist peplum front")


def test_what_is_pressed_away_is_not_sewn_and_a_hem_is_a_hem() -> None:
    pattern = derive(style([move("shoulder", "french")], hip_block()) if False else style([], hip_block())).pattern
    order = sewing_order(pattern)
    assert any("hem" in one.says for one in order) and not any("waist." in one.says and "Turn" in one.says for one in order)
    dart = pattern.piece("front").darts[0].id
    fewer = sewing_order(pattern, frozenset({f"front.{dart}"}))
    assert len(fewer) == len(order) - 1
