"""From which day on something can be done that waits: by what was said, else by what is usual."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.route_marks import Wait, WaitCause
from vallostasis.core.route.clocks import days_expected

# Days until what nobody gave a day for. Common practice, no published source.
USUAL_DAYS = {
    WaitCause.PART: 35,
    WaitCause.TOOL: 7,
    WaitCause.PERSON: 2,
    WaitCause.MACHINE: 2,
    WaitCause.TEMPERATURE: 1,
    WaitCause.CUSTOMER: 3,
}
# What comes by carrier may come late; a temperature and an own machine come as they were said. House rule.
MAY_BE_LATE = (WaitCause.PART, WaitCause.TOOL, WaitCause.CUSTOMER)


@dataclass(frozen=True, slots=True)
class Ready:
    """The day from which something can be done, over how many days it was waited for, whether it may slip. [d]"""

    day: date
    lead_days: float
    may_be_late: bool


def ready_of(waits: Iterable[Wait], facts: JobFacts, now: datetime) -> Ready | None:
    """Say from which day on something can be done that waits.

    Parameters
    ----------
    waits : iterable of Wait
        What it waits for, as it is expected now.
    facts : JobFacts
        The job; days that were moved hold.
    now : datetime
        What was expected before it and is not here counts as expected now.

    Returns
    -------
    Ready or None
        The last of them; None where it waits for nothing. Usual days where nobody said one: common practice.
    """
    moved = days_expected(facts)
    found = []
    for one in waits:
        expected = moved.get(one.wait_id, one.expected)
        day = expected or (one.since + timedelta(days=USUAL_DAYS[one.cause])).date()
        lead = max((day - one.since.date()).days, 0)
        # What should be here and is not comes tomorrow at the earliest, and is as uncertain as a week.
        overdue = day < now.date()
        found.append(Ready(now.date() + timedelta(days=1) if overdue else day, float(max(lead, 7) if overdue else lead),
                           one.cause in MAY_BE_LATE))  # fmt: skip
    return max(found, key=lambda one: one.day, default=None)


def lateness_of(jobs: Sequence[JobFacts]) -> tuple[float, ...]:
    """Return by how much what was expected came late, as shares of the time it was waited for.

    Parameters
    ----------
    jobs : sequence of JobFacts
        Of the shop, finished ones too.

    Returns
    -------
    tuple of float
        One for each wait that ended and had a day: as it was said first. By definition.
    """
    found = []
    for facts in jobs:
        for one in facts.standing(facts.waits):
            end = facts.standing_wait_ends.get(one.wait_id)
            if end is None or one.expected is None or one.cause not in MAY_BE_LATE:
                continue
            lead = (one.expected - one.since.date()).days
            if lead > 0:
                found.append((end.ended.date() - one.expected).days / lead)
    return tuple(found)
