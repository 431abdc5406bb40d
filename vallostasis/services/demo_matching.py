"""Playing the order of liners that was taken on the hauler: the sunk hole gets the spare with the thicker flange."""

from uuid import UUID

from vallostasis.core.matching.of_job import MatchWishes, matching_of
from vallostasis.services.matching import choose_matching
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


def take_order(conn: Conn, job_id: UUID, people: dict[str, UUID]) -> None:
    """Take the best exchange without a cut, as it is worked out."""
    wishes = MatchWishes(cuts=False)
    found = matching_of(load_job_facts(conn, job_id), wishes)
    if not isinstance(found, str):
        choose_matching(conn, job_id, wishes, found.order, people["Tobiah"])
