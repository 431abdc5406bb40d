"""Playing the trail of a false lead: what was looked at on the main job before anybody thought of the lip."""

from uuid import UUID, uuid4

from vallostasis.core.records.experiments import Matter
from vallostasis.services import causes
from vallostasis.store.rows import Conn

# Check, hole, who, expected, what came of it [µm], minutes, words.
TRAIL = (
    ("look at the zero of the gauge again", (), "Tobiah", "some 90 off, if the zero moved", "+1", 4,
     "not the zero of the sled"),
    ("clamp to more torque and read again", (3,), "Wren", "lower than before, if the seal pushes back", "-1", 12,
     "70 to 110 N·m: not the clamp"),
)  # fmt: skip


def play_false_leads(conn: Conn, job_id: UUID, people: dict[str, UUID]) -> None:
    """Put on record what was tried in vain, each with what was expected of it."""
    for check, holes, who, expected, read, minutes, words in TRAIL:
        one = uuid4()
        change = f"{check}, hole {holes[0]}" if holes else check
        begun = causes.Begin(one, Matter.HEIGHTS, check, holes, change, expected)
        causes.begin_experiment(conn, job_id, begun, people[who])
        causes.settle_experiment(conn, job_id, one, causes.CameOf(read, "µm", words, minutes, None), people[who])
