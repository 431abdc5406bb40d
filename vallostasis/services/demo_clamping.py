"""Playing plates and caps of the invented shop into the store."""

from uuid import UUID, uuid4

from vallostasis.core.clamping.progress import Progress, progress_of
from vallostasis.core.records.clamping import BoltMarkKind, Clamp, FixtureKind
from vallostasis.services import clamping
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn

FIXTURES = (
    clamping.FixtureTyped("Tarrick plate", FixtureKind.PLATE, "Tarrick Four", "44", "steel",
                          "two holes drawn out to 13 mm for the later studs", "lift with two eye bolts"),
    clamping.FixtureTyped("Twin plate", FixtureKind.PLATE, "Ostrel Twin", "50", "grey iron"),
    clamping.FixtureTyped("Long bar", FixtureKind.BAR, "bores from 85 mm, up to 1.2 m long", "", "steel", "",
                          "straight within a thou on its length"),
    clamping.FixtureTyped("Paired blocks", FixtureKind.BLOCKS, "any block with a flat sump rail", "100", "grey iron",
                          "", "ground as a pair"),
)  # fmt: skip
# The bolt that was not tight yet when all were tried once more.
MOVES = 7


def _now(conn: Conn, job_id: UUID) -> Progress:
    facts = load_job_facts(conn, job_id)
    return progress_of(facts, facts.tightenings[-1])


def load_fixtures(conn: Conn, people: dict[str, UUID]) -> None:
    """Write down the shop's plates and fixtures."""
    for one in FIXTURES:
        clamping.save_fixture(conn, one, people["Ines"])


def tighten_marram(conn: Conn, job_id: UUID, people: dict[str, UUID]) -> None:
    """The plate that its bores were read under: ten studs, one moved on when tried; taken off after the readings."""
    begun, by = uuid4(), people["Tobiah"]
    card = load_job_facts(conn, job_id).card.bores
    typed = clamping.TighteningTyped(begun, Clamp.PLATE, 10, "", "Tarrick plate", card.plate_gasket,
                                     card.plate_fasteners, words="threads oiled")  # fmt: skip
    clamping.begin_tightening(conn, job_id, typed, by)
    while (bolt := (now := _now(conn, job_id)).bolt) is not None:
        kind = BoltMarkKind.HELD if now.is_trial else BoltMarkKind.TURNED
        is_loose = bolt == MOVES and now.is_trial and now.turn == len(now.begun.stages) + 1
        clamping.mark_bolt(conn, job_id, begun, uuid4(), bolt, BoltMarkKind.MOVED if is_loose else kind, "", "", by)
    clamping.take_off(conn, job_id, begun, uuid4(), "bores read under it", by)
