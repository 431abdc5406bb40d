"""Playing the honing of an invented job into the store, round by round."""

from uuid import UUID, uuid4

from vallostasis.core.records.honing import HoneAim, HoneDrive, HoneMethod
from vallostasis.demo.narrow_boat_brindle import WHY_BORED, HoneRoundPlay
from vallostasis.services import honing
from vallostasis.store.rows import Conn

HOLE = 2


def set_demo_hone(conn: Conn, job_id: UUID, people: dict[str, UUID]) -> None:
    """Write down how the hole is honed."""
    made = honing.HoneSet(uuid4(), HOLE, HoneAim.PISTON, HoneMethod.OIL, HoneDrive.MACHINE, 70, 220, "1.2 thou",
                          "0.1 thou", "9.5 in", "3 in", "1.6 in", "90", "", "45", "a block of ash on the web",
                          confirmed=True)  # fmt: skip
    honing.record_hone_setting(conn, job_id, made, people["Ines"])


def play_round(conn: Conn, job_id: UUID, people: dict[str, UUID], play: HoneRoundPlay) -> None:
    """One round, begun and stopped."""
    round_id, by = uuid4(), people["Ines"]
    honing.begin_round(conn, job_id, HOLE, HoneAim.PISTON, play.stage, round_id, WHY_BORED, by)
    honing.stop_round(conn, job_id, HOLE, round_id, uuid4(), play.strokes, by)
