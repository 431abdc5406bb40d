"""Playing the drops of an invented job into the store, each moment at its own time."""

from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

from vallostasis.core.heat.plan import Tried
from vallostasis.core.heat.planner import WANTED_M
from vallostasis.core.records.heat_runs import HEIGHTS, READY, TEMPERATURES
from vallostasis.demo.heat_play import DropMarkPlay, DropPlay
from vallostasis.services import heat_runs
from vallostasis.store.rows import Conn

HOLD_REASON = "the seals are put in after the oven, by the card"


def play_drop(conn: Conn, job_id: UUID, people: dict[str, UUID], play: DropPlay) -> None:
    """Drop a liner as it went; one without moments stays ready to come out of the cold."""
    by, heat_run_id = people[play.calls], uuid4()
    out = datetime.now(UTC) - timedelta(hours=play.ago_h)
    tried = Tried(play.block_c, play.liner_c, WANTED_M, 21.0, 0.5, play.enter_s, play.home_s, play.block_kg, True)
    heat_runs.begin_drop(conn, None, job_id, heat_runs.DropBegun(
        heat_run_id, play.hole, play.liner, tried, True, play.drops, play.calls, HOLD_REASON), by)  # fmt: skip

    def note(mark: DropMarkPlay) -> None:
        celsius = mark.read if mark.kind in TEMPERATURES else ""
        height = mark.read if mark.kind in HEIGHTS else ""
        noted = heat_runs.DropNoted(uuid4(), mark.kind, celsius, height, mark.words, "thou", True,
                                    out + timedelta(seconds=mark.after_s))  # fmt: skip
        heat_runs.note_on_drop(conn, None, job_id, heat_run_id, noted, by)

    for kind in READY:
        note(DropMarkPlay(-60.0, kind))
    for mark in play.marks:
        note(mark)
