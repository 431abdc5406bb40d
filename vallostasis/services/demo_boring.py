"""Playing the boring of an invented cylinder into the store: decided, set up, pass by pass, looked at."""

from uuid import UUID, uuid4

from vallostasis.core.records.bar_settings import BoreDatum
from vallostasis.core.records.bore_decisions import BoreChoice, LookOutcome, UseProfile
from vallostasis.core.records.route_marks import MarkKind, Operation
from vallostasis.demo import winding_engine
from vallostasis.demo.route_play import MarkPlay
from vallostasis.services import bore_decisions, boring
from vallostasis.services.demo_route import play_mark
from vallostasis.services.route import AtOperation, mark_operation
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

HOLE = 1


def bore_tamsin(conn: Conn, job_id: UUID, people: dict[str, UUID]) -> None:
    """One cylinder to the first step of its ladder: its piston is made to it."""
    ines, tobiah = people["Ines"], people["Tobiah"]
    step = load_job_facts(conn, job_id).card.bores.ladder[0].oversize.um
    decided = bore_decisions.Decided(uuid4(), HOLE, BoreChoice.OVERSIZE, step, "", None,
                                     "clears by the wall map, leaves two more", "", UseProfile.LIGHT, "")  # fmt: skip
    bore_decisions.decide_bore(conn, job_id, decided, ines)
    play_mark(conn, job_id, people, MarkPlay(Operation.DECIDE, "Ines", 0, "agreed with the trust by letter"))
    play_mark(conn, job_id, people, MarkPlay(Operation.PLUG, "Wren", 0, "both steam ports", count=2))
    bar = boring.BarSet(uuid4(), HOLE, BoreDatum.COUNTERBORE, ("12.04 mm", "12.03 mm", "12.03 mm", "12.03 mm"),
                        level="the planed end face, 0.02 mm a metre both ways",
                        not_to_cut="the valve face: scraped in to its chest", words="bar borne at both ends",
                        bare_unit="mm", confirmed=True)  # fmt: skip
    boring.record_setting(conn, job_id, bar, tobiah)
    looked = AtOperation(Operation.BORE, HOLE)
    mark_operation(conn, job_id, looked, MarkKind.ZERO_LOOKED, tobiah, "probe on the ring, dial at nought")
    for one in winding_engine.bar_passes():
        made = boring.PassMade(uuid4(), HOLE, one.kind, one.dial, one.diameter, "30", one.minutes, one.words, "mm",
                               confirmed=True, hold_reason="one cylinder, and it is the worst")  # fmt: skip
        boring.record_pass(conn, job_id, made, tobiah)
    play_mark(conn, job_id, people, MarkPlay(Operation.BORE, "Tobiah", 0.05, "tip of carbide, 0.1 mm a turn", HOLE))


def look_at_tamsin(conn: Conn, job_id: UUID, people: dict[str, UUID]) -> None:
    """What was seen of it once it was read again."""
    look = bore_decisions.Looked(uuid4(), HOLE, LookOutcome.CLEAN, "bright all round, both counterbores too", None, "")
    bore_decisions.look_at_bore(conn, job_id, look, people["Wren"])
