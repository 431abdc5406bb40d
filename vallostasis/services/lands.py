"""The lands of a make over all jobs, batches that are off alike, an old part against a new one."""

from dataclasses import dataclass
from uuid import UUID

from vallostasis.core.lands.batches import BatchAlert, batch_alerts, off_liners
from vallostasis.core.lands.land_map import LandCompared, LandMap, LinerRead, compared, land_map, liners_read, verdict
from vallostasis.services.refused import Refused
from vallostasis.store import jobs
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class LandsNow:
    """Makes with how many of their liners were read, the map of one of them, batches that are off alike.

    ``unread`` are the lands that a card names and nobody read on a liner of that make.
    """

    makes: dict[str, int]
    shown: LandMap | None
    liners: tuple[LinerRead, ...]
    alerts: tuple[BatchAlert, ...]
    unread: tuple[str, ...]


def _all_liners(conn: Conn) -> tuple[LinerRead, ...]:
    return tuple(one for job in jobs.list_jobs(conn) for one in liners_read(load_job_facts(conn, job.job_id)))


def _alerts(conn: Conn) -> tuple[BatchAlert, ...]:
    return batch_alerts([one for job in jobs.list_jobs(conn) for one in off_liners(load_job_facts(conn, job.job_id))])


def lands_now(conn: Conn, make: str) -> LandsNow:
    """Return the makes whose lands were read, and the map of one: the most read where none is named."""
    liners = _all_liners(conn)
    makes: dict[str, int] = {}
    for one in liners:
        makes[one.make] = makes.get(one.make, 0) + 1
    named = make or max(makes, key=lambda name: makes[name], default="")
    if make and make not in makes:
        raise Refused(f"No flange of a “{make}” was read yet.", "make")
    shown = land_map(liners, named) if named else None
    read = set() if shown is None else {one.land for one in shown.lands}
    unread = _lands_of_cards(conn, {one.job_id for one in liners if one.make == named}) - read
    return LandsNow(makes, shown, liners, _alerts(conn), tuple(sorted(unread)))


def _lands_of_cards(conn: Conn, job_ids: set[UUID]) -> set[str]:
    return {land.name for job_id in job_ids for land in load_job_facts(conn, job_id).card.lands}


def alerts_of_job(conn: Conn, job_id: UUID) -> tuple[BatchAlert, ...]:
    """Return the alerts of batches of which this job holds a liner, in a hole or still in its box."""
    mine = {(one.make, one.batch) for one in load_job_facts(conn, job_id).liners}
    return tuple(one for one in _alerts(conn) if (one.make, one.batch) in mine)


def compare(conn: Conn, old: UUID, new: UUID) -> tuple[tuple[LandCompared, ...], str]:
    """Hold an old part against a new one on every land that any liner of their makes was read on, or a card names."""
    liners = _all_liners(conn)
    found = {one.liner_id: one for one in liners}
    for liner_id, field in ((old, "old"), (new, "new")):
        if liner_id not in found:
            raise Refused("No flange of this liner was read yet.", field)
    a, b = found[old], found[new]
    named = {land for one in liners if one.make in (a.make, b.make) for land in one.lands}
    rows = compared(a, b, sorted(named | _lands_of_cards(conn, {a.job_id, b.job_id})))
    return rows, verdict(rows)
