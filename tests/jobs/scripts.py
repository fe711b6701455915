"""The jobs of a pattern room as scripts of mouse and keys, each with figures of its own for what must come out."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from tests.jobs import bodies, darts, fullness, lines_across, necks, next_client, to_table, tops
from tests.jobs.hand import Hand
from tests.samples import move
from zesty_pivot.core.finish.piece import FinishedPiece

TO_WAIST = move("shoulder", "waist")  # makes a two-dart block one with one dart
SIDE_TO_WAIST = {"do": "dart.move", "on": "front", "dart": "side", "to": {"station": "waist"}}


@dataclass(frozen=True)
class Job:
    """A job: minutes by hand, the script, what is checked on the written pieces, and what the table before it lies like."""

    title: str
    by_hand: float
    script: Callable[[Hand], None]
    check: Callable[[dict[str, FinishedPiece], Any], str] | Callable[[dict[str, FinishedPiece], Any, dict[str, Any]], str]
    one_dart: bool = False


JOBS = {
    "J01": Job("hip block", 26.0, bodies.j01, bodies.j01_check),
    "J02": Job("nine necklines", 21.0, necks.j02, necks.j02_check),
    "J03": Job("seven necklines", 16.0, necks.j03, necks.j03_check),
    "J04": Job("blouse front", 10.0, bodies.j04, bodies.j04_check),
    "J06": Job("child", 7.0, bodies.j06, bodies.j06_check),
    "J05": Job("dart to shoulder", 13.0, darts.j05, darts.j05_check, one_dart=True),
    "J07": Job("canoe", 10.0, necks.j07, necks.j07_check),
    "J08": Job("necklines in order", 29.0, necks.j08, necks.j08_check),
    "J09": Job("flare under a line", 17.0, lines_across.j09, lines_across.j09_check),
    "J10": Job("bustier", 16.0, tops.j10, tops.j10_check),
    "J11": Job("slash and close", 12.0, darts.j11, darts.j11_check, one_dart=True),
    "J12": Job("one shoulder", 17.0, tops.j12, tops.j12_check),
    "J13": Job("two equal darts", 7.0, darts.j13, darts.j13_check),
    "J14": Job("strapless with bands", 13.0, tops.j14, tops.j14_check, one_dart=True),
    "J15": Job("peplum bodice", 18.0, tops.j15, tops.j15_check),
    "J20": Job("half block", 20.0, bodies.j20, bodies.j20_check),
    "J21": Job("basic block", 14.0, bodies.j21, bodies.j21_check),
    "J16": Job("camisole", 11.0, tops.j16, tops.j16_check),
    "J17": Job("five places by slash", 26.0, darts.j17, darts.j17_check),
    "J18": Job("five places by pivot", 11.0, darts.j18, darts.j18_check),
    "J19": Job("wrap", 13.0, necks.j19, necks.j19_check),
    "J22": Job("yoke blouse", 25.0, fullness.j22, fullness.j22_check),
    "J23": Job("pleated front", 20.0, fullness.j23, fullness.j23_check, one_dart=True),
    "J24": Job("cowl", 20.0, fullness.j24, fullness.j24_check),
    "J27": Job("to the table", 30.0, to_table.j27, to_table.j27_check),
    "J26": Job("next client", 480.0, next_client.j26, next_client.j26_check),
    "J25": Job("draped side", 25.0, fullness.j25, fullness.j25_check, one_dart=True),
}

NOT_YET: dict[str, tuple[str, int, str]] = {}
