"""The time of a job beside what the shop's own log planned; whose clock runs."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from vallostasis.core.hours.time_of_job import TimeOfJob, time_of
from vallostasis.core.route.clocks import Running, clocks_of
from vallostasis.services.shop_time import learned_hours
from vallostasis.store import jobs
from vallostasis.store.job_facts import load_job_facts
from vallostasis.store.rows import Conn


@dataclass(frozen=True, slots=True)
class HoursNow:
    """The time of a job, and the clocks that run on it."""

    time: TimeOfJob
    running: tuple[Running, ...]


def hours_now(conn: Conn, job_id: UUID, now: datetime) -> HoursNow:
    """Add up the time of a job, with hours planned as all jobs of the shop taught them."""
    every = [load_job_facts(conn, one.job_id) for one in jobs.list_jobs(conn)]
    facts = next((one for one in every if one.job.job_id == job_id), None) or load_job_facts(conn, job_id)
    return HoursNow(time_of(facts, learned_hours(every, now), now), clocks_of(facts, now).running)


def running_now(conn: Conn, job_id: UUID, now: datetime) -> tuple[Running, ...]:
    """Return the clocks that run on a job."""
    return clocks_of(load_job_facts(conn, job_id), now).running
