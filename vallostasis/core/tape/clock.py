"""Times that the order of events contradicts. House rule: the order is what was, a clock can have been wrong."""

from datetime import datetime, timedelta

from vallostasis.core.records.job_facts import JobFacts
from vallostasis.core.records.once import once
from vallostasis.core.tape.fact_kinds import FACT_KINDS

# Two who record at once wait for each other: what waited bears the time at which it began to.
WAITED_AT_MOST = timedelta(minutes=1)
# What bears the moment at which it was taken: a bench whose link was down sends it later.
TAKEN_BEFORE = frozenset((
    "readings", "temperatures", "run_passes", "run_marks", "heat_runs", "heat_marks", "pulls", "pull_marks",
    "hone_rounds", "hone_marks", "boring_passes", "tightenings", "bolt_marks",
))  # fmt: skip


@once
def against_the_clock(facts: JobFacts) -> frozenset[int]:
    """Return the events that bear a time before that of something recorded earlier, by more than a minute.

    House rule: somebody set the clock back, or it was ahead before.
    """
    found: set[int] = set()
    latest: datetime | None = None
    for event, at in sorted(_recorded(facts)):
        if latest is not None and at < latest - WAITED_AT_MOST:
            found.add(event)
        latest = at if latest is None else max(latest, at)
    return frozenset(found)


def _recorded(facts: JobFacts) -> list[tuple[int, datetime]]:
    """When each event was recorded; what says only when it was taken is left out."""
    return [
        (fact.event, kind.recorded(fact)[0])
        for kind in FACT_KINDS
        if kind.who and kind.rows not in TAKEN_BEFORE
        for fact in getattr(facts, kind.rows)
    ] + [(one.event, one.recorded_at) for one in facts.readings if one.recorded_at is not None]
